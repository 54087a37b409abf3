using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;

namespace Fobble.Core.Tests.Grouping;

/// <summary>Rule R13, against brute force on hundreds of small cases.</summary>
public class GrouperTests
{
    private static readonly SkillId[] Skills = [new("a.one"), new("a.two"), new("a.three")];

    private static readonly Gen<GroupingProblem> Small = Gen.ULong.Select(seed => Random(new SeededRandom(seed), children: 6, skills: 3, slots: 2));

    [Fact]
    public void No_set_of_groups_is_better() => Small.Sample(
        problem =>
        {
            var result = Grouper.Form(problem);
            result.ProvenBest.ShouldBeTrue();
            result.Score.ShouldBe(BestByBruteForce(problem));
            result.Score.ShouldBe(GroupScore.Of(problem, result.Groups));
        },
        iter: 200, threads: 1);

    [Fact]
    public void Every_rule_is_kept() => Gen.ULong.Select(seed => Random(new SeededRandom(seed), children: 16, skills: 3, slots: 4)).Sample(
        problem =>
        {
            var result = Grouper.Form(problem);
            GroupScore.Broken(problem, result.Groups, c => $"{c}", s => $"{s}").ShouldBeEmpty();
            result.Groups.Select(g => g.Slot).Distinct().Count().ShouldBe(result.Groups.Count);
            result.Groups.SelectMany(g => g.Children).Concat(result.Unplaced).Order().ShouldBe(problem.Children.Select(c => c.Child).Order());
        },
        iter: 60, threads: 1);

    [Fact]
    public void The_same_wishes_give_the_same_groups()
    {
        var problem = Random(new SeededRandom(8), children: 18, skills: 3, slots: 4);
        var first = Grouper.Form(problem);
        for (var i = 0; i < 3; i++)
        {
            Grouper.Form(problem).Groups.Select(Print).ShouldBe(first.Groups.Select(Print));
        }
    }

    [Fact]
    public void Leaving_a_child_out_happens_only_when_it_can_not_be_helped_if_everyone_is_to_have_a_turn()
    {
        // Seven children, one of whom is worth little: with groups of at most four everyone still finds a place.
        var children = Enumerable.Range(1, 7).Select(i => Candidate(i, (0, i == 7 ? 1 : 100))).ToList();
        var rules = new GroupRules { MinSize = 3, MaxSize = 4, EveryoneOnce = true };
        Grouper.Form(new(children, 2, rules, [])).Unplaced.ShouldBeEmpty();
        Grouper.Form(new(children, 1, rules, [])).Unplaced.Count.ShouldBe(3);
    }

    [Fact]
    public void Children_who_are_away_in_a_slot_are_placed_in_another_one()
    {
        List<Candidate> children = [.. Enumerable.Range(1, 3).Select(i => Candidate(i, (0, 90)) with { AwayIn = new HashSet<int> { 0 } })];
        Grouper.Form(new(children, 2, new(), [])).Groups.ShouldHaveSingleItem().Slot.ShouldBe(1);
        Grouper.Form(new(children, 1, new(), [])).Groups.ShouldBeEmpty();
    }

    [Fact]
    public void Children_who_met_lately_are_mixed_when_nothing_speaks_against_it()
    {
        var children = Enumerable.Range(1, 6).Select(i => Candidate(i, (0, 90))).ToList();
        IReadOnlyList<IReadOnlyList<ChildId>> met = [[new(1), new(2), new(3)], [new(4), new(5), new(6)]];
        var result = Grouper.Form(new(children, 2, new() { MaxSize = 3 }, met));

        // Two threes out of two threes: at best two children of each meet again, once in each group.
        result.Score.ShouldBe((6 * 90) - (2 * GroupScore.PairMetCost));
    }

    [Fact]
    public void Nobody_to_group_gives_no_groups() =>
        Grouper.Form(new([], 3, new(), [])).ShouldSatisfyAllConditions(r => r.Groups.ShouldBeEmpty(), r => r.ProvenBest.ShouldBeTrue());

    [Fact]
    public void Solver_parameters_are_well_formed() => Grouper.Parameters(0.4).Split(' ').ShouldAllBe(p => System.Text.RegularExpressions.Regex.IsMatch(p, "^[a-z_]+:[0-9.]+$"));

    private static string Print(FormedGroup g) => $"{g.Skill} {g.Slot}: {string.Join(",", g.Children)}";

    private static ChildPair Pair(int one, int other) => new(new(one), new(other));

    private static Candidate Candidate(int id, params (int Skill, int Worth)[] worths) =>
        new(new(id), worths.ToDictionary(w => Skills[w.Skill], w => new Worth(w.Worth, 0, 0)), 0, new HashSet<int>(), new Dictionary<SkillId, string>());

    private static GroupingProblem Random(SeededRandom random, int children, int skills, int slots)
    {
        List<Candidate> candidates = [.. Enumerable.Range(1, children).Select(i =>
        {
            var fairness = 5 * random.Next(11);
            var worths = Enumerable.Range(0, skills).Where(_ => random.Chance(0.6)).ToDictionary(s => Skills[s], _ => new Worth(50 + (10 * random.Next(6)), random.Next(30), fairness) { Shows = random.Chance(0.2) });
            return new Candidate(
                new(i),
                worths,
                fairness,
                Enumerable.Range(0, slots).Where(_ => random.Chance(0.15)).ToHashSet(),
                worths.Keys.Where(_ => random.Chance(0.5)).ToDictionary(s => s, _ => random.Pick(["counts", "skips"])));
        })];
        ChildPair AnyPair() => Pair(1 + random.Next(children / 2), 1 + (children / 2) + random.Next(children / 2));
        return new(
            candidates,
            slots,
            new GroupRules
            {
                MinSize = 2 + random.Next(2),
                MaxSize = 3 + random.Next(2),
                Apart = random.Chance(0.5) ? [AnyPair()] : [],
                Together = random.Chance(0.5) ? [AnyPair()] : [],
                EveryoneOnce = random.Chance(0.3),
            },
            [.. Enumerable.Range(0, 3).Select(_ => (IReadOnlyList<ChildId>)[.. random.Shuffled(Enumerable.Range(1, children)).Take(2 + random.Next(3)).Select(i => new ChildId(i))])]);
    }

    // Every child in every slot or none, every slot with every skill: all sets of groups there are.
    private static int BestByBruteForce(GroupingProblem problem)
    {
        var children = problem.Children.Select(c => c.Child).ToList();
        var best = int.MinValue;
        for (var code = 0; code < (int)Math.Pow(problem.Slots + 1, children.Count); code++)
        {
            var slots = Enumerable.Range(0, problem.Slots).Select(_ => new List<ChildId>()).ToList();
            for (var (i, rest) = (0, code); i < children.Count; i++, rest /= problem.Slots + 1)
            {
                if (rest % (problem.Slots + 1) is > 0 and var slot)
                {
                    slots[slot - 1].Add(children[i]);
                }
            }

            IEnumerable<IReadOnlyList<FormedGroup>> sets = [[]];
            foreach (var (members, slot) in slots.Select((m, i) => (m, i)).Where(p => p.m.Count > 0))
            {
                sets = sets.SelectMany(set => Skills.Select(skill => (IReadOnlyList<FormedGroup>)[.. set, new FormedGroup(skill, slot, members)]));
            }

            best = Math.Max(best, sets.Where(s => GroupScore.Broken(problem, s, c => $"{c}", k => $"{k}").Count == 0).Select(s => GroupScore.Of(problem, s)).DefaultIfEmpty(int.MinValue).Max());
        }

        return best;
    }
}
