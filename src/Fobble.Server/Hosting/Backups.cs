using System.Globalization;
using Fobble.Data;
using Fobble.Data.Backups;
using Fobble.Data.Keeping;
using Microsoft.Data.Sqlite;

namespace Fobble.Server.Hosting;

/// <param name="At">When the newest backup was taken; null for none.</param>
/// <param name="Fault">Why the last try failed; null where it did not.</param>
public sealed record BackupState(DateTimeOffset? At, string? Fault);

/// <summary>Takes a backup whenever something has changed since the last one, and lets go of those that are over.</summary>
internal sealed partial class Backups(FobbleSettings settings, SchoolLanguage language, TimeProvider clock, ILogger<Backups> log) : BackgroundService
{
    private readonly SemaphoreSlim _taking = new(1, 1);
    private SqliteConnection? _watches;
    private long? _seen;
    private string? _fault;

    private string Database => Path.Combine(settings.Data, DataFolder.DatabaseFile);

    public BackupState State => new(Taken().Order().Cast<DateTimeOffset?>().LastOrDefault(), _fault);

    /// <summary>Takes one now.</summary>
    /// <exception cref="NotWholeException">It could not be taken.</exception>
    public async Task<string> TakeAsync(CancellationToken stop)
    {
        await _taking.WaitAsync(stop);
        try
        {
            var file = await Task.Run(
                () => BackupFile.Take(settings.Data, settings.Backup.Folder!, settings.Backup.Passphrase!, clock.GetUtcNow(), Setup.Version),
                stop
            );
            CopyErased();
            foreach (var over in Rotation.Over(Taken(), clock.GetUtcNow()))
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
        _watches ??= FobbleDb.KeepOpen(Database);
        using var command = _watches.CreateCommand();

        // Another number whenever another connection has written something.
        command.CommandText = "PRAGMA data_version";
        var version = Convert.ToInt64(command.ExecuteScalar(), CultureInfo.InvariantCulture);
        if (_seen == version)
        {
            return;
        }

        await TakeAsync(stop);
        _seen = version;
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
            try
            {
                CultureInfo.CurrentUICulture = await language.NowAsync(stoppingToken);
                await TakeIfChangedAsync(stoppingToken);
            }
#pragma warning disable CA1031 // A backup that fails is told and tried again; the school goes on.
            catch (Exception fault) when (!stoppingToken.IsCancellationRequested)
#pragma warning restore CA1031
            {
                _fault = fault.Message;
                NotTaken(log, fault);
            }
        }
    }

    private IEnumerable<DateTimeOffset> Taken() =>
        settings.Backup.On && Directory.Exists(settings.Backup.Folder)
            ? Directory.EnumerateFiles(settings.Backup.Folder!).Select(f => BackupFile.TakenAt(Path.GetFileName(f))).OfType<DateTimeOffset>()
            : [];

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
