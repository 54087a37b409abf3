namespace Fobble.Core.Calendars;

/// <summary>
/// The time zone a school lives in. The one place where an instant becomes a day, or a day and a time of it an instant: wherever the server stands, and
/// whatever the offset is today.
/// </summary>
public sealed record SchoolZone(TimeZoneInfo Zone)
{
    /// <summary>Coordinated universal time; for what has no school.</summary>
    public static SchoolZone Universal { get; } = new(TimeZoneInfo.Utc);

    /// <summary>Its name in the IANA data base, as browsers know it too.</summary>
    public string Id =>
        Zone.HasIanaId ? Zone.Id
        : TimeZoneInfo.TryConvertWindowsIdToIanaId(Zone.Id, out var iana) ? iana
        : Zone.Id;

    /// <summary>The zone of that name; null where there is none.</summary>
    public static SchoolZone? Named(string id) => TimeZoneInfo.TryFindSystemTimeZoneById(id, out var zone) ? new(zone) : null;

    /// <summary>The school day that an instant falls on.</summary>
    public DateOnly DayOf(DateTimeOffset instant) => DateOnly.FromDateTime(LocalOf(instant).DateTime);

    /// <summary>The instant as the school's clocks show it.</summary>
    public DateTimeOffset LocalOf(DateTimeOffset instant) => TimeZoneInfo.ConvertTime(instant, Zone);

    /// <summary>The instant at which a day begins.</summary>
    public DateTimeOffset StartOf(DateOnly day) => At(day, TimeOnly.MinValue);

    /// <summary>
    /// The instant at which the school's clocks show a time on a day, with the offset of that day. A time that a change of clocks leaves out is taken an hour
    /// later, one that comes twice the first time.
    /// </summary>
    public DateTimeOffset At(DateOnly day, TimeOnly time)
    {
        var local = day.ToDateTime(time);
        if (Zone.IsInvalidTime(local))
        {
            local = local.AddHours(1);
        }

        return new(local, Zone.IsAmbiguousTime(local) ? Zone.GetAmbiguousTimeOffsets(local).Max() : Zone.GetUtcOffset(local));
    }
}
