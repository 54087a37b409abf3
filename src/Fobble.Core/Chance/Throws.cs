using Fobble.Core.Numbers;

namespace Fobble.Core.Chance;

public enum DiceOperation
{
    /// <summary>All dice are put together.</summary>
    Add,

    /// <summary>The others are taken from the first.</summary>
    TakeAway,

    /// <summary>A further die, half its faces + and half −, says which of the two is done; with a single die, which way it counts.</summary>
    PlusOrMinus,
}

/// <summary>A fact that can come up, and in how many of all equally likely throws.</summary>
public sealed record ThrownFact(string Fact, int Result, long Ways);

/// <summary>A result and its share of all throws.</summary>
public sealed record ThrownResult(int Result, long Ways, double Share);

/// <summary>Everything that a handful of dice can show (rule R7), counted exactly over all faces.</summary>
public sealed class Throws
{
    private const long Most = 2_000_000;

    /// <exception cref="RefusedException">No die, or so many faces that counting every throw would take too long.</exception>
    public Throws(IReadOnlyList<Die> dice, DiceOperation operation)
    {
        ArgumentNullException.ThrowIfNull(dice);
        var signs = operation switch
        {
            DiceOperation.Add => new[] { 1 },
            DiceOperation.TakeAway => [-1],
            _ => [1, -1],
        };
        if (dice.Count == 0 || dice.Aggregate((long)signs.Length, (all, d) => Math.Min(all * d.Faces.Count, Most + 1)) > Most)
        {
            throw new RefusedException(
                "dice",
                dice.Count == 0 ? Phrase("Choose at least one die.") : Phrase("Those dice have too many faces between them: take fewer.")
            );
        }

        Dictionary<(string Fact, int Result), long> facts = [];
        foreach (var sign in signs)
        {
            foreach (var faces in Faces(dice))
            {
                var fact = Fact(faces, operation, sign < 0);
                facts[fact] = facts.GetValueOrDefault(fact) + 1;
            }
        }

        All = facts.Values.Sum();
        Facts = [.. facts.Select(f => new ThrownFact(f.Key.Fact, f.Key.Result, f.Value)).OrderBy(f => f.Result).ThenByDescending(f => f.Ways)];
        Results = [.. Facts.GroupBy(f => f.Result).Select(g => new ThrownResult(g.Key, g.Sum(f => f.Ways), (double)g.Sum(f => f.Ways) / All))];
    }

    /// <summary>How many throws there are, all equally likely.</summary>
    public long All { get; }

    public IReadOnlyList<ThrownResult> Results { get; }

    public IReadOnlyList<ThrownFact> Facts { get; }

    /// <summary>What comes on average.</summary>
    public double Mean => Results.Sum(r => r.Result * r.Share);

    /// <summary>What an adult should know before handing the dice out; empty where nothing is amiss.</summary>
    /// <param name="range">Numbers that the children work with.</param>
    public IReadOnlyList<string> Warnings(NumberRange range)
    {
        List<string> warnings = [];
        var below = Results.Where(r => r.Result < 0).Sum(r => r.Ways);
        if (below > 0)
        {
            warnings.Add(Phrase($"Can fall below zero: {OfAll(below)}, for instance {Facts.First(f => f.Result < 0).Fact}."));
        }

        var outside = Results.Where(r => r.Result >= 0 && !range.Contains(r.Result)).ToList();
        if (outside.Count > 0)
        {
            warnings.Add(
                Phrase(
                    $"Leaves the range {range}: {OfAll(outside.Sum(r => r.Ways))}, for instance {Facts.First(f => f.Result == outside[^1].Result).Fact} = {outside[^1].Result}."
                )
            );
        }

        return warnings;
    }

    /// <summary>What those faces say, and what comes of it: 5 − 3 is 2; a single die beside one with + and − is a move, up or down: − 3.</summary>
    public static (string Fact, int Result) Fact(IReadOnlyList<int> faces, DiceOperation operation, bool minus)
    {
        ArgumentNullException.ThrowIfNull(faces);
        return faces.Count == 1 && operation == DiceOperation.PlusOrMinus
            ? (minus ? $"− {faces[0]}" : $"+ {faces[0]}", minus ? -faces[0] : faces[0])
            : (string.Join(minus ? " − " : " + ", faces), faces[0] + ((minus ? -1 : 1) * faces.Skip(1).Sum()));
    }

    private string OfAll(long ways) => Phrase($"{ways} of {All} throws");

    private static IEnumerable<int[]> Faces(IReadOnlyList<Die> dice) =>
        dice.Aggregate(
            (IEnumerable<int[]>)
                [
                    [],
                ],
            (all, die) => all.SelectMany(faces => die.Faces.Select(face => (int[])[.. faces, face]))
        );
}
