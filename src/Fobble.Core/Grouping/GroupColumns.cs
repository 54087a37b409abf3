using Fobble.Core.Skills;
using Google.OrTools.LinearSolver;

namespace Fobble.Core.Grouping;

/// <summary>One thinkable group: a skill and children, by their places in the list of open candidates, in order, with the points it brings (being left out counted back).</summary>
internal sealed record GroupColumn(SkillId Skill, IReadOnlyList<int> Members, int Points);

/// <summary>
/// Thinkable groups ("columns") and what can be said of all of them at once. Column generation (Gilmore and Gomory 1961): a linear program over a few
/// columns gives every child a price; for these prices the best column of each skill is found exactly; when none gains any more, the program's value is
/// a bound that no set of groups can pass, and every column that lies further below its price than bound and best set are apart can be in no better set.
/// </summary>
internal sealed class GroupColumns : IDisposable
{
    private const int MostRounds = 80;
    private const double Nothing = 1e-6;

    // The first prices: what a child brings where it sits, and a little less.
    private const double ShareOfWorth = 0.97;

    // Of the columns that gain, the last ones found of each skill are the best.
    private const int KeptOfASkill = 6;

    private readonly GroupTable _table;
    private readonly int _most;
    private readonly Func<SkillId, IReadOnlyList<int>, bool> _allowed;
    private readonly Dictionary<(SkillId, UInt128), GroupColumn> _known = [];
    private readonly Solver _master = Solver.CreateSolver("GLOP");
    private readonly List<Constraint> _once;
    private readonly Constraint _groups;
    private double[] _price;
    private double _groupPrice;

    /// <param name="most">At most so many groups.</param>
    /// <param name="allowed">Whether a group keeps to what is asked of each group by itself.</param>
    public GroupColumns(GroupTable table, int most, Func<SkillId, IReadOnlyList<int>, bool> allowed)
    {
        (_table, _most, _allowed, _price) = (table, most, allowed, new double[table.Open.Count]);
        _once = [.. table.Open.Select(_ => _master.MakeConstraint(double.NegativeInfinity, 1))];
        _groups = _master.MakeConstraint(double.NegativeInfinity, most);
        _master.Objective().SetMaximization();
    }

    /// <summary>Columns met on the way to the bound.</summary>
    public IReadOnlyCollection<GroupColumn> Known => _known.Values;

    /// <summary>No set of groups brings more points than this, being left out counted back.</summary>
    public double Bound { get; private set; } = double.PositiveInfinity;

    public void Dispose() => _master.Dispose();

    /// <summary>Prices children until no column gains any more.</summary>
    /// <param name="start">Columns of a good set, from which the first prices are taken, whether they are allowed or not.</param>
    public void Generate(IReadOnlyList<GroupColumn> start, CancellationToken stop)
    {
        foreach (var column in start)
        {
            if (_allowed(column.Skill, column.Members))
            {
                Learn(column);
            }

            foreach (var member in column.Members)
            {
                _price[member] = ShareOfWorth * column.Points / column.Members.Count;
            }
        }

        var (best, bestGroupPrice) = (_price, _groupPrice);
        for (var round = 0; ; round++)
        {
            stop.ThrowIfCancellationRequested();
            var gain = 0.0;
            var news = 0;
            foreach (var skill in _table.Skills)
            {
                Search search = new(this, skill, Nothing, rising: true);
                gain = Math.Max(gain, search.Least);
                news += search.Found.TakeLast(KeptOfASkill).Count(Learn);
            }

            // The bound belongs to these prices: columns within it are looked for at the same ones.
            if (_price.Sum() + (_most * (_groupPrice + gain)) is var bound && bound < Bound)
            {
                (Bound, best, bestGroupPrice) = (bound, _price, _groupPrice + gain);
            }

            if (gain <= Nothing || news == 0 || round == MostRounds)
            {
                (_price, _groupPrice) = (best, bestGroupPrice);
                return;
            }

            if (_master.Solve() != Solver.ResultStatus.OPTIMAL)
            {
                // No prices: the bound so far holds, and what follows from it.
                (_price, _groupPrice) = (best, bestGroupPrice);
                return;
            }

            _price = [.. _once.Select(c => Math.Max(0, c.DualValue()))];
            _groupPrice = Math.Max(0, _groups.DualValue());
        }
    }

    /// <summary>Every column that can be in a set with at least so many points; null if there are more than so many of them.</summary>
    public IReadOnlyList<GroupColumn>? Within(int points, int most)
    {
        List<GroupColumn> all = [];
        foreach (var skill in _table.Skills)
        {
            Search search = new(this, skill, points - Bound - Nothing, rising: false, most - all.Count);
            if (search.TooMany)
            {
                return null;
            }

            all.AddRange(search.Found);
        }

        return all;
    }

    private bool Learn(GroupColumn column)
    {
        var mask = UInt128.Zero;
        foreach (var member in column.Members)
        {
            mask |= UInt128.One << member;
        }

        if (!_known.TryAdd((column.Skill, mask), column))
        {
            return false;
        }

        var share = _master.MakeNumVar(0, double.PositiveInfinity, "");
        _master.Objective().SetCoefficient(share, column.Points);
        _groups.SetCoefficient(share, 1);
        foreach (var member in column.Members)
        {
            _once[member].SetCoefficient(share, 1);
        }

        return true;
    }

    /// <summary>Goes through a skill's children, those worth most above their price first. What can still be added is known from sums, so most branches end at once.</summary>
    private sealed class Search
    {
        private readonly GroupColumns _columns;
        private readonly GroupTable _table;
        private readonly SkillTable _skill;
        private readonly bool _rising;
        private readonly int _mostFound;
        private readonly int _min;
        private readonly int _max;
        private readonly int[] _order;
        private readonly double[] _gain;
        private readonly double[] _sums;
        private readonly int[] _chosen;

        // Where the child stands in the order without whom this one is in no group; -1 for none.
        private readonly int[] _partner;
        private readonly int _firstLoss;
        private int _count;

        /// <param name="least">Only columns this far above their price, or more.</param>
        /// <param name="rising">Each one found has to be better than the one before.</param>
        public Search(GroupColumns columns, SkillTable skill, double least, bool rising, int mostFound = int.MaxValue)
        {
            (_columns, _table, _skill, Least, _rising, _mostFound) = (columns, columns._table, skill, least, rising, mostFound);
            (_min, _max) = (_table.Rules.MinSize, _table.Rules.MaxSize);
            double[] worth = [.. skill.Members.Select((m, i) => skill.Worth[i] - columns._price[m])];
            _order = [.. Enumerable.Range(0, worth.Length).OrderByDescending(i => worth[i]).ThenBy(i => i)];
            _gain = [.. _order.Select(i => worth[i])];
            _sums = new double[_gain.Length + 1];
            for (var i = 0; i < _gain.Length; i++)
            {
                _sums[i + 1] = _sums[i] + _gain[i];
                _firstLoss += _gain[i] > 0 ? 1 : 0;
            }

            _partner = [.. _order.Select(i => Array.FindIndex(_order, o => skill.Members[o] == _table.Together(skill.Members[i])))];
            _chosen = new int[_max];
            Go(0, new(-columns._groupPrice, 0, 0, 0, 0));
        }

        public List<GroupColumn> Found { get; } = [];

        public double Least { get; private set; }

        public bool TooMany => Found.Count > _mostFound;

        // The most that can come on top when the next child is taken from a place on: as many as a group needs, and more while they gain.
        private double Most(int from)
        {
            var needed = Math.Max(0, _min - _count);
            if (from + needed > _gain.Length)
            {
                return double.NegativeInfinity;
            }

            var until = Math.Max(from + needed, Math.Min(from + _max - _count, Math.Max(from, _firstLoss)));
            return _sums[until] - _sums[from];
        }

        private void Go(int from, Sum sum)
        {
            if (_count >= _min && sum.Over > Least && Column(sum.Points) is { } column)
            {
                Found.Add(column);
                Least = _rising ? sum.Over : Least;
            }

            if (_count == _max)
            {
                return;
            }

            for (var i = from; i < _order.Length; i++)
            {
                if (sum.Over + Most(i) <= Least || TooMany)
                {
                    return;
                }

                // Who has to sit with a child comes with it: not alone, and not once that one was passed over.
                var (before, partner) = (_count, _partner[i]);
                if (partner < i && _table.Together(_skill.Members[_order[i]]) >= 0)
                {
                    continue;
                }

                if (Take(i, sum, out var more) && (partner < 0 || Take(partner, more, out more)))
                {
                    Go(i + 1, more);
                }

                _count = before;
            }
        }

        // One more in the group; not where it is full, where two must not meet, or where two have the skill to show.
        private bool Take(int place, Sum before, out Sum after)
        {
            var own = _order[place];
            after = before;
            if (_count == _max || before.Shows + _skill.Shows[own] > 1)
            {
                return false;
            }

            var cost = 0;
            for (var j = 0; j < _count; j++)
            {
                var other = _skill.Members[_chosen[j]];
                if (_table.Apart(other, _skill.Members[own]))
                {
                    return false;
                }

                cost += _table.MetCost(other, _skill.Members[own]);
            }

            var (slips, reach) = (before.Slips | _skill.Slip[own], before.Reach | _skill.Reach[own]);
            cost +=
                (_table.SlipCost * (GroupTable.Further(slips) - GroupTable.Further(before.Slips)))
                + (_table.ReachCost * (GroupTable.Further(reach) - GroupTable.Further(before.Reach)));
            _chosen[_count++] = own;
            after = new(before.Over + _gain[place] - cost, before.Points + _skill.Worth[own] - cost, slips, reach, before.Shows + _skill.Shows[own]);
            return true;
        }

        private GroupColumn? Column(int points)
        {
            int[] members = [.. _chosen.AsSpan(0, _count).ToArray().Select(c => _skill.Members[c]).Order()];
            return _columns._allowed(_skill.Skill, members) ? new(_skill.Skill, members, points) : null;
        }

        /// <summary>What the children chosen so far come to.</summary>
        /// <param name="Over">Points above the price.</param>
        private readonly record struct Sum(double Over, int Points, int Slips, int Reach, int Shows);
    }
}
