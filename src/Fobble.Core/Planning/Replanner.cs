using System.Globalization;
using Fobble.Core.Skills;
using Google.OrTools.Sat;

namespace Fobble.Core.Planning;

/// <summary>A lesson of the plan that is looked at again.</summary>
/// <param name="Item">Index of its skill in the problem.</param>
/// <param name="Was">Index of its day before; below zero where it was given so many school days ago; null where it never had one.</param>
/// <param name="Held">Must stay where it was.</param>
/// <param name="Near">Index of the day near which one without a day best lies; null for after the others of its skill.</param>
public sealed record FreeLesson(int Item, int? Was, bool Held, int? Near = null);

/// <summary>
/// Where each lesson comes to lie.
/// </summary>
/// <param name="Days">
/// Index of the day for each lesson, in the order they were given; null where there is no room any more. Lessons of one skill are alike: one that
/// keeps its day may lie before or after another that came before it, and what counts is which days the skill has.
/// </param>
/// <param name="ProvenFewest">No arrangement within reach moves fewer.</param>
public sealed record Rearranged(IReadOnlyList<int?> Days, bool ProvenFewest);

/// <summary>
/// Makes room in a plan with as few moves as can be (rule R12): a lesson may go up to twenty school days from its old place and lie up to sixty days
/// ahead; beyond, and where it is held, it stays. Solved with OR-Tools CP-SAT; if there is no way within that reach, once more with a further one; and if
/// there is no room at all, some fall out of the year: as few as can be found, starting from those that have no place when all are pushed on.
/// </summary>
public static class Replanner
{
    private const int Reach = 20;
    private const int Ahead = 60;
    private const int FurtherReach = 40;
    private const int FurtherAhead = 90;
    private const int MoveCost = 1000;
    private const int BufferCost = 3;

    // More than any number of moves: a lesson falls out of the year only when nothing else is left.
    private const int FallCost = 200_000;
    private const double Work = 1;

    // So near to the best in days apart is near enough. It is far less than a move costs: the number of moves is proven all the same.
    private const int NearEnough = 40;

    /// <param name="problem">Days (without room where lessons are lost), skills with as many lessons as are still to come, and what they need.</param>
    /// <param name="lessons">The lessons to come, those of one skill in order.</param>
    /// <param name="allowance">School days by which a skill may be stretched beyond the usual span: as many as were lost in it.</param>
    /// <returns>Null if what is held can't hold together.</returns>
    public static Rearranged? FewestMoves(PlanProblem problem, IReadOnlyList<FreeLesson> lessons, int allowance, CancellationToken stop = default)
    {
        ArgumentNullException.ThrowIfNull(problem);
        ArgumentNullException.ThrowIfNull(lessons);
        if (lessons.Any(l => l.Held && l.Was is { } was && was >= 0 && (was >= problem.Days.Count || problem.Days[was].Places == 0)))
        {
            return null;
        }

        if (
            (Solve(problem, lessons, allowance, Reach, Ahead, [], stop) ?? Solve(problem, lessons, allowance, FurtherReach, FurtherAhead, [], stop)) is
            { } found
        )
        {
            return found;
        }

        var pushed = Pushed(problem, lessons);
        return Solve(problem, lessons, allowance, problem.Days.Count, problem.Days.Count, pushed, stop)
            ?? (lessons.Any(l => l is { Held: true, Was: >= 0 }) ? null : new(Matched(lessons, pushed), false));
    }

    // A malformed string ends the process, so it is built here only and held by a test.
    internal static string Parameters(double work) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"num_workers:1 random_seed:7 linearization_level:2 cp_model_probing_level:0 symmetry_level:0 absolute_gap_limit:{NearEnough} max_deterministic_time:{work:0.0}"
        );

    private static Rearranged? Solve(
        PlanProblem problem,
        IReadOnlyList<FreeLesson> lessons,
        int allowance,
        int reach,
        int ahead,
        IReadOnlyList<int?> pushed,
        CancellationToken stop
    )
    {
        stop.ThrowIfCancellationRequested();
        var (days, overflow) = (problem.Days.Count, pushed.Count(d => d is null));
        var falling = days;
        CpModel model = new();
        var objective = LinearExpr.NewBuilder();
        var on = new Dictionary<int, BoolVar>[lessons.Count];
        var at = new LinearExpr[lessons.Count];
        var own = lessons.Where(l => l.Was is >= 0).GroupBy(l => l.Item).ToDictionary(g => g.Key, g => g.Select(l => l.Was!.Value).ToHashSet());
        for (var i = 0; i < lessons.Count; i++)
        {
            var lesson = lessons[i];
            var old = own.GetValueOrDefault(lesson.Item, []);
            var centre = lesson.Was ?? lesson.Near ?? Math.Min(days - 1, old.DefaultIfEmpty(0).Max() + 1);
            var stays = lesson.Was is { } was && (was < 0 || (was < days && problem.Days[was].Places > 0));

            // The lessons of a skill are alike: each may take the day of any other of them.
            var far = stays && centre >= ahead;
            List<int> open =
                lesson.Was < 0 || far
                    ? [centre]
                    :
                    [
                        .. Enumerable
                            .Range(Math.Max(0, centre - reach), Math.Min(days - 1, centre + reach) - Math.Max(0, centre - reach) + 1)
                            .Union(old)
                            .Where(d => d < days && problem.Days[d].Places > 0 && (d < ahead || old.Contains(d))),
                    ];
            open.AddRange(lesson.Was < 0 || far ? [] : Enumerable.Range(days, overflow));
            if (open.Count == 0)
            {
                return null;
            }

            var start = pushed.Count > 0 ? pushed[i] ?? falling++ : lesson.Was;
            on[i] = open.ToDictionary(d => d, _ => model.NewBoolVar(""));
            model.AddExactlyOne(on[i].Values);
            at[i] = LinearExpr.WeightedSum(on[i].Values, on[i].Keys.Select(d => (long)d));
            foreach (var (day, literal) in on[i])
            {
                objective.AddTerm(
                    literal,
                    day >= days ? FallCost + day
                        : lesson.Was < 0 || old.Contains(day) ? 0
                        : (lesson.Was is null ? 0 : MoveCost) + Math.Abs(day - centre)
                );
                if (day == start)
                {
                    model.AddHint(literal, 1);
                }
            }
        }

        foreach (var held in lessons.Where(l => l is { Held: true, Was: >= 0 }))
        {
            model.Add(
                LinearExpr.Sum(
                    Enumerable
                        .Range(0, lessons.Count)
                        .Where(i => lessons[i].Item == held.Item && on[i].ContainsKey(held.Was!.Value))
                        .Select(i => on[i][held.Was!.Value])
                ) == 1
            );
        }

        AddRoom(problem, on, overflow, model, objective);
        AddOrder(problem, lessons, at, allowance, days, overflow, model);
        model.Minimize(objective);
        var solver = new CpSolver { StringParameters = Parameters(Work) };
        using var cancel = stop.Register(solver.StopSearch);
        var status = solver.Solve(model);
        stop.ThrowIfCancellationRequested();
        return status is CpSolverStatus.Optimal or CpSolverStatus.Feasible
            ? new(
                Matched(lessons, [.. on.Select(o => o.First(p => solver.BooleanValue(p.Value)).Key).Select(d => d >= days ? (int?)null : d)]),
                status == CpSolverStatus.Optimal
            )
            : null;
    }

    // Of the lessons of a skill, one whose old day the skill still has keeps it; the others share what is left, in order.
    internal static IReadOnlyList<int?> Matched(IReadOnlyList<FreeLesson> lessons, IReadOnlyList<int?> placed)
    {
        var result = new int?[lessons.Count];
        foreach (var own in Enumerable.Range(0, lessons.Count).GroupBy(i => lessons[i].Item))
        {
            var left = own.Select(i => placed[i]).OrderBy(d => d ?? int.MaxValue).ToList();
            List<int> open = [];
            foreach (var i in own)
            {
                if (lessons[i].Was is { } was && left.Remove(was))
                {
                    result[i] = was;
                }
                else
                {
                    open.Add(i);
                }
            }

            foreach (var (i, day) in open.Zip(left))
            {
                result[i] = day;
            }
        }

        return result;
    }

    // Room on each day; the buffer of a block may be used, at a price.
    private static void AddRoom(PlanProblem problem, Dictionary<int, BoolVar>[] on, int overflow, CpModel model, LinearExprBuilder objective)
    {
        for (var day = 0; day < problem.Days.Count + overflow; day++)
        {
            var there = on.Where(o => o.ContainsKey(day)).Select(o => o[day]).ToList();
            if (there.Count > (day < problem.Days.Count ? problem.Days[day].Places : 1))
            {
                model.Add(LinearExpr.Sum(there) <= (day < problem.Days.Count ? problem.Days[day].Places : 1));
            }
        }

        foreach (var block in problem.Days.Select((d, i) => (d, i)).GroupBy(p => p.d.Block))
        {
            var most = problem.Settings.MostIn(block.Sum(p => p.d.Places));
            var there = block.SelectMany(p => on.Where(o => o.ContainsKey(p.i)).Select(o => o[p.i])).ToList();
            if (there.Count > most)
            {
                var over = model.NewIntVar(0, there.Count, "");
                model.Add(LinearExpr.Sum(there) - over <= most);
                objective.AddTerm(over, BufferCost);
            }
        }
    }

    private static void AddOrder(PlanProblem problem, IReadOnlyList<FreeLesson> lessons, LinearExpr[] at, int allowance, int days, int overflow, CpModel model)
    {
        var of = lessons.Select((lesson, i) => (lesson.Item, i)).GroupBy(p => p.Item).ToDictionary(g => g.Key, g => g.Select(p => p.i).ToList());
        var index = problem.Items.Select((item, i) => (item.Skill, i)).ToDictionary(p => p.Skill, p => p.i);
        foreach (var (item, own) in of)
        {
            for (var k = 1; k < own.Count; k++)
            {
                model.Add(at[own[k]] >= at[own[k - 1]] + 1);
            }

            if (own.Count > 1)
            {
                // What falls out of the year lies behind its end and is in nobody's way.
                var span = overflow > 0 ? days + overflow : PlanSettings.Span - 1 + allowance;
                model.Add(at[own[^1]] - at[own[0]] <= span);
            }

            foreach (var need in problem.Items[item].Needs.Select(n => index[n]).Where(of.ContainsKey))
            {
                model.Add(at[own[0]] >= at[of[need][^1]] + 1);
            }
        }
    }

    /// <summary>What it would take to push each lesson only as far as what lies before it needs: for comparison.</summary>
    public static IReadOnlyList<int?> Pushed(PlanProblem problem, IReadOnlyList<FreeLesson> lessons)
    {
        ArgumentNullException.ThrowIfNull(problem);
        ArgumentNullException.ThrowIfNull(lessons);
        var room = problem.Days.Select(d => d.Places).ToArray();
        var days = new int?[lessons.Count];
        var index = problem.Items.Select((item, i) => (item.Skill, i)).ToDictionary(p => p.Skill, p => p.i);
        var last = Enumerable.Repeat(int.MinValue / 2, problem.Items.Count).ToArray();
        var first = lessons.GroupBy(l => l.Item).ToDictionary(g => g.Key, g => g.Min(l => l.Was ?? l.Near) ?? 0);
        foreach (var i in Enumerable.Range(0, lessons.Count).OrderBy(i => lessons[i].Was ?? lessons[i].Near ?? first[lessons[i].Item]))
        {
            var item = lessons[i].Item;
            if (lessons[i].Was < 0)
            {
                (last[item], days[i]) = (lessons[i].Was!.Value, lessons[i].Was);
                continue;
            }

            var earliest = Math.Max(
                lessons[i].Was ?? 0,
                Math.Max(last[item], problem.Items[item].Needs.Select(n => last[index[n]]).DefaultIfEmpty(-1).Max()) + 1
            );
            for (var day = earliest; day < room.Length; day++)
            {
                if (room[day] > 0)
                {
                    room[day]--;
                    last[item] = day;
                    days[i] = day;
                    break;
                }
            }
        }

        return days;
    }
}
