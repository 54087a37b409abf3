using Fobble.Core.Calendars;

namespace Fobble.Core.Planning;

/// <summary>A lesson of every week, not yet in a timetable.</summary>
/// <param name="Adult">Which of the class's adults takes it, from 0.</param>
public sealed record WeeklyLesson(SlotKind Kind, DayOfWeek Weekday, TimeOnly Start, int Minutes, int Adult, string Where);

/// <summary>What a new class starts with, so that a week can be planned at once; all of it can be changed in Set-up.</summary>
public static class UsualWeek
{
    public static readonly TimeOnly CarpetStart = new(9, 15);

    /// <summary>Minutes of a whole-class lesson.</summary>
    public const int CarpetMinutes = 20;

    public static string CarpetWhere => Phrase("Carpet");

    /// <summary>Carpet in the morning, two small groups after it and choice time; a second adult takes the second group at the same time.</summary>
    /// <param name="adults">How many adults the class has, at least one.</param>
    public static IReadOnlyList<WeeklyLesson> Lessons(int adults) =>
        [
            .. Enumerable
                .Range(1, 5)
                .Select(d => (DayOfWeek)d)
                .SelectMany(day =>
                    new WeeklyLesson[]
                    {
                        new(SlotKind.Carpet, day, CarpetStart, CarpetMinutes, 0, CarpetWhere),
                        new(SlotKind.Group, day, new(9, 40), 15, 0, Phrase("Round table")),
                        new(SlotKind.Group, day, adults > 1 ? new(9, 40) : new(10, 0), 15, adults - 1, Phrase("Window table")),
                        new(SlotKind.Choice, day, new(10, 15), 30, adults - 1, Phrase("Centres")),
                    }
                ),
        ];
}
