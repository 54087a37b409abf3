using Fobble.Data.Backups;

namespace Fobble.Server.Hosting;

/// <summary>
/// <c>Fobble.Server backup</c>, <c>restore FILE</c> and <c>drill</c>, run on the server's own machine: the first and the last also while the school goes on, the second into a
/// data folder that is empty.
/// </summary>
internal static class BackupCommands
{
    public const string Backup = "backup";
    public const string Restore = "restore";
    public const string Drill = "drill";

    /// <returns>What the command ends with: 0, or 1 where it could not be done.</returns>
    public static async Task<int> TakeAsync(IServiceProvider services, TextWriter to)
    {
        if (await IsOffAsync(services, to))
        {
            return 1;
        }

        return await TriedAsync(to, async () =>
        {
            var file = await services.GetRequiredService<Backups>().TakeAsync(CancellationToken.None);
            return Phrase($"Taken, opened again and found whole: {file} ({new FileInfo(file).Length / 1_000_000.0:0.0} MB).");
        });
    }

    public static async Task<int> DrillAsync(IServiceProvider services, TextWriter to) =>
        await IsOffAsync(services, to) ? 1 : await TriedAsync(to, () => Hosting.Drill.RunAsync(services, CancellationToken.None));

    /// <param name="backup">The file; beside it may lie the list of who was erased since.</param>
    public static async Task<int> PutBackAsync(IServiceProvider services, string backup, TextWriter to)
    {
        var settings = services.GetRequiredService<FobbleSettings>();
        return await TriedAsync(to, () =>
        {
            var facts = BackupFile.PutBack(backup, settings.Data, settings.Backup.Passphrase ?? "");
            var erased = Path.Combine(Path.GetDirectoryName(Path.GetFullPath(backup))!, Rooms.Erasing.ListFile);
            if (File.Exists(erased))
            {
                File.Copy(erased, Path.Combine(settings.Data, Rooms.Erasing.ListFile));
            }

            return Task.FromResult(Phrase($"The school of {facts.At:u} is in {settings.Data}. Start Fobble on it; who was erased since is erased again then."));
        });
    }

    private static async Task<bool> IsOffAsync(IServiceProvider services, TextWriter to)
    {
        var off = !services.GetRequiredService<FobbleSettings>().Backup.On;
        if (off)
        {
            await to.WriteLineAsync(Phrase("Fobble__Backup__Folder says where backups go, Fobble__Backup__Passphrase what seals them: set both."));
        }

        return off;
    }

    private static async Task<int> TriedAsync(TextWriter to, Func<Task<string>> work)
    {
        try
        {
            await to.WriteLineAsync(await work());
            return 0;
        }
        catch (Exception fault) when (fault is NotWholeException or IOException or UnauthorizedAccessException)
        {
            await to.WriteLineAsync(fault.Message);
            return 1;
        }
    }
}
