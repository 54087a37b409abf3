namespace Fobble.Server.Hosting;

/// <summary>A clock that runs as usual but started at another moment.</summary>
public sealed class ShiftedClock(DateTime start) : TimeProvider
{
    private readonly TimeSpan _shift = new DateTimeOffset(start, TimeZoneInfo.Local.GetUtcOffset(start)) - System.GetUtcNow();

    public override DateTimeOffset GetUtcNow() => System.GetUtcNow() + _shift;
}
