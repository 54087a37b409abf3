namespace Fobble.Core.Numbers;

/// <summary>Number words, as a teacher says them. Hundreds take "and" (British and in school use American as well).</summary>
public static class NumberWords
{
    private static readonly string[] Small =
    [
        "zero",
        "one",
        "two",
        "three",
        "four",
        "five",
        "six",
        "seven",
        "eight",
        "nine",
        "ten",
        "eleven",
        "twelve",
        "thirteen",
        "fourteen",
        "fifteen",
        "sixteen",
        "seventeen",
        "eighteen",
        "nineteen",
    ];

    private static readonly string[] Tens = ["", "", "twenty", "thirty", "forty", "fifty", "sixty", "seventy", "eighty", "ninety"];

    /// <summary>The word for 0 to 999.</summary>
    /// <exception cref="ArgumentOutOfRangeException">The number is outside that range.</exception>
    public static string Of(int number)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(number);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(number, 999);
        return number switch
        {
            < 20 => Phrase(Small[number]),
            < 100 when number % 10 == 0 => Phrase(Tens[number / 10]),
            < 100 => Phrase($"{Tens[number / 10]}-{Small[number % 10]}"),
            _ when number % 100 == 0 => Phrase($"{Small[number / 100]} hundred"),
            _ => Phrase($"{Small[number / 100]} hundred and {Of(number % 100)}"),
        };
    }

    public static string Capitalised(int number) => char.ToUpperInvariant(Of(number)[0]) + Of(number)[1..];
}
