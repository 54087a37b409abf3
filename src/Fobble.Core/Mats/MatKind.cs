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
            MatKind.FiveFrame => Phrase("Five frame"),
            MatKind.TenFrame => Phrase("Ten frame"),
            MatKind.TwoTenFrames => Phrase("Two ten frames"),
            MatKind.Bond => Phrase("Whole and parts"),
            MatKind.TwoRows => Phrase("Two rows"),
            MatKind.Tray => Phrase("Tray"),
            MatKind.Ring => Phrase("Ring"),
            _ => Phrase("Heap"),
        };

    public static IReadOnlyList<MatZone> ZonesOf(MatKind kind) =>
        kind switch
        {
            MatKind.FiveFrame => [new(Phrase("frame"), 5, true)],
            MatKind.TenFrame => [new(Phrase("frame"), 10, true)],
            MatKind.TwoTenFrames => [new(Phrase("first frame"), 10, true), new(Phrase("second frame"), 10, true)],
            MatKind.Bond => [new(Phrase("whole"), 20, false), new(Phrase("first part"), 20, false), new(Phrase("second part"), 20, false)],
            MatKind.TwoRows => [new(Phrase("upper row"), 10, false), new(Phrase("lower row"), 10, false)],
            MatKind.Tray => [new(Phrase("first well"), 12, false), new(Phrase("second well"), 12, false), new(Phrase("third well"), 12, false)],
            MatKind.Ring => [new(Phrase("inside"), 12, false), new(Phrase("outside"), 12, false)],
            _ => [new(Phrase("heap"), 40, true)],
        };

    public static bool IsFrame(MatKind kind) => kind is MatKind.FiveFrame or MatKind.TenFrame or MatKind.TwoTenFrames;

    /// <summary>Whether what is shaken falls into zones, rather than each counter on one of its two sides.</summary>
    public static bool ShakesIntoZones(MatKind kind) => kind is MatKind.Tray or MatKind.Ring;
}
