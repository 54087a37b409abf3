using System.Text;

namespace Fobble.Core.People;

/// <summary>Scripts that run from right to left. A name of theirs stands between two signs nobody sees, so that its initial and what is around it stay in their places.</summary>
public static class Direction
{
    /// <summary>First strong isolate (Unicode Standard Annex 9).</summary>
    public const char Isolate = '\u2068';

    public const char EndOfIsolate = '\u2069';

    /// <summary>By the blocks of Hebrew, Arabic and their neighbours, and their presentation forms.</summary>
    public static bool IsRightToLeft(Rune letter) => letter.Value is (>= 0x0590 and <= 0x08FF) or (>= 0xFB1D and <= 0xFDFF) or (>= 0xFE70 and <= 0xFEFF);

    public static string Isolated(string name) => name.EnumerateRunes().Any(IsRightToLeft) ? $"{Isolate}{name}{EndOfIsolate}" : name;
}
