using Fobble.Core.Calendars;
using Fobble.Core.Planning;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.SetUp;

public sealed record TermView(string Name, Season Season, DateOnly First, DateOnly Last);

/// <param name="OfClass">This class's own; else the whole school's.</param>
public sealed record ClosureView(int Id, string Name, DateOnly First, DateOnly Last, ClosureKind Kind, TimeOnly? OpenFrom, TimeOnly? OpenUntil, bool OfClass);

public sealed record SlotView(int Id, SlotKind Kind, DayOfWeek Weekday, TimeOnly Start, int Minutes, int AdultId, string Adult, string Where);

public sealed record AdultView(int Id, string FullName, string Email, ClassRole Role);

/// <param name="Used">Minutes of these hours that small groups take already.</param>
public sealed record HoursView(int Id, int AdultId, string Adult, DayOfWeek Weekday, TimeOnly From, TimeOnly Until, int Used);

/// <param name="TimeZone">Of the school, by its IANA name.</param>
/// <param name="Locale">How the school writes dates, as a BCP 47 tag.</param>
/// <param name="Locales">The ways there are.</param>
/// <param name="SchoolLeads">Who answers for what is the school's.</param>
public sealed record TimetableView(
    string TimeZone,
    string Locale,
    IReadOnlyList<string> Locales,
    IReadOnlyList<TermView> Terms,
    IReadOnlyList<ClosureView> Closures,
    IReadOnlyList<SlotView> Slots,
    IReadOnlyList<AdultView> Adults,
    IReadOnlyList<HoursView> Hours,
    IReadOnlyList<string> SchoolLeads
);

public sealed record NewHours(int AdultId, DayOfWeek Weekday, TimeOnly From, TimeOnly Until);

/// <param name="OfClass">For this class only: a trip, say.</param>
public sealed record NewClosure(string Name, DateOnly First, DateOnly Last, ClosureKind Kind, TimeOnly? OpenFrom, TimeOnly? OpenUntil, bool OfClass);

public sealed record NewSlot(SlotKind Kind, DayOfWeek Weekday, TimeOnly Start, int Minutes, int AdultId, string Where);

/// <param name="TimeZone">By its IANA name.</param>
/// <param name="Locale">As a BCP 47 tag.</param>
public sealed record SchoolPlace(string TimeZone, string Locale);

/// <summary>Calendar, timetable, the school's place in the world, and the class's adults.</summary>
internal sealed class SetUpFeature : IFeature
{
    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        ofClass.MapGet("/timetable", GetAsync);
        var lead = ofClass.MapGroup("/").RequireAuthorization(Policies.Lead);
        var school = ofClass.MapGroup("/").RequireAuthorization(Policies.LeadSchool);
        school.MapPut("/school", SetPlaceAsync).WithTrace(TraceKind.PlaceChanged);
        school.MapPut("/terms", SetTermsAsync).WithTrace(TraceKind.TermsChanged);
        lead.MapPost("/closures", AddClosureAsync).WithTrace(TraceKind.ClosuresChanged);
        lead.MapDelete("/closures/{id:int}", RemoveClosureAsync).WithTrace(TraceKind.ClosuresChanged);
        lead.MapPost("/slots", AddSlotAsync);
        lead.MapDelete("/slots/{slotId:int}", RemoveSlotAsync);
        lead.MapPost("/hours", AddHoursAsync);
        lead.MapDelete("/hours/{id:int}", RemoveHoursAsync);
    }

    private static async Task<Ok<TimetableView>> GetAsync(ClassRoom room, CancellationToken stop)
    {
        var (db, classId, schoolId) = (room.Db, room.Id.Value, room.SchoolId);
        var terms = await db
            .Terms.Where(t => t.SchoolId == schoolId)
            .OrderBy(t => t.First)
            .Select(t => new TermView(t.Name, t.Season, t.First, t.Last))
            .ToListAsync(stop);
        var closures = await db
            .Closures.Where(c => c.SchoolId == schoolId && (c.ClassId == null || c.ClassId == classId))
            .OrderBy(c => c.First)
            .Select(c => new ClosureView(c.Id, c.Name, c.First, c.Last, c.Kind, c.OpenFrom, c.OpenUntil, c.ClassId != null))
            .ToListAsync(stop);
        var slots = await db
            .LessonSlots.Where(s => s.ClassId == classId && !s.Retired)
            .OrderBy(s => s.Weekday)
            .ThenBy(s => s.Start)
            .Select(s => new SlotView(s.Id, s.Kind, s.Weekday, s.Start, s.Minutes, s.AdultId, s.Adult!.FullName, s.Where))
            .ToListAsync(stop);
        var adults = await db
            .Memberships.Where(m => m.ClassId == classId)
            .OrderBy(m => m.Role)
            .Select(m => new AdultView(m.AdultId, m.Adult!.FullName, m.Adult.Email ?? "", m.Role))
            .ToListAsync(stop);
        var hours = await db.AdultHours.Where(h => h.ClassId == classId).OrderBy(h => h.AdultId).ThenBy(h => h.Weekday).ThenBy(h => h.From).ToListAsync(stop);
        return TypedResults.Ok(
            new TimetableView(
                room.Zone.Id,
                room.Locale,
                SchoolLocale.All,
                terms,
                closures,
                slots,
                adults,
                [
                    .. hours.Select(h => new HoursView(
                        h.Id,
                        h.AdultId,
                        adults.FirstOrDefault(a => a.Id == h.AdultId)?.FullName ?? "",
                        h.Weekday,
                        h.From,
                        h.Until,
                        SlotRules.MinutesIn(
                            new(h.Weekday, h.From, h.Until),
                            slots
                                .Where(s => s.Kind == SlotKind.Group && s.AdultId == h.AdultId)
                                .Select(s => (TimeSlice.Of(s.Weekday, s.Start, s.Minutes), s.Minutes))
                        )
                    )),
                ],
                await db.SchoolLeads.Where(l => l.SchoolId == schoolId).OrderBy(l => l.AdultId).Select(l => l.Adult!.FullName).ToListAsync(stop)
            )
        );
    }

    private static async Task<NoContent> SetPlaceAsync(ClassRoom room, SchoolPlace place, Decisions decisions, SchoolLanguage language, CancellationToken stop)
    {
        Refusals refusals = new();
        refusals.Check("timeZone", SchoolZone.Named(place.TimeZone) is not null, Phrase("There is no such time zone."));
        refusals.Check("locale", SchoolLocale.IsKnown(place.Locale), Phrase("Dates can’t be written like that."));
        refusals.ThrowIfAny();
        await decisions.DecideAsync(
            db =>
                db.Schools.Where(s => s.Id == room.SchoolId)
                    .ExecuteUpdateAsync(s => s.SetProperty(x => x.TimeZone, place.TimeZone).SetProperty(x => x.Locale, place.Locale), stop),
            stop
        );
        language.Changed();
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> SetTermsAsync(ClassRoom room, IReadOnlyList<TermView> terms, Decisions decisions, CancellationToken stop)
    {
        SchoolCalendar.CheckTerms([.. terms.Select(t => new Term(t.Name, t.Season, t.First, t.Last))]);
        await decisions.DecideAsync(
            async db =>
            {
                await db.Terms.Where(t => t.SchoolId == room.SchoolId).ExecuteDeleteAsync(stop);
                db.Terms.AddRange(
                    terms.Select(t => new TermRow
                    {
                        SchoolId = room.SchoolId,
                        Name = t.Name.Trim(),
                        Season = t.Season,
                        First = t.First,
                        Last = t.Last,
                    })
                );
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ForbidHttpResult>> AddClosureAsync(
        ClassRoom room,
        NewClosure closure,
        HttpContext http,
        IAuthorizationService may,
        Decisions decisions,
        CancellationToken stop
    )
    {
        // A class's own trip is its lead's; what closes the school is the school's.
        if (!closure.OfClass && !await LeadsSchoolAsync(may, http))
        {
            return TypedResults.Forbid();
        }

        var half = closure.Kind == ClosureKind.HalfDay;
        Closure kept = new(closure.Name.Trim(), closure.First, closure.Last)
        {
            Kind = closure.Kind,
            OpenFrom = half ? closure.OpenFrom : null,
            OpenUntil = half ? closure.OpenUntil : null,
        };
        kept.Check();
        await decisions.DecideAsync(
            db =>
            {
                db.Closures.Add(
                    new ClosureRow
                    {
                        SchoolId = room.SchoolId,
                        ClassId = closure.OfClass ? room.Id.Value : null,
                        Name = kept.Name,
                        First = kept.First,
                        Last = kept.Last,
                        Kind = kept.Kind,
                        OpenFrom = kept.OpenFrom,
                        OpenUntil = kept.OpenUntil,
                    }
                );
                return Task.CompletedTask;
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ForbidHttpResult>> RemoveClosureAsync(
        ClassRoom room,
        int id,
        HttpContext http,
        IAuthorizationService may,
        Decisions decisions,
        CancellationToken stop
    )
    {
        var ofSchool = await LeadsSchoolAsync(may, http);
        if (!ofSchool && await room.Db.Closures.AnyAsync(c => c.Id == id && c.ClassId == null && c.SchoolId == room.SchoolId, stop))
        {
            return TypedResults.Forbid();
        }

        await decisions.DecideAsync(
            db =>
                db.Closures.Where(c => c.Id == id && (c.ClassId == room.Id.Value || (ofSchool && c.ClassId == null && c.SchoolId == room.SchoolId)))
                    .ExecuteDeleteAsync(stop),
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<bool> LeadsSchoolAsync(IAuthorizationService may, HttpContext http) =>
        (await may.AuthorizeAsync(http.User, http, Policies.LeadSchool)).Succeeded;

    private static async Task<NoContent> AddSlotAsync(ClassRoom room, NewSlot slot, Decisions decisions, CancellationToken stop)
    {
        await CheckAdultAsync(room, new(slot.AdultId), stop);
        await decisions.DecideAsync(
            async db =>
            {
                var busy = await db.LessonSlots.Where(s => s.ClassId == room.Id.Value && !s.Retired && s.AdultId == slot.AdultId).ToListAsync(stop);
                var hours = await db.AdultHours.Where(h => h.ClassId == room.Id.Value && h.AdultId == slot.AdultId).ToListAsync(stop);
                SlotRules.CheckLesson(
                    slot.Kind,
                    slot.Weekday,
                    slot.Start,
                    slot.Minutes,
                    slot.Where,
                    busy.Select(s => TimeSlice.Of(s.Weekday, s.Start, s.Minutes)),
                    [.. hours.Select(h => new TimeSlice(h.Weekday, h.From, h.Until))]
                );
                db.LessonSlots.Add(
                    new LessonSlotRow
                    {
                        ClassId = room.Id.Value,
                        Kind = slot.Kind,
                        Weekday = slot.Weekday,
                        Start = slot.Start,
                        Minutes = slot.Minutes,
                        AdultId = slot.AdultId,
                        Where = slot.Where.Trim(),
                    }
                );
            },
            stop
        );
        return TypedResults.NoContent();
    }

    // Sessions of the past point at their slot, so it is retired and not deleted.
    private static async Task<NoContent> RemoveSlotAsync(ClassRoom room, SlotId slotId, Decisions decisions, CancellationToken stop)
    {
        await decisions.DecideAsync(
            db =>
                db.LessonSlots.Where(s => s.Id == slotId.Value && s.ClassId == room.Id.Value)
                    .ExecuteUpdateAsync(s => s.SetProperty(x => x.Retired, true), stop),
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> AddHoursAsync(ClassRoom room, NewHours hours, Decisions decisions, CancellationToken stop)
    {
        SlotRules.CheckSlice(new(hours.Weekday, hours.From, hours.Until), Phrase("Hours are"));
        await CheckAdultAsync(room, new(hours.AdultId), stop);
        await decisions.DecideAsync(
            db =>
            {
                db.AdultHours.Add(
                    new AdultHoursRow
                    {
                        ClassId = room.Id.Value,
                        AdultId = hours.AdultId,
                        Weekday = hours.Weekday,
                        From = hours.From,
                        Until = hours.Until,
                    }
                );
                return Task.CompletedTask;
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> RemoveHoursAsync(ClassRoom room, int id, Decisions decisions, CancellationToken stop)
    {
        await decisions.DecideAsync(db => db.AdultHours.Where(h => h.Id == id && h.ClassId == room.Id.Value).ExecuteDeleteAsync(stop), stop);
        return TypedResults.NoContent();
    }

    private static async Task CheckAdultAsync(ClassRoom room, AdultId adult, CancellationToken stop) =>
        RefusedException.Unless(
            await room.Db.Memberships.AnyAsync(m => m.ClassId == room.Id.Value && m.AdultId == adult.Value, stop),
            "adultId",
            Phrase("This adult does not belong to the class.")
        );
}
