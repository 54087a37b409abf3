using Fobble.Core.Numbers;

namespace Fobble.Core.Pictures;

/// <summary>Pictures of what children hold: bonds, cards, a tray with wells, a ring, tins.</summary>
public static class Things
{
    /// <summary>A bond diagram: the whole above its two parts; a part that is null stays empty for the child to find.</summary>
    public static Picture Bond(int? whole, int? first, int? second)
    {
        string Word(int? n) => n is { } known ? NumberWords.Of(known) : Phrase("an empty place");
        List<Shape> shapes =
        [
            Shape.Line("link-first", ShapeRole.Link, 2.5, 1, 1, 3),
            Shape.Line("link-second", ShapeRole.Link, 2.5, 1, 4, 3),
            Shape.Circle("whole", ShapeRole.Whole, 2.5, 1, 1.7),
            Shape.Circle("part-first", ShapeRole.Part, 1, 3, 1.7),
            Shape.Circle("part-second", ShapeRole.Part, 4, 3, 1.7),
        ];
        AddNumeral("whole-numeral", 2.5, 1, whole);
        AddNumeral("first-numeral", 1, 3, first);
        AddNumeral("second-numeral", 4, 3, second);
        return new Picture(5, 4, shapes, Phrase($"Bond with {Word(whole)} above {Word(first)} and {Word(second)}"));

        void AddNumeral(string key, double x, double y, int? number)
        {
            if (number is { } known)
            {
                shapes.Add(Shape.Label(key, ShapeRole.Numeral, x, y, 1.05, $"{known}"));
            }
        }
    }

    /// <summary>A card with a numeral; with a line below it where it would be another number upside down.</summary>
    public static Picture NumeralCard(int number)
    {
        List<Shape> shapes =
        [
            Shape.Box("card", ShapeRole.Card, 0.1, 0.1, 1.8, 2.4),
            Shape.Label("numeral", ShapeRole.Numeral, 1, 1.3, SizeOn(1.6, number), $"{number}"),
        ];
        if (ReadsTurned(number))
        {
            shapes.Add(Shape.Line("foot", ShapeRole.Rule, 0.6, 2.15, 1.4, 2.15));
        }

        return new(2, 2.6, shapes, Phrase($"Numeral {number}"));
    }

    // A digit is six tenths as wide as it is high: two of them fit a card at three quarters of the size, three at half of it.
    private static double SizeOn(double ofOneDigit, int number) =>
        ofOneDigit
        * number switch
        {
            > 99 => 0.54,
            > 9 => 0.75,
            _ => 1,
        };

    /// <summary>Whether a card would show another number if it lay upside down: 6, 9, 68, 89.</summary>
    public static bool ReadsTurned(int number)
    {
        const string Upright = "01689";
        const string Turned = "01986";
        var digits = $"{number}";
        return digits.All(Upright.Contains)
            && string.Concat(digits.Reverse().Select(d => Turned[Upright.IndexOf(d, StringComparison.Ordinal)])) is var turned
            && turned != digits
            && turned[0] != '0';
    }

    /// <summary>A row of numeral cards; null leaves the place empty.</summary>
    public static Picture NumeralCards(IReadOnlyList<int?> numbers)
    {
        List<Shape> shapes = [];
        for (var i = 0; i < numbers.Count; i++)
        {
            shapes.Add(Shape.Box($"card-{i + 1}", numbers[i] is null ? ShapeRole.Cell : ShapeRole.Card, (i * 1.9) + 0.1, 0.1, 1.7, 2.1));
            if (numbers[i] is { } number)
            {
                shapes.Add(Shape.Label($"numeral-{number}", ShapeRole.Numeral, (i * 1.9) + 0.95, 1.15, SizeOn(1.35, number), $"{number}"));
            }
        }

        var says = string.Join(", ", numbers.Select(n => n is { } known ? $"{known}" : Phrase("a gap")));
        return new Picture((numbers.Count * 1.9) + 0.1, 2.3, shapes, Phrase($"Numeral cards: {says}"));
    }

    /// <summary>The whole as one bar above the bars of its parts, as long as they are large; a part that is null has no numeral.</summary>
    public static Picture PartWhole(int first, int second, bool showWhole = true, bool showFirst = true, bool showSecond = true)
    {
        var total = Math.Max(1, first + second);
        var unit = Math.Max(0.5, 6.0 / total);
        List<Shape> shapes = [Shape.Box("whole", ShapeRole.Whole, 0.1, 0.1, total * unit, 1.2)];
        AddPart("first", ShapeRole.CounterA, 0.1, first);
        AddPart("second", ShapeRole.CounterB, 0.1 + (first * unit), second);
        AddNumeral("whole-numeral", 0.1 + (total * unit / 2), 0.7, showWhole, first + second);
        AddNumeral("first-numeral", 0.1 + (first * unit / 2), 2.95, showFirst && first > 0, first);
        AddNumeral("second-numeral", 0.1 + ((first + (second / 2.0)) * unit), 2.95, showSecond && second > 0, second);
        return new Picture(
            (total * unit) + 0.2,
            3.5,
            shapes,
            Phrase($"{Capital(showWhole, first + second)} as a bar above {Known(showFirst, first)} and {Known(showSecond, second)}")
        );

        void AddPart(string key, ShapeRole role, double x, int part)
        {
            if (part > 0)
            {
                shapes.Add(Shape.Box(key, role, x, 1.35, part * unit, 1));
            }
        }

        void AddNumeral(string key, double x, double y, bool shown, int number)
        {
            if (shown)
            {
                shapes.Add(Shape.Label(key, ShapeRole.Numeral, x, y, 0.9, $"{number}"));
            }
        }

        string Known(bool shown, int number) => shown ? NumberWords.Of(number) : Phrase("an unknown part");
        string Capital(bool shown, int number) => shown ? NumberWords.Capitalised(number) : Phrase("An unknown whole");
    }

    /// <summary>A tin's label: its numeral beside its dots, to be wrapped around it. Dots lie as on a ten frame, so that they can be laid out to check.</summary>
    public static Picture TinLabel(int number)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(number);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(number, 20);
        var across = number > 10 ? 10 : 5;
        List<Shape> shapes =
        [
            Shape.Box("label", ShapeRole.Card, 0.1, 0.1, 9.8, 2.8),
            Shape.Line("fold", ShapeRole.Cut, 4, 0.1, 4, 2.9),
            Shape.Label("numeral", ShapeRole.Numeral, 2, 1.5, 2, $"{number}"),
        ];
        var step = across == 5 ? 1.0 : 0.55;
        var rows = Math.Max(1, (number + across - 1) / across);
        shapes.AddRange(
            Enumerable
                .Range(0, number)
                .Select(i =>
                    Shape.Circle(
                        $"counter-{i + 1}",
                        ShapeRole.Pip,
                        7 + (((i % across) - ((across - 1) / 2.0)) * step),
                        1.5 + (((i / across) - ((rows - 1) / 2.0)) * 1.05),
                        step * 0.72
                    )
                )
        );
        return new Picture(10, 3, shapes, Phrase($"Tin label {number} with {NumberWords.Of(number)} dots"));
    }

    /// <summary>A shallow tray with a number of things in each well.</summary>
    public static Picture Tray(IReadOnlyList<int> wells)
    {
        List<Shape> shapes = [Shape.Box("tray", ShapeRole.Tray, 0.1, 0.1, (wells.Count * 3) + 0.2, 3.2)];
        var counter = 0;
        for (var well = 0; well < wells.Count; well++)
        {
            var middle = (well * 3) + 1.7;
            shapes.Add(Shape.Circle($"well-{well + 1}", ShapeRole.Cell, middle, 1.7, 2.7));
            shapes.AddRange(
                Enumerable
                    .Range(0, wells[well])
                    .Select(i =>
                    {
                        var (x, y) = InHeap(i, wells[well]);
                        return Shape.Circle($"counter-{++counter}", ShapeRole.CounterA, middle + x, 1.7 + y, 0.55);
                    })
            );
        }

        return new Picture((wells.Count * 3) + 0.4, 3.4, shapes, Phrase($"Tray with {string.Join(", ", wells.Select(NumberWords.Of))} in its wells"));
    }

    /// <summary>Things dropped over a ring: some inside, the others outside.</summary>
    public static Picture Ring(int inside, int outside)
    {
        List<Shape> shapes = [Shape.Circle("ring", ShapeRole.Ring, 2, 2, 3.6)];
        shapes.AddRange(
            Enumerable
                .Range(0, inside)
                .Select(i =>
                {
                    var (x, y) = InHeap(i, inside);
                    return Shape.Circle($"inside-{i + 1}", ShapeRole.CounterA, 2 + x, 2 + y, 0.55);
                })
        );
        shapes.AddRange(
            Enumerable.Range(0, outside).Select(i => Shape.Circle($"outside-{i + 1}", ShapeRole.CounterB, 4.5 + (i % 3 * 0.8), 0.7 + (i / 3 * 0.85), 0.55))
        );
        return new Picture(6.8, 4, shapes, Phrase($"{NumberWords.Capitalised(inside)} inside the ring, {NumberWords.Of(outside)} outside"));
    }

    /// <summary>Some counters in sight and a lid over the rest.</summary>
    public static Picture UnderLid(int inSight, int hidden)
    {
        List<Shape> shapes =
        [
            .. Enumerable.Range(0, inSight).Select(i => Shape.Circle($"counter-{i + 1}", ShapeRole.CounterA, 0.6 + (i % 5 * 0.9), 0.7 + (i / 5 * 0.9), 0.7)),
        ];
        var lid = 0.4 + (0.9 * Math.Min(inSight, 5));
        shapes.Add(Shape.Box("lid", ShapeRole.Cover, lid, 0.15, 2.6, 1.7));
        return new Picture(lid + 2.8, 2, shapes, Phrase($"{NumberWords.Capitalised(inSight)} in sight, {NumberWords.Of(hidden)} under the lid"));
    }

    // Things in a well: one in the middle, then a ring of up to six, then a wider ring. No two touch.
    private static (double X, double Y) InHeap(int index, int count)
    {
        if (count == 1)
        {
            return (0, 0);
        }

        var inner = Math.Min(count, 6);
        var (radius, step, on) =
            index < inner ? (inner <= 3 ? 0.45 : 0.68, index, inner) : (index == inner ? 0 : 1.25, index - inner, Math.Max(1, count - inner - 1));
        var angle = (2 * Math.PI * step / on) - (Math.PI / 2);
        return (radius * Math.Cos(angle), radius * Math.Sin(angle));
    }
}
