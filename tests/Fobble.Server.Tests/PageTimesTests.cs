using Fobble.Server.Hosting;

namespace Fobble.Server.Tests;

/// <summary>Which places are slow, by what was measured of the last answers.</summary>
public class PageTimesTests
{
    [Fact]
    public void The_slowest_come_first_and_nothing_is_said_of_a_few()
    {
        PageTimes times = new();
        for (var i = 0; i < 100; i++)
        {
            times.Add("Today", 0.01 * (i % 10));
            times.Add("Groups", i < 96 ? 0.1 : 2.0);
        }

        for (var i = 0; i < 5; i++)
        {
            times.Add("Sheets", 9);
        }

        // 4 of 100 took two seconds: nineteen of twenty did not.
        times.Slowest(3).ShouldBe([("Groups", 0.1), ("Today", 0.09)], TimesAlike);
        times.Add("Groups", 2.0);
        times.Add("Groups", 2.0);
        times.Slowest(1).ShouldBe([("Groups", 2.0)]);
    }

    [Fact]
    public void What_was_long_ago_does_not_count()
    {
        PageTimes times = new();
        foreach (var seconds in Enumerable.Repeat(5.0, 400).Concat(Enumerable.Repeat(0.1, 400)))
        {
            times.Add("Today", seconds);
        }

        times.Slowest(1).ShouldBe([("Today", 0.1)]);
    }

    [Fact]
    public async Task Answers_are_timed_by_the_part_they_came_from()
    {
        using School school = new();
        var ines = await school.ComeInAsAsync("ines");
        for (var i = 0; i < 25; i++)
        {
            (await ines.GetAsync("/api/classes/1/cupboard")).EnsureSuccessStatusCode();
        }

        var said = await (await ines.GetAsync("/api/school/running")).Content.ReadAsStringAsync();
        said.ShouldContain("\"Cupboard\"");
    }

    private static readonly IEqualityComparer<(string, double)> TimesAlike = EqualityComparer<(string, double)>.Create(
        (a, b) => a.Item1 == b.Item1 && Math.Abs(a.Item2 - b.Item2) < 1e-9
    );
}
