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

/// <summary>Five frames and ten frames with counters (rule R1).</summary>
public static class Frames
{
    private const double Counter = 0.74;
    private const double Edge = 0.1;

    /// <summary>A row of five cells with 0 to 5 counters, the first <paramref name="first"/> in one colour, the rest in the other.</summary>
    public static Picture Five(int first, int second = 0, FrameDirection direction = FrameDirection.Lying)
    {
        Guard(first, second, 5);
        return Draw(5, 1, first, second, FrameFill.ByFives, direction, Says(first, second, 5));
    }

    /// <summary>Two rows of five cells with 0 to 10 counters in up to two colours.</summary>
    public static Picture Ten(int first, int second = 0, FrameFill fill = FrameFill.ByFives, FrameDirection direction = FrameDirection.Lying)
    {
        Guard(first, second, 10);
        return Draw(5, 2, first, second, fill, direction, Says(first, second, 10));
    }

    private static void Guard(int first, int second, int cells)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(first);
        ArgumentOutOfRangeException.ThrowIfNegative(second);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(first + second, cells);
    }

    private static string Says(int first, int second, int cells) =>
        $"{NumberWords.Capitalised(cells)} frame with {NumberWords.Of(first)}{(second > 0 ? $" and {NumberWords.Of(second)}" : "")} counters";

    private static Picture Draw(int long_, int short_, int first, int second, FrameFill fill, FrameDirection direction, string says)
    {
        List<Shape> shapes = [];
        for (var row = 0; row < short_; row++)
        {
            for (var column = 0; column < long_; column++)
            {
                var (x, y) = Turn(column, row, direction);
                shapes.Add(Shape.Box($"cell-{(row * long_) + column + 1}", ShapeRole.Cell, x + Edge, y + Edge, 1, 1));
            }
        }

        for (var index = 0; index < first + second; index++)
        {
            var (column, row) = fill == FrameFill.ByFives || short_ == 1 ? (index % long_, index / long_) : (index / 2, index % 2);
            var (x, y) = Turn(column, row, direction);
            shapes.Add(Shape.Circle(
                $"counter-{index + 1}", index < first ? ShapeRole.CounterA : ShapeRole.CounterB, x + 0.5 + Edge, y + 0.5 + Edge, Counter));
        }

        var (width, height) = Turn(long_, short_, direction);
        return new Picture(width + (2 * Edge), height + (2 * Edge), shapes, says);
    }

    private static (double X, double Y) Turn(int along, int across, FrameDirection direction) =>
        direction == FrameDirection.Lying ? (along, across) : (across, along);
}
