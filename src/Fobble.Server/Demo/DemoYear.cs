using Fobble.Core.Calendars;

namespace Fobble.Server.Demo;

/// <summary>
/// The demo's school year, laid around the day on which it is started, so that it is alive on any day: three terms, a week's break in each to come, a fair, a day of
/// training, and two weeks of winter break where midwinter is.
/// </summary>
internal static class DemoYear
{
    /// <summary>Today's term began so many weeks ago.</summary>
    private const int WeeksBefore = 10;

    public static IReadOnlyList<Term> Terms(DateOnly today)
    {
        DateOnly Day(int weeks, int days = 0) => SchoolCalendar.MondayOf(today).AddDays((7 * weeks) + days);
        var endsInBreak = WinterBreaks(today).Any(b => b.First <= Day(5, 4) && Day(4) <= b.Last);
        return
        [
            new("Lantern term", Season.Autumn, Day(-WeeksBefore), Day(5, 4)),
            // Who has just had the winter break begins at once.
            new("Kite term", Season.Spring, Day(endsInBreak ? 6 : 8), Day(19, 4)),
            new("Wagon term", Season.Summer, Day(22), Day(32, 4)),
        ];
    }

    public static IReadOnlyList<Closure> Closures(DateOnly today)
    {
        DateOnly Day(int weeks, int days) => SchoolCalendar.MondayOf(today).AddDays((7 * weeks) + days);
        return
        [
            new("Training day", Day(-3, 0), Day(-3, 0)),
            new("Market fair", Day(3, 4), Day(3, 4)),
            new("Kite week", Day(13, 0), Day(13, 4)),
            new("Wagon week", Day(27, 0), Day(27, 4)),
            .. WinterBreaks(today),
        ];
    }

    // The week of the 25th of December and the next. A demo that is started in it has school all the same: there would be nothing to see.
    private static IEnumerable<Closure> WinterBreaks(DateOnly today) =>
        from year in new[] { today.Year - 1, today.Year }
        let first = SchoolCalendar.MondayOf(new(year, 12, 25))
        let last = first.AddDays(11)
        where today < first || last < today
        select new Closure("Winter break", first, last);
}
