using Fobble.Core.Calendars;
using Fobble.Core.Planning;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Security;
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

public sealed record TimetableView(IReadOnlyList<TermView> Terms, IReadOnlyList<ClosureView> Closures, IReadOnlyList<SlotView> Slots, IReadOnlyList<AdultView> Adults, IReadOnlyList<HoursView> Hours);

public sealed record NewHours(int AdultId, DayOfWeek Weekday, TimeOnly From, TimeOnly Until);

/// <param name="OfClass">For this class only: a trip, say.</param>
public sealed record NewClosure(string Name, DateOnly First, DateOnly Last, ClosureKind Kind, TimeOnly? OpenFrom, TimeOnly? OpenUntil, bool OfClass);

public sealed record NewSlot(SlotKind Kind, DayOfWeek Weekday, TimeOnly Start, int Minutes, int AdultId, string Where);

public sealed record NewAdult(string FullName, string Email, string Password, ClassRole Role);

/// <summary>Calendar, timetable and the class's adults.</summary>
internal static class SetUpEndpoints
{
    public static void MapSetUp(this IEndpointRouteBuilder ofClass)
    {
        ofClass.MapGet("/timetable", GetAsync);
        var lead = ofClass.MapGroup("/").RequireAuthorization(Policies.Lead);
        lead.MapPut("/terms", SetTermsAsync);
        lead.MapPost("/closures", AddClosureAsync);
        lead.MapDelete("/closures/{id:int}", RemoveClosureAsync);
        lead.MapPost("/slots", AddSlotAsync);
        lead.MapDelete("/slots/{id:int}", RemoveSlotAsync);
        lead.MapPost("/hours", AddHoursAsync);
        lead.MapDelete("/hours/{id:int}", RemoveHoursAsync);
        lead.MapPost("/adults", AddAdultAsync);
    }

    private static async Task<Ok<TimetableView>> GetAsync(int classId, FobbleDb db, CancellationToken stop)
    {
        var school = db.Classes.Where(c => c.Id == classId).Select(c => c.SchoolId);
        var terms = await db.Terms.Where(t => school.Contains(t.SchoolId)).OrderBy(t => t.First).Select(t => new TermView(t.Name, t.Season, t.First, t.Last)).ToListAsync(stop);
        var closures = await db.Closures.Where(c => school.Contains(c.SchoolId) && (c.ClassId == null || c.ClassId == classId)).OrderBy(c => c.First)
            .Select(c => new ClosureView(c.Id, c.Name, c.First, c.Last, c.Kind, c.OpenFrom, c.OpenUntil, c.ClassId != null)).ToListAsync(stop);
        var slots = await db.LessonSlots.Where(s => s.ClassId == classId && !s.Retired).OrderBy(s => s.Weekday).ThenBy(s => s.Start)
            .Select(s => new SlotView(s.Id, s.Kind, s.Weekday, s.Start, s.Minutes, s.AdultId, s.Adult!.FullName, s.Where)).ToListAsync(stop);
        var adults = await db.Memberships.Where(m => m.ClassId == classId).OrderBy(m => m.Role).Select(m => new AdultView(m.AdultId, m.Adult!.FullName, m.Adult.Email ?? "", m.Role)).ToListAsync(stop);
        var hours = await db.AdultHours.Where(h => h.ClassId == classId).OrderBy(h => h.AdultId).ThenBy(h => h.Weekday).ThenBy(h => h.From).ToListAsync(stop);
        return TypedResults.Ok(new TimetableView(terms, closures, slots, adults,
        [
            .. hours.Select(h => new HoursView(
                h.Id, h.AdultId, adults.FirstOrDefault(a => a.Id == h.AdultId)?.FullName ?? "", h.Weekday, h.From, h.Until,
                slots.Where(s => s.Kind == SlotKind.Group && s.AdultId == h.AdultId && s.Weekday == h.Weekday && s.Start >= h.From && s.Start < h.Until).Sum(s => s.Minutes))),
        ]));
    }

    private static async Task<Results<NoContent, ValidationProblem>> SetTermsAsync(int classId, IReadOnlyList<TermView> terms, FobbleDb db, CancellationToken stop)
    {
        try
        {
            _ = new SchoolCalendar([.. terms.Select(t => new Term(t.Name, t.Season, t.First, t.Last))], []);
        }
        catch (ArgumentException fault)
        {
            return Faults.One("terms", fault.Message);
        }

        if (terms.Count == 0 || terms.Any(t => string.IsNullOrWhiteSpace(t.Name)) || terms.Any(t => t.Last.DayNumber - t.First.DayNumber > 366))
        {
            return Faults.One("terms", "Give each term a name, and not more than a year.");
        }

        var schoolId = await db.Classes.Where(c => c.Id == classId).Select(c => c.SchoolId).SingleAsync(stop);
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        await db.Terms.Where(t => t.SchoolId == schoolId).ExecuteDeleteAsync(stop);
        db.Terms.AddRange(terms.Select(t => new TermRow { SchoolId = schoolId, Name = t.Name.Trim(), Season = t.Season, First = t.First, Last = t.Last }));
        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ValidationProblem>> AddClosureAsync(int classId, NewClosure closure, FobbleDb db, CancellationToken stop)
    {
        Faults faults = new();
        faults.Check("name", !string.IsNullOrWhiteSpace(closure.Name), "Say what for.");
        faults.Check("last", closure.Last >= closure.First, "It does not end before it begins.");
        faults.Check("kind", Enum.IsDefined(closure.Kind), "There is no such kind of day.");
        faults.Check("openUntil", closure.Kind != ClosureKind.HalfDay || closure.OpenFrom is not null || closure.OpenUntil is not null, "A half day says from when, or until when, there is school.");
        faults.Check("openFrom", !(closure.OpenFrom >= closure.OpenUntil), "School begins before it ends.");
        if (!faults.None)
        {
            return faults.ToProblem("This can’t go into the calendar.");
        }

        var schoolId = await db.Classes.Where(c => c.Id == classId).Select(c => c.SchoolId).SingleAsync(stop);
        var half = closure.Kind == ClosureKind.HalfDay;
        db.Closures.Add(new ClosureRow
        {
            SchoolId = schoolId, ClassId = closure.OfClass ? classId : null, Name = closure.Name.Trim(), First = closure.First, Last = closure.Last, Kind = closure.Kind,
            OpenFrom = half ? closure.OpenFrom : null, OpenUntil = half ? closure.OpenUntil : null,
        });
        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> RemoveClosureAsync(int classId, int id, FobbleDb db, CancellationToken stop)
    {
        await db.Closures.Where(c => c.Id == id && (c.ClassId == null || c.ClassId == classId) && db.Classes.Any(k => k.Id == classId && k.SchoolId == c.SchoolId)).ExecuteDeleteAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ValidationProblem>> AddSlotAsync(int classId, NewSlot slot, FobbleDb db, CancellationToken stop)
    {
        if (slot.Minutes is < 5 or > 120 || string.IsNullOrWhiteSpace(slot.Where) || !Enum.IsDefined(slot.Kind) || slot.Weekday is DayOfWeek.Saturday or DayOfWeek.Sunday)
        {
            return Faults.One("minutes", "A lesson is on a weekday, has a place, and takes 5 to 120 minutes.");
        }

        if (!await db.Memberships.AnyAsync(m => m.ClassId == classId && m.AdultId == slot.AdultId, stop))
        {
            return Faults.One("adultId", "This adult does not belong to the class.");
        }

        var end = slot.Start.AddMinutes(slot.Minutes);
        var busy = await db.LessonSlots.Where(s => s.ClassId == classId && !s.Retired && s.AdultId == slot.AdultId && s.Weekday == slot.Weekday).Select(s => new { s.Start, s.Minutes }).ToListAsync(stop);
        if (busy.Any(s => s.Start < end && slot.Start < s.Start.AddMinutes(s.Minutes)))
        {
            return Faults.One("start", "This adult has another lesson at that time.");
        }

        var hours = await db.AdultHours.Where(h => h.ClassId == classId && h.AdultId == slot.AdultId).ToListAsync(stop);
        if (slot.Kind == SlotKind.Group && hours.Count > 0 && !hours.Any(h => h.Weekday == slot.Weekday && h.From <= slot.Start && end <= h.Until))
        {
            return Faults.One("start", "This is outside the hours in which this adult takes small groups.");
        }

        db.LessonSlots.Add(new LessonSlotRow { ClassId = classId, Kind = slot.Kind, Weekday = slot.Weekday, Start = slot.Start, Minutes = slot.Minutes, AdultId = slot.AdultId, Where = slot.Where.Trim() });
        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }

    // Sessions of the past point at their slot, so it is retired and not deleted.
    private static async Task<NoContent> RemoveSlotAsync(int classId, int id, FobbleDb db, CancellationToken stop)
    {
        await db.LessonSlots.Where(s => s.Id == id && s.ClassId == classId).ExecuteUpdateAsync(s => s.SetProperty(x => x.Retired, true), stop);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ValidationProblem>> AddHoursAsync(int classId, NewHours hours, FobbleDb db, CancellationToken stop)
    {
        if (hours.Until <= hours.From || hours.Weekday is DayOfWeek.Saturday or DayOfWeek.Sunday)
        {
            return Faults.One("until", "Hours are on a weekday and end after they begin.");
        }

        if (!await db.Memberships.AnyAsync(m => m.ClassId == classId && m.AdultId == hours.AdultId, stop))
        {
            return Faults.One("adultId", "This adult does not belong to the class.");
        }

        db.AdultHours.Add(new AdultHoursRow { ClassId = classId, AdultId = hours.AdultId, Weekday = hours.Weekday, From = hours.From, Until = hours.Until });
        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> RemoveHoursAsync(int classId, int id, FobbleDb db, CancellationToken stop)
    {
        await db.AdultHours.Where(h => h.Id == id && h.ClassId == classId).ExecuteDeleteAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ValidationProblem>> AddAdultAsync(int classId, NewAdult request, UserManager<Adult> adults, FobbleDb db, CancellationToken stop)
    {
        if (string.IsNullOrWhiteSpace(request.FullName) || !Enum.IsDefined(request.Role))
        {
            return Faults.One("fullName", "The name is missing.");
        }

        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        var adult = new Adult { FullName = request.FullName.Trim(), UserName = request.Email.Trim(), Email = request.Email.Trim() };
        var created = await adults.CreateAsync(adult, request.Password);
        if (!created.Succeeded)
        {
            return Faults.One(created.Errors.Any(e => e.Code.StartsWith("Password", StringComparison.Ordinal)) ? "password" : "email", string.Join(" ", created.Errors.Select(e => e.Description)));
        }

        db.Memberships.Add(new Membership { ClassId = classId, AdultId = adult.Id, Role = request.Role });
        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
        return TypedResults.NoContent();
    }
}
