using Fobble.Core.Approaches;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using static Fobble.Core.Numbers.NumberWords;

namespace Fobble.Core.ItemSets;

/// <summary>Every case of a kind of item within a range of numbers: each numeral, each split with zero and all included, and so on.</summary>
public static class ItemCases
{
    private const int FewNumbers = 12;

    public static IReadOnlyList<Item> All(ItemKind kind, NumberRange range, ulong seed, Approach? approach = null) =>
        kind switch
        {
            ItemKind.SayTo => Each(range, n => new(ItemCase.Of("say", n), Phrase($"Say to {Of(n)} and stop"), Count(n), n, n, null)),
            ItemKind.SayOn => Each(range, n =>
                new(ItemCase.Of("on", n), Phrase($"Start at {Of(n)} and say the next three"), $"{Of(n + 1)}, {Of(n + 2)}, {Of(n + 3)}", n, n, null)
            ),
            ItemKind.SayBack => Each(range, n => new(ItemCase.Of("back", n), Phrase($"Count down from {Of(n)} to zero"), Down(n), n, n, null)),
            ItemKind.HowMany => Each(range, n => new(ItemCase.Of("how-many", n), Phrase($"Put out a heap of {n}"), Of(n), n, n, Scattered(n, seed))),
            ItemKind.CountRing => Each(range, n => new(ItemCase.Of("ring-count", n), Phrase($"Lay {n} in a ring"), Of(n), n, n, Patterns.InCircle(n))),
            ItemKind.Give => Each(range, n =>
                new(ItemCase.Of("give", n), Phrase($"Please give me {Of(n)}"), Phrase($"{n} handed over"), n, n, Patterns.Row(n))
            ),
            ItemKind.Numeral => Each(range, n => new(ItemCase.Of("numeral", n), Phrase($"Show the card {n}"), Of(n), n, n, Things.NumeralCard(n))),
            ItemKind.TornTicket => Each(range, n =>
                new(
                    ItemCase.Of("ticket", n),
                    Phrase($"Dots for {n}, numeral for {Of(n)}"),
                    Phrase($"{n} fits {Of(n)} {(n == 1 ? "dot" : "dots")}"),
                    n,
                    n,
                    HalfCards.Ticket(n)
                )
            ),
            ItemKind.WriteNumeral => Each(range, n => new(ItemCase.Of("write", n), Phrase($"Write {Of(n)}"), $"{n}", n, StrokesOf(n), Things.NumeralCard(n))),
            ItemKind.SeeDice => Each(range, n => new(ItemCase.Of("dice", n), Phrase("Show the face for a moment"), Of(n), n, n, Patterns.Dice(n))),
            ItemKind.SeeScattered => Each(range, n => new(ItemCase.Of("see", n), Phrase("Show the set for a moment"), Of(n), n, n, Scattered(n, seed))),
            ItemKind.ShowFingers => Each(range, n => new(ItemCase.Of("fingers", n), Phrase($"Show me {Of(n)} in one go"), FingersFor(n), n, n, null)),
            ItemKind.Frame => Each(range, n =>
                new(
                    ItemCase.Of("frame", n),
                    Phrase($"Frame with {n}"),
                    string.Join("; ", (FrameSize(range) == 5 ? FrameReadings.OnFive(n) : FrameReadings.Of(n)).Take(2)),
                    n,
                    n == 5 || n == 10 ? 1 : n,
                    FrameFor(n, range, approach)
                )
            ),
            ItemKind.FramePairs => Each(range, n =>
                new(
                    ItemCase.Of("pairs", n),
                    Phrase($"Frame filled by pairs, with {n}"),
                    FrameReadings.InPairs(n),
                    n,
                    n,
                    Frames.Tens(n, n > 10 ? 2 : 1, (approach?.Frames ?? FrameStyle.Usual) with { Fill = FrameFill.ByPairs })
                )
            ),
            ItemKind.Spaces => Each(range, n =>
                new(
                    ItemCase.Of("spaces", n),
                    Phrase($"Frame with {n}: how many more fill it?"),
                    Of(FrameSize(range) - n),
                    FrameSize(range) - n,
                    FrameSize(range) - n,
                    FrameFor(n, range, approach)
                )
            ),
            ItemKind.HiddenPart => EachSplit(range, Hidden),
            // Mostly none or all in sight, and beside them what is nearly so.
            ItemKind.EmptyPart => [.. range.Numbers.SelectMany(Bonds.Ordered).Where(s => s.First <= 1 || s.Second == 0).Select(Hidden)],
            ItemKind.BondPart => EachSplit(range, s =>
                new(
                    ItemCase.Of(s),
                    Phrase($"{s.First} and what make {s.Total}?"),
                    Of(s.Second),
                    s.Second,
                    (s.Total * 2) + Math.Min(s.First, s.Second),
                    Things.Bond(s.Total, s.First, null)
                )
            ),
            ItemKind.Doubles => Each(range, n => new(ItemCase.Of("double", n), Phrase($"Two lots of {Of(n)}"), Of(2 * n), 2 * n, n, Patterns.TwoRows(n, n))),
            ItemKind.Wells =>
            [
                .. range
                    .Numbers.SelectMany(n => Bonds.IntoWells(n, 3))
                    .Select(w => new Item(
                        ItemCase.Of(w),
                        Phrase($"{w[0]}, {w[1]} and {w[2]} in the wells"),
                        Phrase($"{Of(w[0])} and {Of(w[1])} and {Of(w[2])}"),
                        (w[0] * 100) + (w[1] * 10) + w[2],
                        w.Max(),
                        Things.Tray(w)
                    )),
            ],
            ItemKind.Ring => EachSplit(range, s =>
                new(
                    ItemCase.Of(s),
                    Phrase($"{s.First} inside, {s.Second} outside"),
                    Compared(s.First, s.Second, "inside", "outside"),
                    s.First,
                    10 - Math.Abs(s.First - s.Second),
                    Things.Ring(s.First, s.Second)
                )
            ),
            ItemKind.Spill => EachSplit(range, s =>
                new(
                    ItemCase.Of(s),
                    Phrase($"Spilled: {s.First} yellow, {s.Second} blue"),
                    Phrase($"{Of(s.Total)} is {Of(s.First)} and {Of(s.Second)}"),
                    s.First,
                    10 - Math.Abs(s.First - s.Second),
                    Patterns.Row(s.First, s.Second)
                )
            ),
            ItemKind.OneMore => Each(range, n =>
                new(ItemCase.Of("more", n), Phrase($"{Capitalised(n)} and one more"), Of(n + 1), n + 1, n, Patterns.Row(n, 1))
            ),
            ItemKind.OneFewer => Each(range, n =>
                new(
                    ItemCase.Of("fewer", n),
                    $"{Capitalised(n)}, {(approach?.Words.Take == TakeWord.Subtract ? Phrase("subtract one") : Phrase("take one away"))}",
                    Of(n - 1),
                    n - 1,
                    n,
                    Patterns.Row(n)
                )
            ),
            ItemKind.CompareSets => EachPair(range, (a, b) =>
                new(
                    ItemCase.Pair(a, b),
                    Phrase($"A row of {a} and a row of {b}"),
                    Compared(a, b, Phrase("upper row"), Phrase("lower row")),
                    a - b,
                    10 - Math.Abs(a - b),
                    Patterns.TwoRows(a, b)
                )
            ),
            ItemKind.SameSets =>
            [
                .. range.Numbers.SelectMany(a =>
                    ((int[])[a - 1, a, a + 1])
                        .Where(range.Contains)
                        .Select(b => new Item(
                            ItemCase.Pair(a, b),
                            Phrase($"A row of {a} and a row of {b}: as many?"),
                            Compared(a, b, Phrase("upper row"), Phrase("lower row")),
                            a - b,
                            a,
                            Patterns.TwoRows(a, b)
                        ))
                ),
            ],
            ItemKind.FewerInSets => EachPair(range, (a, b) =>
                new(
                    ItemCase.Pair(a, b),
                    Phrase($"A row of {a} and a row of {b}: {WhereFewer(approach)}"),
                    Fewer(a, b, Phrase("in the upper row"), Phrase("in the lower row"), approach),
                    a - b,
                    10 - Math.Abs(a - b),
                    Patterns.TwoRows(a, b)
                )
            ),
            ItemKind.FewerInRing => EachSplit(range, s =>
                new(
                    ItemCase.Of(s),
                    Phrase($"{s.First} inside, {s.Second} outside: {WhereFewer(approach)}"),
                    Fewer(s.First, s.Second, "inside", "outside", approach),
                    s.First,
                    10 - Math.Abs(s.First - s.Second),
                    Things.Ring(s.First, s.Second)
                )
            ),
            ItemKind.CompareNumerals => EachPair(range, (a, b) =>
                new(
                    ItemCase.Pair(a, b),
                    Phrase($"Cards {a} and {b}"),
                    a == b ? Phrase("the same") : Phrase($"{Math.Max(a, b)} is more"),
                    a - b,
                    10 - Math.Abs(a - b),
                    Things.NumeralCards([a, b])
                )
            ),
            ItemKind.MissingTin => Each(range, n =>
                new(
                    ItemCase.Of("missing", n),
                    Phrase($"Hide tin {n} while eyes are shut"),
                    Phrase($"{n} is missing"),
                    n,
                    n == range.Low || n == range.High ? 1 : 2,
                    Things.NumeralCards([.. range.Numbers.Select(m => m == n ? (int?)null : m)])
                )
            ),
            ItemKind.SwappedTins => range.Count < 2
                ? []
                :
                [
                    .. range
                        .Numbers.SkipLast(1)
                        .Select(n => new Item(
                            ItemCase.Of("swapped", n),
                            Phrase($"Swap tins {n} and {n + 1} while eyes are shut"),
                            Phrase($"{n} and {n + 1} changed places"),
                            n,
                            2,
                            Things.NumeralCards([
                                .. range.Numbers.Select(m =>
                                    (int?)(
                                        m == n ? n + 1
                                        : m == n + 1 ? n
                                        : m
                                    )
                                ),
                            ])
                        )),
                ],
            ItemKind.Guess => Each(range, n => new(ItemCase.Of("guess", n), Phrase($"Put {n} in the bag"), $"{n}", n, n, Scattered(n, seed))),
            ItemKind.Adding => EachSplit(range, s =>
                new(ItemCase.Of(s), $"{s.First} + {s.Second} = □", $"{s.Total}", s.Total, (s.Total * 2) + Math.Min(s.First, s.Second), TwoColours(s, approach))
            ),
            ItemKind.TakingAway => EachSplit(range, s =>
                new(
                    ItemCase.Take(s.Total, s.Second),
                    $"{s.Total} − {s.Second} = □",
                    $"{s.First}",
                    s.First,
                    (s.Total * 2) + Math.Min(s.First, s.Second),
                    s.Total <= 20 ? Frames.Tens(s.Total, style: approach?.Frames) : null
                )
            ),
            ItemKind.MissingAddend => EachSplit(range, s =>
                new(ItemCase.Of(s), WithUnknown(s), $"{s.Second}", s.Second, (s.Total * 2) + Math.Min(s.First, s.Second), Things.Bond(s.Total, s.First, null))
            ),
            _ => WorkedCases.All(kind, range, seed, approach),
        };

    /// <summary>Those for children to whom zero is not a number yet; all where nothing else is left, since whoever chose such a range meant it.</summary>
    public static IReadOnlyList<Item> WithoutZero(IReadOnlyList<Item> cases) => cases.Where(i => !i.HasZero).ToList() is { Count: > 0 } others ? others : cases;

    /// <summary>The second part unknown, in each place of the sentence in turn, and the whole to the right and to the left of the equals sign.</summary>
    private static string WithUnknown(Split s) =>
        ((s.Total + s.First) % 4) switch
        {
            0 => $"{s.First} + □ = {s.Total}",
            1 => $"□ + {s.First} = {s.Total}",
            2 => $"{s.Total} = {s.First} + □",
            _ => $"{s.Total} = □ + {s.First}",
        };

    private static Item Hidden(Split s) =>
        new(
            ItemCase.Of(s),
            Phrase($"{Capitalised(s.Total)} in all; leave {s.First} in sight, cover the rest"),
            Phrase($"{Of(s.Second)} hidden"),
            s.Second,
            s.Second,
            Things.UnderLid(s.First, s.Second)
        );

    private static IReadOnlyList<Item> Each(NumberRange range, Func<int, Item> item) => [.. range.Numbers.Select(item)];

    private static IReadOnlyList<Item> EachSplit(NumberRange totals, Func<Split, Item> item) => [.. totals.Numbers.SelectMany(Bonds.Ordered).Select(item)];

    // Over many numbers only the telling pairs: neighbours, ten apart, the same digits the other way round, and now and then the same number.
    private static IReadOnlyList<Item> EachPair(NumberRange range, Func<int, int, Item> item) =>
        [
            .. range.Numbers.SelectMany(a =>
                (
                    range.Count <= FewNumbers
                        ? range.Numbers.Where(b => a != b || a % 3 == 0)
                        : ((int[])[a - 1, a % 8 == 3 ? a : a - 1, a + 10, (a % 10 * 10) + (a / 10)]).Where(range.Contains).Distinct()
                ).Select(b => item(a, b))
            ),
        ];

    // Written out as far as it helps; beyond ten it is clear how it goes on.
    private static string Count(int to) => to <= 10 ? string.Join(", ", Enumerable.Range(1, to).Select(Of)) : Phrase($"one, two … {Of(to - 1)}, {Of(to)}");

    private static string Down(int from) =>
        from <= 5 ? string.Join(", ", Enumerable.Range(0, from + 1).Reverse().Select(Of)) : $"{Of(from)}, {Of(from - 1)} … zero";

    // More can't be taken in from a card.
    private static Picture? Scattered(int number, ulong seed) => number <= 40 ? Patterns.Scattered(number, seed + (ulong)number) : null;

    private static int FrameSize(NumberRange range) => range.High <= 5 ? 5 : 10;

    private static Picture FrameFor(int number, NumberRange range, Approach? approach) =>
        number > 10 ? Frames.Tens(number, 2, approach?.Frames)
        : FrameSize(range) == 5 ? Frames.Five(number, style: approach?.Frames)
        : Frames.Ten(number, style: approach?.Frames);

    private static Picture? TwoColours(Split parts, Approach? approach) => parts.Total <= 10 ? Frames.Ten(parts.First, parts.Second, approach?.Frames) : null;

    // Numerals that start with a curve are written later than those of straight strokes (common practice).
    private static int StrokesOf(int number) =>
        number % 10 is 1 or 4 or 7 ? 1
        : number % 10 is 0 or 3 or 2 ? 2
        : 3;

    private static string FingersFor(int number) => number <= 5 ? Of(number) + Phrase(" on one hand") : Phrase($"five and {Of(number - 5)}");

    private static string WhereFewer(Approach? approach) => approach?.Words.Less == FewerWord.Less ? Phrase("where is less?") : Phrase("where are fewer?");

    private static string Fewer(int first, int second, string here, string there, Approach? approach) =>
        first == second
            ? Phrase($"the same, {Of(first)} and {Of(second)}")
            : Phrase(
                $"{(approach ?? Approach.Usual).Words.Fewer} {(first < second ? here : there)}, {Of(Math.Min(first, second))} against {Of(Math.Max(first, second))}"
            );

    private static string Compared(int first, int second, string here, string there) =>
        first == second
            ? Phrase($"the same, {Of(first)} and {Of(second)}")
            : Phrase($"more {(first > second ? here : there)}, {Of(Math.Max(first, second))} against {Of(Math.Min(first, second))}");
}
