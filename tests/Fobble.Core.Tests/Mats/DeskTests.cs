using Fobble.Core.Approaches;
using Fobble.Core.Mats;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;

namespace Fobble.Core.Tests.Mats;

/// <summary>Walking on a path, working with blocks, and numbers shown for a moment.</summary>
public class DeskTests
{
    [Fact]
    public void Twelve_and_four_are_walked_aloud_stone_by_stone()
    {
        // Common practice: 12 + 4 is said thirteen, fourteen, fifteen, sixteen.
        var steps = PathMat.Walk(new(0, 20), 12, [4, -1]);
        steps.Select(s => s.Says).ShouldBe(["Stand on twelve.", "Four on: thirteen, fourteen, fifteen, sixteen.", "One back: fifteen."]);
        steps.Select(s => s.Line).ShouldBe(["12", "12 + 4 = 16", "12 + 4 − 1 = 15"]);
        steps[^1].Picture.CountOf(ShapeRole.Hop).ShouldBe(2);
        steps[^1].Picture.CountOf(ShapeRole.Numeral).ShouldBe(21);
    }

    [Fact]
    public void A_long_way_is_shown_on_the_open_line_with_only_the_numbers_that_are_stood_on() =>
        PathMat.Walk(new(0, 100), 47, [3, 20])[^1].Picture.Shapes.Where(s => s.Role == ShapeRole.Numeral).Select(s => s.Text).ShouldBe(["47", "50", "70"]);

    [Theory]
    [InlineData(11, "", "11 is not on the path from 0 to 10")]
    [InlineData(8, "3", "+3 from 8 leaves the path from 0 to 10")]
    [InlineData(2, "1,-5", "−5 from 3 leaves the path from 0 to 10")]
    [InlineData(2, "0", "goes nowhere")]
    [InlineData(2, "1,1,1,1,1,1,1,1,-1,1,-1,1,-1", "hard to follow")]
    public void A_hop_that_leaves_the_path_is_refused(int start, string hops, string says) =>
        Should
            .Throw<RefusedException>(() =>
                PathMat.Walk(new(0, 10), start, [.. hops.Split(',', StringSplitOptions.RemoveEmptyEntries).Select(h => int.Parse(h, null))])
            )
            .Message.ShouldContain(says);

    [Fact]
    public void Wherever_one_walks_the_last_line_is_where_one_stands() =>
        Gen.Select(Gen.Int[0, 20], Gen.Int[-6, 6].Where(n => n != 0).List[0, 6])
            .Sample(
                (start, hops) =>
                {
                    var to = hops.Aggregate(start, (at, hop) => at + hop);
                    var stays = hops.Aggregate((At: start, Ok: true), (p, hop) => (p.At + hop, p.Ok && p.At + hop is >= 0 and <= 20)).Ok;
                    if (stays)
                    {
                        PathMat.Walk(new(0, 20), start, hops)[^1].Line.Split("= ")[^1].ShouldBe($"{to}");
                    }
                }
            );

    [Fact]
    public void One_hundred_and_fifty_three_and_twelve_need_no_exchange_and_forty_seven_and_eighty_five_two()
    {
        PlaceValueMat.Work(153, Operation.Add, 12, Wording.Usual).Select(s => s.Says).ShouldNotContain(s => s.Contains("exchanged"));
        var said = PlaceValueMat.Work(47, Operation.Add, 85, new Wording(OnesWord.Units)).Select(s => s.Says).ToList();
        said.ShouldContain("Ten units are exchanged for one ten.");
        said.ShouldContain("Ten tens are exchanged for one hundred.");
        said[^1].ShouldBe("1 hundred, 3 tens and 2 units: one hundred and thirty-two.");
        PlaceValueMat
            .Work(132, Operation.TakeAway, 85, new Wording(Take: TakeWord.Subtract))
            .Select(s => s.Says)
            .ShouldContain("Ones: 12 subtract 5 leaves 7.");
    }

    [Fact]
    public void Working_with_blocks_ends_at_the_result_and_the_blocks_always_show_what_lies_there() =>
        Gen.Select(Gen.Int[0, 999], Gen.Int[0, 999], Gen.Enum<Operation>())
            .Where(p => p.Item3 == Operation.Add ? p.Item1 + p.Item2 <= 999 : p.Item2 <= p.Item1)
            .Sample(
                p =>
                {
                    var (a, b, operation) = p;
                    var steps = PlaceValueMat.Work(a, operation, b, Wording.Usual);
                    var result = operation == Operation.Add ? a + b : a - b;
                    steps[^1].Line.ShouldEndWith($"= {result}");
                    Worth(steps[^1].Picture).ShouldBe(result);
                    if (operation == Operation.Add)
                    {
                        steps.ShouldAllBe(s => Worth(s.Picture) == result);
                    }
                },
                iter: Cases.Of(300)
            );

    [Fact]
    public void A_number_is_shown_in_its_kinds_and_read()
    {
        var shown = PlaceValueMat.Show(153, Wording.Usual);
        shown.Sentence.ShouldBe("153 = 100 + 50 + 3");
        shown.Readings.ShouldBe(["1 hundred, 5 tens and 3 ones", "15 heaps of ten and 3", "nearest ten: 150", "ten fewer: 143", "ten more: 163"]);
        PlaceValueMat.Show(0, new Wording(OnesWord.Units)).Readings[0].ShouldBe("0 units");
        Should.Throw<RefusedException>(() => PlaceValueMat.Work(4, Operation.TakeAway, 5, Wording.Usual)).Message.ShouldBe("5 cannot be taken from 4.");
    }

    [Fact]
    public void Every_layout_shows_every_number_it_is_meant_for() =>
        Gen.Select(Gen.Enum<LookLayout>(), Gen.Int[1, 40], Gen.ULong)
            .Sample(
                (layout, number, seed) =>
                {
                    if (number > QuickLook.Most(layout))
                    {
                        Should
                            .Throw<RefusedException>(() => QuickLook.Of(layout, number, seed, Approach.Usual))
                            .Message.ShouldContain($"from 1 to {QuickLook.Most(layout)}");
                        return;
                    }

                    var look = QuickLook.Of(layout, number, seed, Approach.Usual);
                    var seen =
                        layout == LookLayout.Fingers
                            ? look.Picture.CountOf(ShapeRole.Hand) - 2
                            : look.Picture.CountOf(ShapeRole.CounterA, ShapeRole.CounterB, ShapeRole.Pip);
                    seen.ShouldBe(number);
                    look.FlashSeconds.ShouldBe(FlashTime.For(number));
                    look.Readings.ShouldNotBeEmpty();
                }
            );

    [Fact]
    public void What_is_read_off_is_how_it_is_parted()
    {
        QuickLook.Of(LookLayout.Row, 7, 1, Approach.Usual).Readings.ShouldBe(["seven", "five and two"]);
        QuickLook.Of(LookLayout.Doubles, 8, 1, Approach.Usual).Readings.ShouldBe(["eight", "double four"]);
        QuickLook.Of(LookLayout.HeapsOfTen, 47, 1, Approach.Usual).Readings.ShouldBe(["forty-seven", "4 heaps of ten and 7"]);
    }

    private static int Worth(Picture blocks) =>
        blocks
            .Shapes.Where(s => s.Role is ShapeRole.CounterA or ShapeRole.CounterB)
            .Sum(s =>
                s.Key.StartsWith("Hundreds", StringComparison.Ordinal) ? 100
                : s.Key.StartsWith("Tens", StringComparison.Ordinal) ? 10
                : 1
            );
}
