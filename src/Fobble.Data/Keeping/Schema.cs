using System.Buffers.Binary;
using System.Globalization;
using System.Reflection;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fobble.Data.Keeping;

public enum SchemaAge
{
    /// <summary>There is no database yet.</summary>
    None,

    /// <summary>Of an earlier version of the program.</summary>
    Older,
    OfNow,
}

/// <param name="Filled">Whether a school is in it.</param>
public sealed record Schema(SchemaAge Age, bool Filled)
{
    // Up to this size a database is looked through at each start; a larger one when it is backed up.
    private const long LookedThrough = 50_000_000;
    private const int HeaderBytes = 100;

    // Bytes of the header (https://sqlite.org/fileformat.html, 1.3): the size of a page, and how many there should be.
    private const int PageSizeAt = 16;
    private const int PagesAt = 28;

    /// <summary>What a database file holds, asked of SQLite directly: EF would have to build its whole model first, which is most of a start.</summary>
    /// <exception cref="DataFolderException">It is damaged, can't be read, or is of a later version of the program.</exception>
    public static Schema Of(string file)
    {
        try
        {
            if (!File.Exists(file))
            {
                // A log without its database: whoever took the one away did not mean a new school.
                return File.Exists(file + "-wal")
                    ? throw new DataFolderException(DataFolder.Damaged(file, Phrase($"only its log is there")))
                    : new(SchemaAge.None, false);
            }

            LookForPages(file);
            using SqliteConnection connection = new($"Data Source={file};Mode=ReadOnly;Pooling=False;Default Timeout=5");
            connection.Open();
            return Read(file, connection);
        }
        catch (SqliteException fault)
        {
            throw DataFolder.Told(file, fault);
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            throw new DataFolderException(Phrase($"{file} can’t be read ({fault.Message}): whoever runs Fobble must be allowed to."), fault);
        }
    }

    private static Schema Read(string file, SqliteConnection connection)
    {
        if (new FileInfo(file).Length < LookedThrough && Ask<string>(connection, "PRAGMA quick_check(1)") is var said && said != "ok")
        {
            throw new DataFolderException(DataFolder.Damaged(file, said));
        }

        if (Ask<long>(connection, "SELECT COUNT(*) FROM sqlite_master WHERE name = '__EFMigrationsHistory'") == 0)
        {
            return Ask<long>(connection, "SELECT COUNT(*) FROM sqlite_master WHERE name = 'Schools'") == 0
                ? new(SchemaAge.Older, false)
                : throw new DataFolderException(DataFolder.Damaged(file, Phrase($"it does not say of which version it is")));
        }

        List<string> there = [];
        using (var command = connection.CreateCommand())
        {
            command.CommandText = "SELECT MigrationId FROM __EFMigrationsHistory";
            using var reader = command.ExecuteReader();
            while (reader.Read())
            {
                there.Add(reader.GetString(0));
            }
        }

        var ours = typeof(FobbleDb).Assembly.GetTypes().Select(t => t.GetCustomAttribute<MigrationAttribute>()?.Id).OfType<string>().ToHashSet();
        if (there.Where(t => !ours.Contains(t)).Max(StringComparer.Ordinal) is { } newer)
        {
            throw new DataFolderException(
                Phrase(
                    $"{file} was used with a newer Fobble than this one (it knows “{newer}”). Start the newer one again; or, for this one, go back to the data of before the update: README, Updating."
                )
            );
        }

        var filled = there.Count > 0 && Ask<long>(connection, "SELECT COUNT(*) FROM Schools") > 0;
        return new(there.Count == ours.Count ? SchemaAge.OfNow : SchemaAge.Older, filled);
    }

    // A file that was cut off opens, and is found wanting only where a missing page is read; one of no bytes is an empty database to SQLite.
    private static void LookForPages(string file)
    {
        using FileStream read = new(file, FileMode.Open, FileAccess.Read, FileShare.ReadWrite);
        Span<byte> header = stackalloc byte[HeaderBytes];
        if (read.ReadAtLeast(header, HeaderBytes, throwOnEndOfStream: false) < HeaderBytes)
        {
            throw new DataFolderException(DataFolder.Damaged(file, Phrase($"it is empty or cut off")));
        }

        long pageSize = BinaryPrimitives.ReadUInt16BigEndian(header[PageSizeAt..]);
        pageSize = pageSize == 1 ? 65536 : pageSize;
        var pages = BinaryPrimitives.ReadUInt32BigEndian(header[PagesAt..]);

        // With a log, pages may still stand there only.
        FileInfo log = new(file + "-wal");
        if (read.Length < pageSize * pages && log is not { Exists: true, Length: > 0 })
        {
            throw new DataFolderException(DataFolder.Damaged(file, Phrase($"it is cut off: {read.Length} bytes are there of {pageSize * pages}")));
        }
    }

    private static T Ask<T>(SqliteConnection connection, string question)
    {
        using var command = connection.CreateCommand();
        command.CommandText = question;
        return (T)Convert.ChangeType(command.ExecuteScalar()!, typeof(T), CultureInfo.InvariantCulture);
    }
}
