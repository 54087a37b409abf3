using System.Diagnostics;
using Fobble.Data;
using Fobble.Data.Keeping;
using Microsoft.AspNetCore.Diagnostics.HealthChecks;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.Diagnostics.HealthChecks;

namespace Fobble.Server.Hosting;

/// <summary>
/// What a watcher asks: <c>/health/live</c> (the process answers), <c>/health/ready</c> (it can read and keep), <c>/health</c> (these, room and backup). 200, or 503 where it is not
/// so; a backup that is late is told and stops nothing.
/// </summary>
internal static class Health
{
    public const string Address = "/health";
    private const string Ready = "ready";

    public static void AddHealth(this IServiceCollection services)
    {
        services.AddSingleton<ReadsAndWrites>();
        services
            .AddHealthChecks()
            .AddCheck<ReadsAndWrites>("database", tags: [Ready])
            .AddCheck<RoomLeft>("room", tags: [Ready])
            .AddCheck<BackupAge>("backup", failureStatus: HealthStatus.Degraded);
    }

    public static void MapHealth(this IEndpointRouteBuilder addresses)
    {
        addresses.MapHealthChecks($"{Address}/live", Asking(_ => false)).AllowAnonymous();
        addresses.MapHealthChecks($"{Address}/ready", Asking(c => c.Tags.Contains(Ready))).AllowAnonymous();
        addresses.MapHealthChecks(Address, Asking(_ => true)).AllowAnonymous();
    }

    private static HealthCheckOptions Asking(Func<HealthCheckRegistration, bool> checks) => new() { Predicate = checks, ResponseWriter = WriteAsync };

    // Anybody may ask: numbers and words, no path and no sentence of the system.
    private static Task WriteAsync(HttpContext context, HealthReport report) =>
        context.Response.WriteAsJsonAsync(
            new
            {
                Status = report.Status.ToString(),
                Checks = report.Entries.ToDictionary(e => e.Key, e => e.Value.Status.ToString()),
                Figures = report.Entries.SelectMany(e => e.Value.Data).ToDictionary(d => d.Key, d => d.Value),
            },
            context.RequestAborted
        );
}

/// <summary>Reads a row, takes the database's write lock and lets go of it, and writes a file to the disk. However many ask, it is tried once in some seconds.</summary>
internal sealed class ReadsAndWrites(FobbleSettings settings) : IHealthCheck, IDisposable
{
    private static readonly TimeSpan Holds = TimeSpan.FromSeconds(5);
    private readonly SemaphoreSlim _one = new(1, 1);
    private HealthCheckResult? _last;
    private long _triedAt;

    public async Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default)
    {
        await _one.WaitAsync(cancellationToken);
        try
        {
            if (_last is { } last && Stopwatch.GetElapsedTime(_triedAt) < Holds)
            {
                return last;
            }

            var result = await Task.Run(Try, cancellationToken);
            (_last, _triedAt) = (result, Stopwatch.GetTimestamp());
            return result;
        }
        finally
        {
            _one.Release();
        }
    }

    public void Dispose() => _one.Dispose();

    private HealthCheckResult Try()
    {
        try
        {
            FobbleDb.TryReadingAndWriting(Path.Combine(settings.Data, DataFolder.DatabaseFile));
            DataFolder.TryWriting(settings.Data);
            return HealthCheckResult.Healthy();
        }
        catch (Exception fault) when (fault is SqliteException or IOException or UnauthorizedAccessException)
        {
            return HealthCheckResult.Unhealthy(exception: fault);
        }
    }
}

/// <summary>How much may still be written beside the data.</summary>
internal sealed class RoomLeft(FobbleSettings settings) : IHealthCheck
{
    /// <summary>From here on somebody should look, in bytes.</summary>
    public const long Little = 1_000_000_000;

    public Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default)
    {
        var free = DataFolder.FreeAt(settings.Data);
        Dictionary<string, object> figures = new() { ["freeBytes"] = free };
        return Task.FromResult(
            free < DataFolder.LeastFree ? HealthCheckResult.Unhealthy(data: figures)
            : free < Little ? HealthCheckResult.Degraded(data: figures)
            : HealthCheckResult.Healthy(data: figures)
        );
    }
}

/// <summary>How old the last backup is, where there are to be any.</summary>
internal sealed class BackupAge(Backups backups, FobbleSettings settings, TimeProvider clock) : IHealthCheck
{
    public Task<HealthCheckResult> CheckHealthAsync(HealthCheckContext context, CancellationToken cancellationToken = default)
    {
        if (!settings.Backup.On)
        {
            return Task.FromResult(HealthCheckResult.Healthy());
        }

        var state = backups.State;
        Dictionary<string, object> figures = state.At is { } at
            ? new() { ["lastBackup"] = at, ["lastBackupMinutes"] = (int)(clock.GetUtcNow() - at).TotalMinutes }
            : [];
        return Task.FromResult(state.Fault is null ? HealthCheckResult.Healthy(data: figures) : HealthCheckResult.Degraded(data: figures));
    }
}
