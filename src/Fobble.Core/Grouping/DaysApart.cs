using Fobble.Core.Evidence;

namespace Fobble.Core.Grouping;

/// <summary>Where two places are as good, groups change them so that the turns of a child do not follow each other from one day to the next.</summary>
internal static class DaysApart
{
    public static IReadOnlyList<FormedGroup> Arranged(GroupingProblem problem, IReadOnlyList<FormedGroup> groups)
    {
        var elsewhere = problem.Children.Where(c => c.Elsewhere.Count > 0).ToDictionary(c => c.Child, c => c.Elsewhere);
        if (elsewhere.Count == 0)
        {
            return groups;
        }

        // Each exchange leaves fewer turns on neighbouring days than before, so it ends.
        var (best, near) = (groups, Near(groups));
        while (
            near > 0
            && Exchanges(best)
                .Select(other => (other, near: Near(other)))
                .Where(o => o.near < near)
                .OrderBy(o => o.near)
                .FirstOrDefault(o => GroupScore.Keeps(problem, o.other))
                is { other: not null } better
        )
        {
            (best, near) = better;
        }

        return [.. best.OrderBy(g => g.Slot)];

        int Near(IReadOnlyList<FormedGroup> all) =>
            all.Sum(g => g.Children.Count(c => elsewhere.TryGetValue(c, out var days) && days.Any(d => IsNear(d, problem.Slots[g.Slot].Day))));

        // A group to a place that is free, or two to each other's.
        IEnumerable<IReadOnlyList<FormedGroup>> Exchanges(IReadOnlyList<FormedGroup> all)
        {
            for (var i = 0; i < all.Count; i++)
            {
                if (problem.Fixed.Contains(all[i]))
                {
                    continue;
                }

                for (var slot = 0; slot < problem.Slots.Count; slot++)
                {
                    var there = all.FirstOrDefault(g => g.Slot == slot);
                    if (slot == all[i].Slot || (there is not null && problem.Fixed.Contains(there)))
                    {
                        continue;
                    }

                    yield return
                    [
                        .. all.Select(g =>
                            g == all[i] ? g with { Slot = slot }
                            : g == there ? g with { Slot = all[i].Slot }
                            : g
                        ),
                    ];
                }
            }
        }
    }

    private static bool IsNear(DateOnly one, DateOnly? other) => other is { } day && Math.Abs(day.DayNumber - one.DayNumber) <= 1;
}
