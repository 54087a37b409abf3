using Fobble.Core.Pictures;

namespace Fobble.Core.Tests.Pictures;

public class PictureTests
{
    private static readonly ShapeRole[] Counters = [ShapeRole.CounterA, ShapeRole.CounterB, ShapeRole.Pip];

    public static TheoryData<Picture, int> Shown =>
        new()
        {
            { Frames.Five(4), 4 },
            { Frames.Ten(7, 2), 9 },
            { Frames.Ten(0), 0 },
            { Frames.Ten(6, style: new(FrameFill.ByPairs)), 6 },
            { Patterns.Dice(6), 6 },
            { Patterns.Dice(8), 8 },
            { Patterns.Row(3, 1), 4 },
            { Patterns.TwoRows(4, 7), 11 },
            { HalfCards.Ticket(9), 9 },
            { Things.Tray([2, 0, 3]), 5 },
            { Things.Ring(4, 6), 10 },
            { Things.Ring(10, 0), 10 },
            { Things.UnderLid(2, 3), 2 },
        };

    [Theory]
    [MemberData(nameof(Shown))]
    public void A_picture_shows_just_as_many_counters_none_of_which_touch(Picture picture, int counters)
    {
        picture.CountOf(Counters).ShouldBe(counters);
        ShouldNotTouch(picture);
        picture.Shapes.Select(s => s.Key).Distinct().Count().ShouldBe(picture.Shapes.Count);
    }

    // A digit is about six tenths as wide as it is high.
    [Fact]
    public void Every_numeral_fits_its_card()
    {
        for (var number = 0; number <= 999; number++)
        {
            foreach (var picture in (Picture[])[Things.NumeralCard(number), Things.NumeralCards([number, null, number])])
            {
                var card = picture.Shapes.First(s => s.Role == ShapeRole.Card);
                foreach (var label in picture.Shapes.Where(s => s.Role == ShapeRole.Numeral))
                {
                    (0.6 * label.Width * label.Text!.Length).ShouldBeLessThan(card.Width, $"{number}");
                }
            }
        }
    }

    [Fact]
    public void A_heap_never_has_two_things_touching_and_stays_inside() =>
        Gen.Select(Gen.Int[0, 40], Gen.ULong)
            .Sample(
                (number, seed) =>
                {
                    var heap = Patterns.Scattered(number, seed);
                    heap.CountOf(Counters).ShouldBe(number);
                    ShouldNotTouch(heap);
                    heap.Shapes.ShouldAllBe(s =>
                        s.X - (s.Width / 2) >= 0 && s.X + (s.Width / 2) <= heap.Width && s.Y - (s.Width / 2) >= 0 && s.Y + (s.Width / 2) <= heap.Height
                    );
                }
            );

    [Fact]
    public void Six_by_fives_is_five_and_one_and_by_pairs_double_three()
    {
        Rows(Frames.Ten(6)).ShouldBe([5, 1]);
        Rows(Frames.Ten(6, style: new(FrameFill.ByPairs))).ShouldBe([3, 3]);
    }

    [Fact]
    public void An_upright_frame_is_the_lying_one_turned()
    {
        var upright = Frames.Ten(7, style: new(Direction: FrameDirection.Upright));
        upright.Height.ShouldBeGreaterThan(upright.Width);
        upright.CountOf(ShapeRole.Cell).ShouldBe(10);
    }

    [Fact]
    public void A_counter_keeps_its_key_when_one_more_comes()
    {
        var before = Frames.Ten(4).Shapes.Where(s => s.Role == ShapeRole.CounterA);
        Frames.Ten(4, 1).Shapes.ShouldBe(Frames.Ten(4).Shapes.Append(Frames.Ten(4, 1).Shapes[^1]));
        before.Count().ShouldBe(4);
    }

    [Fact]
    public void Matched_rows_link_only_partners() => Patterns.TwoRows(4, 7).CountOf(ShapeRole.Link).ShouldBe(4);

    [Theory]
    [InlineData(6, "five and one", "double three")]
    [InlineData(9, "one short of ten", "odd: one has no partner")]
    [InlineData(4, "one short of five", "double two")]
    [InlineData(10, "full: ten ones that are also one ten", "double five")]
    public void Readings_of_a_frame_are_those_of_common_practice(int number, params string[] expected) => expected.ShouldBeSubsetOf(FrameReadings.Of(number));

    [Fact]
    public void More_than_a_frame_holds_is_refused() => Should.Throw<ArgumentOutOfRangeException>(() => Frames.Ten(8, 3));

    private static int[] Rows(Picture frame) =>
        [.. frame.Shapes.Where(s => s.Kind == ShapeKind.Circle).GroupBy(s => s.Y).OrderBy(g => g.Key).Select(g => g.Count())];

    private static void ShouldNotTouch(Picture picture)
    {
        var circles = picture.Shapes.Where(s => Counters.Contains(s.Role)).ToList();
        foreach (var (one, i) in circles.Select((c, i) => (c, i)))
        {
            circles.Skip(i + 1).ShouldAllBe(other => Math.Sqrt(Math.Pow(one.X - other.X, 2) + Math.Pow(one.Y - other.Y, 2)) > (one.Width + other.Width) / 2);
        }
    }
}
