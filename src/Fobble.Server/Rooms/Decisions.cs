using Fobble.Data;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Rooms;

/// <summary>
/// The one way to change something of a class. A decision is one transaction that holds SQLite's only write lock from its first moment: what it checks in
/// there can't change before it is kept. Whatever takes long is worked out before, from the room; the parts it rests on are named and checked in here.
/// </summary>
internal sealed class Decisions(FobbleDb db, ClassRoom room, WriteQueue queue)
{
    private const int MostTries = 5;

    /// <summary>Decides by what is read within.</summary>
    public Task<T> DecideAsync<T>(Func<FobbleDb, Task<T>> decide, CancellationToken stop) => DecideAsync(Expected.Anything, decide, stop);

    /// <summary>Decides by what is read within, with nothing to tell.</summary>
    public Task DecideAsync(Func<FobbleDb, Task> decide, CancellationToken stop) => DecideAsync(Expected.Anything, decide, stop);

    public Task DecideAsync(Expected expected, Func<FobbleDb, Task> decide, CancellationToken stop) =>
        DecideAsync(
            expected,
            async inside =>
            {
                await decide(inside);
                return true;
            },
            stop
        );

    /// <summary>Decides, if what the decision rests on is still so. All of it is kept, or nothing.</summary>
    /// <exception cref="ChangedMeanwhileException">It is not: tells what has changed.</exception>
    public async Task<T> DecideAsync<T>(Expected expected, Func<FobbleDb, Task<T>> decide, CancellationToken stop)
    {
        using var turn = await queue.WaitAsync(stop);
        db.ChangeTracker.Clear();
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        await expected.CheckAsync(db, stop);
        var decided = await decide(db);
        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
        return decided;
    }

    /// <summary>
    /// Works something out from the room and keeps it. If a part it rests on has changed by then, it is worked out again from the room of now: for what nobody
    /// has looked at yet, so that nobody need be asked.
    /// </summary>
    /// <param name="work">Must not rest on anything but the room.</param>
    public async Task<T> SettleAsync<TWorked, T>(Parts restsOn, Func<Task<TWorked>> work, Func<FobbleDb, TWorked, Task<T>> keep, CancellationToken stop)
    {
        for (var tries = 1; ; tries++)
        {
            var worked = await work();
            try
            {
                return await DecideAsync(Expected.Unchanged(room, restsOn), inside => keep(inside, worked), stop);
            }
            catch (ChangedMeanwhileException changed) when (changed.CanBeWorkedOutAgain && tries < MostTries)
            {
                await room.AgainAsync(stop);
            }
        }
    }
}

/// <summary>
/// Lets those who write wait in the order in which they came, instead of knocking at SQLite's lock again and again. What somebody taps goes before whatever else waits.
/// </summary>
internal sealed class WriteQueue
{
    private readonly Lock _lock = new();
    private readonly Queue<TaskCompletionSource<IDisposable>> _first = new();
    private readonly Queue<TaskCompletionSource<IDisposable>> _others = new();
    private bool _taken;

    /// <summary>How many wait for their turn.</summary>
    public int Waiting
    {
        get
        {
            lock (_lock)
            {
                return _first.Count + _others.Count;
            }
        }
    }

    public Task<IDisposable> WaitAsync(CancellationToken stop) => WaitIn(_others, stop);

    /// <summary>Before those who wait already.</summary>
    public Task<IDisposable> WaitFirstAsync() => WaitIn(_first, CancellationToken.None);

    private async Task<IDisposable> WaitIn(Queue<TaskCompletionSource<IDisposable>> queue, CancellationToken stop)
    {
        stop.ThrowIfCancellationRequested();
        TaskCompletionSource<IDisposable> waiting = new(TaskCreationOptions.RunContinuationsAsynchronously);
        lock (_lock)
        {
            if (!_taken)
            {
                _taken = true;
                return new Turn(this);
            }

            queue.Enqueue(waiting);
        }

        // Whoever gives up is passed over when the turn comes; a turn that came first is given back by the one who has it.
        await using (stop.Register(() => waiting.TrySetCanceled(stop)))
        {
            return await waiting.Task;
        }
    }

    private void Next()
    {
        lock (_lock)
        {
            while (_first.TryDequeue(out var next) || _others.TryDequeue(out next))
            {
                if (next.TrySetResult(new Turn(this)))
                {
                    return;
                }
            }

            _taken = false;
        }
    }

    private sealed class Turn(WriteQueue queue) : IDisposable
    {
        private WriteQueue? _queue = queue;

        public void Dispose() => Interlocked.Exchange(ref _queue, null)?.Next();
    }
}
