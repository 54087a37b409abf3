using Fobble.Core.Numbers;

namespace Fobble.Core.Pictures;

/// <summary>A jump along a path, with what is said for it.</summary>
public sealed record Hop(int From, int To, string Label);

/// <summary>A path of numbered stones in a row, and the open line for larger numbers.</summary>
public static class NumberPath
{
    private const double Lane = 2.2;

    /// <summary>Stones from <paramref name="range"/> in one row, one of them stood on, with the hops so far above them; gaps are stones without their numeral.</summary>
    public static Picture Stones(NumberRange range, int? on = null, IReadOnlyList<Hop>? hops = null, IReadOnlySet<int>? gaps = null)
    {
        List<Shape> shapes = [.. Row(range, on, gaps, Lane)];
        if (on is { } here)
        {
            shapes.Add(Shape.Circle("walker", ShapeRole.CounterA, here - range.Low + 0.5, Lane + 1.3, 0.6));
        }

        AddHops(shapes, hops ?? [], n => n - range.Low + 0.5, Lane - 0.1);
        return new Picture(
            range.Count,
            Lane + 1.7,
            shapes,
            Phrase($"Number path from {range.Low} to {range.High}") + (on is { } at ? Phrase($", standing on {at}") : "")
        );
    }

    /// <summary>The stones alone, for printing.</summary>
    public static Picture StonesOnly(NumberRange range, IReadOnlySet<int>? gaps = null) =>
        new(range.Count, 1, [.. Row(range, null, gaps, 0.05)], Phrase($"Number path from {range.Low} to {range.High}"));

    private static IEnumerable<Shape> Row(NumberRange range, int? on, IReadOnlySet<int>? gaps, double top)
    {
        foreach (var number in range.Numbers)
        {
            var x = number - range.Low + 0.5;
            yield return Shape.Box(
                $"stone-{number}",
                number == on ? ShapeRole.Whole
                    : number % 5 == 0 ? ShapeRole.Tray
                    : ShapeRole.Card,
                x - 0.45,
                top,
                0.9,
                0.9
            );
            if (gaps?.Contains(number) != true)
            {
                yield return Shape.Label($"numeral-{number}", ShapeRole.Numeral, x, top + 0.45, number > 99 ? 0.38 : 0.5, $"{number}");
            }
        }
    }

    /// <summary>A bare line with only the numbers that are jumped to, spaced by their distance as far as that stays readable.</summary>
    public static Picture OpenLine(int start, IReadOnlyList<Hop> hops)
    {
        int[] stops = [.. hops.SelectMany(h => new[] { h.From, h.To }).Append(start).Distinct().Order()];
        Dictionary<int, double> at = [];
        var x = 0.8;
        foreach (var (stop, index) in stops.Select((s, i) => (s, i)))
        {
            x += index == 0 ? 0 : Math.Clamp((stop - stops[index - 1]) * 0.5, 1.4, 4.5);
            at[stop] = x;
        }

        var width = Math.Max(4, x + 0.8);
        List<Shape> shapes = [Shape.Line("line", ShapeRole.Link, 0.1, Lane, width - 0.1, Lane)];
        foreach (var stop in stops)
        {
            shapes.Add(Shape.Line($"tick-{stop}", ShapeRole.Link, at[stop], Lane - 0.15, at[stop], Lane + 0.15));
            shapes.Add(Shape.Label($"numeral-{stop}", ShapeRole.Numeral, at[stop], Lane + 0.65, 0.7, $"{stop}"));
        }

        var here = hops.Count == 0 ? start : hops[^1].To;
        shapes.Add(Shape.Circle("walker", ShapeRole.CounterA, at[here], Lane, 0.5));
        AddHops(shapes, hops, n => at[n], Lane - 0.25);
        return new Picture(width, Lane + 1.2, shapes, Phrase($"Number line, standing on {here}"));
    }

    // An arc of nine corners, as high as the hop is long within bounds.
    private static void AddHops(List<Shape> shapes, IReadOnlyList<Hop> hops, Func<int, double> at, double ground)
    {
        foreach (var (hop, index) in hops.Select((h, i) => (h, i)))
        {
            var (from, to) = (at(hop.From), at(hop.To));
            var height = Math.Clamp(Math.Abs(to - from) * 0.5, 0.5, 1.3);
            var arc = Enumerable.Range(0, 9).Select(i => new Point(from + ((to - from) * i / 8), ground - (height * Math.Sin(Math.PI * i / 8))));
            shapes.Add(Shape.Trail($"hop-{index + 1}", ShapeRole.Hop, [.. arc]));
            shapes.Add(Shape.Label($"hop-{index + 1}-says", ShapeRole.Letter, (from + to) / 2, ground - height - 0.3, 0.5, hop.Label));
        }
    }
}
