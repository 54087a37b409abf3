using Fobble.Core.Approaches;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;

namespace Fobble.Core.Mats;

/// <summary>Ways of laying a number out that are shown for a moment, to be seen and not counted (rule R1).</summary>
public enum LookLayout
{
    Frame,
    Dice,
    Fingers,
    Row,
    Doubles,
    Array,
    Circle,
    Tower,
    Bunches,
    Scattered,
    Domino,
    Ticket,
    HeapsOfTen,
}

/// <summary>A number laid out, what can be read off it, and for how long it is shown.</summary>
public sealed record QuickLook(Picture Picture, IReadOnlyList<string> Readings, double FlashSeconds)
{
    public static int Most(LookLayout layout) =>
        layout switch
        {
            LookLayout.Dice or LookLayout.Fingers or LookLayout.Row or LookLayout.Tower => 10,
            LookLayout.Domino => 12,
            LookLayout.HeapsOfTen => 200,
            LookLayout.Scattered or LookLayout.Bunches => 40,
            _ => 20,
        };

    /// <param name="seed">Decides how a scattered set lies, which fingers are up, and how a domino is parted.</param>
    /// <exception cref="RefusedException">The layout does not hold the number.</exception>
    public static QuickLook Of(LookLayout layout, int number, ulong seed, Approach approach)
    {
        ArgumentNullException.ThrowIfNull(approach);
        if (number < 1 || number > Most(layout))
        {
            throw new RefusedException("number", Phrase($"Shown like this, numbers go from 1 to {Most(layout)}, not {number}."));
        }

        var random = new SeededRandom(seed);
        var (picture, reading) = layout switch
        {
            LookLayout.Frame => (Frames.Tens(number, style: approach.Frames), ""),
            LookLayout.Dice => (Patterns.Dice(number), number > 6 ? Parts(5, number - 5) : ""),
            LookLayout.Fingers => Fingers(random.Pick(Hands.Ways(number))),
            LookLayout.Row => (Patterns.Row(Math.Min(5, number), Math.Max(0, number - 5)), number > 5 ? Parts(5, number - 5) : ""),
            LookLayout.Doubles => (Patterns.TwoRows((number + 1) / 2, number / 2), Parts((number + 1) / 2, number / 2)),
            LookLayout.Array => (
                Patterns.Array(
                    number,
                    number > 10 ? 5
                        : number > 4 ? 3
                        : 2
                ),
                ""
            ),
            LookLayout.Circle => (Patterns.InCircle(number), ""),
            LookLayout.Tower => (Patterns.Tower(Math.Min(5, number), Math.Max(0, number - 5)), number > 5 ? Parts(5, number - 5) : ""),
            LookLayout.Bunches => (Patterns.InBunches(number, seed), ""),
            LookLayout.Scattered => (Patterns.Scattered(number, seed), ""),
            LookLayout.Domino => Domino(random.Pick([.. Bonds.Ordered(number).Where(s => s.First <= 6 && s.Second <= 6)])),
            LookLayout.Ticket => (HalfCards.Ticket(number, 0), ""),
            _ => (Patterns.HeapsOfTen(number), Numbers.HeapsOfTen.Of(number).ToString()),
        };
        string[] structure = reading.Length > 0 ? [reading] : [];
        return new(picture, layout == LookLayout.Frame ? FrameReadings.Of(number) : [NumberWords.Of(number), .. structure], FlashTime.For(number));

        static (Picture, string) Fingers(Split up) => (Hands.Show(up), up.Second == 0 ? Phrase("on one hand") : Parts(up.First, up.Second));
        static (Picture, string) Domino(Split halves) => (Patterns.Domino(halves.First, halves.Second), Parts(halves.First, halves.Second));
    }

    private static string Parts(int first, int second) =>
        first == second ? Phrase($"double {NumberWords.Of(first)}") : Phrase($"{NumberWords.Of(first)} and {NumberWords.Of(second)}");
}
