using Fobble.Core.Approaches;
using Fobble.Core.Mats;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;

namespace Fobble.Core.Tests.Mats;

/// <summary>Mats worked by hand: what is done can be written down, read back and undone, and no counter is ever lost.</summary>
public class MatTests
{
    private static readonly Gen<MatAction> Action = Gen.Select(
            Gen.Enum<MatDeed>(),
            Gen.Int[0, 20],
            Gen.Int[-1, 3],
            Gen.Int[-1, 12],
            Gen.Bool,
            Gen.Int[0, 10],
            Gen.ULong
        )
        .Select(
            (deed, counter, zone, place, second, first, seed) => new MatAction(deed, counter, zone, place < 0 ? null : place, second, first, first / 2, seed)
        );

    public static TheoryData<MatKind> Kinds => [.. MatKinds.All];

    [Fact]
    public void Whatever_is_done_the_state_can_be_written_and_read_back_and_its_picture_shows_it() =>
        Gen.Select(Gen.Enum<MatKind>(), Action.List[0, 25])
            .Sample(
                (kind, actions) =>
                {
                    var state = MatState.Empty(kind);
                    foreach (var action in actions)
                    {
                        var outcome = MatDeeds.Do(state, action);
                        if (outcome.Refused is not null)
                        {
                            outcome.State.ShouldBe(state);
                        }

                        state = outcome.State;
                    }

                    var again = MatState.Parse(kind, state.ToString());
                    again.ToString().ShouldBe(state.ToString());
                    state.Counters.Select(c => c.Id).ShouldBeUnique();
                    var view = MatView.Of(again, Approach.Usual);
                    view.Picture.CountOf(ShapeRole.CounterA, ShapeRole.CounterB).ShouldBe(state.Zones.Where(z => !z.Covered).Sum(z => z.Count));
                    view.Picture.Shapes.Select(s => s.Key).ShouldBeUnique();
                    view.Readings.ShouldAllBe(r => r.Length > 0);
                }
            );

    [Theory]
    [MemberData(nameof(Kinds))]
    public void Counters_do_not_touch_and_stay_inside_however_full_it_is(MatKind kind)
    {
        var state = MatState.Empty(kind);
        for (var i = 0; i < MatKinds.MostInAll; i++)
        {
            state = MatDeeds.Do(state, new(MatDeed.Put, Zone: i % state.Zones.Count)).State;
            var picture = MatView.Of(state, Approach.Usual).Picture;
            var counters = picture.Shapes.Where(s => s.Role == ShapeRole.CounterA).ToList();
            counters.ShouldAllBe(c => c.X > c.Width / 2 && c.X + (c.Width / 2) < picture.Width && c.Y > c.Width / 2 && c.Y + (c.Width / 2) < picture.Height);
            foreach (var (one, index) in counters.Select((c, n) => (c, n)))
            {
                counters.Skip(index + 1).ShouldAllBe(o => Math.Sqrt(Math.Pow(one.X - o.X, 2) + Math.Pow(one.Y - o.Y, 2)) >= one.Width);
            }
        }
    }

    [Fact]
    public void A_counter_keeps_its_key_when_it_moves_to_the_other_frame()
    {
        var state = MatDeeds.Do(MatState.Empty(MatKind.TwoTenFrames), new(MatDeed.Deal, First: 8, More: 7)).State;
        var moved = MatDeeds.Do(state, new(MatDeed.Move, Counter: 15, Zone: 0, Place: 8)).State;
        moved.Zones.Select(z => z.Count).ShouldBe([9, 6]);
        Keys(moved).ShouldBe(Keys(state), ignoreOrder: true);
        MatView.Of(moved, Approach.Usual).Sentence.ShouldBe("8 + 7 = 15");
    }

    [Fact]
    public void What_cannot_be_done_says_why_and_changes_nothing()
    {
        var state = MatDeeds.Do(MatState.Empty(MatKind.FiveFrame), new(MatDeed.Deal, First: 5)).State;
        Refusal(state, new(MatDeed.Put)).ShouldBe("The frame is full.");
        Refusal(state, new(MatDeed.Move, Counter: 9, Zone: 0, Place: 0)).ShouldBe("That counter is not on the mat.");
        Refusal(state, new(MatDeed.Cover, Zone: 4)).ShouldBe("This mat has no such place.");
        Refusal(MatState.Empty(MatKind.Ring), new(MatDeed.Shake, Seed: 1)).ShouldBe("There is nothing to shake yet.");
        Refusal(MatState.Empty(MatKind.TenFrame), new(MatDeed.Deal, First: 11)).ShouldBe("The frame is full.");
        var one = MatDeeds.Do(MatState.Empty(MatKind.TenFrame), new(MatDeed.Put, Place: 3, Zone: 0)).State;
        Refusal(one, new(MatDeed.Put, Place: 3, Zone: 0)).ShouldBe("There is a counter already.");
    }

    [Fact]
    public void Marks_and_colours_go_on_and_off_again() =>
        Gen.OneOf(Gen.Const(MatDeed.Turn), Gen.Const(MatDeed.Cross), Gen.Const(MatDeed.Circle), Gen.Const(MatDeed.Cover))
            .Sample(deed =>
            {
                var state = MatDeeds.Do(MatState.Empty(MatKind.TenFrame), new(MatDeed.Deal, First: 4)).State;
                var action = new MatAction(deed, Counter: 2, Zone: 0);
                var once = MatDeeds.Do(state, action).State;
                once.ToString().ShouldNotBe(state.ToString());
                MatDeeds.Do(once, action).State.ToString().ShouldBe(state.ToString());
            });

    [Fact]
    public void Shaking_keeps_every_counter_and_is_the_same_for_its_seed() =>
        Gen.Select(Gen.OneOf(Gen.Const(MatKind.Tray), Gen.Const(MatKind.Ring), Gen.Const(MatKind.Heap)), Gen.Int[1, 10], Gen.ULong)
            .Sample(
                (kind, number, seed) =>
                {
                    var state = MatDeeds.Do(MatState.Empty(kind), new(MatDeed.Deal, First: number)).State;
                    var shaken = MatDeeds.Do(state, new(MatDeed.Shake, Seed: seed)).State;
                    shaken.Counters.Select(c => c.Id).Order().ShouldBe(state.Counters.Select(c => c.Id).Order());
                    MatDeeds.Do(state, new(MatDeed.Shake, Seed: seed)).State.ToString().ShouldBe(shaken.ToString());
                }
            );

    [Fact]
    public void Shaken_often_things_fall_over_the_ring_as_chance_has_it()
    {
        const int Tries = 4000;
        var state = MatDeeds.Do(MatState.Empty(MatKind.Ring), new(MatDeed.Deal, First: 10)).State;
        var equal = Enumerable.Range(1, Tries).Count(seed => MatDeeds.Do(state, new(MatDeed.Shake, Seed: (ulong)seed)).State.Zones[0].Count == 5);
        var share = 252.0 / 1024;
        Math.Abs((equal / (double)Tries) - share).ShouldBeLessThan(4 * Math.Sqrt(share * (1 - share) / Tries));
    }

    [Theory]
    [InlineData(MatKind.TenFrame, "a1a2a3a4a5b6b7b8__", "5 + 3 = 8", "two short of ten")]
    [InlineData(MatKind.TenFrame, "a1a2a3a4a5a6xa7xa8x__", "8 − 3 = 5", "five and three")]
    [InlineData(MatKind.Bond, ".a1a2.b3", "2 + 1 = 3", "two and one make three")]
    [InlineData(MatKind.Bond, "a1a2a3a4.a5.", "1 + 0 = 1", "the whole says four: three still to place")]
    [InlineData(MatKind.TwoRows, "a1a2a3.b4b5b6b7b8", "3 < 5", "3 is 2 fewer than 5")]
    [InlineData(MatKind.Tray, "a1a2..a3", "2 + 0 + 1 = 3", "two, zero, one: three in all")]
    [InlineData(MatKind.Ring, "a1.a2a3", "1 + 2 = 3", "one inside, two outside: three in all")]
    [InlineData(MatKind.Ring, "a1.a2a3!", "1 + □ = 3", "one in sight: how many under the cover?")]
    public void A_mat_says_what_lies_on_it_and_never_more_than_is_in_sight(MatKind kind, string text, string sentence, string reading)
    {
        var view = MatView.Of(MatState.Parse(kind, text), Approach.Usual);
        view.Sentence.ShouldBe(sentence);
        view.Readings.ShouldContain(reading);
    }

    [Theory]
    [InlineData("a1a2")]
    [InlineData("a1a1a3_______")]
    [InlineData("c1_________")]
    [InlineData("a1_________.a2_________")]
    [InlineData("<script>")]
    public void What_is_no_state_is_refused(string text) => Should.Throw<RefusedException>(() => MatState.Parse(MatKind.TenFrame, text));

    private static string? Refusal(MatState state, MatAction action)
    {
        var outcome = MatDeeds.Do(state, action);
        outcome.State.ShouldBe(state);
        return outcome.Refused;
    }

    private static IEnumerable<string> Keys(MatState state) =>
        MatView.Of(state, Approach.Usual).Picture.Shapes.Where(s => s.Key.StartsWith("counter", StringComparison.Ordinal)).Select(s => s.Key);
}
