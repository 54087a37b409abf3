using Fobble.Core.Calendars;

namespace Fobble.Core.Planning;

/// <summary>The weekly lessons of a class on the calendar: which of them are held on a day.</summary>
public sealed class Timetable(SchoolCalendar calendar, IReadOnlyList<LessonSlot> slots, IReadOnlyList<CoveredPlace>? covered = null)
{
    public SchoolCalendar Calendar { get; } = calendar;

    /// <summary>The same weekly lessons on another calendar.</summary>
    public Timetable On(SchoolCalendar other) => new(other, slots, covered);

    /// <summary>
    /// The lessons held on a day, in order of time: none on a closed day or a trip, on a half day those that fit into it. Each with the adult who takes it that day.
    /// </summary>
    public IReadOnlyList<LessonSlot> On(DateOnly day) =>
        [
            .. slots
                .Where(s => s.Weekday == day.DayOfWeek && Calendar.Holds(day, s.Start, s.Minutes))
                .OrderBy(s => s.Start)
                .ThenBy(s => s.Id)
                .Select(s => StandsIn(s.Id, day) is { } other ? s with { Adult = other.Adult } : s),
        ];

    /// <summary>Who takes a place on a day whose own adult is away, the one that came first where there are two; null where nobody has to.</summary>
    public CoveredPlace? StandsIn(int slot, DateOnly day) =>
        covered?.Where(s => s.Slot == slot && s.From <= day && day <= s.Until).OrderBy(s => s.From).ThenBy(s => s.AdultId).FirstOrDefault();

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
