using Fobble.Core.Agreement;
using Fobble.Core.Evidence;

namespace Fobble.Core.Tests.Agreement;

public class AdultAgreementTests
{
    // Two diagnosticians, 200 cases, three kinds: the example of Cohen 1960, with weights in Cohen 1968 (tables from memory).
    private static readonly int[,] Cohen =
    {
        { 88, 14, 18 },
        { 10, 40, 10 },
        { 2, 6, 12 },
    };
    private static readonly int[,] Distance =
    {
        { 0, 1, 3 },
        { 1, 0, 6 },
        { 3, 6, 0 },
    };

    [Fact]
    public void Kappa_is_what_Cohen_published() => AdultAgreement.KappaOf(Cohen, (_, _) => 0)!.Value.ShouldBe(0.492, 0.0005);

    [Fact]
    public void Weighted_kappa_is_what_Cohen_published() => AdultAgreement.KappaOf(Cohen, (i, j) => 1 - (Distance[i, j] / 6.0))!.Value.ShouldBe(0.348, 0.0005);

    [Fact]
    public void The_interval_is_the_large_sample_one()
    {
        // Fleiss, Cohen and Everitt 1969 by another way: the delta method with derivatives taken numerically.
        foreach (var weight in (Func<int, int, double>[])[(_, _) => 0, (i, j) => 1 - (Distance[i, j] / 6.0)])
        {
            var kappa = AdultAgreement.KappaOf(Cohen, weight)!;
            ((kappa.High - kappa.Low) / 2 / 1.959964).ShouldBe(DeltaError(Cohen, weight), 1e-5);
        }
    }

    // Newcombe 1998, table of examples for the score interval without correction.
    [Theory]
    [InlineData(81, 263, 0.2553, 0.3662)]
    [InlineData(15, 148, 0.0624, 0.1605)]
    [InlineData(0, 20, 0, 0.1611)]
    [InlineData(1, 29, 0.0061, 0.1718)]
    public void Wilsons_interval_is_what_Newcombe_tabled(int hits, int of, double low, double high)
    {
        var interval = Interval.Wilson(hits, of);
        interval.Low.ShouldBe(low, 0.00005);
        interval.High.ShouldBe(high, 0.00005);
    }

    [Fact]
    public void Adults_who_agree_always_have_a_kappa_of_one_and_those_who_guess_one_near_nothing()
    {
        List<CodePair> same = [.. Enumerable.Range(0, 40).Select(i => new CodePair((Support)(i % 4), (Support)(i % 4)))];
        var agreed = AdultAgreement.Of(same)!;
        agreed.Kappa!.Value.ShouldBe(1, 1e-9);
        agreed.Percent.Value.ShouldBe(1);
        List<CodePair> mixed = [.. Enumerable.Range(0, 160).Select(i => new CodePair((Support)(i % 4), (Support)(i / 4 % 4)))];
        AdultAgreement.Of(mixed)!.Weighted!.Value.ShouldBe(0, 1e-9);
    }

    [Fact]
    public void A_near_miss_counts_less_against_than_a_far_one()
    {
        List<CodePair> With(Support other) =>
            [
                .. Enumerable.Range(0, 20).Select(i => new CodePair(Support.Alone, i < 12 ? Support.Alone : other)),
                .. Enumerable.Repeat(new CodePair(Support.NotYet, Support.NotYet), 10),
            ];
        AdultAgreement.Of(With(Support.Prompted))!.Weighted!.Value.ShouldBeGreaterThan(AdultAgreement.Of(With(Support.NotYet))!.Weighted!.Value);
    }

    [Fact]
    public void One_level_only_gives_a_share_and_no_kappa_and_few_moments_are_said_to_be_few()
    {
        AdultAgreement.Of([]).ShouldBeNull();
        var all = AdultAgreement.Of([.. Enumerable.Repeat(new CodePair(Support.Alone, Support.Alone), 5)])!;
        all.Kappa.ShouldBeNull();
        all.Sentence.ShouldBe("The same in 100 % of five moments. With fewer than 20 moments that can be luck either way.");
    }

    private static double DeltaError(int[,] table, Func<int, int, double> weight)
    {
        double n = table.Cast<int>().Sum();
        var p = table.Cast<int>().Select(c => c / n).ToArray();
        double Kappa(double[] q)
        {
            double Row(int i) => q[3 * i] + q[(3 * i) + 1] + q[(3 * i) + 2];
            double Column(int j) => q[j] + q[3 + j] + q[6 + j];
            var (seen, chance) = (0.0, 0.0);
            for (var c = 0; c < 9; c++)
            {
                var w = c / 3 == c % 3 ? 1 : weight(c / 3, c % 3);
                seen += w * q[c];
                chance += w * Row(c / 3) * Column(c % 3);
            }

            return (seen - chance) / (1 - chance);
        }

        double Slope(int c)
        {
            double[] up = [.. p],
                down = [.. p];
            (up[c], down[c]) = (p[c] + 1e-6, p[c] - 1e-6);
            return (Kappa(up) - Kappa(down)) / 2e-6;
        }

        var slopes = Enumerable.Range(0, 9).Select(Slope).ToArray();
        var mean = slopes.Select((s, c) => s * p[c]).Sum();
        return Math.Sqrt((slopes.Select((s, c) => s * s * p[c]).Sum() - (mean * mean)) / n);
    }
}
