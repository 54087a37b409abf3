using System.Data.Common;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore.Diagnostics;
using SQLitePCL;

namespace Fobble.Data;

/// <summary>
/// Gives every context a connection of its own that stays open for as long as there is the context, from one request to the next. A new connection reads the whole schema before its
/// first statement, a millisecond or two each time, and that was most of a request. The driver's pool (Microsoft.Data.Sqlite 10.0), which would lend one for each query, marks a
/// connection as in use a moment before it notes by whom: whoever looks for lost connections in that moment hands it to a second owner, and two requests share one transaction.
/// </summary>
internal sealed class StaysOpen : DbConnectionInterceptor
{
    public static StaysOpen Instance { get; } = new();

    public override InterceptionResult<DbConnection> ConnectionCreating(ConnectionCreatingEventData eventData, InterceptionResult<DbConnection> result) =>
        InterceptionResult<DbConnection>.SuppressWithResult(new OwnConnection(eventData.ConnectionString));

    /// <summary>EF closes it after each query, and a pool of contexts whenever one is given back; it is closed with its context.</summary>
    private sealed class OwnConnection(string? connection) : SqliteConnection(connection)
    {
        private bool _over;

        public override void Close()
        {
            // What was left within a transaction lets go of it, and begins anew.
            if (_over || State != System.Data.ConnectionState.Open || raw.sqlite3_get_autocommit(Handle) == 0)
            {
                base.Close();
            }
        }

        protected override void Dispose(bool disposing)
        {
            _over = true;
            base.Dispose(disposing);
        }
    }
}
