using Fobble.Core.Evidence;

namespace Fobble.Core.Grouping;

/// <summary>
/// Points of a given set of groups and the rules it breaks. The solver maximises these same points, a hand-made move is priced by
/// them, and brute force in the tests compares by them.
/// </summary>
public static class GroupScore
{
    public const int PairMetCost = 4;
    public const int FurtherSlipCost = 6;
    public const int LeftOutCost = 400;

    public static int Of(GroupingProblem problem, IReadOnlyList<FormedGroup> groups)
    {
        ArgumentNullException.ThrowIfNull(problem);
        var candidates = problem.Children.ToDictionary(c => c.Child);
        var placed = groups.SelectMany(g => g.Children).ToHashSet();
        return groups.Sum(g => OfGroup(problem, candidates, g))
            - problem.Children.Where(c => !placed.Contains(c.Child)).Sum(c => CostOfLeavingOut(c, problem.Rules));
    }

    public static int CostOfLeavingOut(Candidate candidate, GroupRules rules) => candidate.Fairness + (rules.EveryoneOnce ? LeftOutCost : 0);

    private static int OfGroup(GroupingProblem problem, Dictionary<ChildId, Candidate> candidates, FormedGroup group)
    {
        var worth = group.Children.Sum(c => candidates[c].Worths.GetValueOrDefault(group.Skill)?.Total ?? 0);
        var met = problem.MetLately.Sum(past => Pairs(past.Count(group.Children.Contains)));
        var slips = group.Children.Select(c => candidates[c].Slips.GetValueOrDefault(group.Skill)).OfType<string>().Distinct().Count();
        return worth - (PairMetCost * met) - (FurtherSlipCost * Math.Max(0, slips - 1));
    }

    private static int Pairs(int children) => children * (children - 1) / 2;

    private static IEnumerable<ChildPair> Pairs(FormedGroup group) =>
        group.Children.SelectMany((one, i) => group.Children.Skip(i + 1).Select(other => new ChildPair(one, other)));

    /// <summary>Every rule that the groups break; none for a sound set.</summary>
    /// <param name="name">How to call a child.</param>
    /// <param name="skillName">How to call a skill inside a sentence.</param>
    public static IReadOnlyList<string> Broken(
        GroupingProblem problem, IReadOnlyList<FormedGroup> groups, Func<ChildId, string> name, Func<Skills.SkillId, string> skillName)
    {
        var (rules, candidates) = (problem.Rules, problem.Children.ToDictionary(c => c.Child));
        List<string> broken = [];
        foreach (var group in groups)
        {
            if (group.Children.Count < rules.MinSize || group.Children.Count > rules.MaxSize)
            {
                broken.Add($"{Words.Count(group.Children.Count, "child", "children")} on {skillName(group.Skill)}; a group has {rules.MinSize} to {rules.MaxSize}");
            }

            broken.AddRange(group.Children.Where(c => !candidates[c].Worths.ContainsKey(group.Skill)).Select(c => $"{skillName(group.Skill)} is no next step for {name(c)}"));
            broken.AddRange(group.Children.Where(c => candidates[c].AwayIn.Contains(group.Slot)).Select(c => $"{name(c)} is out of class then"));
            if (group.Children.Count(c => candidates[c].Worths.GetValueOrDefault(group.Skill)?.Shows ?? false) > 1)
            {
                broken.Add($"two who have {skillName(group.Skill)} in one group; one is enough to show it");
            }

            broken.AddRange(Pairs(group).Where(rules.Apart.Contains).Select(p => $"{name(p.First)} and {name(p.Second)} are to be kept apart"));
        }

        var where = groups.SelectMany((g, i) => g.Children.Select(c => (c, i))).ToLookup(p => p.c, p => p.i);
        broken.AddRange(where.Where(w => w.Count() > 1).Select(w => $"{name(w.Key)} is in two groups"));
        broken.AddRange(rules.Together
            .Where(p => where[p.First].FirstOrDefault(-1) != where[p.Second].FirstOrDefault(-1))
            .Select(p => $"{name(p.First)} and {name(p.Second)} are to be kept together"));
        return broken;
    }
}
