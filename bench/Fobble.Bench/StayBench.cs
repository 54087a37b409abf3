using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Numbers;

namespace Fobble.Bench;

/// <summary>
/// What one more observation does to groups that stand: made-up classes of thirty after nine weeks, six places; groups are accepted, one child is seen once more on
/// its aim, and they are asked for again, with the points for what is planned and without.
/// </summary>
internal static class StayBench
{
    private const int Seeds = 20;
    private const int Weeks = 9;
    private const int Places = 6;
    private const int SeenEach = 10;

    public static IEnumerable<Figure> Run()
    {
        var (changed, cost, children) = (new int[2], new int[2], 0);
        for (var seed = 1; seed <= Seeds; seed++)
        {
            var (history, _, brief) = MadeUpTerm.Play((ulong)seed, Weeks);
            SeededRandom random = new((ulong)(40 + seed));
            var standing = Formed(brief).Groups;
            for (var i = 0; i < SeenEach; i++)
            {
                var group = random.Pick(standing);
                var child = random.Pick(group.Children);
                var last = history.Observations[^1];
                var seen = last with
                {
                    Child = child,
                    Skill = group.Skill,
                    Support = random.Pick([Support.Alone, Support.Alone, Support.Prompted, Support.NotYet]),
                    Setting = Setting.Group,
                    SlipId = null,
                    StrategyId = null,
                    Numbers = null,
                };
                var after = brief with
                {
                    Evidence = new(
                        brief.Evidence.Map,
                        brief.Evidence.Calendar,
                        EvidenceSettings.Default,
                        brief.Evidence.Children,
                        [.. history.Observations, seen],
                        brief.Evidence.Today
                    ),
                };
                List<GroupingResult> again =
                [
                    Formed(after),
                    Formed(after with { Planned = standing.SelectMany(g => g.Children.Select(c => (c, g.Skill))).ToHashSet() }),
                ];
                GroupingProblem judged = ProblemOf(after);
                children += brief.Evidence.Children.Count - 1;
                for (var way = 0; way < 2; way++)
                {
                    changed[way] += brief.Evidence.Children.Count(c =>
                        c != child && !CompanyOf(c, child, standing).SetEquals(CompanyOf(c, child, again[way].Groups))
                    );
                    cost[way] += GroupScore.Of(judged, again[0].Groups) - GroupScore.Of(judged, again[way].Groups);
                }
            }
        }

        yield return new(
            $"after one more observation, {Seeds * SeenEach} times: children other than the one seen whose company among the others changes, without points for what stands / with {Candidates.StayWorth}",
            $"{100.0 * changed[0] / children:0.0} % / {100.0 * changed[1] / children:0.0} %",
            "fewer than 4 %"
        );
        yield return new("points given up for that, of some 4,500, a time", $"{(double)cost[1] / (Seeds * SeenEach):0.0}", "");
    }

    private static GroupingProblem ProblemOf(GroupingBrief brief) =>
        new(Candidates.From(brief), GroupSlot.InARow(Places), new(), Candidates.MetLately(brief.Past));

    private static GroupingResult Formed(GroupingBrief brief) => Grouper.Form(ProblemOf(brief));

    // Who sees the one that was seen leave has not changed company for that.
    private static HashSet<ChildId> CompanyOf(ChildId child, ChildId seen, IReadOnlyList<FormedGroup> groups) =>
        [.. groups.FirstOrDefault(g => g.Children.Contains(child))?.Children.Where(c => c != child && c != seen) ?? []];
}
