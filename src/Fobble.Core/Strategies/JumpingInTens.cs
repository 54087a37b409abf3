using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using static Fobble.Core.Numbers.NumberWords;
using static Fobble.Core.Strategies.Sum;

namespace Fobble.Core.Strategies;

/// <summary>Two-digit sums and differences on an open line: the tens of the second number in one jump, then its ones, by way of the next ten where they pass one.</summary>
internal static class JumpingInTens
{
    private const FactKinds Used = FactKinds.WholeTens | FactKinds.TenAndSome | FactKinds.BondOfTen | FactKinds.OnTens | FactKinds.WithinTen;

    public static WorkedStrategy? Add(Sum s)
    {
        if (s.Smaller < 10 || s.Result <= 20)
        {
            return null;
        }

        var workings = s.Begin(s.B > s.A ? $"{s.A} + {s.B}" : Phrase($"Begin at {Of(s.A)}."), s.Path(s.A, []));
        if (s.B > s.A)
        {
            workings.Then(new Thought.TurnRound(), Phrase($"The order does not matter: begin at {Of(s.B)}."), s.Path(s.B, []));
        }

        var passes = Jump(s, workings, s.Larger, s.Smaller, Operation.Add);
        return Worked(s, workings, passes ? "strategy.make-ten" : "join.fluent-10");
    }

    public static WorkedStrategy? TakeAway(Sum s)
    {
        if (s.A <= 20 || s.B < 10 || s.B == s.A)
        {
            return null;
        }

        var workings = s.Begin(Phrase($"Begin at {Of(s.A)}."), s.Path(s.A, []));
        var passes = Jump(s, workings, s.A, s.B, Operation.TakeAway);
        return Worked(s, workings, passes ? "strategy.back-through-ten" : "take.fluent-10");
    }

    private static WorkedStrategy Worked(Sum s, Workings workings, string digits) =>
        s.Worked(
            StrategyKind.JumpInTens,
            Phrase("The first number stays whole; the tens of the other come in one jump."),
            workings,
            Used,
            ["place.ten-more", digits]
        );

    // Whether the ones pass a ten on the way.
    private static bool Jump(Sum s, Workings workings, int start, int number, Operation operation)
    {
        var (tens, ones) = (number - (number % 10), number % 10);
        var (at, hops) = (start, new List<Hop>());
        if (ones > 0)
        {
            workings.Then(new Thought.Split(number, tens, ones), Phrase($"{Capitalised(number)} is {Of(tens)} and {Of(ones)}."), s.Path(start, []));
        }

        Hopping(tens);
        var toTen = operation == Operation.Add ? (10 - (at % 10)) % 10 : at % 10;
        var passes = toTen > 0 && ones > toTen;
        if (passes)
        {
            workings.Then(
                new Thought.Split(ones, toTen, ones - toTen),
                Phrase($"{Capitalised(ones)} is {Of(toTen)} and {Of(ones - toTen)}."),
                s.Path(start, hops)
            );
            Hopping(toTen);
            Hopping(ones - toTen);
        }
        else if (ones > 0)
        {
            Hopping(ones);
        }

        return passes;

        void Hopping(int by)
        {
            var (fact, way) = operation == Operation.Add ? (Plus(at, by), "on") : (Minus(at, by), "back");
            hops.Add(new(at, fact.Result, operation == Operation.Add ? $"+{by}" : $"−{by}"));
            at = fact.Result;
            workings.Then(new Thought.Know(fact), $"{Capitalised(by)} {way}: {Of(at)}.", s.Path(start, [.. hops]));
        }
    }
}
