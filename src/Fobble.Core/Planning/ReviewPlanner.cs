using Fobble.Core.Skills;
using Google.OrTools.Graph;

namespace Fobble.Core.Planning;

/// <summary>A review that is wanted: on the day with this index if it can be, within the window in any case.</summary>
public sealed record WantedReview(SkillId Skill, int Round, int Best, int Earliest, int Latest);

/// <summary>
/// Gives every review a day within its window, as near to the best one as can be, with so many starters a day: an assignment, solved exactly
/// as a flow of least cost (Ahuja, Magnanti and Orlin 1993).
/// </summary>
public static class ReviewPlanner
{
    private const int MissCost = 1000;
    private const int MissCostWhenDue = 3000;

    // Staying where it was is worth a little: a plan that is made anew moves starters only for a reason.
    private const int Scale = 4;

    /// <param name="days">How many days there are; a review's best day may lie beyond, its window is cut.</param>
    /// <param name="placesOn">Starters that a day has room for.</param>
    /// <param name="focusOn">What a day's whole-class lessons are on: a skill is not its own starter.</param>
    /// <param name="before">Where a review was, for one that had a day.</param>
    /// <returns>The index of the day for each review, null for one that finds no place.</returns>
    public static IReadOnlyList<int?> Plan(
        IReadOnlyList<WantedReview> wanted,
        int days,
        Func<int, int> placesOn,
        Func<int, IReadOnlyCollection<SkillId>> focusOn,
        Func<WantedReview, int?>? before = null
    )
    {
        ArgumentNullException.ThrowIfNull(wanted);
        ArgumentNullException.ThrowIfNull(placesOn);
        ArgumentNullException.ThrowIfNull(focusOn);
        using var flow = new MinCostFlow();
        var (source, sink, firstDay) = (0, 1, 2 + wanted.Count);
        List<(int Review, int Day, int Arc)> arcs = [];
        for (var day = 0; day < days; day++)
        {
            flow.AddArcWithCapacityAndUnitCost(firstDay + day, sink, Math.Max(0, placesOn(day)), 0);
        }

        for (var i = 0; i < wanted.Count; i++)
        {
            var review = wanted[i];
            flow.AddArcWithCapacityAndUnitCost(source, 2 + i, 1, 0);
            flow.AddArcWithCapacityAndUnitCost(2 + i, sink, 1, review.Round == 0 ? MissCostWhenDue : MissCost);
            var old = before?.Invoke(review);
            for (var day = Math.Max(0, review.Earliest); day <= Math.Min(days - 1, review.Latest); day++)
            {
                if (placesOn(day) > 0 && !focusOn(day).Contains(review.Skill))
                {
                    arcs.Add(
                        (
                            i,
                            day,
                            flow.AddArcWithCapacityAndUnitCost(
                                2 + i,
                                firstDay + day,
                                1,
                                (Math.Abs(day - review.Best) * Scale) + (old is null || old == day ? 0 : 1)
                            )
                        )
                    );
                }
            }
        }

        flow.SetNodeSupply(source, wanted.Count);
        flow.SetNodeSupply(sink, -wanted.Count);
        var chosen = new int?[wanted.Count];
        if (wanted.Count > 0 && flow.Solve() != MinCostFlow.Status.OPTIMAL)
        {
            throw new InvalidOperationException("A review can always be left out: the flow is at fault.");
        }

        foreach (var (review, day, arc) in arcs.Where(a => flow.Flow(a.Arc) > 0))
        {
            chosen[review] = day;
        }

        return chosen;
    }
}
