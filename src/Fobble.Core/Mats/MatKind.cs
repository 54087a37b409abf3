using Fobble.Core.Pictures;

namespace Fobble.Core.Mats;

/// <summary>Mats on which counters are laid by hand.</summary>
public enum MatKind
{
    FiveFrame,
    TenFrame,
    TwoTenFrames,
    Bond,
    TwoRows,
    Tray,
    Ring,
    Heap,
}

/// <summary>A part of a mat that counters lie on.</summary>
/// <param name="Places">How many counters it holds.</param>
/// <param name="Fixed">Whether each counter lies in a place of its own (a cell), or closes up with the others.</param>
public sealed record MatZone(string Name, int Places, bool Fixed);

/// <summary>What follows from a kind of mat alone.</summary>
public static class MatKinds
{
    /// <summary>Counters that all zones of a mat hold together: as many as can still be told apart on a tablet.</summary>
    public const int MostInAll = 40;

    public static IReadOnlyList<MatKind> All { get; } = Enum.GetValues<MatKind>();

    public static string NameOf(MatKind kind) =>
        kind switch
        {
            MatKind.FiveFrame => "Five frame",
            MatKind.TenFrame => "Ten frame",
            MatKind.TwoTenFrames => "Two ten frames",
            MatKind.Bond => "Whole and parts",
            MatKind.TwoRows => "Two rows",
            MatKind.Tray => "Tray",
            MatKind.Ring => "Ring",
            _ => "Heap",
        };

    public static IReadOnlyList<MatZone> ZonesOf(MatKind kind) =>
        kind switch
        {
            MatKind.FiveFrame => [new("frame", 5, true)],
            MatKind.TenFrame => [new("frame", 10, true)],
            MatKind.TwoTenFrames => [new("first frame", 10, true), new("second frame", 10, true)],
            MatKind.Bond => [new("whole", 20, false), new("first part", 20, false), new("second part", 20, false)],
            MatKind.TwoRows => [new("upper row", 10, false), new("lower row", 10, false)],
            MatKind.Tray => [new("first well", 12, false), new("second well", 12, false), new("third well", 12, false)],
            MatKind.Ring => [new("inside", 12, false), new("outside", 12, false)],
            _ => [new("heap", 40, true)],
        };

    public static bool IsFrame(MatKind kind) => kind is MatKind.FiveFrame or MatKind.TenFrame or MatKind.TwoTenFrames;

    /// <summary>Whether what is shaken falls into zones, rather than each counter on one of its two sides.</summary>
    public static bool ShakesIntoZones(MatKind kind) => kind is MatKind.Tray or MatKind.Ring;
}
