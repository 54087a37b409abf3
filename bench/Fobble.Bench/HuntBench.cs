using System.Collections.Concurrent;
using Fobble.Core.Grouping;
using Fobble.Core.Numbers;

namespace Fobble.Bench;

/// <summary>
/// Looks for a false word of the Grouper: a set told best that is not, a bound that a set passes, a rule or wish broken, groups refused that could be formed. Small
/// problems against every set there is, larger ones against one model of all thinkable groups.
/// </summary>
internal static class HuntBench
{
    private const int Small = 20_000;
    private const int Larger = 400;

    private static readonly (string Name, Func<SeededRandom, GroupingProblem> Make)[] Shapes =
    [
        ("all places alike", random => RandomGroups.Alike(RandomGroups.Of(random, children: 7, skills: 3, slots: 2))),
        ("few wishes", random => RandomGroups.Of(random, children: 6, skills: 3, slots: 2)),
        ("many wishes, few sets possible", random => RandomGroups.Of(random, children: 6, skills: 3, slots: 2, wished: 0.45)),
        ("three places, two adults, clashes", random => RandomGroups.Of(random, children: 6, skills: 4, slots: 3, wished: 0.1)),
        ("a group that stays", Staying),
    ];

    private static readonly (string Name, Func<SeededRandom, GroupingProblem> Make)[] LargerShapes =
    [
        ("twelve children, all places alike", random => RandomGroups.Alike(RandomGroups.Of(random, children: 12, skills: 4, slots: 3))),
        ("eleven children, four places, wishes", random => RandomGroups.Of(random, children: 11, skills: 3, slots: 4, wished: 0.15)),
    ];

    public static IEnumerable<Figure> Run()
    {
        foreach (var (name, make) in Shapes)
        {
            yield return Hunt($"{name}, against every set there is", make, Small / Shapes.Length, p => RandomGroups.BestByBruteForce(p));
        }

        foreach (var (name, make) in LargerShapes)
        {
            yield return Hunt($"{name}, against one model of all groups", make, Larger / LargerShapes.Length, RandomGroups.BestByAllColumns);
        }
    }

    private static Figure Hunt(string name, Func<SeededRandom, GroupingProblem> make, int cases, Func<GroupingProblem, int?> bestOf)
    {
        ConcurrentBag<string> faults = [];
        var (possible, proven, unknown) = (0, 0, 0);
        Parallel.For(0, cases, seed =>
        {
            var problem = make(new SeededRandom((ulong)seed + 1));
            if (bestOf(problem) is not { } best)
            {
                Interlocked.Increment(ref unknown);
                return;
            }

            var result = Grouper.Form(problem);
            if (best == int.MinValue)
            {
                Note(result.Groups.Count > 0, "groups where there are none");
                return;
            }

            Interlocked.Increment(ref possible);
            Interlocked.Add(ref proven, result.ProvenBest ? 1 : 0);
            Note(result.Conflict.Count > 0, "a conflict where there is none");
            Note(!GroupScore.Keeps(problem, result.Groups), "a rule or wish broken");
            Note(result.Score > best, "more points than there are");
            Note(result.ProvenBest && result.Score < best, "told best, and is not");
            Note(result.Bound < best, "a bound that a set passes");

            void Note(bool fault, string what)
            {
                if (fault)
                {
                    faults.Add($"{what} (case {seed + 1})");
                }
            }
        });
        return new(
            $"{name}: faults",
            $"{faults.Count}{(faults.IsEmpty ? "" : $": {string.Join("; ", faults.Order(StringComparer.Ordinal).Take(8))}")} in {cases:n0} cases, {possible:n0} of them with groups, {proven:n0} told best{(unknown > 0 ? $"; {unknown} that the other way did not finish" : "")}",
            "0"
        );
    }

    private static GroupingProblem Staying(SeededRandom random)
    {
        var problem = RandomGroups.Of(random, children: 7, skills: 3, slots: 3, wished: 0);
        FormedGroup stays = new(RandomGroups.Skills[1], 1, [new(2), new(5)]);
        return problem with { Fixed = [stays], Rules = problem.Rules with { MinSize = 2 } };
    }
}
