using Fobble.Core.Numbers;
using MathNet.Numerics;

namespace Fobble.Core.Tests.Numbers;

/// <summary>Rule R2. Counts are stars and bars (Feller 1950, II.5), checked against MathNet.Numerics.</summary>
public class BondsTests
{
    private static readonly Gen<int> Total = Gen.Int[0, 20];

    [Fact]
    public void Ordered_splits_number_one_more_than_the_total_and_each_makes_it() =>
        Total.Sample(total =>
        {
            var splits = Bonds.Ordered(total);
            splits.Count.ShouldBe(total + 1);
            splits.Distinct().Count().ShouldBe(total + 1);
            splits.ShouldAllBe(s => s.First + s.Second == total && s.First >= 0 && s.Second >= 0);
        });

    [Fact]
    public void Unordered_splits_number_half_the_total_rounded_down_and_one() =>
        Total.Sample(total =>
        {
            var splits = Bonds.Unordered(total);
            splits.Count.ShouldBe((total / 2) + 1);
            splits.SelectMany(s => new[] { s, s.Turned }).ToHashSet().SetEquals(Bonds.Ordered(total)).ShouldBeTrue();
        });

    [Fact]
    public void Wells_are_counted_by_stars_and_bars() =>
        Gen.Select(Gen.Int[0, 9], Gen.Int[1, 4])
            .Sample(
                (total, wells) =>
                {
                    var all = Bonds.IntoWells(total, wells);
                    all.Count.ShouldBe((int)Math.Round(Combinatorics.Combinations(total + wells - 1, wells - 1)));
                    all.Select(w => string.Join(",", w)).Distinct().Count().ShouldBe(all.Count);
                    all.ShouldAllBe(w => w.Sum() == total);
                }
            );

    [Fact]
    public void Three_wells_with_five_things_can_fall_in_twenty_one_ways() => Bonds.IntoWells(5, 3).Count.ShouldBe(21);

    [Theory]
    [InlineData(2, 3, 2, 2)]
    [InlineData(4, 4, 1, 1)]
    [InlineData(0, 5, 2, 2)]
    [InlineData(0, 0, 1, 1)]
    public void A_fact_family_has_no_sentence_twice(int a, int b, int additions, int subtractions)
    {
        var family = FactFamily.Of(new Split(a, b));
        family.Additions.Count.ShouldBe(additions);
        family.Subtractions.Count.ShouldBe(subtractions);
        family.Additions.ShouldAllBe(s => s.Result == a + b);
        family.Subtractions.ShouldAllBe(s => s.Left == a + b && (s.Result == a || s.Result == b));
    }

    [Fact]
    public void What_is_still_to_find_and_what_was_found_are_all_answers()
    {
        Split[] found = [new(2, 3), new(5, 0)];
        Bonds.StillToFind(5, found).ShouldBe([new(0, 5), new(1, 4), new(3, 2), new(4, 1)]);
    }

    [Fact]
    public void A_known_part_larger_than_the_total_is_refused() => Should.Throw<ArgumentOutOfRangeException>(() => Bonds.MissingPart(5, 6));

    [Fact]
    public void Missing_part_and_known_part_make_the_total() =>
        Gen.Int[0, 30].SelectMany(t => Gen.Int[0, t].Select(k => (t, k))).Sample(p => (Bonds.MissingPart(p.t, p.k) + p.k).ShouldBe(p.t));
}
