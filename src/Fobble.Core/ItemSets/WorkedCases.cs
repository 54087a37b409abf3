using Fobble.Core.Approaches;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using static Fobble.Core.Numbers.NumberWords;

namespace Fobble.Core.ItemSets;

/// <summary>Cases that are worked out rather than shown or said: sums by their strategy, stories told in a breath, tens and ones.</summary>
internal static class WorkedCases
{
    /// <summary>Of hundreds of numbers a set draws from this many, spread evenly.</summary>
    private const int Most = 60;

    public static IReadOnlyList<Item> All(ItemKind kind, NumberRange range, ulong seed, Approach? approach)
    {
        var words = (approach ?? Approach.Usual).Words;
        return kind switch
        {
            ItemKind.SayBackOn => Each(
                range,
                n => n >= 3,
                n => new(ItemCase.Of("back-on", n), Phrase($"Start at {Of(n)} and say the three before"), $"{Of(n - 1)}, {Of(n - 2)}, {Of(n - 3)}", n, n, null)
            ),
            ItemKind.CountTens => Steps(range, 10),
            ItemKind.CountTwos => Steps(range, 2),
            ItemKind.CountFives => Steps(range, 5),
            ItemKind.HeapsOfTen => Each(
                range,
                n => n > 0,
                n =>
                    new(ItemCase.Of("heaps", n), Phrase($"Put out {n}"), Phrase($"{Heaps(n)} and {Of(n % 10)}"), n, n, n <= 100 ? Patterns.HeapsOfTen(n) : null)
            ),
            ItemKind.NumberWord => Each(range, _ => true, n => new(ItemCase.Of("word", n), Phrase($"Show the word “{Of(n)}”"), $"{n}", n, n, null)),
            ItemKind.OnTheLine => Each(
                range,
                _ => true,
                n =>
                    new(
                        ItemCase.Of("line", n),
                        Phrase($"Where is {n} on the line from 0 to {range.High}?"),
                        Phrase($"between {Math.Max(0, n - 1)} and {n + 1}"),
                        n,
                        n % 5 == 0 ? 0 : 1,
                        null
                    )
            ),
            ItemKind.HowManyMore => Pairs(
                range,
                (a, b) => a > b,
                (a, b) =>
                    new(
                        ItemCase.Pair(a, b),
                        Phrase($"A row of {a} and a row of {b}: how many more?"),
                        Of(a - b),
                        a - b,
                        a - b,
                        a <= 10 ? Patterns.TwoRows(a, b) : null
                    )
            ),
            ItemKind.OneLess => Each(range, n => n > 0, n => new(ItemCase.Of("less", n), Phrase($"One less than {Of(n)}"), Of(n - 1), n - 1, n, null)),
            ItemKind.EvenOdd => Each(
                range,
                n => n > 0,
                n =>
                    new(
                        ItemCase.Of("even-odd", n),
                        Phrase($"Pair up {Of(n)}"),
                        n % 2 == 0 ? Phrase("even: all have a partner") : Phrase("odd: one is left alone"),
                        n,
                        n,
                        Patterns.Array(n, 2)
                    )
            ),
            ItemKind.ShareEqually =>
            [
                .. range.Numbers.SelectMany(n =>
                    ((int[])[2, 3, 4, 5])
                        .Where(k => n % k <= 1 && n > k)
                        .Select(k => new Item(
                            ItemCase.Share(n, k),
                            Phrase($"Share {n} between {k}"),
                            n % k == 0 ? Phrase($"{Of(n / k)} each") : Phrase($"{Of(n / k)} each, and one is over"),
                            n / k,
                            n % k == 0 ? n : n + range.High,
                            Patterns.Array(n, n / k)
                        ))
                ),
            ],
            ItemKind.CompareSigns => Pairs(
                range,
                (_, _) => true,
                (a, b) => new(ItemCase.Pair(a, b), $"{a} □ {b}", Sign(a, b), a - b, 10 - Math.Min(10, Math.Abs(a - b)), null)
            ),
            ItemKind.CompareSums => CompareSums(range),
            ItemKind.TrueOrFalse => Splits(range, s => s.First > 0 && s.Second > 0, TrueOrFalse),
            ItemKind.FactFamily => Splits(
                range,
                s => s.First <= s.Second && s.First > 0,
                s =>
                    new(
                        ItemCase.Of("family", s),
                        Phrase($"Say the facts of {s.Total}, {s.First} and {s.Second}"),
                        Facts(s),
                        s.Total,
                        s.Total,
                        Things.Bond(s.Total, s.First, s.Second)
                    )
            ),
            ItemKind.OpenParts => Each(
                range,
                n => n > 0,
                n =>
                    new(
                        ItemCase.Of("ways", n),
                        Phrase($"Two groups that make {Of(n)}: find all ways"),
                        Phrase($"{Of(n + 1)} ways"),
                        n + 1,
                        n,
                        Things.Bond(n, null, null)
                    )
            ),
            ItemKind.TurnRound => Splits(
                range,
                s => s.First != s.Second,
                s =>
                    new(
                        ItemCase.Of("turn", s),
                        Phrase($"{s.First} + {s.Second} = {s.Total}. Turn it round"),
                        $"{s.Second} + {s.First} = {s.Total}",
                        s.Second,
                        s.Total,
                        TwoColours(s, approach)
                    )
            ),
            ItemKind.Undo => Splits(
                range,
                s => s.First > 0 && s.Second > 0,
                s =>
                    new(
                        ItemCase.Of("undo", s),
                        Phrase($"{s.First} + {s.Second} = {s.Total}, so {s.Total} − {s.Second} = □"),
                        $"{s.First}",
                        s.First,
                        s.Total,
                        TwoColours(s, approach)
                    )
            ),
            ItemKind.NoneOrAll =>
            [
                .. range
                    .Numbers.Where(n => n > 0)
                    .SelectMany(n => ((int[])[0, n]).Select(gone => new Item(ItemCase.Take(n, gone), $"{n} − {gone} = □", $"{n - gone}", n - gone, n, null))),
            ],
            ItemKind.ThreeAddends => ThreeAddends(range),
            ItemKind.TenAnd => Each(
                range,
                n => n is > 10 and < 20,
                n => new(ItemCase.Of("ten-and", n), $"10 + {n - 10} = □", $"{n}", n, n, Frames.Tens(n, 2, approach?.Frames))
            ),
            ItemKind.WholeTens => Each(
                range,
                n => n > 0 && n % 10 == 0,
                n =>
                    new(
                        ItemCase.Of("tens", n),
                        Phrase($"{Capitalised(n)}: how many tens?"),
                        Phrase($"{Some(n / 10, "ten", "tens")}, no {words.OnesName}"),
                        n / 10,
                        n,
                        PlaceValues.Blocks(PlaceValue.Of(n))
                    )
            ),
            ItemKind.TensAndOnes => Sample(
                range,
                n => n > 0,
                seed,
                n => new(ItemCase.Of("kinds", n), Phrase($"Build {n}"), Kinds(n, words), n, n, PlaceValues.Blocks(PlaceValue.Of(n)))
            ),
            ItemKind.WrittenOut => Sample(
                range,
                n => PlaceValue.Of(n).Expanded().Count > 1,
                seed,
                n =>
                    new(
                        ItemCase.Of("cards", n),
                        Phrase($"Make {n} with cards and write it out"),
                        PlaceValue.Of(n).ExpandedSentence(),
                        n,
                        n,
                        PlaceValues.Cards(n, apart: true)
                    )
            ),
            ItemKind.AddOnes => Sample(range, n => n > 10 && n % 10 < 9, seed, n => Sum(n, 1 + (int)((seed + ((ulong)n * 7)) % (ulong)(9 - (n % 10))))),
            ItemKind.AddTens => Sample(range, n => n is > 10 and < 90, seed, n => Sum(n, 10 * (1 + (int)((seed + ((ulong)n * 7)) % (ulong)((99 - n) / 10))))),
            ItemKind.AddKinds => Sample(range, n => n is > 0 and < 99, seed, n => AddKinds(n, seed)),
            ItemKind.NearestTen => Each(
                range,
                n => n % 10 != 0,
                n =>
                    new(
                        ItemCase.Of("nearest", n),
                        Phrase($"Which ten is nearest to {n}?"),
                        n % 10 == 5 ? Phrase($"{n - 5} and {n + 5} are as near; by custom {Rounding.ToTen(n)}") : $"{Rounding.ToTen(n)}",
                        Rounding.ToTen(n),
                        n % 10 == 5 ? 2 : 1,
                        null
                    )
            ),
            ItemKind.TenMore =>
            [
                .. Spread(range, n => n is >= 10 and < 990, seed)
                    .SelectMany(n =>
                        ((int[])[10, -10]).Select(step => new Item(
                            ItemCase.Of(step > 0 ? "ten-more" : "ten-less", n),
                            Phrase($"Ten {(step > 0 ? "more" : "less")} than {n}"),
                            $"{n + step}",
                            n + step,
                            n,
                            null
                        ))
                    ),
            ],
            ItemKind.TakeTens =>
            [
                .. from a in range.Numbers
                where a % 10 == 0
                from tens in Enumerable.Range(1, Math.Max(0, (a / 10) - 1))
                select new Item(ItemCase.Take(a, tens * 10), $"{a} − {tens * 10} = □", $"{a - (tens * 10)}", a - (tens * 10), a, null),
            ],
            ItemKind.FromLarger => Splits(range, s => s.First is >= 1 and <= 3 && s.Second > s.First + 1, Add(approach)),
            ItemKind.CountOn => Splits(range, s => s.Second is >= 1 and <= 3 && s.First > s.Second, Add(approach)),
            ItemKind.PlusNine => Splits(range, s => (s.First == 9 || s.Second == 9) && Math.Min(s.First, s.Second) is > 1 and < 10, Add(approach)),
            ItemKind.MakeTen => Splits(range, s => s.First < 10 && s.Second < 10 && s.Total > 10, Add(approach)),
            ItemKind.NearDoubles => Splits(
                range,
                s => Math.Abs(s.First - s.Second) == 1 && s.First < 10 && s.Second < 10 && s.First > 0 && s.Second > 0,
                Add(approach)
            ),
            ItemKind.SplitTeen => Splits(range, s => s.First is > 10 and < 20 && s.Second is > 0 and < 10, Add(approach)),
            ItemKind.CountBack => Splits(range, s => s.Second is >= 1 and <= 3 && s.First > 0, Take),
            ItemKind.TeenLess => Splits(range, s => s.Total is > 10 and < 20 && s.Second > 0 && s.Second < s.Total % 10, Take),
            ItemKind.ChooseWay => Splits(range, s => Math.Min(s.First, s.Second) is > 0 and < 10 && s.Total > 10, Add(approach)),
            ItemKind.BackThroughTen => Splits(range, s => s.Total is > 10 and < 20 && s.First < 10 && s.Second < 10, Take),
            _ => ToldCases.All(kind, range, words),
        };
    }

    private static IReadOnlyList<Item> Each(NumberRange range, Func<int, bool> fits, Func<int, Item> item) => [.. range.Numbers.Where(fits).Select(item)];

    private static IReadOnlyList<Item> Splits(NumberRange totals, Func<Split, bool> fits, Func<Split, Item> item) =>
        [.. totals.Numbers.SelectMany(Bonds.Ordered).Where(fits).Select(item)];

    private static IReadOnlyList<Item> Pairs(NumberRange range, Func<int, int, bool> fits, Func<int, int, Item> item) =>
        [.. range.Numbers.SelectMany(a => range.Numbers.Where(b => fits(a, b)).Select(b => item(a, b)))];

    private static IReadOnlyList<Item> Sample(NumberRange range, Func<int, bool> fits, ulong seed, Func<int, Item> item) =>
        [.. Spread(range, fits, seed).Select(item)];

    private static IEnumerable<int> Spread(NumberRange range, Func<int, bool> fits, ulong seed) =>
        new SeededRandom(seed).Shuffled([.. range.Numbers.Where(fits)]).Take(Most).Order();

    private static IReadOnlyList<Item> Steps(NumberRange range, int step) =>
        Each(
            range,
            n => n % step == 0 && n > 0,
            n =>
                new(
                    ItemCase.Of($"in-{step}", n),
                    Phrase($"Count in {(step == 2 ? "twos" : step == 5 ? "fives" : "tens")} to {Of(n)}"),
                    Stepped(n, step),
                    n,
                    n,
                    null
                )
        );

    // All of a short count; of a longer one how it begins and where it ends.
    private static string Stepped(int to, int step) =>
        to / step <= 4
            ? string.Join(", ", Enumerable.Range(1, to / step).Select(k => Of(k * step)))
            : $"{string.Join(", ", Enumerable.Range(1, 3).Select(k => Of(k * step)))} … {Of(to)}";

    private static Func<Split, Item> Add(Approach? approach) =>
        s =>
            new(
                ItemCase.Of(s),
                $"{s.First} + {s.Second} = □",
                $"{s.Total}",
                s.Total,
                s.Total,
                s.Total <= 20 && s.First <= 10 && s.Second <= 10
                    ? Pictures.Picture.SideBySide(
                        Phrase($"{s.First} and {s.Second}"),
                        1,
                        Frames.Ten(s.First, style: approach?.Frames),
                        Frames.Ten(0, s.Second, approach?.Frames)
                    )
                    : null
            );

    private static Item Take(Split s) => new(ItemCase.Take(s.Total, s.Second), $"{s.Total} − {s.Second} = □", $"{s.First}", s.First, s.Total, null);

    private static Picture? TwoColours(Split parts, Approach? approach) => parts.Total <= 10 ? Frames.Ten(parts.First, parts.Second, approach?.Frames) : null;

    private static string Facts(Split split)
    {
        var family = Numbers.FactFamily.Of(split);
        return string.Join(", ", family.Additions.Concat(family.Subtractions));
    }

    private static string Sign(int a, int b) =>
        a > b ? ">"
        : a < b ? "<"
        : "=";

    private static string Heaps(int n) => n / 10 == 1 ? Phrase("one ten") : Phrase($"{Of(n / 10)} tens");

    private static string Kinds(int n, Wording words)
    {
        var value = PlaceValue.Of(n);
        var hundreds = value.Hundreds > 0 ? $"{Some(value.Hundreds, "hundred", "hundreds")}, " : "";
        return $"{hundreds}{Some(value.Tens, "ten", "tens")}, {Some(value.Ones, words.OneName, words.OnesName)}";
    }

    private static string Some(int n, string one, string many) => $"{n} {(n == 1 ? one : many)}";

    // Each sum against one that comes to one less, the same, one more.
    private static IReadOnlyList<Item> CompareSums(NumberRange range) =>
        [
            .. range
                .Numbers.SelectMany(Bonds.Ordered)
                .Where(s => s.First > 0 && s.Second > 0)
                .SelectMany(left =>
                    ((int[])[-1, 0, 1])
                        .Select(step => (left, right: new Split(left.Second + step, left.First)))
                        .Where(p => p.right.First >= 0 && p.right != p.left)
                        .Select(p => new Item(
                            ItemCase.Of(p.left, p.right),
                            $"{p.left.First} + {p.left.Second} □ {p.right.First} + {p.right.Second}",
                            Sign(p.left.Total, p.right.Total),
                            p.left.Total - p.right.Total,
                            p.left.Total,
                            null
                        ))
                ),
        ];

    // Three numbers of which two make ten or are alike: there is something to look for.
    private static IReadOnlyList<Item> ThreeAddends(NumberRange range) =>
        [
            .. from a in Enumerable.Range(1, 9)
            from b in Enumerable.Range(1, 9)
            from c in Enumerable.Range(1, 9)
            where range.Contains(a + b + c) && (a + c == 10 || (a == c && a != b))
            select new Item(ItemCase.Of([a, b, c]), $"{a} + {b} + {c} = □", $"{a + b + c}", a + b + c, a + b + c, null),
        ];

    // True and not true in turn, the whole now to the right and now to the left; what is not true is one off.
    private static Item TrueOrFalse(Split s)
    {
        var form = (s.Total + s.First) % 4;
        var told = form switch
        {
            2 => s.Total + 1,
            3 => s.Total - 1,
            _ => s.Total,
        };
        return new(
            ItemCase.Of(ItemCase.Truth, s),
            Phrase($"{(form % 2 == 0 ? $"{s.First} + {s.Second} = {told}" : $"{told} = {s.First} + {s.Second}")}: true or not?"),
            told == s.Total ? "true" : Phrase($"not true: {s.First} + {s.Second} = {s.Total}"),
            form,
            s.Total,
            null
        );
    }

    private static Item Sum(int first, int second) =>
        new(ItemCase.Of([first, second]), $"{first} + {second} = □", $"{first + second}", first + second, first, null);

    private static Item AddKinds(int first, ulong seed)
    {
        // A second number that stays below a hundred, whole tens and single ones among them.
        var room = Math.Max(1, 99 - first);
        var second = 1 + (int)((seed + ((ulong)first * 37)) % (ulong)room);
        return new Item(
            ItemCase.Of([first, second]),
            $"{first} + {second} = □",
            $"{first + second}",
            first + second,
            (first % 10) + (second % 10) > 9 ? 1000 + first : first,
            null
        );
    }
}
