using Fobble.Core.Calendars;

namespace Fobble.Core.Planning;

/// <summary>The weekly lessons of a class on the calendar: which of them are held on a day.</summary>
public sealed class Timetable(SchoolCalendar calendar, IReadOnlyList<LessonSlot> slots)
{
    public SchoolCalendar Calendar { get; } = calendar;

    /// <summary>The same weekly lessons on another calendar.</summary>
    public Timetable On(SchoolCalendar other) => new(other, slots);

    /// <summary>The lessons held on a day, in order of time: none on a closed day or a trip, on a half day those that fit into it.</summary>
    public IReadOnlyList<LessonSlot> On(DateOnly day) =>
        [.. slots.Where(s => s.Weekday == day.DayOfWeek && Calendar.Holds(day, s.Start, s.Minutes)).OrderBy(s => s.Start).ThenBy(s => s.Id)];

    /// <summary>How many whole-class lessons a day has room for.</summary>
    public int CarpetPlaces(DateOnly day) =>
        slots.Count(s => s.Kind == SlotKind.Carpet && s.Weekday == day.DayOfWeek && Calendar.Holds(day, s.Start, s.Minutes));

    /// <summary>Days of a week that are not past and have room for a whole-class lesson.</summary>
    public IReadOnlyList<DateOnly> OpenDays(DateOnly monday, DateOnly today) => [.. Calendar.DaysOfWeek(monday).Where(d => d >= today && CarpetPlaces(d) > 0)];

    /// <summary>The week in as few lines as it takes: a line for lessons of one kind that begin at one time.</summary>
    public IReadOnlyList<string> InWords() =>
        [
            .. slots
                .GroupBy(s => (s.Start, s.Kind, s.Minutes))
                .OrderBy(g => g.Key.Start)
                .Select(g =>
                    Phrase(
                        $"{Words.Clock(g.Key.Start)} {NameOf(g.Key.Kind)}, {g.Key.Minutes} minutes, {DaysOf([.. g.Select(s => s.Weekday).Distinct().Order()])}"
                    )
                ),
        ];

    private static string NameOf(SlotKind kind) =>
        kind switch
        {
            SlotKind.Carpet => Phrase("all together"),
            SlotKind.Group => Phrase("small group"),
            _ => Phrase("choice time"),
        };

    private static string DaysOf(IReadOnlyList<DayOfWeek> days) => days.Count == 5 ? Phrase("every day") : Words.List([.. days.Select(d => $"{d}s")]);
}
