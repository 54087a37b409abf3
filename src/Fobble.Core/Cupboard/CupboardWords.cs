using System.Globalization;

namespace Fobble.Core.Cupboard;

/// <summary>Names of purposes and sizes, as they stand on a list.</summary>
public static class CupboardWords
{
    public static string NameOf(Purpose purpose)
    {
        var name = string.Concat($"{purpose}".Select((c, i) => char.IsUpper(c) && i > 0 ? " " + char.ToLowerInvariant(c) : $"{c}"));
        return purpose switch
        {
            Purpose.Counting => Phrase("Things to count"),
            Purpose.Joining => Phrase("To bundle and join"),
            Purpose.Cover => Phrase("To cover"),
            Purpose.Piece => Phrase("Playing pieces"),
            Purpose.Line => Phrase("Lines"),
            Purpose.Path => Phrase("Paths"),
            Purpose.Goods => Phrase("Market goods"),
            Purpose.Sound => Phrase("Bells and drums"),
            Purpose.Container => Phrase("Containers"),
            Purpose.Tray => Phrase("Trays"),
            Purpose.Ring => Phrase("Rings"),
            _ => Phrase(name),
        };
    }

    /// <summary>Such as <c>25 × 25 × 4 mm</c>; empty where size is of no matter.</summary>
    public static string SizeOf(CupboardItem item)
    {
        ArgumentNullException.ThrowIfNull(item);
        return item.Size.Count == 0 ? "" : string.Join(" × ", item.Size.Select(s => s.ToString("0.#", CultureInfo.InvariantCulture))) + " mm";
    }
}
