using System.ComponentModel.DataAnnotations;
using System.Globalization;
using System.Security.Claims;
using Fobble.Core.Calendars;
using Fobble.Core.Sheets;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Demo;
using Fobble.Server.Features.SetUp;
using Fobble.Server.Hosting;
using Fobble.Server.Mail;
using Fobble.Server.Rooms;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Account;

/// <param name="SignedIn">Who is signed in, or null.</param>
/// <param name="FirstStart">Nobody has an account yet: the first page asks for the lead teacher's.</param>
/// <param name="DemoAdults">Made-up adults to choose from; empty outside the demo.</param>
/// <param name="Locales">Ways of writing dates to choose from at the first start.</param>
/// <param name="Language">In which the application speaks, as a BCP 47 tag.</param>
/// <param name="Mail">The server can send mail: a lost password can be asked for by it.</param>
public sealed record AccountState(
    SignedInAdult? SignedIn,
    bool FirstStart,
    IReadOnlyList<DemoAdult> DemoAdults,
    IReadOnlyList<string> Locales,
    string Language,
    bool Mail
);

/// <param name="Leads">The school whose terms, closures, map, classes and adults they answer for, with a class of their own or without; null for none.</param>
/// <param name="Version">Of the program; strangers are not told.</param>
public sealed record SignedInAdult(int Id, string FullName, IReadOnlyList<AdultsClass> Classes, LedSchool? Leads, string Version);

/// <param name="Today">Today at the school.</param>
/// <param name="TimeZone">By its IANA name.</param>
/// <param name="Locale">How it writes dates.</param>
public sealed record LedSchool(DateOnly Today, string TimeZone, string Locale);

/// <param name="Today">Today at the school: pages take it from here, not from the tablet's clock.</param>
/// <param name="TimeZone">Of the school, by its IANA name.</param>
/// <param name="Locale">How the school writes dates.</param>
/// <param name="Paper">What the school's printers hold.</param>
/// <param name="Archived">It can be read and no more written.</param>
/// <param name="LeadsSchool">Answers for what is this school's.</param>
public sealed record AdultsClass(
    int Id,
    string Name,
    string School,
    ClassRole Role,
    DateOnly Today,
    string TimeZone,
    string Locale,
    PaperSize Paper,
    bool Archived,
    bool LeadsSchool
);

public sealed record DemoAdult(string Key, string FullName, string What);

/// <param name="Code">Of the second step; null before it is asked for.</param>
public sealed record SignIn(string Email, string Password, string? Code = null);

/// <summary>Address and password go together; the same is to be sent once more, with a code of the adult's second step.</summary>
public sealed record AsksForCode(bool Code);

/// <param name="Code">Written by the server where it was started.</param>
/// <param name="TimeZone">Where the browser is, by its IANA name; null where it does not know.</param>
/// <param name="Locale">How the school writes dates, as a BCP 47 tag; null for the usual way.</param>
public sealed record FirstStart(
    string Code,
    string FullName,
    string Email,
    string Password,
    string SchoolName,
    string ClassName,
    string? TimeZone,
    string? Locale = null
);

internal sealed class AccountFeature : IFeature
{
    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        var account = api.MapGroup("/account").AllowAnonymous();
        account.MapGet("/", StateAsync);
        account.MapPost("/sign-in", SignInAsync);
        account.MapPost("/sign-out", SignOutAsync);
        account.MapPost("/demo/{key}", SignInToDemoAsync);
        account.MapPost("/first-start", FirstStartAsync);
        OwnAccount.Map(api);
    }

    private static async Task<Ok<AccountState>> StateAsync(
        HttpContext context,
        FobbleDb db,
        FobbleSettings settings,
        TimeProvider clock,
        IAntiforgery antiforgery,
        MailQueue mail
    )
    {
        AntiforgeryGate.GiveToken(context, antiforgery);
        var signedIn = context.User.Identity?.IsAuthenticated == true ? await DescribeAsync(context.User.AdultId(), db, clock) : null;
        var anyone = signedIn is not null || await db.Users.AnyAsync();
        return TypedResults.Ok(
            new AccountState(signedIn, !anyone, settings.Demo ? DemoAdults.All : [], SchoolLocale.All, CultureInfo.CurrentUICulture.Name, mail.On)
        );
    }

    private static async Task<Results<NoContent, Ok<AsksForCode>, ProblemHttpResult>> SignInAsync(
        SignIn request,
        HttpContext http,
        SignInTries tries,
        SecondStep secondStep,
        Decisions decisions,
        SignInManager<Adult> signIn,
        UserManager<Adult> adults,
        HowOften howOften,
        Traces traces
    )
    {
        var adult = await adults.FindByEmailAsync(request.Email);
        var goTogether = await tries.GoTogetherAsync(http, request.Email, adult, request.Password);
        if (goTogether && adult!.SecondSecret is not null && request.Code is null)
        {
            return TypedResults.Ok(new AsksForCode(true));
        }

        var comesIn = goTogether && (adult!.SecondSecret is null || await CodeComesInAsync(adult));
        if (comesIn || howOften.LeavesTrace(http))
        {
            await traces.LeaveAsync(comesIn ? TraceKind.SignedIn : TraceKind.SignInRefused, http, adult);
        }

        RefusedException.Unless(
            comesIn || !goTogether,
            "code",
            Phrase(
                "This code does not come in: it is another one by now, or has come in once already. After ten tries even the right one waits for ten minutes."
            )
        );
        if (!comesIn)
        {
            return Refuse(Phrase("Address and password do not go together. After ten wrong tries even the right ones wait for ten minutes."));
        }

        await signIn.SignInAsync(adult!, isPersistent: false);
        return TypedResults.NoContent();

        async Task<bool> CodeComesInAsync(Adult of) =>
            howOften.CodeOf(of.Id)
            && await decisions.DecideAsync(db => secondStep.ComesInAsync(db, of, request.Code!, http.RequestAborted), http.RequestAborted);
    }

    private static async Task<NoContent> SignOutAsync(SignInManager<Adult> signIn)
    {
        await signIn.SignOutAsync();
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, NotFound>> SignInToDemoAsync(
        string key,
        FobbleSettings settings,
        HttpContext http,
        SignInManager<Adult> signIn,
        UserManager<Adult> adults,
        Traces traces
    )
    {
        if (!settings.Demo || !DemoAdults.All.Any(a => a.Key == key) || await adults.FindByEmailAsync(DemoAdults.EmailOf(key)) is not { } adult)
        {
            return TypedResults.NotFound();
        }

        await traces.LeaveAsync(TraceKind.SignedIn, http, adult);
        await signIn.SignInAsync(adult, isPersistent: false);
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> FirstStartAsync(
        FirstStart request,
        HttpContext http,
        FirstCode code,
        HowOften howOften,
        FobbleDb db,
        WriteQueue queue,
        UserManager<Adult> adults,
        SignInManager<Adult> signIn,
        TimeProvider clock,
        SchoolLanguage language,
        CancellationToken stop
    )
    {
        howOften.CheckLink(http);
        Refusals refusals = new();
        refusals.Check("code", code.Is(request.Code), Phrase("This is not the code that the server wrote when it was started."));
        refusals.Check("fullName", !string.IsNullOrWhiteSpace(request.FullName), Phrase("Your name is missing."));
        refusals.Check("email", new EmailAddressAttribute().IsValid(request.Email), Phrase("This is no e-mail address."));
        refusals.Check("schoolName", !string.IsNullOrWhiteSpace(request.SchoolName), Phrase("The school's name is missing."));
        refusals.Check("className", !string.IsNullOrWhiteSpace(request.ClassName), Phrase("The class's name is missing."));
        refusals.ThrowIfAny();

        // The browser knows where the school is; what it says wrong can be put right in Set-up.
        var zone = SchoolZone.Named(request.TimeZone ?? "") ?? new SchoolZone(clock.LocalTimeZone);
        var adult = new Adult
        {
            FullName = request.FullName.Trim(),
            UserName = request.Email.Trim(),
            Email = request.Email.Trim(),
        };
        using (await queue.WaitAsync(stop))
        {
            // Asked within the transaction, so that of two first starts at once one is the first.
            await using var transaction = await db.Database.BeginTransactionAsync(stop);
            if (await db.Users.AnyAsync(stop))
            {
                return Refuse(Phrase("There is an account already; sign in with it."), StatusCodes.Status409Conflict);
            }

            var created = await adults.CreateAsync(adult, request.Password);
            RefusedException.Unless(created.Succeeded, "password", string.Join(" ", created.Errors.Select(e => e.Description)));
            await Beginnings.AddClassAsync(
                db,
                request.SchoolName.Trim(),
                request.ClassName.Trim(),
                zone.Id,
                SchoolLocale.Nearest(request.Locale),
                adult,
                zone.DayOf(clock.GetUtcNow())
            );
            await transaction.CommitAsync(stop);
        }

        language.Changed();
        await signIn.SignInAsync(adult, isPersistent: false);
        return TypedResults.NoContent();
    }

    private static async Task<SignedInAdult?> DescribeAsync(AdultId adultId, FobbleDb db, TimeProvider clock)
    {
        var adult = await db.Users.Where(u => u.Id == adultId.Value).Select(u => u.FullName).FirstOrDefaultAsync();
        var classes = await db
            .Memberships.Where(m => m.AdultId == adultId.Value)
            .OrderBy(m => m.Class!.ArchivedOn != null)
            .ThenBy(m => m.ClassId)
            .Select(m => new
            {
                m.ClassId,
                m.Class!.Name,
                m.Class.School,
                m.Role,
                m.From,
                m.Until,
                Archived = m.Class.ArchivedOn != null,
            })
            .ToListAsync();
        var led = await db.SchoolLeads.Where(l => l.AdultId == adultId.Value).OrderBy(l => l.SchoolId).Select(l => l.School!).ToListAsync();
        return adult is null
            ? null
            : new SignedInAdult(
                adultId.Value,
                adult,
                [
                    .. classes
                        .Select(c => (Held: c, Zone: SchoolZones.Of(c.School!, clock)))
                        .Select(c => (c.Held, c.Zone, Today: c.Zone.DayOf(clock.GetUtcNow())))
                        .Where(c => Covering.Counts(c.Held.From, c.Held.Until, c.Today))
                        .Select(c => new AdultsClass(
                            c.Held.ClassId,
                            c.Held.Name,
                            c.Held.School!.Name,
                            c.Held.Role,
                            c.Today,
                            c.Zone.Id,
                            c.Held.School.Locale,
                            Paper.UsualIn(c.Held.School.Locale),
                            c.Held.Archived,
                            led.Any(s => s.Id == c.Held.School.Id)
                        )),
                ],
                led.Select(s => (School: s, Zone: SchoolZones.Of(s, clock)))
                    .Select(s => new LedSchool(s.Zone.DayOf(clock.GetUtcNow()), s.Zone.Id, s.School.Locale))
                    .FirstOrDefault(),
                Setup.Version
            );
    }

    private static ProblemHttpResult Refuse(string reason, int status = StatusCodes.Status401Unauthorized) =>
        TypedResults.Problem(reason, statusCode: status, title: Phrase("Not signed in"));
}
