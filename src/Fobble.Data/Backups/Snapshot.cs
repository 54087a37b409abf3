using System.Globalization;
using Microsoft.Data.Sqlite;

namespace Fobble.Data.Backups;

/// <summary>Something that was to be put back or relied on is not whole. The sentence says what, for whoever runs the server.</summary>
public sealed class NotWholeException(string sentence, Exception? inner = null) : Exception(sentence, inner);

/// <summary>A copy of a database that others go on writing to, as it stood at one moment; a copy of the file by itself is not one, since its log lies beside it.</summary>
/// <param name="Rows">Rows by table, counted in the database itself at that moment.</param>
public sealed record Snapshot(string File, IReadOnlyDictionary<string, long> Rows)
{
    /// <summary>Takes it by SQLite's own backup. Whether it is whole is for <see cref="Check"/> to say, of what is made of it.</summary>
    /// <param name="to">A file that is not there yet.</param>
    /// <exception cref="NotWholeException">The database can't be read.</exception>
    public static Snapshot Take(string database, string to)
    {
        try
        {
            return new(to, Copy(database, to));
        }
        catch (SqliteException fault)
        {
            throw Unreadable(fault);
        }
    }

    private static Dictionary<string, long> Copy(string database, string to)
    {
        using var source = Open(database);

        // Rows are counted, and pages copied, within one reading: of the same moment, whoever writes meanwhile.
        Execute(source, "BEGIN");
        var rows = Count(source);
        using (SqliteConnection target = new($"Data Source={to};Pooling=False"))
        {
            target.Open();
            source.BackupDatabase(target);
            Execute(target, "PRAGMA journal_mode=DELETE");
        }

        Execute(source, "COMMIT");
        return rows;
    }

    private static NotWholeException Unreadable(SqliteException fault) => new(Phrase($"The database can’t be read: {fault.Message}"), fault);

    /// <summary>Whether a database is whole: its pages, its references, and as many rows as there should be.</summary>
    /// <exception cref="NotWholeException">It is not.</exception>
    public static void Check(string database, IReadOnlyDictionary<string, long>? rows = null)
    {
        try
        {
            // Both go through all of it, and neither waits for the other.
            var references = Task.Run(() => Checked(database, "SELECT \"table\" FROM pragma_foreign_key_check LIMIT 1"));
            var said = Checked(database, "PRAGMA integrity_check");
            var table = references.GetAwaiter().GetResult();
            if (said is not (null or "ok"))
            {
                throw new NotWholeException(Phrase($"The database is damaged: {said}"));
            }

            if (table is not null)
            {
                throw new NotWholeException(Phrase($"The database is not whole: a row of {table} hangs on one that is missing."));
            }

            using var connection = Open(database);
            foreach (var (name, count) in rows is null ? [] : Count(connection).Where(t => rows.GetValueOrDefault(t.Key, -1) != t.Value))
            {
                throw new NotWholeException(Phrase($"The copy has {count} rows in {name} and should have {rows!.GetValueOrDefault(name)}."));
            }
        }
        catch (SqliteException fault)
        {
            throw Unreadable(fault);
        }
    }

    // Seen through the system's own memory: read page by page, a large one takes many times as long.
    private static string? Checked(string database, string question)
    {
        using var connection = Open(database);
        Execute(connection, "PRAGMA mmap_size=17179869184");
        return Ask(connection, question);
    }

    /// <summary>Makes a database again what a server works with: in a copy, its log is in the file itself.</summary>
    public static void Ready(string database)
    {
        using SqliteConnection connection = new($"Data Source={database};Pooling=False");
        connection.Open();
        Execute(connection, "PRAGMA journal_mode=WAL");
    }

    private static SqliteConnection Open(string database)
    {
        SqliteConnection connection = new($"Data Source={database};Mode=ReadOnly;Pooling=False;Default Timeout=30");
        connection.Open();
        return connection;
    }

    private static Dictionary<string, long> Count(SqliteConnection connection)
    {
        List<string> tables = [];
        using (var command = connection.CreateCommand())
        {
            command.CommandText = "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite\\_%' ESCAPE '\\' ORDER BY name";
            using var reader = command.ExecuteReader();
            while (reader.Read())
            {
                tables.Add(reader.GetString(0));
            }
        }

        return tables.ToDictionary(t => t, t => long.Parse(Ask(connection, $"SELECT COUNT(*) FROM \"{t}\"")!, CultureInfo.InvariantCulture));
    }

    private static string? Ask(SqliteConnection connection, string question)
    {
        using var command = connection.CreateCommand();
        command.CommandText = question;
        return command.ExecuteScalar() is { } answer and not DBNull ? Convert.ToString(answer, CultureInfo.InvariantCulture) : null;
    }

    private static void Execute(SqliteConnection connection, string text)
    {
        using var command = connection.CreateCommand();
        command.CommandText = text;
        command.ExecuteNonQuery();
    }
}
