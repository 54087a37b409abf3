using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Google.OrTools.LinearSolver;

namespace Fobble.Core.Grouping;

/// <summary>One thinkable group: a skill and children, by their places in the list of open candidates, with the points it brings (being left out counted back).</summary>
internal sealed record GroupColumn(SkillId Skill, IReadOnlyList<int> Members, int Points);

/// <summary>
/// Thinkable groups ("columns") and what can be said of all of them at once. Column generation (Gilmore and Gomory 1961): a linear program over a few
/// columns gives every child a price; for these prices the best column of each skill is found exactly; when none gains any more, the program's value is
/// a bound that no set of groups can pass, and every column that lies further below its price than bound and best set are apart can be in no better set.
/// </summary>
internal sealed class GroupColumns
{
    private const int MostRounds = 80;
    private const double Nothing = 1e-6;

    private readonly GroupingProblem _problem;
    private readonly List<Candidate> _open;
    private readonly List<SkillTable> _skills;
    private readonly int[,] _met;
    private readonly int _most;
    private readonly Func<SkillId, IReadOnlyList<int>, bool> _allowed;
    private readonly Dictionary<(SkillId, string), GroupColumn> _known = [];
    private double[] _price = [];
    private double _groupPrice;

    /// <param name="most">At most so many groups.</param>
    /// <param name="allowed">Whether a group keeps to what is asked of each group by itself.</param>
    public GroupColumns(GroupingProblem problem, int most, Func<SkillId, IReadOnlyList<int>, bool> allowed)
    {
        (_problem, _open, _most, _allowed) = (problem, [.. problem.Open], most, allowed);
        _met = new int[_open.Count, _open.Count];
        var place = _open.Select((c, i) => (c.Child, i)).ToDictionary(p => p.Child, p => p.i);
        foreach (var group in problem.MetLately)
        {
            var there = group.Where(place.ContainsKey).Select(c => place[c]).ToList();
            foreach (var one in there)
            {
                foreach (var other in there.Where(o => o != one))
                {
                    _met[one, other]++;
                }
            }
        }

        _skills = [.. _open.SelectMany(c => c.Worths.Keys).Distinct().Order().Select(TableOf).Where(t => t.Members.Length >= problem.Rules.MinSize)];
    }

    /// <summary>Columns met on the way to the bound.</summary>
    public IReadOnlyCollection<GroupColumn> Known => _known.Values;

    /// <summary>No set of groups brings more points than this, being left out counted back.</summary>
    public double Bound { get; private set; }

    /// <summary>Prices children until no column gains any more.</summary>
    public void Generate(CancellationToken stop)
    {
        _price = new double[_open.Count];
        for (var round = 0; ; round++)
        {
            stop.ThrowIfCancellationRequested();
            var gain = 0.0;
            var before = _known.Count;
            foreach (var skill in _skills)
            {
                var best = Nothing;
                foreach (var (column, over) in Search(skill, () => best, o => best = o))
                {
                    gain = Math.Max(gain, over);
                    _known.TryAdd((column.Skill, string.Join(',', column.Members)), column);
                }
            }

            Bound = _price.Sum() + (_most * (_groupPrice + gain));
            // The bound belongs to these prices: columns within it are looked for at the same ones.
            if (gain <= Nothing || _known.Count == before || round == MostRounds - 1)
            {
                return;
            }

            SolveMaster();
        }
    }

    /// <summary>Every column that can be in a set with at least so many points; null if there are more than so many of them.</summary>
    public IReadOnlyList<GroupColumn>? Within(int points, int most)
    {
        List<GroupColumn> all = [];
        var least = points - Bound - Nothing;
        foreach (var skill in _skills)
        {
            foreach (var (column, _) in Search(skill, () => least, _ => { }))
            {
                all.Add(column);
                if (all.Count > most)
                {
                    return null;
                }
            }
        }

        return all;
    }

    // Each child once, so many groups at most: the shadow prices of these are what children and groups cost.
    private void SolveMaster()
    {
        using var solver = Solver.CreateSolver("GLOP");
        var children = _open.Select(_ => solver.MakeConstraint(double.NegativeInfinity, 1)).ToList();
        var groups = solver.MakeConstraint(double.NegativeInfinity, _most);
        var objective = solver.Objective();
        objective.SetMaximization();
        foreach (var column in _known.Values)
        {
            var share = solver.MakeNumVar(0, double.PositiveInfinity, "");
            objective.SetCoefficient(share, column.Points);
            groups.SetCoefficient(share, 1);
            foreach (var member in column.Members)
            {
                children[member].SetCoefficient(share, 1);
            }
        }

        solver.Solve();
        _price = [.. children.Select(c => Math.Max(0, c.DualValue()))];
        _groupPrice = Math.Max(0, groups.DualValue());
    }

    // Goes through a skill's children, those worth most above their price first. What can still be added is known from sums, so most branches end at once.
    private IEnumerable<(GroupColumn Column, double Over)> Search(SkillTable skill, Func<double> least, Action<double> found)
    {
        var (min, max) = (_problem.Rules.MinSize, _problem.Rules.MaxSize);
        var order = Enumerable.Range(0, skill.Members.Length).OrderByDescending(i => skill.Worth[i] - _price[skill.Members[i]]).ThenBy(i => i).ToArray();
        var gain = order.Select(i => skill.Worth[i] - _price[skill.Members[i]]).ToArray();
        var sums = new double[gain.Length + 1];
        var firstLoss = 0;
        for (var i = 0; i < gain.Length; i++)
        {
            sums[i + 1] = sums[i] + gain[i];
            firstLoss += gain[i] > 0 ? 1 : 0;
        }

        List<(GroupColumn, double)> results = [];
        List<int> chosen = [];
        Go(0, -_groupPrice, 0, 0, 0, 0);
        return results;

        // The most that can come on top when the next child is taken from a place on: as many as a group needs, and more while they gain.
        double Most(int from)
        {
            var needed = Math.Max(0, min - chosen.Count);
            if (from + needed > gain.Length)
            {
                return double.NegativeInfinity;
            }

            var until = Math.Max(from + needed, Math.Min(from + max - chosen.Count, Math.Max(from, firstLoss)));
            return sums[until] - sums[from];
        }

        void Go(int from, double over, int points, int slips, int reach, int shows)
        {
            if (chosen.Count >= min && over > least() && Column(points) is { } column)
            {
                results.Add((column, over));
                found(over);
            }

            if (chosen.Count == max)
            {
                return;
            }

            for (var i = from; i < order.Length; i++)
            {
                if (over + Most(i) <= least())
                {
                    return;
                }

                var own = order[i];
                if (shows + skill.Shows[own] > 1)
                {
                    continue;
                }

                var met = chosen.Sum(c => _met[skill.Members[c], skill.Members[own]]);
                var (moreSlips, moreReach) = (slips | skill.Slip[own], reach | skill.Reach[own]);
                var cost =
                    (GroupScore.PairMet(_problem.Rules) * met)
                    + (GroupScore.FurtherSlip(_problem.Rules) * (Further(moreSlips) - Further(slips)))
                    + (GroupScore.FurtherReach(_problem.Rules) * (Further(moreReach) - Further(reach)));
                chosen.Add(own);
                Go(i + 1, over + gain[i] - cost, points + skill.Worth[own] - cost, moreSlips, moreReach, shows + skill.Shows[own]);
                chosen.RemoveAt(chosen.Count - 1);
            }
        }

        GroupColumn? Column(int points)
        {
            int[] members = [.. chosen.Select(c => skill.Members[c]).Order()];
            return _allowed(skill.Skill, members) ? new(skill.Skill, members, points) : null;
        }
    }

    private static int Further(int kinds) => Math.Max(0, System.Numerics.BitOperations.PopCount((uint)kinds) - 1);

    private SkillTable TableOf(SkillId skill)
    {
        int[] members = [.. Enumerable.Range(0, _open.Count).Where(i => _open[i].Worths.ContainsKey(skill))];
        var slips = members.Select(i => _open[i].Slips.GetValueOrDefault(skill)).OfType<string>().Distinct().ToList();
        var reaches = members.Where(i => _open[i].Reach.ContainsKey(skill)).Select(i => _open[i].Reach[skill]).Distinct().ToList();
        return new(
            skill,
            members,
            [.. members.Select(i => _open[i].Worths[skill].Total + GroupScore.CostOfLeavingOut(_open[i], _problem.Rules))],
            [.. members.Select(i => _open[i].Slips.TryGetValue(skill, out var slip) ? 1 << slips.IndexOf(slip) : 0)],
            [.. members.Select(i => _open[i].Reach.TryGetValue(skill, out var most) ? 1 << reaches.IndexOf(most) : 0)],
            [.. members.Select(i => _open[i].Worths[skill].Shows ? 1 : 0)]
        );
    }

    /// <param name="Members">Places of the candidates for whom the skill is possible.</param>
    /// <param name="Worth">Points, being left out counted back.</param>
    /// <param name="Slip">The slip as a bit, none as nothing.</param>
    /// <param name="Reach">The size of numbers as a bit.</param>
    private sealed record SkillTable(SkillId Skill, int[] Members, int[] Worth, int[] Slip, int[] Reach, int[] Shows);
}
