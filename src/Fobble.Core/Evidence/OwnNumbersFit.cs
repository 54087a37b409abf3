using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>What a class's record says of the numbers it is judged by.</summary>
/// <param name="Numbers">The class's own; null where too little was seen.</param>
/// <param name="Seen">Observations that they were held against, none of which they were fitted to.</param>
/// <param name="Usual">The chance that the usual numbers gave to what was seen in them (geometric mean), 0 to 1.</param>
/// <param name="Own">The chance that the class's own gave to it.</param>
/// <param name="Better">They foresee better by more than chance would have it.</param>
/// <param name="Sentences">In words.</param>
public sealed record OwnNumbersFound(OwnNumbers? Numbers, int Seen, double Usual, double Own, bool Better, IReadOnlyList<string> Sentences);

/// <summary>
/// Guess, slip and learning by a class's own record (rule R10): the numbers by which the first two thirds of its school days are foreseen best, day by day, drawn
/// strongly towards the usual ones, and taken only if they foresee the last third better than these.
/// </summary>
public static class OwnNumbersFit
{
    /// <summary>Observations below which nothing is said: half of them on either side of the cut tell one number from another only by luck.</summary>
    public const int Fewest = 600;

    /// <summary>What it costs to move a number to its double or half, in nats of all that was seen: the prior.</summary>
    private const double CostOfDoubling = 12;

    /// <summary>So many standard errors, over children, the gain has to lie above nothing.</summary>
    private const double Surely = 2;
    private const int Rounds = 2;

    // Steps on both sides of the usual number, as factors.
    private static readonly double[] Steps = [0.3, 0.5, 0.7, 1, 1.4, 2, 3, 4.5];

    /// <param name="observations">The class's, none withdrawn, in order of time.</param>
    /// <param name="settings">By what it is judged without numbers of its own.</param>
    public static OwnNumbersFound Of(
        SkillMap map,
        SchoolCalendar calendar,
        EvidenceSettings settings,
        IReadOnlyList<Observation> observations,
        CancellationToken stop = default
    )
    {
        ArgumentNullException.ThrowIfNull(map);
        ArgumentNullException.ThrowIfNull(settings);
        ArgumentNullException.ThrowIfNull(observations);
        if (observations.Count < Fewest)
        {
            return new(
                null,
                0,
                0,
                0,
                false,
                [$"{observations.Count} observations are on record; from {Fewest} on it can be told whether other numbers fit this class better."]
            );
        }

        List<DateOnly> days = [.. observations.Select(o => o.Day).Distinct().Order()];
        var cut = days[days.Count * 2 / 3];
        var together = SkillsTogether.Of(map, settings.Together);
        var byChild = observations.GroupBy(o => o.Child).ToList();
        var usual = settings.Numbers;
        Func<OwnNumbers, double, OwnNumbers>[] numbers =
        [
            (n, f) => n with { Guess = usual.Guess * f },
            (n, f) => n with { Slip = usual.Slip * f },
            (n, f) => n with { Learning = usual.Learning * f },
        ];
        var (best, least, changed) = (usual, Cost(usual), true);
        var at = numbers.Select(_ => Array.IndexOf(Steps, 1)).ToArray();

        // One number after the other, a step up or down as long as that is foreseen better.
        for (var round = 0; round < Rounds && changed; round++)
        {
            changed = false;
            for (var i = 0; i < numbers.Length; i++)
            {
                foreach (var way in (int[])[1, -1])
                {
                    while (
                        at[i] + way is var next
                        && next >= 0
                        && next < Steps.Length
                        && numbers[i](best, Steps[next]) is var other
                        && Cost(other) is var cost
                        && cost < least
                    )
                    {
                        (best, least, at[i], changed) = (other, cost, next, true);
                    }
                }
            }
        }

        return Held(best);

        double Cost(OwnNumbers numbers) =>
            Surprise(numbers).Sum(c => c.First)
            + (CostOfDoubling * (Doublings(numbers.Guess, usual.Guess) + Doublings(numbers.Slip, usual.Slip) + Doublings(numbers.Learning, usual.Learning)));

        // How little each child's observations were foreseen, in nats: those before the cut, those from it on, and how many these are.
        List<(double First, double Last, int Count)> Surprise(OwnNumbers numbers)
        {
            var own = settings.By(numbers);
            List<(double, double, int)> all = [];
            foreach (var child in byChild)
            {
                stop.ThrowIfCancellationRequested();
                var (first, last, count) = (0.0, 0.0, 0);
                _ = new ChildRecord(map, together, calendar, own, child, foreseen: (o, chance) =>
                {
                    var nats = -Math.Log(o.Counted(map[o.Skill]) == Support.Alone ? chance : 1 - chance);
                    if (o.Day < cut)
                    {
                        first += nats;
                    }
                    else
                    {
                        (last, count) = (last + nats, count + 1);
                    }
                });
                all.Add((first, last, count));
            }

            return all;
        }

        OwnNumbersFound Held(OwnNumbers numbers)
        {
            var (old, own) = (Surprise(usual), Surprise(numbers));
            var seen = old.Sum(c => c.Count);
            List<double> gains = [.. old.Zip(own, (o, n) => o.Last - n.Last)];
            var error = Math.Sqrt(gains.Count * gains.Sum(g => Math.Pow(g - gains.Average(), 2)) / Math.Max(1, gains.Count - 1));
            var better = numbers != usual && gains.Sum() > Surely * error;
            var (before, after) = (Math.Exp(-old.Sum(c => c.Last) / Math.Max(1, seen)), Math.Exp(-own.Sum(c => c.Last) / Math.Max(1, seen)));
            return new(numbers, seen, before, after, better, InWords(usual, numbers, seen, before, after, better));
        }
    }

    private static double Doublings(double one, double other) => Math.Pow(Math.Log2(one / other), 2);

    private static IReadOnlyList<string> InWords(OwnNumbers usual, OwnNumbers own, int seen, double before, double after, bool better) =>
        own == usual
            ? ["The usual numbers fit this class’s record as well as any."]
            :
            [
                $"Of a hundred times that a child who does not have a skill is watched with it, {Of(own.Guess)} look as if it had it ({Of(usual.Guess)} is usual).",
                $"Of a hundred times that a child who has it is watched, it does not show in {Of(own.Slip)} ({Of(usual.Slip)} is usual).",
                $"Of a hundred children who are taught it once, {Of(own.Learning)} learn it there and then ({Of(usual.Learning)} is usual).",
                $"Held against the {Words.Count(seen, "observation", "observations")} of the last third of its days, by which they were not chosen, these numbers gave what was seen a chance of {Share(after)}, the usual ones {Share(before)}.",
                better ? "They foresee this class better than the usual ones do."
                : after > before ? "That is no more than chance could do: the usual numbers stay."
                : "They foresee this class no better: the usual numbers stay.",
            ];

    private static int Of(double share) => (int)Math.Round(100 * share);

    private static string Share(double share) => $"{(100 * share).ToString("0.0", System.Globalization.CultureInfo.InvariantCulture)} %";
}
