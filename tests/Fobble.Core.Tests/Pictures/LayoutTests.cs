using Fobble.Core.Numbers;
using Fobble.Core.Pictures;

namespace Fobble.Core.Tests.Pictures;

/// <summary>Rule R1: every layout of every number it is meant for shows that many, apart from each other, inside the picture.</summary>
public class LayoutTests
{
    private static readonly ShapeRole[] Counted = [ShapeRole.CounterA, ShapeRole.CounterB, ShapeRole.Pip];

    public static TheoryData<string> Layouts =>
        ["array", "circle", "tower", "bunches", "heaps", "tin", "ticket", "tens", "pairs upright", "domino", "story", "two rows of a story"];

    [Theory]
    [MemberData(nameof(Layouts))]
    public void A_layout_shows_its_number_and_nothing_touches_or_hangs_out(string layout)
    {
        foreach (
            var number in Enumerable.Range(
                1,
                layout == "heaps" ? 60
                    : layout == "domino" ? 6
                    : 20
            )
        )
        {
            var picture = Lay(layout, number);
            var things = picture.Shapes.Where(s => Counted.Contains(s.Role)).ToList();
            things.Count.ShouldBe(layout == "two rows of a story" ? number + (number / 2) : number, $"{layout} {number}");
            picture.Shapes.Select(s => s.Key).ShouldBeUnique();
            foreach (var (one, i) in things.Select((t, i) => (t, i)).Where(t => t.t.Kind == ShapeKind.Circle))
            {
                things.Skip(i + 1).ShouldAllBe(o => Math.Sqrt(Math.Pow(one.X - o.X, 2) + Math.Pow(one.Y - o.Y, 2)) > (one.Width + o.Width) / 2);
            }

            picture.Shapes.ShouldAllBe(s => Inside(s, picture), $"{layout} {number}");
        }
    }

    [Fact]
    public void Every_way_to_show_a_number_with_fingers_is_known_five_and_the_rest_first()
    {
        Hands.Ways(7).ShouldBe([new Split(5, 2), new Split(4, 3), new Split(3, 4), new Split(2, 5)]);
        Hands.Ways(3)[0].ShouldBe(new Split(3, 0));
        Hands.Ways(10).ShouldHaveSingleItem();
        foreach (var way in Enumerable.Range(0, 11).SelectMany(Hands.Ways))
        {
            Hands.Show(way).CountOf(ShapeRole.Hand).ShouldBe(way.Total + 2, "the palms are drawn as well");
        }
    }

    [Fact]
    public void The_two_halves_of_a_ticket_share_one_tear_and_no_other_tears_like_it()
    {
        var tears = Enumerable.Range(0, 21).Select(n => string.Join(";", HalfCards.TearOf(n))).ToList();
        tears.ShouldBeUnique();
        foreach (var number in Enumerable.Range(0, 21))
        {
            var halves = HalfCards.Ticket(number, apart: 0).Shapes.Where(s => s.Kind == ShapeKind.Outline).ToList();
            halves[0].Points.Intersect(halves[1].Points).ShouldBe(HalfCards.TearOf(number), ignoreOrder: true);
        }
    }

    [Fact]
    public void Heaps_of_ten_have_the_left_over_in_the_other_colour()
    {
        // Common practice: 162 things are 16 heaps of ten and 2.
        var heaps = Patterns.HeapsOfTen(162);
        (heaps.CountOf(ShapeRole.CounterA), heaps.CountOf(ShapeRole.CounterB)).ShouldBe((160, 2));
        heaps.Description.ShouldBe("16 heaps of ten and 2");
    }

    [Fact]
    public void A_domino_has_two_faces_and_refuses_a_seven()
    {
        Patterns.Domino(6, 0).CountOf(ShapeRole.Pip).ShouldBe(6);
        Should.Throw<IndexOutOfRangeException>(() => Patterns.Domino(7, 0));
    }

    [Fact]
    public void Blocks_are_as_many_as_the_number_has_of_each_kind()
    {
        foreach (var number in new[] { 0, 7, 10, 45, 99, 153, 200, 999 })
        {
            var value = PlaceValue.Of(number);
            PlaceValues.Blocks(value).CountOf(ShapeRole.CounterA, ShapeRole.CounterB).ShouldBe(value.Hundreds + value.Tens + value.Ones);
            PlaceValues.Blocks(value).Shapes.ShouldAllBe(s => Inside(s, PlaceValues.Blocks(value)));
        }
    }

    [Fact]
    public void Cards_slid_together_show_the_numeral_and_apart_what_each_is_worth()
    {
        Read(PlaceValues.Cards(153, apart: true)).ShouldBe("100503");
        Read(PlaceValues.Cards(153, apart: false)).ShouldBe("153");
        Read(PlaceValues.Cards(105, apart: false)).ShouldBe("105");
        Read(PlaceValues.Cards(70, apart: false)).ShouldBe("70");
    }

    [Fact]
    public void A_path_stands_where_it_says_and_leaves_its_gaps_empty()
    {
        var path = NumberPath.Stones(new NumberRange(0, 10), 7, [new Hop(4, 7, "+ 3")], new HashSet<int> { 6 });
        path.CountOf(ShapeRole.Numeral).ShouldBe(10);
        path.Shapes.Single(s => s.Key == "walker").X.ShouldBe(7.5);
        path.CountOf(ShapeRole.Hop).ShouldBe(1);
        path.Shapes.ShouldAllBe(s => Inside(s, path));
        NumberPath
            .OpenLine(48, [new Hop(48, 50, "+ 2"), new Hop(50, 75, "+ 25")])
            .Shapes.Where(s => s.Role == ShapeRole.Numeral)
            .Select(s => s.Text)
            .ShouldBe(["48", "50", "75"]);
    }

    [Fact]
    public void A_bar_hides_what_is_to_be_found()
    {
        Things.PartWhole(5, 3).CountOf(ShapeRole.Numeral).ShouldBe(3);
        Things.PartWhole(5, 3, showSecond: false).CountOf(ShapeRole.Numeral).ShouldBe(2);
    }

    [Theory]
    [InlineData(0, "empty: ten spaces")]
    [InlineData(8, "five and three|two short of ten|double four|even: everyone has a partner|nearest ten: ten")]
    [InlineData(14, "ten and four|six short of twenty|double seven|even: everyone has a partner|nearest ten: ten")]
    [InlineData(17, "ten and seven|ten, five and two|three short of twenty|odd: one has no partner|nearest ten: twenty")]
    [InlineData(20, "two full frames: two tens|double ten")]
    public void Readings_say_all_that_can_be_seen(int number, string expected) => expected.Split('|').ShouldBeSubsetOf(FrameReadings.Of(number));

    [Theory]
    [InlineData(1, 1)]
    [InlineData(4, 1)]
    [InlineData(5, 1.5)]
    [InlineData(8, 2)]
    public void A_flash_is_as_long_as_seeing_takes(int number, double seconds) => FlashTime.For(number).ShouldBe(seconds); // up to four at once: Trick and Pylyshyn 1994

    [Fact]
    public void Pictures_side_by_side_keep_their_shapes_apart()
    {
        var both = Picture.SideBySide("Three and four", 1, Frames.Five(3), Frames.Five(4));
        both.CountOf(ShapeRole.CounterA).ShouldBe(7);
        both.Shapes.Select(s => s.Key).ShouldBeUnique();
        both.Width.ShouldBe((2 * Frames.Five(3).Width) + 1, 1e-9);
        Picture.Below("Three above four", 1, Frames.Five(3), Frames.Five(4)).Height.ShouldBe((2 * Frames.Five(3).Height) + 1, 1e-9);
    }

    private static Picture Lay(string layout, int n) =>
        layout switch
        {
            "array" => Patterns.Array(n, 4),
            "circle" => Patterns.InCircle(n),
            "tower" => Patterns.Tower(n / 2, n - (n / 2)),
            "bunches" => Patterns.InBunches(n, (ulong)n),
            "heaps" => Patterns.HeapsOfTen(n),
            "tin" => Things.TinLabel(n),
            "ticket" => HalfCards.Ticket(n),
            "tens" => Frames.Tens(n),
            "pairs upright" => Frames.Tens(n, style: new(FrameFill.ByPairs, FrameDirection.Upright)),
            "domino" => Patterns.Domino(n, 0),
            "story" => StoryDrawings.OneSet([.. Enumerable.Range(0, n).Select(i => new DrawnThing(ShapeRole.CounterA, i % 2 == 0, i % 3 == 0, "a"))]),
            _ => StoryDrawings.TwoRows(
                [.. Enumerable.Range(0, n).Select(i => new DrawnThing(ShapeRole.CounterA, i == 0))],
                [.. Enumerable.Range(0, n / 2).Select(_ => new DrawnThing(ShapeRole.CounterB))]
            ),
        };

    private static string Read(Picture cards) =>
        string.Concat(cards.Shapes.Where(s => s.Kind == ShapeKind.Text).OrderBy(s => s.Y).ThenBy(s => s.X).Select(s => s.Text));

    private static bool Inside(Shape s, Picture picture)
    {
        const double Line = 0.01;
        var (left, top) =
            s.Kind is ShapeKind.Circle ? (s.X - (s.Width / 2), s.Y - (s.Width / 2))
            : s.Kind is ShapeKind.Text ? (s.X - (s.Height / 2), s.Y - (s.Height / 2))
            : (Math.Min(s.X, s.X + s.Width), Math.Min(s.Y, s.Y + s.Height));
        return left >= -Line && top >= -Line && left + Math.Abs(s.Width) <= picture.Width + Line && top + Math.Abs(s.Height) <= picture.Height + Line;
    }
}
