using PublicHoliday;

namespace Fobble.Core.Calendars;

/// <summary>
/// The school year as it usually is where a school stands: offered at the beginning, to be put right by the school. When terms and breaks lie is common practice
/// (no two districts have the same); public holidays come from the library of that name.
/// </summary>
public static class UsualYear
{
    private delegate IEnumerable<Term> TermsOf(int year);

    /// <param name="Terms">Of the school year that begins in a year, in order; the first is its autumn, wherever on earth.</param>
    /// <param name="Breaks">Weeks without school inside those terms.</param>
    private sealed record Country(TermsOf Terms, IPublicHolidays? Holidays, Func<int, IEnumerable<Closure>> Breaks);

    private static readonly Country UnitedKingdom = new(
        year =>
            [
                Term("Autumn", Season.Autumn, Monday(year, 9, 1), Friday(year, 12, 21)),
                Term("Spring", Season.Spring, Monday(year + 1, 1, 3), BeforeEaster(year + 1)),
                Term("Summer", Season.Summer, AfterEaster(year + 1), Friday(year + 1, 7, 22)),
            ],
        new UKBankHoliday(),
        year =>
            [
                Week(Phrase("Autumn half-term"), Monday(year, 10, 23)),
                Week(Phrase("Spring half-term"), Monday(year + 1, 2, 12)),
                Week(Phrase("Summer half-term"), Monday(year + 1, 5, 25)),
            ]
    );

    private static readonly Dictionary<string, Country> Countries = new()
    {
        ["GB"] = UnitedKingdom,
        ["IE"] = new(
            year =>
                [
                    Term("Autumn", Season.Autumn, Monday(year, 8, 28), Friday(year, 12, 21)),
                    Term("Spring", Season.Spring, Monday(year + 1, 1, 5), BeforeEaster(year + 1)),
                    Term("Summer", Season.Summer, AfterEaster(year + 1), Friday(year + 1, 6, 30)),
                ],
            new IrelandPublicHoliday(),
            year => [Week(Phrase("Autumn mid-term"), Monday(year, 10, 25)), Week(Phrase("Spring mid-term"), Monday(year + 1, 2, 14))]
        ),
        ["US"] = new(
            year =>
                [
                    Term("Fall", Season.Autumn, Monday(year, 8, 20), Friday(year, 12, 20)),
                    Term("Winter", Season.Spring, Monday(year + 1, 1, 3), Friday(year + 1, 3, 26)),
                    Term("Spring", Season.Summer, Monday(year + 1, 4, 2), Friday(year + 1, 6, 10)),
                ],
            new USAPublicHoliday(),
            year => [new(Phrase("Thanksgiving break"), Thanksgiving(year).AddDays(-1), Thanksgiving(year).AddDays(1))]
        ),
        ["CA"] = new(
            year =>
                [
                    Term("Fall", Season.Autumn, Monday(year, 9, 1).AddDays(1), Friday(year, 12, 21)),
                    Term("Winter", Season.Spring, Monday(year + 1, 1, 4), Friday(year + 1, 3, 14)),
                    Term("Spring", Season.Summer, Monday(year + 1, 3, 19), Friday(year + 1, 6, 28)),
                ],
            new CanadaPublicHoliday(),
            _ => []
        ),
        // Four terms; the second and third stand for the middle of the year.
        ["AU"] = Southern(new AustraliaPublicHoliday { State = AustraliaPublicHoliday.States.NSW }, (1, 28), (6, 30), (7, 16), (9, 24), (10, 8), (12, 18)),
        ["NZ"] = Southern(new NewZealandPublicHoliday(), (2, 1), (7, 4), (7, 18), (9, 25), (10, 9), (12, 18)),
        ["ZA"] = Southern(new SouthAfricaPublicHoliday(), (1, 12), (6, 27), (7, 18), (9, 24), (10, 5), (12, 10)),
        ["IN"] = new(
            year =>
                [
                    Term(Phrase("First term"), Season.Autumn, Monday(year, 6, 10), Friday(year, 9, 30)),
                    Term(Phrase("Second term"), Season.Spring, Monday(year, 10, 12), Friday(year, 12, 24)),
                    Term(Phrase("Third term"), Season.Summer, Monday(year + 1, 1, 3), Friday(year + 1, 4, 10)),
                ],
            null,
            _ => []
        ),
    };

    /// <summary>The terms of the school year that holds a day, or of the next one where the day lies between two.</summary>
    /// <param name="locale">One of <see cref="SchoolLocale.All"/>.</param>
    public static IReadOnlyList<Term> Terms(string locale, DateOnly today) => [.. Of(locale).Terms(YearOf(locale, today))];

    /// <summary>The days of those terms on which schools are usually closed, in order: breaks, and public holidays outside them that fall on weekdays.</summary>
    public static IReadOnlyList<Closure> Closures(string locale, DateOnly today)
    {
        var (country, year) = (Of(locale), YearOf(locale, today));
        var terms = country.Terms(year).ToList();
        List<Closure> breaks = [.. country.Breaks(year).Where(b => terms.Exists(t => t.First <= b.First && b.Last <= t.Last))];
        var holidays = (country.Holidays is null ? [] : new[] { year, year + 1 }.SelectMany(country.Holidays.PublicHolidaysInformation))
            .Select(h => (Day: DateOnly.FromDateTime(h.ObservedDate), h.EnglishName))
            .Where(h => h.Day.DayOfWeek is not (DayOfWeek.Saturday or DayOfWeek.Sunday))
            .Where(h => terms.Exists(t => t.First <= h.Day && h.Day <= t.Last) && !breaks.Exists(b => b.Covers(h.Day)))
            .Select(h => new Closure(NameOf(h.EnglishName, locale), h.Day, h.Day));
        return [.. breaks.Concat(holidays).DistinctBy(c => c.First).OrderBy(c => c.First)];
    }

    private static Country Of(string locale) => Countries.GetValueOrDefault(locale.Split('-')[^1], UnitedKingdom);

    // The first school year that is not over yet.
    private static int YearOf(string locale, DateOnly today) => Enumerable.Range(today.Year - 1, 3).First(year => Of(locale).Terms(year).Last().Last >= today);

    private static Country Southern(
        IPublicHolidays holidays,
        (int Month, int Day) first,
        (int Month, int Day) half,
        (int Month, int Day) third,
        (int Month, int Day) thirdEnds,
        (int Month, int Day) fourth,
        (int Month, int Day) last
    ) =>
        new(
            year =>
                [
                    Term(Phrase("Term 1"), Season.Autumn, Monday(year, first.Month, first.Day), BeforeEaster(year)),
                    Term(Phrase("Term 2"), Season.Spring, AfterEaster(year), Friday(year, half.Month, half.Day)),
                    Term(Phrase("Term 3"), Season.Spring, Monday(year, third.Month, third.Day), Friday(year, thirdEnds.Month, thirdEnds.Day)),
                    Term(Phrase("Term 4"), Season.Summer, Monday(year, fourth.Month, fourth.Day), Friday(year, last.Month, last.Day)),
                ],
            holidays,
            _ => []
        );

    // What the library calls short, as people say it.
    private static string NameOf(string name, string locale) =>
        locale.EndsWith("-GB", StringComparison.Ordinal) && name is "Early May" or "Spring" or "Summer" ? Phrase($"{name} bank holiday")
        : name == "President's Day" ? Phrase("Presidents’ Day")
        : name.Replace('\'', '’');

    private static Term Term(string name, Season season, DateOnly first, DateOnly last) => new(name, season, first, last);

    private static Closure Week(string name, DateOnly monday) => new(name, monday, monday.AddDays(4));

    /// <summary>The first Monday on or after a day.</summary>
    private static DateOnly Monday(int year, int month, int day) => SchoolCalendar.MondayOf(new DateOnly(year, month, day).AddDays(6));

    /// <summary>The last Friday on or before a day.</summary>
    private static DateOnly Friday(int year, int month, int day) => SchoolCalendar.MondayOf(new DateOnly(year, month, day).AddDays(3)).AddDays(-3);

    // Two weeks around Easter: the term ends on the Thursday before Good Friday and begins on the Tuesday after the second Monday.
    private static DateOnly BeforeEaster(int year) => Easter(year).AddDays(-3);

    private static DateOnly AfterEaster(int year) => Easter(year).AddDays(16);

    private static DateOnly Easter(int year) => DateOnly.FromDateTime(UKBankHoliday.GoodFriday(year)).AddDays(2);

    private static DateOnly Thanksgiving(int year) => DateOnly.FromDateTime(USAPublicHoliday.Thanksgiving(year));
}
