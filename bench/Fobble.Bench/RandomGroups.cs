using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;
using Google.OrTools.Sat;

namespace Fobble.Bench;

/// <summary>Made-up problems of forming groups, and two ways to their best that share nothing with the Grouper: looking at every set there is, and all columns at once.</summary>
internal static class RandomGroups
{
    public static readonly SkillId[] Skills = [new("a.one"), new("a.two"), new("a.three"), new("a.four")];

    private static readonly GroupNames Plain = new(c => $"{c}", s => $"{s}", a => $"{a}", s => $"{s}");

    /// <param name="wished">Chance of each kind of wish.</param>
    public static GroupingProblem Of(SeededRandom random, int children, int skills, int slots, double wished = 0.22)
    {
        List<Candidate> candidates =
        [
            .. Enumerable
                .Range(1, children)
                .Select(i =>
                {
                    var fairness = 5 * random.Next(11);
                    var worths = Enumerable
                        .Range(0, skills)
                        .Where(_ => random.Chance(0.6))
                        .ToDictionary(s => Skills[s], _ => new Worth(50 + (10 * random.Next(6)), random.Next(30), fairness) { Shows = random.Chance(0.2) });
                    return new Candidate(
                        new(i),
                        worths,
                        fairness,
                        Enumerable.Range(0, slots).Where(_ => random.Chance(0.15)).ToHashSet(),
                        worths.Keys.Where(_ => random.Chance(0.5)).ToDictionary(s => s, _ => random.Pick(["counts", "skips"]))
                    )
                    {
                        Reach = worths.Keys.Where(_ => random.Chance(0.5)).ToDictionary(s => s, _ => random.Pick([5, 10])),
                        NeedsAdultNear = random.Chance(0.3),
                    };
                }),
        ];
        ChildPair AnyPair() => new(new(1 + random.Next(children / 2)), new(1 + (children / 2) + random.Next(children / 2)));
        ChildId AnyChild() => new(1 + random.Next(children));
        SkillId[] known = Skills[..skills];
        Wish[] wishes =
        [
            new ApartWish(AnyPair()),
            new TogetherWish(AnyPair()),
            new AdultWish(AnyChild(), random.Next(2), random.Chance(0.5)),
            new NearAdultWish(1),
            new RunsWish(random.Next(2), Skills.Take(2).ToHashSet(), "two"),
            new MostForAdultWish(random.Next(2), 1),
            new TurnWish(AnyChild()),
            new SeatWish(AnyChild(), random.Next(slots)),
            new AimWish(random.Pick(known), random.Next(slots)),
            new WorkWish(AnyChild(), random.Pick(known)),
        ];
        return new(
            candidates,
            [.. Enumerable.Range(0, slots).Select(s => new GroupSlot(s % 2, s / 2))],
            new GroupRules
            {
                MinSize = 2 + random.Next(2),
                MaxSize = 3 + random.Next(2),
                Wishes = [.. wishes.Where(_ => random.Chance(wished))],
                EveryoneOnce = random.Chance(0.3),
                MostAtOnce = random.Chance(0.2) ? 1 : null,
                Clashes = known.SelectMany(a => known.Select(b => (a, b))).Where(p => p.a.CompareTo(p.b) <= 0 && random.Chance(0.15)).ToHashSet(),
                Weights = random.Chance(0.3)
                    ? new()
                    {
                        Company = 400,
                        Slips = 0,
                        Numbers = 200,
                    }
                    : GroupWeights.Usual,
            },
            [
                .. Enumerable
                    .Range(0, 3)
                    .Select(_ =>
                        (IReadOnlyList<ChildId>)[.. random.Shuffled(Enumerable.Range(1, children)).Take(2 + random.Next(3)).Select(i => new ChildId(i))]
                    ),
            ]
        );
    }

    /// <summary>The same without wishes and with all places alike, as most weeks are.</summary>
    public static GroupingProblem Alike(GroupingProblem problem) =>
        problem with
        {
            Children = [.. problem.Children.Select(c => c with { AwayIn = new HashSet<int>() })],
            Slots = GroupSlot.InARow(problem.Slots.Count),
            Rules = problem.Rules with { Wishes = [], MostAtOnce = null, Clashes = new HashSet<(SkillId, SkillId)>() },
        };

    /// <summary>The most points of a set that keeps every rule and wish; <see cref="int.MinValue"/> where none does.</summary>
    public static int BestByBruteForce(GroupingProblem problem) =>
        AllSets(problem)
            .Where(s => problem.Fixed.Count == 0 ? GroupScore.Broken(problem, s, Plain).Count == 0 : GroupScore.BrokenBeside(problem, s, Plain).Count == 0)
            .Select(s => GroupScore.Of(problem, s))
            .DefaultIfEmpty(int.MinValue)
            .Max();

    // Every open child in every free place or none, every place with every skill; groups too small or large, or with somebody for whom the skill is nothing, are passed over.
    private static IEnumerable<IReadOnlyList<FormedGroup>> AllSets(GroupingProblem problem)
    {
        var open = problem.Children.Where(c => !problem.Fixed.Any(g => g.Children.Contains(c.Child))).ToList();
        int[] free = [.. Enumerable.Range(0, problem.Slots.Count).Where(s => problem.Fixed.All(g => g.Slot != s))];
        var skills = open.SelectMany(c => c.Worths.Keys).Distinct().Order().ToList();
        var codes = (int)Math.Pow(free.Length + 1, open.Count);
        for (var code = 0; code < codes; code++)
        {
            var members = free.Select(_ => new List<Candidate>()).ToArray();
            for (var (i, rest) = (0, code); i < open.Count; i++, rest /= free.Length + 1)
            {
                if (rest % (free.Length + 1) is > 0 and var at)
                {
                    members[at - 1].Add(open[i]);
                }
            }

            if (members.Any(m => m.Count > 0 && (m.Count < problem.Rules.MinSize || m.Count > problem.Rules.MaxSize)))
            {
                continue;
            }

            IEnumerable<IReadOnlyList<FormedGroup>> sets = [problem.Fixed];
            for (var i = 0; i < free.Length; i++)
            {
                if (members[i].Count > 0)
                {
                    var (slot, group) = (free[i], members[i]);
                    var fitting = skills.Where(s => group.All(c => c.Worths.ContainsKey(s))).ToList();
                    sets = sets.SelectMany(set =>
                        fitting.Select(skill => (IReadOnlyList<FormedGroup>)[.. set, new FormedGroup(skill, slot, [.. group.Select(c => c.Child)])])
                    );
                }
            }

            foreach (var set in sets)
            {
                yield return set;
            }
        }
    }

    /// <summary>The same by one model of every thinkable group in every place; null where the solver did not come to an end.</summary>
    public static int? BestByAllColumns(GroupingProblem problem)
    {
        CpModel model = new();
        List<(FormedGroup Group, BoolVar Chosen)> all = [];
        foreach (var slot in Enumerable.Range(0, problem.Slots.Count))
        {
            foreach (var group in Groups(problem, slot))
            {
                all.Add((group, model.NewBoolVar("")));
            }
        }

        LinearExpr Sum(Func<FormedGroup, bool> which) => LinearExpr.Sum(all.Where(a => which(a.Group)).Select(a => a.Chosen));
        foreach (var child in problem.Children)
        {
            model.Add(Sum(g => g.Children.Contains(child.Child)) <= 1);
        }

        foreach (var slot in Enumerable.Range(0, problem.Slots.Count))
        {
            model.Add(Sum(g => g.Slot == slot) <= 1);
        }

        foreach (var moment in problem.Slots.Select(s => s.Moment).Distinct())
        {
            bool Then(FormedGroup g) => problem.Slots[g.Slot].Moment == moment;
            if (problem.Rules.MostAtOnce is { } most)
            {
                model.Add(Sum(Then) <= most);
            }

            foreach (var (one, other) in problem.Rules.Clashes)
            {
                foreach (
                    var (a, b) in all.SelectMany(a => all.Select(b => (a, b)))
                        .Where(p => p.a.Group.Slot != p.b.Group.Slot && Then(p.a.Group) && Then(p.b.Group))
                )
                {
                    if (a.Group.Skill == one && b.Group.Skill == other)
                    {
                        model.AddBoolOr([a.Chosen.Not(), b.Chosen.Not()]);
                    }
                }
            }
        }

        foreach (var wish in problem.Rules.Wishes)
        {
            switch (wish)
            {
                case MostForAdultWish most:
                    model.Add(Sum(g => problem.Slots[g.Slot].Adult == most.Adult) <= most.Most);
                    break;
                case TurnWish turn:
                    model.Add(Sum(g => g.Children.Contains(turn.Child)) == 1);
                    break;
                case SeatWish seat:
                    model.Add(Sum(g => g.Children.Contains(seat.Child) && g.Slot == seat.Slot) == 1);
                    break;
                case WorkWish work:
                    model.Add(Sum(g => g.Children.Contains(work.Child) && g.Skill == work.Skill) == 1);
                    break;
                case AimWish aim:
                    model.Add(Sum(g => g.Slot == aim.Slot && g.Skill == aim.Skill) == 1);
                    break;
            }
        }

        // Points of a group by the score itself, what its children would lose without it counted back.
        var without = GroupScore.Of(problem, []);
        model.Maximize(LinearExpr.WeightedSum(all.Select(a => a.Chosen), all.Select(a => (long)(GroupScore.Of(problem, [a.Group]) - without))));
        CpSolver solver = new() { StringParameters = "num_workers:1 max_deterministic_time:60" };
        return solver.Solve(model) switch
        {
            CpSolverStatus.Optimal => (int)solver.ObjectiveValue + without,
            CpSolverStatus.Infeasible => int.MinValue,
            _ => null,
        };
    }

    // Groups that break nothing by themselves: rules and wishes of all of a set are left out of it.
    private static IEnumerable<FormedGroup> Groups(GroupingProblem problem, int slot)
    {
        var alone = problem with
        {
            Rules = problem.Rules with { Wishes = [.. problem.Rules.Wishes.Where(w => w is ApartWish or AdultWish or NearAdultWish or RunsWish)] },
        };
        var together = problem.Rules.Wishes.OfType<TogetherWish>().Select(w => w.Pair).ToList();
        bool IsOpen(ChildId child) => problem.Children.Any(c => c.Child == child);
        foreach (var skill in problem.Children.SelectMany(c => c.Worths.Keys).Distinct().Order())
        {
            ChildId[] able = [.. problem.Children.Where(c => c.Worths.ContainsKey(skill) && !c.AwayIn.Contains(slot)).Select(c => c.Child).Order()];
            for (var code = 1; code < 1 << able.Length; code++)
            {
                var size = System.Numerics.BitOperations.PopCount((uint)code);
                if (size < problem.Rules.MinSize || size > problem.Rules.MaxSize)
                {
                    continue;
                }

                FormedGroup group = new(skill, slot, [.. able.Where((_, i) => (code & (1 << i)) != 0)]);
                if (
                    GroupScore.Broken(alone, [group], Plain).Count == 0
                    && together.All(p => !IsOpen(p.First) || !IsOpen(p.Second) || group.Children.Contains(p.First) == group.Children.Contains(p.Second))
                )
                {
                    yield return group;
                }
            }
        }
    }
}
