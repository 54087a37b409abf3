using Fobble.Core.Numbers;

namespace Fobble.Core.Pictures;

/// <summary>Hands with fingers up (rule R1).</summary>
public static class Hands
{
    private static readonly double[] Lengths = [0.75, 1.25, 1.45, 1.3, 0.95];

    /// <summary>The fingers up on each hand: five and the rest first, then the other ways of showing the same number.</summary>
    public static IReadOnlyList<Split> Ways(int number)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(number);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(number, 10);
        return
        [
            .. Enumerable.Range(0, 6).Select(right => new Split(number - right, right)).Where(s => s.First is >= 0 and <= 5).OrderByDescending(s => s.First),
        ];
    }

    /// <summary>Two hands, the thumbs inside; fingers that are down are left out.</summary>
    public static Picture Show(Split fingers)
    {
        List<Shape> shapes = [];
        AddHand("left", 0, fingers.First, mirrored: false);
        AddHand("right", 3.3, fingers.Second, mirrored: true);
        return new Picture(6.5, 3.4, shapes, Phrase($"Hands with {NumberWords.Of(fingers.First)} and {NumberWords.Of(fingers.Second)} fingers up"));

        void AddHand(string hand, double left, int up, bool mirrored)
        {
            // The thumb is the last to go up, as children usually show four.
            for (var i = 0; i < 5; i++)
            {
                var finger = i == 4 ? 0 : 4 - i;
                if (i >= up)
                {
                    continue;
                }

                var x = 0.25 + ((4 - finger) * 0.55);
                var at = mirrored ? 3.2 - x - 0.45 : x;
                var top = finger == 0 ? 1.5 : 1.75 - Lengths[finger];
                shapes.Add(Shape.Box($"{hand}-finger-{finger + 1}", ShapeRole.Hand, left + at, top, 0.45, finger == 0 ? 1.1 : Lengths[finger] + 0.5));
            }

            shapes.Add(Shape.Box($"{hand}-palm", ShapeRole.Hand, left + (mirrored ? 0.75 : 0.2), 1.75, 2.25, 1.5));
        }
    }
}
