using System.Globalization;
using Fobble.Core.Calendars;

namespace Fobble.Core.Tests.Calendars;

public sealed class RetentionTests
{
    private static DateOnly Day(string day) => DateOnly.Parse(day, CultureInfo.InvariantCulture);

    [Theory]
    [InlineData("2026-11-25", "2028-07-21")]
    [InlineData("2027-08-02", "2028-08-02")]
    public void Records_of_who_leaves_are_usually_kept_to_the_end_of_the_next_year(string leaves, string until) =>
        Retention
            .UsuallyUntil(
                new(
                    [new("Autumn", Season.Autumn, Day("2026-09-01"), Day("2026-12-18")), new("Summer", Season.Summer, Day("2027-04-12"), Day("2027-07-21"))],
                    []
                ),
                Day(leaves)
            )
            .ShouldBe(Day(until));

    [Theory]
    [InlineData("2026-11-24", false)]
    [InlineData("2026-11-25", true)]
    [InlineData("2036-11-25", true)]
    [InlineData("2036-11-26", false)]
    public void A_record_is_kept_from_today_on_and_for_ten_years_at_the_most(string until, bool goes)
    {
        var refused = Record.Exception(() => Retention.Check(Day(until), Day("2026-11-25"))) as RefusedException;
        (refused is null).ShouldBe(goes);
    }
}
