using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Serialization;

namespace Fobble.Formats.Calendars;

/// <summary>A lesson as calendar programs know it.</summary>
/// <param name="Uid">Stays with the lesson for good.</param>
/// <param name="Sequence">Raised by one with each change (RFC 5545, 3.8.7.4).</param>
/// <param name="Start">By the school's own clock: the same hour in summer and winter.</param>
/// <param name="Cancelled">It was handed out before and is off.</param>
public sealed record LessonEvent(
    string Uid,
    int Sequence,
    DateTimeOffset Changed,
    DateOnly Day,
    TimeOnly Start,
    int Minutes,
    string Summary,
    string Where,
    string Description,
    bool Cancelled
);

/// <summary>Lessons as an iCalendar file (RFC 5545). Names no child: calendars are seen by others.</summary>
public static class LessonCalendar
{
    public static string Write(string name, IEnumerable<LessonEvent> events)
    {
        ArgumentNullException.ThrowIfNull(events);
        Calendar calendar = new() { ProductId = "-//Fobble//Lessons//EN", Method = "PUBLISH" };
        calendar.AddProperty("X-WR-CALNAME", name);
        foreach (var lesson in events)
        {
            calendar.Events.Add(
                new CalendarEvent
                {
                    Uid = lesson.Uid,
                    Sequence = lesson.Sequence,
                    DtStamp = new CalDateTime(lesson.Changed.UtcDateTime, "UTC"),
                    LastModified = new CalDateTime(lesson.Changed.UtcDateTime, "UTC"),
                    Start = new CalDateTime(lesson.Day, lesson.Start),
                    Duration = Duration.FromMinutes(lesson.Minutes),
                    Summary = lesson.Summary,
                    Location = lesson.Where,
                    Description = lesson.Description,
                    Status = lesson.Cancelled ? EventStatus.Cancelled : EventStatus.Confirmed,
                }
            );
        }

        return new CalendarSerializer().SerializeToString(calendar) ?? throw new InvalidOperationException("An iCalendar file could not be written.");
    }
}
