using Fobble.Core.Numbers;
using Fobble.Core.Pictures;

namespace Fobble.Core.Mats;

/// <summary>Draws a mat with what lies on it. A counter's key is its number, so that it can be seen moving from place to place.</summary>
internal static class MatPictures
{
    private const double Counter = 0.74;
    private const int HeapColumns = 8;

    public static (Picture Picture, IReadOnlyList<MatSpot> Places) Draw(MatState state, FrameStyle style) =>
        MatKinds.IsFrame(state.Kind) ? OnFrames(state, style) : InZones(state);

    private static (Picture, IReadOnlyList<MatSpot>) OnFrames(MatState state, FrameStyle style)
    {
        var cells = state.Kind == MatKind.FiveFrame ? 5 : 10;
        var counters = state
            .Zones.SelectMany((z, zone) => z.Places.Select((c, place) => (c, zone, place)))
            .Where(p => p.c is not null && !state.Zones[p.zone].Covered)
            .Select(p => new FrameCounter(KeyOf(p.c!), RoleOf(p.c!), p.zone, p.place, p.c!.Mark))
            .ToList();
        var says = Phrase(
            $"{(cells == 5 ? "Five frame" : state.Zones.Count == 1 ? "Ten frame" : "Two ten frames")} with {string.Join(" and ", state.Zones.Select(z => z.Covered ? "a cover" : NumberWords.Of(z.Count)))}"
        );
        var picture = Frames.Board(counters, state.Zones.Count, cells, style, says);
        var boxes = picture.Shapes.Where(s => s.Role == ShapeRole.Cell).ToList();
        var places = boxes.Select((b, i) => new MatSpot(i / cells, i % cells, Name(state, i / cells, i % cells), b.X, b.Y, b.Width, b.Height)).ToList();
        var covers = state
            .Zones.Select((z, zone) => (z, Cells: boxes.Skip(zone * cells).Take(cells).ToList()))
            .Where(z => z.z.Covered)
            .Select(
                (z, i) =>
                    Shape.Box(
                        $"cover-{i + 1}",
                        ShapeRole.Cover,
                        z.Cells.Min(b => b.X),
                        z.Cells.Min(b => b.Y),
                        z.Cells.Max(b => b.X + 1) - z.Cells.Min(b => b.X),
                        z.Cells.Max(b => b.Y + 1) - z.Cells.Min(b => b.Y)
                    )
            );
        return (picture with { Shapes = [.. picture.Shapes, .. covers] }, places);
    }

    private static (Picture, IReadOnlyList<MatSpot>) InZones(MatState state)
    {
        var boxes = Boxes(state);
        List<Shape> shapes = [];
        List<MatSpot> places = [];
        foreach (var (zone, index) in state.Zones.Select((z, i) => (z, i)))
        {
            var box = boxes[index];
            shapes.AddRange(Ground(state.Kind, index, box));
            if (!zone.Covered)
            {
                foreach (var (counter, place) in zone.Places.Select((c, i) => (c, i)).Where(p => p.c is not null))
                {
                    var (x, y) = At(state.Kind, box, place, zone.Places.Count);
                    shapes.Add(Shape.Circle(KeyOf(counter!), RoleOf(counter!), x, y, Counter));
                    shapes.AddRange(Frames.MarkOn(KeyOf(counter!), counter!.Mark, x, y));
                }
            }
            else
            {
                shapes.Add(Shape.Box($"cover-{index + 1}", ShapeRole.Cover, box.X, box.Y, box.Width, box.Height));
            }

            places.AddRange(
                state.Kind == MatKind.Heap
                    ? Enumerable
                        .Range(0, zone.Places.Count)
                        .Select(p => new MatSpot(index, p, Name(state, index, p), p % HeapColumns * 1.2, p / HeapColumns * 1.2, 1.2, 1.2))
                    : [new MatSpot(index, null, Name(state, index, null), box.X, box.Y, box.Width, box.Height)]
            );
        }

        shapes.InsertRange(0, Links(state, boxes));
        var says = string.Join(
            ", ",
            state.Zones.Select((z, i) => $"{MatKinds.ZonesOf(state.Kind)[i].Name} {(z.Covered ? "covered" : NumberWords.Of(z.Count))}")
        );
        return (new(boxes.Max(b => b.X + b.Width) + 0.1, boxes.Max(b => b.Y + b.Height) + 0.1, shapes, char.ToUpperInvariant(says[0]) + says[1..]), places);
    }

    // Where the zones lie. Those of a bond grow with what is in them, so that the picture stays large for small numbers.
    private static IReadOnlyList<Box> Boxes(MatState state)
    {
        switch (state.Kind)
        {
            case MatKind.Bond:
                var rows = Math.Max(2, state.Zones.Skip(1).Max(z => (z.Count + 4) / 5));
                return [new(0.1, 0.1, 10.8, 2.2), new(0.1, 2.9, 5.2, rows + 0.2), new(5.7, 2.9, 5.2, rows + 0.2)];
            case MatKind.TwoRows:
                return [new(0.1, 0.1, 10.2, 1.2), new(0.1, 1.9, 10.2, 1.2)];
            case MatKind.Tray:
                return [.. Enumerable.Range(0, 3).Select(i => new Box(0.1 + (i * 4), 0.1, 3.8, 3.8))];
            case MatKind.Ring:
                return [new(0.1, 0.1, 4.6, 4.6), new(5.1, 0.1, 4, 4.6)];
            default:
                return [new(0, 0, HeapColumns * 1.2, 6)];
        }
    }

    private static IEnumerable<Shape> Ground(MatKind kind, int zone, Box box) =>
        kind switch
        {
            MatKind.Bond => [Shape.Box($"zone-{zone + 1}", zone == 0 ? ShapeRole.Whole : ShapeRole.Part, box.X, box.Y, box.Width, box.Height)],
            MatKind.TwoRows => [Shape.Box($"zone-{zone + 1}", ShapeRole.Cell, box.X, box.Y, box.Width, box.Height)],
            MatKind.Tray =>
            [
                Shape.Box($"tray-{zone + 1}", ShapeRole.Tray, box.X - 0.1, box.Y - 0.1, box.Width + 0.2, box.Height + 0.2),
                Shape.Circle($"zone-{zone + 1}", ShapeRole.Cell, box.X + 1.9, box.Y + 1.9, 3.7),
            ],
            MatKind.Ring when zone == 0 => [Shape.Circle("ring", ShapeRole.Ring, box.X + 2.3, box.Y + 2.3, 4.5)],
            _ => [],
        };

    private static IEnumerable<Shape> Links(MatState state, IReadOnlyList<Box> boxes) =>
        state.Kind switch
        {
            MatKind.Bond => [Line("link-first", boxes[1]), Line("link-second", boxes[2])],
            MatKind.TwoRows when !state.Zones.Any(z => z.Covered) => Enumerable
                .Range(0, Math.Min(state.Zones[0].Count, state.Zones[1].Count))
                .Select(i => Shape.Line($"link-{i + 1}", ShapeRole.Link, i + 0.7, 1.05, i + 0.7, 2.1)),
            _ => [],
        };

    private static Shape Line(string key, Box part) => Shape.Line(key, ShapeRole.Link, 5.5, 2.2, part.X + (part.Width / 2), part.Y + 0.1);

    private static (double X, double Y) At(MatKind kind, Box box, int place, int count) =>
        kind switch
        {
            MatKind.Bond => (
                box.X + 0.6 + (place % (box.Width > 6 ? 10 : 5)) + (box.Width > 6 && place % 10 > 4 ? 0.3 : 0),
                box.Y + 0.6 + (place / (box.Width > 6 ? 10 : 5))
            ),
            MatKind.TwoRows => (box.X + 0.6 + place, box.Y + 0.6),
            MatKind.Heap => Nudged(place),
            MatKind.Ring when box.X > 1 => (box.X + 0.6 + (place % 3 * 1.2), box.Y + 0.7 + (place / 3 * 1.05)),
            _ => InRound(box, place, count),
        };

    // One in the middle, or a ring of up to eight, and a smaller ring inside it for more.
    private static (double X, double Y) InRound(Box box, int place, int count)
    {
        var (middleX, middleY) = (box.X + (box.Width / 2), box.Y + (box.Height / 2));
        var outer = Math.Min(count, 8);
        var (radius, step, of) =
            count == 1 ? (0, 0, 1)
            : place < outer ? (count <= 4 ? 0.75 : 1.35, place, outer)
            : (count - outer == 1 ? 0 : 0.58, place - outer, count - outer);
        var angle = (2 * Math.PI * step / of) - (Math.PI / 2);
        return (middleX + (radius * Math.Cos(angle)), middleY + (radius * Math.Sin(angle)));
    }

    // Each place of the heap has its own small displacement, so that what lies there looks thrown and still has its gap.
    private static (double X, double Y) Nudged(int place)
    {
        var random = new SeededRandom((ulong)place + 1);
        return ((place % HeapColumns * 1.2) + 0.6 + ((random.NextShare() - 0.5) * 0.4), (place / HeapColumns * 1.2) + 0.6 + ((random.NextShare() - 0.5) * 0.4));
    }

    private static string KeyOf(MatCounter counter) => $"counter-{counter.Id}";

    private static ShapeRole RoleOf(MatCounter counter) => counter.Second ? ShapeRole.CounterB : ShapeRole.CounterA;

    private static string Name(MatState state, int zone, int? place)
    {
        var known = MatKinds.ZonesOf(state.Kind)[zone];
        return place is { } cell
            ? Phrase($"{known.Name}, cell {cell + 1}{(state.Zones[zone].Places[cell] is null ? ", empty" : "")}")
            : $"{known.Name}, {state.Zones[zone].Count}";
    }

    private sealed record Box(double X, double Y, double Width, double Height);
}
