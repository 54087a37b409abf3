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
/// Guess, slip and learning by a class's own record and its school's (rule R10): the numbers by which the first two thirds of its school days are foreseen best,
/// day by day, drawn strongly towards those that foresee the school's other classes best, as these are towards the usual ones. Taken only if they foresee the
/// class's last third better than the usual ones do.
/// </summary>
public static class OwnNumbersFit
{
    /// <summary>Observations, the school's with them, below which nothing is said: fewer tell one number from another only by luck.</summary>
    public const int Fewest = 600;

    /// <summary>Observations of the class itself below which nothing is said, however many the school has: a third of them is what numbers are held against.</summary>
    public const int FewestOwn = 200;

    /// <summary>What was seen in the school's other classes counts for so many days.</summary>
    public const int DaysElsewhere = 365;

    /// <summary>What it costs to move a number to its double or half, in nats of all that was seen: the prior.</summary>
    private const double CostOfDoubling = 12;

    /// <summary>So many standard errors, over children, the gain has to lie above nothing.</summary>
    private const double Surely = 2;
    private const int Rounds = 2;

    // Steps on both sides of the number to begin from, as factors, and what no number can pass.
    private static readonly double[] Steps = [0.3, 0.5, 0.7, 1, 1.4, 2, 3, 4.5];
    private const double Most = 0.45;

    /// <param name="observations">The class's, none withdrawn, in order of time.</param>
    /// <param name="elsewhere">Those of the school's other classes, the same way.</param>
    /// <param name="settings">By what it is judged without numbers of its own.</param>
    public static OwnNumbersFound Of(
        SkillMap map,
        SchoolCalendar calendar,
        EvidenceSettings settings,
        IReadOnlyList<Observation> observations,
        IReadOnlyList<Observation> elsewhere,
        CancellationToken stop = default
    )
    {
        ArgumentNullException.ThrowIfNull(map);
        ArgumentNullException.ThrowIfNull(settings);
        ArgumentNullException.ThrowIfNull(observations);
        ArgumentNullException.ThrowIfNull(elsewhere);
        if (observations.Count < FewestOwn || observations.Count + elsewhere.Count < Fewest)
        {
            return new(null, 0, 0, 0, false, [TooFew(observations.Count, elsewhere.Count)]);
        }

        List<DateOnly> days = [.. observations.Select(o => o.Day).Distinct().Order()];
        var cut = days[days.Count * 2 / 3];
        var from = days[^1].AddDays(-DaysElsewhere);
        var together = SkillsTogether.Of(map, settings.Together);
        var usual = settings.Numbers;
        List<Observation> others = [.. elsewhere.Where(o => o.Day > from)];
        var school = others.Count >= Fewest ? Fit(usual, ByChild(others), null) : usual;
        var own = ByChild(observations);
        return Held(Fit(school, own, cut));

        // One number after the other, a step up or down from where it begins as long as what was seen before the cut is foreseen better.
        OwnNumbers Fit(OwnNumbers begin, List<List<Observation>> children, DateOnly? until)
        {
            Func<OwnNumbers, double, OwnNumbers>[] numbers =
            [
                (n, f) => n with { Guess = Math.Min(Most, begin.Guess * f) },
                (n, f) => n with { Slip = Math.Min(Most, begin.Slip * f) },
                (n, f) => n with { Learning = Math.Min(Most, begin.Learning * f) },
            ];
            var (best, least, changed) = (begin, Cost(begin), true);
            var at = numbers.Select(_ => Array.IndexOf(Steps, 1)).ToArray();
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

            return best;

            double Cost(OwnNumbers tried) =>
                Surprise(children, tried, until).Sum(c => c.First)
                + (CostOfDoubling * (Doublings(tried.Guess, begin.Guess) + Doublings(tried.Slip, begin.Slip) + Doublings(tried.Learning, begin.Learning)));
        }

        // How little each child's observations were foreseen, in nats: those before the cut, those from it on, and how many these are.
        List<(double First, double Last, int Count)> Surprise(List<List<Observation>> children, OwnNumbers numbers, DateOnly? until)
        {
            var by = settings.By(numbers);
            List<(double, double, int)> all = [];
            foreach (var child in children)
            {
                stop.ThrowIfCancellationRequested();
                var (first, last, count) = (0.0, 0.0, 0);
                _ = new ChildRecord(map, together, calendar, by, child, foreseen: (o, chance) =>
                {
                    var nats = -Math.Log(o.Counted(map[o.Skill]) == Support.Alone ? chance : 1 - chance);
                    if (until is null || o.Day < until)
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
            var (old, now) = (Surprise(own, usual, cut), Surprise(own, numbers, cut));
            var seen = old.Sum(c => c.Count);
            List<double> gains = [.. old.Zip(now, (o, n) => o.Last - n.Last)];
            var error = Math.Sqrt(gains.Count * gains.Sum(g => Math.Pow(g - gains.Average(), 2)) / Math.Max(1, gains.Count - 1));
            var better = numbers != usual && gains.Sum() > Surely * error;
            var (before, after) = (Math.Exp(-old.Sum(c => c.Last) / Math.Max(1, seen)), Math.Exp(-now.Sum(c => c.Last) / Math.Max(1, seen)));
            return new(numbers, seen, before, after, better, InWords(usual, numbers, school == usual ? 0 : others.Count, seen, before, after, better));
        }
    }

    private static List<List<Observation>> ByChild(IReadOnlyList<Observation> observations) => [.. observations.GroupBy(o => o.Child).Select(g => g.ToList())];

    private static string TooFew(int own, int elsewhere)
    {
        var here = Phrase($"{Words.Count(own, "observation is", "observations are")} on record");
        return elsewhere == 0
            ? Phrase($"{Words.Capital(here)}; from {Fewest} on it can be told whether other numbers fit this class better.")
            : Phrase(
                $"{Words.Capital(here)}, and {elsewhere} in the school’s other classes; from {FewestOwn} here and {Fewest} in all on it can be told whether other numbers fit this class better."
            );
    }

    private static double Doublings(double one, double other) => Math.Pow(Math.Log2(one / other), 2);

    private static IReadOnlyList<string> InWords(OwnNumbers usual, OwnNumbers own, int others, int seen, double before, double after, bool better) =>
        own == usual
            ? [Phrase("The usual numbers fit this class’s record as well as any.")]
            :
            [
                Phrase(
                    $"Of a hundred times that a child who does not have a skill is watched with it, {Of(own.Guess)} look as if it had it ({Of(usual.Guess)} is usual)."
                ),
                Phrase($"Of a hundred times that a child who has it is watched, it does not show in {Of(own.Slip)} ({Of(usual.Slip)} is usual)."),
                Phrase($"Of a hundred children who are taught it once, {Of(own.Learning)} learn it there and then ({Of(usual.Learning)} is usual)."),
                .. others == 0
                    ? (IReadOnlyList<string>)[]
                    :
                    [
                        Phrase(
                            $"What was seen in the school’s other classes ({others} observations in a year) counts in them too, less than what was seen here."
                        ),
                    ],
                Phrase(
                    $"Held against the {Words.Count(seen, "observation", "observations")} of the last third of its days, by which they were not chosen, these numbers gave what was seen a chance of {Share(after)}, the usual ones {Share(before)}."
                ),
                better ? Phrase("They foresee this class better than the usual ones do.")
                : after > before ? Phrase("That is no more than chance could do: the usual numbers stay.")
                : Phrase("They foresee this class no better: the usual numbers stay."),
            ];

    private static int Of(double share) => (int)Math.Round(100 * share);

    private static string Share(double share) => $"{(100 * share).ToString("0.0", System.Globalization.CultureInfo.InvariantCulture)} %";
}
