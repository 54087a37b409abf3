using Fobble.Core.Numbers;

namespace Fobble.Core.Pictures;

/// <summary>Dots laid out: dice patterns, rows and scattered sets (rule R1).</summary>
public static class Patterns
{
    private const double Dot = 0.62;

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
            var left = face * 3.5;
            shapes.Add(Shape.Box($"face-{face + 1}", ShapeRole.Card, left + 0.1, 0.1, 3.2, 3.2));
            shapes.AddRange(Faces[faces[face]].Select(
                at => Shape.Circle($"counter-{++counter}", ShapeRole.Pip, left + 0.8 + (at.X * 0.9), 0.8 + (at.Y * 0.9), Dot)));
        }

        return new Picture((faces.Length * 3.5) - 0.1, 3.4, shapes, $"Dice pattern of {NumberWords.Of(number)}");
    }

    /// <summary>One row of counters, the first part in one colour, the second in the other.</summary>
    public static Picture Row(int first, int second = 0)
    {
        var shapes = Enumerable.Range(0, first + second).Select(
            i => Shape.Circle($"counter-{i + 1}", i < first ? ShapeRole.CounterA : ShapeRole.CounterB, 0.5 + i, 0.5, 0.74));
        return new Picture(Math.Max(1, first + second), 1, [.. shapes], $"A row of {Parts(first, second)}");
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
        return new Picture(Math.Max(1, Math.Max(upper, lower)), 2.4, shapes, $"A row of {NumberWords.Of(upper)} above a row of {NumberWords.Of(lower)}");
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
        var shapes = places.Select((place, i) => Shape.Circle(
            $"counter-{i + 1}",
            ShapeRole.CounterA,
            ((place % columns) * 1.2) + 0.6 + ((random.NextShare() - 0.5) * 0.44),
            ((place / columns) * 1.2) + 0.6 + ((random.NextShare() - 0.5) * 0.44),
            0.66));
        return new Picture(columns * 1.2, rows * 1.2, [.. shapes], $"A heap of {NumberWords.Of(number)}");
    }

    private static string Parts(int first, int second) =>
        NumberWords.Of(first) + (second > 0 ? $" and {NumberWords.Of(second)}" : "") + " counters";
}
