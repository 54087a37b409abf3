using System.Threading.RateLimiting;

namespace Fobble.Server.Security;

/// <summary>How often mail can be asked for and links tried. Counted in this server's memory, by who asks and for whom.</summary>
internal sealed class HowOften : IDisposable
{
    private readonly PartitionedRateLimiter<string> _lostPasswordOf = Most(3, TimeSpan.FromHours(1));
    private readonly PartitionedRateLimiter<string> _lostPasswordFrom = Most(20, TimeSpan.FromHours(1));
    private readonly PartitionedRateLimiter<string> _linkFrom = Most(60, TimeSpan.FromMinutes(10));
    private readonly PartitionedRateLimiter<string> _refusalOf = Most(200, TimeSpan.FromMinutes(10));
    private readonly PartitionedRateLimiter<string> _invitationBy = Most(60, TimeSpan.FromHours(1));

    /// <summary>Whether a mail goes for a lost password. Whoever asks is not told.</summary>
    public bool LostPassword(HttpContext from, string email) => Counts(_lostPasswordFrom, Sender(from)) && Counts(_lostPasswordOf, email.ToUpperInvariant());

    /// <summary>Whether a refused sign-in leaves a trace: a stranger's tries are not to fill the disk.</summary>
    public bool LeavesTrace(HttpContext from) => Counts(_refusalOf, Sender(from));

    /// <exception cref="RefusedException">Too often.</exception>
    public void CheckLink(HttpContext from) => Check(Counts(_linkFrom, Sender(from)));

    /// <exception cref="RefusedException">Too often.</exception>
    public void CheckInvitation(HttpContext from) => Check(Counts(_invitationBy, $"{from.User.AdultId().Value}"));

    public void Dispose()
    {
        _lostPasswordOf.Dispose();
        _lostPasswordFrom.Dispose();
        _linkFrom.Dispose();
        _refusalOf.Dispose();
        _invitationBy.Dispose();
    }

    private static void Check(bool goes) => RefusedException.Unless(goes, "", Phrase("That was asked for too often just now. Wait a while, then try again."));

    private static string Sender(HttpContext from) => from.Connection.RemoteIpAddress?.ToString() ?? "";

    private static bool Counts(PartitionedRateLimiter<string> limiter, string who)
    {
        using var lease = limiter.AttemptAcquire(who);
        return lease.IsAcquired;
    }

    private static PartitionedRateLimiter<string> Most(int times, TimeSpan within) =>
        PartitionedRateLimiter.Create<string, string>(who =>
            RateLimitPartition.GetFixedWindowLimiter(who, _ => new FixedWindowRateLimiterOptions { PermitLimit = times, Window = within })
        );
}
