using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Grouping;

/// <summary>How to call what groups are made of, inside a sentence.</summary>
/// <param name="Slot">A place, such as "Mon 9:40 with Tomasz Birk".</param>
public sealed record GroupNames(Func<ChildId, string> Child, Func<SkillId, string> Skill, Func<int, string> Adult, Func<int, string> Slot);

/// <summary>
/// Something that has to hold for a set of groups, and that a teacher can let go of. Each kind says what it asks, whether groups keep to it, and
/// has a key by which it is named from one question to the next.
/// </summary>
public abstract record Wish
{
    /// <summary>The same for the same wish, always.</summary>
    public abstract string Key { get; }

    /// <summary>What is asked, as a sentence.</summary>
    public abstract string InWords(GroupNames names);

    /// <summary>Whether groups keep to it.</summary>
    public abstract bool Holds(GroupingProblem problem, IReadOnlyList<FormedGroup> groups);

    /// <summary>Whether groups that stay as they are do what was wished for already.</summary>
    internal bool IsMetBy(IReadOnlyList<FormedGroup> kept, GroupingProblem problem) =>
        this is TurnWish or SeatWish or AimWish or WorkWish && Holds(problem, kept);

    private protected static FormedGroup? GroupOf(ChildId child, IReadOnlyList<FormedGroup> groups) => groups.FirstOrDefault(g => g.Children.Contains(child));
}

/// <summary>Two children are never in one group.</summary>
public sealed record ApartWish(ChildPair Pair) : Wish
{
    public override string Key => $"apart-{Pair.First}-{Pair.Second}";

    public override string InWords(GroupNames names) => Phrase($"{names.Child(Pair.First)} and {names.Child(Pair.Second)} are to be kept apart");

    public override bool Holds(GroupingProblem problem, IReadOnlyList<FormedGroup> groups) =>
        !groups.Any(g => g.Children.Contains(Pair.First) && g.Children.Contains(Pair.Second));
}

/// <summary>Both in the same group, or neither in any; without force where one of them can't be grouped, or is in a group that stays.</summary>
public sealed record TogetherWish(ChildPair Pair) : Wish
{
    public override string Key => $"together-{Pair.First}-{Pair.Second}";

    public override string InWords(GroupNames names) => Phrase($"{names.Child(Pair.First)} and {names.Child(Pair.Second)} are to be kept together");

    public override bool Holds(GroupingProblem problem, IReadOnlyList<FormedGroup> groups) =>
        !IsOpen(problem) || GroupOf(Pair.First, groups) == GroupOf(Pair.Second, groups);

    internal bool IsOpen(GroupingProblem problem) => problem.Open.Any(c => c.Child == Pair.First) && problem.Open.Any(c => c.Child == Pair.Second);
}

/// <summary>A child's wish: a group only with one adult, or never with that one.</summary>
public sealed record AdultWish(ChildId Child, int Adult, bool With) : Wish
{
    public override string Key => $"adult-{Child}-{Adult}-{(With ? "with" : "without")}";

    public override string InWords(GroupNames names) => $"{names.Child(Child)} {(With ? Phrase("only with") : Phrase("not with"))} {names.Adult(Adult)}";

    public override bool Holds(GroupingProblem problem, IReadOnlyList<FormedGroup> groups) =>
        GroupOf(Child, groups) is not { } group || problem.Slots[group.Slot].Adult == Adult == With;
}

/// <summary>At most so many children in one group who need an adult near.</summary>
public sealed record NearAdultWish(int Most) : Wish
{
    public override string Key => "near-adult";

    public override string InWords(GroupNames names) =>
        Phrase($"at most {Words.Count(Most, "child", "children")} in a group who {(Most == 1 ? "needs" : "need")} an adult near");

    public override bool Holds(GroupingProblem problem, IReadOnlyList<FormedGroup> groups)
    {
        var near = problem.Children.Where(c => c.NeedsAdultNear).Select(c => c.Child).ToHashSet();
        return groups.All(g => g.Children.Count(near.Contains) <= Most);
    }
}

/// <summary>An adult takes groups on certain skills only.</summary>
public sealed record RunsWish(int Adult, IReadOnlySet<SkillId> Skills, string Of) : Wish
{
    public override string Key => $"runs-{Adult}";

    public override string InWords(GroupNames names) => Phrase($"{names.Adult(Adult)} takes groups on {Of} only");

    public override bool Holds(GroupingProblem problem, IReadOnlyList<FormedGroup> groups) =>
        groups.All(g => problem.Slots[g.Slot].Adult != Adult || Skills.Contains(g.Skill));
}

/// <summary>An adult takes at most so many groups in a week.</summary>
public sealed record MostForAdultWish(int Adult, int Most) : Wish
{
    public override string Key => $"most-{Adult}";

    public override string InWords(GroupNames names) => Phrase($"{names.Adult(Adult)} takes at most {Words.Count(Most, "group", "groups")}");

    public override bool Holds(GroupingProblem problem, IReadOnlyList<FormedGroup> groups) => groups.Count(g => problem.Slots[g.Slot].Adult == Adult) <= Most;

    /// <summary>What is left of it where groups stand elsewhere in the week already.</summary>
    /// <param name="takenBy">The adult of each of them.</param>
    public MostForAdultWish Beside(IReadOnlyList<int> takenBy) => this with { Most = Math.Max(0, Most - takenBy.Count(a => a == Adult)) };
}

/// <summary>A child has a turn this time.</summary>
public sealed record TurnWish(ChildId Child) : Wish
{
    public override string Key => $"turn-{Child}";

    public override string InWords(GroupNames names) => Phrase($"{names.Child(Child)} has a turn this time");

    public override bool Holds(GroupingProblem problem, IReadOnlyList<FormedGroup> groups) => GroupOf(Child, groups) is not null;
}

/// <summary>A child sits at a certain table.</summary>
public sealed record SeatWish(ChildId Child, int Slot) : Wish
{
    public override string Key => $"seat-{Child}-{Slot}";

    public override string InWords(GroupNames names) => Phrase($"{names.Child(Child)} sits at the table of {names.Slot(Slot)}");

    public override bool Holds(GroupingProblem problem, IReadOnlyList<FormedGroup> groups) => GroupOf(Child, groups)?.Slot == Slot;
}

/// <summary>A table has a certain aim.</summary>
public sealed record AimWish(SkillId Skill, int Slot) : Wish
{
    public override string Key => $"aim-{Skill}-{Slot}";

    public override string InWords(GroupNames names) => Phrase($"the table of {names.Slot(Slot)} works on {names.Skill(Skill)}");

    public override bool Holds(GroupingProblem problem, IReadOnlyList<FormedGroup> groups) => groups.Any(g => g.Slot == Slot && g.Skill == Skill);
}

/// <summary>A child is in a group on a certain skill, wherever that is.</summary>
public sealed record WorkWish(ChildId Child, SkillId Skill) : Wish
{
    public override string Key => $"work-{Child}-{Skill}";

    public override string InWords(GroupNames names) => Phrase($"{names.Child(Child)} works on {names.Skill(Skill)}");

    public override bool Holds(GroupingProblem problem, IReadOnlyList<FormedGroup> groups) => GroupOf(Child, groups)?.Skill == Skill;
}
