using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Planning;

/// <summary>
/// Lays out the focus lessons of a year and what comes back in its starters (rule R12): many tries of list scheduling, the best improved by
/// annealing, reviews assigned exactly. The best of what was tried, never proven; the same request gives the same plan.
/// </summary>
public static class YearPlanner
{
    /// <summary>Of the children, this share due another look brings a skill back at once.</summary>
    private const double DueAgain = 0.1;

    /// <summary>School days within which what is due another look should have come back.</summary>
    private const int DueWithin = 15;

    /// <param name="progress">Told the share that is done.</param>
    /// <exception cref="OperationCanceledException">It was cancelled.</exception>
    public static YearPlan Plan(YearRequest request, IProgress<double>? progress = null, CancellationToken stop = default) =>
        Plan(request, YearScope.Of(request), progress, stop);

    public static YearPlan Plan(YearRequest request, YearScope scope, IProgress<double>? progress = null, CancellationToken stop = default)
    {
        ArgumentNullException.ThrowIfNull(request);
        ArgumentNullException.ThrowIfNull(scope);
        var grid = Lay(scope.Problem, progress, stop);
        var lessons = LessonsOf(grid, scope.Problem, request);
        var (reviews, missed) = ReviewsOf(lessons, scope.Problem.Days, request);
        var unplaced = scope
            .Problem.Items.Select((item, i) => (item, Left: grid.Left(i)))
            .Where(p => p.Left > 0)
            .ToDictionary(p => p.item.Skill.Value, p => p.Left);
        return new(request.Settings, lessons, reviews, missed, unplaced, grid.Cost());
    }

    /// <summary>Only the lessons on their days: the index of the day for each lesson of each item, in order.</summary>
    public static IReadOnlyList<IReadOnlyList<int>> DaysFor(PlanProblem problem)
    {
        var grid = Lay(problem, null, default);
        return [.. problem.Items.Select((_, i) => (IReadOnlyList<int>)[.. grid.PlacesOf(i).ToArray().Select(grid.DayOf)])];
    }

    /// <summary>What a layout costs by rule R12, wherever it comes from.</summary>
    public static int CostOf(PlanProblem problem, IReadOnlyList<IReadOnlyList<int>> days)
    {
        ArgumentNullException.ThrowIfNull(days);
        LessonGrid grid = new(problem);
        for (var item = 0; item < days.Count; item++)
        {
            foreach (var day in days[item])
            {
                grid.Put(Enumerable.Range(0, grid.Count).First(p => grid.DayOf(p) == day && grid[p] == LessonGrid.Empty), item);
            }
        }

        return grid.Cost();
    }

    internal static LessonGrid Lay(PlanProblem problem, IProgress<double>? progress, CancellationToken stop)
    {
        LessonGrid begun = new(problem);
        begun.Restore(ListScheduler.Best(begun, problem, problem.Settings.Tries, stop));

        // Each by itself from the same beginning; of those as good the first counts, so that the number of cores does not matter.
        LessonGrid[] ways = [.. Enumerable.Range(0, problem.Settings.Ways).Select(_ => begun.Twin())];
        Parallel.For(0, ways.Length, new ParallelOptions { CancellationToken = stop, MaxDegreeOfParallelism = Environment.ProcessorCount }, way =>
            Annealer.Improve(ways[way], problem, problem.Settings.Seed + 1 + (ulong)way, problem.Settings.Steps, way == 0 ? progress : null, stop)
        );
        return ways.MinBy(g => g.Cost())!;
    }

    internal static LessonStage StageOf(int number, int of, bool check) =>
        check ? LessonStage.Check
        : number == 1 ? LessonStage.Introduce
        : number == of ? LessonStage.Apply
        : LessonStage.Practise;

    /// <summary>Starters for lessons that have their days: each skill at widening gaps after its last one, what is due another look first.</summary>
    public static (IReadOnlyList<PlanReview> Reviews, IReadOnlyList<MissedReview> Missed) ReviewsOf(
        IReadOnlyList<PlanLesson> lessons,
        IReadOnlyList<PlanDay> days,
        YearRequest request,
        IReadOnlyList<PlanReview>? before = null
    )
    {
        var index = days.Select((d, i) => (d.Day, i)).ToDictionary(p => p.Day, p => p.i);
        var ends = lessons.Where(l => index.ContainsKey(l.Day)).GroupBy(l => l.Skill).ToDictionary(g => g.Key, g => index[g.Max(l => l.Day)]);
        var calendar = request.Evidence.Calendar;
        foreach (var past in request.Taught.GroupBy(t => t.Skill).Where(g => !ends.ContainsKey(g.Key) && request.Evidence.Map.Has(g.Key)))
        {
            ends[past.Key] = -calendar.SchoolDaysBetween(past.Last().Day, request.From);
        }

        List<WantedReview> wanted =
        [
            .. ends.Where(e => request.Served?.Contains(e.Key) != false)
                .OrderBy(e => e.Value)
                .ThenBy(e => e.Key)
                .SelectMany(e =>
                    request.Settings.Gaps.Select((gap, i) => new WantedReview(e.Key, i + 1, e.Value + gap.Best, e.Value + gap.Earliest, e.Value + gap.Latest))
                )
                .Where(r => r.Latest >= 0 && r.Earliest < days.Count),
        ];
        wanted.AddRange(DueNow(request));
        var old = before?.GroupBy(r => (r.Skill, r.Round)).ToDictionary(g => g.Key, g => index.TryGetValue(g.First().Day, out var at) ? at : (int?)null);
        var focus = lessons.Where(l => index.ContainsKey(l.Day)).ToLookup(l => index[l.Day], l => l.Skill);
        var chosen = ReviewPlanner.Plan(
            wanted,
            days.Count,
            day => days[day].Places > 0 ? request.Settings.StartersADay : 0,
            day => [.. focus[day]],
            old is null ? null : r => old.GetValueOrDefault((r.Skill, r.Round))
        );
        var pairs = wanted.Zip(chosen).ToList();
        return (
            [
                .. pairs
                    .Where(p => p.Second is not null)
                    .Select(p => new PlanReview(days[p.Second!.Value].Day, p.First.Skill, p.First.Round, ReasonOf(p.First, p.Second.Value, ends, request)))
                    .OrderBy(r => r.Day)
                    .ThenBy(r => r.Round)
                    .ThenBy(r => r.Skill),
            ],
            [.. pairs.Where(p => p.Second is null).Select(p => new MissedReview(p.First.Skill, p.First.Round, WhyMissed(p.First, days)))]
        );
    }

    private static IEnumerable<WantedReview> DueNow(YearRequest request)
    {
        var evidence = request.Evidence;
        var least = Math.Max(2, DueAgain * evidence.Children.Count);
        return evidence
            .Map.Skills.Where(s => request.Served?.Contains(s.Id) != false)
            .Select(s => (s.Id, Due: evidence.InDoubt(s.Id)))
            .Where(d => d.Due >= least)
            .OrderByDescending(d => d.Due)
            .ThenBy(d => d.Id)
            .Select((d, i) => new WantedReview(d.Id, 0, i / Math.Max(1, request.Settings.StartersADay), 0, DueWithin));
    }

    private static string ReasonOf(WantedReview review, int day, Dictionary<SkillId, int> ends, YearRequest request)
    {
        if (review.Round == 0)
        {
            var due = request.Evidence.InDoubt(review.Skill);
            return Phrase($"{Words.Capital(Words.Count(due, "child is", "children are"))} due another look.");
        }

        return Phrase(
            $"Its last lesson was {Words.Count(day - ends[review.Skill], "school day", "school days")} before: brought back for the {Ordinal(review.Round)} time."
        );
    }

    private static string Ordinal(int round) =>
        round switch
        {
            1 => Phrase("first"),
            2 => Phrase("second"),
            3 => Phrase("third"),
            _ => $"{round}th",
        };

    private static string WhyMissed(WantedReview review, IReadOnlyList<PlanDay> days)
    {
        var window = Enumerable
            .Range(Math.Max(0, review.Earliest), Math.Max(0, Math.Min(days.Count - 1, review.Latest) - Math.Max(0, review.Earliest) + 1))
            .ToList();
        return window.All(d => days[d].Places == 0)
            ? Phrase("There is no lesson in the days when it should come back.")
            : Phrase("The starters of the days when it should come back are taken.");
    }

    private static List<PlanLesson> LessonsOf(LessonGrid grid, PlanProblem problem, YearRequest request)
    {
        List<PlanLesson> lessons = [];
        var dayOf = problem
            .Items.Select((item, i) => (item.Skill, Days: grid.PlacesOf(i).ToArray().Select(grid.DayOf).ToList()))
            .ToDictionary(p => p.Skill, p => p.Days);
        for (var i = 0; i < problem.Items.Count; i++)
        {
            var item = problem.Items[i];
            var places = grid.PlacesOf(i);
            for (var k = 0; k < places.Length; k++)
            {
                var day = grid.DayOf(places[k]);
                var place = 0;
                for (var p = places[k] - 1; p >= 0 && grid.DayOf(p) == day; p--)
                {
                    place++;
                }

                var (number, of) = (item.Given + k + 1, item.Given + item.Lessons);
                var pinned = request.Pinned.FirstOrDefault(p => p.Skill == item.Skill && p.Day == problem.Days[day].Day);
                lessons.Add(
                    new(
                        problem.Days[day].Day,
                        place,
                        item.Skill,
                        number,
                        of,
                        StageOf(number, of, item.Check),
                        k == 0
                            ? FirstReason(item, day, problem, dayOf, request)
                            : Phrase($"Carries on from {Words.Date(problem.Days[grid.DayOf(places[k - 1])].Day)}.")
                    )
                    {
                        Pinned = pinned is not null,
                        Note = pinned?.Note ?? "",
                    }
                );
            }
        }

        return [.. lessons.OrderBy(l => l.Day).ThenBy(l => l.Place)];
    }

    private static string FirstReason(PlanItem item, int day, PlanProblem problem, Dictionary<SkillId, List<int>> dayOf, YearRequest request)
    {
        var map = request.Evidence.Map;
        var off = day < item.TargetFirst ? item.TargetFirst - day : Math.Max(0, day - item.TargetLast);
        var season = request.AsBefore?.ContainsKey(item.Skill) == true ? Phrase("last year’s plan") : Phrase("its season");
        var when =
            off == 0
                ? ""
                : Phrase(
                    $"{Words.Capital(Words.Count(off, "school day", "school days"))} {(day < item.TargetFirst ? "earlier" : "later")} than {season} would have it. "
                );
        var last = item.Needs.Where(n => dayOf[n].Count > 0).OrderByDescending(n => dayOf[n][^1]).FirstOrDefault();
        var after =
            last == default
                ? (map[item.Skill].Needs.Count == 0 ? Phrase("It needs nothing before it.") : Phrase("What it needs is in place."))
                : Phrase($"What it needs last, {map[last].InSentence}, is finished on {Words.Date(problem.Days[dayOf[last][^1]].Day)}.");
        return $"{(item.Why.Length > 0 ? item.Why + " " : "")}{when}{after}";
    }
}
