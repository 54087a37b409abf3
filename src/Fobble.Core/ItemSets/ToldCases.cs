using Fobble.Core.Approaches;
using Fobble.Core.Numbers;
using static Fobble.Core.Numbers.NumberWords;

namespace Fobble.Core.ItemSets;

/// <summary>
/// A story in a breath, for a card: who, how many, what is asked. Whole stories with settings, drawings and slips are in <c>Stories</c>,
/// further out than items may look.
/// </summary>
internal static class ToldCases
{
    public static IReadOnlyList<Item> All(ItemKind kind, NumberRange range, Wording words) =>
        kind switch
        {
            ItemKind.StoryTotal => Told(range, "total", s =>
                (Phrase($"{Lanterns(s.First, "hangs", "hang")} here. {Do(s.Second, "more is", "more are")} lit. How many now?"), s.Total)
            ),
            ItemKind.StoryLeft => Told(range, "left", s =>
                (Phrase($"{Lanterns(s.Total, "is", "are")} lit. {Do(s.Second, "goes", "go")} out. How many are left?"), s.First)
            ),
            ItemKind.StoryCame => Told(range, "came", s =>
                (Phrase($"{Wagons(s.First, "waits", "wait")}. Some more roll in. Now there are {Of(s.Total)}. How many rolled in?"), s.Second)
            ),
            ItemKind.StoryPart => Told(range, "part", s =>
                (Phrase($"{Wagons(s.Total, "in all", "in all")}. {Do(s.First, "carries", "carry")} lemons, the rest bells. How many carry bells?"), s.Second)
            ),
            ItemKind.StoryWent => Told(range, "went", s =>
                (Phrase($"{Kites(s.Total, "flies", "fly")}. Some come down. {Do(s.First, "still flies", "still fly")}. How many came down?"), s.Second)
            ),
            ItemKind.StoryAtFirst => Told(range, "first", s =>
                (Phrase($"Some kites fly. {Do(s.Second, "comes", "come")} down. {Do(s.First, "still flies", "still fly")}. How many flew at first?"), s.Total)
            ),
            ItemKind.StoryCameAtFirst => Told(range, "came-first", s =>
                (Phrase($"Some wagons wait. {Do(s.Second, "more rolls in", "more roll in")}. Now there are {Of(s.Total)}. How many waited at first?"), s.First)
            ),
            ItemKind.StoryCompare => Told(range, "compare", s =>
                (Phrase($"{Lanterns(s.Total, "here", "here")}, {Of(s.First)} there. How many more are here?"), s.Second)
            ),
            ItemKind.StoryLarger => Told(range, "larger", s =>
                (Phrase($"{Lanterns(s.First, "hangs", "hang")} here. {Further(s.Second, "more")} there than here. How many hang there?"), s.Total)
            ),
            ItemKind.StorySmaller => Told(range, "smaller", s =>
                (
                    Phrase(
                        $"{Lanterns(s.Total, "hangs", "hang")} here. {Further(s.Second, words.Less == FewerWord.Less ? "less" : "fewer")} there than here. How many hang there?"
                    ),
                    s.First
                )
            ),
            ItemKind.StoryThree => Three(range),
            _ => throw new ArgumentOutOfRangeException(nameof(kind), kind, "No cases are known for this kind of item."),
        };

    // Neither part is nothing, and the answer is not one of the numbers told.
    private static IReadOnlyList<Item> Told(NumberRange totals, string what, Func<Split, (string Ask, int Answer)> tell) =>
        [
            .. totals
                .Numbers.SelectMany(Bonds.Ordered)
                .Where(s => s.First > 0 && s.Second > 0 && s.First != s.Second)
                .Select(s => (s, told: tell(s)))
                .Select(p => new Item(ItemCase.Of(what, p.s), p.told.Ask, $"{p.told.Answer}", p.told.Answer, p.s.Total, null)),
        ];

    // Three numbers that are worth looking at first: two that make ten, or two alike.
    private static IReadOnlyList<Item> Three(NumberRange totals) =>
        [
            .. from a in Enumerable.Range(1, 9)
            from b in Enumerable.Range(1, 9)
            from c in Enumerable.Range(1, 9)
            where totals.Contains(a + b + c) && (a + c == 10 || (a == c && a != b))
            select new Item(
                ItemCase.Of([a, b, c]),
                Phrase(
                    $"{Wagons(a, "carries", "carry")} lemons, {Of(b)} {(b == 1 ? "carries" : "carry")} bells and {Of(c)} {(c == 1 ? "is" : "are")} empty. How many in all?"
                ),
                $"{a + b + c}",
                a + b + c,
                a + b + c,
                null
            ),
        ];

    private static string Further(int n, string how) => $"{Capitalised(n)} {how} {(n == 1 ? "hangs" : "hang")}";

    private static string Lanterns(int n, string one, string many) => Count(n, "lantern", one, many);

    private static string Wagons(int n, string one, string many) => Count(n, "wagon", one, many);

    private static string Kites(int n, string one, string many) => Count(n, "kite", one, many);

    // A number word, never a digit: these are said aloud.
    private static string Count(int n, string thing, string one, string many) => $"{Capitalised(n)} {thing}{(n == 1 ? $" {one}" : $"s {many}")}";

    private static string Do(int n, string one, string many) => $"{Capitalised(n)} {(n == 1 ? one : many)}";
}
