using Fobble.Core.Cupboard;
using static Fobble.Core.Tests.Cupboard.CautionTests;

namespace Fobble.Core.Tests.Cupboard;

/// <summary>Rule R14: short by how many, and what may stand in.</summary>
public class SupplyTests
{
    private static readonly CupboardItem Blue = Thing([25, 25, 4], id: "Blue");
    private static readonly CupboardItem AlsoBlue = Thing([25, 25, 4], id: "Also blue");
    private static readonly CupboardItem Stones = Thing([50, 40, 25], ItemShape.Uneven, "Stones", colour: "grey");
    private static readonly CupboardItem Bell = Thing([90, 60, 60], ItemShape.Uneven, "Bell", Purpose.Sound);

    [Fact]
    public void What_is_owned_in_full_is_not_short()
    {
        var met = new Supply([new(Blue, 20)]).Meet(new(Blue, 20, false));
        (met.Own, met.ShortBy, met.InWords()).ShouldBe((20, 0, null));
    }

    [Fact]
    public void Things_of_the_same_purpose_stand_in()
    {
        var met = new Supply([new(Blue, 12), new(Stones, 30), new(Bell, 50)]).Meet(new(Blue, 20, false));
        met.StandIns.ShouldBe([new(Stones, 8)]);
        met.InWords().ShouldBe("Short by 8. Add 8 stones instead.");
    }

    [Fact]
    public void Where_the_point_is_to_see_only_what_looks_alike_is_mixed_in()
    {
        new Supply([new(Blue, 3), new(AlsoBlue, 9), new(Stones, 30)]).Meet(new(Blue, 5, true)).StandIns.ShouldBe([new(AlsoBlue, 2)]);
        var whole = new Supply([new(Blue, 3), new(Stones, 30)]).Meet(new(Blue, 5, true));
        whole.StandIns.ShouldBe([new(Stones, 5)]);
        whole.InWords().ShouldBe("Short by 2. Take 5 stones instead.");
    }

    [Fact]
    public void Nothing_stands_in_for_what_has_no_like()
    {
        var met = new Supply([new(Stones, 5)]).Meet(new(Bell, 1, false));
        met.StillShort.ShouldBe(1);
        met.InWords().ShouldBe("Short by 1. Nothing in the cupboard stands in.");
    }

    [Fact]
    public void What_one_need_takes_the_next_can_not_have_and_nothing_is_invented() =>
        Gen.Select(Gen.Int[0, 30], Gen.Int[0, 30], Gen.Int[1, 40], Gen.Int[1, 40], Gen.Bool)
            .Sample(
                (blue, stones, first, second, alike) =>
                {
                    Supply supply = new([new(Blue, blue), new(Stones, stones)]);
                    Supplied[] met = [supply.Meet(new(Blue, first, alike)), supply.Meet(new(Blue, second, false))];
                    foreach (var one in met)
                    {
                        one.ShortBy.ShouldBe(one.Need.Amount - one.Own);
                        (one.StandIns.Sum(s => s.Amount) + one.StillShort).ShouldBeGreaterThanOrEqualTo(one.ShortBy);
                    }

                    met.SelectMany(m => m.StandIns).Where(s => s.Item == Stones).Sum(s => s.Amount).ShouldBeLessThanOrEqualTo(stones);
                }
            );
}
