using Fobble.Core.Grouping;
using Fobble.Server.Features.Planning;
using Fobble.Server.Hosting;

namespace Fobble.Server.Features.Groups;

public sealed record GroupSlotView(int SlotId, DateOnly Day, TimeOnly Start, int Minutes, string Adult, string Where);

/// <param name="Strength">Of the child in what its group is for, today; null where it is in none.</param>
public sealed record PlacedChild(int Id, string Name, string Reason, int? Strength = null);

/// <param name="SessionId">Set once the groups are accepted.</param>
/// <param name="Run">The session has been held: it is kept as it is.</param>
public sealed record GroupView(
    GroupSlotView Slot,
    string Skill,
    string Short,
    string ICan,
    string Activity,
    string Reason,
    IReadOnlyList<PlacedChild> Children,
    int? SessionId,
    bool Run
);

public sealed record ChangeView(int ChildId, string Name, string? From, string? To, string Why);

/// <summary>A wish by its key, as a sentence; where it is a lock of the board, the child and the place it is about.</summary>
public sealed record WishView(string Key, string Sentence, int? ChildId, int? SlotId, DateOnly? Day);

/// <summary>Groups for a week, proposed or accepted.</summary>
/// <param name="Verdict">How good they are, in a sentence.</param>
/// <param name="Score">Points of the groups; zero for accepted ones.</param>
/// <param name="Changes">What is different from the groups before, child by child; empty when there were none.</param>
/// <param name="ComparedWith">The Monday of the groups that changes are told against.</param>
/// <param name="Parts">The parts of the week, in each of which a child has one turn at most.</param>
/// <param name="Part">Of a proposal the number of its part; null for the groups of the whole week.</param>
/// <param name="Conflict">The smallest set of wishes that can't be kept together; empty where groups could be formed.</param>
/// <param name="Version">Names the week's set in force: accepting is refused with 409 if it is another by then.</param>
public sealed record GroupsView(
    DateOnly Monday,
    bool Accepted,
    IReadOnlyList<GroupView> Groups,
    IReadOnlyList<PlacedChild> Unplaced,
    bool ProvenBest,
    string Verdict,
    int Score,
    IReadOnlyList<ChangeView> Changes,
    DateOnly? ComparedWith,
    IReadOnlyList<WishView> Conflict,
    IReadOnlyList<PartView> Parts,
    int? Part,
    string Version
);

/// <param name="Name">Its days in words.</param>
/// <param name="Open">Whether it has a place that can still be filled.</param>
/// <param name="Again">Why it is worth asking for its groups again, where it is; else null.</param>
public sealed record PartView(int Number, string Name, DateOnly From, DateOnly Until, bool Open, string? Again);

public sealed record ChosenGroup(int SlotId, DateOnly Day, string Skill, IReadOnlyList<int> Children);

public sealed record SeatLock(int ChildId, int SlotId, DateOnly Day);

public sealed record AimLock(string Skill, int SlotId, DateOnly Day);

public sealed record WorkLock(int ChildId, string Skill);

/// <summary>What a proposal has to keep to, besides what is kept for the class.</summary>
/// <param name="Seats">Children who stay at their tables.</param>
/// <param name="Aims">Tables that keep their aim.</param>
/// <param name="Kept">Whole groups that stay as they are.</param>
/// <param name="Turns">Children who have to have a turn this time.</param>
/// <param name="Work">Children who are to work on a certain skill.</param>
/// <param name="LetGo">Keys of wishes that don't count this time.</param>
/// <param name="Without">Children taken to be away all week: what if?</param>
/// <param name="Part">The part of the week that is asked about, from 1.</param>
/// <param name="Beside">Groups as they stand on the board of the week's other part; null for those that are accepted.</param>
public sealed record GroupsAsk(
    IReadOnlyList<SeatLock> Seats,
    IReadOnlyList<AimLock> Aims,
    IReadOnlyList<ChosenGroup> Kept,
    IReadOnlyList<int> Turns,
    IReadOnlyList<WorkLock> Work,
    IReadOnlyList<string> LetGo,
    IReadOnlyList<int> Without,
    int Part = 1,
    IReadOnlyList<ChosenGroup>? Beside = null
)
{
    public static readonly GroupsAsk Nothing = new([], [], [], [], [], [], []);
}

/// <summary>Groups as they stand on the board, and what they were asked by.</summary>
public sealed record GroupsOnBoard(GroupsAsk Ask, IReadOnlyList<ChosenGroup> Groups);

public sealed record PricesRequest(GroupsAsk Ask, IReadOnlyList<ChosenGroup> Groups, int ChildId);

/// <param name="To">Index of the group, or null for no group.</param>
/// <param name="Price">Points lost by the move; negative if it gains.</param>
public sealed record PriceView(int? To, int Price, IReadOnlyList<string> Breaks, string Reason);

public sealed record WhyNotRequest(GroupsAsk Ask, IReadOnlyList<ChosenGroup> Groups, int ChildId, int SlotId, DateOnly Day);

/// <param name="Instead">The best set in which the child is there; null where there is none.</param>
public sealed record WhyNotView(string Sentence, int? Price, GroupsView? Instead);

/// <param name="Version">Of the week's groups when the proposal was looked at.</param>
public sealed record AcceptRequest(string Version, IReadOnlyList<ChosenGroup> Groups);

/// <summary>A search that goes on in the background.</summary>
/// <param name="Score">Points of the best groups so far.</param>
/// <param name="Bound">No set can have more points than this.</param>
/// <param name="Groups">The groups found, once it has ended.</param>
public sealed record ImproveView(Guid Id, JobState State, int Score, int Bound, GroupsView? Groups);

/// <param name="Weeks">How many weeks, 2 to 8.</param>
public sealed record AheadRequest(int Weeks);

public sealed record ChildAheadView(int Id, string Name, int Turns, int Others);

/// <summary>Several weeks of groups, being worked out or ready.</summary>
/// <param name="Progress">Share that is done.</param>
public sealed record AheadView(
    Guid Id,
    JobState State,
    double Progress,
    string? Sentence,
    IReadOnlyList<GroupsView> Weeks,
    IReadOnlyList<ChildAheadView> Children
);

/// <param name="Before">Strength in the aim before the day, 0 to 5.</param>
public sealed record OutcomeChild(int Id, string Name, int Before, int After, int Now, bool Reached, bool CarriedOver, bool Recorded, bool Away);

public sealed record OutcomeGroup(int SessionId, DateOnly Day, string Adult, string Skill, string Short, string Sentence, IReadOnlyList<OutcomeChild> Children);

public sealed record OutcomeWeek(DateOnly Monday, IReadOnlyList<OutcomeGroup> Groups);

/// <summary>What the group work did.</summary>
/// <param name="Sentence">All of it in a sentence.</param>
public sealed record AfterView(DateOnly From, DateOnly Until, string Sentence, IReadOnlyList<OutcomeWeek> Weeks);

/// <param name="Aims">Skills worked on in groups, latest first.</param>
public sealed record CompanyChild(int Id, string Name, int Turns, int Others, DateOnly? Last, IReadOnlyList<string> Aims);

public sealed record MetView(int First, int Second, int Times);

/// <summary>Turns and company over a term.</summary>
public sealed record CompanyView(
    DateOnly From,
    DateOnly Until,
    string? Term,
    IReadOnlyList<CompanyChild> Children,
    IReadOnlyList<MetView> Met,
    IReadOnlyList<string> Warnings
);

public sealed record WeightView(string Key, string Name, string Does, int Percent);

public sealed record PairWishView(int First, int Second, string Names, bool Together, DateOnly? Until);

public sealed record AdultWishView(int ChildId, int AdultId, string Names, bool With);

public sealed record TimeOutView(int Id, int ChildId, string Name, DayOfWeek Weekday, TimeOnly From, TimeOnly Until);

/// <param name="Strands">Strands the adult takes groups on; empty for all.</param>
/// <param name="Most">At most so many groups a week; null for no limit.</param>
/// <param name="Places">Places for groups the adult has in a week.</param>
public sealed record AdultGroupsView(int Id, string Name, IReadOnlyList<string> Strands, int? Most, int Places);

/// <summary>What the class's groups are formed by.</summary>
/// <param name="Steps">What a weight can be set to, in percent of the usual.</param>
/// <param name="NearAdult">Children who work best with an adult close by.</param>
public sealed record GroupWishesView(
    int MinSize,
    int MaxSize,
    bool EveryoneOnce,
    int? MostNearAdult,
    int? MostAtOnce,
    TurnsAWeek TurnsAWeek,
    IReadOnlyList<WeightView> Weights,
    IReadOnlyList<int> Steps,
    IReadOnlyList<PairWishView> Pairs,
    IReadOnlyList<AdultWishView> AdultWishes,
    IReadOnlyList<TimeOutView> TimesOut,
    IReadOnlyList<int> NearAdult,
    IReadOnlyList<AdultGroupsView> Adults,
    IReadOnlyList<PlanStrand> Strands,
    IReadOnlyList<ChildName> Children
);

/// <param name="MinSize">2 to 6.</param>
/// <param name="MaxSize">2 to 6.</param>
/// <param name="Weights">Percent by the key of a weight.</param>
public sealed record GroupSettingsChange(
    int MinSize,
    int MaxSize,
    bool EveryoneOnce,
    int? MostNearAdult,
    int? MostAtOnce,
    TurnsAWeek TurnsAWeek,
    IReadOnlyDictionary<string, int> Weights
);

public sealed record NewPairWish(int First, int Second, bool Together, DateOnly? Until);

public sealed record NewAdultWish(int ChildId, int AdultId, bool With);

public sealed record NewTimeOut(int ChildId, DayOfWeek Weekday, TimeOnly From, TimeOnly Until);

public sealed record NearAdultChange(bool Near);

public sealed record AdultGroupsChange(IReadOnlyList<string> Strands, int? Most);

/// <summary>Sets beside the one on the board.</summary>
/// <param name="Sentence">Why there are none; null where there are.</param>
public sealed record OtherSets(IReadOnlyList<GroupsView> Sets, string? Sentence);
