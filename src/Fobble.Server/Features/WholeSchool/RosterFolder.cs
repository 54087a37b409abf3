using System.Globalization;
using Fobble.Data;
using Fobble.Formats.Rosters;
using Fobble.Server.Hosting;
using Fobble.Server.Rooms;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.WholeSchool;

/// <summary>Looks into the folder where the school's office puts its lists, and reads the newest once. What it proposes waits until somebody decides.</summary>
internal sealed partial class RosterFolder(
    IServiceScopeFactory scopes,
    FobbleSettings settings,
    SchoolLanguage language,
    TimeProvider clock,
    ILogger<RosterFolder> log
) : BackgroundService
{
    private static readonly TimeSpan LooksAgain = TimeSpan.FromSeconds(10);

    private string? _before;

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (settings.Roster is not null && !stoppingToken.IsCancellationRequested)
        {
            try
            {
                await LookAsync(stoppingToken);
            }
            catch (Exception fault) when (fault is not OperationCanceledException)
            {
                CouldNotLook(fault);
            }

            await Task.Delay(LooksAgain, stoppingToken);
        }
    }

    /// <summary>Reads a file at the second look that finds it as it was at the first: until then somebody may still be writing it.</summary>
    public async Task LookAsync(CancellationToken stop)
    {
        DirectoryInfo folder = new(settings.Roster!);
        var newest = folder.Exists
            ? folder.EnumerateFiles("*.zip").OrderByDescending(f => f.LastWriteTimeUtc).ThenByDescending(f => f.Name).FirstOrDefault()
            : null;
        if (newest is null)
        {
            return;
        }

        var seen = string.Create(CultureInfo.InvariantCulture, $"{newest.Name}|{newest.Length}|{newest.LastWriteTimeUtc.Ticks}");
        if (Interlocked.Exchange(ref _before, seen) != seen)
        {
            return;
        }

        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<FobbleDb>();

        // An installation is one school's.
        if (
            await db.Schools.OrderBy(s => s.Id).FirstOrDefaultAsync(stop) is not { } school
            || await db.Rosters.AnyAsync(r => r.SchoolId == school.Id && r.Seen == seen, stop)
        )
        {
            return;
        }

        CultureInfo.CurrentUICulture = await language.NowAsync(stop);
        var file = newest.Length > OneRosterReader.LargestZip ? [] : await File.ReadAllBytesAsync(newest.FullName, stop);
        await Rosters.TakeAsync(scope.ServiceProvider.GetRequiredService<Decisions>(), school, newest.Name, file, seen, clock, stop);
    }

    [LoggerMessage(Level = LogLevel.Warning, Message = "The folder of the office's lists could not be looked into; it is tried again.")]
    private partial void CouldNotLook(Exception fault);
}
