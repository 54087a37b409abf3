using Fobble.Core.Calendars;

namespace Fobble.Core.Planning;

/// <summary>How far a day has come: a bead on the string.</summary>
public enum DayState
{
    Closed,
    Open,
    Planned,
    Taught,
    Recorded,
}

public static class DayStates
{
    /// <param name="planned">Whether the day was worked out.</param>
    /// <param name="recorded">Whether something was seen that day.</param>
    public static DayState Of(DateOnly day, DateOnly today, SchoolCalendar calendar, bool planned, bool recorded)
    {
        ArgumentNullException.ThrowIfNull(calendar);
        return !calendar.IsSchoolDay(day) || calendar.Different(day) is { Kind: ClosureKind.NoLessons } ? DayState.Closed
            : recorded ? DayState.Recorded
            : !planned ? DayState.Open
            : day < today ? DayState.Taught
            : DayState.Planned;
    }
}
