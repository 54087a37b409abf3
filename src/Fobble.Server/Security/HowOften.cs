using System.Threading.RateLimiting;

namespace Fobble.Server.Security;

/// <summary>How often mail can be asked for and links tried. Counted in this server's memory, by who asks and for whom.</summary>
internal sealed class HowOften : IDisposable
{
    private readonly PartitionedRateLimiter<string> _lostPasswordOf = Most(3, TimeSpan.FromHours(1));
    private readonly PartitionedRateLimiter<string> _lostPasswordFrom = Most(20, TimeSpan.FromHours(1));
    private readonly PartitionedRateLimiter<string> _linkFrom = Most(60, TimeSpan.FromMinutes(10));
    private readonly PartitionedRateLimiter<int> _codeOf = PartitionedRateLimiter.Create<int, int>(who => Counted(who, 10, TimeSpan.FromMinutes(10)));
    private readonly PartitionedRateLimiter<string> _refusalOf = Most(200, TimeSpan.FromMinutes(10));
    private readonly PartitionedRateLimiter<string> _invitationBy = Most(60, TimeSpan.FromHours(1));

    /// <summary>Whether a mail goes for a lost password. Whoever asks is not told.</summary>
    public bool LostPassword(HttpContext from, string email) => Counts(_lostPasswordFrom, Sender(from)) && Counts(_lostPasswordOf, email.ToUpperInvariant());

    /// <summary>
    /// Whether one more code of a second step may be tried for an adult, right or wrong, from wherever: six digits stand no more. Only who has the password gets as far.
    /// </summary>
    public bool CodeOf(int adultId) => Counts(_codeOf, adultId);

    /// <exception cref="RefusedException">Too often.</exception>
    public void CheckCode(int adultId) => Check(CodeOf(adultId));

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
        _codeOf.Dispose();
        _refusalOf.Dispose();
        _invitationBy.Dispose();
    }

    private static void Check(bool goes) => RefusedException.Unless(goes, "", Phrase("That was asked for too often just now. Wait a while, then try again."));

    private static string Sender(HttpContext from) => from.Connection.RemoteIpAddress?.ToString() ?? "";

    private static bool Counts<T>(PartitionedRateLimiter<T> limiter, T who)
    {
        using var lease = limiter.AttemptAcquire(who);
        return lease.IsAcquired;
    }

    private static PartitionedRateLimiter<string> Most(int times, TimeSpan within) =>
        PartitionedRateLimiter.Create<string, string>(who => Counted(who, times, within));

    private static RateLimitPartition<T> Counted<T>(T who, int times, TimeSpan within)
        where T : notnull => RateLimitPartition.GetFixedWindowLimiter(who, _ => new FixedWindowRateLimiterOptions { PermitLimit = times, Window = within });
}
