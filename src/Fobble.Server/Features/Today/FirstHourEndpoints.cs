using Fobble.Core.Calendars;
using Fobble.Core.Planning;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.Planning;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Today;

/// <param name="Over">Nothing of this is shown any more.</param>
/// <param name="Week">The weekly lessons in words.</param>
/// <param name="Holidays">Usual where the school stands and not in its calendar yet.</param>
/// <param name="Plan">What a plan would hold, once there are children; else null.</param>
/// <param name="GroupsOn">A day of the week that the first groups are for.</param>
/// <param name="FirstSession">The first small group that is to come; null while there is none.</param>
public sealed record FirstHourView(
    bool Over,
    IReadOnlyList<FirstHourStep> Steps,
    IReadOnlyList<string> Week,
    IReadOnlyList<Closure> Holidays,
    string? Plan,
    DateOnly? GroupsOn,
    int? FirstSession
);

/// <param name="Later">Left for later, rather than done.</param>
public sealed record StepSettled(bool Later);

/// <param name="Holidays">First days of the usual ones that the school takes over.</param>
public sealed record TimetableSettled(IReadOnlyList<DateOnly> Holidays);

/// <summary>From an empty class to its first session card: what is there, and what comes next.</summary>
internal static class FirstHourEndpoints
{
    public static void MapFirstHour(this IEndpointRouteBuilder ofClass)
    {
        var lead = ofClass.MapGroup("/first-hour").RequireAuthorization(Policies.Lead);
        lead.MapGet("/", GetAsync);
        lead.MapPut("/steps/{step}", SettleAsync);
        lead.MapPut("/timetable", SettleTimetableAsync);
        lead.MapDelete("/", EndAsync);
    }

    private static async Task<Ok<FirstHourView>> GetAsync(ClassRoom room, HttpContext http, PlanReader plans, CancellationToken stop)
    {
        var row = await room.Db.Classes.SingleAsync(c => c.Id == room.Id.Value, stop);
        if (row.FirstHourOver)
        {
            return TypedResults.Ok(new FirstHourView(true, [], [], [], null, null, null));
        }

        var (calendar, timetable) = (await room.CalendarAsync(stop), await room.TimetableAsync(stop));
        var children = await room.ChildrenAsync(stop);
        var sessions = await room.SessionsAsync(room.Today, calendar.YearEnds(room.Today), stop);
        var seen = (await room.ObservationsAsync(stop)).Select(o => o.Child).Distinct().Count();
        var plan = await room.PlanAsync(stop);
        var canPlan = children.Count > 0 && plan is null && calendar.OnOrAfter(room.Today) is not null;
        return TypedResults.Ok(
            new FirstHourView(
                false,
                FirstHour.Steps(new(children.Count, seen, plan is not null, sessions.Count, row.StepsSettled.ToHashSet(), row.StepsLater.ToHashSet())),
                timetable.InWords(),
                !await LeadsSchoolAsync(room, http, stop)
                    ? []
                    : [.. UsualYear.Closures(room.Locale, room.Today).Where(u => u.Last >= room.Today && !calendar.Closures.Any(c => c.Covers(u.First)))],
                canPlan ? (await plans.OfferedAsync(PlanAsk.Usual, stop)).Sentence : null,
                GroupsOn(timetable, room.Today),
                sessions is [var first, ..] ? first.Id : null
            )
        );
    }

    private static async Task<NoContent> SettleAsync(ClassRoom room, FirstStep step, StepSettled settled, Decisions decisions, CancellationToken stop)
    {
        RefusedException.Unless(Enum.IsDefined(step), "step", Phrase("There is no such step."));
        await decisions.DecideAsync(
            async db =>
            {
                var row = await RowAsync(db, room, stop);
                row.StepsLater = With(row.StepsLater, step, on: settled.Later);
                row.StepsSettled = With(row.StepsSettled, step, on: !settled.Later);
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> SettleTimetableAsync(
        ClassRoom room,
        TimetableSettled settled,
        HttpContext http,
        Decisions decisions,
        CancellationToken stop
    )
    {
        // What closes the school is for whoever leads it.
        var usual = await LeadsSchoolAsync(room, http, stop) ? UsualYear.Closures(room.Locale, room.Today) : [];
        var taken = usual.Where(u => settled.Holidays.Contains(u.First)).ToList();
        RefusedException.Unless(
            taken.Count == settled.Holidays.Distinct().Count(),
            "holidays",
            Phrase("One of them is not usual here: put it in under Set-up.")
        );
        await decisions.DecideAsync(
            async db =>
            {
                var there = await db.Closures.Where(c => c.SchoolId == room.SchoolId).Select(c => c.First).ToListAsync(stop);
                db.Closures.AddRange(
                    taken
                        .Where(t => !there.Contains(t.First))
                        .Select(t => new ClosureRow
                        {
                            SchoolId = room.SchoolId,
                            Name = t.Name,
                            First = t.First,
                            Last = t.Last,
                        })
                );
                var row = await RowAsync(db, room, stop);
                row.StepsLater = With(row.StepsLater, FirstStep.Timetable, on: false);
                row.StepsSettled = With(row.StepsSettled, FirstStep.Timetable, on: true);
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static Task<bool> LeadsSchoolAsync(ClassRoom room, HttpContext http, CancellationToken stop)
    {
        var adult = http.User.AdultId().Value;
        return room.Db.SchoolLeads.AnyAsync(l => l.SchoolId == room.SchoolId && l.AdultId == adult, stop);
    }

    private static async Task<NoContent> EndAsync(ClassRoom room, Decisions decisions, CancellationToken stop)
    {
        await decisions.DecideAsync(
            db => db.Classes.Where(c => c.Id == room.Id.Value).ExecuteUpdateAsync(c => c.SetProperty(x => x.FirstHourOver, true), stop),
            stop
        );
        return TypedResults.NoContent();
    }

    private static Task<SchoolClass> RowAsync(FobbleDb db, ClassRoom room, CancellationToken stop) => db.Classes.SingleAsync(c => c.Id == room.Id.Value, stop);

    private static List<FirstStep> With(List<FirstStep> steps, FirstStep step, bool on) =>
        [.. steps.Where(s => s != step), .. on ? [step] : Array.Empty<FirstStep>()];

    // The week at hand while most of it is to come, else the next one with a place for a group.
    private static DateOnly? GroupsOn(Timetable timetable, DateOnly today) =>
        timetable
            .Calendar.Days(today.DayOfWeek is DayOfWeek.Monday ? today : SchoolCalendar.MondayOf(today).AddDays(7), timetable.Calendar.YearEnds(today))
            .Where(d => timetable.On(d).Any(s => s.Kind == SlotKind.Group))
            .Cast<DateOnly?>()
            .FirstOrDefault();
}
