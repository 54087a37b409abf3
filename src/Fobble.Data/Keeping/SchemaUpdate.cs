using System.Globalization;
using Fobble.Data.Backups;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Data.Keeping;

/// <summary>
/// Brings a database to the schema of this program beside it: a copy is taken and looked at, changed, looked at again, and only then takes the place of the old one, in one
/// step. A power cut at any moment leaves the old one as it was, and the next start begins again. The copy of before is kept.
/// </summary>
public static class SchemaUpdate
{
    /// <summary>Folder, beside the database, of what was there before an update.</summary>
    public const string BeforeFolder = "before-update";

    private const string Beside = ".new";
    private const int Kept = 2;

    // The copy that stays, the copy that is changed, and the room it takes to build a table anew.
    private const int TimesItsSize = 3;

    /// <summary>Only while nobody else has the folder.</summary>
    /// <param name="age">As it was found.</param>
    /// <returns>Where the data of before are kept; null where there were none.</returns>
    /// <exception cref="DataFolderException">It could not be done, and nothing has changed.</exception>
    public static string? Run(DataFolder folder, SchemaAge age)
    {
        ArgumentNullException.ThrowIfNull(folder);
        var file = folder.Database;
        var beside = file + Beside;
        Remove(beside);
        try
        {
            var before = age == SchemaAge.None ? null : KeepBefore(folder);
            if (before is not null)
            {
                File.Copy(before, beside);
            }

            Migrate(beside);
            Snapshot.Check(beside);
            LetGoOfLog(file);
            File.Move(beside, file, overwrite: true);
            return before;
        }
        catch (SqliteException fault)
        {
            throw new DataFolderException(NotDone(fault), fault);
        }
        catch (Exception fault) when (fault is NotWholeException or IOException or UnauthorizedAccessException or InvalidOperationException)
        {
            throw new DataFolderException(NotDone(fault), fault);
        }
        finally
        {
            Remove(beside);
        }
    }

    /// <summary>Lets go of the data of before: somebody was erased since, and stands in them.</summary>
    public static void ForgetBefore(string folder)
    {
        var before = Path.Combine(folder, BeforeFolder);
        if (Directory.Exists(before))
        {
            Directory.Delete(before, recursive: true);
        }
    }

    private static string NotDone(Exception fault) =>
        Phrase($"The data could not be brought to this version ({fault.Message}). Nothing was changed: the version of before can be started again on them.");

    private static string KeepBefore(DataFolder folder)
    {
        var needs = (new FileInfo(folder.Database).Length * TimesItsSize) + DataFolder.LeastFree;
        var free = DataFolder.FreeAt(folder.Path);
        if (free < needs)
        {
            throw new DataFolderException(
                Phrase(
                    $"To bring the data to this version needs {needs / 1_000_000} MB of room in {folder.Path}; {free / 1_000_000} MB are free. Make room, then start again: nothing was changed."
                )
            );
        }

        var kept = Directory.CreateDirectory(Path.Combine(folder.Path, BeforeFolder));
        var to = Path.Combine(kept.FullName, string.Create(CultureInfo.InvariantCulture, $"{DateTime.UtcNow:yyyy-MM-dd-HHmmss}.db"));
        Remove(to);
        Snapshot.Check(to, Snapshot.Take(folder.Database, to).Rows);
        foreach (var old in kept.GetFiles("*.db").OrderByDescending(f => f.Name, StringComparer.Ordinal).Skip(Kept))
        {
            old.Delete();
        }

        return to;
    }

    private static void Migrate(string file)
    {
        if (File.Exists(file))
        {
            using SqliteConnection connection = new($"Data Source={file};Pooling=False");
            connection.Open();
            using var command = connection.CreateCommand();

            // Nobody else has the folder: whoever is said to be at it was killed there. Left, it would be waited for without end.
            command.CommandText = "DROP TABLE IF EXISTS __EFMigrationsLock";
            command.ExecuteNonQuery();
        }

        DbContextOptionsBuilder<FobbleDb> options = new();
        FobbleDb.Configure(options, file);
        using FobbleDb db = new(options.Options);
        db.Prepare();
    }

    // The log belongs to the old file and must not be taken for one of the new. Whoever closes the last connection takes it away.
    private static void LetGoOfLog(string file)
    {
        if (File.Exists(file))
        {
            using SqliteConnection connection = new($"Data Source={file};Pooling=False");
            connection.Open();
            using var command = connection.CreateCommand();
            command.CommandText = "PRAGMA wal_checkpoint(TRUNCATE)";
            command.ExecuteNonQuery();
        }

        if (File.Exists(file + "-wal"))
        {
            throw new IOException(Phrase($"another program has {file} open"));
        }
    }

    private static void Remove(string database)
    {
        foreach (var end in (string[])["", "-wal", "-shm", "-journal"])
        {
            File.Delete(database + end);
        }
    }
}
