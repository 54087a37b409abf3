namespace Fobble.Core.Numbers;

/// <summary>Two amounts, or two sums, held against each other (rule R6).</summary>
public readonly record struct Comparison(int First, int Second)
{
    public int Difference => Math.Abs(First - Second);

    public string Sign =>
        First == Second ? "="
        : First > Second ? ">"
        : "<";

    /// <summary>Things of the first (and of the second) that find a partner.</summary>
    public int Matched => Math.Min(First, Second);

    /// <summary>"7 is 3 more than 4", or "4 is 3 fewer than 7" in the class's word.</summary>
    public string InWords(Wording words)
    {
        ArgumentNullException.ThrowIfNull(words);
        return First == Second
            ? Phrase($"{First} and {Second} are the same: everyone has a partner")
            : Phrase($"{First} is {Difference} {(First > Second ? "more" : words.Fewer)} than {Second}");
    }

    /// <summary>"5 + 2 &gt; 3 + 3", the two sides as they were written.</summary>
    public string Between(string first, string second) => $"{first} {Sign} {second}";
}

/// <summary>Even or odd, by pairing up (rule R6).</summary>
public readonly record struct Pairing(int Pairs, bool OneAlone)
{
    public static Pairing Of(int number)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(number);
        return new(number / 2, number % 2 == 1);
    }

    public bool Even => !OneAlone;
}
