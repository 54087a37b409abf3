using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Core.Skills;

namespace Fobble.Server.Features.Planning;

/// <summary>Puts plans into the records that are sent.</summary>
internal static class PlanViews
{
    public static LessonView Of(PlanLesson lesson, SkillMap map, Approach approach, DateOnly from)
    {
        var skill = map[lesson.Skill];
        return new(
            skill.Id.Value,
            skill.Short,
            skill.Strand,
            lesson.Number,
            lesson.Of,
            lesson.Stage,
            StageWords.Of(lesson.Stage, skill, approach),
            lesson.Day,
            lesson.Place,
            lesson.Reason,
            lesson.Pinned,
            lesson.Note,
            lesson.Day < from,
            false
        );
    }

    /// <summary>Every lesson of a plan, in the order of the plan; what the map does not know any more is left out.</summary>
    public static IReadOnlyList<LessonView> Of(IEnumerable<PlanLesson> lessons, SkillMap map, Approach approach, DateOnly from) =>
        [.. lessons.Where(l => map.Has(l.Skill)).Select(l => Of(l, map, approach, from))];

    /// <summary>Lessons that were given before there was a plan for their day.</summary>
    public static IEnumerable<LessonView> Given(IReadOnlyList<TaughtLesson> taught, SkillMap map, IReadOnlySet<(DateOnly Day, string Skill)> shown)
    {
        Dictionary<SkillId, int> number = [];
        foreach (var lesson in taught.Where(t => map.Has(t.Skill)))
        {
            var skill = map[lesson.Skill];
            var so = number[lesson.Skill] = number.GetValueOrDefault(lesson.Skill) + 1;
            if (!shown.Contains((lesson.Day, skill.Id.Value)))
            {
                yield return new(
                    skill.Id.Value,
                    skill.Short,
                    skill.Strand,
                    so,
                    Math.Max(so, skill.Lessons),
                    LessonStage.Practise,
                    "",
                    lesson.Day,
                    0,
                    "",
                    false,
                    "",
                    true,
                    true
                );
            }
        }
    }

    /// <summary>The weeks of a stretch of days, day by day.</summary>
    public static IReadOnlyList<PlanWeek> Weeks(Timetable timetable, PlanSettings settings, DateOnly first, DateOnly last)
    {
        var calendar = timetable.Calendar;
        List<PlanWeek> weeks = [];
        for (var monday = SchoolCalendar.MondayOf(first); monday <= last; monday = monday.AddDays(7))
        {
            var friday = monday.AddDays(4);
            if (!calendar.Terms.Any(t => t.First <= friday && monday <= t.Last))
            {
                continue;
            }

            var start = monday;
            weeks.Add(
                new(
                    monday,
                    calendar.Terms.First(t => t.First <= friday && start <= t.Last).Name,
                    [.. Enumerable.Range(0, 5).Select(i => start.AddDays(i)).Select(day => DayOf(day, timetable, settings))]
                )
            );
        }

        return weeks;
    }

    private static PlanDayView DayOf(DateOnly day, Timetable timetable, PlanSettings settings)
    {
        var different = timetable.Calendar.Different(day);
        var places =
            timetable.CarpetPlaces(day) + (settings.MoreOn.Contains(day.DayOfWeek) && different is null && timetable.Calendar.IsSchoolDay(day) ? 1 : 0);
        return new(day, timetable.Calendar.IsSchoolDay(day), places, different?.Name);
    }

    /// <summary>How many places are left beside the lessons to come.</summary>
    public static string Margin(YearPlan plan, IReadOnlyList<PlanWeek> weeks, DateOnly from)
    {
        var places = weeks.SelectMany(w => w.Days).Where(d => d.Day >= from).Sum(d => d.Places);
        var lessons = plan.Lessons.Count(l => l.Day >= from);
        var free = places - lessons;
        var open = plan.Unplaced.Values.Sum();
        return open > 0
            ? Phrase($"{Words.Capital(Words.Count(open, "lesson", "lessons"))} found no place.")
            : Phrase($"{Words.Capital(Words.Count(lessons, "lesson", "lessons"))} to come, {Words.Count(free, "place", "places")} kept free.");
    }
}
