namespace Fobble.Core.Numbers;

/// <summary>Tens near a number (rule R5).</summary>
public static class Rounding
{
    /// <summary>The nearest ten; a five at the end goes up.</summary>
    public static int ToTen(int number) => (number + 5) / 10 * 10;

    /// <summary>The next ten above, the number itself if it is one.</summary>
    public static int UpToTen(int number) => (number + 9) / 10 * 10;
}
