using System.Threading.Channels;
using Fobble.Data;
using Fobble.Data.Keeping;
using Fobble.Data.Model;
using Fobble.Server.Hosting;

namespace Fobble.Server.Rooms;

/// <summary>
/// The way of a tap to the disk. Whatever comes while a commit waits for the disk goes into the next one, all of it together, so that a whole school can tap at once; and it goes
/// before whoever else wants to write. It is answered once it is on the disk.
/// </summary>
internal sealed class RecordingLane(WriteQueue queue, FobbleSettings settings) : BackgroundService
{
    // A commit takes longer the more is in it, and the first of them waits for the last.
    private const int MostTogether = 200;

    private readonly Channel<Waiting> _waiting = Channel.CreateUnbounded<Waiting>(new() { SingleReader = true });

    /// <summary>Keeps an observation.</summary>
    /// <remarks>Somebody who does not wait any more has it kept all the same: it is sent again, and found to be there.</remarks>
    public Task<Kept> KeepAsync(ObservationRow row, CancellationToken stop)
    {
        Waiting waiting = new(row);
        return _waiting.Writer.TryWrite(waiting) ? waiting.Done.Task.WaitAsync(stop) : Task.FromCanceled<Kept>(new(canceled: true));
    }

    /// <summary>What waits is kept before it ends.</summary>
    public override async Task StopAsync(CancellationToken cancellationToken)
    {
        _waiting.Writer.TryComplete();
        if (ExecuteTask is { } working)
        {
            await working.WaitAsync(cancellationToken).ConfigureAwait(ConfigureAwaitOptions.SuppressThrowing);
        }

        await base.StopAsync(cancellationToken);
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        ObservationWriter? writer = null;
        try
        {
            List<Waiting> together = [];
            while (await _waiting.Reader.WaitToReadAsync(CancellationToken.None))
            {
                // Asked for first: what comes while others write goes along.
                using var turn = await queue.WaitFirstAsync();
                while (together.Count < MostTogether && _waiting.Reader.TryRead(out var next))
                {
                    together.Add(next);
                }

                try
                {
                    writer ??= new(Path.Combine(settings.Data, DataFolder.DatabaseFile));
                    var kept = writer.Keep([.. together.Select(w => w.Row)]);
                    Measured.Together.Record(together.Count);
                    foreach (var (waiting, became) in together.Zip(kept))
                    {
                        Measured.Kept.Add(1, new KeyValuePair<string, object?>("became", became.ToString()));
                        waiting.Done.TrySetResult(became);
                    }
                }
#pragma warning disable CA1031 // Nothing of them was kept, and each is told; those who come after are tried anew.
                catch (Exception fault)
#pragma warning restore CA1031
                {
                    together.ForEach(w => w.Done.TrySetException(fault));
                    writer?.Dispose();
                    writer = null;
                }

                together.Clear();
            }
        }
        finally
        {
            writer?.Dispose();
        }
    }

    private sealed record Waiting(ObservationRow Row)
    {
        public TaskCompletionSource<Kept> Done { get; } = new(TaskCreationOptions.RunContinuationsAsynchronously);
    }
}
