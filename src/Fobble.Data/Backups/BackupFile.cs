using System.Formats.Tar;
using System.Globalization;
using System.IO.Compression;
using System.Text.Json;
using Fobble.Data.Keeping;

namespace Fobble.Data.Backups;

/// <summary>What stands in a backup beside the data.</summary>
/// <param name="Rows">Rows by table.</param>
public sealed record BackupFacts(DateTimeOffset At, string Version, IReadOnlyDictionary<string, long> Rows);

/// <summary>
/// A backup: the database as it stood at one moment, and the keys that sign cookies and open second steps; packed, and sealed with a passphrase. It is looked at before
/// it counts: opened again, unpacked, and checked.
/// </summary>
public static class BackupFile
{
    public const string Ending = ".fobble";
    private const string Database = DataFolder.DatabaseFile;
    private const string Keys = "keys";
    private const string Facts = "backup.json";

    private const string Begins = "fobble-";
    private const string Working = ".taking-";
    private static readonly TimeSpan LongestTaking = TimeSpan.FromHours(2);
    private const string Stamp = "yyyy-MM-dd-HHmmss";

    public static string NameAt(DateTimeOffset at) => $"{Begins}{at.UtcDateTime.ToString(Stamp, CultureInfo.InvariantCulture)}{Ending}";

    /// <summary>Null where it is no name of a backup.</summary>
    public static DateTimeOffset? TakenAt(string name) =>
        name.StartsWith(Begins, StringComparison.Ordinal)
        && name.EndsWith(Ending, StringComparison.Ordinal)
        && DateTime.TryParseExact(
            name[Begins.Length..^Ending.Length],
            Stamp,
            CultureInfo.InvariantCulture,
            DateTimeStyles.AssumeUniversal | DateTimeStyles.AdjustToUniversal,
            out var at
        )
            ? new(at)
            : null;

    /// <summary>Takes a backup of a data folder that is in use.</summary>
    /// <param name="to">Folder, made where it is not there.</param>
    /// <returns>The file.</returns>
    /// <exception cref="NotWholeException">The database, or what was written, is not whole; nothing is left that looks like a backup.</exception>
    public static string Take(string data, string to, string passphrase, DateTimeOffset at, string version)
    {
        Directory.CreateDirectory(to);
        ForgetKilled(to);
        var work = Directory.CreateDirectory(Path.Combine(to, $"{Working}{Guid.NewGuid():N}"));
        try
        {
            var snapshot = Snapshot.Take(Path.Combine(data, Database), Path.Combine(work.FullName, Database));
            BackupFacts facts = new(at, version, snapshot.Rows);
            var written = Path.Combine(work.FullName, "written");
            using (var file = New(written))
            {
                using (var seal = Sealed.Write(file, passphrase))
                using (GZipStream packed = new(seal, CompressionLevel.Fastest))
                using (TarWriter tar = new(packed))
                {
                    Add(tar, Facts, new MemoryStream(JsonSerializer.SerializeToUtf8Bytes(facts)));
                    AddFile(tar, Database, snapshot.File);
                    foreach (var key in KeysOf(data))
                    {
                        AddFile(tar, $"{Keys}/{Path.GetFileName(key)}", key);
                    }
                }

                // On the disk before it is called a backup.
                file.Flush(flushToDisk: true);
            }

            PutBack(written, Path.Combine(work.FullName, "looked-at"), passphrase);
            var final = Path.Combine(to, NameAt(at));
            File.Move(written, final, overwrite: true);
            return final;
        }
        finally
        {
            work.Delete(recursive: true);
        }
    }

    /// <summary>Puts a backup into a folder, and looks whether it is whole.</summary>
    /// <param name="into">A folder that is empty, or not there.</param>
    /// <exception cref="NotWholeException">The backup is not whole, the passphrase is another one, or something is there already; the folder is as it was then.</exception>
    public static BackupFacts PutBack(string backup, string into, string passphrase)
    {
        if (Directory.Exists(into) && Directory.EnumerateFileSystemEntries(into).Any())
        {
            throw new NotWholeException(Phrase($"There is something in {into} already: a backup is put into an empty folder, never over a school."));
        }

        var there = Directory.Exists(into);
        Directory.CreateDirectory(into);
        try
        {
            using FileStream file = new(backup, FileMode.Open, FileAccess.Read);
            using var opened = Sealed.Read(file, passphrase);
            var facts = Unpack(opened, into) ?? throw new NotWholeException(Phrase("The backup does not say what is in it."));
            Snapshot.Check(Path.Combine(into, Database), facts.Rows);
            Snapshot.Ready(Path.Combine(into, Database));
            return facts;
        }
        catch (Exception fault)
        {
            Directory.Delete(into, recursive: true);
            if (there)
            {
                Directory.CreateDirectory(into);
            }

            if (fault is InvalidDataException or JsonException or EndOfStreamException)
            {
                throw new NotWholeException(Phrase("The backup can’t be unpacked."), fault);
            }

            throw;
        }
    }

    // What a backup that was killed has left; one that is being taken beside this one is younger.
    private static void ForgetKilled(string folder)
    {
        foreach (var left in new DirectoryInfo(folder).GetDirectories(Working + "*").Where(d => d.CreationTimeUtc < DateTime.UtcNow - LongestTaking))
        {
            left.Delete(recursive: true);
        }
    }

    private static BackupFacts? Unpack(Stream opened, string into)
    {
        BackupFacts? facts = null;
        using (GZipStream packed = new(opened, CompressionMode.Decompress, leaveOpen: true))
        using (TarReader tar = new(packed))
        {
            while (tar.GetNextEntry() is { } entry)
            {
                // Names are ours, or they are nothing: what is sealed was written here, and still nothing of it leaves the folder.
                var name = entry.Name.Split('/') switch
                {
                    [Facts] => Facts,
                    [Database] => Database,
                    [Keys, var key] when key == Path.GetFileName(key) && key.EndsWith(".xml", StringComparison.Ordinal) => Path.Combine(Keys, key),
                    _ => throw new NotWholeException(Phrase($"The backup holds something that is none of it: {entry.Name}.")),
                };
                if (name == Facts)
                {
                    facts = JsonSerializer.Deserialize<BackupFacts>(entry.DataStream!);
                    continue;
                }

                var path = Path.Combine(into, name);
                Directory.CreateDirectory(Path.GetDirectoryName(path)!);
                using var file = New(path);
                entry.DataStream?.CopyTo(file);
                file.Flush(flushToDisk: true);
            }
        }

        // To its very end, or a cut in what comes behind is not seen.
        opened.CopyTo(Stream.Null);
        return facts;
    }

    // For nobody else on this machine.
    private static FileStream New(string path)
    {
        FileStreamOptions options = new() { Mode = FileMode.CreateNew, Access = FileAccess.Write };
        if (!OperatingSystem.IsWindows())
        {
            options.UnixCreateMode = UnixFileMode.UserRead | UnixFileMode.UserWrite;
        }

        return new(path, options);
    }

    private static IEnumerable<string> KeysOf(string data)
    {
        var keys = Path.Combine(data, Keys);
        return Directory.Exists(keys) ? Directory.EnumerateFiles(keys, "*.xml").Order(StringComparer.Ordinal) : [];
    }

    private static void AddFile(TarWriter tar, string name, string path)
    {
        using FileStream file = new(path, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
        Add(tar, name, file);
    }

    private static void Add(TarWriter tar, string name, Stream data)
    {
        tar.WriteEntry(new PaxTarEntry(TarEntryType.RegularFile, name) { DataStream = data });
    }
}
