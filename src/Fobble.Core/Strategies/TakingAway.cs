using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using static Fobble.Core.Numbers.NumberWords;
using static Fobble.Core.Strategies.Sum;

namespace Fobble.Core.Strategies;

/// <summary>The strategies for a − b, each of which knows whether it fits (rule R3).</summary>
internal static class TakingAway
{
    public static IReadOnlyList<Func<Sum, WorkedStrategy?>> All { get; } =
    [
        ZeroFact,
        CountAll,
        CountBack,
        CountUp,
        CompareByMatching,
        Doubles,
        BondOfTen,
        TenAndSome,
        KnownByHeart,
        MinusNine,
        SplitTeen,
        TakeFromTen,
        BackThroughTen,
        ThinkAddition,
        JumpingInTens.TakeAway,
        WorkingKindByKind.TakeAway,
    ];

    private static WorkedStrategy? ZeroFact(Sum s)
    {
        if (s.B != 0 && s.B != s.A)
        {
            return null;
        }

        var start = s.Lies ? s.Table().Fill(s.A).Picture() : PlaceValues.Blocks(PlaceValue.Of(s.A));
        var end =
            s.B == 0 ? start
            : s.Lies ? s.Table().Fill(s.A).CrossOut(s.A).Picture()
            : PlaceValues.Blocks(PlaceValue.Of(0));
        return s.Worked(
            StrategyKind.ZeroFact,
            s.B == 0 ? Phrase("Nothing is taken.") : Phrase("All of it is taken."),
            s.Begin(Phrase($"{Capitalised(s.A)} {(s.A == 1 ? "lies" : "lie")} there."), start)
                .Then(new Thought.Know(Minus(s.A, s.B)), s.B == 0 ? Phrase($"Nothing goes: it stays {Of(s.A)}.") : Phrase("All go: none is left."), end),
            FactKinds.Zero,
            SkillNeeds.Zero(s.A)
        );
    }

    private static WorkedStrategy? CountAll(Sum s)
    {
        if (s.B == 0 || !s.Lies)
        {
            return null;
        }

        var table = s.Table().Fill(s.A);
        var start = table.Picture();
        var end = table.CrossOut(s.B).Picture();
        return s.Worked(
            StrategyKind.CountAll,
            Phrase("It always works; it takes long."),
            s.Begin(Phrase($"Lay out {Of(s.A)}."), start)
                .Then(new Thought.CountAll(s.A), Phrase($"Cross out {Of(s.B)} and count what is left: {Of(s.Result)}."), end),
            FactKinds.None,
            [s.A <= 10 ? "count.give-10" : "count.touch-20"]
        );
    }

    private static WorkedStrategy? CountBack(Sum s)
    {
        if (s.B is 0 or > 3 || s.B > s.A)
        {
            return null;
        }

        var workings = s.Begin(Phrase($"Begin at {Of(s.A)}."), s.Path(s.A, []));
        List<Hop> hops = [];
        for (var at = s.A; at > s.Result; at--)
        {
            hops.Add(new(at, at - 1, "−1"));
            workings.Then(new Thought.CountOne(at, Back: true), $"{Capitalised(at - 1)}{(at - 1 == s.Result ? "." : " …")}", s.Path(s.A, hops));
        }

        return s.Worked(
            StrategyKind.CountBack,
            Phrase($"Only {Of(s.B)} to take: so many words back."),
            workings,
            FactKinds.None,
            [
                s.A <= 10 ? "count.back-10"
                : s.A <= 20 ? "count.back-20"
                : "count.back-100",
            ]
        );
    }

    private static WorkedStrategy? CountUp(Sum s)
    {
        if (s.Result is 0 or > 3 || s.B <= 3)
        {
            return null;
        }

        var hops = Enumerable.Range(s.B, s.Result).Select(n => new Hop(n, n + 1, "+1")).ToList();
        var words = string.Join(", ", hops.Select(h => Of(h.To)));
        return s.Worked(
            StrategyKind.CountUp,
            Phrase($"{Capitalised(s.B)} and {Of(s.A)} lie close together."),
            s.Begin(Phrase($"How far is it from {Of(s.B)} to {Of(s.A)}?"), s.Path(s.B, []))
                .Then(
                    new Thought.CountUp(s.B, s.A),
                    $"{char.ToUpperInvariant(words[0])}{words[1..]}: {Of(s.Result)} {(s.Result == 1 ? "word" : "words")}.",
                    s.Path(s.B, hops)
                ),
            FactKinds.None,
            [.. SkillNeeds.CountingOn(s.A), "compare.how-many-more"]
        );
    }

    private static WorkedStrategy? CompareByMatching(Sum s)
    {
        if (s.B == 0 || !s.Lies)
        {
            return null;
        }

        var rows = Patterns.TwoRows(s.A, s.B);
        return s.Worked(
            StrategyKind.CompareByMatching,
            Phrase("How many more the one has than the other."),
            s.Begin(Phrase($"A row of {Of(s.A)} above a row of {Of(s.B)}."), rows)
                .Then(
                    new Thought.Match(s.A, s.B),
                    s.Result == 0
                        ? Phrase("Everyone has a partner: no difference.")
                        : Phrase($"{Capitalised(s.B)} {(s.B == 1 ? "has" : "have")} a partner; {Of(s.Result)} {(s.Result == 1 ? "has" : "have")} none."),
                    rows
                ),
            FactKinds.None,
            ["compare.match-up"]
        );
    }

    private static WorkedStrategy? Doubles(Sum s) =>
        s.A != 2 * s.B || s.B is 0 or > 10
            ? null
            : s.Worked(
                StrategyKind.Doubles,
                Phrase($"{Capitalised(s.A)} is double {Of(s.B)}."),
                s.Begin(Phrase($"{Capitalised(s.A)} in two rows."), Patterns.TwoRows(s.B, s.B))
                    .Then(
                        new Thought.FindMissing(Plus(s.B, s.B)),
                        Phrase($"Double {Of(s.B)} is {Of(s.A)}, so {Of(s.B)} {(s.B == 1 ? "is" : "are")} left."),
                        Patterns.TwoRows(s.B, s.B)
                    ),
                FactKinds.Double,
                [SkillNeeds.Double(s.B)]
            );

    private static WorkedStrategy? BondOfTen(Sum s)
    {
        if (s.A < 10 || s.A % 10 != 0 || s.B is 0 or > 9)
        {
            return null;
        }

        var left = 10 - s.B;
        var table = s.Table().Fill(s.Lies ? s.A : 0);
        var start = s.Lies ? table.Picture() : PlaceValues.Blocks(PlaceValue.Of(s.A));
        var end = s.Lies ? table.CrossOut(s.B).Picture() : PlaceValues.Blocks(new(0, (s.A / 10) - 1, left));
        var workings = s.Begin($"{Capitalised(s.A)}: {(s.A == 10 ? Phrase("one full frame") : Phrase("full tens"))}.", start);
        if (s.A == 10)
        {
            workings.Then(
                new Thought.FindMissing(Plus(s.B, left)),
                Phrase($"{Capitalised(s.B)} and {Of(left)} make ten, so {Of(left)} {(left == 1 ? "is" : "are")} left."),
                end
            );
        }
        else
        {
            workings
                .Then(new Thought.Split(s.A, s.A - 10, 10), Phrase($"{Capitalised(s.A)} is {Of(s.A - 10)} and ten."), start)
                .Then(new Thought.Know(Minus(10, s.B)), Phrase($"{Capitalised(s.B)} from ten leaves {Of(left)}."), end)
                .Then(new Thought.Know(Plus(s.A - 10, left)), Phrase($"{Capitalised(s.A - 10)} and {Of(left)} are {Of(s.Result)}."), end);
        }

        return s.Worked(
            StrategyKind.BondOfTen,
            Phrase($"{Capitalised(s.B)} and {Of(left)} are a bond of ten."),
            workings,
            FactKinds.BondOfTen | FactKinds.TenAndSome,
            s.A == 10 ? ["bond.recall-10"] : ["bond.recall-10", SkillNeeds.TensAndSome(s.A)]
        );
    }

    private static WorkedStrategy? TenAndSome(Sum s)
    {
        var ones = s.A % 10;
        if (s.A < 11 || ones == 0 || (s.B != ones && s.B != s.A - ones))
        {
            return null;
        }

        var table = s.Table().Fill(s.Lies ? s.A : 0);
        var start = s.Lies ? table.Picture() : PlaceValues.Blocks(PlaceValue.Of(s.A));
        var end =
            !s.Lies ? PlaceValues.Blocks(PlaceValue.Of(s.Result))
            : s.B == ones ? table.CrossOut(ones).Picture()
            : s.Table().Put(ones, 1).Picture();
        return s.Worked(
            StrategyKind.TenAndSome,
            Phrase($"{Capitalised(s.A)} is {Of(s.A - ones)} and {Of(ones)}."),
            s.Begin(Phrase($"{Capitalised(s.A)} is {Of(s.A - ones)} and {Of(ones)}."), start)
                .Then(new Thought.Know(Minus(s.A, s.B)), Phrase($"{s.Take} the {Of(s.B)}: {Of(s.Result)} {(s.Result == 1 ? "stays" : "stay")}."), end),
            FactKinds.TenAndSome,
            [SkillNeeds.TensAndSome(s.A)]
        );
    }

    private static WorkedStrategy? KnownByHeart(Sum s)
    {
        if (s.B == 0 || s.Result == 0 || s.A > 10)
        {
            return null;
        }

        var table = s.Table(1).Put(s.A, 0);
        return s.Worked(
            StrategyKind.KnownByHeart,
            Phrase($"Taking from numbers to {(s.A <= 5 ? "five" : "ten")} comes by heart in the end."),
            s.Begin(Phrase($"{Capitalised(s.A)}, and {Of(s.B)} to go."), table.Picture())
                .Then(new Thought.Know(Minus(s.A, s.B)), Phrase($"{Capitalised(s.B)} from {Of(s.A)} leaves {Of(s.Result)}."), table.CrossOut(s.B).Picture()),
            FactKinds.WithinTen,
            [SkillNeeds.Fluent(Operation.TakeAway, s.A)]
        );
    }

    private static WorkedStrategy? MinusNine(Sum s)
    {
        if (s.B != 9 || s.A < 11 || s.A % 10 == 9)
        {
            return null;
        }

        Hop ten = new(s.A, s.A - 10, "−10");
        var (start, taken) = (s.Path(s.A, []), s.Path(s.A, [ten]));
        return s.Worked(
            StrategyKind.MinusNine,
            Phrase("Nine is one less than ten, and ten is easy to take."),
            s.Begin(Phrase($"Begin at {Of(s.A)}."), start)
                .Then(new Thought.Round(9, 10), Phrase("Ten instead of nine: that is one too many to go."), start)
                .Then(new Thought.Know(Minus(s.A, 10)), Phrase($"Ten from {Of(s.A)} leaves {Of(s.A - 10)}."), taken)
                .Then(new Thought.Know(Plus(s.A - 10, 1)), Phrase($"One comes back: {Of(s.Result)}."), s.Path(s.A, [ten, new(s.A - 10, s.Result, "+1")])),
            FactKinds.TenAndSome | FactKinds.WholeTens | FactKinds.OneMore,
            s.A <= 20 ? ["place.teen-frames", .. SkillNeeds.CountingOn(s.Result)] : ["place.ten-more", .. SkillNeeds.CountingOn(s.Result)],
            [Minus(s.A, 10)]
        );
    }

    private static WorkedStrategy? SplitTeen(Sum s)
    {
        var ones = s.A % 10;
        if (s.A is < 11 or > 19 || s.B == 0 || s.B >= ones)
        {
            return null;
        }

        var table = s.Table().Fill(s.A);
        var start = table.Picture();
        var end = table.CrossOut(s.B).Picture();
        return s.Worked(
            StrategyKind.SplitTeen,
            Phrase($"{Capitalised(s.A)} is ten and {Of(ones)}; the ten stays as it is."),
            s.Begin(Phrase($"{Capitalised(s.A)} on two frames."), start)
                .Then(new Thought.Split(s.A, 10, ones), Phrase($"{Capitalised(s.A)} is ten and {Of(ones)}."), start)
                .Then(new Thought.Know(Minus(ones, s.B)), Phrase($"{Capitalised(s.B)} from {Of(ones)} leaves {Of(ones - s.B)}."), end)
                .Then(new Thought.Know(Plus(10, ones - s.B)), Phrase($"Ten and {Of(ones - s.B)} are {Of(s.Result)}."), end),
            FactKinds.WithinTen | FactKinds.TenAndSome,
            ["place.teen-sentence"]
        );
    }

    private static WorkedStrategy? TakeFromTen(Sum s)
    {
        var ones = s.A % 10;
        if (s.A is < 11 or > 19 || s.B <= ones || s.B > 9)
        {
            return null;
        }

        var left = 10 - s.B;
        var table = s.Table().Fill(s.A);
        var start = table.Picture();
        var end = table.CrossOut(s.B, frame: 0).Picture();
        return s.Worked(
            StrategyKind.TakeFromTen,
            Phrase($"{Capitalised(s.A)} has a ten to take {Of(s.B)} from."),
            s.Begin(Phrase($"{Capitalised(s.A)} on two frames."), start)
                .Then(new Thought.Split(s.A, 10, ones), Phrase($"{Capitalised(s.A)} is ten and {Of(ones)}."), start)
                .Then(new Thought.Know(Minus(10, s.B)), Phrase($"{Capitalised(s.B)} from ten leaves {Of(left)}."), end)
                .Then(new Thought.Know(Plus(left, ones)), Phrase($"{Capitalised(left)} and {Of(ones)} are {Of(s.Result)}."), end),
            FactKinds.BondOfTen | FactKinds.WithinTen,
            ["bond.recall-10", "place.teen-frames"],
            [Minus(10, s.B), Plus(left, ones)]
        );
    }

    private static WorkedStrategy? BackThroughTen(Sum s)
    {
        var ones = s.A % 10;
        if (s.A < 11 || ones == 0 || s.B <= ones || s.B > 9)
        {
            return null;
        }

        var (ten, rest) = (s.A - ones, s.B - ones);
        Picture[] pictures;
        if (s.Lies)
        {
            var table = s.Table().Fill(s.A);
            pictures = [table.Picture(), table.CrossOut(ones).Picture(), table.CrossOut(rest).Picture()];
        }
        else
        {
            Hop first = new(s.A, ten, $"−{ones}");
            pictures = [s.Path(s.A, []), s.Path(s.A, [first]), s.Path(s.A, [first, new(ten, s.Result, $"−{rest}")])];
        }

        return s.Worked(
            StrategyKind.BackThroughTen,
            Phrase($"{Capitalised(ones)} back is {Of(ten)}, then {Of(rest)} more."),
            s.Begin(Phrase($"Begin at {Of(s.A)}."), pictures[0])
                .Then(new Thought.Split(s.B, ones, rest), Phrase($"{Capitalised(s.B)} is {Of(ones)} and {Of(rest)}."), pictures[0])
                .Then(new Thought.Know(Minus(s.A, ones)), $"{s.Take} {Of(ones)}: {Of(ten)}.", pictures[1])
                .Then(new Thought.Know(Minus(ten, rest)), Phrase($"{s.Take} {Of(rest)} more: {Of(s.Result)}."), pictures[2]),
            FactKinds.TenAndSome | FactKinds.BondOfTen,
            ["bond.recall-10", SkillNeeds.TensAndSome(s.A)]
        );
    }

    private static WorkedStrategy? ThinkAddition(Sum s)
    {
        if (s.B is 0 or 10 || s.B >= s.A || !s.Lies || (s.A > 10 && s.B < 10 && s.A == 20))
        {
            return null;
        }

        var begin = Phrase($"{Capitalised(s.B)} and how many make {Of(s.A)}?");
        if (s.A <= 10)
        {
            return s.Worked(
                StrategyKind.ThinkAddition,
                Phrase($"{Capitalised(s.B)} and what make {Of(s.A)}: a bond that is known."),
                s.Begin(begin, Things.Bond(s.A, s.B, null))
                    .Then(
                        new Thought.FindMissing(Plus(s.B, s.Result)),
                        Phrase($"{Capitalised(s.B)} and {Of(s.Result)} make {Of(s.A)}."),
                        Things.Bond(s.A, s.B, s.Result)
                    ),
                FactKinds.WithinTen,
                [s.A <= 5 ? "bond.recall-5" : "bond.recall-10"]
            );
        }

        var (ones, table) = (s.A - 10, s.Table());
        if (s.B < 10)
        {
            var gap = 10 - s.B;
            return s.Worked(
                StrategyKind.ThinkAddition,
                Phrase("Build up over ten instead of taking away."),
                s.Begin(begin, table.Put(s.B, 0).Picture())
                    .Then(new Thought.Split(s.A, 10, ones), Phrase($"First to ten, then {Of(ones)} more."), table.Picture())
                    .Then(new Thought.FindMissing(Plus(s.B, gap)), Phrase($"{Capitalised(s.B)} and {Of(gap)} make ten."), table.Put(gap, 0, "b").Picture())
                    .Then(
                        new Thought.Know(Plus(gap, ones)),
                        Phrase($"{Capitalised(gap)} and {Of(ones)} were put to it: {Of(s.Result)}."),
                        table.Put(ones, 1, "b").Picture()
                    ),
                FactKinds.BondOfTen | FactKinds.SingleDigits,
                ["bond.recall-10", "place.teen-frames"],
                [Plus(s.B, gap)]
            );
        }

        var onesOfB = s.B - 10;
        return s.Worked(
            StrategyKind.ThinkAddition,
            Phrase($"Both are ten and some: {Of(onesOfB)} and what make {Of(ones)}?"),
            s.Begin(begin, table.Fill(s.B).Picture())
                .Then(new Thought.Split(s.A, 10, ones), Phrase($"{Capitalised(s.A)} is ten and {Of(ones)}."), table.Picture())
                .Then(new Thought.Split(s.B, 10, onesOfB), Phrase($"{Capitalised(s.B)} is ten and {Of(onesOfB)}."), table.Picture())
                .Then(new Thought.Know(Minus(10, 10)), Phrase("The tens are the same."), table.Picture())
                .Then(
                    new Thought.FindMissing(Plus(onesOfB, s.Result)),
                    Phrase($"{Capitalised(onesOfB)} and {Of(s.Result)} make {Of(ones)}."),
                    table.Put(s.Result, 1, "b").Picture()
                ),
            FactKinds.WithinTen | FactKinds.Zero,
            ["place.teen-sentence", "bond.recall-10"]
        );
    }
}
