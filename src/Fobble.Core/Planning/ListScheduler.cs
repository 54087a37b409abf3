using Fobble.Core.Approaches;
using Fobble.Core.Numbers;

namespace Fobble.Core.Planning;

/// <summary>
/// Lays lessons out day by day: of the skills whose prerequisites are done, the one with the earliest deadline, its own or that of what waits for
/// it (list scheduling; Brucker 2007, <i>Scheduling Algorithms</i>, from memory). Many tries with a little chance in the choice.
/// </summary>
internal static class ListScheduler
{
    // How many days before its week a skill may begin, from try to try: full years need to begin early.
    private static readonly int[] Leads = [0, 3, 6, 12, 25, 1000];

    /// <summary>The cheapest complete grid of all tries; the fullest one where none is complete.</summary>
    /// <param name="tries">How often to try; one try has no chance in it.</param>
    public static int[] Best(LessonGrid grid, PlanProblem problem, int tries, CancellationToken stop = default)
    {
        var random = new SeededRandom(problem.Settings.Seed);
        var deadlines = Deadlines(grid, problem);
        var empty = Enumerable.Repeat(LessonGrid.Empty, grid.Count).ToArray();
        foreach (var pin in problem.Pins)
        {
            var item = problem.Items.ToList().FindIndex(i => i.Skill == pin.Skill);
            var place = Enumerable.Range(0, grid.Count).First(p => grid.DayOf(p) == pin.Day && empty[p] == LessonGrid.Empty);
            empty[place] = item;
            grid.Pin(place);
        }

        int[]? best = null;
        var bestKey = (Left: int.MaxValue, Cost: int.MaxValue);
        for (var trial = 0; trial < tries; trial++)
        {
            stop.ThrowIfCancellationRequested();
            grid.Restore(empty);
            Fill(grid, problem, deadlines, Leads[trial % Leads.Length], trial == 0 ? 0 : 1 + (trial % 8), random);
            var left = Enumerable.Range(0, problem.Items.Count).Sum(grid.Left);
            if (left > bestKey.Left)
            {
                continue;
            }

            var key = (left, grid.Cost());
            if (key.CompareTo(bestKey) < 0)
            {
                (best, bestKey) = (grid.Copy(), key);
            }
        }

        return best!;
    }

    private static void Fill(LessonGrid grid, PlanProblem problem, int[] deadlines, int lead, int noise, SeededRandom random)
    {
        var (last, run) = (-1, 0);
        List<int> waiting = [.. Enumerable.Range(0, problem.Items.Count).Where(i => grid.Left(i) > 0)];
        for (var place = 0; place < grid.Count; place++)
        {
            if (grid[place] != LessonGrid.Empty || grid.Filled[grid.BlockOf(place)] >= grid.Most[grid.BlockOf(place)])
            {
                continue;
            }

            var day = grid.DayOf(place);
            var (chosen, bestKey) = (LessonGrid.Empty, int.MaxValue);
            foreach (var item in waiting)
            {
                if (!CanTake(grid, problem, item, day, lead))
                {
                    continue;
                }

                var started = grid.PlacesOf(item).Length > 0;
                var strand = grid.StrandOf(item);
                var key = deadlines[item] - (started ? 15 : 0) + (noise == 0 ? 0 : random.Next(noise * 3));
                key +=
                    problem.Settings.Order == YearOrder.Spiral ? (strand == last && run >= PlanSettings.StrandRun ? 8 : 0)
                    : strand == last ? 0
                    : 8;
                if (key < bestKey)
                {
                    (chosen, bestKey) = (item, key);
                }
            }

            if (chosen == LessonGrid.Empty)
            {
                continue;
            }

            grid.Put(place, chosen);
            run = grid.StrandOf(chosen) == last ? run + 1 : 1;
            last = grid.StrandOf(chosen);
            if (grid.Left(chosen) == 0)
            {
                waiting.Remove(chosen);
            }
        }
    }

    private static bool CanTake(LessonGrid grid, PlanProblem problem, int item, int day, int lead)
    {
        var places = grid.PlacesOf(item);
        if (places.Length > 0)
        {
            if (Math.Max(day, grid.DayOf(places[^1])) - Math.Min(day, grid.DayOf(places[0])) >= PlanSettings.Span)
            {
                return false;
            }

            foreach (var place in places)
            {
                if (grid.DayOf(place) == day)
                {
                    return false;
                }
            }
        }
        else if (problem.Items[item].TargetFirst - lead > day)
        {
            return false;
        }

        foreach (var need in grid.Needs(item))
        {
            if (grid.Left(need) > 0 || grid.DayOf(grid.PlacesOf(need)[^1]) >= day)
            {
                return false;
            }
        }

        // A pinned lesson of something that builds on it may already stand there.
        foreach (var open in grid.Opens(item))
        {
            if (grid.PlacesOf(open) is { Length: > 0 } taken && grid.DayOf(taken[0]) <= day)
            {
                return false;
            }
        }

        return true;
    }

    // The last day of its own week, or earlier where something that waits for it would come too late otherwise.
    private static int[] Deadlines(LessonGrid grid, PlanProblem problem)
    {
        var deadlines = problem.Items.Select(i => i.TargetLast).ToArray();
        var changed = true;
        while (changed)
        {
            changed = false;
            for (var item = 0; item < deadlines.Length; item++)
            {
                foreach (var open in grid.Opens(item))
                {
                    if (deadlines[open] - problem.Items[item].Lessons < deadlines[item])
                    {
                        deadlines[item] = deadlines[open] - problem.Items[item].Lessons;
                        changed = true;
                    }
                }
            }
        }

        return deadlines;
    }
}
