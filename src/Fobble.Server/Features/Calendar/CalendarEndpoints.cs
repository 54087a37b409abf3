using System.Text;
using Fobble.Core.Calendars;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Formats.Calendars;
using Fobble.Formats.Csv;
using Fobble.Server.Features.Planning;
using Fobble.Server.Features.Week;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Calendar;

public sealed record ListedClosure(string Name, DateOnly First, DateOnly Last, ClosureKind Kind, bool Known);

public sealed record ClosuresPreview(IReadOnlyList<ListedClosure> Closures, int New, IReadOnlyList<FileFault> Faults, IReadOnlyList<string> Notes, bool CanBeTaken);

/// <summary>Closures in, lessons out.</summary>
internal static class CalendarEndpoints
{
    private const int LargestFile = 2_000_000;

    public static void MapCalendar(this IEndpointRouteBuilder ofClass)
    {
        var lead = ofClass.MapGroup("/calendar").RequireAuthorization(Policies.Lead);
        lead.MapPost("/closures/preview", PreviewAsync).Accepts<Stream>("application/octet-stream");
        lead.MapPost("/closures", TakeAsync).Accepts<Stream>("application/octet-stream");
        lead.MapPost("/lessons", HandOutAsync);
    }

    private static async Task<Results<Ok<ClosuresPreview>, ProblemHttpResult>> PreviewAsync(int classId, Stream body, ClassFacts facts, CancellationToken stop)
    {
        if (await UploadedFile.ReadAsync(body, LargestFile, stop) is not { } file)
        {
            return UploadedFile.TooLarge("a calendar", LargestFile);
        }

        return TypedResults.Ok((await ReadAsync(classId, file, facts, stop)).Preview);
    }

    /// <summary>Takes what is new in a file into the school's calendar: all of it or nothing.</summary>
    private static async Task<Results<Ok<ClosuresPreview>, ValidationProblem, ProblemHttpResult>> TakeAsync(int classId, Stream body, ClassFacts facts, FobbleDb db, CancellationToken stop)
    {
        if (await UploadedFile.ReadAsync(body, LargestFile, stop) is not { } file)
        {
            return UploadedFile.TooLarge("a calendar", LargestFile);
        }

        var (preview, closures) = await ReadAsync(classId, file, facts, stop);
        if (!preview.CanBeTaken)
        {
            return Faults.One("file", preview.Faults.Count > 0 ? $"Row {preview.Faults[0].Row}: {preview.Faults[0].Reason}" : "Nothing in the file is new.");
        }

        var school = await db.Classes.Where(c => c.Id == classId).Select(c => c.SchoolId).SingleAsync(stop);
        db.Closures.AddRange(closures.Select(c => new ClosureRow { SchoolId = school, Name = c.Name, First = c.First, Last = c.Last, Kind = c.Kind, OpenFrom = c.OpenFrom, OpenUntil = c.OpenUntil }));
        await db.SaveChangesAsync(stop);
        return TypedResults.Ok(preview);
    }

    private static async Task<(ClosuresPreview Preview, IReadOnlyList<Closure> New)> ReadAsync(int classId, byte[] file, ClassFacts facts, CancellationToken stop)
    {
        var calendar = await facts.CalendarAsync(classId, stop);
        var (from, until) = calendar.Terms.Count == 0 ? (DateOnly.MinValue.AddDays(100), DateOnly.MaxValue.AddDays(-100)) : (calendar.Terms[0].First, calendar.Terms[^1].Last);
        var reading = ClosureFiles.Read(file, from, until);
        bool Known(Closure c) => calendar.Closures.Any(k => k.Name == c.Name && k.First == c.First && k.Last == c.Last);
        var fresh = reading.Closures.Where(c => !Known(c)).ToList();
        return (new([.. reading.Closures.Select(c => new ListedClosure(c.Name, c.First, c.Last, c.Kind, Known(c)))], fresh.Count, reading.Faults, reading.Notes, reading.Faults.Count == 0 && fresh.Count > 0), fresh);
    }

    /// <summary>
    /// The lessons to come as an iCalendar file. What was handed out is remembered: a lesson that has changed since comes with a higher number, and one
    /// that is off comes once more as cancelled, so that a calendar program takes each file in on top of the last.
    /// </summary>
    private static async Task<FileContentHttpResult> HandOutAsync(int classId, PlanReader plans, WeekReader weeks, ClassFacts facts, SkillMap map, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        var today = clock.Today();
        var name = await db.Classes.Where(c => c.Id == classId).Select(c => c.Name).SingleAsync(stop);
        var now = await EventsAsync(classId, today, plans, weeks, facts, map, db, stop);
        var known = await db.CalendarEntries.Where(e => e.ClassId == classId && e.Day >= today).ToDictionaryAsync(e => e.Uid, stop);
        List<LessonEvent> events = [];
        foreach (var lesson in now)
        {
            var content = $"{lesson.Start:HH\\:mm}|{lesson.Minutes}|{lesson.Summary}|{lesson.Where}|{lesson.Description}";
            if (!known.TryGetValue(lesson.Uid, out var entry))
            {
                entry = new() { Uid = lesson.Uid, ClassId = classId, Day = lesson.Day, Content = content, Changed = clock.GetUtcNow() };
                db.CalendarEntries.Add(entry);
            }
            else if (entry.Content != content || entry.Cancelled)
            {
                (entry.Content, entry.Cancelled, entry.Sequence, entry.Changed) = (content, false, entry.Sequence + 1, clock.GetUtcNow());
            }

            events.Add(lesson with { Sequence = entry.Sequence, Changed = entry.Changed });
        }

        foreach (var gone in known.Values.Where(e => now.All(n => n.Uid != e.Uid)))
        {
            if (!gone.Cancelled)
            {
                (gone.Cancelled, gone.Sequence, gone.Changed) = (true, gone.Sequence + 1, clock.GetUtcNow());
            }

            var parts = gone.Content.Split('|');
            events.Add(new(gone.Uid, gone.Sequence, gone.Changed, gone.Day, TimeOnly.ParseExact(parts[0], "HH:mm", System.Globalization.CultureInfo.InvariantCulture), int.Parse(parts[1], System.Globalization.CultureInfo.InvariantCulture), parts[2], parts[3], "", true));
        }

        await db.SaveChangesAsync(stop);
        return TypedResults.File(Encoding.UTF8.GetBytes(LessonCalendar.Write($"{name}: numbers", events.OrderBy(e => e.Day).ThenBy(e => e.Start))), "text/calendar; charset=utf-8", "lessons.ics");
    }

    // A place in the timetable on a day is one event for good, whatever is done in it.
    private static async Task<List<LessonEvent>> EventsAsync(int classId, DateOnly today, PlanReader plans, WeekReader weeks, ClassFacts facts, SkillMap map, FobbleDb db, CancellationToken stop)
    {
        var timetable = await facts.TimetableAsync(classId, stop);
        var until = timetable.Calendar.YearEnds(today);
        var year = (await plans.CurrentAsync(classId, stop))?.Document.Plan;
        var rows = (await db.PlannedDays.AsNoTracking().Include(d => d.More).Where(d => d.ClassId == classId && d.Day >= today && d.Day <= until).ToListAsync(stop)).ToDictionary(d => d.Day);
        var sessions = await weeks.SessionsAsync(classId, today, until, stop);
        List<LessonEvent> events = [];
        foreach (var day in timetable.Calendar.Days(today, until))
        {
            List<string> lessons = rows.TryGetValue(day, out var row) ? [row.FocusSkill, .. row.More.Select(m => m.Skill)] : [.. (year?.On(day) ?? []).Select(l => l.Skill.Value)];
            var slots = timetable.On(day);
            foreach (var (slot, i) in slots.Where(s => s.Kind == SlotKind.Carpet).Select((s, i) => (s, i)).Where(p => p.i < lessons.Count && map.Has(new(lessons[p.i]))))
            {
                events.Add(Event(classId, slot, day, $"Carpet: {map[new(lessons[i])].Short}", map[new(lessons[i])].ICan));
            }

            foreach (var slot in slots.Where(s => s.Kind == SlotKind.Group))
            {
                if (sessions.FirstOrDefault(s => s.Day == day && s.SlotId == slot.Id) is { } session && map.Has(new(session.Skill)))
                {
                    events.Add(Event(classId, slot, day, $"Group: {map[new(session.Skill)].Short}", slot.Adult));
                }
            }
        }

        return events;
    }

    private static LessonEvent Event(int classId, LessonSlot slot, DateOnly day, string summary, string description) =>
        new($"class-{classId}-slot-{slot.Id}-{day:yyyyMMdd}@fobble", 0, default, day, slot.Start, slot.Minutes, Plain(summary), Plain(slot.Where), Plain(description), false);

    // The stroke parts what is remembered of an event.
    private static string Plain(string text) => text.Replace('|', '/');
}
