namespace Fobble.Core.Pictures;

public enum ShapeKind
{
    /// <summary>X and Y are the middle, Width the diameter.</summary>
    Circle,

    /// <summary>X and Y are the upper left corner.</summary>
    Box,

    /// <summary>From (X, Y) to (X + Width, Y + Height).</summary>
    Line,

    /// <summary>X and Y are the middle of the text, Height its size.</summary>
    Text,
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
}

/// <summary>
/// One shape in a plane whose unit is the side of a frame's cell. The key is stable between two pictures of the same things,
/// so that a renderer can show a counter moving.
/// </summary>
public sealed record Shape
{
    private Shape(string key, ShapeKind kind, ShapeRole role, double x, double y, double width, double height, string? text)
    {
        (Key, Kind, Role, X, Y, Width, Height, Text) = (key, kind, role, x, y, width, height, text);
    }

    public string Key { get; }

    public ShapeKind Kind { get; }

    public ShapeRole Role { get; }

    public double X { get; }

    public double Y { get; }

    public double Width { get; }

    public double Height { get; }

    public string? Text { get; }

    public static Shape Circle(string key, ShapeRole role, double x, double y, double diameter) =>
        new(key, ShapeKind.Circle, role, x, y, diameter, diameter, null);

    public static Shape Box(string key, ShapeRole role, double x, double y, double width, double height) =>
        new(key, ShapeKind.Box, role, x, y, width, height, null);

    public static Shape Line(string key, ShapeRole role, double x1, double y1, double x2, double y2) =>
        new(key, ShapeKind.Line, role, x1, y1, x2 - x1, y2 - y1, null);

    public static Shape Label(string key, ShapeRole role, double x, double y, double size, string text) =>
        new(key, ShapeKind.Text, role, x, y, size, size, text);
}

/// <summary>A picture as data: shapes in drawing order inside a plane of the given size, and what it shows in words.</summary>
public sealed record Picture(double Width, double Height, IReadOnlyList<Shape> Shapes, string Description)
{
    public int CountOf(params ReadOnlySpan<ShapeRole> roles)
    {
        var count = 0;
        foreach (var shape in Shapes)
        {
            count += roles.Contains(shape.Role) ? 1 : 0;
        }

        return count;
    }
}
