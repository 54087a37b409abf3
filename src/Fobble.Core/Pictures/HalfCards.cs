using Fobble.Core.Numbers;

namespace Fobble.Core.Pictures;

/// <summary>
/// Torn tickets: a numeral on one half, that many dots on the other. The tear between them is one line that both share, made of four teeth,
/// each of which bends one way, the other way, or not at all; every number from 0 to 20 has a tear of its own.
/// </summary>
public static class HalfCards
{
    private const int Teeth = 4;
    private const double Bend = 0.24;
    private const double Top = 0.1;
    private const double Height = 2.4;
    private const double Tear = 2.4;
    private const double NumeralWidth = 2.3;

    /// <summary>Both halves, <paramref name="apart"/> units between them (0: fitted together).</summary>
    public static Picture Ticket(int number, double apart = 0.3)
    {
        var across = number <= 10 ? 5 : 10;
        var width = (across * 0.62) + 0.7;
        var tear = TearOf(number);
        var right = tear.Select(p => new Point(p.X + apart, p.Y)).ToList();
        List<Shape> shapes =
        [
            Shape.Outline("half-numeral", ShapeRole.Card, [new(Tear - NumeralWidth, Top), .. tear, new(Tear - NumeralWidth, Top + Height)]),
            Shape.Label("numeral", ShapeRole.Numeral, Tear - (NumeralWidth / 2) - 0.1, Top + (Height / 2), number > 9 ? 1.3 : 1.5, $"{number}"),
            Shape.Outline("half-dots", ShapeRole.Card, [.. right, new(Tear + apart + width, Top + Height), new(Tear + apart + width, Top)]),
        ];
        var rows = Math.Max(1, (number + across - 1) / across);
        shapes.AddRange(
            Enumerable
                .Range(0, number)
                .Select(i =>
                    Shape.Circle(
                        $"counter-{i + 1}",
                        ShapeRole.Pip,
                        Tear + apart + 0.62 + (i % across * 0.62),
                        Top + (Height / 2) + (((i / across) - ((rows - 1) / 2.0)) * 0.78),
                        0.5
                    )
                )
        );
        return new Picture(Tear + apart + width + 0.1, Height + (2 * Top), shapes, Phrase($"Torn ticket: numeral {number} and {NumberWords.Of(number)} dots"));
    }

    /// <summary>The line of the tear from top to bottom. The number's digits in base three say which way each tooth bends.</summary>
    /// <exception cref="ArgumentOutOfRangeException">The number is not from 0 to 20.</exception>
    public static IReadOnlyList<Point> TearOf(int number)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(number);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(number, 20);

        // Numbers next to each other are spread over the codes (times 37 modulo 81), so that their tears look unlike.
        var code = (number + 1) * 37 % 81;
        List<Point> points = [new(Tear, Top)];
        const double Step = Height / Teeth;
        for (var tooth = 0; tooth < Teeth; tooth++)
        {
            var way = (code % 3) - 1;
            code /= 3;
            var start = Top + (tooth * Step);
            if (way != 0)
            {
                points.AddRange([new(Tear, start + (Step * 0.25)), new(Tear + (way * Bend), start + (Step * 0.5)), new(Tear, start + (Step * 0.75))]);
            }
        }

        points.Add(new(Tear, Top + Height));
        return points;
    }
}
