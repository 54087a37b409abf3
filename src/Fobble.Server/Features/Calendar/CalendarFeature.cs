using System.Globalization;
using System.Text;
using Fobble.Core.Calendars;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Formats.Calendars;
using Fobble.Formats.Csv;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Calendar;

public sealed record ListedClosure(string Name, DateOnly First, DateOnly Last, ClosureKind Kind, bool Known);

public sealed record ClosuresPreview(
    IReadOnlyList<ListedClosure> Closures,
    int New,
    IReadOnlyList<FileFault> Faults,
    IReadOnlyList<string> Notes,
    bool CanBeTaken
);

/// <summary>Closures in, lessons out: as a file, or at an address that calendar programs ask by themselves.</summary>
internal sealed class CalendarFeature : IFeature
{
    private const int LargestFile = 2_000_000;

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        var lead = ofClass.MapGroup("/calendar").RequireAuthorization(Policies.Lead);
        var school = ofClass.MapGroup("/calendar").RequireAuthorization(Policies.LeadSchool);
        school.MapPost("/closures/preview", PreviewAsync).Accepts<Stream>("application/octet-stream");
        school.MapPost("/closures", TakeAsync).Accepts<Stream>("application/octet-stream").WithTrace(TraceKind.ClosuresChanged);
        lead.MapPost("/lessons", HandOutAsync).WithTrace(TraceKind.LessonsOut);
        CalendarAddresses.Map(api, ofClass);
    }

    private static async Task<Results<Ok<ClosuresPreview>, ProblemHttpResult>> PreviewAsync(ClassRoom room, Stream body, CancellationToken stop)
    {
        if (await UploadedFile.ReadAsync(body, LargestFile, stop) is not { } file)
        {
            return UploadedFile.TooLarge(Phrase("a calendar"), LargestFile);
        }

        return TypedResults.Ok((await ReadAsync(room, file, stop)).Preview);
    }

    /// <summary>Takes what is new in a file into the school's calendar: all of it or nothing.</summary>
    private static async Task<Results<Ok<ClosuresPreview>, ProblemHttpResult>> TakeAsync(
        ClassRoom room,
        Stream body,
        Decisions decisions,
        CancellationToken stop
    )
    {
        if (await UploadedFile.ReadAsync(body, LargestFile, stop) is not { } file)
        {
            return UploadedFile.TooLarge(Phrase("a calendar"), LargestFile);
        }

        // Read by the calendar of the moment in which it is taken: the same file sent twice at once adds its closures once.
        return TypedResults.Ok(
            await decisions.SettleAsync(
                Parts.Calendar,
                () => ReadAsync(room, file, stop),
                (db, reading) =>
                {
                    var (preview, closures) = reading;
                    RefusedException.Unless(
                        preview.CanBeTaken,
                        "file",
                        preview.Faults.Count > 0 ? Phrase($"Row {preview.Faults[0].Row}: {preview.Faults[0].Reason}") : Phrase("Nothing in the file is new.")
                    );
                    db.Closures.AddRange(
                        closures.Select(c => new ClosureRow
                        {
                            SchoolId = room.SchoolId,
                            Name = c.Name,
                            First = c.First,
                            Last = c.Last,
                            Kind = c.Kind,
                            OpenFrom = c.OpenFrom,
                            OpenUntil = c.OpenUntil,
                        })
                    );
                    return Task.FromResult(preview);
                },
                stop
            )
        );
    }

    private static async Task<(ClosuresPreview Preview, IReadOnlyList<Closure> New)> ReadAsync(ClassRoom room, byte[] file, CancellationToken stop)
    {
        var calendar = await room.CalendarAsync(stop);
        var (from, until) =
            calendar.Terms.Count == 0 ? (DateOnly.MinValue.AddDays(100), DateOnly.MaxValue.AddDays(-100)) : (calendar.Terms[0].First, calendar.Terms[^1].Last);
        var reading = ClosureFiles.Read(file, from, until);
        bool Known(Closure c) => calendar.Closures.Any(k => k.Name == c.Name && k.First == c.First && k.Last == c.Last);
        var fresh = reading.Closures.Where(c => !Known(c)).ToList();
        return (
            new(
                [.. reading.Closures.Select(c => new ListedClosure(c.Name, c.First, c.Last, c.Kind, Known(c)))],
                fresh.Count,
                reading.Faults,
                reading.Notes,
                reading.Faults.Count == 0 && fresh.Count > 0
            ),
            fresh
        );
    }

    /// <summary>
    /// The lessons to come as an iCalendar file. What was handed out is remembered: a lesson that has changed since comes with a higher number, and one
    /// that is off comes once more as cancelled, so that a calendar program takes each file in on top of the last.
    /// </summary>
    internal static async Task<FileContentHttpResult> HandOutAsync(ClassRoom room, Decisions decisions, TimeProvider clock, CancellationToken stop)
    {
        var events = await decisions.SettleAsync(
            Parts.Plan | Parts.Week | Parts.Groups | Parts.Calendar,
            () => EventsAsync(room, stop),
            async (db, now) =>
                Remember(
                    db,
                    room,
                    now,
                    await db.CalendarEntries.Where(e => e.ClassId == room.Id.Value && e.Day >= room.Today).ToDictionaryAsync(e => e.Uid, stop),
                    clock.GetUtcNow()
                ),
            stop
        );
        return TypedResults.File(
            Encoding.UTF8.GetBytes(LessonCalendar.Write(Phrase($"{room.Name}: numbers"), events.OrderBy(e => e.Day).ThenBy(e => e.Start))),
            "text/calendar; charset=utf-8",
            "lessons.ics"
        );
    }

    private static List<LessonEvent> Remember(
        FobbleDb db,
        ClassRoom room,
        IReadOnlyList<LessonEvent> now,
        Dictionary<string, CalendarEntryRow> known,
        DateTimeOffset at
    )
    {
        List<LessonEvent> events = [];
        foreach (var lesson in now)
        {
            var content = $"{lesson.Start:HH\\:mm}|{lesson.Minutes}|{lesson.Summary}|{lesson.Where}|{lesson.Description}";
            if (!known.TryGetValue(lesson.Uid, out var entry))
            {
                entry = new()
                {
                    Uid = lesson.Uid,
                    ClassId = room.Id.Value,
                    Day = lesson.Day,
                    Content = content,
                    Changed = at,
                };
                db.CalendarEntries.Add(entry);
            }
            else if (entry.Content != content || entry.Cancelled)
            {
                (entry.Content, entry.Cancelled, entry.Sequence, entry.Changed) = (content, false, entry.Sequence + 1, at);
            }

            events.Add(lesson with { Sequence = entry.Sequence, Changed = entry.Changed });
        }

        foreach (var gone in known.Values.Where(e => now.All(n => n.Uid != e.Uid)))
        {
            if (!gone.Cancelled)
            {
                (gone.Cancelled, gone.Sequence, gone.Changed) = (true, gone.Sequence + 1, at);
            }

            var parts = gone.Content.Split('|');
            events.Add(
                new(
                    gone.Uid,
                    gone.Sequence,
                    gone.Changed,
                    gone.Day,
                    TimeOnly.ParseExact(parts[0], "HH:mm", CultureInfo.InvariantCulture),
                    int.Parse(parts[1], CultureInfo.InvariantCulture),
                    parts[2],
                    parts[3],
                    "",
                    true
                )
            );
        }

        return events;
    }

    // A place in the timetable on a day is one event for good, whatever is done in it.
    private static async Task<IReadOnlyList<LessonEvent>> EventsAsync(ClassRoom room, CancellationToken stop)
    {
        var today = room.Today;
        var timetable = await room.TimetableAsync(stop);
        var until = await room.YearEndsAsync(stop);
        var year = (await room.PlanAsync(stop))?.Document.Plan;
        var rows = (
            await room.Db.PlannedDays.Include(d => d.More).Where(d => d.ClassId == room.Id.Value && d.Day >= today && d.Day <= until).ToListAsync(stop)
        ).ToDictionary(d => d.Day);
        var sessions = await room.SessionsAsync(today, until, stop);
        List<LessonEvent> events = [];
        foreach (var day in timetable.Calendar.Days(today, until))
        {
            List<string> lessons = rows.TryGetValue(day, out var row)
                ? [row.FocusSkill, .. row.More.Select(m => m.Skill)]
                : [.. (year?.On(day) ?? []).Select(l => l.Skill.Value)];
            var slots = timetable.On(day);
            foreach (
                var (slot, i) in slots
                    .Where(s => s.Kind == SlotKind.Carpet)
                    .Select((s, i) => (s, i))
                    .Where(p => p.i < lessons.Count && room.Map.Has(new(lessons[p.i])))
            )
            {
                events.Add(Event(room, slot, day, Phrase($"Carpet: {room.Map[new(lessons[i])].Short}"), room.Map[new(lessons[i])].ICan));
            }

            foreach (var slot in slots.Where(s => s.Kind == SlotKind.Group))
            {
                if (sessions.FirstOrDefault(s => s.Day == day && s.SlotId == slot.Id) is { } session && room.Map.Has(new(session.Skill)))
                {
                    events.Add(Event(room, slot, day, Phrase($"Group: {room.Map[new(session.Skill)].Short}"), slot.Adult));
                }
            }
        }

        return events;
    }

    private static LessonEvent Event(ClassRoom room, LessonSlot slot, DateOnly day, string summary, string description) =>
        new(
            $"class-{room.Id.Value}-slot-{slot.Id}-{day:yyyyMMdd}@fobble",
            0,
            default,
            day,
            slot.Start,
            slot.Minutes,
            Plain(summary),
            Plain(slot.Where),
            Plain(description),
            false
        );

    // The stroke parts what is remembered of an event.
    private static string Plain(string text) => text.Replace('|', '/');
}
