using Fobble.Core.Numbers;

namespace Fobble.Core.Pictures;

/// <summary>What can be read off a ten frame without counting (rule R1).</summary>
public static class FrameReadings
{
    /// <summary>All true readings of 0 to 10 on a ten frame, the most telling first.</summary>
    public static IReadOnlyList<string> Of(int number)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(number);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(number, 10);
        List<string> readings = [];
        if (number is > 5 and < 10)
        {
            readings.Add($"five and {NumberWords.Of(number - 5)}");
        }
        else if (number is > 0 and < 5)
        {
            readings.Add($"{NumberWords.Of(5 - number)} short of five");
        }

        readings.Add(number switch
        {
            10 => "full: ten ones that are also one ten",
            0 => "empty: ten spaces",
            _ => $"{NumberWords.Of(10 - number)} short of ten",
        });
        if (number > 0 && number % 2 == 0)
        {
            readings.Add($"double {NumberWords.Of(number / 2)}");
        }

        readings.Add(number % 2 == 0 ? "even: everyone has a partner" : "odd: one has no partner");
        return readings;
    }
}
