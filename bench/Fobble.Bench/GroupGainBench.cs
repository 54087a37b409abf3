using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.MadeUpClass;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;

namespace Fobble.Bench;

/// <summary>
/// What groups are worth: the same made-up classes over a term, with groups formed in four ways, as many groups and turns each. Measured are skills
/// that are judged secure and skills that the children truly hold, which no adult can see.
/// </summary>
internal static class GroupGainBench
{
    private const int Seeds = 20;
    private const int Weeks = 12;
    private const int Size = 4;

    private static readonly (string Name, Func<WeekToGroup, IReadOnlyList<FormedGroup>> Form)[] Ways =
    [
        ("random children, on something the first is ready for", AtRandom),
        ("sorted by what they know and cut into groups", Sorted),
        ("greedy: the best group, then the best of the rest", Greedy),
        ("proven best", Best),
    ];

    public static IEnumerable<Figure> Run()
    {
        var gains = Ways.ToDictionary(w => w.Name, _ => new List<(double Secure, double Held, double Least)>());
        for (ulong seed = 1; seed <= Seeds; seed++)
        {
            foreach (var (name, form) in Ways)
            {
                var (history, evidence, _) = MadeUpTerm.Play(seed, Weeks, week => Laid(week, form(week)));
                var held = history.Holds.Values.Select(h => (double)h.Count).ToList();
                gains[name].Add((evidence.Children.Average(c => evidence.SecureSkills(c).Count), held.Average(), held.Order().Take(6).Average()));
            }
        }

        foreach (var (name, all) in gains)
        {
            yield return new($"{name}: secure skills a child after {Weeks} weeks, {Seeds} classes", Spread(all.Select(g => g.Secure)));
            yield return new(
                $"{name}: skills truly held a child; of the six with fewest",
                $"{Spread(all.Select(g => g.Held))}; {Spread(all.Select(g => g.Least))}"
            );
        }

        var best = gains[Ways[^1].Name];
        foreach (var (name, _) in Ways.SkipLast(1))
        {
            var more = best.Zip(gains[name], (b, o) => b.Secure - o.Secure).ToList();
            yield return new(
                $"proven best beside “{name}”: secure skills more",
                $"{Spread(more)}; more in {more.Count(d => d > 0)} of {Seeds} classes",
                "above 0"
            );
        }
    }

    private static string Spread(IEnumerable<double> values)
    {
        var all = values.ToList();
        var mean = all.Average();
        return $"{mean:0.00} ± {Math.Sqrt(all.Sum(v => (v - mean) * (v - mean)) / (all.Count - 1)):0.00}";
    }

    // The groups one after another over the days of the week.
    private static IReadOnlyList<PastGroup> Laid(WeekToGroup week, IReadOnlyList<FormedGroup> groups) =>
        [
            .. groups
                .Take(week.Days.Count * week.GroupsADay)
                .Select((g, i) => (g, day: week.Days[i / week.GroupsADay]))
                .Select(p => new PastGroup(p.day, p.day.DayNumber / 7, p.g.Skill, p.g.Children)),
        ];

    private static List<FormedGroup> AtRandom(WeekToGroup week) =>
        Cut(week, week.Random.Shuffled(week.Evidence.Children), group => AnyOf(week, [.. ReadyFor(week, group[0])]));

    private static List<FormedGroup> Sorted(WeekToGroup week) =>
        Cut(week, [.. week.Evidence.Children.OrderBy(c => week.Evidence.SecureSkills(c).Count).ThenBy(c => c)], group =>
            group
                .SelectMany(c => ReadyFor(week, c))
                .GroupBy(s => s)
                .OrderByDescending(g => g.Count())
                .ThenBy(g => g.Key)
                .Select(g => g.Key)
                .FirstOrDefault(week.Evidence.Map.Skills[^1].Id)
        );

    private static List<FormedGroup> Cut(WeekToGroup week, IReadOnlyList<ChildId> children, Func<ChildId[], SkillId> aim) =>
        [.. children.Chunk(Size).Select((group, i) => new FormedGroup(aim(group), i, [.. group.Order()]))];

    private static IEnumerable<SkillId> ReadyFor(WeekToGroup week, ChildId child) =>
        week.Evidence.Map.Skills.Select(s => s.Id).Where(s => week.Evidence.IsReady(child, s));

    private static SkillId AnyOf(WeekToGroup week, IReadOnlyList<SkillId> skills) =>
        skills.Count > 0 ? week.Random.Pick(skills) : week.Evidence.Map.Skills[^1].Id;

    private static List<FormedGroup> Greedy(WeekToGroup week)
    {
        var problem = ProblemOf(week);
        var left = problem.Children.ToList();
        List<FormedGroup> groups = [];
        while (groups.Count < problem.Slots.Count)
        {
            var best = left.SelectMany(c => c.Worths.Keys)
                .Distinct()
                .Select(skill => new FormedGroup(
                    skill,
                    groups.Count,
                    [
                        .. left.Where(c => c.Worths.ContainsKey(skill))
                            .OrderByDescending(c => c.Worths[skill].Total)
                            .ThenBy(c => c.Child)
                            .Take(problem.Rules.MaxSize)
                            .Select(c => c.Child)
                            .Order(),
                    ]
                ))
                .Where(g => g.Children.Count >= problem.Rules.MinSize)
                .OrderByDescending(g => GroupScore.OfGroup(problem, g))
                .ThenBy(g => g.Skill)
                .FirstOrDefault();
            if (best is null)
            {
                break;
            }

            groups.Add(best);
            left.RemoveAll(c => best.Children.Contains(c.Child));
        }

        return groups;
    }

    private static IReadOnlyList<FormedGroup> Best(WeekToGroup week) => Grouper.Form(ProblemOf(week)).Groups;

    private static GroupingProblem ProblemOf(WeekToGroup week)
    {
        GroupingBrief brief = new(week.Evidence, week.Days[0], week.Focus, week.Past, new Dictionary<ChildId, IReadOnlySet<int>>(), new HashSet<ChildId>());
        return new(Candidates.From(brief), GroupSlot.InARow(week.Days.Count * week.GroupsADay), new(), Candidates.MetLately(week.Past));
    }
}
