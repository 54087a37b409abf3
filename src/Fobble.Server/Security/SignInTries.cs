using System.Threading.RateLimiting;
using Fobble.Data.Model;
using Microsoft.AspNetCore.Identity;

namespace Fobble.Server.Security;

/// <summary>
/// Whether address and password go together. Wrong ones are counted by who is tried from where: nobody locks a teacher out from elsewhere, and nobody tries on and on.
/// Unknown, wrong and too often are one answer, after one hashing of the password, so that none of it tells who has an account.
/// </summary>
internal sealed class SignInTries(IPasswordHasher<Adult> hasher) : IDisposable
{
    private const int OfOneAdult = 10;

    // A whole school may come in through one address in the morning.
    private const int FromOneSender = 200;

    private static readonly TimeSpan Within = TimeSpan.FromMinutes(10);
    private static readonly Adult Nobody = new() { FullName = "" };

    // Those that are counted together wait for each other: many at once are no way past the count.
    private readonly SemaphoreSlim[] _turns = [.. Enumerable.Range(0, 64).Select(_ => new SemaphoreSlim(1, 1))];
    private readonly string _nobodysHash = hasher.HashPassword(Nobody, Guid.NewGuid().ToString());
    private readonly PartitionedRateLimiter<(string Sender, string Email)> _tries = PartitionedRateLimiter.CreateChained(
        PartitionedRateLimiter.Create<(string Sender, string Email), string>(t => RateLimitPartition.GetFixedWindowLimiter(t.Sender, _ => Most(FromOneSender))),
        PartitionedRateLimiter.Create<(string Sender, string Email), (string, string)>(t => RateLimitPartition.GetFixedWindowLimiter(t, _ => Most(OfOneAdult)))
    );

    public void Dispose()
    {
        _tries.Dispose();
        foreach (var turn in _turns)
        {
            turn.Dispose();
        }
    }

    /// <param name="adult">Null where nobody has the address.</param>
    public async Task<bool> GoTogetherAsync(HttpContext from, string email, Adult? adult, string password)
    {
        var counted = (from.Connection.RemoteIpAddress?.ToString() ?? "", email.Trim().ToUpperInvariant());
        var turn = _turns[(uint)counted.GetHashCode() % _turns.Length];
        await turn.WaitAsync(from.RequestAborted);
        try
        {
            using var left = _tries.AttemptAcquire(counted, permitCount: 0);
            var right =
                hasher.VerifyHashedPassword(adult ?? Nobody, adult?.PasswordHash ?? _nobodysHash, password) != PasswordVerificationResult.Failed
                && adult is not null;
            if (!right)
            {
                using var taken = _tries.AttemptAcquire(counted);
            }

            return right && left.IsAcquired;
        }
        finally
        {
            turn.Release();
        }
    }

    private static FixedWindowRateLimiterOptions Most(int tries) => new() { PermitLimit = tries, Window = Within };
}
