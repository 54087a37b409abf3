using Fobble.Core.Chance;
using Fobble.Core.Numbers;

namespace Fobble.Core.Tests.Chance;

/// <summary>Rule R7: what dice can show, counted by hand and against simulation.</summary>
public class ThrowsTests
{
    private static readonly NumberRange ToTen = new(0, 10);

    [Fact]
    public void Five_to_ten_minus_nought_to_five_gives_every_number_to_ten_and_never_less()
    {
        // Common practice: the pair of numeral dice that suits taking away within ten.
        var throws = new Throws([Die.Numbered(5, 10), Die.Numbered(0, 5)], DiceOperation.TakeAway);
        throws.Results.Select(r => r.Result).ShouldBe(Enumerable.Range(0, 11));
        throws.Warnings(ToTen).ShouldBeEmpty();
    }

    [Fact]
    public void Two_usual_dice_make_a_triangle()
    {
        var throws = new Throws([Die.Numbered(1, 6), Die.Numbered(1, 6)], DiceOperation.Add);
        throws.Results.Select(r => (r.Result, r.Ways)).ShouldBe(Enumerable.Range(2, 11).Select(n => (n, 6L - Math.Abs(n - 7))));
        throws.All.ShouldBe(36);
        throws.Mean.ShouldBe(7, 1e-12);
        throws.Facts.Where(f => f.Result == 4).Select(f => f.Fact).ShouldBe(["1 + 3", "2 + 2", "3 + 1"]);
    }

    [Fact]
    public void One_die_from_another_can_fall_below_zero_and_says_how_often()
    {
        var throws = new Throws([Die.Numbered(1, 6), Die.Numbered(1, 6)], DiceOperation.TakeAway);
        throws.Warnings(ToTen).ShouldHaveSingleItem().ShouldStartWith("Can fall below zero: 15 of 36 throws, for instance 1 − ");
        new Throws([Die.Numbered(5, 10), Die.Numbered(1, 6)], DiceOperation.Add)
            .Warnings(ToTen)
            .ShouldHaveSingleItem()
            .ShouldBe("Leaves the range 0-10: 21 of 36 throws, for instance 10 + 6 = 16.");
    }

    [Fact]
    public void A_plus_or_minus_die_halves_what_the_two_operations_give()
    {
        Die[] dice = [Die.Numbered(5, 10), Die.Numbered(0, 5)];
        var both = new Throws(dice, DiceOperation.PlusOrMinus).Results.ToDictionary(r => r.Result, r => r.Share);
        var added = new Throws(dice, DiceOperation.Add).Results.ToDictionary(r => r.Result, r => r.Share);
        var taken = new Throws(dice, DiceOperation.TakeAway).Results.ToDictionary(r => r.Result, r => r.Share);
        both.ShouldAllBe(b => Math.Abs(b.Value - ((added.GetValueOrDefault(b.Key) + taken.GetValueOrDefault(b.Key)) / 2)) < 1e-12);
    }

    [Fact]
    public void A_single_die_beside_plus_and_minus_goes_up_and_down()
    {
        Throws throws = new([Die.Numbered(1, 6)], DiceOperation.PlusOrMinus);
        throws.Results.Select(r => (r.Result, r.Ways)).ShouldBe([.. Enumerable.Range(-6, 13).Where(n => n != 0).Select(n => (n, 1L))]);
        throws.Mean.ShouldBe(0, 1e-12);
        throws.Warnings(ToTen).ShouldHaveSingleItem().ShouldBe("Can fall below zero: 6 of 12 throws, for instance − 6.");
    }

    [Fact]
    public void Shares_add_up_and_agree_with_throwing_within_four_standard_errors() =>
        Gen.Select(Gen.Int[0, 12].Array[1, 8], Gen.Int[0, 12].Array[1, 8], Gen.Enum<DiceOperation>(), Gen.ULong)
            .Sample(
                (first, second, operation, seed) =>
                {
                    const int Tries = 4000;
                    var throws = new Throws([new Die(first), new Die(second)], operation);
                    throws.Results.Sum(r => r.Share).ShouldBe(1, 1e-12);
                    var random = new SeededRandom(seed);
                    var seen = Enumerable
                        .Range(0, Tries)
                        .Select(_ =>
                        {
                            var (a, b) = (random.Pick(first), random.Pick(second));
                            return operation == DiceOperation.Add || (operation == DiceOperation.PlusOrMinus && random.Chance(0.5)) ? a + b : a - b;
                        })
                        .CountBy(n => n)
                        .ToDictionary(p => p.Key, p => p.Value);
                    throws
                        .Results.Average(r =>
                            Math.Abs((seen.GetValueOrDefault(r.Result) / (double)Tries) - r.Share) / Math.Sqrt(Math.Max(1e-9, r.Share * (1 - r.Share)) / Tries)
                        )
                        .ShouldBeLessThan(4);
                    seen.Keys.ShouldBeSubsetOf(throws.Results.Select(r => r.Result));
                },
                iter: Cases.Of(60)
            );

    [Theory]
    [InlineData("1-6", "1-6")]
    [InlineData("0,1,1,2", "0,1,1,2")]
    [InlineData("0-2,5", "0,1,2,5")]
    [InlineData("7", "7")]
    public void Dice_are_read_as_they_are_written(string text, string die) => Die.Parse(text).ToString().ShouldBe(die);

    [Theory]
    [InlineData("")]
    [InlineData("six")]
    [InlineData("6-1")]
    [InlineData("1-60")]
    [InlineData("100")]
    [InlineData("-3")]
    [InlineData("1,2,3,4,5,6,7,8,9,10,11,12,13,14,15,16,17,18,19,20,21")]
    public void What_is_no_die_is_refused_with_how_to_write_one(string text) =>
        Should.Throw<RefusedException>(() => Die.Parse(text)).Message.ShouldContain("Write it like 1-6");

    [Fact]
    public void No_die_or_far_too_many_faces_are_refused()
    {
        Should.Throw<RefusedException>(() => new Throws([], DiceOperation.Add)).Message.ShouldContain("at least one die");
        Should.Throw<RefusedException>(() => new Throws([.. Enumerable.Repeat(Die.Numbered(1, 20), 6)], DiceOperation.Add)).Message.ShouldContain("take fewer");
    }
}
