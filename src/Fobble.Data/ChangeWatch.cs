using System.Globalization;
using Microsoft.Data.Sqlite;

namespace Fobble.Data;

/// <summary>Says whether anything at all has been written into a database. It writes nothing itself.</summary>
/// <param name="file">A database that is up to date; opened at the first question.</param>
public sealed class ChangeWatch(string file) : IDisposable
{
    private readonly Lock _lock = new();
    private SqliteConnection? _connection;
    private SqliteCommand? _ask;

    /// <returns>The same number as before where nothing was written between the two questions, by whomever; https://sqlite.org/pragma.html#pragma_data_version</returns>
    /// <exception cref="SqliteException">The database can't be read.</exception>
    public long Version()
    {
        lock (_lock)
        {
            if (_ask is null)
            {
                _connection = FobbleDb.KeepOpen(file);
                _ask = _connection.CreateCommand();
                _ask.CommandText = "PRAGMA data_version";
            }

            return Convert.ToInt64(_ask.ExecuteScalar(), CultureInfo.InvariantCulture);
        }
    }

    public void Dispose()
    {
        _ask?.Dispose();
        _connection?.Dispose();
    }
}
