using Fobble.Core.Numbers;
using MathNet.Numerics;

namespace Fobble.Core.Chance;

/// <summary>A split that a shake can show.</summary>
/// <param name="Share">Its chance in one shake.</param>
public sealed record ShakenSplit(IReadOnlyList<int> Parts, double Share)
{
    /// <summary>Shakes until it is seen for the first time, on average.</summary>
    public double ShakesToSee => 1 / Share;

    public override string ToString() => string.Join(" + ", Parts);
}

/// <summary>Things shaken into wells or dropped over a ring (rule R7), each falling on its own.</summary>
public static class Shakes
{
    /// <summary>Setting (common practice): shakes that a small group gets through in a session.</summary>
    public const int MostInASession = 60;

    /// <summary>Every split of <paramref name="things"/> over wells of equal size: the multinomial distribution.</summary>
    /// <param name="whereMatters">Whether 3 and 2 is another split than 2 and 3.</param>
    public static IReadOnlyList<ShakenSplit> IntoWells(int things, int wells, bool whereMatters = true)
    {
        var all = Bonds.IntoWells(things, wells).Select(parts => new ShakenSplit(parts, WaysOf(parts) * Math.Pow(wells, -things)));
        return whereMatters
            ? [.. all]
            :
            [
                .. all.GroupBy(s => string.Join("+", s.Parts.OrderDescending()))
                    .Select(g => new ShakenSplit([.. g.First().Parts.OrderDescending()], g.Sum(s => s.Share))),
            ];
    }

    /// <summary>Every split into inside and outside of a ring that each thing hits with the chance <paramref name="inside"/>: the binomial distribution.</summary>
    /// <param name="inside">Between 0 and 1, neither of them.</param>
    public static IReadOnlyList<ShakenSplit> OverRing(int things, double inside)
    {
        if (inside is not (> 0 and < 1))
        {
            throw new RefusedException("inside", Phrase("The chance to land inside lies between 0 and 1."));
        }

        return
        [
            .. Bonds
                .Ordered(things)
                .Select(s => new ShakenSplit([s.First, s.Second], WaysOf([s.First, s.Second]) * Math.Pow(inside, s.First) * Math.Pow(1 - inside, s.Second))),
        ];
    }

    /// <summary>
    /// Shakes until every one of the splits has been seen, on average: ∫ 1 − ∏(1 − e^(−pᵢt)) dt over all t ≥ 0, the coupon collector with
    /// unequal chances (Flajolet, Gardy and Thimonier 1992).
    /// </summary>
    public static double ToSeeAll(IReadOnlyList<ShakenSplit> splits)
    {
        ArgumentNullException.ThrowIfNull(splits);

        // In units of the rarest one's waiting time the integrand is over by 60; its bends lie evenly on a scale of powers.
        var rarest = splits.Min(s => s.Share);
        double Open(double t) => 1 - splits.Aggregate(1.0, (all, s) => all * (1 - Math.Exp(-s.Share * t)));
        var last = 60 / rarest;
        var sum = 0.0;
        for (var (low, high) = (0.0, 1.0); low < last; (low, high) = (high, high * 1.5))
        {
            sum += Integrate.GaussLegendre(Open, low, Math.Min(high, last), 32);
        }

        return sum;
    }

    /// <summary>How often one has to shake to see every way, and what that means for a session.</summary>
    public static string ToSeeAllInWords(IReadOnlyList<ShakenSplit> splits)
    {
        var shakes = ToSeeAll(splits);
        var said = shakes < 1000 ? Phrase($"about {shakes:0}") : Phrase("over a thousand");
        return Phrase($"To see all {splits.Count} ways takes {said} shakes.")
            + (shakes > MostInASession ? Phrase(" That is more than a session holds: make the rare ones on purpose.") : "");
    }

    // In how many ways the things can fall so: n! / (a! b! …), built up well by well so that it stays a whole number.
    private static double WaysOf(IReadOnlyList<int> parts)
    {
        var (ways, placed) = (1.0, 0);
        foreach (var part in parts)
        {
            for (var i = 1; i <= part; i++)
            {
                ways = ways * ++placed / i;
            }
        }

        return ways;
    }
}
