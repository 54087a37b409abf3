using System.Collections.Concurrent;

namespace Fobble.Server.Hosting;

/// <summary>Faults of the program that somebody met since it was started, by the number that they were told.</summary>
internal sealed class RecentFaults(TimeProvider clock)
{
    private const int Most = 100;
    private static readonly TimeSpan Week = TimeSpan.FromDays(7);
    private readonly ConcurrentQueue<(string Id, DateTimeOffset At)> _faults = new();

    public DateTimeOffset Since { get; } = clock.GetUtcNow();

    public void Add(string id)
    {
        _faults.Enqueue((id, clock.GetUtcNow()));
        while (_faults.Count > Most)
        {
            _faults.TryDequeue(out _);
        }
    }

    /// <summary>The newest first.</summary>
    public IReadOnlyList<(string Id, DateTimeOffset At)> OfTheWeek() => [.. _faults.Where(f => f.At > clock.GetUtcNow() - Week).Reverse()];
}
