using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;

namespace Fobble.Core.Tests.ItemSets;

/// <summary>Rule R9: what a set of items has to cover, and that it gives nothing away.</summary>
public class ItemSetTests
{
    private static readonly Gen<ItemKind> Kind = Gen.Enum<ItemKind>();

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
            var words = item.Ask.Replace("□", item.Answer, StringComparison.Ordinal).Split(' ');
            words[1][0].ShouldBe(sign);
            var (left, right, result) = (int.Parse(words[0], null), int.Parse(words[2], null), int.Parse(words[4], null));
            (sign == '+' ? left + right : left - right).ShouldBe(result, item.Ask);
            item.Ask.Count(c => c == '□').ShouldBe(1);
        }
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
    public void Teens_and_tens_are_known_to_be_mixed_up() => Confusion.Known.ShouldContain(new Confusion(15, 50));

    [Fact]
    public void A_range_without_a_case_is_refused() =>
        Should
            .Throw<RefusedException>(() => ItemSetMaker.Make(new(ItemKind.SwappedTins, new(4, 4), 2, ItemHistory.None, 1)))
            .Message.ShouldContain("hold no case");

    private static IReadOnlyList<Item> Make(ItemKind kind, int count, ulong seed) =>
        ItemSetMaker.Make(new(kind, RangeFor(kind), count, ItemHistory.None, seed));
}
