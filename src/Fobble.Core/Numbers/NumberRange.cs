using System.Globalization;

namespace Fobble.Core.Numbers;

/// <summary>Whole numbers from <see cref="Low"/> to <see cref="High"/>, both included, 0 to 999.</summary>
public readonly record struct NumberRange
{
    /// <summary>The largest number that Fobble works with.</summary>
    public const int Largest = 999;

    /// <exception cref="ArgumentOutOfRangeException">Low is below 0, high above 999, or low above high.</exception>
    public NumberRange(int low, int high)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(low);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(low, high);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(high, Largest);
        Low = low;
        High = high;
    }

    /// <summary>The smallest number of it, from 0.</summary>
    public int Low { get; }

    /// <summary>The largest number of it, up to <see cref="Largest"/>.</summary>
    public int High { get; }

    /// <summary>How many numbers it has.</summary>
    public int Count => High - Low + 1;

    public IEnumerable<int> Numbers => Enumerable.Range(Low, Count);

    public bool Contains(int number) => number >= Low && number <= High;

    /// <summary>Reads <c>1-5</c> or a single number <c>5</c>.</summary>
    /// <exception cref="RefusedException">The text is neither.</exception>
    public static NumberRange Parse(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        var ends = text.Split('-', StringSplitOptions.TrimEntries);
        return
            ends.Length is 1 or 2
            && int.TryParse(ends[0], NumberStyles.None, CultureInfo.InvariantCulture, out var low)
            && int.TryParse(ends[^1], NumberStyles.None, CultureInfo.InvariantCulture, out var high)
            && low <= high
            && high <= Largest
            ? new NumberRange(low, high)
            : throw new RefusedException("range", Phrase($"'{text}' is no range of numbers; write it like 1-5."));
    }

    public override string ToString() => Low == High ? $"{Low}" : $"{Low}-{High}";

    /// <summary>The range from one number to another, as somebody asked for it.</summary>
    /// <exception cref="RefusedException">That is no range.</exception>
    public static NumberRange Asked(int low, int high) =>
        low >= 0 && low <= high && high <= Largest
            ? new(low, high)
            : throw new RefusedException("range", Phrase($"{low} to {high} is no range of numbers: choose from 0 to {Largest}, the smaller first."));
}
