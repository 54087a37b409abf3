using System.Diagnostics;
using System.Globalization;
using Fobble.Data;
using Fobble.Data.Backups;
using Fobble.Data.Keeping;
using Fobble.Data.Model;
using Fobble.Server.Mail;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Hosting;

/// <param name="At">When the newest backup was taken; null for none.</param>
/// <param name="Fault">Why the last try failed; null where it did not.</param>
public sealed record BackupState(DateTimeOffset? At, string? Fault);

/// <summary>Takes a backup whenever something has changed since the last one, and lets go of those that are over.</summary>
internal sealed partial class Backups(
    FobbleSettings settings,
    SchoolLanguage language,
    IServiceScopeFactory scopes,
    WriteQueue queue,
    MailQueue mail,
    TimeProvider clock,
    ILogger<Backups> log
) : BackgroundService
{
    /// <summary>As often as that somebody is told that they fail.</summary>
    private static readonly TimeSpan TellsEvery = TimeSpan.FromDays(1);

    private readonly SemaphoreSlim _taking = new(1, 1);
    private ChangeWatch? _watches;
    private long? _seen;
    private string? _fault;
    private DateTimeOffset? _told;

    private string Database => Path.Combine(settings.Data, DataFolder.DatabaseFile);

    public BackupState State => new(Rotation.Newest(Taken(), clock.GetUtcNow()), _fault);

    /// <summary>The newest file; null where there is none.</summary>
    public string? Newest => State.At is { } at ? Path.Combine(settings.Backup.Folder!, BackupFile.NameAt(at)) : null;

    /// <summary>Takes one now.</summary>
    /// <exception cref="NotWholeException">It could not be taken.</exception>
    public async Task<string> TakeAsync(CancellationToken stop)
    {
        await _taking.WaitAsync(stop);
        try
        {
            var began = Stopwatch.GetTimestamp();
            var file = await Task.Run(
                () => BackupFile.Take(settings.Data, settings.Backup.Folder!, settings.Backup.Passphrase!, clock.GetUtcNow(), Setup.Version),
                stop
            );
            Measured.BackedUp.Record(Stopwatch.GetElapsedTime(began).TotalSeconds);
            CopyErased();
            foreach (var over in Rotation.Over(Taken(), BackupFile.TakenAt(Path.GetFileName(file))))
            {
                File.Delete(Path.Combine(settings.Backup.Folder!, BackupFile.NameAt(over)));
            }

            _fault = null;
            return file;
        }
        catch (Exception fault) when (fault is NotWholeException or IOException or UnauthorizedAccessException)
        {
            _fault = fault.Message;
            throw;
        }
        finally
        {
            _taking.Release();
        }
    }

    /// <summary>Takes one where the database has changed since the last look.</summary>
    public async Task TakeIfChangedAsync(CancellationToken stop)
    {
        _watches ??= new(Database);
        var version = _watches.Version();
        if (_seen == version)
        {
            return;
        }

        await TakeAsync(stop);
        _seen = version;
    }

    /// <summary>Takes one where that is due. Where it can't be, that is told, and tried again at the next look; the school goes on.</summary>
    public async Task LookAsync(CancellationToken stop)
    {
        try
        {
            await TakeIfChangedAsync(stop);
        }
#pragma warning disable CA1031 // Whatever a disk that is not there can come up with.
        catch (Exception fault) when (!stop.IsCancellationRequested)
#pragma warning restore CA1031
        {
            _fault = fault.Message;
            NotTaken(log, fault);
            await TellAsync(stop);
        }
    }

    public override void Dispose()
    {
        _watches?.Dispose();
        _taking.Dispose();
        base.Dispose();
    }

    protected override async Task ExecuteAsync(CancellationToken stoppingToken)
    {
        while (settings.Backup.On && !stoppingToken.IsCancellationRequested)
        {
            // At a start everybody waits for other things.
            await Task.Delay(TimeSpan.FromMinutes(settings.Backup.EveryMinutes), stoppingToken);
            CultureInfo.CurrentUICulture = await language.NowAsync(stoppingToken);
            await LookAsync(stoppingToken);
        }
    }

    private IEnumerable<DateTimeOffset> Taken() =>
        settings.Backup.On && Directory.Exists(settings.Backup.Folder)
            ? Directory.EnumerateFiles(settings.Backup.Folder!).Select(f => BackupFile.TakenAt(Path.GetFileName(f))).OfType<DateTimeOffset>()
            : [];

    private async Task TellAsync(CancellationToken stop)
    {
        var now = clock.GetUtcNow();
        if (!mail.On || now - _told < TellsEvery)
        {
            return;
        }

        _told = now;
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<FobbleDb>();
        using (await queue.WaitAsync(stop))
        {
            foreach (var lead in await db.SchoolLeads.Select(l => l.Adult!.Email!).Distinct().ToListAsync(stop))
            {
                await mail.AskAsync(db, MailKind.BackupFailed, lead, by: null, stop);
            }

            await db.SaveChangesAsync(stop);
        }

        mail.Wake();
    }

    // Numbers only: whoever puts an older backup back erases again what was erased since.
    private void CopyErased()
    {
        var list = Path.Combine(settings.Data, Rooms.Erasing.ListFile);
        if (File.Exists(list))
        {
            File.Copy(list, Path.Combine(settings.Backup.Folder!, Rooms.Erasing.ListFile), overwrite: true);
        }
    }

    [LoggerMessage(Level = LogLevel.Error, Message = "The backup could not be taken.")]
    private static partial void NotTaken(ILogger log, Exception fault);
}
