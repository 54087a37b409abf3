using System.Globalization;

namespace Fobble.Core.Tests;

/// <summary>
/// On how many random cases a property is tried. All of them, unless FOBBLE_CASES names a share in percent: the suite runs a second time in another part of
/// the world, where every test runs again, and what only computes need not be tried as often.
/// </summary>
internal static class Cases
{
    private static readonly int Percent = int.Parse(Environment.GetEnvironmentVariable("FOBBLE_CASES") ?? "100", CultureInfo.InvariantCulture);

    /// <summary>Whether so many are tried that each kind of case is sure to be among them.</summary>
    public static bool AreAll => Percent >= 100;

    public static int Of(int all) => Math.Max(1, all * Percent / 100);
}
