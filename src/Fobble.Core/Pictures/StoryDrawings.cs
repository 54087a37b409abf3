using Fobble.Core.Numbers;

namespace Fobble.Core.Pictures;

/// <summary>One thing of a story as a child draws it: a plain circle, perhaps looped or crossed out, with a letter for its part.</summary>
public sealed record DrawnThing(ShapeRole Role, bool Circled = false, bool Crossed = false, string? Letter = null);

/// <summary>Drawings for stories: one row of things, or two matched rows for comparing.</summary>
public static class StoryDrawings
{
    private const int InRow = 10;

    /// <summary>Things in rows of ten, keyed <c>thing-1</c>, <c>thing-2</c> …</summary>
    public static Picture OneSet(IReadOnlyList<DrawnThing> things)
    {
        var rows = Math.Max(1, (things.Count + InRow - 1) / InRow);
        List<Shape> shapes = [];
        foreach (var (thing, i) in things.Select((t, i) => (t, i)))
        {
            shapes.AddRange(Thing($"thing-{i + 1}", thing, (i % InRow * 1.3) + 0.75, (i / InRow * 1.9) + 0.75));
        }

        return new Picture(
            Math.Max(2, Math.Min(InRow, things.Count) * 1.3) + 0.2,
            (rows * 1.9) + 0.1,
            shapes,
            Phrase($"Drawing of {NumberWords.Of(things.Count)}, {Says(things)}")
        );
    }

    /// <summary>Two rows lined up partner under partner; things of the upper row are keyed <c>thing-1</c> …, the lower one goes on counting.</summary>
    public static Picture TwoRows(IReadOnlyList<DrawnThing> upper, IReadOnlyList<DrawnThing> lower)
    {
        List<Shape> shapes =
        [
            .. Enumerable
                .Range(0, Math.Min(upper.Count, lower.Count))
                .Select(i => Shape.Line($"link-{i + 1}", ShapeRole.Link, (i * 1.3) + 0.75, 1.45, (i * 1.3) + 0.75, 2.75)),
        ];
        foreach (var (thing, i) in upper.Concat(lower).Select((t, i) => (t, i)))
        {
            var (column, y) = i < upper.Count ? (i, 1.05) : (i - upper.Count, 3.15);
            shapes.AddRange(Thing($"thing-{i + 1}", thing, (column * 1.3) + 0.75, y, i < upper.Count ? -0.76 : 0.76));
        }

        var longest = Math.Max(upper.Count, lower.Count);
        return new Picture(
            Math.Max(2, longest * 1.3) + 0.2,
            4.2,
            shapes,
            Phrase($"A row of {NumberWords.Of(upper.Count)} above a row of {NumberWords.Of(lower.Count)}, {Says([.. upper, .. lower])}")
        );
    }

    private static string Says(IReadOnlyList<DrawnThing> things) =>
        Phrase($"{NumberWords.Of(things.Count(t => t.Circled))} circled, {NumberWords.Of(things.Count(t => t.Crossed))} crossed out");

    private static IEnumerable<Shape> Thing(string key, DrawnThing thing, double x, double y, double letterAt = 0.85)
    {
        yield return Shape.Circle(key, thing.Role, x, y, 0.78);
        if (thing.Circled)
        {
            yield return Shape.Circle($"{key}-loop", ShapeRole.Loop, x, y, 1.14);
        }

        if (thing.Crossed)
        {
            foreach (var stroke in Shape.Cross($"{key}-cross", x, y, 0.95))
            {
                yield return stroke;
            }
        }

        if (thing.Letter is { } letter)
        {
            yield return Shape.Label($"{key}-letter", ShapeRole.Letter, x, y + letterAt, 0.55, letter);
        }
    }
}
