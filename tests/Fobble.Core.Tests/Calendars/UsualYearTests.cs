using Fobble.Core.Calendars;

namespace Fobble.Core.Tests.Calendars;

public class UsualYearTests
{
    public static TheoryData<string> Locales => [.. SchoolLocale.All];

    [Theory]
    [MemberData(nameof(Locales))]
    public void On_any_day_of_ten_years_it_is_a_school_year_that_is_not_over(string locale)
    {
        for (var day = new DateOnly(2024, 1, 1); day < new DateOnly(2034, 1, 1); day = day.AddDays(5))
        {
            var terms = UsualYear.Terms(locale, day);
            SchoolCalendar.CheckTerms(terms);
            terms[^1].Last.ShouldBeGreaterThanOrEqualTo(day);
            terms[0].First.ShouldBeLessThan(day.AddDays(366));
            terms.ShouldAllBe(t => t.First.DayOfWeek != DayOfWeek.Saturday && t.First.DayOfWeek != DayOfWeek.Sunday);

            var closures = UsualYear.Closures(locale, day);
            SchoolCalendar calendar = new(terms, closures);
            calendar.YearBegan(terms[0].First).ShouldBe(terms[0].First);
            calendar.YearEnds(terms[0].First).ShouldBe(terms[^1].Last);

            // Every closure takes a day that would be a school day, and is taken once.
            SchoolCalendar without = new(terms, []);
            closures.ShouldAllBe(c => without.Days(c.First, c.Last).Any());
            closures.Zip(closures.Skip(1)).ShouldAllBe(p => p.First.Last < p.Second.First);

            // As many school days as there are anywhere: 170 to 205.
            calendar.Days(terms[0].First, terms[^1].Last).Count().ShouldBeInRange(165, 210, $"{locale} {day}");
        }
    }

    // Published dates: gov.uk "UK bank holidays" 2026 and 2027, OPM "Federal Holidays" 2026 and 2027, data.govt.nz and nsw.gov.au for 2026; from memory.
    [Theory]
    [InlineData("en-GB", "2026-09-09", "Early May bank holiday", "2027-05-03")]
    [InlineData("en-GB", "2025-11-09", "Early May bank holiday", "2026-05-04")]
    [InlineData("en-US", "2026-09-09", "Martin Luther King Day", "2027-01-18")]
    [InlineData("en-US", "2026-09-09", "Memorial Day", "2027-05-31")]
    [InlineData("en-US", "2026-08-09", "Labor Day", "2026-09-07")]
    [InlineData("en-CA", "2026-09-09", "Thanksgiving Day", "2026-10-12")]
    [InlineData("en-IE", "2026-09-09", "May Day", "2027-05-03")]
    [InlineData("en-AU", "2026-03-09", "King’s Birthday", "2026-06-08")]
    [InlineData("en-NZ", "2026-03-09", "Labour Day", "2026-10-26")]
    public void Public_holidays_are_those_that_are_published(string locale, string today, string name, string day) =>
        UsualYear.Closures(locale, DateOnly.Parse(today, null)).ShouldContain(c => c.Name == name && c.First == DateOnly.Parse(day, null));

    [Fact]
    public void Thanksgiving_is_a_break_of_three_days_and_no_holiday_beside_it() =>
        UsualYear
            .Closures("en-US", new(2026, 9, 9))
            .Where(c => c.First.Month == 11 && c.First.Day > 11)
            .ShouldHaveSingleItem()
            .ShouldBe(new Closure("Thanksgiving break", new(2026, 11, 25), new(2026, 11, 27)));

    // The ministry's terms of 2026: 2 April, 20 April to 3 July, 20 July to 25 September (from memory).
    [Fact]
    public void The_year_of_the_south_begins_in_its_summer()
    {
        var terms = UsualYear.Terms("en-NZ", new(2026, 8, 1));
        terms.Select(t => t.First.Year).Distinct().ShouldHaveSingleItem().ShouldBe(2026);
        terms[0].Last.ShouldBe(new(2026, 4, 2));
        terms[1].Last.ShouldBe(new(2026, 7, 3));
        terms[2].ShouldBe(new Term("Term 3", Season.Spring, new(2026, 7, 20), new(2026, 9, 25)));
    }

    [Fact]
    public void Where_nothing_is_known_of_a_place_its_year_is_the_usual_one() =>
        UsualYear.Terms("en-XX", new(2026, 9, 1)).ShouldBe(UsualYear.Terms("en-GB", new(2026, 9, 1)));
}
