using CsCheck;
using Fobble.Core.Calendars;

namespace Fobble.Core.Tests.Calendars;

public sealed class CoveringTests
{
    private static readonly DateOnly Today = new(2026, 11, 25);

    [Fact]
    public void It_counts_from_its_first_day_to_its_last_and_on_no_other()
    {
        Gen.Select(Gen.Int[-40, 40], Gen.Int[0, 40], Gen.Int[-90, 90])
            .Sample(
                (first, length, asked) =>
                {
                    var (from, until, day) = (Today.AddDays(first), Today.AddDays(first + length), Today.AddDays(asked));
                    var days = Enumerable.Range(0, length + 1).Select(i => from.AddDays(i)).ToHashSet();
                    Covering.Counts(from, until, day).ShouldBe(days.Contains(day));
                }
            );
        Covering.Counts(null, null, Today).ShouldBeTrue("who belongs to the class for good");
    }

    [Fact]
    public void What_is_taken_holds_a_day_that_is_still_to_come()
    {
        Gen.Select(Gen.Int[-500, 500], Gen.Int[-500, 500])
            .Sample(
                (first, last) =>
                {
                    var (from, until) = (Today.AddDays(first), Today.AddDays(last));
                    var taken = true;
                    try
                    {
                        Covering.Check(from, until, Today);
                    }
                    catch (RefusedException)
                    {
                        taken = false;
                    }

                    var days = last - first + 1;
                    taken.ShouldBe(days is > 0 and <= Covering.LongestDays && last >= 0);
                }
            );
    }
}
