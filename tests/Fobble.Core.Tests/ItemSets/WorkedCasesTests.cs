using System.Data;
using System.Globalization;
using System.Text.RegularExpressions;
using Fobble.Core.Approaches;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Humanizer;

namespace Fobble.Core.Tests.ItemSets;

/// <summary>Items that are worked out: each is true, and is of the kind it says. Sums are worked out anew by System.Data, number words by Humanizer.</summary>
public partial class WorkedCasesTests
{
    private static IReadOnlyList<Item> All(ItemKind kind, int low, int high, Wording? words = null) =>
        ItemCases.All(kind, new(low, high), 1, Approach.Usual with { Words = words ?? Wording.Usual });

    private static int Worked(string sum)
    {
        using DataTable table = new();
        return Convert.ToInt32(table.Compute(sum.Replace('−', '-'), null), CultureInfo.InvariantCulture);
    }

    private static int[] NumbersIn(string text) => [.. Digits().Matches(text).Select(m => int.Parse(m.Value, CultureInfo.InvariantCulture))];

    [GeneratedRegex(@"\d+")]
    private static partial Regex Digits();

    public static TheoryData<ItemKind, int, int> Sums =>
        new()
        {
            { ItemKind.CountOn, 4, 10 },
            { ItemKind.CountBack, 4, 10 },
            { ItemKind.PlusNine, 11, 18 },
            { ItemKind.MakeTen, 11, 18 },
            { ItemKind.NearDoubles, 3, 13 },
            { ItemKind.SplitTeen, 12, 20 },
            { ItemKind.BackThroughTen, 11, 18 },
            { ItemKind.NoneOrAll, 1, 10 },
            { ItemKind.ThreeAddends, 6, 20 },
            { ItemKind.TenAnd, 11, 19 },
            { ItemKind.TakeTens, 20, 90 },
            { ItemKind.AddKinds, 20, 98 },
        };

    [Theory]
    [MemberData(nameof(Sums))]
    public void Every_sum_comes_to_its_answer(ItemKind kind, int low, int high)
    {
        var items = All(kind, low, high);
        items.ShouldNotBeEmpty();
        foreach (var item in items)
        {
            Worked(item.Ask.Split('=')[0]).ShouldBe(int.Parse(item.Answer, CultureInfo.InvariantCulture), item.Ask);
            item.Ask.ShouldEndWith("= □");
        }

        items.Select(i => i.Key).ShouldBeUnique();
    }

    [Fact]
    public void Sums_are_of_the_kind_that_they_are_for()
    {
        All(ItemKind.CountOn, 4, 10).ShouldAllBe(i => NumbersIn(i.Ask)[1] <= 3 && NumbersIn(i.Ask)[0] > NumbersIn(i.Ask)[1]);
        All(ItemKind.MakeTen, 11, 18).ShouldAllBe(i => NumbersIn(i.Ask)[0] < 10 && NumbersIn(i.Ask)[1] < 10 && i.Value > 10);
        All(ItemKind.PlusNine, 11, 18).ShouldAllBe(i => NumbersIn(i.Ask).Contains(9));
        All(ItemKind.NearDoubles, 3, 13).ShouldAllBe(i => Math.Abs(NumbersIn(i.Ask)[0] - NumbersIn(i.Ask)[1]) == 1);
        All(ItemKind.SplitTeen, 12, 20).ShouldAllBe(i => NumbersIn(i.Ask)[0] > 10 && NumbersIn(i.Ask)[1] < 10);
        All(ItemKind.BackThroughTen, 11, 18).ShouldAllBe(i => NumbersIn(i.Ask)[0] > 10 && i.Value < 10);
        All(ItemKind.ThreeAddends, 6, 20).ShouldAllBe(i => NumbersIn(i.Ask)[0] + NumbersIn(i.Ask)[2] == 10 || NumbersIn(i.Ask)[0] == NumbersIn(i.Ask)[2]);
        All(ItemKind.AddKinds, 20, 98).ShouldAllBe(i => i.Value < 100);
    }

    [Theory]
    [InlineData(ItemKind.CompareSigns, 0, 10)]
    [InlineData(ItemKind.CompareSums, 2, 8)]
    public void Signs_make_true_sentences(ItemKind kind, int low, int high)
    {
        foreach (var item in All(kind, low, high))
        {
            var sides = item.Ask.Split(" □ ");
            Math.Sign(Worked(sides[0]).CompareTo(Worked(sides[1])))
                .ShouldBe(
                    item.Answer switch
                    {
                        ">" => 1,
                        "<" => -1,
                        _ => 0,
                    },
                    item.Ask
                );
        }

        All(kind, low, high).Select(i => i.Answer).Distinct().Count().ShouldBe(3);
    }

    [Fact]
    public void Facts_of_a_family_are_true_and_no_two_alike()
    {
        foreach (var item in All(ItemKind.FactFamily, 3, 10))
        {
            var facts = item.Answer.Split(", ");
            facts.ShouldBeUnique();
            facts.ShouldAllBe(f => Worked(f.Split('=')[0]) == Worked(f.Split('=')[1]));
            facts.Length.ShouldBeOneOf(2, 4);
        }

        // A bond is named once, whichever part comes first.
        All(ItemKind.FactFamily, 3, 10).Count.ShouldBe(Enumerable.Range(3, 8).Sum(n => n / 2));
    }

    [Theory]
    [InlineData(ItemKind.StoryTotal, 0, 1, '+')]
    [InlineData(ItemKind.StoryLeft, 0, 1, '-')]
    [InlineData(ItemKind.StoryCame, 1, 0, '-')]
    [InlineData(ItemKind.StoryPart, 0, 1, '-')]
    [InlineData(ItemKind.StoryWent, 0, 1, '-')]
    [InlineData(ItemKind.StoryAtFirst, 0, 1, '+')]
    [InlineData(ItemKind.StoryCompare, 0, 1, '-')]
    public void A_story_in_a_breath_asks_for_what_it_says_and_does_not_tell_it(ItemKind kind, int one, int other, char sign)
    {
        var items = All(kind, 4, 10);
        items.ShouldNotBeEmpty();
        foreach (var item in items)
        {
            // The numbers in the order in which they are told, in words or in figures.
            var told = Regex
                .Matches(item.Ask, @"\d+|\b(one|two|three|four|five|six|seven|eight|nine|ten)\b", RegexOptions.IgnoreCase)
                .Select(m =>
                    int.TryParse(m.Value, out var n)
                        ? n
                        : Enumerable.Range(1, 10).First(k => string.Equals(k.ToWords(), m.Value, StringComparison.OrdinalIgnoreCase))
                )
                .ToList();
            told.Count.ShouldBe(2, item.Ask);
            item.Value.ShouldBe(sign == '+' ? told[one] + told[other] : told[one] - told[other], item.Ask);
            item.Ask.ShouldEndWith("?");
            Regex.IsMatch(item.Ask, @"\bone (lanterns|wagons|kites)\b", RegexOptions.IgnoreCase).ShouldBeFalse(item.Ask);
        }
    }

    [Fact]
    public void Counting_in_steps_ends_where_it_is_asked_to()
    {
        foreach (var (kind, step) in new[] { (ItemKind.CountTwos, 2), (ItemKind.CountFives, 5), (ItemKind.CountTens, 10) })
        {
            All(kind, 1, 100).Select(i => i.Value).ShouldBe(Enumerable.Range(1, 100 / step).Select(n => n * step));
            All(kind, 10, 40).ShouldAllBe(i => i.Answer.EndsWith(i.Value.ToWords(), StringComparison.Ordinal));
        }
    }

    [Fact]
    public void Tens_and_ones_are_counted_as_they_are_and_called_what_the_class_calls_them()
    {
        foreach (var item in All(ItemKind.TensAndOnes, 21, 99))
        {
            var kinds = NumbersIn(item.Answer);
            ((10 * kinds[0]) + kinds[1]).ShouldBe(item.Value);
        }

        All(ItemKind.TensAndOnes, 21, 99, new(Ones: OnesWord.Units)).ShouldAllBe(i => Regex.IsMatch(i.Answer, "units?$"));
        All(ItemKind.WholeTens, 10, 90).ShouldAllBe(i => i.Value * 10 == NumbersIn(i.Key)[0]);
        All(ItemKind.WrittenOut, 100, 999).ShouldAllBe(i => Worked(i.Answer.Split('=')[1]) == i.Value);
        All(ItemKind.HeapsOfTen, 20, 60).ShouldAllBe(i => i.Answer.EndsWith((i.Value % 10).ToWords(), StringComparison.Ordinal));
    }

    [Fact]
    public void The_nearest_ten_is_never_more_than_five_away_and_ten_more_is()
    {
        All(ItemKind.NearestTen, 11, 99).ShouldAllBe(i => Math.Abs(i.Value - NumbersIn(i.Key)[0]) <= 5 && i.Value % 10 == 0);
        All(ItemKind.TenMore, 10, 89).ShouldAllBe(i => Math.Abs(i.Value - NumbersIn(i.Key)[0]) == 10);
    }

    [Fact]
    public void Sharing_is_fair_pairing_is_even_and_the_difference_is_what_is_left()
    {
        All(ItemKind.ShareEqually, 4, 10).ShouldAllBe(i => NumbersIn(i.Key)[0] - (i.Value * NumbersIn(i.Key)[1]) == (i.Answer.Contains("over") ? 1 : 0));
        All(ItemKind.EvenOdd, 1, 10).ShouldAllBe(i => i.Answer.StartsWith("even", StringComparison.Ordinal) == (i.Value % 2 == 0));
        All(ItemKind.HowManyMore, 2, 10).ShouldAllBe(i => i.Value == NumbersIn(i.Key)[0] - NumbersIn(i.Key)[1] && i.Value > 0);
        All(ItemKind.OpenParts, 4, 7).ShouldAllBe(i => i.Value == NumbersIn(i.Key)[0] + 1);
    }

    [Fact]
    public void Large_ranges_are_sampled_and_the_same_seed_draws_the_same_sample()
    {
        All(ItemKind.TensAndOnes, 100, 999).Count.ShouldBe(60);
        All(ItemKind.TensAndOnes, 100, 999).Select(i => i.Key).ShouldBe(All(ItemKind.TensAndOnes, 100, 999).Select(i => i.Key));
        All(ItemKind.CompareNumerals, 10, 99).Count.ShouldBeLessThan(400);
    }
}
