using Fobble.Core.Numbers;

namespace Fobble.Core.Strategies;

/// <summary>One thing done while working out: it turns the amounts that are still to be joined into others of the same sum.</summary>
public abstract record Thought
{
    private Thought() { }

    /// <summary>How many mental steps it takes: a fact or a split is one, counting is one for each word said.</summary>
    public virtual int Cost => 1;

    /// <summary>The fact it leans on, if any.</summary>
    public virtual NumberSentence? Fact => null;

    /// <summary>Puts the amounts down; nothing is worked out yet.</summary>
    public sealed record Begin : Thought
    {
        public override int Cost => 0;
    }

    /// <summary>Sees that the order does not matter.</summary>
    public sealed record TurnRound : Thought
    {
        public override int Cost => 0;
    }

    /// <summary>Takes an amount apart into two; the same is done to an amount that is to be taken away.</summary>
    public sealed record Split(int Amount, int First, int Second) : Thought;

    /// <summary>Joins two amounts, or takes one from another, by a fact that is known.</summary>
    public sealed record Know(NumberSentence Known) : Thought
    {
        public override NumberSentence? Fact => Known;
    }

    /// <summary>Finds what is missing by the addition that is known: 13 − 8 by 8 + 5 = 13.</summary>
    public sealed record FindMissing(NumberSentence Known) : Thought
    {
        public override NumberSentence? Fact => Known;
    }

    /// <summary>Gives some of one amount to another: 6 + 9 as 5 + 10.</summary>
    public sealed record Give(int From, int To, int Amount) : Thought;

    /// <summary>Takes a ten for a number a little below it, and keeps in mind how much that is too many: 9 as 10 − 1.</summary>
    public sealed record Round(int Amount, int Ten) : Thought;

    /// <summary>Says the next number word, or the one before where it is taken away.</summary>
    public sealed record CountOne(int From, bool Back) : Thought;

    /// <summary>Says the number words from one amount up to another: how many they are is the difference.</summary>
    public sealed record CountUp(int From, int To) : Thought
    {
        public override int Cost => To - From;
    }

    /// <summary>Counts everything that lies there, or all that is left.</summary>
    public sealed record CountAll(int Words) : Thought
    {
        public override int Cost => Words;
    }

    /// <summary>Lines two amounts up and looks at what has no partner.</summary>
    public sealed record Match(int First, int Second) : Thought
    {
        public override int Cost => Math.Min(First, Second) + Math.Abs(First - Second);
    }
}

/// <summary>The amounts still to be joined; those to be taken away are negative. Thoughts change them, their sum never changes.</summary>
public sealed record Terms(IReadOnlyList<int> Amounts)
{
    public static Terms Of(int a, Operation operation, int b) => new([a, operation == Operation.Add ? b : -b]);

    public int Sum => Amounts.Sum();

    /// <summary>The terms after a thought.</summary>
    /// <exception cref="InvalidOperationException">The thought speaks of an amount that is not there, or does not add up.</exception>
    public Terms After(Thought thought) =>
        thought switch
        {
            Thought.Begin => this,
            Thought.TurnRound when Amounts.Count == 2 && Amounts[1] >= 0 => new([Amounts[1], Amounts[0]]),
            Thought.Split s => Amounts.Contains(s.Amount) ? Replace([s.Amount], [s.First, s.Second]) : Replace([-s.Amount], [-s.First, -s.Second]),
            Thought.Know { Known: var k } => Replace([k.Left, k.Operation == Operation.Add ? k.Right : -k.Right], [k.Result]),
            Thought.FindMissing { Known: { Operation: Operation.Add } k } => Replace([k.Result, -k.Left], [k.Right]),
            Thought.Give g when Amounts.SequenceEqual([g.To, g.From]) => new([g.To + g.Amount, g.From - g.Amount]),
            Thought.Give g => Replace([g.From, g.To], [g.From - g.Amount, g.To + g.Amount]),
            Thought.Round r => Amounts.Contains(r.Amount) ? Replace([r.Amount], [r.Ten, r.Amount - r.Ten]) : Replace([-r.Amount], [-r.Ten, r.Ten - r.Amount]),
            Thought.CountOne c => CountOne(c),
            Thought.CountUp c => Replace([c.To, -c.From], [c.To - c.From]),
            Thought.CountAll => new([Sum]),
            Thought.Match m => Replace([m.First, -m.Second], [m.First - m.Second]),
            _ => throw new InvalidOperationException($"{thought} cannot be thought at {this}."),
        };

    /// <summary>As it is written: <c>8 + 2 + 5</c>, <c>13 − 3 − 2</c>.</summary>
    public override string ToString() =>
        string.Concat(
            Amounts.Select(
                (n, i) =>
                    i == 0 ? $"{n}"
                    : n < 0 ? $" − {-n}"
                    : $" + {n}"
            )
        );

    private Terms CountOne(Thought.CountOne count)
    {
        var step = count.Back ? -1 : 1;
        var other = Amounts.FirstOrDefault(n => n != count.From && Math.Sign(n) == step, Amounts.Count > 1 ? Amounts[1] : 0);
        var left = other - step;
        return Replace([count.From, other], left == 0 ? [count.From + step] : [count.From + step, left]);
    }

    // The new amounts take the place of the first old one, the later one of two alike. An amount of nothing is not written down.
    private Terms Replace(IReadOnlyList<int> old, IReadOnlyList<int> now)
    {
        List<int> left = [.. Amounts];
        var at = left.LastIndexOf(old[0]);
        if (!old.All(left.Remove) || old.Sum() != now.Sum())
        {
            throw new InvalidOperationException($"{string.Join(" and ", old)} cannot become {string.Join(" and ", now)} in {this}.");
        }

        left.InsertRange(Math.Min(at, left.Count), now.Where(n => n != 0));
        return new(left.Count > 0 ? left : [0]);
    }
}
