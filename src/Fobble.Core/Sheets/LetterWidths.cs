using System.Globalization;

namespace Fobble.Core.Sheets;

/// <summary>How wide words are when they are printed, for breaking lines: known without a typeface at hand, and held against it by a test.</summary>
public static class LetterWidths
{
    // Of our typeface from space to ~, in hundredths of the size.
    private static readonly byte[] Latin =
    [
        27,
        38,
        51,
        59,
        59,
        75,
        60,
        30,
        39,
        39,
        51,
        59,
        32,
        42,
        32,
        49,
        59,
        59,
        59,
        59,
        59,
        59,
        59,
        59,
        59,
        59,
        32,
        32,
        59,
        59,
        59,
        52,
        84,
        69,
        63,
        67,
        71,
        57,
        57,
        70,
        73,
        48,
        48,
        64,
        53,
        88,
        74,
        72,
        59,
        73,
        64,
        58,
        62,
        71,
        67,
        102,
        65,
        65,
        61,
        39,
        49,
        39,
        42,
        63,
        29,
        57,
        57,
        50,
        59,
        54,
        37,
        55,
        58,
        28,
        30,
        51,
        28,
        83,
        58,
        56,
        58,
        56,
        44,
        48,
        41,
        58,
        53,
        76,
        53,
        52,
        51,
        49,
        34,
        49,
        55,
    ];

    private const double Dash = 0.85;
    private const double OtherLatin = 0.96;
    private const double OtherScript = 1.2;

    /// <summary>Width of a line as a share of its size; a little more than it is rather than less.</summary>
    public static double Of(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        return text.Normalize(System.Text.NormalizationForm.FormD).EnumerateRunes().Sum(r => Of(r.Value));
    }

    private static double Of(int letter) =>
        letter switch
        {
            '\u00A0' => Latin[0] / 100.0,
            >= ' ' and <= '~' => Latin[letter - ' '] / 100.0,
            '\u00B7' => 0.34,
            '\u2018' or '\u2019' => 0.27,
            '\u2013' or '\u201C' or '\u201D' => 0.52,
            '\u2212' => 0.59,
            '\u2014' or '\u2026' => Dash,
            >= '\u2066' and <= '\u2069' => 0,
            // A horn makes its vowel wider.
            '\u031B' => 0.12,
            _ when CharUnicodeInfo.GetUnicodeCategory(letter) is UnicodeCategory.NonSpacingMark && letter < '\u0370' => 0,
            < '\u0530' => OtherLatin,
            _ => OtherScript,
        };
}
