using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Grouping;

/// <summary>A cycle of groups that lies ahead: its places and who can't be in which.</summary>
/// <param name="Number">Cycles by number, as in <see cref="PastGroup"/>.</param>
public sealed record CycleAhead(int Number, DateOnly ForDay, IReadOnlyList<GroupSlot> Slots, IReadOnlyDictionary<ChildId, IReadOnlySet<int>> AwayIn);

/// <summary>What the cycles together give one child.</summary>
/// <param name="Others">How many different children it works with.</param>
public sealed record ChildAhead(ChildId Child, int Turns, int Others);

/// <summary>Groups for several cycles, one after another.</summary>
public sealed record RotationPlan(IReadOnlyList<GroupingResult> Cycles, IReadOnlyList<ChildAhead> Children, string Sentence);

/// <summary>
/// Plans several cycles of groups (rule R13): one after another with turns and company carried on, then each once more with the others as they are,
/// kept where the whole gains. What each child knows is taken as it is today, so no child has the same aim twice: what needs a second turn shows when its week comes.
/// </summary>
public static class Rotation
{
    public const int FewestWeeks = 2;
    public const int MostWeeks = 8;

    /// <param name="progress">Share of the work done, 0 to 1.</param>
    public static RotationPlan Plan(
        GroupingBrief brief,
        GroupRules rules,
        IReadOnlyList<CycleAhead> cycles,
        IProgress<double>? progress = null,
        CancellationToken stop = default
    )
    {
        ArgumentNullException.ThrowIfNull(brief);
        ArgumentNullException.ThrowIfNull(cycles);
        var formed = new GroupingResult?[cycles.Count];
        for (var i = 0; i < cycles.Count; i++)
        {
            stop.ThrowIfCancellationRequested();
            formed[i] = Grouper.Form(ProblemFor(i, formed), stop);
            progress?.Report((i + 1) / (2.0 * cycles.Count));
        }

        var points = Points(formed);
        for (var i = 0; i < cycles.Count; i++)
        {
            stop.ThrowIfCancellationRequested();
            var other = formed.ToArray();
            other[i] = Grouper.Form(ProblemFor(i, formed), stop);
            if (Points(other) is var better && better > points)
            {
                (formed, points) = (other, better);
            }

            progress?.Report((cycles.Count + i + 1) / (2.0 * cycles.Count));
        }

        // Points are told as each cycle stands in the end, among the others.
        GroupingResult[] results = [.. formed.Select((f, i) => f! with { Score = GroupScore.Of(ProblemFor(i, formed), f.Groups) })];
        var children = ChildrenOf(brief.Evidence.Children, results);
        return new(results, children, InWords(children, cycles.Count));

        int Points(GroupingResult?[] all) => Enumerable.Range(0, all.Length).Sum(i => GroupScore.Of(ProblemFor(i, all), all[i]!.Groups));

        // A cycle among the others: those before it lie in its past; nobody has an aim twice; who sits together just before or after counts as met.
        GroupingProblem ProblemFor(int i, GroupingResult?[] all)
        {
            var others = all.SelectMany(
                    (f, k) => k == i || f is null ? [] : f.Groups.Select(g => new PastGroup(cycles[k].ForDay, cycles[k].Number, g.Skill, g.Children))
                )
                .ToList();
            var own = brief with
            {
                ForDay = cycles[i].ForDay,
                AwayIn = cycles[i].AwayIn,
                Past = [.. brief.Past, .. others.Where(g => g.Cycle < cycles[i].Number).OrderBy(g => g.Day)],
                Done = others.SelectMany(g => g.Children.Select(c => (c, g.Skill))).ToHashSet(),
                Excluded = i == 0 ? brief.Excluded : new HashSet<ChildId>(),
            };
            var near = others.Where(g => g.Cycle > cycles[i].Number && g.Cycle <= cycles[i].Number + Candidates.CyclesRemembered).Select(g => g.Children);
            return new(Candidates.From(own), cycles[i].Slots, rules, [.. Candidates.MetLately(own.Past), .. near]);
        }
    }

    private static IReadOnlyList<ChildAhead> ChildrenOf(IReadOnlyList<ChildId> children, IReadOnlyList<GroupingResult> cycles)
    {
        var groups = cycles.SelectMany(c => c.Groups).ToList();
        return
        [
            .. children
                .Select(child => (child, own: groups.Where(g => g.Children.Contains(child)).ToList()))
                .Select(p => new ChildAhead(p.child, p.own.Count, p.own.SelectMany(g => g.Children).Distinct().Count(c => c != p.child))),
        ];
    }

    private static string InWords(IReadOnlyList<ChildAhead> children, int cycles)
    {
        if (children.Count == 0)
        {
            return "There is nobody to group.";
        }

        static string Between(IEnumerable<int> counts) =>
            (counts.Min(), counts.Max()) is var (low, high) && low == high ? Words.Number(low) : $"{Words.Number(low)} to {Words.Number(high)}";
        return $"In {Words.Count(cycles, "week", "weeks")} each child has {Between(children.Select(c => c.Turns))} turns and works with {Between(children.Select(c => c.Others))} different children.";
    }
}
