namespace Fobble.Core.Pictures;

public enum ShapeKind
{
    /// <summary>X and Y are the middle, Width the diameter.</summary>
    Circle,

    /// <summary>X and Y are the upper left corner.</summary>
    Box,

    /// <summary>From (X, Y) to (X + Width, Y + Height).</summary>
    Line,

    /// <summary>X and Y are the middle of the text, or of its left edge where it starts there; Height is its size.</summary>
    Text,

    /// <summary>A closed figure through its points.</summary>
    Outline,

    /// <summary>An open line through its points.</summary>
    Trail,
}

/// <summary>What a shape stands for. A renderer gives each role its look; the core never names a colour.</summary>
public enum ShapeRole
{
    Cell,
    CounterA,
    CounterB,
    Pip,
    Card,
    Numeral,
    Part,
    Whole,
    Link,
    Tray,
    Ring,
    Cover,

    /// <summary>One stroke of a cross over a thing that is taken away.</summary>
    Cross,

    /// <summary>A loop drawn around things.</summary>
    Loop,

    /// <summary>A letter or word that says what a part is.</summary>
    Letter,

    /// <summary>A jump along a path.</summary>
    Hop,
    Hand,
    Block,

    /// <summary>Words on paper, such as a story's line or a heading.</summary>
    Words,

    /// <summary>Small print: footers and hints.</summary>
    Note,

    /// <summary>Pale, to be traced by a child.</summary>
    Trace,

    /// <summary>A line to write on.</summary>
    Rule,

    /// <summary>A dashed line to cut along.</summary>
    Cut,
}

public readonly record struct Point(double X, double Y);

/// <summary>
/// One shape in a plane whose unit is the side of a frame's cell. The key is stable between two pictures of the same things,
/// so that a renderer can show a counter moving.
/// </summary>
public sealed record Shape
{
    private Shape(string key, ShapeKind kind, ShapeRole role, double x, double y, double width, double height)
    {
        (Key, Kind, Role, X, Y, Width, Height) = (key, kind, role, x, y, width, height);
    }

    public string Key { get; private init; }

    public ShapeKind Kind { get; }

    public ShapeRole Role { get; }

    /// <summary>Left edge in the picture's units; of a circle and a centred text the middle; of a line its start.</summary>
    public double X { get; private init; }

    /// <summary>Upper edge in the picture's units, downwards; of a circle and a text the middle; of a line its start.</summary>
    public double Y { get; private init; }

    /// <summary>In the picture's units; of a line how far its end lies to the right, below zero for left.</summary>
    public double Width { get; private init; }

    /// <summary>In the picture's units; of a line how far its end lies below, of a text the height of its letters.</summary>
    public double Height { get; private init; }

    public string? Text { get; private init; }

    /// <summary>Whether a text starts at X instead of being centred on it.</summary>
    public bool FromLeft { get; private init; }

    /// <summary>The corners of an outline or trail; empty for other kinds.</summary>
    public IReadOnlyList<Point> Points { get; private init; } = [];

    public static Shape Circle(string key, ShapeRole role, double x, double y, double diameter) => new(key, ShapeKind.Circle, role, x, y, diameter, diameter);

    public static Shape Box(string key, ShapeRole role, double x, double y, double width, double height) => new(key, ShapeKind.Box, role, x, y, width, height);

    public static Shape Line(string key, ShapeRole role, double x1, double y1, double x2, double y2) =>
        new(key, ShapeKind.Line, role, x1, y1, x2 - x1, y2 - y1);

    public static Shape Label(string key, ShapeRole role, double x, double y, double size, string text) =>
        new(key, ShapeKind.Text, role, x, y, size, size) { Text = text };

    /// <summary>A text that starts at <paramref name="x"/>.</summary>
    public static Shape TextFrom(string key, ShapeRole role, double x, double y, double size, string text) =>
        new(key, ShapeKind.Text, role, x, y, size, size) { Text = text, FromLeft = true };

    public static Shape Outline(string key, ShapeRole role, IReadOnlyList<Point> points) => Through(key, ShapeKind.Outline, role, points);

    public static Shape Trail(string key, ShapeRole role, IReadOnlyList<Point> points) => Through(key, ShapeKind.Trail, role, points);

    /// <summary>The two strokes of a cross over a thing of the given size.</summary>
    public static IEnumerable<Shape> Cross(string key, double x, double y, double size)
    {
        var half = size / 2;
        return
        [
            Line($"{key}-down", ShapeRole.Cross, x - half, y - half, x + half, y + half),
            Line($"{key}-up", ShapeRole.Cross, x - half, y + half, x + half, y - half),
        ];
    }

    /// <summary>The same shape elsewhere, under another key if one is given.</summary>
    public Shape Moved(double dx, double dy, string? key = null) =>
        this with
        {
            Key = key ?? Key,
            X = X + dx,
            Y = Y + dy,
            Points = [.. Points.Select(p => new Point(p.X + dx, p.Y + dy))],
        };

    /// <summary>The same shape larger or smaller by a factor, seen from the upper left corner of the plane.</summary>
    public Shape Scaled(double factor) =>
        this with
        {
            X = X * factor,
            Y = Y * factor,
            Width = Width * factor,
            Height = Height * factor,
            Points = [.. Points.Select(p => new Point(p.X * factor, p.Y * factor))],
        };

    private static Shape Through(string key, ShapeKind kind, ShapeRole role, IReadOnlyList<Point> points)
    {
        var (left, top) = (points.Min(p => p.X), points.Min(p => p.Y));
        return new(key, kind, role, left, top, points.Max(p => p.X) - left, points.Max(p => p.Y) - top) { Points = points };
    }
}
