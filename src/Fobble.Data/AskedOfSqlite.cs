using System.Data.Common;
using Microsoft.EntityFrameworkCore.Diagnostics;

namespace Fobble.Data;

/// <summary>Asks SQLite, on every connection, to have a commit on disk before it says that it is done, and to write zeros over what is deleted.</summary>
internal sealed class AskedOfSqlite : DbConnectionInterceptor
{
    /// <summary>SQLite's number for it.</summary>
    public const int Full = 2;

    public static AskedOfSqlite Instance { get; } = new();

    /// <summary>The same of a connection that EF does not open.</summary>
    public static void Ask(DbConnection connection)
    {
        using var command = Command(connection);
        command.ExecuteNonQuery();
    }

    public override void ConnectionOpened(DbConnection connection, ConnectionEndEventData eventData)
    {
        ArgumentNullException.ThrowIfNull(connection);
        Ask(connection);
    }

    public override async Task ConnectionOpenedAsync(DbConnection connection, ConnectionEndEventData eventData, CancellationToken cancellationToken = default)
    {
        ArgumentNullException.ThrowIfNull(connection);
        await using var command = Command(connection);
        await command.ExecuteNonQueryAsync(cancellationToken);
    }

    private static DbCommand Command(DbConnection connection)
    {
        var command = connection.CreateCommand();
        command.CommandText = "PRAGMA synchronous=FULL; PRAGMA secure_delete=ON";
        return command;
    }
}
