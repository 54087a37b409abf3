using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Grouping;

/// <summary>
/// Points of a given set of groups and the rules it breaks. The solver maximises these same points, a hand-made move is priced by
/// them, and brute force in the tests compares by them.
/// </summary>
public static class GroupScore
{
    /// <summary>Points lost for each two of a group who met in the weeks that are remembered.</summary>
    public const int PairMetCost = 4;

    /// <summary>Points lost for each kind of slip in a group beyond the first.</summary>
    public const int FurtherSlipCost = 6;

    /// <summary>Points lost for each number that children of a group reach up to, beyond the first.</summary>
    public const int FurtherReachCost = 5;

    /// <summary>Points lost for each child left out where everyone is to be in a group once: more than a group is worth.</summary>
    public const int LeftOutCost = 400;

    /// <summary>Points of the whole set; more is better, and it can be below zero.</summary>
    public static int Of(GroupingProblem problem, IReadOnlyList<FormedGroup> groups)
    {
        ArgumentNullException.ThrowIfNull(problem);
        var candidates = problem.Children.ToDictionary(c => c.Child);
        var placed = groups.SelectMany(g => g.Children).ToHashSet();
        return groups.Sum(g => OfGroup(problem, candidates, g))
            - problem.Children.Where(c => !placed.Contains(c.Child)).Sum(c => CostOfLeavingOut(c, problem.Rules));
    }

    public static int CostOfLeavingOut(Candidate candidate, GroupRules rules) =>
        candidate.Fairness + (rules.EveryoneOnce && candidate.Elsewhere.Count == 0 ? LeftOutCost : 0);

    /// <summary>The points of one group.</summary>
    public static int OfGroup(GroupingProblem problem, FormedGroup group) => OfGroup(problem, problem.Children.ToDictionary(c => c.Child), group);

    internal static int PairMet(GroupRules rules) => GroupWeights.Of(PairMetCost, rules.Weights.Company);

    internal static int FurtherSlip(GroupRules rules) => GroupWeights.Of(FurtherSlipCost, rules.Weights.Slips);

    internal static int FurtherReach(GroupRules rules) => GroupWeights.Of(FurtherReachCost, rules.Weights.Numbers);

    private static int OfGroup(GroupingProblem problem, Dictionary<ChildId, Candidate> candidates, FormedGroup group)
    {
        var members = group.Children.Where(candidates.ContainsKey).Select(c => candidates[c]).ToList();
        var worth = members.Sum(c => c.Worths.GetValueOrDefault(group.Skill)?.Total ?? 0);
        var met = problem.MetLately.Sum(past => Pairs(past.Count(group.Children.Contains)));
        var slips = members.Select(c => c.Slips.GetValueOrDefault(group.Skill)).OfType<string>().Distinct().Count();
        var reach = members.Select(c => c.Reach.TryGetValue(group.Skill, out var most) ? (int?)most : null).OfType<int>().Distinct().Count();
        return worth
            - (PairMet(problem.Rules) * met)
            - (FurtherSlip(problem.Rules) * Math.Max(0, slips - 1))
            - (FurtherReach(problem.Rules) * Math.Max(0, reach - 1));
    }

    private static int Pairs(int children) => children * (children - 1) / 2;

    /// <summary>Every rule that the groups break; none for a sound set.</summary>
    public static IReadOnlyList<string> Broken(GroupingProblem problem, IReadOnlyList<FormedGroup> groups, GroupNames names)
    {
        ArgumentNullException.ThrowIfNull(problem);
        ArgumentNullException.ThrowIfNull(names);
        var (rules, candidates) = (problem.Rules, problem.Children.ToDictionary(c => c.Child));
        List<string> broken = [];
        foreach (var group in groups)
        {
            if (group.Children.Count < rules.MinSize || group.Children.Count > rules.MaxSize)
            {
                broken.Add(
                    Phrase(
                        $"{Words.Count(group.Children.Count, "child", "children")} on {names.Skill(group.Skill)}; a group has {rules.MinSize} to {rules.MaxSize}"
                    )
                );
            }

            var members = group.Children.Where(candidates.ContainsKey).Select(c => candidates[c]).ToList();
            broken.AddRange(
                members
                    .Where(c => !c.Worths.ContainsKey(group.Skill))
                    .Select(c => Phrase($"{names.Skill(group.Skill)} is no next step for {names.Child(c.Child)}"))
            );
            broken.AddRange(members.Where(c => c.AwayIn.Contains(group.Slot)).Select(c => Phrase($"{names.Child(c.Child)} is out of class then")));
            if (members.Count(c => c.Worths.GetValueOrDefault(group.Skill)?.Shows ?? false) > 1)
            {
                broken.Add(Phrase($"two who have {names.Skill(group.Skill)} in one group; one is enough to show it"));
            }
        }

        var where = groups.SelectMany((g, i) => g.Children.Select(c => (c, i))).ToLookup(p => p.c, p => p.i);
        broken.AddRange(where.Where(w => w.Count() > 1).Select(w => Phrase($"{names.Child(w.Key)} is in two groups")));
        broken.AddRange(TooMuchAtOnce(problem, groups, names));
        broken.AddRange(rules.Wishes.Where(w => !w.Holds(problem, groups)).Select(w => w.InWords(names)));
        return broken;
    }

    /// <summary>Rules that are broken beside groups that stay: what these break by themselves is not held against the others.</summary>
    public static IReadOnlyList<string> BrokenBeside(GroupingProblem problem, IReadOnlyList<FormedGroup> groups, GroupNames names)
    {
        ArgumentNullException.ThrowIfNull(problem);
        return NewlyBroken(problem, problem.Fixed, groups, names);
    }

    /// <summary>Rules that are broken after a change and were not before it, as often as they are: one group that broke a rule excuses no second.</summary>
    public static IReadOnlyList<string> NewlyBroken(
        GroupingProblem problem,
        IReadOnlyList<FormedGroup> before,
        IReadOnlyList<FormedGroup> after,
        GroupNames names
    )
    {
        var more = Broken(problem, after, names).ToList();
        foreach (var sentence in Broken(problem, before, names))
        {
            more.Remove(sentence);
        }

        return more;
    }

    /// <summary>Whether groups keep to every rule and wish; those that stay as they are may break them.</summary>
    public static bool Keeps(GroupingProblem problem, IReadOnlyList<FormedGroup> groups)
    {
        ArgumentNullException.ThrowIfNull(problem);
        GroupNames told = new(c => $"{c}", s => $"{s}", a => $"{a}", s => $"{s}");
        return BrokenBeside(problem with { Rules = problem.Rules with { Wishes = [] } }, groups, told).Count == 0
            && problem.Rules.Wishes.All(w =>
                w.Holds(problem, groups) || (w is not (TurnWish or SeatWish or AimWish or WorkWish) && !w.Holds(problem, problem.Fixed))
            );
    }

    private static IEnumerable<string> TooMuchAtOnce(GroupingProblem problem, IReadOnlyList<FormedGroup> groups, GroupNames names)
    {
        foreach (var moment in groups.GroupBy(g => problem.Slots[g.Slot].Moment).Select(m => m.ToList()).Where(m => m.Count > 1))
        {
            if (moment.Count > problem.Rules.MostAtOnce)
            {
                yield return Phrase(
                    $"{Words.Count(moment.Count, "group", "groups")} at one time; there is room for {Words.Number(problem.Rules.MostAtOnce.Value)}"
                );
            }

            foreach (
                var (one, other) in moment
                    .SelectMany((one, i) => moment.Skip(i + 1).Select(other => (one, other)))
                    .Where(p => problem.Rules.Clash(p.one.Skill, p.other.Skill))
            )
            {
                yield return Phrase($"not enough things for {names.Skill(one.Skill)} and {names.Skill(other.Skill)} at the same time");
            }
        }
    }
}
