using System.Globalization;
using System.Security.Cryptography;
using System.Text;
using Fobble.Data;
using Fobble.Data.Model;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.EntityFrameworkCore;
using OtpNet;

namespace Fobble.Server.Security;

/// <summary>
/// A second step at sign-in: a code of six digits that the adult's phone reckons from a secret and the time (RFC 6238), or a spare code where the phone is gone. Each
/// comes in once, whoever sends it. What is written belongs to the caller's decision.
/// </summary>
internal sealed class SecondStep(IDataProtectionProvider protection, [FromKeyedServices(SecondStep.PhonesTime)] TimeProvider clock)
{
    /// <summary>Phones go by the real time, also where the application goes by another one.</summary>
    public const string PhonesTime = "time of phones";

    private const int SecretBytes = 20;
    private const int SpareCodes = 8;

    // 59 bits, of which whoever tries gets ten tries.
    private const int SpareLetters = 12;

    // None that is taken for another.
    private const string SpareAlphabet = "abcdefghijkmnpqrstuvwxyz23456789";

    private static readonly TimeSpan ToPutIn = TimeSpan.FromMinutes(15);

    // A code of the span before or after counts, too: phones are slow or fast, and so are fingers (RFC 6238, 5.2).
    private static readonly VerificationWindow Window = VerificationWindow.RfcSpecifiedNetworkDelay;

    private readonly IDataProtector _kept = protection.CreateProtector("second step");
    private readonly ITimeLimitedDataProtector _begun = protection.CreateProtector("second step begun").ToTimeLimitedDataProtector();

    /// <summary>A new secret, not put in yet, and what brings it back when the first code of it comes.</summary>
    public (string Secret, string Address, string Ticket) Begin(Adult adult)
    {
        var secret = Base32Encoding.ToString(KeyGeneration.GenerateRandomKey(SecretBytes));
        return (secret, new OtpUri(OtpType.Totp, secret, adult.Email, "Fobble").ToString(), _begun.Protect($"{adult.Id} {secret}", ToPutIn));
    }

    /// <summary>Puts the secret in that was begun with.</summary>
    /// <returns>The spare codes, which are kept nowhere; null where the code is not one of this secret, or it was begun too long ago, or by somebody else.</returns>
    public async Task<IReadOnlyList<string>?> PutInAsync(FobbleDb db, Adult adult, string ticket, string code, CancellationToken stop)
    {
        if (SecretIn(ticket, adult) is not { } secret || SpanOf(secret, Bare(code)) is not { } span)
        {
            return null;
        }

        await SetAsync(db, adult, _kept.Protect(secret), span, stop);
        List<string> spare = [.. Enumerable.Range(0, SpareCodes).Select(_ => RandomNumberGenerator.GetString(SpareAlphabet, SpareLetters))];
        db.SpareCodes.AddRange(spare.Select(s => new SpareCodeRow { AdultId = adult.Id, Hash = HashOf(secret, s) }));
        return [.. spare.Select(s => string.Join("-", s.Chunk(4).Select(c => new string(c))))];
    }

    /// <summary>The password alone comes in again.</summary>
    public static Task TakeOutAsync(FobbleDb db, Adult adult, CancellationToken stop) => SetAsync(db, adult, null, 0, stop);

    /// <summary>Whether a code comes in now. Of two that send the same at once, one does.</summary>
    public async Task<bool> ComesInAsync(FobbleDb db, Adult adult, string code, CancellationToken stop)
    {
        if (SecretOf(adult) is not { } secret)
        {
            return false;
        }

        var bare = Bare(code);
        if (bare.Length == SpareLetters)
        {
            var hash = HashOf(secret, bare);
            return await db.SpareCodes.Where(s => s.AdultId == adult.Id && s.Hash == hash).ExecuteDeleteAsync(stop) == 1;
        }

        return SpanOf(secret, bare) is { } span
            && await db.Users.Where(a => a.Id == adult.Id && a.SecondUsedUpTo < span).ExecuteUpdateAsync(a => a.SetProperty(x => x.SecondUsedUpTo, span), stop)
                == 1;
    }

    private static async Task SetAsync(FobbleDb db, Adult adult, string? secret, long span, CancellationToken stop)
    {
        await db.SpareCodes.Where(s => s.AdultId == adult.Id).ExecuteDeleteAsync(stop);
        await db
            .Users.Where(a => a.Id == adult.Id)
            .ExecuteUpdateAsync(a => a.SetProperty(x => x.SecondSecret, secret).SetProperty(x => x.SecondUsedUpTo, span), stop);
    }

    // As somebody types it: with spaces, dashes, large letters.
    private static string Bare(string code) => string.Concat(code.Where(char.IsLetterOrDigit)).ToLowerInvariant();

    private long? SpanOf(string secret, string code) =>
        new Totp(Base32Encoding.ToBytes(secret)).VerifyTotp(clock.GetUtcNow().UtcDateTime, code, out var span, Window) ? span : null;

    // Null where the keys that encrypted it are lost: no code comes in then, and it has to be taken out.
    private string? SecretOf(Adult adult)
    {
        try
        {
            return _kept.Unprotect(adult.SecondSecret!);
        }
        catch (CryptographicException)
        {
            return null;
        }
    }

    private string? SecretIn(string ticket, Adult adult)
    {
        try
        {
            var parts = _begun.Unprotect(ticket).Split(' ');
            return int.Parse(parts[0], CultureInfo.InvariantCulture) == adult.Id ? parts[1] : null;
        }
        catch (CryptographicException)
        {
            return null;
        }
    }

    // By the secret, which is kept encrypted: without it nobody can try codes against what is kept.
    private static string HashOf(string secret, string code) =>
        Convert.ToHexString(HMACSHA256.HashData(Base32Encoding.ToBytes(secret), Encoding.ASCII.GetBytes(code)));
}
