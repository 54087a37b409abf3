using Fobble.Core.Calendars;

namespace Fobble.Core.Tests.Calendars;

public class SchoolCalendarTests
{
    private static readonly DateOnly Start = new(2026, 9, 1);
    private static readonly SchoolCalendar Calendar = new(
        [new("Autumn", Season.Autumn, Start, new(2026, 12, 18)), new("Spring", Season.Spring, new(2027, 1, 5), new(2027, 3, 26))],
        [new("Half-term", new(2026, 10, 26), new(2026, 10, 30)), new("Training", new(2026, 9, 1), new(2026, 9, 1))]
    );

    private static readonly Gen<DateOnly> Day = Gen.Int[-30, 260].Select(Start.AddDays);

    [Fact]
    public void Counting_days_agrees_with_walking_them() =>
        Gen.Select(Day, Day)
            .Sample(
                (from, to) =>
                {
                    var walked = Enumerable.Range(1, Math.Max(0, to.DayNumber - from.DayNumber)).Count(i => Calendar.IsSchoolDay(from.AddDays(i)));
                    Calendar.SchoolDaysBetween(from, to).ShouldBe(walked);
                }
            );

    [Theory]
    [InlineData("2026-09-01", false)]
    [InlineData("2026-09-02", true)]
    [InlineData("2026-09-05", false)]
    [InlineData("2026-10-28", false)]
    [InlineData("2026-12-25", false)]
    [InlineData("2027-01-05", true)]
    [InlineData("2030-01-07", false)]
    public void Weekends_closures_and_holidays_are_no_school_days(string day, bool expected) =>
        Calendar.IsSchoolDay(DateOnly.Parse(day, System.Globalization.CultureInfo.InvariantCulture)).ShouldBe(expected);

    [Fact]
    public void After_the_last_day_of_a_term_comes_the_first_of_the_next() => Calendar.OnOrAfter(new(2026, 12, 19)).ShouldBe(new(2027, 1, 5));

    [Theory]
    [InlineData("2026-08-20", "2026-08-20", "2026-09-01")]
    [InlineData("2026-11-25", "2026-09-01", "2026-09-01")]
    [InlineData("2026-12-28", "2026-09-01", "2026-09-01")]
    [InlineData("2027-02-10", "2027-01-05", "2026-09-01")]
    public void A_term_and_a_year_began_on_their_first_day(string day, string term, string year)
    {
        static DateOnly D(string text) => DateOnly.Parse(text, System.Globalization.CultureInfo.InvariantCulture);
        Calendar.TermBegan(D(day)).ShouldBe(D(term));
        Calendar.YearBegan(D(day)).ShouldBe(D(year));
    }

    [Fact]
    public void Before_a_school_day_lies_the_last_one_before_it() =>
        Day.Sample(day =>
        {
            var before = Calendar.Before(day);
            if (before is { } found)
            {
                (found < day && Calendar.IsSchoolDay(found) && Calendar.SchoolDaysBetween(found, day.AddDays(-1)) == 0).ShouldBeTrue();
            }
            else
            {
                Enumerable.Range(1, 40).ShouldAllBe(i => !Calendar.IsSchoolDay(day.AddDays(-i)));
            }
        });

    [Fact]
    public void After_the_last_term_there_is_no_next_day() => Calendar.OnOrAfter(new(2027, 3, 27)).ShouldBeNull();

    [Fact]
    public void A_week_begins_on_its_Monday() =>
        Day.Sample(day =>
        {
            var monday = SchoolCalendar.MondayOf(day);
            monday.DayOfWeek.ShouldBe(DayOfWeek.Monday);
            (day.DayNumber - monday.DayNumber).ShouldBeInRange(0, 6);
        });

    [Fact]
    public void Seasons_last_until_the_next_term_begins()
    {
        Calendar.SeasonOf(new(2026, 12, 28)).ShouldBe(Season.Autumn);
        Calendar.SeasonOf(new(2027, 1, 5)).ShouldBe(Season.Spring);
    }

    [Fact]
    public void Overlapping_terms_are_refused() =>
        Should.Throw<RefusedException>(() =>
            new SchoolCalendar([new("A", Season.Autumn, Start, Start.AddDays(9)), new("B", Season.Spring, Start.AddDays(9), Start.AddDays(20))], [])
        );

    [Fact]
    public void A_calendar_without_terms_has_no_school_day() => new SchoolCalendar([], []).IsSchoolDay(Start).ShouldBeFalse();
}
