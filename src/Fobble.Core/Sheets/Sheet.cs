using Fobble.Core.Approaches;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Core.Stories;

namespace Fobble.Core.Sheets;

public enum PaperSize
{
    A4,
    Letter,
}

/// <summary>A sheet of paper, upright, in millimetres.</summary>
public readonly record struct Paper(double Width, double Height)
{
    /// <summary>A4 by ISO 216: 210 × 297 mm. Letter by ANSI/ASME Y14.1: 8.5 × 11 inches of 25.4 mm.</summary>
    /// <summary>What printers hold where days are written as in a place, a BCP 47 tag (common practice).</summary>
    public static PaperSize UsualIn(string locale) => locale is "en-US" or "en-CA" ? PaperSize.Letter : PaperSize.A4;

    public static Paper Of(PaperSize size) => size == PaperSize.A4 ? new(210, 297) : new(215.9, 279.4);
}

/// <summary>Whom a page is for, and what is known of their numbers.</summary>
public sealed record SheetChild(string Name, ItemHistory History);

/// <summary>Which sheet is wanted.</summary>
/// <param name="Count">Items, strips or slips; not used where the numbers decide.</param>
/// <param name="Children">One page each where the kind has pages of their own; empty for one without a name.</param>
/// <param name="Theme">Of stories; null for any.</param>
/// <param name="Stories">Their kinds; null for all.</param>
/// <param name="Made">The day whose records the numbers rest on; it stands in the footer beside the seed.</param>
public sealed record SheetRequest(
    SheetKind Kind,
    SheetVariant Variant,
    PaperSize Paper,
    NumberRange Range,
    int Count,
    IReadOnlyList<SheetChild> Children,
    Approach Approach,
    uint Seed,
    DateOnly Made,
    string? Theme = null,
    IReadOnlyList<StoryKind>? Stories = null
);

/// <summary>A page as a picture whose unit is the millimetre.</summary>
/// <param name="IsKey">Whether it holds the answers, for the adult.</param>
public sealed record SheetPage(Picture Picture, bool IsKey)
{
    /// <summary>Photos that lie on it; only reports have them.</summary>
    public IReadOnlyList<PagePhoto> Photos { get; init; } = [];
}

/// <summary>A JPEG in a box on a page, in millimetres; it keeps its shape within the box.</summary>
public sealed record PagePhoto(byte[] Jpeg, double X, double Y, double Width, double Height);

/// <summary>What is printed.</summary>
/// <param name="Stories">Their kinds; null for all.</param>
/// <param name="Made">The day whose records its numbers rest on.</param>
public sealed record Sheet(string Title, Paper Paper, DateOnly Made, IReadOnlyList<SheetPage> Pages);
