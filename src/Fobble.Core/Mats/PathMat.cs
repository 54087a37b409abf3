using Fobble.Core.Numbers;
using Fobble.Core.Pictures;

namespace Fobble.Core.Mats;

/// <summary>A step of what is shown on a mat: what is said, what it looks like, and the line beside it.</summary>
public sealed record MatStep(string Says, Picture Picture, string Line);

/// <summary>Walking along a path or line of numbers, forwards and back.</summary>
public static class PathMat
{
    /// <summary>Hops drawn on one path; more lie over each other.</summary>
    public const int MostHops = 12;

    /// <summary>Numbers that fit on one row of stones; a longer way is shown on the open line.</summary>
    private const int MostStones = 21;

    /// <param name="range">What there is to walk on.</param>
    /// <param name="hops">Steps on, or back where below zero.</param>
    /// <returns>Where one stands at the start, then after each hop.</returns>
    /// <exception cref="RefusedException">A hop leaves the path, goes nowhere, or there are more than twelve.</exception>
    public static IReadOnlyList<MatStep> Walk(NumberRange range, int start, IReadOnlyList<int> hops)
    {
        ArgumentNullException.ThrowIfNull(hops);
        if (!range.Contains(start) || hops.Count > MostHops)
        {
            throw new RefusedException(
                "hops",
                hops.Count > MostHops
                    ? Phrase($"More than {MostHops} hops are hard to follow.")
                    : Phrase($"{start} is not on the path from {range.Low} to {range.High}.")
            );
        }

        List<Hop> walked = [];
        List<MatStep> steps = [new(Phrase($"Stand on {NumberWords.Of(start)}."), Draw(range, start, walked), $"{start}")];
        foreach (var hop in hops)
        {
            var (from, to) = (walked.Count == 0 ? start : walked[^1].To, (walked.Count == 0 ? start : walked[^1].To) + hop);
            if (hop == 0 || !range.Contains(to))
            {
                throw new RefusedException(
                    "hops",
                    hop == 0 ? Phrase("A hop of nought goes nowhere.") : Phrase($"{hop:+0;−0} from {from} leaves the path from {range.Low} to {range.High}.")
                );
            }

            walked.Add(new(from, to, $"{hop:+ 0;− 0}"));
            steps.Add(new(Says(from, hop), Draw(range, start, [.. walked]), steps[^1].Line.Split(" = ")[0] + $" {hop:+ 0;− 0} = {to}"));
        }

        return steps;
    }

    // Small hops are walked aloud, stone by stone; a large one is one jump.
    private static string Says(int from, int hop)
    {
        var count = Math.Abs(hop);
        var way = hop > 0 ? Phrase("on") : Phrase("back");
        var words = Enumerable.Range(1, count).Select(i => NumberWords.Of(from + (Math.Sign(hop) * i)));
        return count <= 5
            ? $"{NumberWords.Capitalised(count)} {way}: {string.Join(", ", words)}."
            : $"{NumberWords.Capitalised(count)} {way}: {NumberWords.Of(from + hop)}.";
    }

    private static Picture Draw(NumberRange range, int start, IReadOnlyList<Hop> hops) =>
        range.Count <= MostStones ? NumberPath.Stones(range, hops.Count == 0 ? start : hops[^1].To, hops) : NumberPath.OpenLine(start, hops);
}
