using System.Globalization;
using Fobble.Core.Evidence;
using Google.OrTools.Sat;

namespace Fobble.Core.Grouping;

/// <summary>How far a search has come.</summary>
/// <param name="Score">Points of the best groups so far.</param>
/// <param name="Bound">No set can have more points than this.</param>
public sealed record GroupingProgress(int Score, int Bound);

/// <summary>
/// Finds the best groups (rule R13): from thinkable groups and a bound on all of them by column generation, the choice by OR-Tools CP-SAT; where few sets
/// keep all wishes, children go one by one to copies of skills instead. Deterministic: one worker, a fixed seed, and work counted instead of time.
/// </summary>
public static class Grouper
{
    /// <summary>Options of each child that the first look considers, where columns are too many; the most worth first.</summary>
    private const int FirstLook = 5;

    private const int MostColumns = 25_000;
    private const int MostColumnsLong = 200_000;

    /// <summary>Work of a first look, in the solver's units.</summary>
    internal const double FirstWork = 0.1;

    /// <summary>Work of the answer that is waited for.</summary>
    internal const double SecondWork = 0.3;

    private const double LongWork = 30;
    private const double ExplainWork = 1;

    /// <summary>The best groups within a fixed amount of work, about a second; says whether they are proven best, or which wishes can't hold together.</summary>
    public static GroupingResult Form(GroupingProblem problem, CancellationToken stop = default)
    {
        ArgumentNullException.ThrowIfNull(problem);
        if (ColumnSearch.Run(problem, null, MostColumns, SecondWork, stop) is { } found)
        {
            return found;
        }

        // Columns met on the way to the bound hold none that keeps all wishes: can they be kept at all?
        var conflict = Conflict(problem, stop);
        return conflict.Count > 0 ? WithoutGroups(problem, conflict) : ByChildren(problem, stop) ?? WithoutGroups(problem, []);
    }

    /// <summary>Goes on from groups that were found, with many times the work, and tells of each better set and bound on the way.</summary>
    public static GroupingResult Improve(GroupingProblem problem, GroupingResult found, IProgress<GroupingProgress>? progress, CancellationToken stop)
    {
        ArgumentNullException.ThrowIfNull(problem);
        ArgumentNullException.ThrowIfNull(found);

        // Groups put by hand may break rules: there is nothing to better then, and it begins anew.
        var start = GroupScore.Keeps(problem, found.Groups) ? found : Form(problem, stop);
        if (start.Conflict.Count > 0)
        {
            return start;
        }

        var first = ColumnSearch.Run(problem, start, MostColumnsLong, LongWork, stop)!;
        progress?.Report(new(first.Score, first.Bound));
        if (first.ProvenBest)
        {
            return first;
        }

        var open = WithOptions(problem, (_, _, below) => below <= MostThinkable(problem) - first.Score);
        var second = Solve(problem, open, LongWork, first.Groups, progress, stop);
        var best = Better(problem, first, second)!;
        return best with { Bound = Math.Max(best.Score, Math.Min(best.Bound, first.Bound)) };
    }

    // Children to copies of skills: what is left when columns do not do, as where few sets keep all wishes.
    private static GroupingResult? ByChildren(GroupingProblem problem, CancellationToken stop)
    {
        // A first look at each child's best options gives a set of groups that is good. No set can have more points than every child
        // at its best; so an option that lies further below its child's best than the two are apart can be in no better set.
        var narrow = WithOptions(problem, (_, rank, _) => rank < FirstLook);
        var first = Solve(problem, narrow, FirstWork, [], null, stop);
        var open = first is null ? problem : WithOptions(problem, (_, _, below) => below <= MostThinkable(problem) - first.Score);
        var widened = open.Children.Zip(narrow.Children).Any(pair => pair.First.Worths.Keys.Except(pair.Second.Worths.Keys).Any());
        return first is { ProvenBest: true } && !widened ? first : Better(problem, first, Solve(problem, open, SecondWork, first?.Groups ?? [], null, stop));
    }

    /// <summary>Groups that somebody has put so, as something that was found: their points, and a bound that is safe but far.</summary>
    public static GroupingResult AsFound(GroupingProblem problem, IReadOnlyList<FormedGroup> groups)
    {
        ArgumentNullException.ThrowIfNull(problem);
        var result = ResultOf(problem, groups);
        return result with { Bound = Math.Max(result.Score, MostThinkable(problem)) };
    }

    /// <summary>Sets nearly as good, best first, of which each gives another aim to at least <see cref="GroupingProblem.LeastUnlike"/> children than the set found and than those before.</summary>
    public static IReadOnlyList<GroupingResult> Others(GroupingProblem problem, GroupingResult found, int most, CancellationToken stop = default)
    {
        ArgumentNullException.ThrowIfNull(problem);
        ArgumentNullException.ThrowIfNull(found);
        List<GroupingResult> others = [];
        while (others.Count < most)
        {
            var next = Form(problem with { Unlike = [found.Groups, .. others.Select(o => o.Groups)] }, stop);
            if (next.Groups.Count == 0 || next.Conflict.Count > 0)
            {
                break;
            }

            others.Add(next);
        }

        return others;
    }

    // A malformed string ends the process, so it is built here only and held by a test. Work is counted by the solver in its own
    // units, about a second each, and not by the clock: that keeps the answer the same on slow machines.
    internal static string Parameters(double work, int linear = 2) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"num_workers:1 random_seed:7 linearization_level:{linear} cp_model_probing_level:0 max_deterministic_time:{work:0.0}"
        );

    // No child can bring more than its best, and what is fixed is known.
    internal static int MostThinkable(GroupingProblem problem) =>
        problem.Open.Sum(c => Math.Max(BestOf(c), -GroupScore.CostOfLeavingOut(c, problem.Rules))) + problem.Fixed.Sum(g => GroupScore.OfGroup(problem, g));

    private static int BestOf(Candidate candidate) => candidate.Worths.Values.Select(w => w.Total).DefaultIfEmpty(int.MinValue).Max();

    private static GroupingProblem WithOptions(GroupingProblem problem, Func<Candidate, int, int, bool> keep)
    {
        var wished = problem
            .Rules.Wishes.Select(w =>
                w switch
                {
                    AimWish aim => aim.Skill,
                    WorkWish work => work.Skill,
                    _ => default,
                }
            )
            .ToHashSet();
        return problem with
        {
            Children =
            [
                .. problem.Children.Select(c =>
                    c with
                    {
                        Worths = c
                            .Worths.OrderByDescending(w => w.Value.Total)
                            .ThenBy(w => w.Key)
                            .Where((w, rank) => wished.Contains(w.Key) || keep(c, rank, BestOf(c) - w.Value.Total))
                            .ToDictionary(w => w.Key, w => w.Value),
                    }
                ),
            ],
        };
    }

    private static GroupingResult? Better(GroupingProblem problem, GroupingResult? first, GroupingResult? second)
    {
        if (
            (
                first is null ? second
                : second is null || second.Score < first.Score ? first
                : second
            )
            is not { } best
        )
        {
            return null;
        }

        var bound = Math.Max(best.Score, Math.Min(second?.Bound ?? int.MaxValue, MostThinkable(problem)));
        return best with { Bound = bound, ProvenBest = second?.ProvenBest == true || bound <= best.Score };
    }

    private static GroupingResult WithoutGroups(GroupingProblem problem, IReadOnlyList<Wish> conflict) =>
        new([], [.. problem.Children.Select(c => c.Child)], GroupScore.Of(problem, []), false, MostThinkable(problem)) { Conflict = conflict };

    // Null where nothing was found: no set keeps all wishes, or the work did not reach.
    private static GroupingResult? Solve(
        GroupingProblem whole,
        GroupingProblem problem,
        double work,
        IReadOnlyList<FormedGroup> hint,
        IProgress<GroupingProgress>? progress,
        CancellationToken stop
    )
    {
        stop.ThrowIfCancellationRequested();
        var model = new GroupingModel(problem);
        model.Hint(hint);
        var solver = new CpSolver { StringParameters = Parameters(work) };
        using var cancel = stop.Register(solver.StopSearch);
        using var teller = progress is null ? null : new Teller(whole, model, progress);
        if (progress is not null)
        {
            solver.SetBestBoundCallback(bound => teller!.Bounded(model.BoundFrom(bound)));
        }

        var status = solver.Solve(model.Model, teller);
        if (status is CpSolverStatus.ModelInvalid)
        {
            throw Invalid();
        }

        if (status is CpSolverStatus.Unknown && whole.Rules.Wishes.Count == 0 && whole.Unlike.Count == 0)
        {
            // Out of work before anything was found: no group at all is always allowed.
            return WithoutGroups(whole, []);
        }

        if (status is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible))
        {
            return null;
        }

        var result = ResultOf(whole, PlaceChoice.Of(whole, model.Read(solver.BooleanValue)));
        return status == CpSolverStatus.Optimal ? result with { ProvenBest = true } : result with { Bound = model.BoundFrom(solver.BestObjectiveBound) };
    }

    internal static GroupingResult ResultOf(GroupingProblem problem, IReadOnlyList<FormedGroup> groups)
    {
        var placed = groups.SelectMany(g => g.Children).ToHashSet();
        var score = GroupScore.Of(problem, groups);
        return new(groups, [.. problem.Children.Select(c => c.Child).Where(c => !placed.Contains(c))], score, false, score);
    }

    internal static InvalidOperationException Invalid() => new(Phrase("The solver does not take the model: it is at fault, not the wishes."));

    /// <summary>The smallest set of wishes that can't hold together: each of them is needed for it. Empty if they can, or if it could not be found out.</summary>
    public static IReadOnlyList<Wish> Conflict(GroupingProblem problem, CancellationToken stop = default)
    {
        ArgumentNullException.ThrowIfNull(problem);
        if (CoreOf(problem, stop) is not { } core)
        {
            return [];
        }

        // What the solver names is enough, but rarely smallest: what can be left out of it one by one is left out.
        foreach (var wish in core.ToList())
        {
            if (CoreOf(With(problem, [.. core.Where(w => w != wish)]), stop) is { } smaller)
            {
                core = [.. core.Where(w => w != wish && smaller.Contains(w))];
            }
        }

        return core;
    }

    private static GroupingProblem With(GroupingProblem problem, IReadOnlyList<Wish> wishes) => problem with { Rules = problem.Rules with { Wishes = wishes } };

    // Null where a set of groups keeps all wishes.
    private static IReadOnlyList<Wish>? CoreOf(GroupingProblem problem, CancellationToken stop)
    {
        stop.ThrowIfCancellationRequested();
        GroupingModel model = new(problem, explain: true);

        // Whether wishes contradict each other is logic; linear programs would only eat the work.
        var solver = new CpSolver { StringParameters = Parameters(ExplainWork, linear: 0) };
        using var cancel = stop.Register(solver.StopSearch);
        return solver.Solve(model.Model) == CpSolverStatus.Infeasible ? model.Core(solver) : null;
    }

    private sealed class Teller(GroupingProblem problem, GroupingModel model, IProgress<GroupingProgress> progress) : CpSolverSolutionCallback
    {
        private int _score = int.MinValue;
        private int _bound = MostThinkable(problem);

        public override void OnSolutionCallback()
        {
            _score = GroupScore.Of(problem, model.Read(BooleanValue));
            progress.Report(new(_score, _bound));
        }

        public void Bounded(int bound)
        {
            _bound = Math.Min(_bound, bound);
            if (_score != int.MinValue)
            {
                progress.Report(new(_score, _bound));
            }
        }
    }
}
