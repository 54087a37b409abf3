namespace Fobble.Data.Backups;

/// <summary>
/// Which backups stay: close together for what was lost a moment ago, further apart for what is noticed late. They are counted and not measured by the clock: one that leaps ahead for an
/// hour would make all of them too old at once.
/// </summary>
public static class Rotation
{
    /// <summary>Of how many spans of time, those in which there is a backup, the newest one stays.</summary>
    private static readonly (int Most, Func<DateTimeOffset, long> Span)[] Kept =
    [
        (24, at => at.UtcTicks),
        (48, at => at.UtcTicks / TimeSpan.TicksPerHour),
        (14, at => at.UtcTicks / TimeSpan.TicksPerDay),
        (8, at => at.UtcTicks / (7 * TimeSpan.TicksPerDay)),
        (12, at => (at.UtcDateTime.Year * 12) + at.UtcDateTime.Month),
    ];

    /// <summary>Those that may go.</summary>
    /// <param name="justTaken">Stays, even where the clock says that it is the oldest of all.</param>
    public static IReadOnlyList<DateTimeOffset> Over(IEnumerable<DateTimeOffset> taken, DateTimeOffset? justTaken = null)
    {
        List<DateTimeOffset> all = [.. taken.OrderDescending()];
        var stays = Kept.SelectMany(k => all.DistinctBy(k.Span).Take(k.Most)).ToHashSet();
        return [.. all.Where(at => at != justTaken && !stays.Contains(at))];
    }

    /// <summary>The one taken last; one of a time that has not come yet, of a clock that was ahead, only where there is no other.</summary>
    public static DateTimeOffset? Newest(IEnumerable<DateTimeOffset> taken, DateTimeOffset now)
    {
        List<DateTimeOffset> all = [.. taken.Order()];
        return all.Cast<DateTimeOffset?>().LastOrDefault(at => at <= now) ?? all.Cast<DateTimeOffset?>().LastOrDefault();
    }
}
