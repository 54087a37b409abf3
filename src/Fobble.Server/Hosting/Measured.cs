using System.Diagnostics;
using System.Diagnostics.Metrics;
using Fobble.Data.Keeping;
using Fobble.Server.Rooms;

namespace Fobble.Server.Hosting;

/// <summary>What is counted and timed of the work, for whoever watches servers: numbers, and the names of kinds, never of people. What nobody collects costs next to nothing.</summary>
internal static class Measured
{
    /// <summary>Under which a collector finds it.</summary>
    public const string Name = "Fobble";

    private static readonly Meter Meter = new(Name);

    /// <summary>Work of a solver or a picture, as a span.</summary>
    public static ActivitySource Work { get; } = new(Name);

    /// <summary>Observations by what became of them (<see cref="Data.Kept"/>).</summary>
    public static Counter<long> Kept { get; } =
        Meter.CreateCounter<long>("fobble.observations", description: "Observations that came, by what became of them.");

    /// <summary>Observations that no try again would bring in, by the status that the tablet was told: they wait there for an adult.</summary>
    public static Counter<long> Refused { get; } =
        Meter.CreateCounter<long>("fobble.observations.refused", description: "Observations refused, so that they wait on a tablet for a decision.");

    public static Histogram<int> Together { get; } = Meter.CreateHistogram<int>("fobble.observations.together", description: "Observations in one commit.");

    public static Histogram<double> Solved { get; } =
        Meter.CreateHistogram<double>("fobble.solving.duration", "s", "Time that a solver worked, its wait for a core aside.");

    public static Histogram<double> BackedUp { get; } = Meter.CreateHistogram<double>("fobble.backup.duration", "s", "Time that a backup took.");
}

/// <summary>What is as long or as old as it is at the moment when somebody asks.</summary>
internal sealed class Gauges : IDisposable
{
    private readonly Meter _meter = new(Measured.Name + ".Now");

    public Gauges(WriteQueue writes, ReadingTurns reads, Solving solving, JobQueue jobs, Backups backups, FobbleSettings settings, TimeProvider clock)
    {
        _meter.CreateObservableGauge("fobble.writes.waiting", () => writes.Waiting, description: "Changes that wait for their turn to be written.");
        _meter.CreateObservableGauge("fobble.reads.waiting", () => reads.Waiting, description: "Questions of pages that wait for a core.");
        _meter.CreateObservableGauge("fobble.solving.waiting", () => solving.Waiting, description: "Solvers that wait for a core.");
        _meter.CreateObservableGauge("fobble.jobs.waiting", () => jobs.Waiting, description: "Long work that waits for its turn.");
        _meter.CreateObservableGauge("fobble.disk.free", () => DataFolder.FreeAt(settings.Data), "By", "Room beside the data.");
        _meter.CreateObservableGauge<double>(
            "fobble.backup.age",
            () => backups.State.At is { } at ? [new((clock.GetUtcNow() - at).TotalSeconds)] : [],
            "s",
            "Since the last backup; absent where there is none."
        );
    }

    public void Dispose() => _meter.Dispose();
}
