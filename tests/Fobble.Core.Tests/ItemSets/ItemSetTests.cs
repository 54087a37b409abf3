using System.Text.RegularExpressions;
using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;
using Fobble.Core.Stories;
using Fobble.Core.Strategies;

namespace Fobble.Core.Tests.ItemSets;

/// <summary>Rule R9: what a set of items has to cover, and that it gives nothing away.</summary>
public class ItemSetTests
{
    private static readonly Gen<ItemKind> Kind = Gen.Enum<ItemKind>();
    private static readonly SkillMap Map = SkillMapLoader.Shipped();

    // As an activity uses the kind; small numbers for those that hold cases among them.
    private static NumberRange RangeFor(ItemKind kind) =>
        kind switch
        {
            ItemKind.SayOn => new(2, 7),
            <= ItemKind.MissingAddend => new(1, 5),
            _ => ActivityLoader.AsWritten.SelectMany(a => a.Skills).Where(s => s.Items == kind).MinBy(s => s.Range.Count)!.Range,
        };

    [Fact]
    public void Every_kind_is_used_by_an_activity() =>
        Enum.GetValues<ItemKind>().Except(ActivityLoader.AsWritten.SelectMany(a => a.Skills).Select(s => s.Items)).ShouldBeEmpty();

    [Fact]
    public void The_same_request_gives_the_same_set_and_another_seed_another_one() =>
        Gen.Select(Kind, Gen.ULong)
            .Sample(
                (kind, seed) =>
                {
                    var first = Make(kind, 8, seed);
                    Make(kind, 8, seed).Select(i => i.Key).ShouldBe(first.Select(i => i.Key));
                    first.Count.ShouldBe(8);
                }
            );

    [Fact]
    public void Every_case_is_there_when_the_count_allows() =>
        Gen.Select(Kind, Gen.ULong)
            .Sample(
                (kind, seed) =>
                {
                    var cases = ItemCases.All(kind, RangeFor(kind), seed);
                    Make(kind, cases.Count + 3, seed).Select(i => i.Key).Distinct().Count().ShouldBe(cases.Count);
                }
            );

    [Fact]
    public void No_case_stands_next_to_itself() =>
        Gen.Select(Kind, Gen.Int[2, 24], Gen.ULong)
            .Sample(
                (kind, count, seed) =>
                {
                    var keys = Make(kind, count, seed).Select(i => i.Key).ToList();
                    keys.Zip(keys.Skip(1)).ShouldAllBe(pair => pair.First != pair.Second);
                }
            );

    [Fact]
    public void Hidden_parts_of_five_bring_every_split_with_zero_and_all()
    {
        var keys = ItemSetMaker.Make(new(ItemKind.HiddenPart, new(5, 5), 6, ItemHistory.None, 11)).Select(i => i.Key);
        keys.Order().ShouldBe(Bonds.Ordered(5).Select(s => $"{s}").Order());
    }

    [Theory]
    [InlineData(ItemKind.Adding, '+')]
    [InlineData(ItemKind.TakingAway, '−')]
    [InlineData(ItemKind.MissingAddend, '+')]
    public void Every_sentence_to_finish_is_true_once_its_answer_is_written_in(ItemKind kind, char sign)
    {
        foreach (var item in ItemCases.All(kind, new(0, 20), 1))
        {
            var sides = item.Ask.Replace("□", item.Answer, StringComparison.Ordinal).Split(" = ").Select(s => Worked(s, sign)).ToList();
            sides.Count.ShouldBe(2, item.Ask);
            sides[0].ShouldBe(sides[1], item.Ask);
            item.Ask.Count(c => c == '□').ShouldBe(1);
        }
    }

    [Fact]
    public void The_unknown_stands_in_each_place_and_the_whole_on_each_side()
    {
        var asked = ItemSetMaker.Make(new(ItemKind.MissingAddend, new(4, 10), 24, ItemHistory.None, 5)).Select(i => Regex.Replace(i.Ask, @"\d+", "n")).ToList();
        foreach (var form in (string[])["n + □ = n", "□ + n = n", "n = n + □", "n = □ + n"])
        {
            asked.Count(a => a == form).ShouldBeInRange(3, 12, form);
        }
    }

    [Fact]
    public void What_is_said_to_be_true_is_and_what_is_not_is_not()
    {
        var cases = ItemCases.All(ItemKind.TrueOrFalse, new(3, 10), 1);
        foreach (var item in cases)
        {
            var sides = item.Ask[..item.Ask.IndexOf(':', StringComparison.Ordinal)].Split(" = ").Select(s => Worked(s, '+')).ToList();
            (item.Answer == "true").ShouldBe(sides[0] == sides[1], item.Ask);
        }

        cases.Count(i => i.Answer == "true").ShouldBeInRange(cases.Count / 3, cases.Count * 2 / 3);
        for (var seed = 1ul; seed <= 50; seed++)
        {
            ItemSetMaker.Make(new(ItemKind.TrueOrFalse, new(3, 10), 6, ItemHistory.None, seed)).Count(i => i.Answer == "true").ShouldBeInRange(2, 4);
        }
    }

    [Fact]
    public void Every_kind_of_story_that_is_asked_has_its_own_page() =>
        Enum.GetValues<ItemKind>()
            .Where(k => $"{k}".StartsWith("Story", StringComparison.Ordinal))
            .Where(k => LessonStories.For(k) == StoryKinds.Kindergarten)
            .ShouldBeEmpty();

    [Fact]
    public void Sums_to_choose_a_way_for_are_not_all_of_one_way()
    {
        var ways = ItemSetMaker
            .Make(new(ItemKind.ChooseWay, new(11, 20), 40, ItemHistory.None, 7))
            .Select(i =>
                Adviser.Recommend(Adviser.Work(i.Case.Numbers[1], Operation.Add, i.Case.Numbers[2], Approach.Usual), null, new HashSet<SkillId>(), Map).Kind
            )
            .ToList();
        ways.Distinct().Count().ShouldBeGreaterThanOrEqualTo(5);
        ways.CountBy(w => w).Max(w => w.Value).ShouldBeLessThanOrEqualTo(20);
    }

    private static int Worked(string side, char sign)
    {
        var numbers = side.Split($" {sign} ").Select(n => int.Parse(n, null)).ToList();
        return sign == '+' ? numbers.Sum() : numbers[0] - numbers.Skip(1).Sum();
    }

    [Fact]
    public void Sentences_to_ten_bring_every_bond_of_every_number()
    {
        ItemCases.All(ItemKind.Adding, new(0, 10), 1).Count.ShouldBe(66);
        ItemCases.All(ItemKind.TakingAway, new(0, 10), 1).Select(i => i.Key).ShouldBeUnique();
    }

    [Theory]
    [InlineData(TakeWord.TakeAway, "Five, take one away")]
    [InlineData(TakeWord.Subtract, "Five, subtract one")]
    public void What_is_asked_is_in_the_classs_words(TakeWord word, string asks) =>
        ItemCases.All(ItemKind.OneFewer, new(5, 5), 1, Approach.Usual with { Words = new(Take: word) }).Single().Ask.ShouldBe(asks);

    [Fact]
    public void Easy_ones_come_first()
    {
        var items = ItemSetMaker.Make(new(ItemKind.Numeral, new(1, 9), 9, ItemHistory.None, 3));
        items.Take(3).Max(i => i.Difficulty).ShouldBeLessThan(items.Skip(6).Min(i => i.Difficulty));
    }

    [Fact]
    public void The_order_does_not_run_up_in_steps()
    {
        for (ulong seed = 1; seed <= 200; seed++)
        {
            var values = Make(ItemKind.Numeral, 5, seed).Select(i => i.Value).ToList();
            values.ShouldNotBe([1, 2, 3, 4, 5]);
        }
    }

    [Fact]
    public void Missed_lately_comes_three_times_as_often_as_others()
    {
        var history = new ItemHistory(new HashSet<string> { "numeral:6" }, new HashSet<string>(), []);
        const int Draws = 6000;
        var hits = Enumerable
            .Range(1, Draws)
            .Count(seed => ItemSetMaker.Make(new(ItemKind.Numeral, new(1, 10), 1, history, (ulong)seed))[0].Key == "numeral:6");

        // One of ten cases at weight 3 against nine at weight 1: share 3/12, within four standard errors.
        var error = Math.Sqrt(Draws * 0.25 * 0.75);
        Math.Abs(hits - (Draws * 0.25)).ShouldBeLessThan(4 * error);
    }

    [Fact]
    public void Distractors_are_the_childs_own_mix_up_then_the_usual_one()
    {
        var own = new ItemHistory(new HashSet<string>(), new HashSet<string>(), [new(9, 4)]);
        var nine = ItemSetMaker.Make(new(ItemKind.Numeral, new(1, 10), 10, own, 1)).Single(i => i.Value == 9);
        nine.Distractors.ShouldBe([4, 6]);
        ItemSetMaker
            .Make(new(ItemKind.Numeral, new(1, 10), 10, ItemHistory.None, 1))
            .ShouldAllBe(i => i.Distractors.Count == 2 && !i.Distractors.Contains(i.Value));
    }

    [Fact]
    public void Numbers_are_taken_for_what_sounds_or_looks_like_them_first()
    {
        Confusion.TakenFor(13).ShouldBe([30, 31]);
        Confusion.TakenFor(50).ShouldBe([15]);
        Confusion.TakenFor(28).ShouldBe([82]);
        Confusion.TakenFor(6).ShouldBe([9]);
        Confusion.TakenFor(11).ShouldBeEmpty();
        var teens = ItemSetMaker.Make(new(ItemKind.Numeral, new(11, 19), 9, ItemHistory.None, 4));
        teens.Single(i => i.Value == 13).Distractors.ShouldBe([30, 31]);
    }

    [Fact]
    public void Two_wrong_ones_are_offered_beside_every_number() =>
        ItemSetMaker.Make(new(ItemKind.TornTicket, new(1, 5), 5, ItemHistory.None, 1)).ShouldAllBe(i => i.Distractors.Count == 2);

    [Fact]
    public void Comparing_cards_offers_no_number_beside_them() =>
        ItemSetMaker.Make(new(ItemKind.CompareNumerals, new(1, 10), 12, ItemHistory.None, 1)).ShouldAllBe(i => i.Distractors.Count == 0);

    [Fact]
    public void Without_zero_no_item_has_it_unless_nothing_else_is_left()
    {
        foreach (var kind in (ItemKind[])[ItemKind.Adding, ItemKind.TakingAway, ItemKind.HiddenPart, ItemKind.BondPart, ItemKind.Frame, ItemKind.Spaces])
        {
            ItemSetMaker.Make(new(kind, new(0, 5), 20, ItemHistory.None, 3) { Zero = false }).ShouldAllBe(i => !i.HasZero, $"{kind}");
        }

        // A school's own activity may be about just that: its card still opens.
        ItemSetMaker.Make(new(ItemKind.Spaces, new(5, 5), 2, ItemHistory.None, 1) { Zero = false }).ShouldAllBe(i => i.Answer == "zero");
    }

    [Fact]
    public void Tens_are_taken_one_by_one_too_and_sharing_leaves_one_over_at_times()
    {
        ItemCases.All(ItemKind.TakeTens, new(20, 90), 1).ShouldContain(i => i.Ask == "90 − 10 = □");
        ItemCases.All(ItemKind.ShareEqually, new(4, 12), 1).Count(i => i.Answer.EndsWith("one is over", StringComparison.Ordinal)).ShouldBeGreaterThan(5);
    }

    [Fact]
    public void What_asks_nothing_is_no_case()
    {
        ItemCases.All(ItemKind.WrittenOut, new(20, 99), 1).ShouldAllBe(i => i.Value % 10 != 0);
        ItemCases.All(ItemKind.AddKinds, new(20, 99), 1).ShouldAllBe(i => i.Value <= 99);
        var pairs = ItemCases.All(ItemKind.CompareNumerals, new(10, 99), 1);
        pairs.Count(i => i.Value == 0).ShouldBeInRange(1, pairs.Count / 10);
    }

    [Fact]
    public void Halfway_between_two_tens_both_are_named() =>
        ItemCases.All(ItemKind.NearestTen, new(345, 345), 1).Single().Answer.ShouldBe("340 and 350 are as near; by custom 350");

    [Fact]
    public void A_range_without_a_case_is_refused() =>
        Should
            .Throw<RefusedException>(() => ItemSetMaker.Make(new(ItemKind.SwappedTins, new(4, 4), 2, ItemHistory.None, 1)))
            .Message.ShouldContain("hold no case");

    private static IReadOnlyList<Item> Make(ItemKind kind, int count, ulong seed) =>
        ItemSetMaker.Make(new(kind, RangeFor(kind), count, ItemHistory.None, seed));
}
