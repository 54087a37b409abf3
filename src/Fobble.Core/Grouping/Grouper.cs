using System.Globalization;
using Google.OrTools.Sat;

namespace Fobble.Core.Grouping;

/// <summary>
/// Finds the best groups (rule R13) with OR-Tools CP-SAT: a child goes to one of several possible copies of a skill; open copies take
/// a slot each. Deterministic: one worker, a fixed seed, and work counted instead of time.
/// </summary>
public static class Grouper
{
    /// <summary>Options of each child that the first look considers, the most worth first.</summary>
    private const int FirstLook = 5;

    private const double FirstWork = 0.4;
    private const double SecondWork = 0.6;

    /// <summary>The best groups within a fixed amount of work; says whether they are proven best.</summary>
    public static GroupingResult Form(GroupingProblem problem)
    {
        ArgumentNullException.ThrowIfNull(problem);

        // A first look at each child's best options gives a set of groups that is good. No set can have more points than every child
        // at its best; so an option that lies further below its child's best than the two are apart can be in no better set.
        var narrow = WithOptions(problem, (_, rank, _) => rank < FirstLook);
        var first = Solve(problem, narrow, FirstWork, []);
        var gap = MostThinkable(problem) - first.Score;
        var open = WithOptions(problem, (_, _, below) => below <= gap);
        var widened = open.Children.Zip(narrow.Children).Any(pair => pair.First.Worths.Keys.Except(pair.Second.Worths.Keys).Any());
        if (first.ProvenBest && !widened)
        {
            return first;
        }

        var second = Solve(problem, open, SecondWork, first.Groups);
        var (best, bound) = (second.Score >= first.Score ? second : first, Math.Min(second.Bound, MostThinkable(problem)));
        return best with { Bound = Math.Max(bound, best.Score), ProvenBest = second.ProvenBest || bound <= best.Score };
    }

    // A malformed string ends the process, so it is built here only and held by a test. Work is counted by the solver in its own
    // units, about a second each, and not by the clock: that keeps the answer the same on slow machines.
    internal static string Parameters(double work) =>
        string.Create(CultureInfo.InvariantCulture, $"num_workers:1 random_seed:7 linearization_level:2 cp_model_probing_level:0 max_deterministic_time:{work:0.0}");

    private static int MostThinkable(GroupingProblem problem) =>
        problem.Children.Sum(c => Math.Max(BestOf(c), -GroupScore.CostOfLeavingOut(c, problem.Rules)));

    private static int BestOf(Candidate candidate) => candidate.Worths.Values.Select(w => w.Total).DefaultIfEmpty(int.MinValue).Max();

    private static GroupingProblem WithOptions(GroupingProblem problem, Func<Candidate, int, int, bool> keep) => problem with
    {
        Children =
        [
            .. problem.Children.Select(c => c with
            {
                Worths = c.Worths.OrderByDescending(w => w.Value.Total).ThenBy(w => w.Key).Where((w, rank) => keep(c, rank, BestOf(c) - w.Value.Total)).ToDictionary(w => w.Key, w => w.Value),
            }),
        ],
    };

    private static GroupingResult Solve(GroupingProblem whole, GroupingProblem problem, double work, IReadOnlyList<FormedGroup> hint)
    {
        var model = new GroupingModel(problem);
        model.Hint(hint);
        var solver = new CpSolver { StringParameters = Parameters(work) };
        var status = solver.Solve(model.Model);
        if (status == CpSolverStatus.Unknown)
        {
            // Out of work before anything was found: no group at all is always allowed.
            return new GroupingResult([], [.. whole.Children.Select(c => c.Child)], GroupScore.Of(whole, []), false, MostThinkable(whole));
        }

        if (status is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible))
        {
            throw new InvalidOperationException($"The solver ended with {status}: the model is at fault, not the wishes.");
        }

        var groups = model.Read(solver);
        var placed = groups.SelectMany(g => g.Children).ToHashSet();
        var score = GroupScore.Of(whole, groups);
        var proven = status == CpSolverStatus.Optimal;
        return new GroupingResult(groups, [.. whole.Children.Select(c => c.Child).Where(c => !placed.Contains(c))], score, proven, proven ? score : model.BoundFrom(solver.BestObjectiveBound));
    }
}
