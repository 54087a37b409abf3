using Fobble.Core.Chance;
using Fobble.Core.Numbers;
using MathNet.Numerics.LinearAlgebra;

namespace Fobble.Core.Tests.Chance;

/// <summary>Rule R7: the length of games, against the fundamental matrix (Kemeny and Snell 1960) solved by MathNet, and against play.</summary>
public class RaceTests
{
    private static readonly Throws Usual = new([Die.Numbered(1, 6)], DiceOperation.Add);
    private static readonly Throws UpAndDown = new([Die.Numbered(1, 6)], DiceOperation.PlusOrMinus);
    private static readonly Throws BackAndForth = new([Die.Numbered(0, 3), Die.Numbered(0, 2)], DiceOperation.TakeAway);

    public static TheoryData<Throws, int, bool> Races =>
        new()
        {
            { Usual, 10, false },
            { Usual, 20, true },
            { Usual, 100, true },
            { BackAndForth, 12, false },
            { BackAndForth, 8, true },
            { UpAndDown, 10, false },
            { UpAndDown, 10, true },
        };

    [Theory]
    [MemberData(nameof(Races))]
    public void One_players_turns_are_the_solution_of_the_chains_equations(Throws throws, int target, bool exact)
    {
        var race = new Race(throws, target, exact, 1);
        var open = Matrix<double>.Build.DenseIdentity(target);
        for (var place = 0; place < target; place++)
        {
            foreach (var result in throws.Results)
            {
                var to = race.From(place, result.Result);
                if (to < target)
                {
                    open[place, to] -= result.Share;
                }
            }
        }

        var expected = open.Solve(Vector<double>.Build.Dense(target, 1))[0];
        race.Length()!.Turns.ShouldBe(expected, expected * 1e-9);
    }

    [Theory]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(6)]
    public void Players_in_turn_agree_with_thousands_of_played_games_within_four_standard_errors(int players)
    {
        const int Games = 4000;
        var race = new Race(Usual, 20, true, players);
        var random = new SeededRandom((ulong)players);
        var played = Enumerable.Range(0, Games).Select(_ => Play(race, random)).ToList();
        var length = race.Length()!;
        var mean = played.Average();
        var error = Math.Sqrt(played.Average(p => (p - mean) * (p - mean)) / Games);
        Math.Abs(mean - length.Turns).ShouldBeLessThan(4 * error);
        played.Count(p => p <= length.Eighty).ShouldBeGreaterThan((int)((0.8 - (4 * Math.Sqrt(0.16 / Games))) * Games));
        played.Count(p => p <= length.NinetyFive).ShouldBeGreaterThan((int)((0.95 - (4 * Math.Sqrt(0.0475 / Games))) * Games));
        played.Count(p => p < length.NinetyFive).ShouldBeLessThan((int)((0.95 + (4 * Math.Sqrt(0.0475 / Games))) * Games));
    }

    [Fact]
    public void A_die_with_one_face_takes_just_as_many_turns_as_it_must()
    {
        var one = new Throws([new Die([1])], DiceOperation.Add);
        new Race(one, 5, true, 1).Length().ShouldBe(new GameLength(5, 5, 5));
        new Race(one, 5, true, 3).Length().ShouldBe(new GameLength(13, 13, 13));
    }

    [Fact]
    public void A_game_that_can_get_stuck_or_never_moves_has_no_length()
    {
        var twos = new Throws([new Die([2])], DiceOperation.Add);
        new Race(twos, 5, true, 2).Length().ShouldBeNull();
        new Race(twos, 5, false, 2).Length().ShouldNotBeNull();
        new Race(new Throws([new Die([0])], DiceOperation.Add), 5, false, 1).Length().ShouldBeNull();
        var mostlyBack = new Throws([new Die([0, 0, 0, 0, 0, 0, 0, 0, 0, 1]), Die.Numbered(0, 3)], DiceOperation.TakeAway);
        new Race(mostlyBack, 30, false, 1).Length().ShouldBeNull();
    }

    // Both found by an independent chain of all players' places.
    [Fact]
    public void A_hill_that_goes_up_and_down_takes_three_players_fifteen_turns() => new Race(UpAndDown, 10, false, 3).Length()!.Turns.ShouldBe(15.2, 0.05);

    [Fact]
    public void A_game_that_hardly_ever_takes_long_is_not_called_endless()
    {
        Throws sum = new([Die.Numbered(0, 5), Die.Numbered(1, 6), new Die([0, 1, 1, 2, 2, 3])], DiceOperation.Add);
        var length = new Race(sum, 10, true, 3).Length()!;
        length.Turns.ShouldBe(37.8, 0.05);
        length.NinetyFive.ShouldBe(168);
    }

    [Fact]
    public void Minutes_come_from_the_seconds_that_a_turn_takes()
    {
        GameLength.Minutes(30).ShouldBe(10);
        new GameLength(30, 36, 45).InWords().ShouldBe("About 30 turns, 10 minutes. Four games of five are over after 12 minutes, 19 of 20 after 15.");
    }

    [Theory]
    [InlineData(0, 1)]
    [InlineData(1000, 1)]
    [InlineData(10, 0)]
    [InlineData(10, 7)]
    public void Targets_and_players_out_of_range_are_refused(int target, int players) =>
        Should.Throw<ArgumentOutOfRangeException>(() => new Race(Usual, target, true, players).Length());

    private static double Play(Race race, SeededRandom random)
    {
        var places = new int[race.Players];
        for (var turn = 0; ; turn++)
        {
            ref var place = ref places[turn % race.Players];
            place = race.From(place, 1 + random.Next(6));
            if (place == race.Target)
            {
                return turn + 1;
            }
        }
    }
}
