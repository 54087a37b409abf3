using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.MadeUpClass;
using Fobble.Core.Skills;

namespace Fobble.Bench;

/// <summary>
/// Judgement by what a school can see too: how well the next observation is foreseen, beside yardsticks, on classes of several worlds. What is fitted is fitted on
/// other classes of the first and the third world only; the others are new to everything.
/// </summary>
internal static class WorldsBench
{
    private const int Classes = 3;
    private const int Children = 24;
    private const int Weeks = 12;
    private static readonly DateOnly First = new(2026, 9, 7);
    private static readonly SkillMap Map = SkillMapLoader.Shipped();
    private static readonly ActivityLibrary Library = ActivityLoader.Shipped(Map);
    private static readonly SchoolCalendar Calendar = new([new("Autumn", Season.Autumn, First, First.AddDays(150))], []);
    private static readonly ChildId[] Ids = [.. Enumerable.Range(1, Children).Select(i => new ChildId(i))];

    public static IEnumerable<Figure> Run()
    {
        var fitted = ((MadeUpWorld[])[MadeUpWorld.All[0], MadeUpWorld.All[2]]).SelectMany(w => Play(w, 101).Select(h => h.Observations)).ToList();
        Yardstick[] yardsticks =
        [
            new("last outcome", () => new LastOutcome()),
            new("running mean", () => new Share(null)),
            new("beta-binomial, half-life 45 days", () => new Share(45)),
            FittedTracing.Fitted(fitted),
            PerformanceFactors.Fitted(fitted),
            new("Fobble before", () => new EachAloneForecast(Map, Calendar)),
            new("Fobble now", () => new TogetherForecast(Map, Calendar, EvidenceSettings.Default)),
        ];
        foreach (var world in MadeUpWorld.All)
        {
            var classes = Play(world, 1).Select(h => h.Observations).ToList();
            var figures = yardsticks.Select(y => $"{y.Name} {Forecasts.Of(y, classes)}");
            yield return new(
                $"{world.Name}: next observation alone or not, {classes.Sum(c => c.Count):n0} of them: log loss / Brier / AUC / ECE",
                string.Join("; ", figures)
            );
        }
    }

    private static IEnumerable<History> Play(MadeUpWorld world, int seed) =>
        Enumerable
            .Range(seed, Classes)
            .Select(s =>
                MadeUpHistory.Play(
                    new(Map, Library, Calendar, Ids, First, new DateTimeOffset(First.AddDays(7 * Weeks).ToDateTime(new(7, 0)), TimeSpan.Zero), 2, (ulong)s)
                    {
                        World = world,
                    }
                )
            );
}
