using System.Runtime.InteropServices;

namespace Fobble.Data.Keeping;

/// <summary>Whatever this process makes from now on is for its owner only: SQLite's files, keys, lists.</summary>
public static class OwnersOnly
{
    private const uint NobodyElse = 0b000_111_111;

    public static void FromNowOn()
    {
        if (!OperatingSystem.IsWindows())
        {
            _ = Umask(NobodyElse);
        }
    }

    // The framework has no word for it: umask(2). Two numbers need none of the code that another way would write for them.
#pragma warning disable SYSLIB1054
    [DllImport("libc", EntryPoint = "umask")]
    [DefaultDllImportSearchPaths(DllImportSearchPath.SafeDirectories)]
    private static extern uint Umask(uint mask);
#pragma warning restore SYSLIB1054
}
