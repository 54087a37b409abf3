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

    public int Total => Base + Urgency + Fairness;
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
    IReadOnlyDictionary<SkillId, string> Slips);

/// <summary>What has to hold for every set of groups.</summary>
public sealed record GroupRules
{
    public int MinSize { get; init; } = 3;

    public int MaxSize { get; init; } = 5;

    public IReadOnlyList<ChildPair> Apart { get; init; } = [];

    /// <summary>Both in the same group, or neither in any.</summary>
    public IReadOnlyList<ChildPair> Together { get; init; } = [];

    /// <summary>Leaving a child out costs so much that it happens only when it can't be helped.</summary>
    public bool EveryoneOnce { get; init; }
}

/// <summary>Two children, the smaller id first.</summary>
public readonly record struct ChildPair
{
    public ChildPair(ChildId one, ChildId other) => (First, Second) = one.Value <= other.Value ? (one, other) : (other, one);

    public ChildId First { get; }

    public ChildId Second { get; }
}

/// <summary>Forms groups for one cycle: at most one group a slot, one skill a group, each child in at most one group.</summary>
/// <param name="Slots">Number of slots.</param>
/// <param name="MetLately">The groups of the last cycles: two of their children who meet again cost points.</param>
public sealed record GroupingProblem(IReadOnlyList<Candidate> Children, int Slots, GroupRules Rules, IReadOnlyList<IReadOnlyList<ChildId>> MetLately);

/// <summary>A group on one skill in one slot, children in order of id.</summary>
public sealed record FormedGroup(SkillId Skill, int Slot, IReadOnlyList<ChildId> Children);

/// <param name="Score">Points of the groups found.</param>
/// <param name="ProvenBest">No better set exists for these aims.</param>
/// <param name="Bound">No set can have more points than this.</param>
public sealed record GroupingResult(IReadOnlyList<FormedGroup> Groups, IReadOnlyList<ChildId> Unplaced, int Score, bool ProvenBest, int Bound);
