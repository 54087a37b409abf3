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

public sealed class ClosureRow
{
    public int Id { get; set; }

    public int SchoolId { get; set; }

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

    public required string Transition { get; set; }

    public string? Choice { get; set; }

    public List<PlannedStarterRow> Starters { get; } = [];
}

public sealed class PlannedStarterRow
{
    public int Id { get; set; }

    public int PlannedDayId { get; set; }

    public required string Skill { get; set; }

    public required string Activity { get; set; }

    public required string Reason { get; set; }
}
