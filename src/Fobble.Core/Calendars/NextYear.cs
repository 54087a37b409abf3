namespace Fobble.Core.Calendars;

/// <summary>The school year that a school goes into, as far as its calendar knows it.</summary>
/// <param name="BeginsOn">First day of its first term.</param>
/// <param name="Terms">The usual ones, where the school has none of that year yet; empty where it has.</param>
public sealed record NextYear(DateOnly BeginsOn, IReadOnlyList<Term> Terms)
{
    // Who has not got round to it in the summer does it in the first weeks.
    private const int LateDays = 56;

    // Most of the year before has been taught by then.
    private const int EarlyDays = 300;

    /// <summary>The first day on which a school can go into it: a second press must not take it a year too far.</summary>
    public DateOnly MayBeginFrom => BeginsOn.AddDays(-EarlyDays);

    /// <summary>The next one; in its first eight weeks the one that has just begun, unless the school has gone into it already.</summary>
    /// <param name="begun">First days of the years that the school has gone into.</param>
    /// <param name="locale">One of <see cref="SchoolLocale.All"/>: whose terms are usual.</param>
    public static NextYear Of(SchoolCalendar calendar, DateOnly today, IReadOnlyCollection<DateOnly> begun, string locale)
    {
        ArgumentNullException.ThrowIfNull(calendar);
        var now = calendar.YearBegan(today);
        var late = now <= today && today.DayNumber - now.DayNumber < LateDays && calendar.Terms.Any(t => t.Last < now);
        if (late && !begun.Contains(now))
        {
            return new(now, []);
        }

        if (
            calendar.Terms.FirstOrDefault(t => t.Season == Season.Autumn && t.First > now && t.First > today.AddDays(-LateDays) && !begun.Contains(t.First)) is
            { } known
        )
        {
            return new(known.First, []);
        }

        // Two months on, the old year is over wherever its last day lies in the usual one.
        var ends = begun.Append(today).Select(calendar.YearEnds).Append(today).Max();
        IReadOnlyList<Term> usual = UsualYear.Terms(locale, ends.AddMonths(2));
        return new(usual[0].First, usual);
    }
}
