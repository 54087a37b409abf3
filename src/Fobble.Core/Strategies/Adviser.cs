using Fobble.Core.Approaches;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;

namespace Fobble.Core.Strategies;

/// <summary>Works a sum or difference by every strategy that fits, and says which one to take (rule R3).</summary>
public static class Adviser
{
    /// <summary>The largest of the two numbers of a sum.</summary>
    public const int Largest = 99;

    /// <summary>Refuses a sum that can't be worked.</summary>
    /// <exception cref="RefusedException">It can't.</exception>
    public static void Check(int a, Operation operation, int b) =>
        RefusedException.Unless(
            a is >= 0 and <= Largest && b >= 0 && b <= (operation == Operation.Add ? Largest : a),
            "numbers",
            operation == Operation.Add ? Phrase($"Numbers go from 0 to {Largest}.") : Phrase($"Take away from 0 to {a}, so that nothing falls below zero.")
        );

    /// <summary>All strategies that fit a + b or a − b, the most basic first.</summary>
    /// <param name="a">0 to 99.</param>
    /// <param name="b">0 to 99, and not above <paramref name="a"/> where it is taken away.</param>
    /// <exception cref="ArgumentOutOfRangeException">A number is outside its range.</exception>
    public static IReadOnlyList<WorkedStrategy> Work(int a, Operation operation, int b, Approach approach)
    {
        ArgumentNullException.ThrowIfNull(approach);
        ArgumentOutOfRangeException.ThrowIfNegative(a);
        ArgumentOutOfRangeException.ThrowIfNegative(b);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(a, Largest);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(b, operation == Operation.Add ? Largest : a);
        var sum = new Sum(a, operation, b, approach);
        return [.. (operation == Operation.Add ? Adding.All : TakingAway.All).Select(strategy => strategy(sum)).OfType<WorkedStrategy>().OrderBy(w => w.Kind)];
    }

    /// <summary>The strategy with the fewest mental steps; with a child, among those whose skills the child is secure in.</summary>
    /// <param name="worked">What <see cref="Work"/> gave; at least one.</param>
    /// <param name="childName">Whose skills count; null for the shortest of all.</param>
    public static Recommendation Recommend(IReadOnlyList<WorkedStrategy> worked, string? childName, IReadOnlySet<SkillId> secure, SkillMap map)
    {
        ArgumentNullException.ThrowIfNull(map);
        var shortest = Shortest(worked);
        if (childName is null)
        {
            return new(shortest.Kind, Phrase($"{shortest.Name} is the shortest way: {Steps(shortest)}."));
        }

        var within = worked.Where(w => w.Needs.All(secure.Contains)).ToList();
        if (within.Count == 0)
        {
            var basic = worked[0];
            return new(
                basic.Kind,
                Phrase($"{basic.Name}, with help: {childName} is not secure yet in what any of these ways needs{Missing(basic, secure, map)}.")
            );
        }

        var best = Shortest(within);
        var reason = Phrase($"{best.Name}: {Steps(best)}, and {childName} is secure in what it needs.");
        return new(
            best.Kind,
            best == shortest ? reason : Phrase($"{reason} {shortest.Name} would take {Steps(shortest)}, but is for later{Missing(shortest, secure, map)}.")
        );
    }

    private static WorkedStrategy Shortest(IReadOnlyList<WorkedStrategy> worked) => worked.OrderBy(w => w.MentalSteps).ThenBy(w => w.Kind).First();

    private static string Steps(WorkedStrategy worked) => worked.MentalSteps == 1 ? Phrase("one step") : Phrase($"{NumberWords.Of(worked.MentalSteps)} steps");

    private static string Missing(WorkedStrategy worked, IReadOnlySet<SkillId> secure, SkillMap map)
    {
        var names = worked.Needs.Where(n => !secure.Contains(n) && map.Has(n)).Select(n => map[n].InSentence).ToList();
        return names.Count == 0 ? "" : $" ({string.Join(" and ", names)})";
    }
}
