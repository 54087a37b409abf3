using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Grouping;

/// <summary>A week of groups that lies ahead, or a part of it: its places and who can't be in which.</summary>
/// <param name="Number">Weeks by number, as in <see cref="PastGroup"/>; the parts of a week have the same.</param>
public sealed record WeekAhead(int Number, DateOnly ForDay, IReadOnlyList<GroupSlot> Slots, IReadOnlyDictionary<ChildId, IReadOnlySet<int>> AwayIn)
{
    /// <summary>Children who have had their turn in it, or are not to be grouped.</summary>
    public IReadOnlySet<ChildId> Excluded { get; init; } = new HashSet<ChildId>();

    /// <summary>Groups of the week's other parts that were held already.</summary>
    public IReadOnlyList<PastGroup> Beside { get; init; } = [];
}

/// <summary>What the weeks together give one child.</summary>
/// <param name="Others">How many different children it works with.</param>
public sealed record ChildAhead(ChildId Child, int Turns, int Others);

/// <summary>Groups for several weeks, one after another.</summary>
public sealed record RotationPlan(IReadOnlyList<GroupingResult> Weeks, IReadOnlyList<ChildAhead> Children, string Sentence);

/// <summary>
/// Plans several weeks of groups (rule R13): one after another with turns and company carried on, then each once more with the others as they are,
/// kept where the whole gains. What each child knows is taken as it is today, so no child has the same aim twice: what needs a second turn shows when its week comes.
/// </summary>
public static class Rotation
{
    /// <summary>Weeks that can be planned ahead in one go: two to eight.</summary>
    public const int FewestWeeks = 2;
    public const int MostWeeks = 8;

    /// <param name="progress">Share of the work done, 0 to 1.</param>
    public static RotationPlan Plan(
        GroupingBrief brief,
        GroupRules rules,
        IReadOnlyList<WeekAhead> weeks,
        IProgress<double>? progress = null,
        CancellationToken stop = default
    )
    {
        ArgumentNullException.ThrowIfNull(brief);
        ArgumentNullException.ThrowIfNull(weeks);
        var formed = new GroupingResult?[weeks.Count];
        for (var i = 0; i < weeks.Count; i++)
        {
            stop.ThrowIfCancellationRequested();
            formed[i] = Grouper.Form(ProblemFor(i, formed), stop);
            progress?.Report((i + 1) / (2.0 * weeks.Count));
        }

        var points = Points(formed);
        for (var i = 0; i < weeks.Count; i++)
        {
            stop.ThrowIfCancellationRequested();
            var other = formed.ToArray();
            other[i] = Grouper.Form(ProblemFor(i, formed), stop);
            if (Points(other) is var better && better > points)
            {
                (formed, points) = (other, better);
            }

            progress?.Report((weeks.Count + i + 1) / (2.0 * weeks.Count));
        }

        // Points are told as each week stands in the end, among the others.
        GroupingResult[] results = [.. formed.Select((f, i) => f! with { Score = GroupScore.Of(ProblemFor(i, formed), f.Groups) })];
        var children = ChildrenOf(brief.Evidence.Children, results);
        return new(results, children, InWords(children, weeks.Select(w => w.Number).Distinct().Count()));

        int Points(GroupingResult?[] all) => Enumerable.Range(0, all.Length).Sum(i => GroupScore.Of(ProblemFor(i, all), all[i]!.Groups));

        // A week among the others: those before it lie in its past; nobody has an aim twice; who sits together just before or after counts as met.
        GroupingProblem ProblemFor(int i, GroupingResult?[] all)
        {
            var others = all.SelectMany(
                    (f, k) =>
                        k == i || f is null
                            ? []
                            : f.Groups.Select(g => new PastGroup(weeks[k].Slots[g.Slot].Day ?? weeks[k].ForDay, weeks[k].Number, g.Skill, g.Children))
                )
                .ToList();
            var own = brief with
            {
                ForDay = weeks[i].ForDay,
                AwayIn = weeks[i].AwayIn,
                Past = [.. brief.Past, .. others.Where(g => g.Week < weeks[i].Number).OrderBy(g => g.Day)],
                Done = others.SelectMany(g => g.Children.Select(c => (c, g.Skill))).ToHashSet(),
                Excluded = weeks[i].Excluded,
                Beside = [.. weeks[i].Beside, .. others.Where(g => g.Week == weeks[i].Number)],
            };
            var near = others.Where(g => g.Week > weeks[i].Number && g.Week <= weeks[i].Number + Candidates.WeeksRemembered).Select(g => g.Children);
            return new(Candidates.From(own), weeks[i].Slots, rules, [.. own.MetLately, .. near]);
        }
    }

    private static IReadOnlyList<ChildAhead> ChildrenOf(IReadOnlyList<ChildId> children, IReadOnlyList<GroupingResult> weeks)
    {
        var groups = weeks.SelectMany(c => c.Groups).ToList();
        return
        [
            .. children
                .Select(child => (child, own: groups.Where(g => g.Children.Contains(child)).ToList()))
                .Select(p => new ChildAhead(p.child, p.own.Count, p.own.SelectMany(g => g.Children).Distinct().Count(c => c != p.child))),
        ];
    }

    private static string InWords(IReadOnlyList<ChildAhead> children, int weeks)
    {
        if (children.Count == 0)
        {
            return Phrase("There is nobody to group.");
        }

        static string Between(IEnumerable<int> counts) => Words.Between(counts.Min(), counts.Max());
        return Phrase(
            $"In {Words.Count(weeks, "week", "weeks")} each child has {Between(children.Select(c => c.Turns))} turns and works with {Between(children.Select(c => c.Others))} different children."
        );
    }
}
