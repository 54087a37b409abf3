using System.Diagnostics;

namespace Fobble.Server.Hosting;

/// <summary>
/// Work that keeps a core busy for longer than a request should: at most as many at a time as there are cores, however many ask, and none for somebody who has
/// gone away.
/// </summary>
internal sealed class Solving : IDisposable
{
    private readonly SemaphoreSlim _cores = new(Environment.ProcessorCount, Environment.ProcessorCount);

    private int _waiting;

    /// <summary>How many wait for a core.</summary>
    public int Waiting => Volatile.Read(ref _waiting);

    /// <param name="solve">Heeds the token as far as it can.</param>
    public async Task<T> RunAsync<T>(Func<CancellationToken, T> solve, CancellationToken stop)
    {
        Interlocked.Increment(ref _waiting);
        try
        {
            await _cores.WaitAsync(stop);
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
            _cores.Release();
            Measured.Solved.Record(Stopwatch.GetElapsedTime(began).TotalSeconds);
        }
    }

    /// <summary>
    /// Beside the pool: its few threads are for requests, and for hearing that the server is to end. Work that holds them for seconds would let both wait.
    /// </summary>
    public static Task<T> OnThreadOfItsOwn<T>(Func<T> work, CancellationToken stop) =>
        Task.Factory.StartNew(work, stop, TaskCreationOptions.LongRunning, TaskScheduler.Default);

    public void Dispose() => _cores.Dispose();
}
