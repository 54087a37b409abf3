using System.Security.Claims;
using System.Security.Cryptography;
using Fobble.Data;
using Fobble.Data.Model;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.WebUtilities;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Security;

/// <summary>
/// Who is signed in where. The cookie holds a key and no more; what it opens is kept in the database, so that it opens nothing any more, copied or not, once the
/// adult has signed out there, from there or from another device.
/// </summary>
internal sealed class SignedIns(IServiceScopeFactory scopes, WriteQueue queue, OpenConnections connections, TimeProvider clock) : ITicketStore
{
    private const int KeyBytes = 32;

    /// <summary>When it was last here is written down at most this often.</summary>
    private static readonly TimeSpan SeenEvery = TimeSpan.FromMinutes(5);

    public Task<string> StoreAsync(AuthenticationTicket ticket) => KeepAsync(ticket, null, CancellationToken.None);

    public Task<string> StoreAsync(AuthenticationTicket ticket, HttpContext httpContext, CancellationToken cancellationToken) =>
        KeepAsync(ticket, Devices.InWords(httpContext.Request.Headers.UserAgent), cancellationToken);

    public async Task RenewAsync(string key, AuthenticationTicket ticket)
    {
        var (id, now) = (IdOf(key), clock.GetUtcNow());
        await WriteAsync(
            db =>
                db.SignedIn.Where(s => s.Id == id)
                    .ExecuteUpdateAsync(s =>
                        s.SetProperty(x => x.Ticket, TicketSerializer.Default.Serialize(ticket))
                            .SetProperty(x => x.SeenAt, now)
                            .SetProperty(x => x.Until, ticket.Properties.ExpiresUtc ?? now)
                    ),
            CancellationToken.None
        );
    }

    public async Task<AuthenticationTicket?> RetrieveAsync(string key)
    {
        var (id, now) = (IdOf(key), clock.GetUtcNow());
        await using var scope = scopes.CreateAsyncScope();
        var row = await scope.ServiceProvider.GetRequiredService<FobbleDb>().SignedIn.AsNoTracking().FirstOrDefaultAsync(s => s.Id == id && s.Until > now);
        if (row is not null && now - row.SeenAt >= SeenEvery)
        {
            await WriteAsync(db => db.SignedIn.Where(s => s.Id == id).ExecuteUpdateAsync(s => s.SetProperty(x => x.SeenAt, now)), CancellationToken.None);
        }

        return row is null ? null : TicketSerializer.Default.Deserialize(row.Ticket);
    }

    public Task RemoveAsync(string key) => EndAsync([IdOf(key)], CancellationToken.None);

    /// <summary>Ends one of an adult's devices.</summary>
    /// <returns>Whether it was there and the adult's.</returns>
    public async Task<bool> EndAsync(AdultId adult, string id, CancellationToken stop)
    {
        var ids = await IdsAsync(s => s.Where(x => x.AdultId == adult.Value && x.Id == id), stop);
        await EndAsync(ids, stop);
        return ids.Count > 0;
    }

    /// <summary>Ends all of an adult's devices but one.</summary>
    public async Task EndOthersAsync(AdultId adult, string but, CancellationToken stop) =>
        await EndAsync(await IdsAsync(s => s.Where(x => x.AdultId == adult.Value && x.Id != but), stop), stop);

    private async Task<string> KeepAsync(AuthenticationTicket ticket, string? device, CancellationToken stop)
    {
        var (key, now) = (WebEncoders.Base64UrlEncode(RandomNumberGenerator.GetBytes(KeyBytes)), clock.GetUtcNow());
        var id = IdOf(key);
        ((ClaimsIdentity)ticket.Principal.Identity!).AddClaim(new(Policies.DeviceClaim, id));
        SignedInRow row = new()
        {
            Id = id,
            AdultId = ticket.Principal.AdultId().Value,
            Ticket = TicketSerializer.Default.Serialize(ticket),
            Device = device ?? Devices.Unknown,
            Since = now,
            SeenAt = now,
            Until = ticket.Properties.ExpiresUtc ?? now + Cookies.Lasts,
        };
        await WriteAsync(
            async db =>
            {
                await db.SignedIn.Where(s => s.Until <= now).ExecuteDeleteAsync(stop);
                db.SignedIn.Add(row);
                await db.SaveChangesAsync(stop);
            },
            stop
        );
        return key;
    }

    private async Task EndAsync(IReadOnlyList<string> ids, CancellationToken stop)
    {
        if (ids.Count > 0)
        {
            await WriteAsync(db => db.SignedIn.Where(s => ids.Contains(s.Id)).ExecuteDeleteAsync(stop), stop);
        }

        foreach (var id in ids)
        {
            connections.Close(id);
        }
    }

    private async Task<IReadOnlyList<string>> IdsAsync(Func<IQueryable<SignedInRow>, IQueryable<SignedInRow>> which, CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        return await which(scope.ServiceProvider.GetRequiredService<FobbleDb>().SignedIn).Select(s => s.Id).ToListAsync(stop);
    }

    private async Task WriteAsync(Func<FobbleDb, Task> write, CancellationToken stop)
    {
        await using var scope = scopes.CreateAsyncScope();
        using (await queue.WaitAsync(stop))
        {
            await write(scope.ServiceProvider.GetRequiredService<FobbleDb>());
        }
    }

    private static string IdOf(string key) => Convert.ToHexStringLower(SHA256.HashData(System.Text.Encoding.ASCII.GetBytes(key)));
}

/// <summary>A device as its owner would call it.</summary>
internal static class Devices
{
    public const string Unknown = "";

    // The first that is found counts: browsers call themselves by each other's names.
    private static readonly (string Part, string Name)[] Browsers =
    [
        ("Edg", "Edge"),
        ("OPR/", "Opera"),
        ("Firefox/", "Firefox"),
        ("FxiOS", "Firefox"),
        ("Chrome/", "Chrome"),
        ("CriOS", "Chrome"),
        ("Safari/", "Safari"),
    ];

    private static readonly (string Part, string Name)[] Systems =
    [
        ("iPad", "iPad"),
        ("iPhone", "iPhone"),
        ("Android", "Android"),
        ("Windows", "Windows"),
        ("CrOS", "Chromebook"),
        ("Mac OS", "Mac"),
        ("Linux", "Linux"),
    ];

    /// <returns>"Firefox, Windows"; empty where the browser says nothing that is known.</returns>
    public static string InWords(string? userAgent) =>
        string.Join(
            ", ",
            new[] { Browsers, Systems }
                .Select(known => known.FirstOrDefault(k => userAgent?.Contains(k.Part, StringComparison.Ordinal) == true).Name)
                .OfType<string>()
        );
}
