using Fobble.Core.Numbers;

namespace Fobble.Core.GuessJar;

/// <summary>How many to put into the jar next, and why.</summary>
public sealed record NextAmount(int Amount, string Reason)
{
    /// <summary>Settings: the most that an amount grows by, as a share and in things, whichever is more (common practice).</summary>
    public const double LargestGrowth = 0.10;

    /// <summary>In things, where a tenth of a small amount would be less.</summary>
    public const int SmallestGrowth = 5;

    /// <param name="last">Amount of the last jar; null for the first.</param>
    /// <param name="range">Amounts the class works with.</param>
    /// <param name="tiny">Whether the things are too small to be counted safely by the hundred.</param>
    /// <param name="countedNineties">Whether the class has counted an amount from 90 to 99.</param>
    /// <param name="holds">How many of the things the jar holds, poured in; null where that is not known.</param>
    public static NextAmount After(int? last, NumberRange range, bool tiny, bool countedNineties, int? holds = null)
    {
        var next = Growing(last, range, tiny, countedNineties);
        return holds is { } most && next.Amount > most
            ? new(most, Phrase($"{most}, since the jar is full then: {next.Amount} would be next, and want a larger jar or smaller things."))
            : next;
    }

    private static NextAmount Growing(int? last, NumberRange range, bool tiny, bool countedNineties)
    {
        if (last is not { } before)
        {
            return new(range.Low, Phrase($"{range.Low}, where the class's range begins."));
        }

        var growth = Math.Max(SmallestGrowth, (int)(before * LargestGrowth));
        var next = Math.Max(before, range.Low) + (before < range.Low ? 0 : growth);
        if (tiny && !countedNineties && next >= 100)
        {
            return before is >= 90 and <= 99
                ? new(before, Phrase($"{before} again: things this small stay under a hundred until the class has counted out ninety-some."))
                : new(
                    Math.Min(95, range.High),
                    Phrase($"{Math.Min(95, range.High)}: things this small stay under a hundred until the class has counted out ninety-some.")
                );
        }

        return next > range.High
            ? new(range.High, Phrase($"{range.High}, the most in the class's range."))
            : new(
                next,
                Phrase(
                    $"{next}: {next - before} more than last time, {(growth == SmallestGrowth ? "a small step" : "a tenth")}, so that guesses can build on it."
                )
            );
    }
}

/// <summary>When a jar is put away for a while.</summary>
public static class JarRest
{
    /// <summary>Settings (common practice): weeks of falling interest before a rest, and weeks that it lasts.</summary>
    public const int FallingWeeks = 3;
    public const int Weeks = 4;

    /// <summary>The day until which a jar rests that is put away.</summary>
    public static DateOnly From(DateOnly today) => today.AddDays(7 * Weeks);

    /// <param name="guessers">How many children guessed, week by week, the last one last.</param>
    /// <returns>The sentence that proposes a rest; null where interest holds.</returns>
    public static string? Proposal(IReadOnlyList<int> guessers)
    {
        ArgumentNullException.ThrowIfNull(guessers);
        var falls = guessers.Zip(guessers.Skip(1)).Reverse().TakeWhile(w => w.Second < w.First).Count();
        return falls < FallingWeeks
            ? null
            : Phrase(
                $"Fewer children guessed for {NumberWords.Of(falls)} weeks running. Put the jar away for about {NumberWords.Of(Weeks)} weeks; it comes back as news."
            );
    }
}
