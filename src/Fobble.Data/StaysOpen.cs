using System.Data.Common;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace Fobble.Data;

/// <summary>
/// Gives every context a connection of its own, from its first query until it is given back. The driver's pool (Microsoft.Data.Sqlite 10.0), which would
/// otherwise lend one for each query, marks a connection as in use a moment before it notes by whom: whoever looks for lost connections in that moment hands
/// it to a second owner, and two requests share one transaction.
/// </summary>
internal sealed class StaysOpen : DbConnectionInterceptor
{
    public static StaysOpen Instance { get; } = new();

    /// <summary>
    /// A connection that does nothing but be open. Whoever closes a file's last connection has SQLite move the whole log into it; without this, that is every
    /// request.
    /// </summary>
    /// <param name="connection">How the file is opened.</param>
    public static SqliteConnection Keep(string connection)
    {
        SqliteConnection keeper = new(connection);
        keeper.Open();
        using var command = keeper.CreateCommand();

        // SQLite opens the log with the first read.
        command.CommandText = "SELECT COUNT(*) FROM sqlite_master";
        command.ExecuteScalar();
        return keeper;
    }

    public override InterceptionResult ConnectionClosing(DbConnection connection, ConnectionEventData eventData, InterceptionResult result) =>
        InterceptionResult.Suppress();

    public override ValueTask<InterceptionResult> ConnectionClosingAsync(DbConnection connection, ConnectionEventData eventData, InterceptionResult result) =>
        new(InterceptionResult.Suppress());
}
