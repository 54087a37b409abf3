using Fobble.Core.Grouping;

namespace Fobble.Data.Model;

/// <summary>A set of groups as accepted for one week. Accepting again makes a new one; sessions already run move over to it.</summary>
public sealed class GroupSetRow
{
    public int Id { get; set; }

    public int ClassId { get; set; }

    public DateOnly Monday { get; set; }

    public DateTimeOffset AcceptedAt { get; set; }

    public int AcceptedBy { get; set; }

    /// <summary>Raised by the database whenever somebody comes to a group of the set or leaves it.</summary>
    public long Version { get; set; }

    public List<GroupSession> Sessions { get; } = [];
}

/// <summary>One small group in one slot: the session and the group are the same thing here.</summary>
public sealed class GroupSession
{
    public int Id { get; set; }

    public int ClassId { get; set; }

    public int SetId { get; set; }

    public GroupSetRow? Set { get; set; }

    public DateOnly Day { get; set; }

    public int SlotId { get; set; }

    public LessonSlotRow? Slot { get; set; }

    public required string Skill { get; set; }

    public required string Activity { get; set; }

    /// <summary>Gives the session its numbers, so that the card is the same whenever it is opened.</summary>
    public long Seed { get; set; }

    public required string Reason { get; set; }

    public List<GroupMember> Members { get; } = [];
}

public sealed class GroupMember
{
    public int SessionId { get; set; }

    public int ChildId { get; set; }

    public Child? Child { get; set; }

    public required string Reason { get; set; }
}

/// <summary>What a class's groups are formed by: sizes, limits, and how much each aim counts (percent of the usual).</summary>
public sealed class GroupSettingsRow
{
    public int ClassId { get; set; }

    public int MinSize { get; set; } = 3;

    public int MaxSize { get; set; } = 5;

    public bool EveryoneOnce { get; set; }

    /// <summary>At most so many children in a group who need an adult near; null for no limit.</summary>
    public int? MostNearAdult { get; set; }

    /// <summary>Groups at one time that the room has space for; null for no limit.</summary>
    public int? MostAtOnce { get; set; }

    public TurnsAWeek TurnsAWeek { get; set; }

    public int Near { get; set; } = 100;

    public int Lessons { get; set; } = 100;

    public int Turns { get; set; } = 100;

    public int LookAgain { get; set; } = 100;

    public int Company { get; set; } = 100;

    public int Slips { get; set; } = 100;

    public int Numbers { get; set; } = 100;

    public int Stay { get; set; } = 100;
}

/// <summary>Which groups an adult takes in a class, where that is not all of them.</summary>
public sealed class AdultGroupsRow
{
    public int ClassId { get; set; }

    public int AdultId { get; set; }

    /// <summary>Strands the adult takes groups on; empty for all.</summary>
    public List<string> Strands { get; set; } = [];

    /// <summary>At most so many groups a week; null for no limit.</summary>
    public int? Most { get; set; }
}

/// <summary>A child changed tables because another was away on the day; taken back if that one comes after all.</summary>
public sealed class DayMoveRow
{
    public int Id { get; set; }

    public DateOnly Day { get; set; }

    public int AwayChildId { get; set; }

    public int ChildId { get; set; }

    public int? FromSessionId { get; set; }

    public int ToSessionId { get; set; }

    /// <summary>Why the child was at the table it left.</summary>
    public string Reason { get; set; } = "";
}
