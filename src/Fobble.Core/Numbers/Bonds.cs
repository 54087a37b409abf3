namespace Fobble.Core.Numbers;

/// <summary>A whole taken apart into two ordered parts, either of which may be zero.</summary>
public readonly record struct Split(int First, int Second)
{
    public int Total => First + Second;

    public Split Turned => new(Second, First);

    /// <summary>The form in which records keep a bond: <c>5=2+3</c>.</summary>
    public override string ToString() => $"{Total}={First}+{Second}";
}

/// <summary>Number bonds: every way to take a whole apart (rule R2).</summary>
public static class Bonds
{
    /// <summary>All ordered splits of <paramref name="total"/> into two parts: total + 1 of them.</summary>
    /// <exception cref="ArgumentOutOfRangeException">The total is negative.</exception>
    public static IReadOnlyList<Split> Ordered(int total)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(total);
        return [.. Enumerable.Range(0, total + 1).Select(first => new Split(first, total - first))];
    }

    /// <summary>Splits with the order of the parts set aside, larger part first: ⌊total/2⌋ + 1 of them.</summary>
    public static IReadOnlyList<Split> Unordered(int total) => [.. Ordered(total).Where(s => s.First >= s.Second).Reverse()];

    /// <summary>The part that goes with <paramref name="known"/> to make <paramref name="total"/>.</summary>
    /// <exception cref="ArgumentOutOfRangeException">The known part is negative or larger than the total.</exception>
    public static int MissingPart(int total, int known)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(known);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(known, total);
        return total - known;
    }

    /// <summary>The open task "two groups that make …": the right answers that are not among <paramref name="found"/> yet.</summary>
    public static IReadOnlyList<Split> StillToFind(int total, IEnumerable<Split> found)
    {
        var have = found.ToHashSet();
        return [.. Ordered(total).Where(s => !have.Contains(s))];
    }

    /// <summary>
    /// All ordered ways to share <paramref name="total"/> things over <paramref name="wells"/> wells, empty wells included:
    /// C(total + wells − 1, wells − 1) of them (stars and bars, Feller 1950, II.5).
    /// </summary>
    public static IReadOnlyList<IReadOnlyList<int>> IntoWells(int total, int wells)
    {
        ArgumentOutOfRangeException.ThrowIfNegative(total);
        ArgumentOutOfRangeException.ThrowIfLessThan(wells, 1);
        if (wells == 1)
        {
            return
            [
                [total],
            ];
        }

        return
        [
            .. Enumerable.Range(0, total + 1).SelectMany(first => IntoWells(total - first, wells - 1).Select(rest => (IReadOnlyList<int>)[first, .. rest])),
        ];
    }
}
