namespace Fobble.Core.Calendars;

/// <summary>How long the record of a child that has left is kept. Nothing is erased when it is over: somebody looks.</summary>
public static class Retention
{
    // Longer is no retention but an archive of its own.
    private const int LongestYears = 10;

    /// <summary>To the end of the next school year (common practice; a school's own rule goes first).</summary>
    public static DateOnly UsuallyUntil(SchoolCalendar calendar, DateOnly leaves)
    {
        ArgumentNullException.ThrowIfNull(calendar);
        var ends = calendar.YearEnds(leaves);
        return (ends > leaves ? ends : leaves).AddYears(1);
    }

    /// <exception cref="RefusedException">The day has passed, or lies too far ahead.</exception>
    public static void Check(DateOnly keptUntil, DateOnly today) =>
        RefusedException.Unless(
            keptUntil >= today && keptUntil <= today.AddYears(LongestYears),
            "keptUntil",
            Phrase($"A record is kept until some day from today on, for {LongestYears} years at the most.")
        );
}
