using System.Diagnostics;
using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Planning;
using Fobble.Core.Skills;

namespace Fobble.Bench;

/// <summary>A year of 38 weeks with 75 skills of the shipped map: laid out, and laid out again after lost days.</summary>
internal static class PlanningBench
{
    private const int Losses = 30;
    private const int DaysLost = 4;
    private static readonly PlanSettings Usual = PlanSettings.Usual;

    public static IEnumerable<Figure> Run()
    {
        var years = Enumerable.Range(1, 20).Select(seed => Year((ulong)seed, PlanSettings.Usual)).ToList();
        yield return new(
            "the year: days, skills, lessons, places without the buffer",
            $"{years[0].Days.Count}, {years[0].Items.Count}, {years[0].Needed}, {years[0].Room}",
            ""
        );
        _ = YearPlanner.DaysFor(years[0] with { Settings = years[0].Settings with { Steps = 1000 } });
        List<double> once = [],
            tries = [],
            whole = [],
            times = [],
            longer = [],
            alone = [],
            before = [];
        foreach (var year in years)
        {
            once.Add(Cost(year, 1, 0, 1));
            tries.Add(Cost(year, 500, 0, 1));
            var watch = Stopwatch.StartNew();
            alone.Add(Cost(year, 500, 300_000, 1));
            before.Add(watch.Elapsed.TotalMilliseconds);
            watch.Restart();
            whole.Add(Cost(year, 500, Usual.Steps, Usual.Ways));
            times.Add(watch.Elapsed.TotalMilliseconds);
        }

        // The best that is known: eight long searches of each year, and whatever the short ones found.
        foreach (var (year, i) in years.Take(5).Select((y, i) => (y, i)))
        {
            longer.Add(Math.Min(Math.Min(alone[i], whole[i]), Cost(year, 500, 3_000_000, 8)));
        }

        yield return new(
            $"plan: time, median / worst of 20 seeds: one search of 300,000 steps; {Usual.Ways} of {Usual.Steps:n0}",
            $"{Median(before):0} / {before.Max():0} ms; {Median(times):0} / {times.Max():0} ms",
            "250 ms (50 + 200)"
        );
        yield return new("cost: one pass of list scheduling, median", $"{Median(once):0}", "");
        yield return new("cost: best of 500 tries, median", $"{Median(tries):0}", "");
        yield return new(
            "cost: improved, median",
            $"{Median(whole):0} ({100 * (1 - (Median(whole) / Median(once))):0} % cheaper than one pass)",
            "20–55 % cheaper"
        );
        yield return new(
            $"cost above the best known, five years: one search of 300,000 steps; {Usual.Ways} of {Usual.Steps:n0}",
            $"{100 * ((alone.Take(5).Sum() / longer.Sum()) - 1):0.0} %; {100 * ((whole.Take(5).Sum() / longer.Sum()) - 1):0.0} %",
            "2.7 %"
        );

        // Reviews of such a year.
        var plan = YearPlanner.DaysFor(years[0]);
        List<WantedReview> wanted =
        [
            .. plan.SelectMany(
                    (own, i) =>
                        PlanSettings.Usual.Gaps.Select(
                            (gap, round) =>
                                new WantedReview(years[0].Items[i].Skill, round + 1, own[^1] + gap.Best, own[^1] + gap.Earliest, own[^1] + gap.Latest)
                        )
                )
                .Where(r => r.Earliest < years[0].Days.Count),
        ];
        var clock = Stopwatch.StartNew();
        var placed = ReviewPlanner.Plan(wanted, years[0].Days.Count, _ => 2, _ => []);
        yield return new(
            $"{wanted.Count} reviews, two a day: missed, mean days off, time",
            $"{placed.Count(p => p is null)}, {wanted.Zip(placed).Where(p => p.Second is not null).Average(p => Math.Abs(p.Second!.Value - p.First.Best)):0.00}, {clock.Elapsed.TotalMilliseconds:0} ms",
            "0, 0.04, 100 ms"
        );
        var single = ReviewPlanner.Plan(wanted, years[0].Days.Count, _ => 1, _ => []);
        yield return new("the same, one a day: missed", $"{single.Count(p => p is null)}", "about 9 of 185");

        foreach (var figure in NewClass())
        {
            yield return figure;
        }

        foreach (var figure in Again(years))
        {
            yield return figure;
        }
    }

    // Everything up to summer for a new class, cut to what fits: as full as a year can be, and four days lost in its first week.
    private static IEnumerable<Figure> NewClass()
    {
        var map = SkillMapLoader.Shipped();
        DateOnly monday = new(2026, 9, 7),
            end = new(2027, 7, 16);
        Term[] terms =
        [
            new("Autumn", Season.Autumn, monday, new(2026, 12, 18)),
            new("Spring", Season.Spring, new(2027, 1, 5), new(2027, 3, 26)),
            new("Summer", Season.Summer, new(2027, 4, 12), end),
        ];
        List<LessonSlot> slots = [.. Enumerable.Range(1, 5).Select(d => new LessonSlot(d, SlotKind.Carpet, (DayOfWeek)d, new(9, 15), 20, "", ""))];
        Timetable timetable = new(new(terms, []), slots);
        YearRequest request = new(
            new(map, timetable.Calendar, EvidenceSettings.Default, [], [], monday),
            timetable,
            monday,
            end,
            [],
            map.Skills.Where(s => s.When <= Season.Summer).Select(s => s.Id).ToHashSet(),
            Approach.Usual,
            PlanSettings.Usual
        );
        var watch = Stopwatch.StartNew();
        var ways = WaysOut.Of(request);
        var worked = ways.Select(w => WaysOut.WorkThrough(request, w)).ToList();
        yield return new(
            $"a new class's whole year, {Fit.Of(YearScope.Of(request).Problem).Over} lessons too many: {worked.Count} ways out worked through",
            $"{watch.Elapsed.TotalMilliseconds:0} ms",
            ""
        );
        request = WaysOut.Taken(request, ways[0]);
        var plan = YearPlanner.Plan(request);
        List<Closure> lost = [.. new[] { 3, 4, 7, 8 }.Select(d => new Closure("Flood", monday.AddDays(d), monday.AddDays(d)) { Kind = ClosureKind.NoLessons })];
        var setting = new Timetable(new(terms, lost), slots);
        foreach (var aim in Enum.GetValues<RevisionAim>())
        {
            watch.Restart();
            var revised = PlanRevision.Revise(new(plan, setting, map, monday, end, [], [], [], aim))!;
            yield return new(
                $"its first week loses four days, {aim}: {revised.Moves.Count} moves{(revised.ProvenFewest ? ", proven fewest" : "")}",
                $"{watch.Elapsed.TotalMilliseconds:0} ms",
                ""
            );
        }

        var first = PlanRevision
            .Revise(new(plan, setting, map, monday, end, [], [], [], RevisionAim.MoveLeast))!
            .Moves.First(m => lost.All(l => l.First != m.Was));
        watch.Restart();
        var held = PlanRevision.Revise(new(plan, setting, map, monday, end, [], [], [first.Lesson], RevisionAim.MoveLeast));
        yield return new(
            "the same with one move held back",
            $"{watch.Elapsed.TotalMilliseconds:0} ms{(held is null ? ", said to be impossible" : $", {held.Moves.Count} moves")}",
            ""
        );
    }

    private static IEnumerable<Figure> Again(IReadOnlyList<PlanProblem> years)
    {
        List<double> moved = [],
            pushed = [],
            shifted = [],
            times = [];
        var proven = 0;
        for (var trial = 0; trial < Losses; trial++)
        {
            var year = years[trial % years.Count];
            var random = new SeededRandom((ulong)trial + 500);
            var first = 10 + random.Next(120);
            var lost = Enumerable.Range(0, 1000).Select(_ => first + random.Next(10)).Distinct().Take(DaysLost).ToHashSet();
            // From the first lost day on: what was before is given.
            var after = year with { Days = [.. year.Days.Select((d, i) => lost.Contains(i) ? d with { Places = 0 } : d).Skip(first)] };
            var open = YearPlanner.DaysFor(year).SelectMany((own, item) => own.Select(day => new FreeLesson(item, day - first, day < first))).ToList();
            var watch = Stopwatch.StartNew();
            var found = Replanner.FewestMoves(after, open, DaysLost)!;
            times.Add(watch.Elapsed.TotalMilliseconds);
            proven += found.ProvenFewest ? 1 : 0;
            moved.Add(Moves(open, found.Days));
            pushed.Add(Moves(open, Replanner.Pushed(after, open)));
            shifted.Add(Moves(open, AllShifted(after, open)));
        }

        yield return new("four lost days, 30 cases: lessons moved, mean (proven fewest within reach)", $"{moved.Average():0.0} ({proven} of {Losses})", "5.7");
        yield return new("the same, each pushed only as far as needed", $"{pushed.Average():0.0}", "23.6 in the design");
        yield return new("the same, all shifted", $"{shifted.Average():0.0}", "86.5 in the design");
        yield return new("re-plan: time, median / worst", $"{Median(times):0} / {times.Max():0} ms", "0.5 / 1.5 s");
    }

    private static List<int?> AllShifted(PlanProblem problem, IReadOnlyList<FreeLesson> lessons)
    {
        var lost = problem.Days.Select((d, i) => (d, i)).Where(p => p.d.Places == 0).Select(p => p.i).ToHashSet();
        var first = lost.DefaultIfEmpty(int.MaxValue).Min();
        List<int?> days = [];
        var free = new Queue<int>(Enumerable.Range(0, problem.Days.Count).Where(d => d >= first && !lost.Contains(d)));
        foreach (var lesson in lessons.Select((l, i) => (l, i)).OrderBy(p => p.l.Was))
        {
            days.Add(
                lesson.l.Was < first ? lesson.l.Was
                : free.TryDequeue(out var day) ? day
                : null
            );
        }

        var order = lessons.Select((l, i) => (l, i)).OrderBy(p => p.l.Was).Select(p => p.i).ToList();
        return [.. Enumerable.Range(0, lessons.Count).Select(i => days[order.IndexOf(i)])];
    }

    private static int Moves(IReadOnlyList<FreeLesson> lessons, IReadOnlyList<int?> days) =>
        lessons.Zip(days).GroupBy(p => p.First.Item).Sum(own => own.Select(p => p.First.Was).Except(own.Select(p => p.Second)).Count());

    private static double Cost(PlanProblem year, int tries, int steps, int ways)
    {
        var problem = year with { Settings = year.Settings with { Tries = tries, Steps = steps, Ways = ways } };
        return YearPlanner.CostOf(problem, YearPlanner.DaysFor(problem));
    }

    private static double Median(IEnumerable<double> of)
    {
        var sorted = of.Order().ToList();
        return sorted[sorted.Count / 2];
    }

    private static PlanProblem Year(ulong seed, PlanSettings settings)
    {
        var map = SkillMapLoader.Shipped();
        var monday = new DateOnly(2026, 9, 7);
        SchoolCalendar calendar = new(
            [
                new("Autumn", Season.Autumn, monday, monday.AddDays((14 * 7) + 4)),
                new("Spring", Season.Spring, monday.AddDays(17 * 7), monday.AddDays((28 * 7) + 4)),
                new("Summer", Season.Summer, monday.AddDays(31 * 7), monday.AddDays((41 * 7) + 4)),
            ],
            []
        );
        List<LessonSlot> slots = [.. Enumerable.Range(1, 5).Select(d => new LessonSlot(d, SlotKind.Carpet, (DayOfWeek)d, new(9, 15), 20, "", ""))];

        // Seventy-five skills, down-closed, about sixteen lessons in ten of the places: every seed drops others that nothing depends on.
        var random = new SeededRandom(seed);
        var skills = map.Skills.Where(s => s.When < Season.Beyond).Select(s => s.Id).ToHashSet();
        while (skills.Count > 75)
        {
            skills.Remove(random.Pick(skills.Where(s => !map.Opens(s).Any(skills.Contains)).Order().ToList()));
        }

        ClassEvidence evidence = new(map, calendar, EvidenceSettings.Default, [], [], monday);
        var scope = YearScope.Of(
            new(evidence, new(calendar, slots), monday, monday.AddDays((41 * 7) + 4), [], skills, Approach.Usual, settings with { Seed = seed })
        );
        var shorter =
            scope.Problem.Needed > scope.Problem.Room
                ? YearScope.Of(
                    new(
                        evidence,
                        new(calendar, slots),
                        monday,
                        monday.AddDays((41 * 7) + 4),
                        [],
                        skills,
                        Approach.Usual,
                        settings with
                        {
                            Seed = seed,
                            Shorter = true,
                        }
                    )
                )
                : scope;
        return shorter.Problem;
    }
}
