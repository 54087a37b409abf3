using Fobble.Core.Numbers;

namespace Fobble.Core.Pictures;

public enum FrameFill
{
    ByFives,
    ByPairs,
}

public enum FrameDirection
{
    Lying,
    Upright,
}

/// <summary>How a class fills and turns its frames.</summary>
public sealed record FrameStyle(FrameFill Fill = FrameFill.ByFives, FrameDirection Direction = FrameDirection.Lying)
{
    public static FrameStyle Usual { get; } = new();
}

public enum CounterMark
{
    None,
    Crossed,
    Circled,
}

/// <summary>A counter on a board of frames. Places count from 0 in the order in which a frame is filled.</summary>
public sealed record FrameCounter(string Key, ShapeRole Role, int Frame, int Place, CounterMark Mark = CounterMark.None);

/// <summary>Five frames and ten frames with counters (rule R1).</summary>
public static class Frames
{
    /// <summary>Cells of a row: the five that the eye takes in.</summary>
    public const int Long = 5;
    private const double Counter = 0.74;
    private const double Edge = 0.1;
    private const double Gap = 0.6;

    /// <summary>A row of five cells with 0 to 5 counters, the first <paramref name="first"/> in one colour, the rest in the other.</summary>
    public static Picture Five(int first, int second = 0, FrameStyle? style = null) => Filled(5, first, second, style);

    /// <summary>Two rows of five cells with 0 to 10 counters in up to two colours.</summary>
    public static Picture Ten(int first, int second = 0, FrameStyle? style = null) => Filled(10, first, second, style);

    /// <summary>As many ten frames as the number needs, at least <paramref name="frames"/>, filled one after the other.</summary>
    public static Picture Tens(int number, int frames = 1, FrameStyle? style = null)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(number);
        var counters = Enumerable.Range(0, number).Select(i => new FrameCounter($"counter-{i + 1}", ShapeRole.CounterA, i / 10, i % 10));
        return Board(
            [.. counters],
            Math.Max(frames, (number + 9) / 10),
            10,
            style ?? FrameStyle.Usual,
            Phrase($"Ten frames with {NumberWords.Of(number)} counters")
        );
    }

    /// <summary>Frames of <paramref name="cells"/> cells (5 or 10) with counters anywhere: lying ones below each other, upright ones side by side.</summary>
    public static Picture Board(IReadOnlyList<FrameCounter> counters, int frames, int cells, FrameStyle style, string says)
    {
        List<Shape> shapes = [];
        for (var frame = 0; frame < frames; frame++)
        {
            for (var place = 0; place < cells; place++)
            {
                var (x, y) = At(frame, place, cells, style);
                shapes.Add(Shape.Box(frames == 1 ? $"cell-{place + 1}" : $"cell-{frame + 1}-{place + 1}", ShapeRole.Cell, x, y, 1, 1));
            }
        }

        foreach (var counter in counters)
        {
            var (x, y) = At(counter.Frame, counter.Place, cells, style);
            shapes.Add(Shape.Circle(counter.Key, counter.Role, x + 0.5, y + 0.5, Counter));
            shapes.AddRange(MarkOn(counter.Key, counter.Mark, x + 0.5, y + 0.5));
        }

        var (long_, short_) = (Long + (2 * Edge), (frames * (cells / Long)) + ((frames - 1) * Gap) + (2 * Edge));
        return style.Direction == FrameDirection.Lying ? new(long_, short_, shapes, says) : new(short_, long_, shapes, says);
    }

    /// <summary>What is drawn over a counter that is marked.</summary>
    public static IEnumerable<Shape> MarkOn(string key, CounterMark mark, double x, double y) =>
        mark switch
        {
            CounterMark.Crossed => Shape.Cross($"{key}-cross", x, y, 0.7),
            CounterMark.Circled => [Shape.Circle($"{key}-loop", ShapeRole.Loop, x, y, 0.94)],
            _ => [],
        };

    private static Picture Filled(int cells, int first, int second, FrameStyle? style)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(first);
        ArgumentOutOfRangeException.ThrowIfNegative(second);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(first + second, cells);
        var counters = Enumerable
            .Range(0, first + second)
            .Select(i => new FrameCounter($"counter-{i + 1}", i < first ? ShapeRole.CounterA : ShapeRole.CounterB, 0, i));
        var says = Phrase(
            $"{NumberWords.Capitalised(cells)} frame with {NumberWords.Of(first)}{(second > 0 ? $" and {NumberWords.Of(second)}" : "")} counters"
        );
        return Board([.. counters], 1, cells, style ?? FrameStyle.Usual, says);
    }

    private static (double X, double Y) At(int frame, int place, int cells, FrameStyle style)
    {
        var pairs = style.Fill == FrameFill.ByPairs && cells > Long;
        var (along, across) = pairs ? (place / 2, place % 2) : (place % Long, place / Long);
        var start = frame * ((cells / Long) + Gap);
        return style.Direction == FrameDirection.Lying ? (along + Edge, start + across + Edge) : (start + across + Edge, along + Edge);
    }
}
