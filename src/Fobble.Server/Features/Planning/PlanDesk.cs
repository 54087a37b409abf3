using System.Collections.Concurrent;
using Fobble.Core.Planning;

namespace Fobble.Server.Features.Planning;

/// <summary>A plan in the making, in the memory of this server: what is not accepted within an hour is forgotten.</summary>
internal sealed class Draft(Guid id, int classId, PlanAsk ask, DateTimeOffset begun) : IProgress<double>, IDisposable
{
    private readonly CancellationTokenSource _stop = new();
    private double _progress;

    public Guid Id { get; } = id;

    public int ClassId { get; } = classId;

    public PlanAsk Ask { get; } = ask;

    public DateTimeOffset Begun { get; } = begun;

    public DraftState State { get; private set; }

    public string Doing { get; private set; } = "Counting lessons and days";

    public double Progress => Volatile.Read(ref _progress);

    public Fit? Fit { get; private set; }

    public YearScope? Scope { get; private set; }

    public YearPlan? Plan { get; private set; }

    public DateOnly From { get; private set; }

    public DateOnly Until { get; private set; }

    public IReadOnlyList<WorkedWayOut> Ways { get; private set; } = [];

    public void Report(double value) => Volatile.Write(ref _progress, value);

    public void Cancel() => _stop.Cancel();

    public void Dispose() => _stop.Dispose();

    /// <summary>Does the work; what it finds can be read while it goes on.</summary>
    public void Run(YearRequest request)
    {
        try
        {
            (From, Until) = (request.From, request.Until);
            Scope = YearScope.Of(request);
            Fit = Fit.Of(Scope.Problem);
            if (Fit.Fits)
            {
                Doing = "Laying out the lessons";
                Plan = YearPlanner.Plan(request, Scope, this, _stop.Token);
            }
            else
            {
                Doing = "Working ways out through";
                var ways = WaysOut.Of(request);
                foreach (var way in ways)
                {
                    Ways = [.. Ways, WaysOut.WorkThrough(request, way, _stop.Token)];
                    Report((double)Ways.Count / ways.Count);
                }
            }

            State = DraftState.Done;
        }
        catch (OperationCanceledException)
        {
            State = DraftState.Cancelled;
        }
#pragma warning disable CA1031 // A failed solve must be seen by whoever waits for it, not end the process.
        catch (Exception)
#pragma warning restore CA1031
        {
            State = DraftState.Failed;
            throw;
        }
    }
}

/// <summary>Keeps drafts while they are worked out in the background and until they are taken.</summary>
internal sealed partial class PlanDesk(TimeProvider clock, ILogger<PlanDesk> log)
{
    private static readonly TimeSpan Keep = TimeSpan.FromHours(1);
    private readonly ConcurrentDictionary<Guid, Draft> _drafts = [];

    public Draft Begin(int classId, PlanAsk ask, YearRequest request)
    {
        var now = clock.GetUtcNow();
        foreach (var old in _drafts.Values.Where(d => now - d.Begun > Keep))
        {
            Forget(old);
        }

        // A class makes one plan at a time: a new question takes the place of one that is still being worked at.
        foreach (var other in _drafts.Values.Where(d => d.ClassId == classId && d.State == DraftState.Working))
        {
            other.Cancel();
        }

        Draft draft = new(Guid.NewGuid(), classId, ask, now);
        _drafts[draft.Id] = draft;
        _ = Task.Run(() =>
        {
            try
            {
                draft.Run(request);
            }
#pragma warning disable CA1031 // Said to whoever waits by the draft's state; here it is only written down.
            catch (Exception fault)
#pragma warning restore CA1031
            {
                Failed(log, classId, fault);
            }
        });
        return draft;
    }

    public Draft? Find(int classId, Guid id) => _drafts.TryGetValue(id, out var draft) && draft.ClassId == classId ? draft : null;

    /// <summary>Lets go of a draft; one that is still being worked at is cancelled.</summary>
    public void Forget(Draft draft)
    {
        if (_drafts.TryRemove(draft.Id, out _))
        {
            draft.Cancel();
            if (draft.State != DraftState.Working)
            {
                draft.Dispose();
            }
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "A plan for class {ClassId} could not be worked out.")]
    private static partial void Failed(ILogger log, int classId, Exception fault);
}
