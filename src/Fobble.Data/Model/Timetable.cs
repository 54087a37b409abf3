using Fobble.Core.Calendars;
using Fobble.Core.Planning;

namespace Fobble.Data.Model;

public sealed class TermRow
{
    public int Id { get; set; }

    public int SchoolId { get; set; }

    public required string Name { get; set; }

    public Season Season { get; set; }

    public DateOnly First { get; set; }

    public DateOnly Last { get; set; }
}

/// <summary>Days that are not as usual: of the whole school, or of one class.</summary>
public sealed class ClosureRow
{
    public int Id { get; set; }

    public int SchoolId { get; set; }

    /// <summary>Null for the whole school.</summary>
    public int? ClassId { get; set; }

    public ClosureKind Kind { get; set; }

    public TimeOnly? OpenFrom { get; set; }

    public TimeOnly? OpenUntil { get; set; }

    public required string Name { get; set; }

    public DateOnly First { get; set; }

    public DateOnly Last { get; set; }
}

public sealed class LessonSlotRow
{
    public int Id { get; set; }

    public int ClassId { get; set; }

    public SlotKind Kind { get; set; }

    public DayOfWeek Weekday { get; set; }

    public TimeOnly Start { get; set; }

    public int Minutes { get; set; }

    public int AdultId { get; set; }

    public Adult? Adult { get; set; }

    public required string Where { get; set; }

    /// <summary>No longer in the timetable; kept for the sessions that were held in it.</summary>
    public bool Retired { get; set; }
}

/// <summary>A day of the plan as decided.</summary>
public sealed class PlannedDayRow
{
    public int Id { get; set; }

    public int ClassId { get; set; }

    public DateOnly Day { get; set; }

    public required string FocusSkill { get; set; }

    public int FocusNumber { get; set; }

    public int FocusOf { get; set; }

    public LessonStage Stage { get; set; }

    public required string FocusActivity { get; set; }

    public required string Reason { get; set; }

    /// <summary>Why this activity.</summary>
    public string ActivityReason { get; set; } = "";

    /// <summary>Chosen by a teacher: stays when the week is planned anew.</summary>
    public bool FocusPinned { get; set; }

    public required string Transition { get; set; }

    public bool TransitionPinned { get; set; }

    public string? Choice { get; set; }

    public bool ChoicePinned { get; set; }

    public List<PlannedStarterRow> Starters { get; } = [];

    public List<PlannedMoreRow> More { get; } = [];
}

/// <summary>A second whole-class lesson of a day.</summary>
public sealed class PlannedMoreRow
{
    public int Id { get; set; }

    public int PlannedDayId { get; set; }

    public required string Skill { get; set; }

    public int Number { get; set; }

    public int Of { get; set; }

    public LessonStage Stage { get; set; }

    public required string Activity { get; set; }

    public required string Reason { get; set; }

    public string ActivityReason { get; set; } = "";
}

public sealed class PlannedStarterRow
{
    public int Id { get; set; }

    public int PlannedDayId { get; set; }

    public required string Skill { get; set; }

    public required string Activity { get; set; }

    public required string Reason { get; set; }

    public bool Pinned { get; set; }
}

/// <summary>A version of a class's plan for the year, as decided; the latest is in force. Never changed: undoing adds one.</summary>
public sealed class YearPlanRow
{
    public int Id { get; set; }

    public int ClassId { get; set; }

    /// <summary>First day of the school year it is for.</summary>
    public DateOnly Year { get; set; }

    /// <summary>Counted from 1 within class and year.</summary>
    public int Version { get; set; }

    public DateTimeOffset At { get; set; }

    public int AdultId { get; set; }

    /// <summary>What was done, in a sentence.</summary>
    public required string What { get; set; }

    /// <summary>The earlier version that it goes back to; null if it was not an undo.</summary>
    public int? BackTo { get; set; }

    /// <summary>The plan with its settings and seed, and what it was asked for.</summary>
    public required string Document { get; set; }
}

/// <summary>When an adult can take small groups.</summary>
public sealed class AdultHoursRow
{
    public int Id { get; set; }

    public int ClassId { get; set; }

    public int AdultId { get; set; }

    public DayOfWeek Weekday { get; set; }

    public TimeOnly From { get; set; }

    public TimeOnly Until { get; set; }
}

/// <summary>An event that was handed to calendar programs, so that the next file can say what changed and what is off.</summary>
public sealed class CalendarEntryRow
{
    public required string Uid { get; set; }

    public int ClassId { get; set; }

    public DateOnly Day { get; set; }

    /// <summary>Raised by one with each change, as RFC 5545 asks.</summary>
    public int Sequence { get; set; }

    /// <summary>What was handed out, to see whether it has changed.</summary>
    public required string Content { get; set; }

    public DateTimeOffset Changed { get; set; }

    public bool Cancelled { get; set; }
}

/// <summary>An address at which calendar programs ask for a class's lessons by themselves. Who knows its key needs no password, so each adult has one of their own.</summary>
public sealed class CalendarAddressRow
{
    public int ClassId { get; set; }

    public int AdultId { get; set; }

    /// <summary>Told from the key, which is kept nowhere.</summary>
    public required string KeyHash { get; set; }

    public DateTimeOffset Made { get; set; }
}
