using System.Threading.RateLimiting;

namespace Fobble.Server.Rooms;

/// <summary>
/// Reads of classes that are worked at at once: as many as there are cores, the others wait in the order in which they came. More would not be quicker, and each that is begun takes
/// memory; a tap does not wait here. Only the working out is within a turn: a tablet with a poor network that takes its answer slowly keeps nobody from theirs.
/// </summary>
internal sealed class ReadingTurns : IDisposable
{
    private const int MostWaiting = 200;

    private readonly ConcurrencyLimiter _limiter = new(
        new()
        {
            PermitLimit = Environment.ProcessorCount,
            QueueLimit = MostWaiting,
            QueueProcessingOrder = QueueProcessingOrder.OldestFirst,
        }
    );

    /// <returns>To be disposed of when done; not acquired where too many wait already.</returns>
    public ValueTask<RateLimitLease> WaitAsync(CancellationToken stop) => _limiter.AcquireAsync(permitCount: 1, stop);

    /// <summary>How many wait for their turn.</summary>
    public long Waiting => _limiter.GetStatistics()?.CurrentQueuedCount ?? 0;

    public void Dispose() => _limiter.Dispose();
}
