using Fobble.Core.Evidence;

namespace Fobble.Core.Grouping;

/// <summary>A child's share of the group work.</summary>
/// <param name="Others">How many different children it has sat with.</param>
/// <param name="Last">Day of the last turn.</param>
public sealed record ChildTurns(ChildId Child, int Turns, int Others, DateOnly? Last);

/// <summary>How often two children have sat in one group.</summary>
public sealed record PairMet(ChildPair Pair, int Times);

/// <summary>Who had turns, who met whom, and what to look at, in sentences that say nothing about how good a child is.</summary>
public sealed record CompanyReport(IReadOnlyList<ChildTurns> Children, IReadOnlyList<PairMet> Met, IReadOnlyList<string> Warnings);

/// <summary>Looks at a term of groups for fairness: turns by child, and children who always sit together.</summary>
public static class Company
{
    /// <summary>Two children sit together always if they have met at least so often …</summary>
    public const int OftenTogether = 3;

    /// <summary>… and in at least this share of the groups of the one with fewer turns.</summary>
    public const double AlwaysShare = 0.75;

    /// <param name="past">Groups that met, each with those who were there.</param>
    public static CompanyReport Of(IReadOnlyList<ChildId> children, IReadOnlyList<PastGroup> past, GroupNames names)
    {
        ArgumentNullException.ThrowIfNull(children);
        ArgumentNullException.ThrowIfNull(past);
        ArgumentNullException.ThrowIfNull(names);
        var known = children.ToHashSet();
        var met = past.SelectMany(g => PairsOf([.. g.Children.Where(known.Contains)]))
            .GroupBy(p => p)
            .Select(g => new PairMet(g.Key, g.Count()))
            .OrderBy(p => p.Pair.First)
            .ThenBy(p => p.Pair.Second)
            .ToList();
        List<ChildTurns> turns =
        [
            .. children.Select(child => new ChildTurns(
                child,
                past.Count(g => g.Children.Contains(child)),
                met.Count(p => p.Pair.First == child || p.Pair.Second == child),
                past.LastOrDefault(g => g.Children.Contains(child))?.Day
            )),
        ];
        return new(turns, met, [.. TurnWarnings(turns, names), .. TogetherWarnings(turns, met, names)]);
    }

    /// <summary>How many turns the children of a class had, none of them named: for somebody who looks at several classes.</summary>
    /// <param name="turns">By child, since <paramref name="since"/>.</param>
    public static string TurnsInWords(IReadOnlyCollection<int> turns, DateOnly since)
    {
        ArgumentNullException.ThrowIfNull(turns);
        if (turns.All(t => t == 0))
        {
            return Phrase($"No small group has met since {Words.Date(since)}.");
        }

        var none = turns.Count(t => t == 0);
        var had = turns.Where(t => t > 0).ToList();
        var (low, high) = (had.Min(), had.Max());
        var usual = low == high ? Words.Count(low, "turn", "turns") : Phrase($"{Words.Between(low, high)} turns");
        return none == 0
            ? Phrase($"Since {Words.Date(since)} each child has had {usual} in a small group.")
            : Phrase($"Since {Words.Date(since)} children have had {usual} in a small group, and {Words.Count(none, "child", "children")} none.");
    }

    private static IEnumerable<ChildPair> PairsOf(IReadOnlyList<ChildId> children) =>
        children.SelectMany((one, i) => children.Skip(i + 1).Select(other => new ChildPair(one, other)));

    private static IEnumerable<string> TurnWarnings(List<ChildTurns> turns, GroupNames names)
    {
        if (turns.Count == 0 || turns.All(t => t.Turns == 0))
        {
            yield break;
        }

        var middle = turns.Select(t => t.Turns).Order().ElementAt(turns.Count / 2);
        var none = turns.Where(t => t.Turns == 0).ToList();
        var few = turns.Where(t => t.Turns > 0 && t.Turns * 2 <= middle).ToList();
        if (none.Count > 0)
        {
            yield return Phrase($"{Words.List([.. none.Select(t => names.Child(t.Child))])} {(none.Count == 1 ? "has" : "have")} not had a turn.");
        }

        if (few.Count > 0)
        {
            yield return Phrase(
                $"{Words.List([.. few.Select(t => names.Child(t.Child))])} {(few.Count == 1 ? "has" : "have")} had half as many turns as is usual in this class, or fewer; usual is {Words.Number(middle)}."
            );
        }
    }

    // Pairs that hang together are told as one.
    private static IEnumerable<string> TogetherWarnings(List<ChildTurns> turns, List<PairMet> met, GroupNames names)
    {
        var turnsOf = turns.ToDictionary(t => t.Child, t => t.Turns);
        var always = met.Where(p => p.Times >= OftenTogether && p.Times >= AlwaysShare * Math.Min(turnsOf[p.Pair.First], turnsOf[p.Pair.Second])).ToList();
        List<HashSet<ChildId>> circles = [];
        foreach (var pair in always.Select(p => p.Pair))
        {
            var touched = circles.Where(c => c.Contains(pair.First) || c.Contains(pair.Second)).ToList();
            circles.RemoveAll(touched.Contains);
            circles.Add([.. touched.SelectMany(c => c), pair.First, pair.Second]);
        }

        return circles
            .OrderBy(c => c.Min())
            .Select(circle =>
            {
                var own = always.Where(p => circle.Contains(p.Pair.First)).ToList();
                var times =
                    circle.Count == 2 ? Phrase($": {own[0].Times} times, of {Math.Min(turnsOf[own[0].Pair.First], turnsOf[own[0].Pair.Second])} groups") : "";
                return Phrase(
                    $"{Words.List([.. circle.Order().Select(names.Child)])} nearly always sit together{times}. “New company” in the wishes, or keeping a pair apart for a while, gives them other children to work with."
                );
            });
    }
}
