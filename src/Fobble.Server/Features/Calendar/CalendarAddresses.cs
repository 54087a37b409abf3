using System.Buffers.Text;
using System.Security.Cryptography;
using System.Text;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Calendar;

/// <param name="Made">When the adult's own address was made; null where there is none. What it is was said once.</param>
public sealed record CalendarAddressView(DateTimeOffset? Made);

/// <param name="Address">Behind the address of the server.</param>
public sealed record NewCalendarAddress(string Address);

/// <summary>
/// Secret addresses of lessons: calendar programs bring no password along, so the address is one. Each adult has their own for a class; made anew, the one before
/// opens nothing any more, and it opens nothing on a day on which the adult has nothing to do with the class.
/// </summary>
internal static class CalendarAddresses
{
    // 256 bits: nobody guesses one, so tries need not be counted.
    private const int KeyBytes = 32;

    public static void Map(IEndpointRouteBuilder api, IEndpointRouteBuilder ofClass)
    {
        var own = ofClass.MapGroup("/calendar/address");
        own.MapGet("/", GetAsync);
        own.MapPost("/", MakeAsync).WithTrace(TraceKind.CalendarAddressChanged);
        own.MapDelete("/", WithdrawAsync).WithTrace(TraceKind.CalendarAddressChanged);
        api.MapGet("/calendar/{key}.ics", LessonsAsync).AllowAnonymous();
    }

    private static async Task<Ok<CalendarAddressView>> GetAsync(ClassRoom room, HttpContext http, CancellationToken stop)
    {
        var adult = http.User.AdultId().Value;
        var made = await room
            .Db.CalendarAddresses.Where(a => a.ClassId == room.Id.Value && a.AdultId == adult)
            .Select(a => (DateTimeOffset?)a.Made)
            .FirstOrDefaultAsync(stop);
        return TypedResults.Ok(new CalendarAddressView(made));
    }

    private static async Task<Ok<NewCalendarAddress>> MakeAsync(
        ClassRoom room,
        HttpContext http,
        Decisions decisions,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        var (adult, key) = (http.User.AdultId(), Base64Url.EncodeToString(RandomNumberGenerator.GetBytes(KeyBytes)));
        await decisions.DecideAsync(
            async db =>
            {
                await Of(db, room, adult).ExecuteDeleteAsync(stop);
                db.CalendarAddresses.Add(
                    new CalendarAddressRow
                    {
                        ClassId = room.Id.Value,
                        AdultId = adult.Value,
                        KeyHash = HashOf(key),
                        Made = clock.GetUtcNow(),
                    }
                );
            },
            stop
        );
        return TypedResults.Ok(new NewCalendarAddress($"/api/calendar/{key}.ics"));
    }

    private static async Task<NoContent> WithdrawAsync(ClassRoom room, HttpContext http, Decisions decisions, CancellationToken stop)
    {
        await decisions.DecideAsync(db => Of(db, room, http.User.AdultId()).ExecuteDeleteAsync(stop), stop);
        return TypedResults.NoContent();
    }

    // The same answer for a key that never was, one of before, and one of somebody who has gone.
    private static async Task<Results<FileContentHttpResult, NotFound>> LessonsAsync(
        string key,
        FobbleDb db,
        Members members,
        ClassRoom room,
        Decisions decisions,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        var hash = HashOf(key);
        var found = await db.CalendarAddresses.AsNoTracking().FirstOrDefaultAsync(a => a.KeyHash == hash, stop);
        if (found is null || await members.TodayAsync(new(found.ClassId), new(found.AdultId), stop) is null or { Archived: true })
        {
            return TypedResults.NotFound();
        }

        await room.EnterAsync(new(found.ClassId), stop);
        return await CalendarFeature.HandOutAsync(room, decisions, clock, stop);
    }

    private static IQueryable<CalendarAddressRow> Of(FobbleDb db, ClassRoom room, AdultId adult) =>
        db.CalendarAddresses.Where(a => a.ClassId == room.Id.Value && a.AdultId == adult.Value);

    private static string HashOf(string key) => Convert.ToHexString(SHA256.HashData(Encoding.UTF8.GetBytes(key)));
}
