namespace Fobble.Core.Planning;

/// <summary>A stretch of a weekday, from its start up to its end.</summary>
public readonly record struct TimeSlice(DayOfWeek Weekday, TimeOnly From, TimeOnly Until)
{
    public static TimeSlice Of(DayOfWeek weekday, TimeOnly start, int minutes) => new(weekday, start, start.AddMinutes(minutes));

    public bool Overlaps(TimeSlice other) => Weekday == other.Weekday && From < other.Until && other.From < Until;

    public bool Holds(TimeSlice other) => Weekday == other.Weekday && From <= other.From && other.Until <= Until;

    /// <summary>Whether a lesson begins within these hours.</summary>
    public bool Begins(TimeSlice lesson) => Weekday == lesson.Weekday && From <= lesson.From && lesson.From < Until;
}

/// <summary>What a timetable has to keep to.</summary>
public static class SlotRules
{
    private const int ShortestMinutes = 5;
    private const int LongestMinutes = 120;

    /// <summary>Refuses a lesson that can't stand in a timetable.</summary>
    /// <param name="busy">Lessons that the same adult has.</param>
    /// <param name="hours">Hours in which the adult takes small groups; empty for all.</param>
    /// <exception cref="RefusedException">It can't.</exception>
    public static void CheckLesson(
        SlotKind kind,
        DayOfWeek weekday,
        TimeOnly start,
        int minutes,
        string where,
        IEnumerable<TimeSlice> busy,
        IReadOnlyList<TimeSlice> hours
    )
    {
        ArgumentNullException.ThrowIfNull(hours);
        RefusedException.Unless(
            minutes is >= ShortestMinutes and <= LongestMinutes && !string.IsNullOrWhiteSpace(where) && Enum.IsDefined(kind) && IsWeekday(weekday),
            "minutes",
            Phrase($"A lesson is on a weekday, has a place, and takes {ShortestMinutes} to {LongestMinutes} minutes.")
        );
        var lesson = TimeSlice.Of(weekday, start, minutes);
        RefusedException.Unless(!busy.Any(lesson.Overlaps), "start", Phrase("This adult has another lesson at that time."));
        RefusedException.Unless(
            kind != SlotKind.Group || hours.Count == 0 || hours.Any(h => h.Holds(lesson)),
            "start",
            Phrase("This is outside the hours in which this adult takes small groups.")
        );
    }

    /// <summary>Refuses a stretch of a week that is none.</summary>
    /// <param name="what">What it is, at the start of a sentence.</param>
    public static void CheckSlice(TimeSlice slice, string what) =>
        RefusedException.Unless(slice.Until > slice.From && IsWeekday(slice.Weekday), "until", Phrase($"{what} on a weekday and end after they begin."));

    /// <summary>Minutes of some hours that lessons take: those that begin within them.</summary>
    public static int MinutesIn(TimeSlice hours, IEnumerable<(TimeSlice Slice, int Minutes)> lessons) =>
        lessons.Where(l => hours.Begins(l.Slice)).Sum(l => l.Minutes);

    public static bool IsWeekday(DayOfWeek day) => day is not (DayOfWeek.Saturday or DayOfWeek.Sunday);
}
