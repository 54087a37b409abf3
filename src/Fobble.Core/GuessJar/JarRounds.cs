using Fobble.Core.Numbers;

namespace Fobble.Core.GuessJar;

/// <summary>A jar that was filled for the class to guess at.</summary>
/// <param name="Guesses">By child, whoever guessed.</param>
/// <param name="Counted">Null until it is opened.</param>
public sealed record JarRound<T>(int Amount, double AcrossMm, IReadOnlyList<(T Who, int Guess)> Guesses, int? Counted)
    where T : notnull;

/// <summary>How far off a child's guesses were, jar by jar, and whether they come closer.</summary>
public sealed record GuessLine<T>(T Who, IReadOnlyList<GuessError?> Errors, string Trend);

/// <summary>What follows from the jars that a class has guessed at so far, the oldest first.</summary>
public static class JarRounds
{
    /// <summary>Settings: amounts the jar works with, and the width in millimetres below which things are too small to be counted out by the hundred.</summary>
    public static NumberRange Range { get; } = new(10, 150);

    public const double TinyMm = 15;

    /// <summary>What to put in next, after the last jar that was counted.</summary>
    /// <param name="holds">How many of the things the jar holds, poured in; null where no jar was filled yet.</param>
    public static NextAmount Next<T>(IReadOnlyList<JarRound<T>> rounds, double acrossMm, int? holds = null)
        where T : notnull
    {
        ArgumentNullException.ThrowIfNull(rounds);
        var counted = rounds.Select(r => r.Counted).OfType<int>().ToList();
        return NextAmount.After(counted.Count == 0 ? null : counted[^1], Range, acrossMm < TinyMm, counted.Any(c => c is >= 90 and <= 99), holds);
    }

    /// <summary>The sentence that proposes a rest; null where interest holds.</summary>
    public static string? RestProposal<T>(IReadOnlyList<JarRound<T>> rounds)
        where T : notnull
    {
        ArgumentNullException.ThrowIfNull(rounds);
        return JarRest.Proposal([.. rounds.Where(r => r.Counted is not null).Select(r => r.Guesses.Count)]);
    }

    /// <summary>Every child's errors over the counted jars; null for a jar that the child did not guess at.</summary>
    public static IReadOnlyList<GuessLine<T>> Lines<T>(IReadOnlyList<JarRound<T>> rounds, IReadOnlyList<T> children)
        where T : notnull
    {
        ArgumentNullException.ThrowIfNull(rounds);
        ArgumentNullException.ThrowIfNull(children);
        var opened = rounds
            .Where(r => r.Counted > 0)
            .Select(r => (Counted: r.Counted!.Value, Guesses: r.Guesses.ToDictionary(g => g.Who, g => g.Guess)))
            .ToList();
        return
        [
            .. children.Select(child =>
            {
                var errors = opened.Select(r => r.Guesses.TryGetValue(child, out var guess) ? new GuessError(guess, r.Counted) : (GuessError?)null).ToList();
                return new GuessLine<T>(child, errors, Guesses.TrendInWords([.. errors.OfType<GuessError>()]));
            }),
        ];
    }
}
