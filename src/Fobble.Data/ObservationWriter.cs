using Fobble.Data.Model;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Storage;

namespace Fobble.Data;

/// <summary>What became of an observation that was to be kept.</summary>
public enum Kept
{
    New,

    /// <summary>It was there already: sent again.</summary>
    Repeated,

    /// <summary>The id belongs to something else.</summary>
    Taken,

    /// <summary>What it is about has gone in the meantime: the child was erased, the session withdrawn.</summary>
    Gone,
}

/// <summary>
/// Keeps observations, many in one commit, through a connection of its own and statements that are prepared once. For one thread at a time. A commit waits for the disk; ten
/// that come together wait once.
/// </summary>
public sealed class ObservationWriter : IDisposable
{
    // https://sqlite.org/rescode.html
    private const int Constraint = 19;

    private readonly SqliteConnection _connection;
    private readonly SqliteCommand _find;
    private readonly SqliteCommand _insert;

    /// <param name="file">A database that is up to date.</param>
    public ObservationWriter(string file)
    {
        _connection = new(FobbleDb.Writing(file));
        _connection.Open();
        AskedOfSqlite.Ask(_connection);
        _find = Prepare(_connection, "SELECT ChildId, Skill FROM Observations WHERE Id = $Id", ["Id"]);
        _insert = Prepare(_connection, InsertText, Columns);
    }

    /// <summary>All but the number that the database gives.</summary>
    public static IReadOnlyList<string> Columns { get; } =
    [
        nameof(ObservationRow.Id),
        nameof(ObservationRow.ChildId),
        nameof(ObservationRow.Skill),
        nameof(ObservationRow.At),
        nameof(ObservationRow.Day),
        nameof(ObservationRow.AdultId),
        nameof(ObservationRow.Setting),
        nameof(ObservationRow.Support),
        nameof(ObservationRow.Representation),
        nameof(ObservationRow.Numbers),
        nameof(ObservationRow.Slip),
        nameof(ObservationRow.Strategy),
        nameof(ObservationRow.Note),
        nameof(ObservationRow.SessionId),
        nameof(ObservationRow.CheckId),
        nameof(ObservationRow.SeenBy),
    ];

    private static string InsertText => $"INSERT INTO Observations ({string.Join(", ", Columns)}) VALUES ({string.Join(", ", Columns.Select(c => "$" + c))})";

    /// <returns>Of each, in the same order; all that is new is on the disk.</returns>
    /// <exception cref="SqliteException">None of them was kept.</exception>
    public IReadOnlyList<Kept> Keep(IReadOnlyList<ObservationRow> rows)
    {
        ArgumentNullException.ThrowIfNull(rows);
        using var transaction = _connection.BeginTransaction();
        (_find.Transaction, _insert.Transaction) = (transaction, transaction);
        List<Kept> kept = [.. rows.Select(Keep)];
        transaction.Commit();
        return kept;
    }

    public void Dispose()
    {
        _find.Dispose();
        _insert.Dispose();
        _connection.Dispose();
    }

    private Kept Keep(ObservationRow row)
    {
        _find.Parameters["$Id"].Value = row.Id;
        using (var there = _find.ExecuteReader())
        {
            if (there.Read())
            {
                return there.GetInt32(0) == row.ChildId && there.GetString(1) == row.Skill ? Kept.Repeated : Kept.Taken;
            }
        }

        try
        {
            Insert(_insert, row);
            return Kept.New;
        }
        catch (SqliteException gone) when (gone.SqliteErrorCode == Constraint)
        {
            // SQLite has taken back this statement and nothing of the others.
            return Kept.Gone;
        }
    }

    /// <summary>
    /// Adds many within a change that is under way: a file of a hundred thousand, one by one through the model, would keep whoever taps waiting for half a minute.
    /// </summary>
    /// <param name="rows">None of which is there; without their withdrawals.</param>
    /// <param name="progress">Is told the share that is added, 0 to 1.</param>
    /// <exception cref="OperationCanceledException">Nobody waits any more; what was added is within the change.</exception>
    public static void Add(FobbleDb db, IReadOnlyCollection<ObservationRow> rows, IProgress<double>? progress = null, CancellationToken stop = default)
    {
        ArgumentNullException.ThrowIfNull(rows);
        using var insert = Within(db, InsertText, Columns);
        foreach (var (i, row) in rows.Index())
        {
            Insert(insert, row);
            Tell(i, rows.Count, progress, stop);
        }
    }

    /// <summary>Which of many observations are there, and in which class, within what is read or changed just now.</summary>
    /// <param name="progress">Is told the share that was looked for, 0 to 1.</param>
    /// <exception cref="OperationCanceledException">Nobody waits any more.</exception>
    public static Dictionary<Guid, int> Known(FobbleDb db, IReadOnlyCollection<Guid> ids, IProgress<double>? progress = null, CancellationToken stop = default)
    {
        ArgumentNullException.ThrowIfNull(ids);
        using var find = Within(db, "SELECT c.ClassId FROM Observations o JOIN Children c ON c.Id = o.ChildId WHERE o.Id = $Id", ["Id"]);
        Dictionary<Guid, int> known = [];
        foreach (var (i, id) in ids.Index())
        {
            find.Parameters[0].Value = id;
            if (find.ExecuteScalar() is long classId)
            {
                known[id] = (int)classId;
            }

            Tell(i, ids.Count, progress, stop);
        }

        return known;
    }

    private static SqliteCommand Within(FobbleDb db, string text, IReadOnlyList<string> parameters)
    {
        ArgumentNullException.ThrowIfNull(db);
        var command = Prepare((SqliteConnection)db.Database.GetDbConnection(), text, parameters);
        command.Transaction = (SqliteTransaction?)db.Database.CurrentTransaction?.GetDbTransaction();
        return command;
    }

    private static void Tell(int done, int all, IProgress<double>? progress, CancellationToken stop)
    {
        if (done % 1000 == 0)
        {
            stop.ThrowIfCancellationRequested();
            progress?.Report((double)done / all);
        }
    }

    private static void Insert(SqliteCommand insert, ObservationRow row)
    {
        object?[] values =
        [
            row.Id,
            row.ChildId,
            row.Skill,
            row.At.ToUnixTimeMilliseconds(),
            row.Day.DayNumber,
            row.AdultId,
            (int)row.Setting,
            (int)row.Support,
            (int)row.Representation,
            row.Numbers,
            row.Slip,
            row.Strategy,
            row.Note,
            row.SessionId,
            row.CheckId,
            row.SeenBy,
        ];
        for (var i = 0; i < values.Length; i++)
        {
            insert.Parameters[i].Value = values[i] ?? DBNull.Value;
        }

        insert.ExecuteNonQuery();
    }

    private static SqliteCommand Prepare(SqliteConnection connection, string text, IReadOnlyList<string> parameters)
    {
        var command = connection.CreateCommand();
        command.CommandText = text;
        foreach (var name in parameters)
        {
            command.Parameters.Add(new SqliteParameter("$" + name, null));
        }

        return command;
    }
}
