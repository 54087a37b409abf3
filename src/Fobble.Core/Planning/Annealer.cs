using Fobble.Core.Numbers;

namespace Fobble.Core.Planning;

/// <summary>
/// Makes a plan cheaper by many small changes, at first also by some that make it dearer (simulated annealing, Kirkpatrick, Gelatt and Vecchi 1983).
/// Whole numbers only, so that a seed gives the same plan on every machine.
/// </summary>
internal static class Annealer
{
    // In thousandths of a point. Any hotter, and the rules keep the plan from finding back to an order as good as the one it began with.
    private const int Hot = 800;
    private const int Cold = 100;
    private const int Furthest = 30;
    private const int Looks = 100;

    // −ln u in thousandths for evenly spread u: how much dearer, in units of the temperature, a change may be.
    private static readonly int[] Slack = [.. Enumerable.Range(0, 1024).Select(i => (int)Math.Round(-1000 * Math.Log((i + 0.5) / 1024)))];

    /// <summary>Improves the grid for so many steps and leaves the best plan in it.</summary>
    /// <param name="progress">Told the share that is done, about a hundred times.</param>
    public static void Improve(
        LessonGrid grid,
        PlanProblem problem,
        ulong seed,
        int steps,
        IProgress<double>? progress = null,
        CancellationToken stop = default
    )
    {
        if (grid.Count < 2)
        {
            return;
        }

        var random = new SeededRandom(seed);
        var cost = grid.Cost();
        var (best, bestCost) = (grid.Copy(), cost);
        var each = Math.Max(1, steps / Looks);
        var heat = Hot;
        for (var step = 0; step < steps; step++)
        {
            if (step % each == 0)
            {
                stop.ThrowIfCancellationRequested();
                progress?.Report((double)step / steps);
                heat = HeatAt(step / each);
            }

            var first = random.Next(grid.Count - 1);
            var last = Math.Min(grid.Count - 1, first + 1 + random.Next(Furthest));
            var rotates = random.Next(4) == 0;
            if (rotates)
            {
                last = Math.Min(last, first + 5);
            }

            if ((rotates ? grid.Rotate(first, last) : grid.Swap(first, last)) is not { } change)
            {
                continue;
            }

            if (change > 0 && change * 1_000_000L > (long)heat * Slack[random.Next(Slack.Length)])
            {
                if (rotates)
                {
                    grid.Unrotate(first, last);
                }
                else
                {
                    grid.Exchange(first, last);
                }

                continue;
            }

            cost += change;
            if (cost < bestCost)
            {
                (best, bestCost) = (grid.Copy(), cost);
            }
        }

        grid.Restore(best);
        progress?.Report(1);
    }

    // From hot to cold by equal factors, in whole thousandths: (Cold/Hot)^(1/100) is about 980/1000.
    private static int HeatAt(int look)
    {
        var heat = Hot;
        for (var i = 0; i < look; i++)
        {
            heat = heat * 980 / 1000;
        }

        return Math.Max(heat, Cold);
    }
}
