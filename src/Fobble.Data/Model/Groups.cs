namespace Fobble.Data.Model;

/// <summary>A set of groups as accepted for one week. Accepting again makes a new one; sessions already run move over to it.</summary>
public sealed class GroupCycle
{
    public int Id { get; set; }

    public int ClassId { get; set; }

    public DateOnly Monday { get; set; }

    public DateTimeOffset AcceptedAt { get; set; }

    public int AcceptedBy { get; set; }

    public List<GroupSession> Sessions { get; } = [];
}

/// <summary>One small group in one slot: the session and the group are the same thing here.</summary>
public sealed class GroupSession
{
    public int Id { get; set; }

    public int ClassId { get; set; }

    public int CycleId { get; set; }

    public GroupCycle? Cycle { get; set; }

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
