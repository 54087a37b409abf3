using System.Globalization;

namespace Fobble.Server.Hosting;

public enum JobState
{
    /// <summary>Being worked at, or waiting for its turn.</summary>
    Working,
    Done,
    Cancelled,
    Failed,
}

/// <summary>Something worked out in the background, in the memory of this server; what it finds can be read while it goes on.</summary>
/// <param name="adultId">Who asked for it: a new question of the same adult takes the place of an old one of its kind, another adult's goes on.</param>
internal abstract class Job(ClassId classId, AdultId adultId, DateTimeOffset begun) : IProgress<double>, IDisposable
{
    private readonly CancellationTokenSource _stop = new();
    private double _progress;

    // Whoever asked hears the answer in the language in which it was asked.
    private readonly CultureInfo _language = CultureInfo.CurrentUICulture;
    private volatile JobState _state;

    public Guid Id { get; } = Guid.NewGuid();

    public ClassId ClassId { get; } = classId;

    public AdultId AdultId { get; } = adultId;

    public DateTimeOffset Begun { get; } = begun;

    public JobState State => _state;

    /// <summary>Share that is done, 0 to 1.</summary>
    public double Progress => Volatile.Read(ref _progress);

    public void Report(double value) => Volatile.Write(ref _progress, value);

    public void Cancel()
    {
        _stop.Cancel();

        // One that has not had its turn is over at once; one that is worked at says so itself.
        Interlocked.CompareExchange(ref _begunWork, 1, 0);
        if (_begunWork == 1)
        {
            _state = JobState.Cancelled;
        }
    }

    /// <summary>Works it out, if it has not been cancelled before its turn came.</summary>
    public void Go(CancellationToken shutdown)
    {
        if (Interlocked.CompareExchange(ref _begunWork, 2, 0) != 0)
        {
            return;
        }

        using var both = CancellationTokenSource.CreateLinkedTokenSource(_stop.Token, shutdown);
        CultureInfo.CurrentUICulture = _language;
        try
        {
            Run(both.Token);
            _state = JobState.Done;
        }
        catch (OperationCanceledException)
        {
            _state = JobState.Cancelled;
        }
        catch
        {
            _state = JobState.Failed;
            throw;
        }
    }

    public void Dispose() => _stop.Dispose();

    protected abstract void Run(CancellationToken stop);

    // 0: waits, 1: cancelled before its turn, 2: had its turn.
    private int _begunWork;
}

/// <summary>
/// Works at jobs one after the other, beside the requests, the classes in turn. Few may wait, and of one class fewer than of all; one that fails is written down; all end when the server
/// does. What nobody fetches within an hour is forgotten.
/// </summary>
internal sealed partial class JobQueue(TimeProvider clock, ILogger<JobQueue> log) : BackgroundService
{
    private const int MostWaiting = 20;
    private const int MostOfAClass = 8;
    private static readonly TimeSpan Keep = TimeSpan.FromHours(1);

    private readonly SemaphoreSlim _comes = new(0);
    private readonly TurnsOfClasses<Job> _turns = new();
    private readonly Dictionary<Guid, Job> _jobs = [];
    private readonly Lock _lock = new();
    private bool _ends;

    /// <summary>How many wait for their turn.</summary>
    public int Waiting
    {
        get
        {
            lock (_lock)
            {
                return StillWanted(_turns.Waiting);
            }
        }
    }

    /// <summary>Lets a job wait for its turn. An adult has one of a kind in a class at a time.</summary>
    /// <exception cref="RefusedException">Too many are waiting.</exception>
    public TJob Begin<TJob>(TJob job)
        where TJob : Job
    {
        lock (_lock)
        {
            var now = clock.GetUtcNow();
            foreach (var old in _jobs.Values.Where(j => now - j.Begun > Keep).ToList())
            {
                Forget(old);
            }

            RefusedException.Unless(
                !_ends && StillWanted(_turns.Waiting) < MostWaiting && StillWanted(_turns.WaitingOf(job.ClassId)) < MostOfAClass,
                "job",
                Phrase("The server has too much to work out just now. Try again in a minute.")
            );
            foreach (var other in _jobs.Values.Where(j => j is TJob && j.State == JobState.Working && j.ClassId == job.ClassId && j.AdultId == job.AdultId))
            {
                other.Cancel();
            }

            _jobs[job.Id] = job;
            _turns.Add(job.ClassId, job);
        }

        _comes.Release();
        return job;
    }

    public TJob? Find<TJob>(ClassId classId, Guid id)
        where TJob : Job
    {
        lock (_lock)
        {
            return _jobs.TryGetValue(id, out var job) && job.ClassId == classId ? job as TJob : null;
        }
    }

    /// <summary>Lets go of a job; one that is still being worked at is cancelled.</summary>
    public void Forget(Job job)
    {
        lock (_lock)
        {
            job.Cancel();
            _jobs.Remove(job.Id);
            if (job.State != JobState.Working)
            {
                job.Dispose();
            }
        }
    }

    /// <summary>Ends what is worked at; the turn of what waits does not come any more.</summary>
    public override async Task StopAsync(CancellationToken cancellationToken)
    {
        lock (_lock)
        {
            _ends = true;
            foreach (var job in _jobs.Values)
            {
                job.Cancel();
            }
        }

        await base.StopAsync(cancellationToken);
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (true)
        {
            await _comes.WaitAsync(stoppingToken);
            await WorkAsync(Next(), stoppingToken);
        }
    }

    public override void Dispose()
    {
        _comes.Dispose();
        base.Dispose();
    }

    private static int StillWanted(IEnumerable<Job> jobs) => jobs.Count(j => j.State == JobState.Working);

    private Job Next()
    {
        lock (_lock)
        {
            return _turns.TryTake(out var job) ? job : throw new InvalidOperationException("One comes for each that is let go.");
        }
    }

    private async Task WorkAsync(Job job, CancellationToken stop)
    {
        try
        {
            await Solving.OnThreadOfItsOwn(
                () =>
                {
                    job.Go(stop);
                    return job;
                },
                stop
            );
        }
        catch (OperationCanceledException) when (stop.IsCancellationRequested) { }
#pragma warning disable CA1031 // Said to whoever waits by the job's state; here it is only written down.
        catch (Exception fault)
#pragma warning restore CA1031
        {
            Failed(log, job.GetType().Name, job.ClassId, fault);
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "{Kind} of class {ClassId} could not be worked out.")]
    private static partial void Failed(ILogger log, string kind, ClassId classId, Exception fault);
}
