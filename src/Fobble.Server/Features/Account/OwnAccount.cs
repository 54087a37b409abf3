using System.ComponentModel.DataAnnotations;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Mail;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Identity;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Account;

/// <param name="What">Browser and system; empty where it does not say.</param>
/// <param name="Here">Whether it is the one that asks.</param>
public sealed record DeviceView(string Id, string What, DateTimeOffset Since, DateTimeOffset SeenAt, bool Here);

public sealed record ChangePassword(string Current, string Next);

/// <param name="Token">Of the link.</param>
public sealed record NewPassword(int AdultId, string Token, string Password);

public sealed record AskForPassword(string Email);

/// <summary>What adults do about their own account: the devices on which they are signed in, and their password. A new password ends all other devices.</summary>
internal static class OwnAccount
{
    public static void Map(IEndpointRouteBuilder api)
    {
        var own = api.MapGroup("/account");
        own.MapGet("/devices", DevicesAsync);
        own.MapDelete("/devices/{id}", EndDeviceAsync);
        own.MapDelete("/devices", EndOthersAsync);
        own.MapPut("/password", ChangePasswordAsync);
        SecondStepAtSignIn.Map(own);
        own.MapPost("/new-password", NewPasswordAsync).AllowAnonymous();
        own.MapPost("/lost-password", AskForNewPasswordAsync).AllowAnonymous();
    }

    private static async Task<Ok<List<DeviceView>>> DevicesAsync(HttpContext http, FobbleDb db, CancellationToken stop)
    {
        var (adult, here) = (http.User.AdultId().Value, http.User.Device());
        return TypedResults.Ok(
            await db
                .SignedIn.Where(s => s.AdultId == adult)
                .OrderByDescending(s => s.SeenAt)
                .Select(s => new DeviceView(s.Id, s.Device, s.Since, s.SeenAt, s.Id == here))
                .ToListAsync(stop)
        );
    }

    private static async Task<Results<NoContent, NotFound>> EndDeviceAsync(string id, HttpContext http, SignedIns signedIns, CancellationToken stop) =>
        await signedIns.EndAsync(http.User.AdultId(), id, stop) ? TypedResults.NoContent() : TypedResults.NotFound();

    private static async Task<NoContent> EndOthersAsync(HttpContext http, SignedIns signedIns, CancellationToken stop)
    {
        await signedIns.EndOthersAsync(http.User.AdultId(), http.User.Device(), stop);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> ChangePasswordAsync(
        ChangePassword request,
        HttpContext http,
        UserManager<Adult> adults,
        SignInTries tries,
        SignedIns signedIns,
        FobbleDb db,
        WriteQueue queue,
        MailQueue mail,
        CancellationToken stop
    )
    {
        var adult = await CheckPasswordAsync(request.Current, "current", http, adults, tries);
        using (await queue.WaitAsync(stop))
        {
            Check(await adults.ChangePasswordAsync(adult, request.Current, request.Next), "next");
            await mail.TellAsync(db, MailKind.PasswordChanged, adult, stop);
        }

        await signedIns.EndOthersAsync(http.User.AdultId(), http.User.Device(), stop);
        return TypedResults.NoContent();
    }

    private static async Task<NoContent> NewPasswordAsync(
        NewPassword request,
        HttpContext http,
        HowOften howOften,
        UserManager<Adult> adults,
        SignedIns signedIns,
        FobbleDb db,
        WriteQueue queue,
        MailQueue mail,
        Traces traces,
        CancellationToken stop
    )
    {
        howOften.CheckLink(http);
        var adult = await adults.FindByIdAsync($"{request.AdultId}");
        var first = adult?.PasswordHash is null;
        using (await queue.WaitAsync(stop))
        {
            var done = adult is null ? null : await Links.ChooseAsync(adults, adult, request.Token, request.Password);
            RefusedException.Unless(
                done?.Errors.Any(e => e.Code == nameof(IdentityErrorDescriber.InvalidToken)) == false,
                "",
                Phrase("This link holds no more: it was used, or is too old, or a part of it is missing. Ask for another one.")
            );
            Check(done!, "password");
            if (!first)
            {
                await mail.TellAsync(db, MailKind.PasswordChanged, adult!, stop);
            }
        }

        await traces.LeaveAsync(TraceKind.PasswordByLink, http, adult);
        await signedIns.EndOthersAsync(new AdultId(request.AdultId), but: "", stop);
        return TypedResults.NoContent();
    }

    /// <summary>The same answer in the same time for every address: whether anybody has it is looked up when the mail goes, after the answer.</summary>
    private static async Task<Results<NoContent, NotFound>> AskForNewPasswordAsync(
        AskForPassword request,
        HttpContext http,
        FobbleDb db,
        WriteQueue queue,
        MailQueue mail,
        HowOften howOften,
        CancellationToken stop
    )
    {
        if (!mail.On)
        {
            return TypedResults.NotFound();
        }

        var to = request.Email.Trim();
        RefusedException.Unless(new EmailAddressAttribute().IsValid(to), "email", Phrase("This is no e-mail address."));
        if (howOften.LostPassword(http, to))
        {
            using (await queue.WaitAsync(stop))
            {
                await mail.AskAsync(db, MailKind.LostPassword, to, by: null, stop);
                await db.SaveChangesAsync(stop);
            }

            mail.Wake();
        }

        return TypedResults.NoContent();
    }

    internal static async Task<Adult> OfAsync(HttpContext http, UserManager<Adult> adults) =>
        await adults.GetUserAsync(http.User) ?? throw new InvalidOperationException("Nobody is signed in.");

    /// <summary>Whoever holds the device may not be the adult: what changes how one signs in asks for the password.</summary>
    /// <exception cref="RefusedException">It is not the adult's, or there were too many that were not.</exception>
    internal static async Task<Adult> CheckPasswordAsync(string password, string field, HttpContext http, UserManager<Adult> adults, SignInTries tries)
    {
        var adult = await OfAsync(http, adults);
        RefusedException.Unless(
            await tries.GoTogetherAsync(http, adult.Email!, adult, password),
            field,
            Phrase("This is not your password. After ten wrong tries even the right one waits for ten minutes.")
        );
        return adult;
    }

    private static void Check(IdentityResult result, string field) =>
        RefusedException.Unless(result.Succeeded, field, string.Join(" ", result.Errors.Select(e => e.Description)));
}
