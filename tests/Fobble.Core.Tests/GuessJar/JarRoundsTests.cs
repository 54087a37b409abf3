using Fobble.Core.GuessJar;

namespace Fobble.Core.Tests.GuessJar;

/// <summary>What follows from the jars so far. Growth and rest are common practice.</summary>
public class JarRoundsTests
{
    private static JarRound<string> Round(int amount, int? counted, params (string, int)[] guesses) => new(amount, 20, guesses, counted);

    [Fact]
    public void The_next_jar_follows_the_last_one_that_was_counted()
    {
        JarRounds.Next<string>([], 20).Amount.ShouldBe(JarRounds.Range.Low);
        JarRounds.Next([Round(20, 20), Round(26, 27), Round(40, null)], 20).Amount.ShouldBe(32);
    }

    [Fact]
    public void Tiny_things_stay_under_a_hundred_until_ninety_some_were_counted_once()
    {
        JarRounds.Next([Round(97, 98)], 8).Amount.ShouldBe(107);
        JarRounds.Next([Round(100, 89)], 8).Amount.ShouldBe(97);
        JarRounds.Next([Round(60, 60), Round(105, 105)], 8).Amount.ShouldBeLessThan(100);
    }

    [Fact]
    public void Every_childs_errors_are_told_jar_by_jar_with_a_gap_where_there_was_no_guess()
    {
        JarRound<string>[] rounds =
        [
            Round(20, 20, ("Wren", 10), ("Kofi", 20)),
            Round(25, 25, ("Wren", 20)),
            Round(20, 20, ("Wren", 19), ("Kofi", 30)),
            Round(30, null, ("Kofi", 9)),
        ];
        var lines = JarRounds.Lines(rounds, ["Kofi", "Wren", "Ilse"]);
        lines[0].Errors.Select(e => e?.Signed).ShouldBe([0, null, 0.5]);
        lines[1].Errors.Select(e => e?.Signed).ShouldBe([-0.5, -0.2, -0.05]);
        lines[1].Trend.ShouldBe("Guesses come closer from jar to jar.");
        lines[2].Errors.ShouldAllBe(e => e == null);
        lines[2].Trend.ShouldBe("Too few guesses to tell yet.");
    }

    [Fact]
    public void Fewer_guesses_three_times_running_propose_a_rest_and_an_open_jar_does_not_count()
    {
        (string, int)[] Some(int n) => [.. Enumerable.Range(1, n).Select(i => ($"{i}", 5))];
        JarRound<string>[] falling = [Round(10, 10, Some(9)), Round(10, 10, Some(8)), Round(10, 10, Some(6)), Round(10, 10, Some(5))];
        JarRounds.RestProposal(falling).ShouldNotBeNull();
        JarRounds.RestProposal([.. falling.Take(3), Round(10, null)]).ShouldBeNull();
    }
}
