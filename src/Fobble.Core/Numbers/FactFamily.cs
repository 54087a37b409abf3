namespace Fobble.Core.Numbers;

public enum Operation
{
    Add,
    TakeAway,
}

/// <summary>A true sentence such as 2 + 3 = 5 or 5 − 3 = 2.</summary>
public readonly record struct NumberSentence(int Left, Operation Operation, int Right)
{
    public int Result => Operation == Operation.Add ? Left + Right : Left - Right;

    public override string ToString() => $"{Left} {(Operation == Operation.Add ? "+" : "−")} {Right} = {Result}";
}

/// <summary>The sentences that one bond gives: up to two additions and two subtractions, none twice (rule R2).</summary>
public sealed record FactFamily(IReadOnlyList<NumberSentence> Additions, IReadOnlyList<NumberSentence> Subtractions)
{
    /// <summary>The family of <paramref name="split"/>; doubles give one of each kind, since turning them round gives the same sentence.</summary>
    public static FactFamily Of(Split split)
    {
        var (a, b, total) = (split.First, split.Second, split.Total);
        NumberSentence[] additions = [new(a, Operation.Add, b), new(b, Operation.Add, a)];
        NumberSentence[] subtractions = [new(total, Operation.TakeAway, a), new(total, Operation.TakeAway, b)];
        return new FactFamily([.. additions.Distinct()], [.. subtractions.Distinct()]);
    }
}
