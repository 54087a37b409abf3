using Fobble.Core.Chance;
using Fobble.Core.Numbers;
using MathNet.Numerics.Distributions;

namespace Fobble.Core.Tests.Chance;

/// <summary>Rule R7: tray and ring, against MathNet's binomial and multinomial distributions, inclusion–exclusion and shaking.</summary>
public class ShakesTests
{
    [Fact]
    public void Ten_over_a_ring_at_one_half_fall_equally_in_252_of_1024() =>
        Shakes.OverRing(10, 0.5).Single(s => s.Parts[0] == 5).Share.ShouldBe(252.0 / 1024, 1e-15);

    [Theory]
    [InlineData(5, 0.5)]
    [InlineData(10, 0.35)]
    [InlineData(20, 0.8)]
    public void The_ring_is_the_binomial_distribution(int things, double inside)
    {
        var known = new Binomial(inside, things);
        var splits = Shakes.OverRing(things, inside);
        splits.Count.ShouldBe(things + 1);
        splits.ShouldAllBe(s => Math.Abs(s.Share - known.Probability(s.Parts[0])) < 1e-12);
    }

    [Theory]
    [InlineData(4, 2)]
    [InlineData(5, 3)]
    [InlineData(10, 3)]
    public void Wells_are_the_multinomial_distribution(int things, int wells)
    {
        var known = new Multinomial([.. Enumerable.Repeat(1.0 / wells, wells)], things);
        var splits = Shakes.IntoWells(things, wells);
        splits.Sum(s => s.Share).ShouldBe(1, 1e-12);
        splits.ShouldAllBe(s => Math.Abs(s.Share - known.Probability(s.Parts.ToArray())) < 1e-12);
        Shakes.IntoWells(things, wells, whereMatters: false).Sum(s => s.Share).ShouldBe(1, 1e-12);
    }

    [Fact]
    public void Where_it_does_not_matter_which_well_splits_that_are_alike_are_one()
    {
        var splits = Shakes.IntoWells(3, 3, whereMatters: false);
        splits
            .ToDictionary(s => $"{s}", s => (int)Math.Round(s.Share * 27))
            .ShouldBe(
                new Dictionary<string, int>
                {
                    ["3 + 0 + 0"] = 3,
                    ["2 + 1 + 0"] = 18,
                    ["1 + 1 + 1"] = 6,
                },
                ignoreOrder: true
            );
    }

    [Fact]
    public void A_split_is_seen_after_one_by_its_chance() => new ShakenSplit([5, 0], 1.0 / 32).ShakesToSee.ShouldBe(32);

    [Fact]
    public void Equal_chances_take_as_long_as_the_classic_collector()
    {
        // n(1 + 1/2 + … + 1/n), the textbook value for equal chances.
        var faces = Enumerable.Range(1, 6).Select(n => new ShakenSplit([n], 1.0 / 6)).ToList();
        Shakes.ToSeeAll(faces).ShouldBe(14.7, 1e-9);
    }

    [Theory]
    [InlineData(3, 2)]
    [InlineData(6, 2)]
    [InlineData(3, 3)]
    public void Seeing_all_splits_takes_as_long_as_inclusion_and_exclusion_says(int things, int wells)
    {
        var shares = Shakes.IntoWells(things, wells).Select(s => s.Share).ToList();
        var expected = Enumerable
            .Range(1, (1 << shares.Count) - 1)
            .Sum(set =>
            {
                var chosen = shares.Where((_, i) => (set >> i & 1) == 1).ToList();
                return (chosen.Count % 2 == 1 ? 1 : -1) / chosen.Sum();
            });
        Shakes.ToSeeAll(Shakes.IntoWells(things, wells)).ShouldBe(expected, expected * 1e-8);
    }

    [Fact]
    public void Seeing_all_splits_of_ten_agrees_with_shaking_within_four_standard_errors()
    {
        const int Tries = 600;
        var random = new SeededRandom(7);
        var played = Enumerable
            .Range(0, Tries)
            .Select(_ =>
            {
                HashSet<int> seen = [];
                var shakes = 0.0;
                while (seen.Count < 7)
                {
                    shakes++;
                    seen.Add(Enumerable.Range(0, 6).Count(_ => random.Chance(0.5)));
                }

                return shakes;
            })
            .ToList();
        var mean = played.Average();
        var error = Math.Sqrt(played.Average(p => (p - mean) * (p - mean)) / Tries);
        Math.Abs(Shakes.ToSeeAll(Shakes.OverRing(6, 0.5)) - mean).ShouldBeLessThan(4 * error);
    }

    [Theory]
    [InlineData(0)]
    [InlineData(1)]
    [InlineData(double.NaN)]
    public void A_ring_that_is_always_or_never_hit_is_refused(double inside) => Should.Throw<RefusedException>(() => Shakes.OverRing(10, inside));
}
