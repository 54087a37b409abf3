namespace Fobble.Core.Grouping;

/// <summary>Points do not depend on places: where places are as good for all that is asked, groups that stand stay in theirs, then turns come to lie days apart.</summary>
internal static class PlaceChoice
{
    public static IReadOnlyList<FormedGroup> Of(GroupingProblem problem, IReadOnlyList<FormedGroup> groups) =>
        DaysApart.Arranged(problem, AsTheyStand(problem, groups));

    // Each group that is most of one that stands changes places with whoever is in its place, or goes there if nobody is.
    private static IReadOnlyList<FormedGroup> AsTheyStand(GroupingProblem problem, IReadOnlyList<FormedGroup> groups)
    {
        foreach (var stands in problem.Standing.Where(s => problem.Fixed.All(f => f.Slot != s.Slot)))
        {
            var same = groups.FirstOrDefault(g => g.Skill == stands.Skill && 2 * g.Children.Intersect(stands.Children).Count() > stands.Children.Count);
            if (same is null || same.Slot == stands.Slot || problem.Fixed.Contains(same))
            {
                continue;
            }

            List<FormedGroup> there =
            [
                .. groups.Select(g =>
                    g == same ? g with { Slot = stands.Slot }
                    : g.Slot == stands.Slot ? g with { Slot = same.Slot }
                    : g
                ),
            ];
            groups = GroupScore.Keeps(problem, there) ? [.. there.OrderBy(g => g.Slot)] : groups;
        }

        return groups;
    }
}
