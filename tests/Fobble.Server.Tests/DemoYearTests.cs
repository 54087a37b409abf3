using Fobble.Core.Calendars;
using Fobble.Server.Demo;

namespace Fobble.Server.Tests;

public class DemoYearTests
{
    private static readonly DateOnly From = new(2026, 1, 1);

    /// <summary>Every day of five years on which the demo could be started.</summary>
    public static IEnumerable<DateOnly> Days => Enumerable.Range(0, 5 * 365).Select(From.AddDays);

    [Fact]
    public void Nobody_teaches_at_midwinter_unless_the_demo_is_started_then()
    {
        foreach (var today in Days)
        {
            SchoolCalendar calendar = new(DemoYear.Terms(today), DemoYear.Closures(today));
            foreach (var year in (int[])[today.Year - 1, today.Year])
            {
                var first = SchoolCalendar.MondayOf(new(year, 12, 25));
                var (eve, holiday, newYear) = (new DateOnly(year, 12, 24), new DateOnly(year, 12, 25), new DateOnly(year + 1, 1, 1));
                var started = first <= today && today <= first.AddDays(11);
                if (!started)
                {
                    foreach (var day in (DateOnly[])[eve, holiday, newYear])
                    {
                        calendar.IsSchoolDay(day).ShouldBeFalse($"{today:O}: {day:O}");
                    }
                }
            }
        }
    }

    [Fact]
    public void There_is_school_on_whatever_weekday_the_demo_is_started_and_enough_of_it_after()
    {
        foreach (var today in Days.Where(d => d.DayOfWeek is not (DayOfWeek.Saturday or DayOfWeek.Sunday)))
        {
            SchoolCalendar calendar = new(DemoYear.Terms(today), DemoYear.Closures(today));
            calendar.IsSchoolDay(today).ShouldBeTrue($"{today:O}");
            calendar.SchoolDaysBetween(today, today.AddDays(7 * 33)).ShouldBeInRange(105, 150, $"{today:O}");
            calendar.SchoolDaysBetween(today.AddDays(-56), today).ShouldBeGreaterThan(25, $"{today:O}");
        }
    }
}
