using Fobble.Data;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Infrastructure;
using Microsoft.EntityFrameworkCore.Migrations;

namespace Fobble.Server.Tests;

/// <summary>A database as an earlier version of the program left it, with something in every table there was.</summary>
internal static class OldSchool
{
    private const string AnyGuid = "5F0B6A3E-0000-4000-8000-000000000001";

    private const string WithdrawnGuid = "5F0B6A3E-0000-4000-8000-000000000002";

    /// <param name="migration">The last one that it knows.</param>
    /// <param name="observations">As many more rows of them.</param>
    public static void Make(string file, string migration, int observations = 0)
    {
        DbContextOptionsBuilder<FobbleDb> options = new();
        FobbleDb.Configure(options, file);
        using (FobbleDb db = new(options.Options))
        {
            db.GetService<IMigrator>().Migrate(migration);
        }

        using SqliteConnection connection = new($"Data Source={file};Pooling=False;Foreign Keys=False");
        connection.Open();
        foreach (
            var table in Rows(
                connection,
                "SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE '\\_\\_%' ESCAPE '\\' AND name NOT LIKE 'sqlite%'"
            )
        )
        {
            if (table[0] == "Withdrawals")
            {
                // Of another observation than the photo: with what was wrong, its photo goes.
                Insert(connection, "Observations", ("Id", WithdrawnGuid));
                Insert(connection, "Withdrawals", ("ObservationId", WithdrawnGuid));
                continue;
            }

            // A trigger may have made one already.
            Insert(connection, table[0]!);
        }

        for (var i = 0; i < observations; i++)
        {
            if (i % 10_000 == 0)
            {
                Rows(connection, i == 0 ? "BEGIN" : "COMMIT; BEGIN");
            }

            Insert(connection, "Observations", ("Id", Guid.NewGuid().ToString().ToUpperInvariant()));
        }

        if (observations > 0)
        {
            Rows(connection, "COMMIT");
        }

        Rows(connection, "SELECT * FROM pragma_foreign_key_check").ShouldBeEmpty(migration);
    }

    // Every row is number 1, or has the same id, so that whatever hangs on another finds it.
    private static void Insert(SqliteConnection connection, string table, params (string Column, object? Value)[] said)
    {
        var columns = Rows(connection, $"SELECT name, type, pk FROM pragma_table_info('{table}')");
        var values = columns.ToDictionary(
            c => c[0]!,
            c => said.FirstOrDefault(s => s.Column == c[0]) is { Column: not null } given ? given.Value : Usual(c[0]!, c[1]!, isKey: c[2] != "0")
        );
        using var command = connection.CreateCommand();
        command.CommandText =
            $"INSERT OR IGNORE INTO \"{table}\" ({string.Join(", ", values.Keys.Select(k => $"\"{k}\""))}) VALUES ({string.Join(", ", values.Keys.Select((_, i) => $"$p{i}"))})";
        foreach (var (value, i) in values.Values.Select((v, i) => (v, i)))
        {
            command.Parameters.AddWithValue($"$p{i}", value ?? DBNull.Value);
        }

        command.ExecuteNonQuery();
    }

    private static object? Usual(string column, string type, bool isKey) =>
        (column, type) switch
        {
            ("Sequence", _) when isKey => null,
            ("ObservationId", _) or ("Id", "TEXT") => AnyGuid,
            (_, "INTEGER") => 1,
            (_, "REAL") => 1.0,
            (_, "BLOB") => new byte[] { 1 },
            ("Inferred" or "Document" or "List", _) => "{}",
            ("Faults", _) => "[]",
            ("Skill", _) => "see.to-3",
            _ => "1",
        };

    private static List<string?[]> Rows(SqliteConnection connection, string sql)
    {
        using var command = connection.CreateCommand();
        command.CommandText = sql;
        using var reader = command.ExecuteReader();
        List<string?[]> rows = [];
        while (reader.Read())
        {
            rows.Add([.. Enumerable.Range(0, reader.FieldCount).Select(i => reader.IsDBNull(i) ? null : reader.GetValue(i).ToString())]);
        }

        return rows;
    }
}
