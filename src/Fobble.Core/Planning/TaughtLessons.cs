using Fobble.Core.Calendars;
using Fobble.Core.Skills;

namespace Fobble.Core.Planning;

/// <summary>What was taught. It is never written down by itself: it follows from what was planned and what the calendar says of the day since.</summary>
public static class TaughtLessons
{
    /// <summary>Focus lessons given before a day: what weeks had worked out; where none was, what the year's plan had; never on a day that had no lesson.</summary>
    /// <param name="workedOut">Lessons of days that were worked out.</param>
    public static IReadOnlyList<TaughtLesson> Before(DateOnly day, IReadOnlyList<TaughtLesson> workedOut, YearPlan? year, SchoolCalendar calendar)
    {
        ArgumentNullException.ThrowIfNull(workedOut);
        ArgumentNullException.ThrowIfNull(calendar);
        var detailed = workedOut.Select(t => t.Day).ToHashSet();
        var planned = (year?.Lessons ?? []).Where(l => !detailed.Contains(l.Day)).Select(l => new TaughtLesson(l.Day, l.Skill));
        return [.. workedOut.Concat(planned).Where(t => t.Day < day && calendar.HasLessons(t.Day)).OrderBy(t => t.Day)];
    }

    /// <summary>The first day of a plan that may still be changed: today, or the next day where today's lesson is under way already.</summary>
    public static DateOnly FirstOpenDay(DateOnly today, bool recordedToday) => recordedToday ? today.AddDays(1) : today;

    /// <summary>At which share of its year each skill of a plan began, 0 to 1: what another year can be laid out by.</summary>
    /// <param name="from">First day of the plan's year.</param>
    /// <param name="until">Its last day.</param>
    public static IReadOnlyDictionary<SkillId, double> Shares(YearPlan plan, DateOnly from, DateOnly until)
    {
        ArgumentNullException.ThrowIfNull(plan);
        var all = until.DayNumber - from.DayNumber;
        return plan
            .Lessons.GroupBy(l => l.Skill)
            .ToDictionary(g => g.Key, g => all <= 0 ? 0 : Math.Clamp((double)(g.Min(l => l.Day).DayNumber - from.DayNumber) / all, 0, 1));
    }
}
