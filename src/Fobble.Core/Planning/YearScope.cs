using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Planning;

/// <summary>What a year is planned from.</summary>
/// <param name="Evidence">The class as it stands.</param>
/// <param name="Timetable">Calendar and weekly lessons.</param>
/// <param name="From">First day that is planned.</param>
/// <param name="Until">Last day that is planned.</param>
/// <param name="Taught">Focus lessons that were given, in order of time.</param>
/// <param name="Skills">What is to be taught; what they need is added.</param>
public sealed record YearRequest(
    ClassEvidence Evidence,
    Timetable Timetable,
    DateOnly From,
    DateOnly Until,
    IReadOnlyList<TaughtLesson> Taught,
    IReadOnlySet<SkillId> Skills,
    Approach Approach,
    PlanSettings Settings
)
{
    /// <summary>Skills for which there is something to do with the whole class; null for all.</summary>
    public IReadOnlySet<SkillId>? Served { get; init; }

    /// <summary>Lessons that keep their day.</summary>
    public IReadOnlyList<PlanLesson> Pinned { get; init; } = [];

    /// <summary>Where in the year a skill was taught before, as a share from 0 to 1: last year's plan, to be followed.</summary>
    public IReadOnlyDictionary<SkillId, double>? AsBefore { get; init; }
}

/// <summary>A skill that is in the scope but needs no lessons any more.</summary>
public sealed record LeftOut(SkillId Skill, string Why);

/// <summary>How many lessons each skill needs and when it is meant: from the map, the season, the class's approach, and what this class has shown.</summary>
public sealed record YearScope(PlanProblem Problem, IReadOnlyList<LeftOut> LeftOut)
{
    /// <summary>A skill that this share of the class has gets one lesson, to see who has not.</summary>
    public const double KnownBy = WeekPlanner.KnownBy;

    /// <summary>A skill in which this share is secure gets none.</summary>
    public const double SecureWith = 0.95;

    /// <summary>A skill that is due and that fewer have, or are ready for, gets one lesson more.</summary>
    public const double FewBelow = 0.2;

    /// <summary>How many school days the approach moves a skill on signs, or on large numbers, from where its season puts it.</summary>
    private const int ApproachShift = 10;

    public static YearScope Of(YearRequest request)
    {
        ArgumentNullException.ThrowIfNull(request);
        var map = request.Evidence.Map;
        var wanted = request.Skills.Where(map.Has).SelectMany(s => map.AllNeeds(s).Append(s)).ToHashSet();
        List<LeftOut> leftOut = [];
        List<(Skill Skill, int Given, int Lessons, bool Check, string Why)> items = [];
        foreach (var skill in map.Skills.Where(s => wanted.Contains(s.Id) && request.Served?.Contains(s.Id) != false))
        {
            var (given, lessons, check, why) = LessonsFor(skill, request);
            if (lessons == 0)
            {
                leftOut.Add(new(skill.Id, why));
            }
            else
            {
                items.Add((skill, given, lessons, check, why));
            }
        }

        var planned = items.Select(i => i.Skill.Id).ToHashSet();
        var days = DaysOf(request);
        var targets = TargetsOf(items.ConvertAll(i => (i.Skill, i.Lessons)), days, request);
        List<PlanItem> laid =
        [
            .. items.Select(i => new PlanItem(
                i.Skill.Id,
                i.Skill.Strand,
                i.Given,
                i.Lessons,
                targets[i.Skill.Id].First,
                targets[i.Skill.Id].Last,
                NeedsOf(i.Skill, map, planned),
                i.Check,
                i.Why
            )),
        ];
        var index = days.Select((d, i) => (d.Day, i)).ToDictionary(p => p.Day, p => p.i);
        List<Pin> pins =
        [
            .. request
                .Pinned.Where(p => planned.Contains(p.Skill) && index.TryGetValue(p.Day, out var at) && days[at].Places > 0)
                .GroupBy(p => p.Skill)
                .SelectMany(g => g.Take(laid.First(i => i.Skill == g.Key).Lessons))
                .Select(p => new Pin(p.Skill, index[p.Day])),
        ];
        return new(new PlanProblem(days, laid, request.Settings) { Pins = pins }, leftOut);
    }

    /// <summary>The school days of the plan with the lessons that each has room for; blocks are counted from the beginning of the year, so that they stay what they are.</summary>
    public static IReadOnlyList<PlanDay> DaysOf(YearRequest request)
    {
        ArgumentNullException.ThrowIfNull(request);
        return DaysOf(request.Timetable, request.From, request.Until, request.Settings);
    }

    internal static IReadOnlyList<PlanDay> DaysOf(Timetable timetable, DateOnly from, DateOnly until, PlanSettings settings)
    {
        var calendar = timetable.Calendar;
        var began = calendar.YearBegan(from).AddDays(-1);
        return
        [
            .. calendar
                .Days(from, until)
                .Select(day =>
                {
                    var places = timetable.CarpetPlaces(day);
                    var more = settings.MoreOn.Contains(day.DayOfWeek) && calendar.Different(day) is null ? 1 : 0;
                    return new PlanDay(day, places + more, (calendar.SchoolDaysBetween(began, day) - 1) / settings.BlockDays);
                }),
        ];
    }

    // Prerequisites that are planned too; through those that are not, what they need in turn.
    private static IReadOnlyList<SkillId> NeedsOf(Skill skill, SkillMap map, HashSet<SkillId> planned)
    {
        HashSet<SkillId> found = [];
        Stack<SkillId> open = new(skill.Needs);
        while (open.TryPop(out var need))
        {
            if (planned.Contains(need))
            {
                found.Add(need);
                continue;
            }

            foreach (var further in map[need].Needs)
            {
                open.Push(further);
            }
        }

        return [.. found.Order()];
    }

    private static (int Given, int Lessons, bool Check, string Why) LessonsFor(Skill skill, YearRequest request)
    {
        var evidence = request.Evidence;
        var given = request.Taught.Where(t => t.Skill == skill.Id).ToList();
        var usual = skill.Lessons - (request.Settings.Shorter && skill.Lessons > 2 ? 1 : 0);
        var has = evidence.Share(c => evidence[c, skill.Id].Strength >= Strength.Nearly || evidence.LikelyHas(c, skill.Id));
        var percent = (int)Math.Round(100 * has);
        if (evidence.Share(c => evidence[c, skill.Id].Strength >= Strength.Secure) >= SecureWith)
        {
            return (given.Count, 0, false, Phrase("Nearly everyone is secure."));
        }

        var goesOn = given.Count > 0 && given.Count < skill.Lessons && evidence.Calendar.SchoolDaysBetween(given[^1].Day, request.From) < PlanSettings.Span - 1;
        if (goesOn)
        {
            return (
                given.Count,
                Math.Max(1, usual - given.Count),
                false,
                Phrase($"{Words.Capital(Words.Count(given.Count, "lesson was", "lessons were"))} given already.")
            );
        }

        if (has >= KnownBy)
        {
            return given.Count >= skill.Lessons
                ? (given.Count, 0, false, Phrase($"It was taught, and {percent} % have it."))
                : (given.Count, 1, true, Phrase($"{percent} % have it already: one lesson, to see who has not."));
        }

        if (given.Count >= skill.Lessons)
        {
            return has >= 0.5
                ? (given.Count, 0, false, Phrase($"It was taught, and {percent} % have it; starters and small groups look after the others."))
                : (given.Count, 1, false, Phrase($"It was taught, but only {percent} % have it: once more."));
        }

        var ready = evidence.Share(c => evidence.IsReady(c, skill.Id));
        return has + ready < FewBelow && skill.When <= evidence.Calendar.SeasonOf(request.From) && HasSeen(evidence)
            ? (0, usual + 1, false, Phrase("It is due, but few have it or are ready for it: one lesson more."))
            : (0, usual, false, "");
    }

    // Of a class that nobody has looked at, nothing can be said.
    private static bool HasSeen(ClassEvidence evidence) =>
        evidence.Share(c => evidence.Row(c).Any(m => m.Strength > Strength.NotSeen) || evidence.Map.Skills.Any(s => evidence.LikelyHas(c, s.Id))) >= 0.5;

    // Skills of a season are spread over its days in teaching order; what is late from the seasons before comes first.
    private static Dictionary<SkillId, (int First, int Last)> TargetsOf(
        List<(Skill Skill, int Lessons)> items,
        IReadOnlyList<PlanDay> days,
        YearRequest request
    )
    {
        Dictionary<SkillId, (int, int)> targets = [];
        if (days.Count == 0)
        {
            return items.ToDictionary(i => i.Skill.Id, _ => (0, 0));
        }

        var seasons = days.Select(d => request.Evidence.Calendar.SeasonOf(d.Day)).ToList();
        foreach (var group in items.GroupBy(i => Nearest(i.Skill.When, seasons)))
        {
            var (first, count) = (seasons.IndexOf(group.Key), seasons.Count(s => s == group.Key));
            var total = group.Sum(i => i.Lessons);
            var before = 0;
            foreach (var (skill, lessons) in group)
            {
                var day =
                    request.AsBefore?.TryGetValue(skill.Id, out var share) == true
                        ? (int)(share * (days.Count - 1))
                        : first + (before * count / total) + ShiftOf(skill, request.Approach);
                targets[skill.Id] = WeekOf(Math.Clamp(day, 0, days.Count - 1), days);
                before += lessons;
            }
        }

        return targets;
    }

    private static Season Nearest(Season when, List<Season> seasons) =>
        seasons.Contains(when) ? when : seasons.Where(s => s > when).DefaultIfEmpty(seasons[^1]).Min();

    private static int ShiftOf(Skill skill, Approach approach)
    {
        var weight = ApproachWeight.Of(skill, null, approach);
        return weight == 0 ? 0
            : weight > 0 ? -ApproachShift
            : ApproachShift;
    }

    private static (int First, int Last) WeekOf(int day, IReadOnlyList<PlanDay> days)
    {
        var monday = SchoolCalendar.MondayOf(days[day].Day);
        var (first, last) = (day, day);
        while (first > 0 && SchoolCalendar.MondayOf(days[first - 1].Day) == monday)
        {
            first--;
        }

        while (last < days.Count - 1 && SchoolCalendar.MondayOf(days[last + 1].Day) == monday)
        {
            last++;
        }

        return (first, last);
    }
}
