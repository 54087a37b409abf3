namespace Fobble.Core.Pictures;

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

    /// <summary>Pictures side by side, standing on one line. Keys get the number of their picture in front.</summary>
    public static Picture SideBySide(string description, double gap, params IReadOnlyList<Picture> pictures) =>
        Arrange(description, gap, pictures, beside: true);

    /// <summary>Pictures one below the other, from the left. Keys get the number of their picture in front.</summary>
    public static Picture Below(string description, double gap, params IReadOnlyList<Picture> pictures) => Arrange(description, gap, pictures, beside: false);

    private static Picture Arrange(string description, double gap, IReadOnlyList<Picture> pictures, bool beside)
    {
        var height = pictures.Max(p => p.Height);
        List<Shape> shapes = [];
        var at = 0.0;
        foreach (var (picture, index) in pictures.Select((p, i) => (p, i)))
        {
            var (dx, dy) = beside ? (at, height - picture.Height) : (0, at);
            shapes.AddRange(picture.Shapes.Select(s => s.Moved(dx, dy, $"{index + 1}-{s.Key}")));
            at += (beside ? picture.Width : picture.Height) + gap;
        }

        return beside ? new(at - gap, height, shapes, description) : new(pictures.Max(p => p.Width), at - gap, shapes, description);
    }
}
