using Fobble.Core.Evidence;
using MathNet.Numerics.Distributions;

namespace Fobble.Core.Agreement;

/// <summary>A share or a coefficient, and the interval in which it lies with 95 % confidence.</summary>
public sealed record Interval(double Value, double Low, double High)
{
    private static readonly double Z = Normal.InvCDF(0, 1, 0.975);

    /// <summary>The score interval of a share (Wilson 1927).</summary>
    public static Interval Wilson(int hits, int of)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(of, 1);
        ArgumentOutOfRangeException.ThrowIfGreaterThan((uint)hits, (uint)of, nameof(hits));
        var share = (double)hits / of;
        var z2 = Z * Z;
        var middle = ((2 * hits) + z2) / (2 * (of + z2));
        var half = Z * Math.Sqrt(z2 + (4 * hits * (1 - share))) / (2 * (of + z2));
        return new(share, hits == 0 ? 0 : middle - half, hits == of ? 1 : middle + half);
    }

    internal static Interval Around(double value, double standardError) =>
        new(value, Math.Max(-1, value - (Z * standardError)), Math.Min(1, value + (Z * standardError)));
}

/// <summary>What one adult and another noted of the same moment.</summary>
public readonly record struct CodePair(Support First, Support Second);

/// <summary>
/// Agreement between two adults on support levels: percent with Wilson's interval, kappa (Cohen 1960) and kappa weighted by the square of the
/// distance (Cohen 1968), each with an interval from its large-sample error (Fleiss, Cohen and Everitt 1969).
/// </summary>
/// <param name="Table">Counts: first adult's level by second adult's.</param>
/// <param name="Kappa">Null where it is not defined: both adults used one and the same level only.</param>
public sealed record AdultAgreement(int Pairs, IReadOnlyList<IReadOnlyList<int>> Table, Interval Percent, Interval? Kappa, Interval? Weighted, string Sentence)
{
    private const int FewPairs = 20;

    public static AdultAgreement? Of(IReadOnlyList<CodePair> pairs)
    {
        ArgumentNullException.ThrowIfNull(pairs);
        if (pairs.Count == 0)
        {
            return null;
        }

        var levels = Enum.GetValues<Support>().Length;
        var table = new int[levels, levels];
        foreach (var pair in pairs)
        {
            table[(int)pair.First, (int)pair.Second]++;
        }

        var percent = Interval.Wilson(pairs.Count(p => p.First == p.Second), pairs.Count);
        var kappa = KappaOf(table, (_, _) => 0);
        var weighted = KappaOf(table, (i, j) => 1 - ((double)((i - j) * (i - j)) / ((levels - 1) * (levels - 1))));
        return new(
            pairs.Count,
            [.. Enumerable.Range(0, levels).Select(i => (IReadOnlyList<int>)[.. Enumerable.Range(0, levels).Select(j => table[i, j])])],
            percent,
            kappa,
            weighted,
            SentenceFor(pairs.Count, percent, weighted)
        );
    }

    /// <summary>Kappa of a square table of counts.</summary>
    /// <param name="partly">How far two different levels agree, 0 to below 1; equal ones agree wholly. All 0 gives Cohen's plain kappa.</param>
    internal static Interval? KappaOf(int[,] table, Func<int, int, double> partly)
    {
        var size = table.GetLength(0);
        double n = table.Cast<int>().Sum();
        var (rows, columns) = (new double[size], new double[size]);
        for (var i = 0; i < size; i++)
        {
            for (var j = 0; j < size; j++)
            {
                rows[i] += table[i, j] / n;
                columns[j] += table[i, j] / n;
            }
        }

        double Weight(int i, int j) => i == j ? 1 : partly(i, j);
        var cells = Enumerable.Range(0, size).SelectMany(i => Enumerable.Range(0, size).Select(j => (i, j))).ToList();
        var seen = cells.Sum(c => Weight(c.i, c.j) * table[c.i, c.j] / n);
        var byChance = cells.Sum(c => Weight(c.i, c.j) * rows[c.i] * columns[c.j]);
        if (byChance >= 1 - 1e-12)
        {
            return null;
        }

        var kappa = (seen - byChance) / (1 - byChance);
        double[] rowMean = [.. Enumerable.Range(0, size).Select(i => Enumerable.Range(0, size).Sum(j => columns[j] * Weight(i, j)))];
        double[] columnMean = [.. Enumerable.Range(0, size).Select(j => Enumerable.Range(0, size).Sum(i => rows[i] * Weight(i, j)))];
        var sum = cells.Sum(c => table[c.i, c.j] / n * Math.Pow(Weight(c.i, c.j) - ((rowMean[c.i] + columnMean[c.j]) * (1 - kappa)), 2));
        var variance = (sum - Math.Pow(kappa - (byChance * (1 - kappa)), 2)) / (Math.Pow(1 - byChance, 2) * n);
        return Interval.Around(kappa, Math.Sqrt(Math.Max(0, variance)));
    }

    private static string SentenceFor(int pairs, Interval percent, Interval? weighted)
    {
        var same = Phrase($"The same in {Words.Percent(percent.Value)} of {Words.Count(pairs, "moment", "moments")}");
        var beyond = weighted is { } w
            ? Phrase($"; beyond chance, near misses counted in part, {w.Value.ToString("0.00", System.Globalization.CultureInfo.InvariantCulture)} of 1")
            : "";
        return same + beyond + (pairs < FewPairs ? Phrase($". With fewer than {Words.Number(FewPairs)} moments that can be luck either way.") : ".");
    }
}
