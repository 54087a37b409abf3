using Fobble.Core.Approaches;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;

namespace Fobble.Core.Mats;

/// <summary>A place on the picture where a counter can be laid; <see cref="Place"/> is null where a zone takes any number.</summary>
public sealed record MatSpot(int Zone, int? Place, string Name, double X, double Y, double Width, double Height);

/// <summary>A mat as it is shown: the picture, where counters can be laid, what can be read off it, and how long it is flashed.</summary>
/// <param name="Sentence">What lies there as a number sentence; empty where there is nothing to join or take.</param>
/// <param name="FlashSeconds">Seconds for which it is shown when it is to be seen and not counted.</param>
public sealed record MatView(Picture Picture, IReadOnlyList<MatSpot> Places, IReadOnlyList<string> Readings, string Sentence, double FlashSeconds)
{
    public static MatView Of(MatState state, Approach approach)
    {
        ArgumentNullException.ThrowIfNull(state);
        ArgumentNullException.ThrowIfNull(approach);
        var (picture, places) = MatPictures.Draw(state, approach.Frames);
        return new(picture, places, MatReadings.Of(state, approach.Words), MatReadings.SentenceOf(state), FlashTime.For(state.Count));
    }
}

/// <summary>What can be read off a mat; never more than is in sight.</summary>
public static class MatReadings
{
    public static IReadOnlyList<string> Of(MatState state, Wording words)
    {
        ArgumentNullException.ThrowIfNull(state);
        int At(int zone) => state.Zones[zone].Count;
        if (state.Zones.Any(z => z.Covered))
        {
            var open = state.Zones.Where(z => !z.Covered).Sum(z => z.Count);
            return
            [
                state.Zones.All(z => z.Covered)
                    ? Phrase("all covered: what was there?")
                    : Phrase($"{NumberWords.Of(open)} in sight: how many under the cover?"),
            ];
        }

        return state.Kind switch
        {
            MatKind.Bond => Bond(At(0), At(1), At(2)),
            MatKind.TwoRows => [new Comparison(At(0), At(1)).InWords(words)],
            MatKind.Tray => [Phrase($"{string.Join(", ", state.Zones.Select(z => NumberWords.Of(z.Count)))}: {NumberWords.Of(state.Count)} in all")],
            MatKind.Ring => [Phrase($"{NumberWords.Of(At(0))} inside, {NumberWords.Of(At(1))} outside: {NumberWords.Of(state.Count)} in all")],
            MatKind.Heap =>
            [
                Phrase($"{NumberWords.Of(state.Count)} in all"),
                .. state.Count > 20 ? [HeapsOfTen.Of(state.Count).ToString()] : Array.Empty<string>(),
            ],
            MatKind.FiveFrame =>
            [
                $"{NumberWords.Of(At(0))}, {(At(0) == 5 ? Phrase("the frame is full") : Phrase($"{NumberWords.Of(5 - At(0))} short of five"))}",
            ],
            _ => FrameReadings.Of(state.Count),
        };
    }

    /// <summary>Crossed out: taken away. Two colours or two parts: joined. Something covered: the unknown.</summary>
    public static string SentenceOf(MatState state)
    {
        ArgumentNullException.ThrowIfNull(state);
        var crossed = state.Counters.Count(c => c.Mark == CounterMark.Crossed);
        var covered = state.Zones.Where(z => z.Covered).Sum(z => z.Count);
        if (state.Zones.Any(z => z.Covered))
        {
            return state.Zones.All(z => z.Covered) || state.Kind == MatKind.Bond ? "" : $"{state.Count - covered} + □ = {state.Count}";
        }

        if (crossed > 0 && state.Kind is not MatKind.Bond)
        {
            return $"{new NumberSentence(state.Count, Operation.TakeAway, crossed)}";
        }

        var second = state.Counters.Count(c => c.Second);
        return state.Kind switch
        {
            MatKind.Bond => state.Zones[1].Count + state.Zones[2].Count == 0
                ? ""
                : $"{new NumberSentence(state.Zones[1].Count, Operation.Add, state.Zones[2].Count)}",
            MatKind.TwoRows => new Comparison(state.Zones[0].Count, state.Zones[1].Count).Between($"{state.Zones[0].Count}", $"{state.Zones[1].Count}"),
            MatKind.Tray => $"{string.Join(" + ", state.Zones.Select(z => z.Count))} = {state.Count}",
            MatKind.Ring => $"{new NumberSentence(state.Zones[0].Count, Operation.Add, state.Zones[1].Count)}",
            _ => second == 0 ? "" : $"{new NumberSentence(state.Count - second, Operation.Add, second)}",
        };
    }

    private static string[] Bond(int whole, int first, int second)
    {
        var parts = Phrase($"{NumberWords.Of(first)} and {NumberWords.Of(second)} make {NumberWords.Of(first + second)}");
        return whole == 0 || whole == first + second ? [parts]
            : first + second == 0 ? [Phrase($"a whole of {NumberWords.Of(whole)}, not taken apart yet")]
            :
            [
                parts,
                Phrase(
                    $"the whole says {NumberWords.Of(whole)}: {NumberWords.Of(Math.Abs(whole - first - second))} {(whole > first + second ? "still to place" : "too many")}"
                ),
            ];
    }
}
