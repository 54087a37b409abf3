namespace Fobble.Core.Sheets;

/// <summary>
/// Where the pen starts when a digit is written (common practice; schools differ for 4, 8 and 9, and a teacher shows it anyway): a dot on the numeral to trace.
/// </summary>
internal static class StartingDots
{
    // From the middle of the digit, to the right and down, in heights of the letters.
    private static readonly (double Right, double Down)[] Starts =
    [
        (0.02, -0.35),
        (-0.12, -0.24),
        (-0.19, -0.22),
        (-0.19, -0.26),
        (0.08, -0.35),
        (-0.12, -0.35),
        (0.12, -0.34),
        (-0.19, -0.34),
        (0.14, -0.27),
        (0.18, -0.2),
    ];

    /// <summary>Width of a digit as a share of its height.</summary>
    private const double Width = 0.56;

    /// <param name="size">Height of the letters, millimetres.</param>
    /// <returns>One for each digit, from the middle of the numeral, millimetres.</returns>
    public static IEnumerable<(double Right, double Down)> Of(int number, double size)
    {
        var digits = $"{number}";
        return digits.Select((d, i) => ((Starts[d - '0'].Right + ((i - ((digits.Length - 1) / 2.0)) * Width)) * size, Starts[d - '0'].Down * size));
    }
}
