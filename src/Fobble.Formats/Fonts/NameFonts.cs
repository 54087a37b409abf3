using System.Collections.Concurrent;
using System.Globalization;
using System.IO.Compression;
using System.Text;
using SkiaSharp;

namespace Fobble.Formats.Fonts;

/// <summary>
/// Fonts for names in any script, on screen and on paper the same: Noto Sans (SIL Open Font License) in pieces, of which each is for some letters. Only the pieces that a
/// name needs are loaded, or embedded in a file.
/// </summary>
public static class NameFonts
{
    private static readonly Lazy<IReadOnlyList<Piece>> Pieces = new(ReadPieces);
    private static readonly ConcurrentDictionary<string, Lazy<SKTypeface>> Faces = new();

    /// <summary>The typeface that everything else is printed in.</summary>
    internal static SKTypeface Usual => UsualFace.Value;

    private static readonly Lazy<SKTypeface> UsualFace = new(() =>
    {
        using var file = Resource("FobbleChild-Regular.ttf");
        return SKTypeface.FromStream(file);
    });

    /// <summary>What of a text no font at hand has, letter by letter.</summary>
    public static IReadOnlyList<string> Missing(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        return [.. Letters(text.Normalize()).Where(l => FaceFor(l) is null).Distinct()];
    }

    /// <summary>A text with "…" for each run of letters that no font at hand has.</summary>
    public static string Printable(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        StringBuilder printable = new();
        foreach (var letter in Letters(text.Normalize()))
        {
            var shown = FaceFor(letter) is null ? "…" : letter;
            if (shown != "…" || printable.Length == 0 || printable[^1] != '…')
            {
                printable.Append(shown);
            }
        }

        return printable.ToString();
    }

    /// <summary>A piece as it goes to a browser (WOFF); null where there is none of that name.</summary>
    public static byte[]? Woff(string piece) => Pieces.Value.Any(p => p.Name == piece) ? Entry($"{piece}.woff") : null;

    /// <summary>The pieces as rules for a browser, which fetches what a page needs.</summary>
    /// <param name="address">Where a piece of a name is fetched.</param>
    /// <param name="han">Those for Han letters, kana and hangul, which are many; else all others.</param>
    public static string Css(Func<string, string> address, bool han)
    {
        ArgumentNullException.ThrowIfNull(address);
        return string.Concat(
            Pieces
                .Value.Where(p => p.IsHan == han)
                .Select(p => $"@font-face{{font-family:'Names';font-display:swap;src:url({address(p.Name)}) format('woff');unicode-range:{p.Letters}}}\n")
        );
    }

    /// <summary>The typeface for a letter with its accents; null where none has it. Signs that nobody sees need none.</summary>
    internal static SKTypeface? FaceFor(string letter)
    {
        var seen = string.Concat(letter.EnumerateRunes().Where(r => Rune.GetUnicodeCategory(r) != UnicodeCategory.Format));
        if (seen.Length == 0 || HasAll(Usual, seen))
        {
            return Usual;
        }

        var runes = seen.EnumerateRunes().ToList();
        return Pieces.Value.Where(p => runes.All(p.Has)).Select(p => FaceOf(p.Name)).FirstOrDefault(f => HasAll(f, seen));
    }

    internal static bool HasAll(SKTypeface face, string text)
    {
        using SKFont font = new(face);
        return font.ContainsGlyphs(text);
    }

    /// <summary>Letters as readers count them, each with its accents and joiners.</summary>
    internal static IEnumerable<string> Letters(string text)
    {
        var at = 0;
        while (at < text.Length)
        {
            var length = StringInfo.GetNextTextElementLength(text, at);
            yield return text.Substring(at, length);
            at += length;
        }
    }

    private static SKTypeface FaceOf(string piece) =>
        Faces
            .GetOrAdd(piece, name => new(() =>
                {
                    using MemoryStream font = new(WoffFile.Unpack(Entry($"{name}.woff")));
                    return SKTypeface.FromStream(font);
                }))
            .Value;

    private static List<Piece> ReadPieces() =>
        [.. Encoding.UTF8.GetString(Entry("letters.txt")).Split('\n', StringSplitOptions.RemoveEmptyEntries).Select(line => Piece.Read(line.Split('\t')))];

    private static byte[] Entry(string name)
    {
        using ZipArchive archive = new(Resource("NameFonts.zip"));
        using var entry = archive.GetEntry(name)!.Open();
        using MemoryStream bytes = new();
        entry.CopyTo(bytes);
        return bytes.ToArray();
    }

    private static Stream Resource(string name) => typeof(NameFonts).Assembly.GetManifestResourceStream(name)!;

    /// <param name="Letters">As CSS writes it: <c>U+0600-06FF,U+200C</c>.</param>
    private sealed record Piece(string Name, string Letters, IReadOnlyList<(int First, int Last)> Ranges)
    {
        public bool IsHan =>
            Name.StartsWith("jp-", StringComparison.Ordinal)
            || Name.StartsWith("sc-", StringComparison.Ordinal)
            || Name.StartsWith("kr-", StringComparison.Ordinal);

        public bool Has(Rune rune) => Ranges.Any(r => r.First <= rune.Value && rune.Value <= r.Last);

        public static Piece Read(string[] fields) => new(fields[0], fields[1], [.. fields[1].Split(',').Select(Range)]);

        private static (int, int) Range(string range)
        {
            var ends = range[2..].Split('-').Select(hex => int.Parse(hex, NumberStyles.HexNumber, CultureInfo.InvariantCulture)).ToList();
            return (ends[0], ends[^1]);
        }
    }
}
