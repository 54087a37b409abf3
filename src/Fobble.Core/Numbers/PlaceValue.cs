namespace Fobble.Core.Numbers;

/// <summary>The kinds that a number is made of, the smallest first.</summary>
public enum NumberKind
{
    Ones,
    Tens,
    Hundreds,
}

/// <summary>A number from 0 to 999 as hundreds, tens and ones (rule R5). While kinds are put together a kind may hold more than nine.</summary>
public readonly record struct PlaceValue(int Hundreds, int Tens, int Ones)
{
    public int Number => (Hundreds * 100) + (Tens * 10) + Ones;

    /// <exception cref="ArgumentOutOfRangeException">The number is not from 0 to 999.</exception>
    public static PlaceValue Of(int number)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(number);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(number, 999);
        return new(number / 100, number / 10 % 10, number % 10);
    }

    public int this[NumberKind kind] =>
        kind switch
        {
            NumberKind.Hundreds => Hundreds,
            NumberKind.Tens => Tens,
            _ => Ones,
        };

    /// <summary>What one of a kind is worth: 1, 10 or 100.</summary>
    public static int Worth(NumberKind kind) =>
        kind switch
        {
            NumberKind.Hundreds => 100,
            NumberKind.Tens => 10,
            _ => 1,
        };

    /// <summary>The number as its kinds are worth, the largest first: 153 = 100, 50, 3. Zeros are left out unless they are to be kept; 0 is 0.</summary>
    public IReadOnlyList<int> Expanded(bool keepZeros = false)
    {
        int[] parts = [Hundreds * 100, Tens * 10, Ones];
        var kept = parts.SkipWhile(p => p == 0).Where(p => keepZeros || p > 0).ToList();
        return kept.Count > 0 ? kept : [0];
    }

    /// <summary>The sum written out: <c>153 = 100 + 50 + 3</c>.</summary>
    public string ExpandedSentence(bool keepZeros = false) => $"{Number} = {string.Join(" + ", Expanded(keepZeros))}";

    /// <summary>Ten of a kind given for one of the next.</summary>
    /// <exception cref="InvalidOperationException">There are no ten of that kind, or nothing larger to exchange for.</exception>
    public PlaceValue Gather(NumberKind kind) =>
        kind switch
        {
            NumberKind.Ones when Ones >= 10 => this with { Ones = Ones - 10, Tens = Tens + 1 },
            NumberKind.Tens when Tens >= 10 => this with { Tens = Tens - 10, Hundreds = Hundreds + 1 },
            _ => throw new InvalidOperationException($"There are not ten {kind} to exchange."),
        };

    /// <summary>One of a kind given for ten of the one below.</summary>
    /// <exception cref="InvalidOperationException">There is none of that kind, or nothing smaller to exchange for.</exception>
    public PlaceValue Break(NumberKind kind) =>
        kind switch
        {
            NumberKind.Hundreds when Hundreds > 0 => this with { Hundreds = Hundreds - 1, Tens = Tens + 10 },
            NumberKind.Tens when Tens > 0 => this with { Tens = Tens - 1, Ones = Ones + 10 },
            _ => throw new InvalidOperationException($"There is no {kind} to exchange."),
        };
}

/// <summary>A large amount laid out in heaps of ten and what is left over (rules R5 and R8).</summary>
public readonly record struct HeapsOfTen(int Heaps, int LeftOver)
{
    /// <summary>Of a number from 0 on; heaps are counted through, so a hundred is ten of them.</summary>
    public static HeapsOfTen Of(int number)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(number);
        return new(number / 10, number % 10);
    }

    public override string ToString() => Phrase($"{Heaps} heap{(Heaps == 1 ? "" : "s")} of ten and {LeftOver}");
}
