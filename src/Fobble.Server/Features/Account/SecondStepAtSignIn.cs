using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Mail;
using Fobble.Server.Rooms;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;
using QRCoder;

namespace Fobble.Server.Features.Account;

/// <param name="SpareLeft">Codes for when the phone is gone that have not come in yet.</param>
public sealed record SecondStepView(bool On, int SpareLeft);

public sealed record BySecondStep(string Password);

/// <param name="Secret">For a phone that can't look at the square: base32, to be typed.</param>
/// <param name="Square">Rows of a QR code, '1' for dark, which tells a phone's program the same.</param>
/// <param name="Ticket">Comes back with the first code, within a quarter of an hour.</param>
public sealed record SecondStepBegun(string Secret, IReadOnlyList<string> Square, string Ticket);

public sealed record FirstSecondStep(string Ticket, string Code);

/// <param name="Spare">Each comes in once in place of the phone; shown once.</param>
public sealed record SecondStepOn(IReadOnlyList<string> Spare);

/// <summary>A second step at sign-in that adults put in, and take out, themselves; each time the password is asked for, since a tablet may be left lying open.</summary>
internal static class SecondStepAtSignIn
{
    public static void Map(IEndpointRouteBuilder own)
    {
        var step = own.MapGroup("/second-step");
        step.MapGet("/", GetAsync);
        step.MapPost("/", BeginAsync);
        step.MapPut("/", PutInAsync).WithTrace(TraceKind.SecondStepChanged);
        step.MapPost("/out", TakeOutAsync).WithTrace(TraceKind.SecondStepChanged);
    }

    private static async Task<Ok<SecondStepView>> GetAsync(HttpContext http, FobbleDb db, CancellationToken stop)
    {
        var id = http.User.AdultId().Value;
        return TypedResults.Ok(
            new SecondStepView(
                await db.Users.AnyAsync(a => a.Id == id && a.SecondSecret != null, stop),
                await db.SpareCodes.CountAsync(s => s.AdultId == id, stop)
            )
        );
    }

    private static async Task<Ok<SecondStepBegun>> BeginAsync(
        BySecondStep request,
        HttpContext http,
        UserManager<Adult> adults,
        SignInTries tries,
        SecondStep secondStep
    )
    {
        var adult = await OwnAccount.CheckPasswordAsync(request.Password, "password", http, adults, tries);
        var (secret, address, ticket) = secondStep.Begin(adult);
        using QRCodeGenerator square = new();
        var rows = square.CreateQrCode(address, QRCodeGenerator.ECCLevel.M).ModuleMatrix;
        return TypedResults.Ok(new SecondStepBegun(secret, [.. rows.Select(row => string.Concat(row.Cast<bool>().Select(dark => dark ? '1' : '0')))], ticket));
    }

    private static async Task<Ok<SecondStepOn>> PutInAsync(
        FirstSecondStep request,
        HttpContext http,
        UserManager<Adult> adults,
        SecondStep secondStep,
        HowOften howOften,
        SignedIns signedIns,
        Decisions decisions,
        MailQueue mail,
        CancellationToken stop
    )
    {
        var adult = await OwnAccount.OfAsync(http, adults);
        howOften.CheckCode(adult.Id);
        var spare = await decisions.DecideAsync(
            async db =>
            {
                var codes = await secondStep.PutInAsync(db, adult, request.Ticket, request.Code, stop);
                RefusedException.Unless(
                    codes is not null,
                    "code",
                    Phrase("This is not the code that the phone shows now. It shows another one every half minute.")
                );
                await mail.TellAsync(db, MailKind.SecondStepChanged, adult, stop);
                return codes!;
            },
            stop
        );
        await signedIns.EndOthersAsync(http.User.AdultId(), http.User.Device(), stop);
        return TypedResults.Ok(new SecondStepOn(spare));
    }

    private static async Task<NoContent> TakeOutAsync(
        BySecondStep request,
        HttpContext http,
        UserManager<Adult> adults,
        SignInTries tries,
        Decisions decisions,
        MailQueue mail,
        CancellationToken stop
    )
    {
        var adult = await OwnAccount.CheckPasswordAsync(request.Password, "password", http, adults, tries);
        await decisions.DecideAsync(
            async db =>
            {
                await SecondStep.TakeOutAsync(db, adult, stop);
                await mail.TellAsync(db, MailKind.SecondStepChanged, adult, stop);
            },
            stop
        );
        return TypedResults.NoContent();
    }
}
