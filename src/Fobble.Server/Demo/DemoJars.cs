using Fobble.Core.Calendars;
using Fobble.Core.GuessJar;
using Fobble.Core.Numbers;
using Fobble.Data.Model;

namespace Fobble.Server.Demo;

/// <summary>Five weeks of a made-up class's guess jar, and the one that stands out now.</summary>
internal static class DemoJars
{
    private static readonly int[] Amounts = [12, 17, 22, 27, 32];

    public static IEnumerable<JarRoundRow> For(int classId, IReadOnlyList<int> children, DateOnly today, SchoolCalendar calendar, SeededRandom random)
    {
        // Each child has a lean of their own, which grows smaller from jar to jar.
        var leans = children.ToDictionary(c => c, _ => random.NextNormal() * 0.45);
        var monday = SchoolCalendar.MondayOf(today);
        for (var week = 0; week < Amounts.Length; week++)
        {
            var begins = monday.AddDays(7 * (week - Amounts.Length));
            if (calendar.OnOrAfter(begins) is not { } filled || filled >= begins.AddDays(7))
            {
                continue;
            }

            var round = Filled(classId, Amounts[week], filled);
            (round.Opened, round.Counted) = (filled.AddDays(4), Amounts[week]);
            round.Guesses.AddRange(children.Where(_ => random.Chance(0.9)).Select(c => Guess(c, Amounts[week], leans[c] * (1 - (0.12 * week)), random)));
            yield return round;
        }

        var now = Filled(classId, 37, monday <= today ? monday : today);
        now.Guesses.AddRange(children.Take(children.Count / 3).Select(c => Guess(c, 37, leans[c] * 0.4, random)));
        yield return now;
    }

    private static JarRoundRow Filled(int classId, int amount, DateOnly day) =>
        new()
        {
            ClassId = classId,
            Jar = "tall jar",
            JarMl = 1000,
            Things = "wooden beads",
            Shape = ThingShape.Ball,
            AcrossMm = 20,
            ThickMm = 20,
            Amount = amount,
            Filled = day,
        };

    private static JarGuessRow Guess(int child, int amount, double lean, SeededRandom random) =>
        new() { ChildId = child, Guess = Math.Max(2, (int)Math.Round(amount * (1 + lean + (random.NextNormal() * 0.12)))) };
}
