using Microsoft.Data.Sqlite;

namespace Fobble.Data.Keeping;

/// <summary>Tells the disk's faults from the program's.</summary>
public static class DiskFault
{
    // https://sqlite.org/rescode.html: READONLY, IOERR, FULL, CANTOPEN.
    private static readonly int[] OfSqlite = [8, 10, 13, 14];

    // EFBIG, ENOSPC, EROFS, EDQUOT of Linux (errno.h).
    private static readonly int[] OfLinux = [27, 28, 30, 122];

    /// <summary>Whether something could not be written, or read, because the disk is full, has turned read-only or fails.</summary>
    public static bool Is(Exception? fault) =>
        fault switch
        {
            null => false,
            SqliteException sqlite => OfSqlite.Contains(sqlite.SqliteErrorCode),
            IOException file => OfLinux.Contains(file.HResult) || Is(file.InnerException),
            _ => Is(fault.InnerException),
        };
}
