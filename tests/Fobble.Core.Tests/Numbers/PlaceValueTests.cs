using Fobble.Core.Numbers;

namespace Fobble.Core.Tests.Numbers;

/// <summary>Rules R5 and R6. Single cases are common practice; the properties run over all numbers to 999.</summary>
public class PlaceValueTests
{
    private static readonly Gen<int> Number = Gen.Int[0, 999];

    [Fact]
    public void One_hundred_and_fifty_three_is_expanded_and_twelve_more_needs_no_exchange()
    {
        PlaceValue.Of(153).ExpandedSentence().ShouldBe("153 = 100 + 50 + 3");
        var steps = KindByKind.Add(153, 12);
        steps[^1].After.Number.ShouldBe(165);
        steps.ShouldAllBe(s => s.Move == KindMove.Work);
        HeapsOfTen.Of(162).ShouldBe(new HeapsOfTen(16, 2));
        HeapsOfTen.Of(162).ToString().ShouldBe("16 heaps of ten and 2");
    }

    [Theory]
    [InlineData(105, false, "105 = 100 + 5")]
    [InlineData(105, true, "105 = 100 + 0 + 5")]
    [InlineData(40, true, "40 = 40 + 0")]
    [InlineData(0, true, "0 = 0")]
    public void Zeros_are_left_out_or_kept(int number, bool keep, string sentence) => PlaceValue.Of(number).ExpandedSentence(keep).ShouldBe(sentence);

    [Fact]
    public void Kinds_make_the_number_again_and_every_exchange_keeps_its_worth() =>
        Number.Sample(n =>
        {
            var value = PlaceValue.Of(n);
            value.Number.ShouldBe(n);
            value.Expanded(keepZeros: true).Sum().ShouldBe(n);
            if (value.Tens > 0)
            {
                value.Break(NumberKind.Tens).Number.ShouldBe(n);
                value.Break(NumberKind.Tens).Gather(NumberKind.Ones).ShouldBe(value);
            }

            if (value.Hundreds > 0)
            {
                value.Break(NumberKind.Hundreds).Gather(NumberKind.Tens).ShouldBe(value);
            }
        });

    [Fact]
    public void Adding_kind_by_kind_ends_at_the_sum_with_an_exchange_for_every_carry() =>
        Gen.Select(Number, Number)
            .Where(p => p.Item1 + p.Item2 <= 999)
            .Sample(p =>
            {
                var (a, b) = p;
                var steps = KindByKind.Add(a, b);
                (steps.Count == 0 ? a : steps[^1].After.Number).ShouldBe(a + b);
                var onesCarry = (a % 10) + (b % 10) >= 10;
                var tensCarry = (a % 100) + (b % 100) >= 100;
                steps.Count(s => s.Move == KindMove.Gather).ShouldBe((onesCarry ? 1 : 0) + (tensCarry ? 1 : 0));
                foreach (var gather in steps.Where(s => s.Move == KindMove.Gather))
                {
                    gather.After[gather.Kind].ShouldBeLessThan(10);
                }
            });

    [Fact]
    public void Taking_away_kind_by_kind_ends_at_the_difference_and_no_kind_ever_falls_below_zero() =>
        Gen.Select(Number, Number)
            .Where(p => p.Item2 <= p.Item1)
            .Sample(p =>
            {
                var (a, b) = p;
                var steps = KindByKind.TakeAway(a, b);
                (steps.Count == 0 ? a : steps[^1].After.Number).ShouldBe(a - b);
                steps.ShouldAllBe(s => s.After.Ones >= 0 && s.After.Tens >= 0 && s.After.Hundreds >= 0);
                steps.Any(s => s.Move == KindMove.Break).ShouldBe(a % 10 < b % 10 || a % 100 < b % 100);
            });

    [Theory]
    [InlineData(14, 10, 20)]
    [InlineData(15, 20, 20)]
    [InlineData(40, 40, 40)]
    [InlineData(41, 40, 50)]
    public void The_nearest_ten_and_the_next_one(int number, int nearest, int next)
    {
        Rounding.ToTen(number).ShouldBe(nearest);
        Rounding.UpToTen(number).ShouldBe(next);
    }

    [Fact]
    public void What_cannot_be_exchanged_or_written_is_refused()
    {
        Should.Throw<InvalidOperationException>(() => PlaceValue.Of(9).Gather(NumberKind.Ones));
        Should.Throw<InvalidOperationException>(() => PlaceValue.Of(9).Break(NumberKind.Tens));
        Should.Throw<ArgumentOutOfRangeException>(() => PlaceValue.Of(1000));
        Should.Throw<ArgumentOutOfRangeException>(() => KindByKind.Add(600, 400));
        Should.Throw<ArgumentOutOfRangeException>(() => KindByKind.TakeAway(4, 5));
    }

    [Theory]
    [InlineData(7, 4, ">", "7 is 3 more than 4")]
    [InlineData(4, 7, "<", "4 is 3 fewer than 7")]
    [InlineData(6, 6, "=", "6 and 6 are the same: everyone has a partner")]
    public void Two_amounts_are_held_against_each_other(int first, int second, string sign, string words)
    {
        var compared = new Comparison(first, second);
        (compared.Sign, compared.InWords(Wording.Usual), compared.Matched + compared.Difference).ShouldBe((sign, words, Math.Max(first, second)));
        new Comparison(4, 7).InWords(new Wording(Less: FewerWord.Less)).ShouldBe("4 is 3 less than 7");
    }

    [Fact]
    public void Sums_are_compared_as_they_were_written() => new Comparison(5 + 2, 3 + 3).Between("5 + 2", "3 + 3").ShouldBe("5 + 2 > 3 + 3");

    [Fact]
    public void Pairing_up_tells_even_from_odd()
    {
        Pairing.Of(8).ShouldBe(new Pairing(4, false));
        Pairing.Of(7).ShouldBe(new Pairing(3, true));
        Pairing.Of(0).Even.ShouldBeTrue();
    }
}
