using Fobble.Data.Backups;
using Fobble.Data.Keeping;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fobble.Server.Features.WholeSchool;

/// <param name="Id">The number that was told to whoever met it, and stands in the log.</param>
public sealed record FaultView(string Id, DateTimeOffset At);

/// <param name="Part">Of Fobble, by the name of its folder: <c>Groups</c>.</param>
/// <param name="Seconds">Nineteen of twenty answers of it took that long at the most.</param>
public sealed record SlowPart(string Part, double Seconds);

/// <param name="BackupsOn">Whether it is said where backups go.</param>
/// <param name="LastBackup">Null where none was taken yet.</param>
/// <param name="BackupFault">Why the last try failed; null where it did not.</param>
/// <param name="FreeGigabytes">Room left beside the data.</param>
/// <param name="LittleRoom">So little that somebody should look.</param>
/// <param name="Slowest">The slowest first; empty soon after a start.</param>
/// <param name="Faults">Of the program, of the last seven days as far back as it has run; the newest first.</param>
public sealed record RunningView(
    string Version,
    DateTimeOffset Since,
    bool BackupsOn,
    DateTimeOffset? LastBackup,
    string? BackupFault,
    double FreeGigabytes,
    bool LittleRoom,
    IReadOnlyList<SlowPart> Slowest,
    IReadOnlyList<FaultView> Faults
);

/// <summary>Whether the machine in the cupboard is well, for whoever leads the school and for nobody who knows servers.</summary>
internal static class HowItRuns
{
    private const double Gigabyte = 1e9;
    private const int MostSlow = 3;

    public static void Map(IEndpointRouteBuilder school)
    {
        school.MapGet("/running", Get);
        school.MapPost("/running/backup", BackUpAsync).WithTrace(TraceKind.BackupTaken);
    }

    private static Ok<RunningView> Get(FobbleSettings settings, Backups backups, RecentFaults faults, PageTimes times)
    {
        var (state, free) = (backups.State, DataFolder.FreeAt(settings.Data));
        return TypedResults.Ok(
            new RunningView(
                Setup.Version,
                faults.Since,
                settings.Backup.On,
                state.At,
                state.Fault,
                free / Gigabyte,
                free < RoomLeft.Little,
                [.. times.Slowest(MostSlow).Select(p => new SlowPart(p.Part, p.Seconds))],
                [.. faults.OfTheWeek().Select(f => new FaultView(f.Id, f.At))]
            )
        );
    }

    private static async Task<NoContent> BackUpAsync(FobbleSettings settings, Backups backups, CancellationToken stop)
    {
        RefusedException.Unless(
            settings.Backup.On,
            "backup",
            Phrase("It is not said yet where backups go: whoever looks after the machine does that, in its settings.")
        );
        try
        {
            await backups.TakeAsync(stop);
        }
        catch (Exception fault) when (fault is NotWholeException or IOException or UnauthorizedAccessException)
        {
            throw new RefusedException("backup", Phrase($"It could not be taken: {fault.Message}"));
        }

        return TypedResults.NoContent();
    }
}
