using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Core.Standards;

namespace Fobble.Core.Planning;

/// <summary>Whether what is to be taught goes into the days there are.</summary>
/// <param name="Lessons">Focus lessons needed.</param>
/// <param name="Room">Places for them, the buffer left out.</param>
/// <param name="Buffer">Places kept free.</param>
/// <param name="Reviews">Starters wanted.</param>
/// <param name="ReviewRoom">Starters the days have room for.</param>
public sealed record Fit(int Lessons, int Room, int Buffer, int Reviews, int ReviewRoom, string Sentence)
{
    /// <summary>Lessons too many; 0 where it fits.</summary>
    public int Over => Math.Max(0, Lessons - Room);

    /// <summary>Starters too many; 0 where they fit.</summary>
    public int ReviewsOver => Math.Max(0, Reviews - ReviewRoom);

    public bool Fits => Over == 0 && ReviewsOver == 0;

    /// <summary>Counted before any search.</summary>
    public static Fit Of(PlanProblem problem)
    {
        ArgumentNullException.ThrowIfNull(problem);
        var places = problem.Days.Sum(d => d.Places);
        var teaching = problem.Days.Count(d => d.Places > 0);
        var (lessons, room) = (problem.Needed, problem.Room);
        var (reviews, reviewRoom) = (problem.Items.Count * problem.Settings.Gaps.Count, teaching * problem.Settings.StartersADay);
        var buffer = places - room;
        var over = Math.Max(0, lessons - room);
        var all = Phrase(
            $"{Words.Capital(Words.Count(lessons, "focus lesson is", "focus lessons are"))} needed; {teaching} teaching days have room for {room}{(buffer > 0 ? $", with {Words.Count(buffer, "place", "places")} kept free for what comes in between" : "")}."
        );
        var sentence =
            over > 0 ? Phrase($"It does not fit: {Words.Count(over, "lesson", "lessons")} too many. {all}")
            : reviews > reviewRoom
                ? Phrase(
                    $"The lessons fit; {Words.Count(reviews - reviewRoom, "starter", "starters")} too many to bring every skill back {Words.Times(problem.Settings.Gaps.Count)}. {all}"
                )
            : Phrase($"It fits, with {(room == lessons ? "no place" : Words.Count(room - lessons, "place", "places"))} to spare. {all}");
        return new(lessons, room, buffer, reviews, reviewRoom, sentence);
    }
}

/// <summary>A way to make it fit.</summary>
/// <param name="Kind">What is given up, in one word for the client.</param>
/// <param name="Title">What it does.</param>
/// <param name="Loses">What it costs, in a sentence.</param>
/// <param name="Dropped">Skills left for another year.</param>
public sealed record WayOut(string Kind, string Title, string Loses, PlanSettings Settings, IReadOnlyList<SkillId> Dropped);

/// <summary>A way out that was worked through: the plan it leads to.</summary>
public sealed record WorkedWayOut(WayOut Way, Fit Fit, YearPlan Plan, string Gains);

/// <summary>The cheapest ways to make a scope fit: fewer skills, one more lesson a week, shorter lessons, less buffer, fewer reviews.</summary>
public static class WaysOut
{
    private static readonly DayOfWeek[] ByPreference = [DayOfWeek.Tuesday, DayOfWeek.Thursday, DayOfWeek.Wednesday, DayOfWeek.Monday, DayOfWeek.Friday];

    // A way out is worked through to be compared, not to be kept: a tenth of the usual steps.
    private const int StepsToCompare = 30_000;
    private const int TriesToCompare = 60;

    /// <summary>What could be done; each leads to a scope that fits. Empty where it fits already.</summary>
    public static IReadOnlyList<WayOut> Of(YearRequest request)
    {
        ArgumentNullException.ThrowIfNull(request);
        var scope = YearScope.Of(request);
        var fit = Fit.Of(scope.Problem);
        List<WayOut> ways = [];
        if (fit.Over > 0)
        {
            Add("drop", Phrase("Leave skills for another year"), request.Settings, "");
            for (var more = 1; more <= 5; more++)
            {
                var settings = request.Settings with { MoreOn = MoreDays(request, more) };
                var open = Fit.Of(YearScope.Of(request with { Settings = settings }).Problem).Over;
                if (more == 1 || open == 0)
                {
                    var days = Words.List([.. settings.MoreOn.Except(request.Settings.MoreOn).Select(d => $"{d}s")]);
                    Add(
                        more == 1 ? "one-more" : "more",
                        Phrase($"{Words.Capital(Words.More(more, "lesson", "lessons"))} a week"),
                        settings,
                        Phrase($"A second carpet time on {days}. ")
                    );
                }

                if (open == 0)
                {
                    break;
                }
            }

            Add(
                "shorter",
                Phrase("One lesson less for each skill that has three or more"),
                request.Settings with
                {
                    Shorter = true,
                },
                Phrase("Less time to practise each. ")
            );
            Add(
                "buffer",
                Phrase("Half the buffer"),
                request.Settings with
                {
                    BufferOneIn = request.Settings.BufferOneIn == 0 ? 0 : request.Settings.BufferOneIn * 2,
                },
                Phrase("Less is free when days are lost. ")
            );
        }

        if (fit.ReviewsOver > 0 && request.Settings.Gaps.Count > 1)
        {
            Add(
                "reviews",
                Phrase("Bring each skill back once less"),
                request.Settings with
                {
                    Gaps = [.. request.Settings.Gaps.Take(request.Settings.Gaps.Count - 1)],
                },
                Phrase("What was learned is looked at for the last time sooner. ")
            );
        }

        return [.. ways.DistinctBy(w => (w.Kind, w.Dropped.Count))];

        void Add(string kind, string title, PlanSettings settings, string loses)
        {
            var dropped = Drop(request with { Settings = settings });
            if (
                kind != "drop"
                && (settings == request.Settings || (ways.FirstOrDefault(w => w.Kind == "drop") is { } plain && plain.Dropped.Count <= dropped.Count))
            )
            {
                // It gains nothing.
                return;
            }

            var map = request.Evidence.Map;
            var lost =
                dropped.Count == 0
                    ? ""
                    : Phrase(
                        $"{Words.Capital(Words.Count(dropped.Count, "skill", "skills"))} {(dropped.Count == 1 ? "waits" : "wait")} for another year, from {map[dropped[^1]].InSentence} on.{Unreached(dropped, request)}"
                    );
            ways.Add(
                new(
                    kind,
                    dropped.Count == 0 || kind == "drop" ? title : Phrase($"{title}, and {Words.Count(dropped.Count, "skill", "skills")} less"),
                    (loses + lost).Trim(),
                    settings,
                    dropped
                )
            );
        }
    }

    /// <summary>The request with a way out taken.</summary>
    public static YearRequest Taken(YearRequest request, WayOut way)
    {
        ArgumentNullException.ThrowIfNull(request);
        ArgumentNullException.ThrowIfNull(way);
        return request with
        {
            Settings = way.Settings,
            Skills = request.Skills.SelectMany(s => request.Evidence.Map.AllNeeds(s).Append(s)).Except(way.Dropped).ToHashSet(),
        };
    }

    /// <summary>A way out with the plan it leads to, so that ways can be compared by what comes of them.</summary>
    public static WorkedWayOut WorkThrough(YearRequest request, WayOut way, CancellationToken stop = default)
    {
        ArgumentNullException.ThrowIfNull(request);
        var taken = Taken(request, way);
        var scope = YearScope.Of(taken with { Settings = taken.Settings with { Steps = StepsToCompare, Tries = TriesToCompare } });
        var plan = YearPlanner.Plan(taken, scope, null, stop);
        var index = scope.Problem.Days.Select((d, i) => (d.Day, i)).ToDictionary(p => p.Day, p => p.i);
        var late = scope.Problem.Items.Count(i =>
            plan.Lessons.FirstOrDefault(l => l.Skill == i.Skill) is { } first && index[first.Day] > i.TargetLast + PlanSettings.Span
        );
        var ends = plan.Lessons.Count == 0 ? "" : Phrase($", the last on {Words.Date(plan.Lessons[^1].Day)}");
        var unplaced =
            plan.Unplaced.Count == 0 ? "" : Phrase($" {Words.Capital(Words.Count(plan.Unplaced.Values.Sum(), "lesson", "lessons"))} found no place.");
        return new(
            way,
            Fit.Of(scope.Problem),
            plan,
            Phrase(
                $"{scope.Problem.Items.Count} skills in {plan.Lessons.Count} lessons{ends}; {(late == 0 ? "none" : Words.Number(late))} more than two weeks after {(late == 1 ? "its" : "their")} season’s week.{unplaced}"
            )
        );
    }

    // Of the skills that nothing else in the scope builds on, one that need not be kept, then the one meant for latest, until what is left fits.
    internal static List<SkillId> Drop(YearRequest request, IReadOnlySet<SkillId>? toKeep = null)
    {
        var map = request.Evidence.Map;
        var scope = YearScope.Of(request);
        var over = Fit.Of(scope.Problem).Over;
        var left = scope.Problem.Items.ToList();
        var pinned = request.Pinned.Select(p => p.Skill).ToHashSet();
        List<SkillId> dropped = [];
        while (
            over > 0
            && left.Where(i => i.Given == 0 && !pinned.Contains(i.Skill) && !left.Any(o => o.Needs.Contains(i.Skill)))
                .MaxBy(i => (toKeep?.Contains(i.Skill) == false, i.TargetFirst, map.IndexOf(i.Skill)))
                is { } last
        )
        {
            left.Remove(last);
            dropped.Add(last.Skill);
            over -= last.Lessons;
        }

        return dropped;
    }

    private static string Unreached(IReadOnlyList<SkillId> dropped, YearRequest request)
    {
        var map = request.Evidence.Map;
        var kept = request.Skills.SelectMany(s => map.AllNeeds(s).Append(s)).Except(dropped).SelectMany(s => map[s].Standards).ToHashSet();
        var codes = dropped.SelectMany(s => map[s].Standards).Distinct().Where(c => !kept.Contains(c) && Standard(c)).Order(StringComparer.Ordinal).ToList();
        return codes.Count == 0
            ? ""
            : Phrase(
                $" {(codes.Count == 1 ? "One standard is" : $"{Words.Capital(Words.Number(codes.Count))} standards are")} not reached: {Words.List([.. codes.Take(5), .. codes.Count > 5 ? ["others"] : Array.Empty<string>()])}."
            );

        static bool Standard(string code) => Framework.Find(code) is not null;
    }

    private static List<DayOfWeek> MoreDays(YearRequest request, int more) =>
        [.. request.Settings.MoreOn.Concat(ByPreference.Except(request.Settings.MoreOn).OrderBy(d => PlacesOn(request, d)).Take(more)).Order()];

    private static int PlacesOn(YearRequest request, DayOfWeek weekday)
    {
        var day = request
            .Timetable.Calendar.Days(request.From, request.Until)
            .FirstOrDefault(d => d.DayOfWeek == weekday && request.Timetable.Calendar.Different(d) is null);
        return day == default ? int.MaxValue : request.Timetable.CarpetPlaces(day);
    }
}
