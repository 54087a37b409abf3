namespace Fobble.Core.Numbers;

/// <summary>
/// Random numbers from a seed, the same on every machine and in every version of .NET: SplitMix64 (Steele, Lea and Flood 2014).
/// </summary>
public sealed class SeededRandom(ulong seed)
{
    private ulong _state = seed;

    /// <summary>Sixty-four bits.</summary>
    public ulong NextBits()
    {
        var z = _state += 0x9E3779B97F4A7C15;
        z = (z ^ (z >> 30)) * 0xBF58476D1CE4E5B9;
        z = (z ^ (z >> 27)) * 0x94D049BB133111EB;
        return z ^ (z >> 31);
    }

    /// <summary>A whole number from 0 up to, not including, <paramref name="limit"/>.</summary>
    public int Next(int limit)
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(limit, 1);
        return (int)Math.BigMul(NextBits(), (ulong)limit, out _);
    }

    /// <summary>A number from 0 up to, not including, 1.</summary>
    public double NextShare() => (NextBits() >> 11) * (1.0 / (1UL << 53));

    /// <summary>True in this share of cases, 0 to 1.</summary>
    public bool Chance(double share) => NextShare() < share;

    /// <summary>Normal with mean 0 and standard deviation 1 (Box and Muller 1958).</summary>
    public double NextNormal() => Math.Sqrt(-2 * Math.Log(1 - NextShare())) * Math.Cos(2 * Math.PI * NextShare());

    public T Pick<T>(IReadOnlyList<T> from) => from[Next(from.Count)];

    /// <summary>The index drawn with chance in proportion to its weight.</summary>
    public int PickWeighted(IReadOnlyList<int> weights)
    {
        var at = Next(weights.Sum());
        var index = 0;
        while (at >= weights[index])
        {
            at -= weights[index++];
        }

        return index;
    }

    public IReadOnlyList<T> Shuffled<T>(IEnumerable<T> items)
    {
        T[] deck = [.. items];
        for (var last = deck.Length - 1; last > 0; last--)
        {
            var other = Next(last + 1);
            (deck[last], deck[other]) = (deck[other], deck[last]);
        }

        return deck;
    }

    /// <summary>A seed made of text, so that a session's id gives its numbers: FNV-1a, 64 bits.</summary>
    public static ulong SeedOf(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        return text.Aggregate(14695981039346656037UL, (hash, letter) => (hash ^ letter) * 1099511628211UL);
    }
}
