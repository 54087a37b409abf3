using Fobble.Core.Evidence;

namespace Fobble.Core.Grouping;

/// <summary>What it costs to put a child into another group, and why.</summary>
/// <param name="To">Index of the group, or null for no group.</param>
/// <param name="Price">Points lost; negative if the move gains.</param>
/// <param name="Breaks">Rules that would be broken and are not broken now. The teacher may still decide so.</param>
public sealed record MovePrice(int? To, int Price, IReadOnlyList<string> Breaks, string Reason);

/// <summary>Moves by hand, priced by the same points that the solver maximises.</summary>
public static class HandMove
{
    /// <summary>The groups after the move.</summary>
    public static IReadOnlyList<FormedGroup> Apply(IReadOnlyList<FormedGroup> groups, ChildId child, int? to) =>
        [.. groups.Select((g, i) => g with { Children = [.. (i == to ? g.Children.Append(child).Distinct() : g.Children.Where(c => c != child)).Order()] })];

    /// <summary>Prices for every group the child is not in, and for none.</summary>
    public static IReadOnlyList<MovePrice> Prices(
        GroupingProblem problem,
        IReadOnlyList<FormedGroup> groups,
        ChildId child,
        GroupingBrief brief,
        GroupNames names
    )
    {
        ArgumentNullException.ThrowIfNull(groups);
        ArgumentNullException.ThrowIfNull(brief);
        var before = GroupScore.Of(problem, groups);
        var home = groups.Select((g, i) => (g, i)).Where(p => p.g.Children.Contains(child)).Select(p => (int?)p.i).FirstOrDefault();
        return
        [
            .. Enumerable
                .Range(0, groups.Count)
                .Select(i => (int?)i)
                .Append(null)
                .Where(to => to != home)
                .Select(to =>
                {
                    var after = Apply(groups, child, to);
                    var breaks = GroupScore.NewlyBroken(problem, groups, after, names).Distinct().ToList();
                    return new MovePrice(to, before - GroupScore.Of(problem, after), breaks, Reason(child, to, groups, problem, brief, names.Child));
                }),
        ];
    }

    private static string Reason(
        ChildId child,
        int? to,
        IReadOnlyList<FormedGroup> groups,
        GroupingProblem problem,
        GroupingBrief brief,
        Func<ChildId, string> name
    )
    {
        if (to is not { } index)
        {
            return Candidates.DaysSinceGroup(child, brief) is { } days
                ? Phrase($"{name(child)} would wait for the next groups; the last turn was {Words.Count(days, "school day", "school days")} before.")
                : Phrase($"{name(child)} has not had a turn yet and would go on waiting.");
        }

        var group = groups[index];
        var met = group.Children.Where(other => problem.MetLately.Any(past => past.Contains(child) && past.Contains(other))).Select(name).ToList();
        var sat = met.Count == 0 ? "" : Phrase($" Was in a group with {Words.List(met)} lately.");
        var fits = problem.Children.FirstOrDefault(c => c.Child == child)?.Worths.ContainsKey(group.Skill) == true;
        return (fits ? Reasons.ForChild(child, group.Skill, brief) : brief.Evidence.ReadyBecause(child, group.Skill)) + sat;
    }
}
