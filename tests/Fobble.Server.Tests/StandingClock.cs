using System.Globalization;

namespace Fobble.Server.Tests;

/// <summary>A clock that stands until it is told to go, by the time of this machine.</summary>
internal sealed class StandingClock(string now) : TimeProvider
{
    private DateTimeOffset _now = At(now);

    public void Goes(string to) => _now = At(to);

    public override DateTimeOffset GetUtcNow() => _now;

    /// <summary>A time by the clock of this machine, wherever it stands.</summary>
    public static DateTimeOffset At(string time) =>
        new(DateTime.Parse(time, CultureInfo.InvariantCulture), TimeZoneInfo.Local.GetUtcOffset(DateTime.Parse(time, CultureInfo.InvariantCulture)));
}
