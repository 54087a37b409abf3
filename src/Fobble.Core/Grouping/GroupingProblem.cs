using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Grouping;

/// <summary>What it is worth to have a child in a group on a skill, term by term (whole points).</summary>
/// <param name="Base">By strength, or for looking again.</param>
/// <param name="Urgency">On top of base, for skills that wait for it and for the week's focus.</param>
/// <param name="Fairness">For the school days since the child's last group.</param>
public sealed record Worth(int Base, int Urgency, int Fairness)
{
    /// <summary>The child has the skill and would sit beside those who nearly do: one such child a group at most.</summary>
    public bool Shows { get; init; }

    /// <summary>For an aim the child has already in groups that are planned: a few points, so that one thing seen does not throw them over.</summary>
    public int Stay { get; init; }

    /// <summary>All together, in points.</summary>
    public int Total => Base + Urgency + Fairness + Stay;
}

/// <summary>A child who can be in a group: where it would help, how long the last turn is ago, when the child is out of class.</summary>
/// <param name="Worths">Skills that are possible for the child; others are not.</param>
/// <param name="Fairness">Points lost when the child is left out.</param>
/// <param name="AwayIn">Indices of slots in which the child can't be.</param>
/// <param name="Slips">The child's latest slip on a skill, where there is one.</param>
public sealed record Candidate(
    ChildId Child,
    IReadOnlyDictionary<SkillId, Worth> Worths,
    int Fairness,
    IReadOnlySet<int> AwayIn,
    IReadOnlyDictionary<SkillId, string> Slips
)
{
    /// <summary>The largest size of number the child was last seen with on a skill (5, 10, 20 or 100), where there is one.</summary>
    public IReadOnlyDictionary<SkillId, int> Reach { get; init; } = new Dictionary<SkillId, int>();

    /// <summary>Needs an adult close by while working.</summary>
    public bool NeedsAdultNear { get; init; }

    /// <summary>Days of the week on which it has a turn in another part of the week: this one would be a further turn.</summary>
    public IReadOnlyList<DateOnly> Elsewhere { get; init; } = [];
}

/// <summary>A place for a group in the week.</summary>
/// <param name="Adult">Id of the adult who takes it.</param>
/// <param name="Moment">Places with the same number are at the same time.</param>
public sealed record GroupSlot(int Adult, int Moment)
{
    /// <summary>Null where days do not matter.</summary>
    public DateOnly? Day { get; init; }

    /// <summary>So many places one after another with one adult.</summary>
    public static IReadOnlyList<GroupSlot> InARow(int count) => [.. Enumerable.Range(0, count).Select(i => new GroupSlot(0, i))];
}

/// <summary>What holds for every set of groups.</summary>
public sealed record GroupRules
{
    /// <summary>The fewest children that a school can ask groups to have.</summary>
    public const int Smallest = 2;

    /// <summary>The most.</summary>
    public const int Largest = 6;

    /// <summary>Children in a group, at least; <see cref="Smallest"/> to <see cref="Largest"/>.</summary>
    public int MinSize { get; init; } = 3;

    /// <summary>Children in a group, at most; <see cref="MinSize"/> to <see cref="Largest"/>.</summary>
    public int MaxSize { get; init; } = 5;

    /// <summary>Leaving a child out costs so much that it happens only when it can't be helped.</summary>
    public bool EveryoneOnce { get; init; }

    /// <summary>What has to hold, each by itself something that can be let go of.</summary>
    public IReadOnlyList<Wish> Wishes { get; init; } = [];

    public GroupWeights Weights { get; init; } = GroupWeights.Usual;

    /// <summary>Groups at one time that the room has space for; null for as many as there are places.</summary>
    public int? MostAtOnce { get; init; }

    /// <summary>Skills whose groups can't work at the same time, because there are not enough things for both; the smaller id first, a skill with itself if it can't run twice.</summary>
    public IReadOnlySet<(SkillId, SkillId)> Clashes { get; init; } = new HashSet<(SkillId, SkillId)>();

    internal bool Clash(SkillId one, SkillId other) => Clashes.Contains(one.CompareTo(other) <= 0 ? (one, other) : (other, one));
}

/// <summary>Two children, the smaller id first.</summary>
public readonly record struct ChildPair
{
    public ChildPair(ChildId one, ChildId other) => (First, Second) = one.Value <= other.Value ? (one, other) : (other, one);

    public ChildId First { get; }

    public ChildId Second { get; }
}

/// <summary>Forms groups for one week: at most one group a slot, one skill a group, each child in at most one group.</summary>
/// <param name="MetLately">The groups of the last weeks: two of their children who meet again cost points.</param>
public sealed record GroupingProblem(
    IReadOnlyList<Candidate> Children,
    IReadOnlyList<GroupSlot> Slots,
    GroupRules Rules,
    IReadOnlyList<IReadOnlyList<ChildId>> MetLately
)
{
    /// <summary>Groups that stay exactly as they are, right or wrong: their places and children are taken.</summary>
    public IReadOnlyList<FormedGroup> Fixed { get; init; } = [];

    /// <summary>Groups that are planned for these places and may change: what comes out as it stands keeps its place where nothing speaks against it.</summary>
    public IReadOnlyList<FormedGroup> Standing { get; init; } = [];

    /// <summary>Sets found before; a new one gives another aim, or none, to at least <see cref="LeastUnlike"/> of the children of each.</summary>
    public IReadOnlyList<IReadOnlyList<FormedGroup>> Unlike { get; init; } = [];

    /// <summary>Children whose aim has to differ from that of each set in <see cref="Unlike"/>.</summary>
    public int LeastUnlike { get; init; } = 5;

    /// <summary>How many children may at most keep the aim that an earlier set gave them, besides those in groups that stay.</summary>
    internal int MostAlike(IReadOnlyList<FormedGroup> other) =>
        Math.Max(
            0,
            other.Sum(g => g.Children.Count) - LeastUnlike - other.Sum(g => g.Children.Count(c => Fixed.Any(f => f.Skill == g.Skill && f.Children.Contains(c))))
        );

    /// <summary>Candidates whose group is still open.</summary>
    internal IEnumerable<Candidate> Open => Children.Where(c => !Fixed.Any(g => g.Children.Contains(c.Child)));
}

/// <summary>A group on one skill in one slot, children in order of id.</summary>
public sealed record FormedGroup(SkillId Skill, int Slot, IReadOnlyList<ChildId> Children);

/// <param name="Score">Points of the groups found.</param>
/// <param name="ProvenBest">No better set exists for these aims.</param>
/// <param name="Bound">No set can have more points than this.</param>
public sealed record GroupingResult(IReadOnlyList<FormedGroup> Groups, IReadOnlyList<ChildId> Unplaced, int Score, bool ProvenBest, int Bound)
{
    /// <summary>The smallest set of wishes that can't hold together: letting go of any one of them is enough for these. Empty where all can be kept.</summary>
    public IReadOnlyList<Wish> Conflict { get; init; } = [];
}
