using Google.OrTools.LinearSolver;

namespace Fobble.Core.Grouping;

/// <summary>
/// Of all columns that could be in a set with so many points, those that still can once the linear program is made tighter: of three children, columns that hold two of
/// them exclude each other (subset-row cuts, Jepsen, Petersen, Spoorendonk and Pisinger 2008), and a column whose reduced cost is larger than what is left between
/// the program's value and the points is in no such set.
/// </summary>
internal sealed class ColumnPool : IDisposable
{
    private const int MostRounds = 12;
    private const int MostCutsARound = 40;
    private const int MostCutsThroughAChild = 8;
    private const double Violated = 0.02;
    private const double Nothing = 1e-6;
    private const double Whole = 1e-4;

    private readonly int _children;
    private readonly int _most;
    private readonly List<GroupColumn> _columns;
    private readonly List<Variable> _shares = [];
    private readonly List<double> _values = [];
    private readonly Solver _program = Solver.CreateSolver("GLOP");
    private readonly List<Constraint> _once;
    private readonly Constraint _groups;
    private readonly List<(int A, int B, int C, Constraint Row)> _cuts = [];

    /// <param name="children">How many there are to be in groups.</param>
    /// <param name="most">At most so many groups.</param>
    public ColumnPool(int children, int most, IReadOnlyList<GroupColumn> columns)
    {
        (_children, _most, _columns) = (children, most, [.. columns]);
        _once = [.. Enumerable.Range(0, children).Select(_ => _program.MakeConstraint(double.NegativeInfinity, 1))];
        _groups = _program.MakeConstraint(double.NegativeInfinity, most);
        _program.Objective().SetMaximization();
        foreach (var column in _columns)
        {
            var share = _program.MakeNumVar(0, double.PositiveInfinity, "");
            _program.Objective().SetCoefficient(share, column.Points);
            _groups.SetCoefficient(share, 1);
            foreach (var member in column.Members)
            {
                _once[member].SetCoefficient(share, 1);
            }

            _shares.Add(share);
        }
    }

    /// <summary>No set of these columns has more points than this.</summary>
    public double Bound { get; private set; } = double.PositiveInfinity;

    public IReadOnlyList<GroupColumn> Columns => _columns;

    public void Dispose() => _program.Dispose();

    /// <summary>Leaves out what can't be in a set with at least so many points; ends when nothing more can be told so.</summary>
    public void Narrow(int points, CancellationToken stop)
    {
        for (var round = 0; round < MostRounds; round++)
        {
            stop.ThrowIfCancellationRequested();
            if (!IsSolved())
            {
                return;
            }

            Fix(points);
            if (Bound < points - Nothing || _columns.Count == 0 || Cut() == 0)
            {
                return;
            }
        }
    }

    /// <summary>
    /// The best set of the columns that are left with at least so many points, by a tree on pairs of children who sit together or do not (Ryan and Foster 1981). For
    /// columns between which nothing but points decides.
    /// </summary>
    /// <param name="programs">Linear programs it may solve.</param>
    /// <returns>Null where there is none; complete where that is sure. What was not looked through has no more points than the bound.</returns>
    public (IReadOnlyList<GroupColumn>? Best, bool Complete) Best(int points, int programs, CancellationToken stop)
    {
        IReadOnlyList<GroupColumn>? best = null;
        var off = new bool[_columns.Count];
        KeepOneOfAKind(off);
        Look();
        return (best, programs > 0);

        void Look()
        {
            stop.ThrowIfCancellationRequested();
            if (--programs <= 0 || !IsSolved())
            {
                programs = 0;
                return;
            }

            var (bound, over) = Priced(off);
            if (bound < points - Nothing)
            {
                return;
            }

            if (Undecided() is not var (a, b))
            {
                // A solution that is not whole though no pair is open is none to go by.
                programs = _values.All(v => v < Whole || v > 1 - Whole) ? programs : 0;
                List<GroupColumn> whole = [.. _columns.Where((_, i) => !off[i] && _values[i] > 0.5)];
                if (whole.Sum(c => c.Points) is var found && found >= points)
                {
                    (best, points) = (whole, found + 1);
                }

                return;
            }

            var apart = Put(i => bound + over[i] < points - Nothing, off);
            var together = Put(i => _columns[i].Members.Contains(a) != _columns[i].Members.Contains(b), off);
            Look();
            Back(together, off);
            if (programs > 0)
            {
                var both = Put(i => _columns[i].Members.Contains(a) && _columns[i].Members.Contains(b), off);
                Look();
                Back(both, off);
            }

            Back(apart, off);
        }
    }

    // A program the solver loses its way in is tried once more from nothing; where that does not help, nothing is told from it.
    private bool IsSolved()
    {
        if (_program.Solve() != Solver.ResultStatus.OPTIMAL)
        {
            _program.Reset();
            if (_program.Solve() != Solver.ResultStatus.OPTIMAL)
            {
                return false;
            }
        }

        _values.Clear();
        _values.AddRange(_shares.Select(s => s.SolutionValue()));
        return true;
    }

    private List<int> Put(Func<int, bool> which, bool[] off)
    {
        List<int> put = [.. Enumerable.Range(0, _columns.Count).Where(i => !off[i] && which(i))];
        foreach (var i in put)
        {
            off[i] = true;
            _shares[i].SetBounds(0, 0);
        }

        return put;
    }

    private void Back(List<int> put, bool[] off)
    {
        foreach (var i in put)
        {
            off[i] = false;
            _shares[i].SetBounds(0, double.PositiveInfinity);
        }
    }

    // Of columns with the same children the one with most points.
    private void KeepOneOfAKind(bool[] off)
    {
        Dictionary<UInt128, int> first = [];
        foreach (var i in Enumerable.Range(0, _columns.Count).OrderByDescending(i => _columns[i].Points).ThenBy(i => i))
        {
            var mask = _columns[i].Members.Aggregate(UInt128.Zero, (m, c) => m | (UInt128.One << c));
            if (!first.TryAdd(mask, i))
            {
                off[i] = true;
                _shares[i].SetBounds(0, 0);
            }
        }
    }

    // Two children who sit together in part: the pair about which least is decided.
    private (int A, int B)? Undecided()
    {
        var pair = new double[_children, _children];
        for (var i = 0; i < _columns.Count; i++)
        {
            if (_values[i] > Nothing)
            {
                var members = _columns[i].Members;
                for (var a = 0; a < members.Count; a++)
                {
                    for (var b = a + 1; b < members.Count; b++)
                    {
                        pair[members[a], members[b]] += _values[i];
                    }
                }
            }
        }

        (int, int)? most = null;
        var best = 1e-5;
        for (var a = 0; a < _children; a++)
        {
            for (var b = a + 1; b < _children; b++)
            {
                if (Math.Min(pair[a, b], 2 * (1 - pair[a, b])) is var open && open > best)
                {
                    (most, best) = ((a, b), open);
                }
            }
        }

        return most;
    }

    private void Fix(int points)
    {
        var (bound, over) = Priced(new bool[_columns.Count]);
        Bound = Math.Min(Bound, bound);
        for (var i = _columns.Count - 1; i >= 0; i--)
        {
            if (bound + over[i] < points - Nothing)
            {
                _shares[i].SetBounds(0, 0);
                _columns.RemoveAt(i);
                _shares.RemoveAt(i);
                _values.RemoveAt(i);
            }
        }
    }

    // Prices, not the program's own value, give the bound: they hold whatever the solver's tolerance was. Over: how far each column lies above its price, never above
    // nothing, since what is left of that is in the bound.
    private (double Bound, double[] Over) Priced(bool[] off)
    {
        double[] price = [.. _once.Select(c => Math.Max(0, c.DualValue()))];
        double[] cutPrice = [.. _cuts.Select(c => Math.Max(0, c.Row.DualValue()))];
        var groupPrice = Math.Max(0, _groups.DualValue());
        double[] over = [.. _columns.Select(Over)];
        var raised = Math.Max(0, over.Where((_, i) => !off[i]).DefaultIfEmpty(0).Max());
        return (price.Sum() + cutPrice.Sum() + (_most * (groupPrice + raised)), [.. over.Select(o => o - raised)]);

        double Over(GroupColumn column)
        {
            var over = column.Points - groupPrice;
            foreach (var member in column.Members)
            {
                over -= price[member];
            }

            for (var c = 0; c < _cuts.Count; c++)
            {
                if (cutPrice[c] > 0 && InTwo(column, _cuts[c].A, _cuts[c].B, _cuts[c].C))
                {
                    over -= cutPrice[c];
                }
            }

            return over;
        }
    }

    // Rows for the three children of whom two sit together in more than one group's worth of columns.
    private int Cut()
    {
        var pair = new double[_children, _children];
        Dictionary<(int, int, int), double> three = [];
        for (var i = 0; i < _columns.Count; i++)
        {
            if (_values[i] is var share && share > Nothing && share < 1 - Nothing)
            {
                var members = _columns[i].Members;
                for (var a = 0; a < members.Count; a++)
                {
                    for (var b = a + 1; b < members.Count; b++)
                    {
                        pair[members[a], members[b]] += share;
                        for (var c = b + 1; c < members.Count; c++)
                        {
                            var key = (members[a], members[b], members[c]);
                            three[key] = three.GetValueOrDefault(key) + share;
                        }
                    }
                }
            }
        }

        // A column with all three was counted for each of its pairs.
        List<(int A, int B, int C, double Weight)> found = [];
        for (var a = 0; a < _children; a++)
        {
            for (var b = a + 1; b < _children; b++)
            {
                for (var c = b + 1; c < _children; c++)
                {
                    var weight = pair[a, b] + pair[a, c] + pair[b, c];
                    if (weight > 1 + Violated)
                    {
                        weight -= 2 * three.GetValueOrDefault((a, b, c));
                        if (weight > 1 + Violated)
                        {
                            found.Add((a, b, c, weight));
                        }
                    }
                }
            }
        }

        var through = new int[_children];
        var cut = 0;
        foreach (var (a, b, c, _) in found.OrderByDescending(f => f.Weight).ThenBy(f => (f.A, f.B, f.C)))
        {
            if (cut == MostCutsARound)
            {
                break;
            }

            if (through[a] < MostCutsThroughAChild && through[b] < MostCutsThroughAChild && through[c] < MostCutsThroughAChild)
            {
                (through[a], through[b], through[c], cut) = (through[a] + 1, through[b] + 1, through[c] + 1, cut + 1);
                var row = _program.MakeConstraint(double.NegativeInfinity, 1);
                for (var i = 0; i < _columns.Count; i++)
                {
                    if (InTwo(_columns[i], a, b, c))
                    {
                        row.SetCoefficient(_shares[i], 1);
                    }
                }

                _cuts.Add((a, b, c, row));
            }
        }

        return cut;
    }

    private static bool InTwo(GroupColumn column, int a, int b, int c)
    {
        var there = 0;
        foreach (var member in column.Members)
        {
            there += member == a || member == b || member == c ? 1 : 0;
        }

        return there >= 2;
    }
}
