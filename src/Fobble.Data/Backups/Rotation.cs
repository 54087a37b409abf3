namespace Fobble.Data.Backups;

/// <summary>Which backups stay: close together for what was lost a moment ago, further apart for what is noticed late.</summary>
public static class Rotation
{
    /// <summary>For how long the newest of each span of time is kept; all of the last two hours are.</summary>
    private static readonly (TimeSpan Back, Func<DateTimeOffset, long> Span)[] Kept =
    [
        (TimeSpan.FromHours(2), at => at.UtcTicks),
        (TimeSpan.FromDays(2), at => at.UtcTicks / TimeSpan.TicksPerHour),
        (TimeSpan.FromDays(14), at => at.UtcTicks / TimeSpan.TicksPerDay),
        (TimeSpan.FromDays(8 * 7), at => at.UtcTicks / (7 * TimeSpan.TicksPerDay)),
        (TimeSpan.FromDays(366), at => (at.UtcDateTime.Year * 12) + at.UtcDateTime.Month),
    ];

    /// <summary>Those that may go. The newest never does, whatever the clock says.</summary>
    public static IReadOnlyList<DateTimeOffset> Over(IEnumerable<DateTimeOffset> taken, DateTimeOffset now)
    {
        List<DateTimeOffset> all = [.. taken.OrderDescending()];
        var stays = Kept.SelectMany(k => all.Where(at => at >= now - k.Back).GroupBy(k.Span).Select(span => span.Max())).Concat(all.Take(1)).ToHashSet();
        return [.. all.Where(at => !stays.Contains(at))];
    }
}
