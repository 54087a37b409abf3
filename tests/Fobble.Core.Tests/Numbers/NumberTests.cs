using Fobble.Core.Numbers;
using Humanizer;

namespace Fobble.Core.Tests.Numbers;

public class NumberTests
{
    [Fact]
    public void Number_words_agree_with_Humanizer_to_nine_hundred_and_ninety_nine()
    {
        var culture = System.Globalization.CultureInfo.InvariantCulture;
        for (var n = 0; n <= 999; n++)
        {
            NumberWords.Of(n).ShouldBe(n.ToWords(culture));
        }
    }

    [Fact]
    public void Random_bits_are_those_of_the_published_generator()
    {
        // SplitMix64 with seed 1234567: the values usually given with its reference code (from memory).
        var random = new SeededRandom(1234567);
        ulong[] expected = [6457827717110365317, 3203168211198807973, 9817491932198370423, 4593380528125082431, 16408922859458223821];
        expected.Select(_ => random.NextBits()).ShouldBe(expected);
    }

    [Fact]
    public void Text_gives_the_published_FNV_1a_hash()
    {
        // FNV-1a 64 bits (Fowler, Noll, Vo): the empty text and "a".
        SeededRandom.SeedOf("").ShouldBe(0xcbf29ce484222325);
        SeededRandom.SeedOf("a").ShouldBe(0xaf63dc4c8601ec8c);
    }

    [Fact]
    public void Shuffling_keeps_every_item_and_depends_on_the_seed_only() =>
        Gen.ULong.Sample(seed =>
        {
            var deck = Enumerable.Range(0, 12).ToList();
            var shuffled = new SeededRandom(seed).Shuffled(deck);
            shuffled.Order().ShouldBe(deck);
            new SeededRandom(seed).Shuffled(deck).ShouldBe(shuffled);
        });

    [Fact]
    public void Draws_are_even_within_four_standard_errors()
    {
        var random = new SeededRandom(5);
        var counts = new int[6];
        for (var i = 0; i < 60_000; i++)
        {
            counts[random.Next(6)]++;
        }

        var error = Math.Sqrt(60_000 * (1 / 6.0) * (5 / 6.0));
        counts.ShouldAllBe(c => Math.Abs(c - 10_000) < 4 * error);
    }

    [Theory]
    [InlineData("1-5", 1, 5)]
    [InlineData("7", 7, 7)]
    public void A_range_reads_what_a_teacher_writes(string text, int low, int high) => NumberRange.Parse(text).ShouldBe(new NumberRange(low, high));

    [Theory]
    [InlineData("5-1")]
    [InlineData("-3")]
    [InlineData("one to five")]
    [InlineData("1-1000")]
    public void A_range_refuses_nonsense(string text) => Should.Throw<RefusedException>(() => NumberRange.Parse(text));
}
