namespace Fobble.Core.Chance;

/// <summary>How long a game takes, in turns of all players together.</summary>
/// <param name="Turns">Expected number.</param>
/// <param name="Eighty">Turns within which four games of five are over.</param>
/// <param name="NinetyFive">Turns within which 19 games of 20 are over.</param>
public sealed record GameLength(double Turns, int Eighty, int NinetyFive)
{
    /// <summary>Setting: seconds a turn of four- to six-year-olds takes.</summary>
    public const double SecondsATurn = 20;

    /// <summary>How many minutes so many turns take.</summary>
    public static double Minutes(double turns, double secondsATurn = SecondsATurn) => turns * secondsATurn / 60;

    public string InWords(double secondsATurn = SecondsATurn) =>
        Phrase(
            $"About {Turns:0} turns, {Minutes(Turns, secondsATurn):0} minutes. Four games of five are over after {Minutes(Eighty, secondsATurn):0} minutes, 19 of 20 after {Minutes(NinetyFive, secondsATurn):0}."
        );
}

/// <summary>
/// A race from 0 to a target (rule R7): each turn moves by what was thrown, never below 0; who reaches the target first ends the game.
/// Lengths follow exactly from the absorbing chain of one player's places, since all throw alike (Kemeny and Snell 1960, chapter 3).
/// </summary>
/// <param name="Exact">Whether the target has to be hit; a throw that passes it is not moved.</param>
public sealed record Race(Throws Throws, int Target, bool Exact, int Players)
{
    /// <summary>Players round one game at most.</summary>
    public const int MostPlayers = 6;

    /// <summary>Rounds after which a game counts as endless where more than one of 20 still goes on: more than a day.</summary>
    private const int Endless = 5_000;
    private const double Negligible = 1e-13;

    /// <returns>Null where the game may go on without end: some places can never reach the target, or one game of 20 takes thousands of rounds.</returns>
    /// <exception cref="ArgumentOutOfRangeException">Target is not from 1 to 999, or players not from 1 to 6.</exception>
    public GameLength? Length()
    {
        ArgumentOutOfRangeException.ThrowIfLessThan(Target, 1);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(Target, 999);
        ArgumentOutOfRangeException.ThrowIfLessThan(Players, 1);
        ArgumentOutOfRangeException.ThrowIfGreaterThan(Players, MostPlayers);
        if (!CanAlwaysEnd())
        {
            return null;
        }

        // open[t]: the chance that one player is not there after t turns.
        List<double> open = [1];
        var places = new double[Target];
        places[0] = 1;
        while (Math.Pow(open[^1], Players) > Negligible)
        {
            if (open.Count > Endless && Math.Pow(open[^1], Players) > 0.05)
            {
                return null;
            }

            places = After(places);
            open.Add(places.Sum());
        }

        double turns = 0;
        int? eighty = null,
            ninetyFive = null;
        for (var turn = 0; turn < (open.Count - 1) * Players; turn++)
        {
            // Some players have had one turn more than the others.
            var (rounds, more) = (turn / Players, turn % Players);
            var going = Math.Pow(open[rounds + 1], more) * Math.Pow(open[rounds], Players - more);
            turns += going;
            eighty ??= going <= 0.2 ? turn : null;
            ninetyFive ??= going <= 0.05 ? turn : null;
        }

        var all = (open.Count - 1) * Players;
        return new(turns, eighty ?? all, ninetyFive ?? all);
    }

    /// <summary>Where a player at a place is after a throw.</summary>
    public int From(int place, int result) => place + result > Target && Exact ? place : Math.Clamp(place + result, 0, Target);

    private double[] After(double[] places)
    {
        var after = new double[Target];
        for (var place = 0; place < Target; place++)
        {
            foreach (var result in places[place] > 0 ? Throws.Results : [])
            {
                var to = From(place, result.Result);
                if (to < Target)
                {
                    after[to] += places[place] * result.Share;
                }
            }
        }

        return after;
    }

    // Every place that can be come to must have a way on to the target.
    private bool CanAlwaysEnd()
    {
        var moves = Enumerable.Range(0, Target).SelectMany(place => Throws.Results.Select(r => (Place: place, To: From(place, r.Result)))).ToList();
        return Spread(0, moves.ToLookup(m => m.Place, m => m.To)).IsSubsetOf(Spread(Target, moves.ToLookup(m => m.To, m => m.Place)));
    }

    private static HashSet<int> Spread(int start, ILookup<int, int> next)
    {
        HashSet<int> seen = [start];
        Queue<int> open = new(seen);
        while (open.TryDequeue(out var place))
        {
            foreach (var to in next[place].Where(seen.Add))
            {
                open.Enqueue(to);
            }
        }

        return seen;
    }
}
