namespace Fobble.Core.Numbers;

public enum KindMove
{
    /// <summary>The two amounts of a kind are put together, or one is taken from the other.</summary>
    Work,

    /// <summary>Ten of the kind are given for one of the next.</summary>
    Gather,

    /// <summary>One of the kind is given for ten of the one below.</summary>
    Break,
}

/// <summary>One step of working kind by kind, and what lies there afterwards.</summary>
public sealed record KindStep(KindMove Move, NumberKind Kind, PlaceValue After);

/// <summary>Adding and taking away kind by kind, the ones first, with every exchange listed (rule R5).</summary>
public static class KindByKind
{
    private static readonly NumberKind[] Kinds = [NumberKind.Ones, NumberKind.Tens, NumberKind.Hundreds];

    /// <summary>The steps of a + b; both and their sum are from 0 to 999. <see cref="KindStep.After"/> shows both numbers lying together.</summary>
    public static IReadOnlyList<KindStep> Add(int a, int b)
    {
        ArgumentOutOfRangeException.ThrowIfGreaterThan(a + b, 999);
        var (lying, other) = (PlaceValue.Of(a), PlaceValue.Of(b));
        List<KindStep> steps = [];
        foreach (var kind in Kinds.Where(k => other[k] > 0 || lying[k] > 9))
        {
            if (other[kind] > 0)
            {
                lying = With(lying, kind, other[kind]);
                steps.Add(new(KindMove.Work, kind, lying));
            }

            GatherFrom(kind);
        }

        return steps;

        // An exchange can fill the next kind up to ten as well.
        void GatherFrom(NumberKind kind)
        {
            if (lying[kind] > 9 && kind != NumberKind.Hundreds)
            {
                lying = lying.Gather(kind);
                steps.Add(new(KindMove.Gather, kind, lying));
                if (other[kind + 1] == 0)
                {
                    GatherFrom(kind + 1);
                }
            }
        }
    }

    /// <summary>The steps of a − b, with 0 ≤ b ≤ a ≤ 999.</summary>
    public static IReadOnlyList<KindStep> TakeAway(int a, int b)
    {
        ArgumentOutOfRangeException.ThrowIfGreaterThan(b, a);
        var (lying, other) = (PlaceValue.Of(a), PlaceValue.Of(b));
        List<KindStep> steps = [];
        foreach (var kind in Kinds.Where(k => other[k] > 0))
        {
            if (lying[kind] < other[kind])
            {
                if (lying[kind + 1] == 0)
                {
                    Break(kind + 2);
                }

                Break(kind + 1);
            }

            lying = With(lying, kind, -other[kind]);
            steps.Add(new(KindMove.Work, kind, lying));
        }

        return steps;

        void Break(NumberKind kind)
        {
            lying = lying.Break(kind);
            steps.Add(new(KindMove.Break, kind, lying));
        }
    }

    private static PlaceValue With(PlaceValue value, NumberKind kind, int more) =>
        kind switch
        {
            NumberKind.Ones => value with { Ones = value.Ones + more },
            NumberKind.Tens => value with { Tens = value.Tens + more },
            _ => value with { Hundreds = value.Hundreds + more },
        };
}
