using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using static Fobble.Core.Numbers.NumberWords;
using static Fobble.Core.Strategies.Sum;

namespace Fobble.Core.Strategies;

/// <summary>The strategies for a + b, each of which knows whether it fits (rule R3).</summary>
internal static class Adding
{
    public static IReadOnlyList<Func<Sum, WorkedStrategy?>> All { get; } =
    [
        ZeroFact,
        CountAll,
        CountOnFromFirst,
        CountOnFromLarger,
        Doubles,
        BondOfTen,
        TenAndSome,
        KnownByHeart,
        NearDoubles,
        DoubleBetween,
        FiveAsAnchor,
        PlusNine,
        MakeTen,
        SplitTeen,
        JumpingInTens.Add,
        WorkingKindByKind.Add,
    ];

    private static WorkedStrategy? ZeroFact(Sum s) =>
        s.Smaller != 0
            ? null
            : s.Worked(
                StrategyKind.ZeroFact,
                Phrase("One of the amounts is nothing."),
                s.Begin(Phrase($"{Capitalised(s.Larger)}, and nothing beside it."), Held(s))
                    .Then(new Thought.Know(Plus(s.A, s.B)), Phrase($"It stays {Of(s.Larger)}."), Held(s)),
                FactKinds.Zero,
                SkillNeeds.Zero(s.Larger)
            );

    private static WorkedStrategy? CountAll(Sum s)
    {
        if (s.Smaller == 0 || !s.Lies)
        {
            return null;
        }

        var table = s.A <= 10 && s.B <= 10 ? s.Table().Put(s.A, 0).Put(s.B, 1, "b") : s.Table(3).Fill(s.A).Fill(s.B, s.A <= 10 ? 1 : 2, "b");
        var words = s.Result <= 4 ? string.Join(", ", Enumerable.Range(1, s.Result).Select(Of)) : Phrase($"one, two, three … {Of(s.Result)}");
        return s.Worked(
            StrategyKind.CountAll,
            Phrase("It always works; it takes long."),
            s.Begin(Phrase($"{Capitalised(s.A)} here, {Of(s.B)} there."), table.Picture())
                .Then(new Thought.CountAll(s.Result), Phrase($"Count all of them: {words}."), table.Picture()),
            FactKinds.None,
            [s.Result <= 10 ? "count.how-many-10" : "count.touch-20"]
        );
    }

    private static WorkedStrategy? CountOnFromFirst(Sum s) =>
        s.A == 0 || s.B is 0 or > 9
            ? null
            : s.Worked(
                StrategyKind.CountOnFromFirst,
                Phrase($"{Capitalised(s.B)} more to say after {Of(s.A)}."),
                CountOn(s, s.Begin(Phrase($"{Capitalised(s.A)} is in the head already."), s.Path(s.A, [])), s.A, s.B),
                FactKinds.None,
                SkillNeeds.CountingOn(s.Result)
            );

    private static WorkedStrategy? CountOnFromLarger(Sum s)
    {
        if (s.B <= s.A || s.A is 0 or > 9)
        {
            return null;
        }

        var workings = s.Begin($"{s.A} + {s.B}", s.Path(s.A, []))
            .Then(new Thought.TurnRound(), Phrase($"The order does not matter: begin at {Of(s.B)}."), s.Path(s.B, []));
        return s.Worked(
            StrategyKind.CountOnFromLarger,
            Phrase($"{Capitalised(s.B)} is the larger: only {Of(s.A)} more to say."),
            CountOn(s, workings, s.B, s.A),
            FactKinds.None,
            [
                .. SkillNeeds.CountingOn(s.Result),
                s.Larger <= 10 ? "compare.numerals-10"
                : s.Larger <= 20 ? "numeral.order-20"
                : "compare.two-digit",
            ]
        );
    }

    private static Workings CountOn(Sum s, Workings workings, int from, int words)
    {
        List<Hop> hops = [];
        for (var at = from; at < from + words; at++)
        {
            hops.Add(new(at, at + 1, "+1"));
            workings.Then(new Thought.CountOne(at, Back: false), $"{Capitalised(at + 1)}{(at + 1 == from + words ? "." : " …")}", s.Path(from, hops));
        }

        return workings;
    }

    private static WorkedStrategy? Doubles(Sum s) =>
        s.A != s.B || s.A is 0 or > 10
            ? null
            : s.Worked(
                StrategyKind.Doubles,
                Phrase("Both are the same."),
                s.Begin(Phrase($"Two rows of {Of(s.A)}, partner by partner."), Patterns.TwoRows(s.A, s.A))
                    .Then(new Thought.Know(Plus(s.A, s.A)), Phrase($"Double {Of(s.A)} is {Of(s.Result)}."), Patterns.TwoRows(s.A, s.A)),
                FactKinds.Double,
                [SkillNeeds.Double(s.A)]
            );

    private static WorkedStrategy? NearDoubles(Sum s)
    {
        if (s.Larger - s.Smaller != 1 || s.Smaller < 2 || s.Larger > 10)
        {
            return null;
        }

        var (low, rows) = (s.Smaller, Patterns.TwoRows(s.A, s.B));
        return s.Worked(
            StrategyKind.NearDoubles,
            Phrase($"They are one apart: nearly double {Of(low)}."),
            s.Begin(Phrase($"A row of {Of(s.A)} and a row of {Of(s.B)}."), rows)
                .Then(new Thought.Split(s.Larger, low, 1), Phrase($"{Capitalised(s.Larger)} is {Of(low)} and one."), rows)
                .Then(new Thought.Know(Plus(low, low)), Phrase($"Double {Of(low)} is {Of(2 * low)}."), rows)
                .Then(new Thought.Know(Plus(2 * low, 1)), Phrase($"And one more: {Of(s.Result)}."), rows),
            FactKinds.Double | FactKinds.OneMore,
            [SkillNeeds.Double(low), .. SkillNeeds.CountingOn(s.Result)],
            [Plus(low, low)]
        );
    }

    private static WorkedStrategy? DoubleBetween(Sum s)
    {
        if (s.Larger - s.Smaller != 2 || s.Smaller < 2 || s.Larger > 11)
        {
            return null;
        }

        var (between, even) = (s.Smaller + 1, Patterns.TwoRows(s.Smaller + 1, s.Smaller + 1));
        return s.Worked(
            StrategyKind.DoubleBetween,
            Phrase($"They are two apart: {Of(between)} lies between them."),
            s.Begin(Phrase($"A row of {Of(s.A)} and a row of {Of(s.B)}."), Patterns.TwoRows(s.A, s.B))
                .Then(new Thought.Give(s.Larger, s.Smaller, 1), Phrase($"One goes from the longer row to the other: {Of(between)} and {Of(between)}."), even)
                .Then(new Thought.Know(Plus(between, between)), Phrase($"Double {Of(between)} is {Of(s.Result)}."), even),
            FactKinds.Double,
            [SkillNeeds.Double(between), "compare.same"],
            [Plus(between, between)]
        );
    }

    private static WorkedStrategy? FiveAsAnchor(Sum s)
    {
        if (s.Smaller < 5 || s.Larger > 9 || s.A == s.B)
        {
            return null;
        }

        var (a, b) = (s.A - 5, s.B - 5);
        var apart = s.Table().Put(s.A, 0).Put(s.B, 1, "b").Picture();
        var joined = s.Table().Put(5, 0).Put(5, 0, "b").Put(a, 1).Put(b, 1, "b").Picture();
        var workings = s.Begin(Phrase($"{Capitalised(s.A)} above, {Of(s.B)} below."), apart);
        TakeFive(s.A);
        TakeFive(s.B);
        workings.Then(new Thought.Know(Plus(5, 5)), Phrase("Five and five make ten."), joined);
        if (a > 0 && b > 0)
        {
            workings.Then(new Thought.Know(Plus(a, b)), Phrase($"{Capitalised(a)} and {Of(b)} are {Of(a + b)}."), joined);
        }

        return s.Worked(
            StrategyKind.FiveAsAnchor,
            Phrase("In each of them is a five."),
            workings.Then(new Thought.Know(Plus(10, a + b)), Phrase($"Ten and {Of(a + b)} are {Of(s.Result)}."), joined),
            FactKinds.Double | FactKinds.WithinTen | FactKinds.TenAndSome,
            ["see.ten-frame", "bond.doubles", "place.teen-frames"],
            [Plus(5, 5), .. TenFacts(a + b)]
        );

        void TakeFive(int number)
        {
            if (number > 5)
            {
                workings.Then(new Thought.Split(number, 5, number - 5), Phrase($"{Capitalised(number)} is five and {Of(number - 5)}."), apart);
            }
        }
    }

    private static WorkedStrategy? KnownByHeart(Sum s)
    {
        if (s.Smaller == 0 || s.Result > 10)
        {
            return null;
        }

        var frame = s.Table(1).Put(s.A, 0).Put(s.B, 0, "b").Picture();
        return s.Worked(
            StrategyKind.KnownByHeart,
            Phrase($"Sums to {(s.Result <= 5 ? "five" : "ten")} come by heart in the end."),
            s.Begin(Phrase($"{Capitalised(s.A)} and {Of(s.B)}."), frame)
                .Then(new Thought.Know(Plus(s.A, s.B)), Phrase($"{Capitalised(s.A)} and {Of(s.B)} are {Of(s.Result)}."), frame),
            FactKinds.WithinTen,
            [SkillNeeds.Fluent(Operation.Add, s.Result)]
        );
    }

    private static WorkedStrategy? BondOfTen(Sum s)
    {
        if (s.Smaller == 0 || (s.A % 10) + (s.B % 10) != 10 || s.Smaller > 9)
        {
            return null;
        }

        var ones = s.Larger % 10;
        var tens = s.Larger - ones;
        if (tens == 0)
        {
            var frames = s.Table().Put(s.A, 0).Put(s.B, 1, "b");
            return s.Worked(
                StrategyKind.BondOfTen,
                Phrase("The two are parts of ten."),
                s.Begin(Phrase($"{Capitalised(s.A)} on one frame, {Of(s.B)} on the other."), frames.Picture())
                    .Then(
                        new Thought.Know(Plus(s.A, s.B)),
                        Phrase($"{Capitalised(s.B)} {(s.B == 1 ? "fits the empty place" : "fit the empty places")}: one full frame."),
                        frames.Slide(s.B, 1, 0).Picture()
                    ),
                FactKinds.BondOfTen,
                ["bond.recall-10"]
            );
        }

        var (before, after) = Beside(s, ones);
        return s.Worked(
            StrategyKind.BondOfTen,
            Phrase($"{Capitalised(ones)} and {Of(s.Smaller)} are a bond of ten."),
            s.Begin(Phrase($"{Capitalised(s.Larger)} and {Of(s.Smaller)}."), before)
                .Then(new Thought.Split(s.Larger, tens, ones), Phrase($"{Capitalised(s.Larger)} is {Of(tens)} and {Of(ones)}."), before)
                .Then(new Thought.Know(Plus(ones, s.Smaller)), Phrase($"{Capitalised(ones)} and {Of(s.Smaller)} make ten."), after)
                .Then(new Thought.Know(Plus(tens, 10)), Phrase($"{Capitalised(tens)} and ten are {Of(s.Result)}."), after),
            FactKinds.BondOfTen | FactKinds.WholeTens,
            ["bond.recall-10", SkillNeeds.TensAndSome(s.Larger)],
            [Plus(ones, s.Smaller)]
        );
    }

    private static WorkedStrategy? TenAndSome(Sum s)
    {
        var (tens, some) = s.A >= 10 && s.A % 10 == 0 ? (s.A, s.B) : (s.B, s.A);
        if (tens < 10 || tens % 10 != 0 || some is 0 or > 10)
        {
            return null;
        }

        var picture = s.Lies ? s.Table().Put(10, 0).Put(some, 1, "b").Picture() : PlaceValues.Blocks(new(0, tens / 10, some), new(0, tens / 10, 0));
        return s.Worked(
            StrategyKind.TenAndSome,
            Phrase($"{Capitalised(tens)} is {(tens == 10 ? "one full frame" : "full tens")} already."),
            s.Begin(Phrase($"{Capitalised(tens)}, and {Of(some)} beside it."), picture)
                .Then(new Thought.Know(Plus(s.A, s.B)), Phrase($"{Capitalised(tens)} and {Of(some)} are {Of(s.Result)}."), picture),
            FactKinds.TenAndSome,
            [SkillNeeds.TensAndSome(s.Result)]
        );
    }

    private static WorkedStrategy? PlusNine(Sum s)
    {
        var other = s.B == 9 ? s.A : s.B;
        if ((s.A != 9 && s.B != 9) || other < 2 || other % 10 == 0 || (other > 10 && s.Lies))
        {
            return null;
        }

        var (more, less) = (Sum.Plus(other, 10), Minus(other + 10, 1));
        Picture[] pictures;
        if (s.Lies)
        {
            var nine = s.B == 9 ? 1 : 0;
            var table = s.Table().Put(s.A, 0).Put(s.B, 1, "b");
            pictures = [table.Picture(), table.Put(1, nine, nine == 0 ? "a" : "b").Picture(), table.CrossOut(1, nine).Picture()];
        }
        else
        {
            Hop ten = new(other, other + 10, "+10");
            pictures = [s.Path(other, []), s.Path(other, [ten]), s.Path(other, [ten, new(other + 10, s.Result, "−1")])];
        }

        return s.Worked(
            StrategyKind.PlusNine,
            Phrase("Nine is one less than ten, and ten is easy to add."),
            s.Begin(Phrase($"{Capitalised(s.A)} and {Of(s.B)}."), pictures[0])
                .Then(new Thought.Round(9, 10), Phrase("Ten instead of nine: that is one too many."), pictures[1])
                .Then(new Thought.Know(s.B == 9 ? more : Sum.Plus(10, other)), Phrase($"{Capitalised(other)} and ten are {Of(other + 10)}."), pictures[1])
                .Then(new Thought.Know(less), Phrase($"One less: {Of(s.Result)}."), pictures[2]),
            FactKinds.TenAndSome | FactKinds.WholeTens | FactKinds.OneMore,
            other < 10 ? ["place.teen-frames", "count.back-20"] : ["place.ten-more", "count.back-100"],
            [more, less]
        );
    }

    private static WorkedStrategy? MakeTen(Sum s)
    {
        var (near, other) = s.A >= s.B ? (s.A, s.B) : (s.B, s.A);
        if (near % 10 == 0 || other > 9 || (near % 10) + other <= 10 || (near > 10 && s.Lies))
        {
            return null;
        }

        var ten = Rounding.UpToTen(near);
        var (need, rest) = (ten - near, other - (ten - near));
        var (start, moved) = OnTable(s, near, need, rest);
        return s.Worked(
            StrategyKind.MakeTen,
            Phrase($"{Capitalised(near)} is {Of(need)} short of {Of(ten)}."),
            s.Begin(
                    $"{Capitalised(s.A)} {(s.Lies ? "above" : "and")}, {Of(s.B)}{(s.Lies ? " below" : "")}.".Replace(" and,", " and", StringComparison.Ordinal),
                    start
                )
                .Then(
                    new Thought.Split(other, need, rest),
                    Phrase($"{Capitalised(near)} is {Of(need)} short of {Of(ten)}. {Capitalised(other)} is {Of(need)} and {Of(rest)}."),
                    start
                )
                .Then(
                    new Thought.Know(Plus(near, need)),
                    Phrase($"{Capitalised(need)} {(need == 1 ? "moves" : "move")} over: {Of(near)} and {Of(need)} make {Of(ten)}."),
                    moved[0]
                )
                .Then(new Thought.Know(Plus(ten, rest)), Phrase($"{Capitalised(ten)} and {Of(rest)} are {Of(s.Result)}."), moved[1]),
            FactKinds.BondOfTen | FactKinds.TenAndSome | FactKinds.WithinTen,
            ["bond.recall-10", SkillNeeds.TensAndSome(s.Result)],
            ten == 10 ? TenFacts(rest) : []
        );
    }

    private static WorkedStrategy? SplitTeen(Sum s)
    {
        var (teen, ones, other) = (s.Larger, s.Larger % 10, s.Smaller);
        if (teen is < 11 or > 19 || other == 0 || other > 9 || ones + other > 9)
        {
            return null;
        }

        var (before, after) = Beside(s, ones);
        return s.Worked(
            StrategyKind.SplitTeen,
            Phrase($"{Capitalised(teen)} is ten and {Of(ones)}; the ten stays as it is."),
            s.Begin(Phrase($"{Capitalised(teen)} and {Of(other)}."), before)
                .Then(new Thought.Split(teen, 10, ones), Phrase($"{Capitalised(teen)} is ten and {Of(ones)}."), before)
                .Then(new Thought.Know(Plus(ones, other)), Phrase($"{Capitalised(ones)} and {Of(other)} are {Of(ones + other)}."), after)
                .Then(new Thought.Know(Plus(10, ones + other)), Phrase($"Ten and {Of(ones + other)} are {Of(s.Result)}."), after),
            FactKinds.WithinTen | FactKinds.TenAndSome,
            ["place.teen-sentence"],
            [Plus(ones, other), .. TenFacts(ones + other)]
        );
    }

    private static IReadOnlyList<NumberSentence> TenFacts(int rest) => [Plus(10, rest), Plus(rest, 10)];

    // The larger amount over its frames, the smaller one beside it, and then moved to where the ones lie.
    private static (Picture Before, Picture After) Beside(Sum s, int ones)
    {
        if (!s.Lies)
        {
            var blocks = PlaceValues.Blocks(new(0, s.Larger / 10, ones + s.Smaller), new(0, s.Larger / 10, ones));
            return (blocks, blocks);
        }

        var table = s.Table(3).Fill(s.Larger).Put(s.Smaller, 2, "b");
        return (table.Picture(), table.Slide(s.Smaller, 2, 1).Picture());
    }

    private static (Picture Start, IReadOnlyList<Picture> Moved) OnTable(Sum s, int near, int need, int rest)
    {
        if (!s.Lies)
        {
            Hop first = new(near, near + need, $"+{need}");
            Hop second = new(near + need, near + need + rest, $"+{rest}");
            return (s.Path(near, []), [s.Path(near, [first]), s.Path(near, [first, second])]);
        }

        var table = s.Table().Put(s.A, 0).Put(s.B, 1, "b");
        var start = table.Picture();
        var slid = s.A >= s.B ? table.Slide(need, 1, 0).Picture() : table.Slide(need, 0, 1).Picture();
        return (start, [slid, slid]);
    }

    private static Picture Held(Sum s) => s.Lies ? s.Table().Fill(s.Larger, 0, s.A >= s.B ? "a" : "b").Picture() : PlaceValues.Blocks(PlaceValue.Of(s.Larger));
}
