namespace Fobble.Server.Features.Groups;

public sealed record GroupSlotView(int SlotId, DateOnly Day, TimeOnly Start, int Minutes, string Adult, string Where);

public sealed record PlacedChild(int Id, string Name, string Reason);

/// <param name="SessionId">Set once the groups are accepted.</param>
/// <param name="Run">The session has been held: it is kept as it is.</param>
public sealed record GroupView(
    GroupSlotView Slot, string Skill, string Short, string ICan, string Activity, string Reason, IReadOnlyList<PlacedChild> Children, int? SessionId, bool Run);

public sealed record ChangeView(int ChildId, string Name, string? From, string? To, string Why);

/// <summary>Groups for a week, proposed or accepted.</summary>
/// <param name="Verdict">How good they are, in a sentence.</param>
/// <param name="Changes">What is different from the groups before, child by child; empty when there were none.</param>
/// <param name="ComparedWith">The Monday of the groups that changes are told against.</param>
public sealed record GroupsView(
    DateOnly Monday, bool Accepted, IReadOnlyList<GroupView> Groups, IReadOnlyList<PlacedChild> Unplaced, bool ProvenBest, string Verdict, IReadOnlyList<ChangeView> Changes, DateOnly? ComparedWith, IReadOnlyList<PairWishView> Wishes);

public sealed record PairWishView(int First, int Second, string Names, bool Together);

/// <param name="MinSize">2 to 6.</param>
/// <param name="MaxSize">2 to 6.</param>
public sealed record GroupWishes(int MinSize, int MaxSize, bool EveryoneOnce);

public sealed record ChosenGroup(int SlotId, DateOnly Day, string Skill, IReadOnlyList<int> Children);

public sealed record PricesRequest(GroupWishes Wishes, IReadOnlyList<ChosenGroup> Groups, int ChildId);

/// <param name="To">Index of the group, or null for no group.</param>
/// <param name="Price">Points lost by the move; negative if it gains.</param>
public sealed record PriceView(int? To, int Price, IReadOnlyList<string> Breaks, string Reason);

public sealed record AcceptRequest(GroupWishes Wishes, IReadOnlyList<ChosenGroup> Groups);

public sealed record NewPairWish(int First, int Second, bool Together);
