using Fobble.Core.Evidence;

namespace Fobble.Core.Agreement;

/// <summary>One moment as one adult coded it.</summary>
/// <param name="Numbers">The case, where it was noted.</param>
public sealed record CodedMoment(int Child, int Adult, string? Numbers, Support Support);

/// <summary>
/// Which codes of two adults are of the same moment: of one child those of the same case first, in the order in which they were noted; what is left
/// in order.
/// </summary>
public static class Pairing
{
    /// <param name="moments">In order of time.</param>
    public static (IReadOnlyList<(CodedMoment First, CodedMoment Second)> Pairs, int Unpaired) Of(
        IReadOnlyList<CodedMoment> moments,
        int firstAdult,
        int secondAdult
    )
    {
        ArgumentNullException.ThrowIfNull(moments);
        List<(CodedMoment, CodedMoment)> pairs = [];
        var unpaired = 0;
        foreach (var child in moments.GroupBy(m => m.Child))
        {
            List<CodedMoment> first = [.. child.Where(m => m.Adult == firstAdult)],
                second = [.. child.Where(m => m.Adult == secondAdult)];
            foreach (var moment in first.Where(m => m.Numbers is not null).ToList())
            {
                if (second.FindIndex(m => m.Numbers == moment.Numbers) is >= 0 and var at)
                {
                    pairs.Add((moment, second[at]));
                    first.Remove(moment);
                    second.RemoveAt(at);
                }
            }

            pairs.AddRange(first.Zip(second));
            unpaired += Math.Abs(first.Count - second.Count);
        }

        return (pairs, unpaired);
    }
}
