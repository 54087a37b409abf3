using Fobble.Core.Approaches;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Core.Skills;
using Fobble.Core.Strategies;

namespace Fobble.Core.Tests.Strategies;

/// <summary>Rule R3. The single cases are common practice; the properties run over every sum to 20 and a seventh of all two-digit ones.</summary>
public class AdviserTests
{
    private static readonly ShapeRole[] Counters = [ShapeRole.CounterA, ShapeRole.CounterB];

    public static TheoryData<Operation, int> Ranges =>
        new()
        {
            { Operation.Add, 20 },
            { Operation.TakeAway, 20 },
            { Operation.Add, Adviser.Largest },
            { Operation.TakeAway, Adviser.Largest },
        };

    [Theory]
    [MemberData(nameof(Ranges))]
    public void Every_strategy_of_every_sum_carried_out_again_ends_at_the_answer(Operation operation, int largest) =>
        ForAll(operation, largest, (a, b, worked) =>
        {
            var answer = operation == Operation.Add ? a + b : a - b;
            worked.ShouldNotBeEmpty($"{a} {operation} {b}");
            foreach (var strategy in worked)
            {
                var terms = Terms.Of(a, operation, b);
                foreach (var step in strategy.Steps)
                {
                    terms = terms.After(step.Thought);
                    terms.Sum.ShouldBe(answer);
                    step.Line.ShouldBe(terms.ToString());
                }

                terms.Amounts.ShouldBe([answer], $"{strategy.Kind} of {a} {operation} {b}");
                strategy.Answer.ShouldBe(answer);
            }
        });

    [Theory]
    [MemberData(nameof(Ranges))]
    public void No_step_leans_on_a_fact_that_the_strategy_does_not_name(Operation operation, int largest) => ForAll(operation, largest, (a, b, worked) =>
        {
            foreach (var strategy in worked)
            {
                strategy
                    .Steps.Select(s => s.Thought.Fact)
                    .OfType<NumberSentence>()
                    .ShouldAllBe(f => (Facts.KindsOf(f) & strategy.FactsUsed) != FactKinds.None, $"{strategy.Kind} of {a} {operation} {b}");
            }
        });

    [Fact]
    public void Along_a_chain_of_frames_no_counter_is_lost_and_each_keeps_its_name() => ForAll(Operation.Add, 20, (a, b, worked) =>
        {
            foreach (
                var strategy in worked.Where(w =>
                    w.Kind
                        is StrategyKind.MakeTen
                            or StrategyKind.FiveAsAnchor
                            or StrategyKind.CountAll
                            or StrategyKind.BondOfTen
                            or StrategyKind.SplitTeen
                            or StrategyKind.KnownByHeart
                )
            )
            {
                var names = strategy.Steps.Select(s => s.Picture.Shapes.Where(x => Counters.Contains(x.Role)).Select(x => x.Key).Order().ToList()).ToList();
                names.ShouldAllBe(n => n.SequenceEqual(names[0]) && n.Count == a + b);
            }
        });

    [Theory]
    [InlineData(9, 5, 1, "10 + 4")]
    [InlineData(9, 4, 1, "10 + 3")]
    [InlineData(9, 8, 1, "10 + 7")]
    [InlineData(7, 6, 3, "10 + 3")]
    [InlineData(8, 7, 2, "10 + 5")]
    [InlineData(5, 8, 2, "3 + 10")]
    public void Make_ten_moves_what_the_fuller_frame_lacks(int a, int b, int moves, string line)
    {
        var worked = Of(a, Operation.Add, b, StrategyKind.MakeTen);
        ((Thought.Split)worked.Steps[1].Thought).First.ShouldBe(moves);
        worked.Steps[2].Line.ShouldBe(line);
        var before = Places(worked.Steps[1].Picture);
        var after = Places(worked.Steps[2].Picture);
        before.Count(p => after[p.Key] != p.Value).ShouldBe(moves);
    }

    [Fact]
    public void Four_facts_are_read_off_nine_and_five() =>
        Of(9, Operation.Add, 5, StrategyKind.MakeTen).Family.Select(f => $"{f}").ShouldBe(["9 + 5 = 14", "5 + 9 = 14", "10 + 4 = 14", "4 + 10 = 14"]);

    [Fact]
    public void Twelve_and_four_counts_on_and_four_and_twelve_turns_round_first()
    {
        Of(12, Operation.Add, 4, StrategyKind.CountOnFromFirst)
            .Steps.Skip(1)
            .Select(s => s.Says.Trim('.', ' ', '…'))
            .ShouldBe(["Thirteen", "Fourteen", "Fifteen", "Sixteen"]);
        var turned = Of(4, Operation.Add, 12, StrategyKind.CountOnFromLarger);
        turned.Steps[1].Line.ShouldBe("12 + 4");
        turned.MentalSteps.ShouldBe(4);
    }

    [Fact]
    public void Eleven_and_eight_splits_the_teen_and_fourteen_and_six_finds_the_bond_of_ten()
    {
        Of(11, Operation.Add, 8, StrategyKind.SplitTeen).Steps.Select(s => s.Line).ShouldBe(["11 + 8", "10 + 1 + 8", "10 + 9", "19"]);
        Of(14, Operation.Add, 6, StrategyKind.BondOfTen).Steps.Select(s => s.Line).ShouldBe(["14 + 6", "10 + 4 + 6", "10 + 10", "20"]);
    }

    [Theory]
    [InlineData(6, Operation.Add, 9, StrategyKind.PlusNine, "6 + 9; 6 + 10 − 1; 16 − 1; 15")]
    [InlineData(9, Operation.Add, 6, StrategyKind.PlusNine, "9 + 6; 10 − 1 + 6; 16 − 1; 15")]
    [InlineData(46, Operation.Add, 9, StrategyKind.PlusNine, "46 + 9; 46 + 10 − 1; 56 − 1; 55")]
    [InlineData(15, Operation.TakeAway, 9, StrategyKind.MinusNine, "15 − 9; 15 − 10 + 1; 5 + 1; 6")]
    [InlineData(52, Operation.TakeAway, 9, StrategyKind.MinusNine, "52 − 9; 52 − 10 + 1; 42 + 1; 43")]
    [InlineData(52, Operation.TakeAway, 49, StrategyKind.CountUp, "52 − 49; 3")]
    [InlineData(61, Operation.TakeAway, 58, StrategyKind.CountUp, "61 − 58; 3")]
    [InlineData(11, Operation.TakeAway, 9, StrategyKind.CountUp, "11 − 9; 2")]
    [InlineData(13, Operation.TakeAway, 8, StrategyKind.TakeFromTen, "13 − 8; 10 + 3 − 8; 2 + 3; 5")]
    [InlineData(46, Operation.Add, 23, StrategyKind.JumpInTens, "46 + 23; 46 + 20 + 3; 66 + 3; 69")]
    [InlineData(27, Operation.Add, 46, StrategyKind.JumpInTens, "27 + 46; 46 + 27; 46 + 20 + 7; 66 + 7; 66 + 4 + 3; 70 + 3; 73")]
    [InlineData(52, Operation.TakeAway, 27, StrategyKind.JumpInTens, "52 − 27; 52 − 20 − 7; 32 − 7; 32 − 2 − 5; 30 − 5; 25")]
    [InlineData(6, Operation.Add, 7, StrategyKind.FiveAsAnchor, "6 + 7; 5 + 1 + 7; 5 + 1 + 5 + 2; 1 + 2 + 10; 3 + 10; 13")]
    [InlineData(6, Operation.Add, 8, StrategyKind.DoubleBetween, "6 + 8; 7 + 7; 14")]
    [InlineData(6, Operation.Add, 3, StrategyKind.KnownByHeart, "6 + 3; 9")]
    [InlineData(9, Operation.TakeAway, 3, StrategyKind.KnownByHeart, "9 − 3; 6")]
    public void Each_way_goes_the_way_it_is_taught(int a, Operation operation, int b, StrategyKind kind, string lines) =>
        string.Join("; ", Of(a, operation, b, kind).Steps.Select(s => s.Line)).ShouldBe(lines);

    [Fact]
    public void A_small_difference_is_counted_up_and_no_longer_way_is_recommended()
    {
        Adviser.Recommend(Work(11, Operation.TakeAway, 9), null, new HashSet<SkillId>(), SkillMapLoader.Shipped()).Kind.ShouldBe(StrategyKind.CountUp);
        Of(52, Operation.TakeAway, 49, StrategyKind.CountUp).Steps[^1].Says.ShouldBe("Fifty, fifty-one, fifty-two: three words.");
    }

    [Theory]
    [InlineData(Operation.Add)]
    [InlineData(Operation.TakeAway)]
    public void What_is_secure_to_twenty_says_nothing_about_larger_numbers_and_nobody_needs_large_numbers_for_small_sums(Operation operation)
    {
        var map = SkillMapLoader.Shipped();
        ForAll(operation, Adviser.Largest, (a, b, worked) =>
        {
            var largest = Math.Max(a, operation == Operation.Add ? a + b : b);
            foreach (var way in worked)
            {
                var reach = way.Needs.Max(n => map[n].Range.High);
                (largest > 20 ? reach > 20 : way.Needs.All(n => map[n].Range.Low <= 20)).ShouldBeTrue(
                    $"{way.Kind} of {a} {operation} {b} needs {string.Join(", ", way.Needs)}"
                );
            }
        });
    }

    [Fact]
    public void A_double_is_known_as_far_as_doubles_are_secure()
    {
        var map = SkillMapLoader.Shipped();
        HashSet<SkillId> toFive = [new("bond.doubles"), new("count.touch-20"), new("count.from-any-20")];
        Adviser.Recommend(Work(5, Operation.Add, 5), "Zuri A.", toFive, map).Kind.ShouldBe(StrategyKind.Doubles);
        Adviser.Recommend(Work(8, Operation.Add, 8), "Zuri A.", toFive, map).Kind.ShouldBe(StrategyKind.CountOnFromFirst);
        Adviser.Recommend(Work(8, Operation.Add, 8), "Zuri A.", toFive.Append(new("bond.doubles-20")).ToHashSet(), map).Kind.ShouldBe(StrategyKind.Doubles);
        Adviser.Recommend(Work(6, Operation.Add, 7), "Zuri A.", toFive, map).Kind.ShouldNotBe(StrategyKind.NearDoubles);
        Adviser.Recommend(Work(64, Operation.TakeAway, 2), "Zuri A.", new HashSet<SkillId> { new("count.back-20") }, map).Reason.ShouldContain("with help");
    }

    [Fact]
    public void Back_through_ten_and_think_of_the_addition()
    {
        Of(13, Operation.TakeAway, 5, StrategyKind.BackThroughTen).Steps.Select(s => s.Line).ShouldBe(["13 − 5", "13 − 3 − 2", "10 − 2", "8"]);
        Of(13, Operation.TakeAway, 8, StrategyKind.ThinkAddition).Steps[^1].Line.ShouldBe("5");
        Work(9, Operation.TakeAway, 4).Select(w => w.Kind).ShouldNotContain(StrategyKind.CountBack);
        Work(9, Operation.TakeAway, 3).Select(w => w.Kind).ShouldContain(StrategyKind.CountBack);
    }

    [Fact]
    public void Kind_by_kind_exchanges_ten_ones_for_one_ten_in_the_words_of_the_class()
    {
        Of(47, Operation.Add, 38, StrategyKind.KindByKind).Steps.Select(s => s.Says).ShouldContain("Ten ones are exchanged for one ten.");
        var units = Adviser
            .Work(52, Operation.TakeAway, 27, Approach.Usual with { Words = new(Ones: OnesWord.Units) })
            .Single(w => w.Kind == StrategyKind.KindByKind);
        units.Steps.Select(s => s.Says).ShouldContain("One ten is exchanged for ten units.");
        units.Steps[^1].Line.ShouldBe("25");
    }

    [Fact]
    public void Counting_costs_what_the_published_models_of_counting_say() => ForAll(Operation.Add, 18, (a, b, worked) =>
        {
            // Groen and Parkman 1972: counting all takes a + b words, counting on from the larger min(a, b).
            if (a is > 0 and < 10 && b is > 0 and < 10)
            {
                worked.Single(w => w.Kind == StrategyKind.CountAll).MentalSteps.ShouldBe(a + b);
                worked.Where(w => w.Kind is StrategyKind.CountOnFromFirst or StrategyKind.CountOnFromLarger).Min(w => w.MentalSteps).ShouldBe(Math.Min(a, b));
            }
        });

    [Fact]
    public void The_strategy_fits_what_the_child_is_secure_in_and_says_what_is_for_later()
    {
        var map = SkillMapLoader.Shipped();
        var worked = Work(7, Operation.Add, 8);
        Adviser.Recommend(Work(8, Operation.Add, 5), null, new HashSet<SkillId>(), map).Kind.ShouldBe(StrategyKind.MakeTen);
        Recommended("count.touch-20").ShouldBe(StrategyKind.CountAll);
        Recommended("count.touch-20", "count.from-any-20").ShouldBe(StrategyKind.CountOnFromFirst);
        Recommended("count.touch-20", "count.from-any-20", "compare.numerals-10").ShouldBe(StrategyKind.CountOnFromLarger);
        Recommended("bond.doubles-20", "count.from-any-20").ShouldBe(StrategyKind.NearDoubles);

        var doubles = Adviser.Recommend(Work(4, Operation.Add, 4), "Zuri A.", new HashSet<SkillId> { new("count.how-many-10") }, map);
        doubles.Reason.ShouldBe("Count all: eight steps, and Zuri A. is secure in what it needs. A double would take one step, but is for later (“doubles”).");
        Adviser.Recommend(worked, "Zuri A.", new HashSet<SkillId>(), map).Reason.ShouldStartWith("Count all, with help: Zuri A. is not secure yet");

        StrategyKind Recommended(params string[] secure) => Adviser.Recommend(worked, "Zuri A.", secure.Select(s => new SkillId(s)).ToHashSet(), map).Kind;
    }

    [Fact]
    public void What_cannot_be_thought_is_refused() =>
        Should
            .Throw<InvalidOperationException>(() => Terms.Of(8, Operation.Add, 7).After(new Thought.Split(7, 2, 4)))
            .Message.ShouldContain("7 cannot become 2 and 4");

    [Fact]
    public void Numbers_outside_the_range_are_refused()
    {
        Should.Throw<ArgumentOutOfRangeException>(() => Work(5, Operation.TakeAway, 6));
        Should.Throw<ArgumentOutOfRangeException>(() => Work(100, Operation.Add, 1));
    }

    private static IReadOnlyList<WorkedStrategy> Work(int a, Operation operation, int b) => Adviser.Work(a, operation, b, Approach.Usual);

    private static WorkedStrategy Of(int a, Operation operation, int b, StrategyKind kind) => Work(a, operation, b).Single(w => w.Kind == kind);

    private static Dictionary<string, (double, double)> Places(Picture picture) =>
        picture.Shapes.Where(s => Counters.Contains(s.Role)).ToDictionary(s => s.Key, s => (s.X, s.Y));

    // Every sum to 20; of the two-digit ones, every seventh, each remainder in turn.
    private static void ForAll(Operation operation, int largest, Action<int, int, IReadOnlyList<WorkedStrategy>> check)
    {
        var step = largest > 20 ? 7 : 1;
        for (var a = 0; a <= largest; a++)
        {
            for (
                var b = a % step;
                b
                    <= (
                        operation == Operation.TakeAway ? a
                        : largest > 20 ? largest
                        : largest - a
                    );
                b += step
            )
            {
                check(a, b, Work(a, operation, b));
            }
        }
    }
}
