using Microsoft.Data.Sqlite;

namespace Fobble.Data.Keeping;

/// <summary>
/// The folder that holds everything of a school, for nobody else on the machine and for one server at a time: as long as this is not disposed of, or the process lives,
/// no other takes it. The system lets go of it by itself when a process is killed.
/// </summary>
public sealed class DataFolder : IDisposable
{
    public const string DatabaseFile = "fobble.db";

    /// <summary>Less free space than this, in bytes, and nothing is begun: a change needs a little, and a log grows.</summary>
    public const long LeastFree = 20_000_000;

    private const string LockFile = "in-use";

    // Each process has one of its own: whoever tries the same folder meanwhile, as a second server does before it is refused, is not in the way.
    private static readonly string TryFile = $"try-{Environment.ProcessId}";
    private const UnixFileMode OwnersFile = UnixFileMode.UserRead | UnixFileMode.UserWrite;
    private const UnixFileMode OwnersFolder = OwnersFile | UnixFileMode.UserExecute;

    private readonly FileStream _lock;

    private DataFolder(string path, FileStream held) => (Path, _lock) = (path, held);

    public string Path { get; }

    public string Database => System.IO.Path.Combine(Path, DatabaseFile);

    /// <summary>Makes the folder where it is not there, sees that it can be written to, and takes it.</summary>
    /// <exception cref="DataFolderException">It cannot be used as it is.</exception>
    public static DataFolder Take(string path)
    {
        var full = System.IO.Path.GetFullPath(path);
        try
        {
            Directory.CreateDirectory(full);
            ForNobodyElse(full);
            var held = Hold(full);
            try
            {
                TryWriting(full);
                return new(full, held);
            }
            catch
            {
                held.Dispose();
                throw;
            }
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            throw new DataFolderException(Cannot(full, fault), fault);
        }
    }

    public void Dispose() => _lock.Dispose();

    /// <summary>Bytes that whoever runs this may still write beside a file or folder.</summary>
    public static long FreeAt(string path) => new DriveInfo(System.IO.Path.GetFullPath(path)).AvailableFreeSpace;

    /// <summary>Writes a little, to the disk itself, and takes it away again.</summary>
    /// <exception cref="IOException">It can't be written; or <see cref="UnauthorizedAccessException"/>.</exception>
    public static void TryWriting(string folder)
    {
        var file = System.IO.Path.Combine(folder, TryFile);
        using (FileStream tried = new(file, FileMode.Create, FileAccess.Write))
        {
            tried.Write(new byte[4096]);
            tried.Flush(flushToDisk: true);
        }

        File.Delete(file);
    }

    /// <summary>What SQLite could not do with a file, in a sentence with what to do.</summary>
    public static DataFolderException Told(string file, SqliteException fault)
    {
        ArgumentNullException.ThrowIfNull(fault);

        // Primary result codes: https://sqlite.org/rescode.html
        return new(
            fault.SqliteErrorCode switch
            {
                5 or 6 => Phrase($"{file} is kept by another program, which has not let go of it for some seconds. End that program, then start Fobble again."),
                8 => Phrase($"{file} can only be read: whoever runs Fobble must be allowed to write it and its folder."),
                11 or 26 => Damaged(file, fault.Message),
                13 => Phrase($"There is no room left beside {file}. Make some, then start Fobble again: nothing was lost."),
                _ => Phrase($"{file} can’t be used ({fault.Message}). Is the disk well, and the folder on this machine?"),
            },
            fault
        );
    }

    internal static string Damaged(string file, string why) =>
        Phrase(
            $"{file} is damaged: {why}. Leave it as it is, put the newest backup into an empty folder (./fobble restore FILE FOLDER), and start Fobble on that folder."
        );

    private static string Cannot(string folder, Exception fault) =>
        Phrase(
            $"The data folder {folder} can’t be written to ({fault.Message}). It must be on a disk of this machine with room on it, and belong to whoever runs Fobble."
        );

    private static FileStream Hold(string folder)
    {
        var file = System.IO.Path.Combine(folder, LockFile);
        try
        {
            return new(file, FileMode.OpenOrCreate, FileAccess.ReadWrite, FileShare.None);
        }
        catch (IOException fault) when (File.Exists(file) && !Directory.Exists(file) && CanBeWritten(folder))
        {
            throw new DataFolderException(
                Phrase(
                    $"A Fobble is running on {folder} already: two at once would not know of each other. End that one, or give this one another folder (Fobble__Data)."
                ),
                fault
            );
        }
    }

    // A lock that is held keeps its own file from being opened; a disk that can only be read keeps every file from being made.
    private static bool CanBeWritten(string folder)
    {
        try
        {
            TryWriting(folder);
            return true;
        }
        catch (Exception fault) when (fault is IOException or UnauthorizedAccessException)
        {
            return false;
        }
    }

    // What was made by a version that did not see to it, or was put there by hand.
    private static void ForNobodyElse(string folder)
    {
        if (OperatingSystem.IsWindows())
        {
            return;
        }

        File.SetUnixFileMode(folder, OwnersFolder);
        foreach (var entry in new DirectoryInfo(folder).EnumerateFileSystemInfos("*", SearchOption.AllDirectories))
        {
            var mode = entry is DirectoryInfo ? OwnersFolder : OwnersFile;
            if (entry.LinkTarget is null && entry.UnixFileMode != mode)
            {
                entry.UnixFileMode = mode;
            }
        }
    }
}
