using Google.OrTools.Sat;

namespace Fobble.Core.Grouping;

/// <summary>
/// One search for the best groups of a problem among columns, thinkable groups: a bound that no set can pass, a set near it, and steps from the bound
/// downwards until they meet.
/// </summary>
internal sealed class ColumnSearch
{
    // Points below the bound that the first step looks at, and how much further each next one.
    private const int FirstStep = 10;
    private const double NextStep = 1.5;
    private const double LeastWork = 0.05;

    // The tree's length: linear programs, fewer where CP-SAT has an easy choice, and columns in all of them together. Columns that CP-SAT chooses from
    // within the work of the answer that is waited for: after the tree, and, before they are narrowed, where wishes leave no tree.
    private const int MostPrograms = 64;
    private const int FewPrograms = 24;
    private const int MostShares = 80_000;
    private const int EasyForSolver = 1000;
    private const int MostForSolver = 2000;
    private const int MostWished = 6000;

    // The annealing's length, its heat in points at the beginning and the end, and where its chances come from.
    private const int Steps = 80_000;
    private const double FirstHeat = 120;
    private const double LastHeat = 4;
    private const ulong Seed = 13;

    private readonly GroupingProblem _problem;
    private readonly CancellationToken _stop;
    private readonly SlotClasses _slots;
    private readonly GroupTable _table;
    private readonly bool _plain;

    /// <summary>Groups there can be.</summary>
    private readonly int _most;

    /// <summary>Points with nobody in a group but where it is fixed: columns are told against them.</summary>
    private readonly int _without;

    private ColumnSearch(GroupingProblem problem, CancellationToken stop)
    {
        (_problem, _stop) = (problem, stop);
        (_slots, _table) = (new(problem), new(problem));
        _most = Math.Min(_slots.Free.Count, _table.Open.Count / problem.Rules.MinSize);
        _without = GroupScore.Of(problem, problem.Fixed);

        // Places are all alike and open to everyone, and nothing is asked but the rules.
        _plain =
            problem.Rules.Wishes.Count == 0
            && problem.Unlike.Count == 0
            && _slots.Classes.Count == 1
            && _slots.Moments.Count == 0
            && problem.Open.All(c => !_slots.Free.Any(c.AwayIn.Contains));
    }

    /// <summary>The best set it comes to, with a bound that holds for all sets; null where none was found that keeps all wishes.</summary>
    /// <param name="found">A set to better.</param>
    /// <param name="mostColumns">Without a proof where more would have to be looked at.</param>
    /// <param name="work">In the solver's units, about a second each.</param>
    public static GroupingResult? Run(GroupingProblem problem, GroupingResult? found, int mostColumns, double work, CancellationToken stop) =>
        new ColumnSearch(problem, stop).Run(found, mostColumns, work);

    private GroupingResult? Run(GroupingResult? found, int mostColumns, double work)
    {
        using GroupColumns columns = new(_table, _most, (skill, members) => _slots.Allows(skill, [.. members.Select(m => _table.Open[m])]));
        // A good set for the prices to begin from; where wishes are kept it may break some.
        var start = GroupAnnealing.Run(_table, _most, Steps, FirstHeat, LastHeat, Seed);
        columns.Generate(start, _stop);
        _stop.ThrowIfCancellationRequested();
        var bound = Math.Min((int)Math.Floor(columns.Bound + 1e-4) + _without, Grouper.MostThinkable(_problem));
        if (FirstOf(columns.Known, _plain && start.Count > 0 ? ResultOf(start) : null, found) is not { } first)
        {
            return null;
        }

        if (first.Score >= bound)
        {
            return first with { ProvenBest = true, Bound = first.Score };
        }

        // From the bound downwards: all columns that could be in a set with so many points. If there is such a set, the best of them is the best of all;
        // if there is none, the bound falls, and a step further down is looked at.
        for (var step = FirstStep; ; step = (int)(step * NextStep))
        {
            // A step that would leave little goes all the way.
            var points = bound + 1 - step - first.Score <= step / 2 ? first.Score + 1 : bound + 1 - step;
            if (columns.Within(points - _without, mostColumns) is not { } all)
            {
                return first with { ProvenBest = false, Bound = bound };
            }

            var (better, complete, above) = BestOf(all, points, ref work, first.Groups);
            first = better?.Score > first.Score ? better : first;
            // What is said here holds for these columns only: a set without them has fewer points than the step looks for.
            bound = Math.Min(bound, Math.Max(first.Score, complete ? points - 1 : Math.Max(above, points - 1)));
            if (first.Score >= bound || !complete || work < LeastWork)
            {
                return first with { ProvenBest = first.Score >= bound, Bound = bound };
            }
        }
    }

    // The best of what annealing found, of the columns met on the way to the bound, which hold a good set too, and of the set to better.
    private GroupingResult? FirstOf(IEnumerable<GroupColumn> known, GroupingResult? annealed, GroupingResult? found)
    {
        var least = Math.Max(annealed?.Score ?? int.MinValue, found?.Score ?? int.MinValue);
        var work = Grouper.FirstWork;
        var met = BestOf([.. known], least == int.MinValue ? null : least + 1, ref work, (annealed ?? found)?.Groups ?? []);
        var first = annealed is null || met.Best?.Score > annealed.Score ? met.Best : annealed;
        return found is null || first?.Score > found.Score ? first : found;
    }

    // The best of some columns that brings so many points, looked for among those that still can be in such a set; null for points where any set will do.
    private (GroupingResult? Best, bool Complete, int Bound) BestOf(
        IReadOnlyList<GroupColumn> all,
        int? points,
        ref double work,
        IReadOnlyList<FormedGroup> hint
    )
    {
        if (points is not { } least)
        {
            return Choose(all, ref work, hint);
        }

        // More columns than the work that is left can choose from are not even narrowed: with wishes that alone takes half a second.
        if (!_plain && all.Count > MostWished * work / Grouper.SecondWork)
        {
            return (null, false, int.MaxValue);
        }

        using ColumnPool pool = new(_table.Open.Count, _most, all);
        pool.Narrow(least - _without, _stop);
        if (pool.Columns.Count == 0 || pool.Bound < least - _without - 1e-4)
        {
            return (null, true, int.MinValue);
        }

        // With more work to do, the tree may be as much larger, and the choice too.
        var more = Math.Max(1, work / Grouper.SecondWork);
        var above = (int)Math.Floor(pool.Bound + 1e-4) + _without;
        GroupingResult? first = null;
        if (_plain)
        {
            var programs = Math.Min(pool.Columns.Count <= EasyForSolver ? FewPrograms : MostPrograms, MostShares / pool.Columns.Count);
            var (columns, sure) = pool.Best(least - _without, (int)(more * programs), _stop);
            first = columns is null ? null : ResultOf(columns);
            if (sure)
            {
                return (first, true, first?.Score ?? int.MinValue);
            }
        }

        if (_plain && pool.Columns.Count > more * MostForSolver)
        {
            return (first, false, above);
        }

        var (best, complete, bound) = Choose(pool.Columns, ref work, first?.Groups ?? hint);
        return (best is null || first?.Score > best.Score ? first : best, complete, Math.Min(bound, above));
    }

    // Complete: there is nothing better among these columns. What was worked is taken off the work.
    private (GroupingResult? Best, bool Complete, int Bound) Choose(IReadOnlyList<GroupColumn> columns, ref double work, IReadOnlyList<FormedGroup> hint)
    {
        ColumnModel model = new(_problem, _slots, columns);
        model.Hint(hint);
        var solver = new CpSolver { StringParameters = Grouper.Parameters(work) };
        using var cancel = _stop.Register(solver.StopSearch);
        var status = solver.Solve(model.Model);
        work -= solver.Response!.DeterministicTime;
        _stop.ThrowIfCancellationRequested();
        return status switch
        {
            CpSolverStatus.Optimal or CpSolverStatus.Feasible => (
                ResultOf(model.Read(solver)),
                status == CpSolverStatus.Optimal,
                (int)Math.Floor(solver.BestObjectiveBound + 1e-6) + _without
            ),
            CpSolverStatus.Infeasible => (null, true, int.MinValue),
            CpSolverStatus.Unknown => (null, false, int.MaxValue),
            _ => throw Grouper.Invalid(),
        };
    }

    // Columns of places that are all alike, in the order of the places.
    private GroupingResult ResultOf(IReadOnlyList<GroupColumn> columns) =>
        ResultOf([
            .. _problem
                .Fixed.Concat(columns.Select((c, i) => new FormedGroup(c.Skill, _slots.Free[i], [.. c.Members.Select(m => _table.Open[m].Child).Order()])))
                .OrderBy(g => g.Slot),
        ]);

    private GroupingResult ResultOf(IReadOnlyList<FormedGroup> groups) => Grouper.ResultOf(_problem, PlaceChoice.Of(_problem, groups));
}
