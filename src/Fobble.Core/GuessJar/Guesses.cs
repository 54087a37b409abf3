using MathNet.Numerics;

namespace Fobble.Core.GuessJar;

/// <summary>How far a guess was off, as a share of the amount: below 0 for too few, above for too many.</summary>
public readonly record struct GuessError(int Guess, int Actual)
{
    /// <summary>As a share of what was there; below zero for too few.</summary>
    public double Signed => (double)(Guess - Actual) / Actual;

    /// <summary>As a share of what was there, 0 for a hit.</summary>
    public double Absolute => Math.Abs(Signed);
}

/// <summary>Guesses against the count (rule R8).</summary>
public static class Guesses
{
    private const int EnoughForATrend = 3;
    private const double Level = 0.01;

    /// <summary>Who came nearest; all of them where several are as near.</summary>
    public static IReadOnlyList<T> Nearest<T>(int actual, IReadOnlyList<(T Who, int Guess)> guesses)
    {
        ArgumentNullException.ThrowIfNull(guesses);
        var least = guesses.Count == 0 ? 0 : guesses.Min(g => Math.Abs(g.Guess - actual));
        return [.. guesses.Where(g => Math.Abs(g.Guess - actual) == least).Select(g => g.Who)];
    }

    /// <summary>Change of the absolute relative error per jar, by least squares; null for fewer than three guesses.</summary>
    public static double? Trend(IReadOnlyList<GuessError> errors)
    {
        ArgumentNullException.ThrowIfNull(errors);
        return errors.Count < EnoughForATrend ? null : Fit.Line([.. errors.Select((_, i) => (double)i)], [.. errors.Select(e => e.Absolute)]).B;
    }

    public static string TrendInWords(IReadOnlyList<GuessError> errors) =>
        Trend(errors) switch
        {
            null => Phrase("Too few guesses to tell yet."),
            < -Level => Phrase("Guesses come closer from jar to jar."),
            > Level => Phrase("Guesses go further off from jar to jar."),
            _ => Phrase("Guesses stay about as close."),
        };
}
