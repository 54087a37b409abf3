using CsCheck;
using Fobble.Core.People;

namespace Fobble.Core.Tests.People;

public class GoingUpTests
{
    private static readonly Dictionary<int, string> Three = new()
    {
        [1] = "Ada Okafor",
        [2] = "Bo Lund",
        [3] = "Cai Reyes",
    };

    [Fact]
    public void Whoever_has_one_place_goes_up_repeats_or_leaves() =>
        Gen.Int[-1, 1].Array[3].Sample(to => GoingUp.Check(Three, [.. to.Select((t, i) => new Going(i + 1, t < 0 ? null : t))], 2));

    // Any list that is not every child once is refused, and says of whom.
    [Fact]
    public void No_list_that_forgets_somebody_or_names_one_twice_gets_through() =>
        Gen.Int[1, 4]
            .Array[0, 5]
            .Sample(children =>
            {
                List<Going> places = [.. children.Select(c => new Going(c, 0))];
                if (children.Order().SequenceEqual([1, 2, 3]))
                {
                    GoingUp.Check(Three, places, 1);
                    return;
                }

                var refused = Should.Throw<RefusedException>(() => GoingUp.Check(Three, places, 1));
                foreach (var (_, name) in Three.Where(c => children.Count(x => x == c.Key) != 1))
                {
                    refused.Reasons.ShouldContain(r => r.Sentence.Contains(name));
                }
            });

    [Theory]
    [InlineData(2)]
    [InlineData(-1)]
    public void There_is_no_other_class(int to) =>
        Should
            .Throw<RefusedException>(() => GoingUp.Check(Three, [new(1, 0), new(2, to), new(3, null)], 2))
            .Reasons.ShouldHaveSingleItem()
            .Field.ShouldBe("places");
}
