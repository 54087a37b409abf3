using Fobble.Core.People;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.SetUp;
using Fobble.Server.Hosting;
using Fobble.Server.Mail;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.WholeSchool;

/// <param name="Lessons">Lessons a week that are the adult's in the class's timetable.</param>
/// <param name="From">First and last day of cover; null for who belongs to the class for good.</param>
/// <param name="InPlaceOf">Whose lessons cover takes on these days; null for nobody's.</param>
public sealed record AdultOfClass(int Id, string FullName, ClassRole Role, int Lessons, DateOnly? From, DateOnly? Until, string? InPlaceOf);

/// <param name="Children">How many; who they are is the class's business.</param>
/// <param name="ArchivedOn">Since when it can be read and no more written; null while it is taught.</param>
public sealed record ClassOfSchool(int Id, string Name, int Children, DateOnly? ArchivedOn, IReadOnlyList<AdultOfClass> Adults);

/// <param name="SecondStep">Signing in asks for more than the password.</param>
/// <param name="Invited">Has not chosen a password yet.</param>
/// <param name="MailFault">Why the mail that invites them does not go; null where it went, or none was sent.</param>
public sealed record AdultOfSchool(int Id, string FullName, string Email, bool LeadsSchool, bool SecondStep, bool Invited, string? MailFault);

public sealed record SchoolView(string Name, IReadOnlyList<ClassOfSchool> Classes, IReadOnlyList<AdultOfSchool> Adults);

/// <param name="LeadId">Its lead teacher, of the school's adults.</param>
/// <param name="Like">A class whose ways, timetable and cares it begins with; null for the usual ones.</param>
public sealed record NewClass(string Name, int LeadId, int? Like);

public sealed record ClassName(string Name);

public sealed record Archive(bool Archived);

public sealed record LeadsSchool(bool Leads);

/// <param name="Address">Of the page on which a new password is chosen, behind the address of the server: once, within a day.</param>
public sealed record PasswordLink(string Address);

/// <param name="Mailed">A mail with the link is on its way.</param>
/// <param name="Address">Of the page on which the first password is chosen, once and within three days, where the server has no mail; null for who has a password.</param>
public sealed record Invitation(bool Mailed, string? Address);

/// <summary>What the school's lead does: classes made, renamed, put into the archive and taken out again; adults and what they are; a lost password. No child is named here.</summary>
internal sealed class WholeSchoolFeature : IFeature
{
    public void AddServices(IServiceCollection services)
    {
        services.AddScoped<Invitations>();
        services.AddSingleton<RosterFolder>();
        services.AddHostedService(provider => provider.GetRequiredService<RosterFolder>());
    }

    private const int LongestName = 60;

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        var school = api.MapGroup("/school").RequireAuthorization(Policies.LeadSchool);
        school.MapGet("/", GetAsync);
        school.MapPost("/classes", MakeAsync).WithTrace(TraceKind.ClassMade);
        school.MapPut("/classes/{classId:int}", RenameAsync).WithTrace(TraceKind.ClassRenamed);
        school.MapPut("/classes/{classId:int}/archive", ArchiveAsync).WithTrace(TraceKind.ClassArchived);
        school.MapPut("/leads/{adultId:int}", SetLeadAsync).WithTrace(TraceKind.SchoolLeadChanged);
        school.MapPost("/adults/{adultId:int}/password-link", LinkAsync).WithTrace(TraceKind.LinkMade);
        school.MapDelete("/adults/{adultId:int}/second-step", TakeOutSecondStepAsync).WithTrace(TraceKind.SecondStepTakenOut);
        school.MapPost("/adults/{adultId:int}/invitation", InviteAgainAsync).WithTrace(TraceKind.Invited);
        AdultsOfClass.Map(school);
        WhoLooked.Map(school);
        ChildrenOfSchool.Map(school);
        NewYears.Map(school);
        TakenOut.Map(school);
        Rosters.Map(school);
        HowItRuns.Map(school);
    }

    private static async Task<Ok<SchoolView>> GetAsync(HttpContext http, FobbleDb db, CancellationToken stop)
    {
        var schoolId = await LedByAsync(db, http, stop);
        var members = await db
            .Memberships.Where(m => m.Class!.SchoolId == schoolId)
            .OrderBy(m => m.Role)
            .Select(m => new
            {
                m.ClassId,
                Adult = new AdultOfClass(
                    m.AdultId,
                    m.Adult!.FullName,
                    m.Role,
                    db.LessonSlots.Count(s => s.ClassId == m.ClassId && s.AdultId == m.AdultId && !s.Retired),
                    m.From,
                    m.Until,
                    db.Users.Where(u => u.Id == m.InPlaceOfId).Select(u => u.FullName).FirstOrDefault()
                ),
            })
            .ToListAsync(stop);
        var classes = await db
            .Classes.Where(c => c.SchoolId == schoolId)
            .OrderBy(c => c.ArchivedOn != null)
            .ThenBy(c => c.Name)
            .Select(c => new
            {
                c.Id,
                c.Name,
                Children = c.Children.Count(x => x.LeftOn == null),
                c.ArchivedOn,
            })
            .ToListAsync(stop);
        var adults = await Adults(db, schoolId)
            .OrderBy(a => a.FullName)
            .Select(a => new AdultOfSchool(
                a.Id,
                a.FullName,
                a.Email ?? "",
                db.SchoolLeads.Any(l => l.SchoolId == schoolId && l.AdultId == a.Id),
                a.SecondSecret != null,
                a.PasswordHash == null,
                db.Mails.Where(m => m.Kind == MailKind.Invitation && m.To == a.Email).Select(m => m.Fault).FirstOrDefault()
            ))
            .ToListAsync(stop);
        var name = await db.Schools.Where(s => s.Id == schoolId).Select(s => s.Name).SingleAsync(stop);
        return TypedResults.Ok(
            new SchoolView(
                name,
                [
                    .. classes.Select(c => new ClassOfSchool(
                        c.Id,
                        c.Name,
                        c.Children,
                        c.ArchivedOn,
                        [.. members.Where(m => m.ClassId == c.Id).Select(m => m.Adult)]
                    )),
                ],
                adults
            )
        );
    }

    private static async Task<Ok<int>> MakeAsync(NewClass request, HttpContext http, Decisions decisions, CancellationToken stop)
    {
        var made = await decisions.DecideAsync(
            async db =>
            {
                var schoolId = await LedByAsync(db, http, stop);
                var name = await CheckedNameAsync(db, schoolId, request.Name, null, stop);
                RefusedException.Unless(
                    await Adults(db, schoolId).AnyAsync(a => a.Id == request.LeadId, stop),
                    "leadId",
                    Phrase("The lead teacher has to be one of the school's adults.")
                );
                SchoolClass? like = null;
                if (request.Like is { } id)
                {
                    like = await db.Classes.AsNoTracking().FirstOrDefaultAsync(c => c.Id == id && c.SchoolId == schoolId, stop);
                    RefusedException.Unless(like is not null, "like", Phrase("There is no such class."));
                }

                var school = await db.Schools.SingleAsync(s => s.Id == schoolId, stop);
                var newClass = await Beginnings.AddClassAsync(db, school, name, request.LeadId, like);
                return newClass.Id;
            },
            stop
        );
        return TypedResults.Ok(made);
    }

    private static async Task<NoContent> RenameAsync(ClassId classId, ClassName request, HttpContext http, Decisions decisions, CancellationToken stop)
    {
        await decisions.DecideAsync(
            async db =>
            {
                var name = await CheckedNameAsync(db, await LedByAsync(db, http, stop), request.Name, classId, stop);
                await db.Classes.Where(c => c.Id == classId.Value).ExecuteUpdateAsync(c => c.SetProperty(x => x.Name, name), stop);
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> ArchiveAsync(ClassId classId, Archive request, Decisions decisions, TimeProvider clock, CancellationToken stop)
    {
        await decisions.DecideAsync(
            async db =>
            {
                var stored = await db.Classes.Include(c => c.School).SingleAsync(c => c.Id == classId.Value, stop);
                if (!request.Archived)
                {
                    await CheckedNameAsync(db, stored.SchoolId, stored.Name, classId, stop);
                }

                stored.ArchivedOn = request.Archived ? stored.ArchivedOn ?? SchoolZones.Of(stored.School!, clock).DayOf(clock.GetUtcNow()) : null;
                stored.ArchivedUpTo = request.Archived ? stored.ArchivedUpTo ?? await ChildrenOfSchool.LastSeenAsync(db, stop) : null;
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, NotFound>> SetLeadAsync(
        AdultId adultId,
        LeadsSchool request,
        HttpContext http,
        Decisions decisions,
        CancellationToken stop
    ) =>
        await decisions.DecideAsync(
            async db =>
            {
                var schoolId = await LedByAsync(db, http, stop);
                if (!await Adults(db, schoolId).AnyAsync(a => a.Id == adultId.Value, stop))
                {
                    return false;
                }

                var leads = await db.SchoolLeads.Where(l => l.SchoolId == schoolId).ToListAsync(stop);
                var lead = leads.Find(l => l.AdultId == adultId.Value);
                if (request.Leads && lead is null)
                {
                    db.SchoolLeads.Add(new SchoolLead { SchoolId = schoolId, AdultId = adultId.Value });
                }
                else if (!request.Leads && lead is not null)
                {
                    Answerable.CheckSchool(leads.Select(l => l.AdultId), adultId.Value);
                    db.SchoolLeads.Remove(lead);
                }

                return true;
            },
            stop
        )
            ? TypedResults.NoContent()
            : TypedResults.NotFound();

    // Where there is no mail, the lead of the school hands the link over.
    private static async Task<Results<Ok<PasswordLink>, NotFound>> LinkAsync(
        AdultId adultId,
        HttpContext http,
        FobbleDb db,
        UserManager<Adult> adults,
        CancellationToken stop
    )
    {
        var schoolId = await LedByAsync(db, http, stop);
        return await Adults(db, schoolId).FirstOrDefaultAsync(a => a.Id == adultId.Value, stop) is { } adult
            ? TypedResults.Ok(new PasswordLink(await Links.ToNewPasswordAsync(adults, adult)))
            : TypedResults.NotFound();
    }

    // For whoever has lost phone and spare codes: the lead of the school knows whom they see before them, and the adult is told by mail.
    private static async Task<Results<NoContent, NotFound>> TakeOutSecondStepAsync(
        AdultId adultId,
        HttpContext http,
        Decisions decisions,
        MailQueue mail,
        CancellationToken stop
    ) =>
        await decisions.DecideAsync(
            async db =>
            {
                var schoolId = await LedByAsync(db, http, stop);
                if (await Adults(db, schoolId).FirstOrDefaultAsync(a => a.Id == adultId.Value && a.SecondSecret != null, stop) is not { } adult)
                {
                    return false;
                }

                await SecondStep.TakeOutAsync(db, adult, stop);
                await mail.TellAsync(db, MailKind.SecondStepChanged, adult, stop);
                return true;
            },
            stop
        )
            ? TypedResults.NoContent()
            : TypedResults.NotFound();

    private static async Task<Results<Ok<Invitation>, NotFound>> InviteAgainAsync(
        AdultId adultId,
        HttpContext http,
        Decisions decisions,
        Invitations invitations,
        CancellationToken stop
    )
    {
        var adult = await decisions.DecideAsync(
            async db =>
            {
                var schoolId = await LedByAsync(db, http, stop);
                var invited = await Adults(db, schoolId).FirstOrDefaultAsync(a => a.Id == adultId.Value && a.PasswordHash == null, stop);
                return invited is null ? null : await invitations.AskAsync(db, invited, http, stop);
            },
            stop
        );
        return adult is null ? TypedResults.NotFound() : TypedResults.Ok(await invitations.SendAsync(adult));
    }

    internal static Task<int> LedByAsync(FobbleDb db, HttpContext http, CancellationToken stop)
    {
        var adult = http.User.AdultId().Value;
        return db.SchoolLeads.Where(l => l.AdultId == adult).OrderBy(l => l.SchoolId).Select(l => l.SchoolId).FirstAsync(stop);
    }

    internal static IQueryable<Adult> Adults(FobbleDb db, int schoolId) =>
        db.Users.Where(a =>
            db.Memberships.Any(m => m.AdultId == a.Id && m.Class!.SchoolId == schoolId) || db.SchoolLeads.Any(l => l.AdultId == a.Id && l.SchoolId == schoolId)
        );

    internal static async Task<string> CheckedNameAsync(FobbleDb db, int schoolId, string? asked, ClassId? of, CancellationToken stop)
    {
        var name = asked?.Trim() ?? "";
        RefusedException.Unless(name.Length > 0, "name", Phrase("The class's name is missing."));
        RefusedException.Unless(
            name.Length <= LongestName && !name.Any(char.IsControl),
            "name",
            Phrase($"A name of a class has {LongestName} letters at the most, on one line.")
        );
        var others = await db
            .Classes.Where(c => c.SchoolId == schoolId && c.ArchivedOn == null && (of == null || c.Id != of.Value.Value))
            .Select(c => c.Name)
            .ToListAsync(stop);
        RefusedException.Unless(
            !others.Any(o => string.Equals(o, name, StringComparison.OrdinalIgnoreCase)),
            "name",
            Phrase($"There is a class called {name} already.")
        );
        return name;
    }
}
