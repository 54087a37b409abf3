using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Planning;

/// <summary>A plan with what it stands in: the timetable, the map, and which days may still be changed.</summary>
public sealed record PlanSetting(YearPlan Plan, Timetable Timetable, SkillMap Map, DateOnly From, DateOnly Until);

/// <summary>What it would mean to put a lesson on a day.</summary>
/// <param name="Refused">Why it can't be; null where it can.</param>
/// <param name="Advice">What speaks against it; may be overruled.</param>
/// <param name="With">The lesson that would change places with it; null where the day has room.</param>
public sealed record DayPrice(DateOnly Day, string? Refused, IReadOnlyList<string> Advice, LessonName? With);

/// <summary>Lessons moved by a teacher's own hand, with the price of each day before the drop.</summary>
public static class PlanByHand
{
    /// <summary>Every school day that is not past, with what speaks against putting the lesson there.</summary>
    /// <exception cref="KeyNotFoundException">The plan has no such lesson.</exception>
    public static IReadOnlyList<DayPrice> Prices(PlanSetting setting, LessonName name)
    {
        ArgumentNullException.ThrowIfNull(setting);
        var lesson = Find(setting, name);
        var days = YearScope.DaysOf(setting.Timetable, setting.From, setting.Until, setting.Plan.Settings);
        return [.. days.Where(d => d.Day != lesson.Day).Select(d => PriceOf(setting, lesson, d, days))];
    }

    /// <summary>The lessons with one of them on another day; the one that was there takes its place where there is no room. Null where it is refused.</summary>
    /// <exception cref="KeyNotFoundException">The plan has no such lesson.</exception>
    public static IReadOnlyList<PlanLesson>? Move(PlanSetting setting, LessonName name, DateOnly day)
    {
        ArgumentNullException.ThrowIfNull(setting);
        var lesson = Find(setting, name);
        var days = YearScope.DaysOf(setting.Timetable, setting.From, setting.Until, setting.Plan.Settings);
        return days.FirstOrDefault(d => d.Day == day) is { } target && PriceOf(setting, lesson, target, days) is { Refused: null } price
            ? Moved(setting, lesson, day, price.With)
            : null;
    }

    private static PlanLesson Find(PlanSetting setting, LessonName name) =>
        setting.Plan.Find(name.Skill, name.Number) ?? throw new KeyNotFoundException($"The plan has no lesson {name.Number} of '{name.Skill}'.");

    private static DayPrice PriceOf(PlanSetting setting, PlanLesson lesson, PlanDay day, IReadOnlyList<PlanDay> days)
    {
        var there = setting.Plan.On(day.Day).ToList();
        var with =
            there.Count < day.Places
                ? null
                : there.Where(l => !l.Pinned && l.Skill != lesson.Skill).Select(l => new LessonName(l.Skill, l.Number)).LastOrDefault();
        string? refused =
            lesson.Day < setting.From ? Phrase("It is past.")
            : day.Places == 0
                ? Phrase($"{setting.Timetable.Calendar.Different(day.Day)?.Name ?? "No whole-class lesson in the timetable"}: there is no lesson that day.")
            : there.Any(l => l.Skill == lesson.Skill) ? Phrase("Another lesson on the same skill is that day.")
            : there.Count >= day.Places && with is null ? Phrase("What is there is pinned.")
            : with is not null && setting.Plan.On(lesson.Day).Any(l => l.Skill == with.Skill)
                ? Phrase($"{setting.Map[with.Skill].AtStart} would have two lessons on {Words.Date(lesson.Day)}.")
            : null;
        if (refused is not null)
        {
            return new(day.Day, refused, [], with);
        }

        var lessons = Moved(setting, lesson, day.Day, with);
        List<string> advice = [.. SpeaksAgainst(setting, lessons, lesson.Skill), .. with is null ? [] : SpeaksAgainst(setting, lessons, with.Skill)];
        var block = days.Where(d => d.Block == day.Block).ToList();
        var filled = lessons.Count(l => block.Any(d => d.Day == l.Day));
        if (
            with is null
            && filled > setting.Plan.Settings.MostIn(block.Sum(d => d.Places))
            && days.First(d => d.Day == day.Day).Block != days.FirstOrDefault(d => d.Day == lesson.Day)?.Block
        )
        {
            advice.Add(Phrase("It takes the place that is kept free for what comes in between."));
        }

        if (there.Count >= setting.Timetable.CarpetPlaces(day.Day) && with is null)
        {
            advice.Add(Phrase("The timetable has no time for a second lesson that day yet."));
        }

        return new(day.Day, null, advice, with);
    }

    // The rules of one skill in a plan, as sentences.
    private static IEnumerable<string> SpeaksAgainst(PlanSetting setting, IReadOnlyList<PlanLesson> lessons, SkillId skill)
    {
        var (map, calendar) = (setting.Map, setting.Timetable.Calendar);
        var own = lessons.Where(l => l.Skill == skill).Select(l => l.Day).Order().ToList();
        var (first, last) = (own[0], own[^1]);
        foreach (var need in map.AllNeeds(skill))
        {
            if (lessons.Where(l => l.Skill == need).Select(l => l.Day).DefaultIfEmpty().Max() is var ends && ends >= first)
            {
                yield return Phrase($"{map[skill].AtStart} would begin before {map[need].InSentence} is finished on {Words.Date(ends)}.");
            }
        }

        foreach (var open in lessons.Where(l => map.AllNeeds(l.Skill).Contains(skill)).GroupBy(l => l.Skill).Where(g => g.Min(l => l.Day) <= last))
        {
            yield return Phrase($"{map[open.Key].AtStart} begins on {Words.Date(open.Min(l => l.Day))} and needs {map[skill].InSentence} before it.");
        }

        if (calendar.SchoolDaysBetween(first, last) >= PlanSettings.Span)
        {
            yield return Phrase(
                $"Its lessons would lie {Words.Count(calendar.SchoolDaysBetween(first, last) + 1, "school day", "school days")} apart; ten is the usual most."
            );
        }

        foreach (
            var review in setting.Plan.Reviews.Where(r =>
                r.Skill == skill && r.Round > 0 && r.Round <= setting.Plan.Settings.Gaps.Count && r.Day >= setting.From
            )
        )
        {
            if (setting.Plan.Settings.Gaps[review.Round - 1] is var gap && NoPlaceFor(setting, last, gap, review) is { } window)
            {
                yield return Phrase($"It could not come back in time: the starters from {Words.Date(window.From)} to {Words.Date(window.To)} are taken.");
            }
        }
    }

    // Null where the starter stays in its window, or another day of the window has room.
    private static (DateOnly From, DateOnly To)? NoPlaceFor(PlanSetting setting, DateOnly last, ReviewGap gap, PlanReview review)
    {
        var since = setting.Timetable.Calendar.SchoolDaysBetween(last, review.Day);
        if (review.Day > last && since >= gap.Earliest && since <= gap.Latest)
        {
            return null;
        }

        var window = setting.Timetable.Calendar.Days(last.AddDays(1), setting.Until).Skip(gap.Earliest - 1).Take(gap.Latest - gap.Earliest + 1).ToList();
        return
            window.Count == 0
            || window.Any(d => setting.Timetable.CarpetPlaces(d) > 0 && setting.Plan.Reviews.Count(r => r.Day == d) < setting.Plan.Settings.StartersADay)
            ? null
            : (window[0], window[^1]);
    }

    private static IReadOnlyList<PlanLesson> Moved(PlanSetting setting, PlanLesson lesson, DateOnly day, LessonName? with)
    {
        var moved = setting.Plan.Lessons.Select(l =>
            l == lesson ? l with { Day = day, Place = 9, Reason = Phrase($"Moved here by hand from {Words.Date(lesson.Day)}.") }
            : with is not null && l.Skill == with.Skill && l.Number == with.Number
                ? l with
                {
                    Day = lesson.Day,
                    Place = lesson.Place,
                    Reason = Phrase($"Changed places by hand with {setting.Map[lesson.Skill].InSentence}."),
                }
            : l
        );
        return Renumbered(moved);
    }

    /// <summary>The lessons in order of time, each skill's numbered in that order.</summary>
    public static IReadOnlyList<PlanLesson> Renumbered(IEnumerable<PlanLesson> lessons)
    {
        ArgumentNullException.ThrowIfNull(lessons);
        var ordered = lessons.OrderBy(l => l.Day).ThenBy(l => l.Place).ToList();
        var first = ordered.GroupBy(l => l.Skill).ToDictionary(g => g.Key, g => g.Min(l => l.Number));
        Dictionary<SkillId, int> given = [];
        Dictionary<DateOnly, int> places = [];
        return
        [
            .. ordered.Select(l =>
            {
                var number = given[l.Skill] = given.GetValueOrDefault(l.Skill, first[l.Skill] - 1) + 1;
                var place = places[l.Day] = places.GetValueOrDefault(l.Day, -1) + 1;
                return l with { Number = number, Place = place, Stage = YearPlanner.StageOf(number, l.Of, l.Stage == LessonStage.Check) };
            }),
        ];
    }
}
