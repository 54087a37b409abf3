using System.Collections.Concurrent;

namespace Fobble.Server.Hosting;

public enum JobState
{
    Working,
    Done,
    Cancelled,
    Failed,
}

/// <summary>Something worked out in the background, in the memory of this server; what it finds can be read while it goes on.</summary>
internal abstract class Job(int classId, DateTimeOffset begun) : IProgress<double>, IDisposable
{
    private readonly CancellationTokenSource _stop = new();
    private double _progress;

    public Guid Id { get; } = Guid.NewGuid();

    public int ClassId { get; } = classId;

    public DateTimeOffset Begun { get; } = begun;

    public JobState State { get; private set; }

    /// <summary>Share that is done, 0 to 1.</summary>
    public double Progress => Volatile.Read(ref _progress);

    public void Report(double value) => Volatile.Write(ref _progress, value);

    public void Cancel() => _stop.Cancel();

    public void Dispose() => _stop.Dispose();

    public void Go()
    {
        try
        {
            Run(_stop.Token);
            State = JobState.Done;
        }
        catch (OperationCanceledException)
        {
            State = JobState.Cancelled;
        }
#pragma warning disable CA1031 // A failed piece of work must be seen by whoever waits for it, not end the process.
        catch (Exception)
#pragma warning restore CA1031
        {
            State = JobState.Failed;
            throw;
        }
    }

    protected abstract void Run(CancellationToken stop);
}

/// <summary>Keeps jobs of one kind while they are worked out and until they are taken; what nobody fetches within an hour is forgotten.</summary>
internal sealed partial class Desk<TJob>(TimeProvider clock, ILogger<Desk<TJob>> log)
    where TJob : Job
{
    private static readonly TimeSpan Keep = TimeSpan.FromHours(1);
    private readonly ConcurrentDictionary<Guid, TJob> _jobs = [];

    /// <summary>Begins a job. A class has one of a kind at a time: a new question takes the place of one that is still being worked at.</summary>
    public TJob Begin(TJob job)
    {
        var now = clock.GetUtcNow();
        foreach (var old in _jobs.Values.Where(j => now - j.Begun > Keep))
        {
            Forget(old);
        }

        foreach (var other in _jobs.Values.Where(j => j.ClassId == job.ClassId && j.State == JobState.Working))
        {
            other.Cancel();
        }

        _jobs[job.Id] = job;
        _ = Task.Run(() =>
        {
            try
            {
                job.Go();
            }
#pragma warning disable CA1031 // Said to whoever waits by the job's state; here it is only written down.
            catch (Exception fault)
#pragma warning restore CA1031
            {
                Failed(log, typeof(TJob).Name, job.ClassId, fault);
            }
        });
        return job;
    }

    public TJob? Find(int classId, Guid id) => _jobs.TryGetValue(id, out var job) && job.ClassId == classId ? job : null;

    /// <summary>Lets go of a job; one that is still being worked at is cancelled.</summary>
    public void Forget(TJob job)
    {
        if (_jobs.TryRemove(job.Id, out _))
        {
            job.Cancel();
            if (job.State != JobState.Working)
            {
                job.Dispose();
            }
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "{Kind} of class {ClassId} could not be worked out.")]
    private static partial void Failed(ILogger log, string kind, int classId, Exception fault);
}
