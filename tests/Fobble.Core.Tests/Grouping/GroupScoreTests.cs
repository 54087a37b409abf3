using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Skills;

namespace Fobble.Core.Tests.Grouping;

/// <summary>The points and rules by which groups are compared, one at a time and worked by hand.</summary>
public class GroupScoreTests
{
    private static readonly SkillId Skill = new("see.to-3");
    private static readonly GroupingProblem Six = new([.. Enumerable.Range(1, 6).Select(i => Child(i))], GroupSlot.InARow(2), new(), []);
    private static readonly FormedGroup Three = new(Skill, 0, [new(1), new(2), new(3)]);

    [Fact]
    public void Worth_is_base_urgency_and_fairness_and_who_is_left_out_loses_fairness() =>
        GroupScore.Of(Six, [Three]).ShouldBe((3 * (100 + 20 + 15)) - (3 * 15));

    [Fact]
    public void Everyone_at_least_once_makes_leaving_out_dear() =>
        GroupScore.Of(Six with { Rules = new() { EveryoneOnce = true } }, [Three]).ShouldBe((3 * 135) - (3 * (15 + GroupScore.LeftOutCost)));

    [Theory]
    [InlineData(new[] { 1, 2 }, 1)]
    [InlineData(new[] { 1, 2, 3 }, 3)]
    [InlineData(new[] { 1, 2, 3, 4 }, 3)]
    [InlineData(new[] { 1, 5, 6 }, 0)]
    public void Each_pair_that_meets_again_costs(int[] met, int pairs) =>
        (
            GroupScore.Of(Six, [Three])
            - GroupScore.Of(
                Six with
                {
                    MetLately =
                    [
                        [.. met.Select(i => new ChildId(i))],
                    ],
                },
                [Three]
            )
        ).ShouldBe(GroupScore.PairMetCost * pairs);

    [Theory]
    [InlineData(new[] { "counts", "counts", "counts" }, 0)]
    [InlineData(new[] { "counts", "skips", "counts" }, 1)]
    [InlineData(new[] { "counts", "skips", "guesses" }, 2)]
    public void Each_further_kind_of_slip_costs(string[] slips, int further)
    {
        var problem = Six with
        {
            Children = [.. Six.Children.Select((c, i) => i < 3 ? c with { Slips = new Dictionary<SkillId, string> { [Skill] = slips[i] } } : c)],
        };
        (GroupScore.Of(Six, [Three]) - GroupScore.Of(problem, [Three])).ShouldBe(GroupScore.FurtherSlipCost * further);
    }

    [Theory]
    [InlineData(new[] { 5, 5, 5 }, 0)]
    [InlineData(new[] { 5, 10, 5 }, 1)]
    [InlineData(new[] { 5, 10, 20 }, 2)]
    public void Each_further_size_of_numbers_costs(int[] reach, int further)
    {
        var problem = Six with
        {
            Children = [.. Six.Children.Select((c, i) => i < 3 ? c with { Reach = new Dictionary<SkillId, int> { [Skill] = reach[i] } } : c)],
        };
        (GroupScore.Of(Six, [Three]) - GroupScore.Of(problem, [Three])).ShouldBe(GroupScore.FurtherReachCost * further);
    }

    [Fact]
    public void A_weight_of_nothing_takes_a_cost_away_and_of_twice_as_much_doubles_it()
    {
        var met = Six with
        {
            MetLately =
            [
                [new(1), new(2)],
            ],
        };
        int Cost(int percent) => GroupScore.Of(Six, [Three]) - GroupScore.Of(met with { Rules = new() { Weights = new() { Company = percent } } }, [Three]);
        (Cost(0), Cost(100), Cost(200)).ShouldBe((0, GroupScore.PairMetCost, 2 * GroupScore.PairMetCost));
    }

    [Fact]
    public void Every_other_wish_is_said_in_words()
    {
        string Told(Wish wish) =>
            Broken(
                    Six with
                    {
                        Slots = [new(7, 0), new(8, 0)],
                        Rules = new() { Wishes = [wish] },
                        Children = [.. Six.Children.Select(c => c with { NeedsAdultNear = c.Child.Value < 3 })],
                    },
                    Three
                )
                .ShouldHaveSingleItem();
        Told(new AdultWish(new(1), 7, With: false)).ShouldBe("Child 1 not with adult 7");
        Told(new AdultWish(new(1), 8, With: true)).ShouldBe("Child 1 only with adult 8");
        Told(new NearAdultWish(1)).ShouldBe("at most one child in a group who needs an adult near");
        Told(new RunsWish(7, new HashSet<SkillId> { new("bond.to-5") }, "bonds")).ShouldBe("adult 7 takes groups on bonds only");
        Told(new MostForAdultWish(7, 0)).ShouldBe("adult 7 takes at most zero groups");
        Told(new TurnWish(new(5))).ShouldBe("Child 5 has a turn this time");
        Told(new SeatWish(new(1), 1)).ShouldBe("Child 1 sits at the table of place 1");
        Told(new AimWish(Skill, 1)).ShouldBe("the table of place 1 works on see.to-3");
        Told(new WorkWish(new(6), Skill)).ShouldBe("Child 6 works on see.to-3");
    }

    [Fact]
    public void Too_much_at_one_time_is_said()
    {
        FormedGroup[] two = [Three, new(Skill, 1, [new(4), new(5), new(6)])];
        var atOnce = Six with
        {
            Slots = [new(7, 0), new(8, 0)],
            Rules = new()
            {
                MostAtOnce = 1,
                Clashes = new HashSet<(SkillId, SkillId)> { (Skill, Skill) },
            },
        };
        Broken(atOnce, two).ShouldBe(["two groups at one time; there is room for one", "not enough things for see.to-3 and see.to-3 at the same time"]);
        Broken(atOnce with { Slots = [new(7, 0), new(8, 1)] }, two).ShouldBeEmpty();
    }

    [Fact]
    public void A_sound_set_breaks_nothing() => Broken(Six, Three).ShouldBeEmpty();

    [Fact]
    public void Too_small_and_too_large_are_said_with_the_size_asked_for()
    {
        Broken(Six, Three with { Children = [new(1), new(2)] }).ShouldBe(["two children on see.to-3; a group has 3 to 5"]);
        Broken(Six, Three with { Children = [.. Six.Children.Select(c => c.Child)] }).ShouldBe(["six children on see.to-3; a group has 3 to 5"]);
    }

    [Fact]
    public void A_skill_that_is_no_next_step_is_said() =>
        Broken(Six with { Children = [Child(1) with { Worths = new Dictionary<SkillId, Worth>() }, .. Six.Children.Skip(1)] }, Three)
            .ShouldBe(["see.to-3 is no next step for Child 1"]);

    [Fact]
    public void Being_out_of_class_is_said() =>
        Broken(Six with { Children = [Child(1) with { AwayIn = new HashSet<int> { 0 } }, .. Six.Children.Skip(1)] }, Three)
            .ShouldBe(["Child 1 is out of class then"]);

    [Fact]
    public void Apart_and_together_are_said()
    {
        Broken(Six with { Rules = new() { Wishes = [new ApartWish(new(new(3), new(1)))] } }, Three).ShouldBe(["Child 1 and Child 3 are to be kept apart"]);
        Broken(Six with { Rules = new() { Wishes = [new TogetherWish(new(new(1), new(6)))] } }, Three)
            .ShouldBe(["Child 1 and Child 6 are to be kept together"]);
        Broken(Six with { Rules = new() { Wishes = [new TogetherWish(new(new(5), new(6)))] } }, Three).ShouldBeEmpty();
    }

    [Fact]
    public void A_child_in_two_groups_is_said() =>
        Broken(Six, Three, new FormedGroup(Skill, 1, [new(3), new(4), new(5)])).ShouldBe(["Child 3 is in two groups"]);

    [Fact]
    public void Moving_a_child_takes_it_out_where_it_was()
    {
        FormedGroup[] groups = [Three, new(Skill, 1, [new(4), new(5), new(6)])];
        HandMove
            .Apply(groups, new(2), 1)
            .Select(g => g.Children.Select(c => c.Value))
            .ShouldBe([
                [1, 3],
                [2, 4, 5, 6],
            ]);
        HandMove.Apply(groups, new(2), null).Select(g => g.Children.Count).ShouldBe([2, 3]);
    }

    private static Candidate Child(int id) =>
        new(new(id), new Dictionary<SkillId, Worth> { [Skill] = new(100, 20, 15) }, 15, new HashSet<int>(), new Dictionary<SkillId, string>());

    private static IReadOnlyList<string> Broken(GroupingProblem problem, params FormedGroup[] groups) => GroupScore.Broken(problem, groups, Names.Plain);
}
