using Fobble.Core.Numbers;

namespace Fobble.Core.Pictures;

/// <summary>What can be read off ten frames without counting (rule R1).</summary>
public static class FrameReadings
{
    /// <summary>All true readings of 0 to 20 on one or two ten frames, the most telling first.</summary>
    public static IReadOnlyList<string> Of(int number)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(number);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(number, 20);
        List<string> readings = [];
        if (number is > 10 and < 20)
        {
            readings.Add(Phrase($"ten and {NumberWords.Of(number - 10)}"));
        }

        readings.AddRange(FromFive(number));
        readings.Add(
            number switch
            {
                0 => Phrase("empty: ten spaces"),
                10 => Phrase("full: ten ones that are also one ten"),
                20 => Phrase("two full frames: two tens"),
                < 10 => Phrase($"{NumberWords.Of(10 - number)} short of ten"),
                _ => Phrase($"{NumberWords.Of(20 - number)} short of twenty"),
            }
        );
        if (number > 0 && number % 2 == 0)
        {
            readings.Add(Phrase($"double {NumberWords.Of(number / 2)}"));
        }

        readings.Add(number % 2 == 0 ? Phrase("even: everyone has a partner") : Phrase("odd: one has no partner"));
        if (number % 10 != 0)
        {
            readings.Add(Phrase($"nearest ten: {NumberWords.Of(Rounding.ToTen(number))}"));
        }

        return readings;
    }

    /// <summary>All true readings of 0 to 5 on a five frame.</summary>
    public static IReadOnlyList<string> OnFive(int number)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(number);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(number, 5);
        return number switch
        {
            0 => [Phrase("empty: five spaces")],
            5 => [Phrase("full: five")],
            _ =>
            [
                Phrase($"{NumberWords.Of(5 - number)} short of five"),
                Phrase($"{NumberWords.Of(number)} and {NumberWords.Of(5 - number)} spaces").Replace("one spaces", "one space", StringComparison.Ordinal),
            ],
        };
    }

    /// <summary>1 to 20 as pairs: <c>three pairs and one</c>.</summary>
    public static string InPairs(int number)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(number, 1);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(number, 20);
        var pairs = number switch
        {
            1 => "",
            < 4 => Phrase("one pair"),
            _ => Phrase($"{NumberWords.Of(number / 2)} pairs"),
        };
        return (number % 2, pairs) switch
        {
            (0, _) => Phrase($"{pairs}: double {NumberWords.Of(number / 2)}"),
            (_, "") => Phrase("one without a partner"),
            _ => Phrase($"{pairs} and one"),
        };
    }

    // Against five: how many more than it, or how many short of it.
    private static IEnumerable<string> FromFive(int number) =>
        number switch
        {
            > 15 and < 20 => [Phrase($"ten, five and {NumberWords.Of(number - 15)}")],
            > 5 and < 10 => [Phrase($"five and {NumberWords.Of(number - 5)}")],
            > 0 and < 5 => [Phrase($"{NumberWords.Of(5 - number)} short of five")],
            _ => [],
        };
}

/// <summary>How long a picture is shown when it is to be seen and not counted (rule R1), in seconds.</summary>
public static class FlashTime
{
    /// <summary>
    /// One second for up to four, which are seen at once (Trick and Pylyshyn 1994); half a second more for five, two seconds for more,
    /// which are seen as a structure of parts.
    /// </summary>
    public static double For(int number) =>
        number switch
        {
            <= 4 => 1,
            5 => 1.5,
            _ => 2,
        };
}
