using Fobble.Core.Agreement;
using static Fobble.Core.Evidence.Support;

namespace Fobble.Core.Tests.Agreement;

public class PairingTests
{
    private const int Ines = 1;
    private const int Tomasz = 2;

    [Fact]
    public void The_same_case_of_the_same_child_is_one_moment_whatever_the_order()
    {
        var (pairs, unpaired) = Pairing.Of(
            [new(7, Ines, "see:3", Alone), new(7, Ines, "see:4", Prompted), new(7, Tomasz, "see:4", Together), new(7, Tomasz, "see:3", Alone)],
            Ines,
            Tomasz
        );
        pairs.Select(p => (p.First.Numbers, p.First.Support, p.Second.Support)).ShouldBe([("see:3", Alone, Alone), ("see:4", Prompted, Together)]);
        unpaired.ShouldBe(0);
    }

    [Fact]
    public void What_has_no_case_in_common_is_taken_in_order_and_the_rest_is_counted()
    {
        var (pairs, unpaired) = Pairing.Of(
            [new(7, Ines, null, Alone), new(7, Ines, "see:5", NotYet), new(7, Tomasz, "see:2", Alone), new(8, Ines, null, Alone), new(8, Ines, null, Alone)],
            Ines,
            Tomasz
        );
        pairs.Single().ShouldBe((new(7, Ines, null, Alone), new(7, Tomasz, "see:2", Alone)));
        unpaired.ShouldBe(3);
    }

    [Fact]
    public void A_third_adult_and_another_child_have_no_part_in_it()
    {
        var (pairs, unpaired) = Pairing.Of([new(7, Ines, null, Alone), new(8, Tomasz, null, Alone), new(7, 3, null, NotYet)], Ines, Tomasz);
        pairs.ShouldBeEmpty();
        unpaired.ShouldBe(2);
    }

    [Fact]
    public void No_moment_is_in_two_pairs_and_none_is_lost() =>
        Gen.Select(Gen.Int[1, 3], Gen.Int[1, 2], Gen.Int[0, 2], Gen.Int[0, 3])
            .Array[0, 14]
            .Sample(draws =>
            {
                List<CodedMoment> moments =
                [
                    .. draws.Select(d => new CodedMoment(d.Item1, d.Item2, d.Item3 == 0 ? null : $"see:{d.Item3}", (Core.Evidence.Support)d.Item4)),
                ];
                var (pairs, unpaired) = Pairing.Of(moments, Ines, Tomasz);
                ((2 * pairs.Count) + unpaired).ShouldBe(moments.Count);
                pairs.ShouldAllBe(p => p.First.Adult == Ines && p.Second.Adult == Tomasz && p.First.Child == p.Second.Child);
            });
}
