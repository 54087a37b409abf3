using Fobble.Core.Calendars;

namespace Fobble.Core.Tests.Calendars;

public class NextYearTests
{
    private static SchoolCalendar UsualOf(string locale, params int[] years) => new([.. years.SelectMany(y => UsualYear.Terms(locale, new(y, 12, 1)))], []);

    private static DateOnly Day(string day) => DateOnly.Parse(day, System.Globalization.CultureInfo.InvariantCulture);

    // Wherever a school stands, and on whatever day it is asked: the year that comes begins after the one that is, within a year, and has terms.
    [Fact]
    public void The_next_year_follows_the_one_that_is_wherever_a_school_stands()
    {
        foreach (var locale in SchoolLocale.All)
        {
            var calendar = UsualOf(locale, 2026);
            var terms = calendar.Terms;
            for (var day = terms[0].First.AddDays(60); day <= terms[^1].Last.AddDays(40); day = day.AddDays(7))
            {
                var next = NextYear.Of(calendar, day, [], locale);
                next.BeginsOn.ShouldBeGreaterThan(terms[^1].Last, $"{locale} {day}");
                next.BeginsOn.ShouldBeLessThan(terms[0].First.AddDays(400), $"{locale} {day}");
                next.Terms[0].First.ShouldBe(next.BeginsOn);
                SchoolCalendar both = new([.. terms, .. next.Terms], []);
                NextYear.Of(both, day, [next.BeginsOn], locale).BeginsOn.ShouldBeGreaterThan(next.Terms[^1].Last, $"{locale} {day}: gone into already");
                new SchoolCalendar([.. terms, .. next.Terms], []).YearBegan(next.BeginsOn).ShouldBe(next.BeginsOn, $"{locale} {day}");
            }
        }
    }

    [Theory]
    [InlineData("2027-07-10", "2027-09-01")]
    [InlineData("2027-08-15", "2027-09-01")]
    // Late: the year has begun and nobody has gone into it.
    [InlineData("2027-09-20", "2027-09-01")]
    [InlineData("2027-10-20", "2027-09-01")]
    public void Terms_that_are_there_are_kept(string today, string begins)
    {
        List<Term> terms =
        [
            new("Autumn", Season.Autumn, Day("2026-09-01"), Day("2026-12-18")),
            new("Summer", Season.Summer, Day("2027-04-12"), Day("2027-07-21")),
            new("Autumn", Season.Autumn, Day("2027-09-01"), Day("2027-12-17")),
            new("Summer", Season.Summer, Day("2028-04-12"), Day("2028-07-21")),
        ];
        var next = NextYear.Of(new(terms, []), Day(today), [], "en-GB");
        next.BeginsOn.ShouldBe(Day(begins));
        next.Terms.ShouldBeEmpty();
        var again = NextYear.Of(new(terms, []), Day("2027-09-20"), [Day("2027-09-01")], "en-GB");
        again.BeginsOn.Year.ShouldBe(2028, "that year has been gone into");
    }
}
