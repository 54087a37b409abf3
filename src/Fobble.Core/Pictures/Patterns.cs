using System.Globalization;
using Fobble.Core.Numbers;

namespace Fobble.Core.Pictures;

/// <summary>Dots laid out: dice patterns, rows and scattered sets (rule R1).</summary>
public static class Patterns
{
    private const double Dot = 0.62;
    private const double FaceStep = 3.5;

    // The nine places of a die's face, as column and row.
    private static readonly (int X, int Y)[][] Faces =
    [
        [],
        [(1, 1)],
        [(0, 0), (2, 2)],
        [(0, 0), (1, 1), (2, 2)],
        [(0, 0), (2, 0), (0, 2), (2, 2)],
        [(0, 0), (2, 0), (1, 1), (0, 2), (2, 2)],
        [(0, 0), (2, 0), (0, 1), (2, 1), (0, 2), (2, 2)],
    ];

    /// <summary>A die's face for 0 to 6; for 7 to 10 a five or more on one face and the rest on a second.</summary>
    public static Picture Dice(int number)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(number);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(number, 10);
        int[] faces = number <= 6 ? [number] : [5, number - 5];
        List<Shape> shapes = [];
        var counter = 0;
        for (var face = 0; face < faces.Length; face++)
        {
            shapes.Add(Face($"face-{face + 1}", face * FaceStep));
            shapes.AddRange(Pips(faces[face], face * FaceStep, () => $"counter-{++counter}"));
        }

        return new Picture((faces.Length * FaceStep) - 0.1, 3.4, shapes, Phrase($"Dice pattern of {NumberWords.Of(number)}"));
    }

    /// <summary>Dice lying side by side, each with pips (a number up to 6) or with what is written on it.</summary>
    public static Picture Thrown(IReadOnlyList<(string Text, bool Pips)> dice)
    {
        List<Shape> shapes = [];
        for (var die = 0; die < dice.Count; die++)
        {
            var (text, pips) = dice[die];
            var pip = 0;
            var (key, left) = (die + 1, die * FaceStep);
            shapes.Add(Face($"die-{key}", left));
            shapes.AddRange(
                pips
                    ? Pips(int.Parse(text, CultureInfo.InvariantCulture), left, () => $"die-{key}-pip-{++pip}")
                    : [Shape.Label($"die-{key}-text", ShapeRole.Numeral, left + 1.7, 1.7, 2, text)]
            );
        }

        return new Picture(Math.Max(1, dice.Count * FaceStep) - 0.1, 3.4, shapes, Phrase($"Dice showing {string.Join(", ", dice.Select(d => d.Text))}"));
    }

    /// <summary>A domino: two faces on one tile, 0 to 6 pips each.</summary>
    public static Picture Domino(int left, int right)
    {
        var pip = 0;
        List<Shape> shapes = [Shape.Box("tile", ShapeRole.Card, 0.1, 0.1, 6.6, 3.2), Shape.Line("middle", ShapeRole.Link, 3.4, 0.4, 3.4, 3)];
        shapes.AddRange(Pips(left, 0, () => $"counter-{++pip}"));
        shapes.AddRange(Pips(right, 3.4, () => $"counter-{++pip}"));
        return new Picture(6.8, 3.4, shapes, Phrase($"Domino with {NumberWords.Of(left)} and {NumberWords.Of(right)}"));
    }

    /// <summary>Rows of equal length, the last one shorter where the number asks for it.</summary>
    public static Picture Array(int number, int columns)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(columns, 1);
        var shapes = Enumerable
            .Range(0, number)
            .Select(i => Shape.Circle($"counter-{i + 1}", ShapeRole.CounterA, (i % columns) + 0.5, (i / columns) + 0.5, 0.74));
        return new Picture(
            columns,
            Math.Max(1, (number + columns - 1) / columns),
            [.. shapes],
            Phrase($"{NumberWords.Capitalised(number)} in rows of {NumberWords.Of(columns)}")
        );
    }

    /// <summary>A circle, hard to count because it has no beginning.</summary>
    public static Picture InCircle(int number)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(number, 1);
        var radius = number < 3 ? 0.6 : Math.Max(0.7, 0.5 / Math.Sin(Math.PI / number));
        var middle = radius + 0.5;
        var shapes = Enumerable
            .Range(0, number)
            .Select(i =>
            {
                var angle = (2 * Math.PI * i / number) - (Math.PI / 2);
                return Shape.Circle($"counter-{i + 1}", ShapeRole.CounterA, middle + (radius * Math.Cos(angle)), middle + (radius * Math.Sin(angle)), 0.74);
            });
        return new Picture(2 * middle, 2 * middle, [.. shapes], Phrase($"{NumberWords.Capitalised(number)} in a circle"));
    }

    /// <summary>A tower of linking cubes, the first part below in one colour.</summary>
    public static Picture Tower(int first, int second = 0)
    {
        var all = first + second;
        var shapes = Enumerable
            .Range(0, all)
            .Select(i => Shape.Box($"counter-{i + 1}", i < first ? ShapeRole.CounterA : ShapeRole.CounterB, 0.1, all - i - 0.9, 1, 1));
        return new Picture(1.2, Math.Max(1, all) + 0.2, [.. shapes], Phrase($"A tower of {Parts(first, second)}"));
    }

    /// <summary>One row of counters, the first part in one colour, the second in the other.</summary>
    public static Picture Row(int first, int second = 0)
    {
        var shapes = Enumerable
            .Range(0, first + second)
            .Select(i => Shape.Circle($"counter-{i + 1}", i < first ? ShapeRole.CounterA : ShapeRole.CounterB, 0.5 + i, 0.5, 0.74));
        return new Picture(Math.Max(1, first + second), 1, [.. shapes], Phrase($"A row of {Parts(first, second)}"));
    }

    /// <summary>Two rows lined up partner under partner, for comparing.</summary>
    public static Picture TwoRows(int upper, int lower)
    {
        List<Shape> shapes = [];
        for (var i = 0; i < Math.Min(upper, lower); i++)
        {
            shapes.Add(Shape.Line($"link-{i + 1}", ShapeRole.Link, i + 0.5, 0.9, i + 0.5, 1.5));
        }

        shapes.AddRange(Enumerable.Range(0, upper).Select(i => Shape.Circle($"upper-{i + 1}", ShapeRole.CounterA, i + 0.5, 0.5, 0.74)));
        shapes.AddRange(Enumerable.Range(0, lower).Select(i => Shape.Circle($"lower-{i + 1}", ShapeRole.CounterB, i + 0.5, 1.9, 0.74)));
        return new Picture(
            Math.Max(1, Math.Max(upper, lower)),
            2.4,
            shapes,
            Phrase($"A row of {NumberWords.Of(upper)} above a row of {NumberWords.Of(lower)}")
        );
    }

    /// <summary>
    /// A heap with no two things touching. Places are the cells of a grid with room to spare, nudged by the seed,
    /// so that the heap looks thrown and still keeps its gaps.
    /// </summary>
    public static Picture Scattered(int number, ulong seed)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(number);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(number, 40);
        var random = new SeededRandom(seed);
        var columns = Math.Max(3, (int)Math.Ceiling(Math.Sqrt(number * 2.0)));
        var rows = Math.Max(2, (int)Math.Ceiling(number * 1.4 / columns));
        var places = random.Shuffled(Enumerable.Range(0, columns * rows)).Take(number).Order();
        var shapes = places.Select((place, i) => Nudged(i, ((place % columns) * 1.2) + 0.6, ((place / columns) * 1.2) + 0.6, random));
        return new Picture(columns * 1.2, rows * 1.2, [.. shapes], Phrase($"A heap of {NumberWords.Of(number)}"));
    }

    /// <summary>A heap that is easy to see: bunches of two or three with wide gaps between them, none touching.</summary>
    public static Picture InBunches(int number, ulong seed)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(number);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(number, 40);
        var random = new SeededRandom(seed);
        List<int> bunches = [];
        for (var left = number; left > 0; left -= bunches[^1])
        {
            bunches.Add(left is 2 or 4 ? 2 : Math.Min(3, left));
        }

        (double X, double Y)[] within = [(0, 0), (1.1, 0.1), (0.55, 1.05)];
        var columns = Math.Max(1, (int)Math.Ceiling(Math.Sqrt(bunches.Count)));
        List<Shape> shapes = [];
        for (var bunch = 0; bunch < bunches.Count; bunch++)
        {
            var (left, top, turned) = ((bunch % columns * 3.4) + 0.6, (bunch / columns * 3.2) + 0.6, random.Chance(0.5));
            foreach (var (x, y) in within.Take(bunches[bunch]))
            {
                shapes.Add(Nudged(shapes.Count, left + (turned ? y : x), top + (turned ? x : y), random, 0.1));
            }
        }

        var rows = Math.Max(1, (bunches.Count + columns - 1) / columns);
        return new Picture((columns * 3.4) - 1.1, (rows * 3.2) - 0.9, shapes, Phrase($"A heap of {NumberWords.Of(number)} in bunches"));
    }

    /// <summary>A large amount in heaps of ten, two rows of five each, and what is left over; one more row of heaps for every five.</summary>
    public static Picture HeapsOfTen(int number)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(number);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(number, 300);
        const double HeapWidth = 4.1;
        const double HeapHeight = 2;
        List<Shape> shapes = [];
        for (var i = 0; i < number; i++)
        {
            var (heap, within) = (i / 10, i % 10);
            var role = heap < number / 10 ? ShapeRole.CounterA : ShapeRole.CounterB;
            shapes.Add(
                Shape.Circle(
                    $"counter-{i + 1}",
                    role,
                    (heap % 5 * HeapWidth) + (within % 5 * 0.72) + 0.5,
                    (heap / 5 * HeapHeight) + (within / 5 * 0.72) + 0.5,
                    0.6
                )
            );
        }

        var heaps = Math.Max(1, (number + 9) / 10);
        return new Picture(Math.Min(5, heaps) * HeapWidth, ((heaps + 4) / 5) * HeapHeight, shapes, Numbers.HeapsOfTen.Of(number).ToString());
    }

    private static Shape Nudged(int index, double x, double y, SeededRandom random, double by = 0.22) =>
        Shape.Circle($"counter-{index + 1}", ShapeRole.CounterA, x + ((random.NextShare() - 0.5) * 2 * by), y + ((random.NextShare() - 0.5) * 2 * by), 0.66);

    private static Shape Face(string key, double left) => Shape.Box(key, ShapeRole.Card, left + 0.1, 0.1, 3.2, 3.2);

    private static IEnumerable<Shape> Pips(int number, double left, Func<string> key) =>
        Faces[number].Select(at => Shape.Circle(key(), ShapeRole.Pip, left + 0.8 + (at.X * 0.9), 0.8 + (at.Y * 0.9), Dot));

    private static string Parts(int first, int second) => NumberWords.Of(first) + (second > 0 ? Phrase($" and {NumberWords.Of(second)}") : "") + " counters";
}
