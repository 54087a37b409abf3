using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using static Fobble.Core.Strategies.Sum;

namespace Fobble.Core.Strategies;

/// <summary>Two-digit sums and differences kind by kind, with blocks: the exchanges of <see cref="KindByKind"/> as thoughts.</summary>
internal static class WorkingKindByKind
{
    public static WorkedStrategy? Add(Sum s)
    {
        if (s.Smaller == 0 || s.Result <= 20 || !(s.Smaller >= 10 || (s.Larger > 20 && s.Larger % 10 != 0)))
        {
            return null;
        }

        var together = new PlaceValue((s.A / 100) + (s.B / 100), (s.A / 10 % 10) + (s.B / 10 % 10), (s.A % 10) + (s.B % 10));
        var start = PlaceValues.Blocks(together, PlaceValue.Of(s.A));
        var workings = s.Begin(Words.Capital($"{s.InKinds(PlaceValue.Of(s.A))}; {s.InKinds(PlaceValue.Of(s.B))}."), start);
        TakeApart(s, workings, s.A, start);
        TakeApart(s, workings, s.B, start);
        var (lying, other) = (PlaceValue.Of(s.A), PlaceValue.Of(s.B));
        foreach (var step in KindByKind.Add(s.A, s.B))
        {
            var (worth, name) = (PlaceValue.Worth(step.Kind), NameOf(step.Kind, s));
            var picture = PlaceValues.Blocks(Plus(step.After, other, step.Kind));
            if (step.Move == KindMove.Gather)
            {
                var rest = step.After[step.Kind] * worth;
                if (rest > 0)
                {
                    workings.Then(
                        new Thought.Split((10 * worth) + rest, 10 * worth, rest),
                        Phrase($"Ten {name} are exchanged for one {Single(step.Kind + 1)}."),
                        picture
                    );
                }

                Join(s, workings, lying[step.Kind + 1] * worth * 10, worth * 10, picture);
            }
            else
            {
                Join(s, workings, lying[step.Kind] * worth, other[step.Kind] * worth, picture);
            }

            lying = step.After;
        }

        Together(s, workings, lying);
        return Worked(s, workings, (s.A % 10) + (s.B % 10) > 9 ? "strategy.make-ten" : "join.fluent-10");

        // What of the other number is still to be worked lies there as well.
        PlaceValue Plus(PlaceValue after, PlaceValue b, NumberKind done) =>
            new(after.Hundreds + (done < NumberKind.Hundreds ? b.Hundreds : 0), after.Tens + (done < NumberKind.Tens ? b.Tens : 0), after.Ones);
    }

    public static WorkedStrategy? TakeAway(Sum s)
    {
        if (s.A <= 20 || s.B == 0 || s.B == s.A || (s.B < 10 && s.B >= s.A % 10))
        {
            return null;
        }

        var lying = PlaceValue.Of(s.A);
        var other = PlaceValue.Of(s.B);
        var start = PlaceValues.Blocks(lying);
        var workings = s.Begin($"{Words.Capital(s.InKinds(lying))}. {s.Take} {s.InKinds(other)}.", start);
        TakeApart(s, workings, s.A, start);
        TakeApart(s, workings, s.B, start);
        foreach (var step in KindByKind.TakeAway(s.A, s.B))
        {
            var worth = PlaceValue.Worth(step.Kind);
            var picture = PlaceValues.Blocks(step.After);
            if (step.Move == KindMove.Break)
            {
                var (whole, below) = (lying[step.Kind] * worth, worth / 10);
                if (whole > worth)
                {
                    workings.Then(
                        new Thought.Split(whole, whole - worth, worth),
                        Phrase($"One {Single(step.Kind)} is exchanged for ten {NameOf(step.Kind - 1, s)}."),
                        picture
                    );
                }

                Join(s, workings, lying[step.Kind - 1] * below, worth, picture);
            }
            else
            {
                var fact = Minus(lying[step.Kind] * worth, other[step.Kind] * worth);
                workings.Then(new Thought.Know(fact), $"{fact}.", picture);
            }

            lying = step.After;
        }

        Together(s, workings, lying);
        return Worked(s, workings, s.B % 10 > s.A % 10 ? "strategy.back-through-ten" : "take.fluent-10");
    }

    private static WorkedStrategy Worked(Sum s, Workings workings, string digits) =>
        s.Worked(
            StrategyKind.KindByKind,
            Phrase("Tens are worked with tens, ones with ones.").Replace("ones", s.Approach.Words.OnesName, StringComparison.Ordinal),
            workings,
            FactKinds.SingleDigits | FactKinds.WholeTens | FactKinds.TenAndSome | FactKinds.Zero,
            ["place.expand-two", digits]
        );

    private static void TakeApart(Sum s, Workings workings, int number, Picture picture)
    {
        var parts = PlaceValue.Of(number).Expanded();
        for (var i = 0; i + 1 < parts.Count; i++)
        {
            var rest = parts.Skip(i + 1).Sum();
            workings.Then(new Thought.Split(parts[i] + rest, parts[i], rest), Phrase($"{parts[i] + rest} is {parts[i]} and {rest}."), picture);
        }
    }

    private static void Join(Sum s, Workings workings, int first, int second, Picture picture)
    {
        if (first > 0 && second > 0)
        {
            var fact = Sum.Plus(first, second);
            workings.Then(new Thought.Know(fact), $"{fact}.", picture);
        }
    }

    // The kinds that now lie there, from the largest on.
    private static void Together(Sum s, Workings workings, PlaceValue lying)
    {
        var parts = lying.Expanded();
        for (var i = 1; i < parts.Count; i++)
        {
            Join(s, workings, parts.Take(i).Sum(), parts[i], PlaceValues.Blocks(lying));
        }
    }

    private static string NameOf(NumberKind kind, Sum s) =>
        kind switch
        {
            NumberKind.Ones => s.Approach.Words.OnesName,
            NumberKind.Tens => Phrase("tens"),
            _ => Phrase("hundreds"),
        };

    private static string Single(NumberKind kind) => kind == NumberKind.Tens ? Phrase("ten") : Phrase("hundred");
}
