using System.Diagnostics;

namespace Fobble.Server.Hosting;

/// <summary>
/// Work that keeps a core busy for longer than a request should: at most as many at a time as there are cores, however many ask, the classes in turn, and none for somebody who has
/// gone away.
/// </summary>
/// <param name="cores">How many are worked at at a time.</param>
internal sealed class Solving(int cores)
{
    private readonly Lock _lock = new();
    private readonly TurnsOfClasses<TaskCompletionSource> _turns = new();
    private int _free = cores;
    private int _waiting;

    public Solving()
        : this(Environment.ProcessorCount) { }

    /// <summary>How many wait for a core.</summary>
    public int Waiting => Volatile.Read(ref _waiting);

    /// <param name="of">The class for which it is worked out.</param>
    /// <param name="solve">Heeds the token as far as it can.</param>
    public async Task<T> RunAsync<T>(ClassId of, Func<CancellationToken, T> solve, CancellationToken stop)
    {
        Interlocked.Increment(ref _waiting);
        try
        {
            await WaitAsync(of, stop);
        }
        finally
        {
            Interlocked.Decrement(ref _waiting);
        }

        var began = Stopwatch.GetTimestamp();
        try
        {
            using var span = Measured.Work.StartActivity("solving");
            return await OnThreadOfItsOwn(() => solve(stop), stop);
        }
        finally
        {
            HandOn();
            Measured.Solved.Record(Stopwatch.GetElapsedTime(began).TotalSeconds);
        }
    }

    /// <summary>
    /// Beside the pool: its few threads are for requests, and for hearing that the server is to end. Work that holds them for seconds would let both wait.
    /// </summary>
    public static Task<T> OnThreadOfItsOwn<T>(Func<T> work, CancellationToken stop) =>
        Task.Factory.StartNew(work, stop, TaskCreationOptions.LongRunning, TaskScheduler.Default);

    private async Task WaitAsync(ClassId of, CancellationToken stop)
    {
        stop.ThrowIfCancellationRequested();
        TaskCompletionSource turn = new(TaskCreationOptions.RunContinuationsAsynchronously);
        lock (_lock)
        {
            if (_free > 0)
            {
                _free--;
                return;
            }

            _turns.Add(of, turn);
        }

        await using var gone = stop.Register(() => turn.TrySetCanceled(stop));
        await turn.Task;
    }

    // To whoever still waits.
    private void HandOn()
    {
        lock (_lock)
        {
            while (_turns.TryTake(out var turn))
            {
                if (turn.TrySetResult())
                {
                    return;
                }
            }

            _free++;
        }
    }
}
