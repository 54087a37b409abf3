using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Skills;
using static Fobble.Core.Evidence.Support;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Grouping;

/// <summary>Worth, reasons, prices and changes come from the same numbers.</summary>
public class ReasonsTests
{
    private static readonly SkillId SayTen = new("count.say-10");

    private static readonly ChildId[] Children = [.. Enumerable.Range(1, 6).Select(i => new ChildId(i))];
    private static readonly SkillId Say = new("count.say-5");
    private static readonly SkillId See = new("see.to-3");

    [Theory]
    [InlineData(new Support[0], 60)]
    [InlineData(new[] { NotYet }, 80)]
    [InlineData(new[] { Prompted }, 100)]
    [InlineData(new[] { Alone }, 90)]
    public void Worth_goes_by_strength(Support[] results, int expected) =>
        Only(Brief([.. results.Select((r, i) => Said(27 + i, r))])).Worths[Say].Base.ShouldBe(expected);

    [Fact]
    public void Secure_and_fresh_is_no_aim_and_secure_long_ago_is_one_to_look_at_again()
    {
        Only(Brief(Said(25, Alone), Said(27, Alone), Said(29, Alone))).Worths.ShouldNotContainKey(Say);
        var again = Brief(Said(0, Alone), Said(2, Alone), Said(3, Alone));
        Only(again).Worths[Say].Base.ShouldBe(Candidates.LookAgainBase);
        Reasons.ForChild(new(1), Say, again).ShouldStartWith("Had “say to five”; time to look again, alone on 7 September, on 9 September and on 10 September");
    }

    [Fact]
    public void Skills_whose_prerequisites_are_missing_are_no_aim() => Only(Brief()).Worths.Keys.ShouldAllBe(s => Map[s].Needs.Count == 0);

    [Fact]
    public void The_weeks_focus_and_what_it_needs_are_urgent()
    {
        var plain = Only(Brief()).Worths[Say];
        var focus = Only(Brief() with { Focus = [new("count.say-10")] }).Worths[Say];
        (focus.Urgency - plain.Urgency).ShouldBe(12);
    }

    [Fact]
    public void Waiting_for_a_turn_counts_five_points_a_school_day_and_fifty_at_the_most()
    {
        var past = new PastGroup(SchoolDay(27), 5, Say, [new(1)]);
        var brief = Brief() with { Past = [past] };
        var candidates = Candidates.From(brief);
        candidates[0].Fairness.ShouldBe(15);
        candidates[1].Fairness.ShouldBe(50);
        Reasons.ForChild(new(1), Say, brief).ShouldEndWith("; last in a group three school days before.");
        Reasons.ForChild(new(2), Say, brief).ShouldEndWith("; has not been in a group yet.");
    }

    [Fact]
    public void Groups_are_remembered_for_three_cycles()
    {
        var past = Enumerable
            .Range(1, 5)
            .Select(week => new PastGroup(SchoolDay(week), week, Say, week is 1 or 4 ? [new(1), new(2)] : [new(3), new(4)]))
            .ToList();
        Candidates.MetLately(past).Select(g => g[0].Value).ShouldBe([3, 1, 3]);
    }

    [Fact]
    public void A_reason_names_the_latest_results_by_day()
    {
        var brief = Brief(Said(25, Prompted), Said(27, Prompted));
        Reasons.ForChild(new(1), Say, brief).ShouldBe("“Say to five” with a prompt on 12 October and on Wednesday; has not been in a group yet.");
    }

    [Fact]
    public void A_price_is_the_difference_of_the_points()
    {
        var brief = Brief(Said(27, Prompted));
        var (problem, groups) = TwoGroups(brief);
        foreach (var price in HandMove.Prices(problem, groups, new(1), brief, Told))
        {
            price.Price.ShouldBe(GroupScore.Of(problem, groups) - GroupScore.Of(problem, HandMove.Apply(groups, new(1), price.To)));
            price.Reason.ShouldNotBeNullOrWhiteSpace();
        }
    }

    [Fact]
    public void A_move_that_breaks_a_rule_says_which()
    {
        var brief = Brief(Said(25, Alone), Said(27, Alone), Said(29, Alone));
        var (problem, groups) = TwoGroups(brief);
        var prices = HandMove.Prices(problem with { Rules = new() { Wishes = [new ApartWish(new(new(4), new(1)))] } }, groups, new(4), brief, Told);
        prices.Single(p => p.To == 0).Breaks.ShouldContain("Child 1 and Child 4 are to be kept apart");
        prices.Single(p => p.To == 0).Breaks.ShouldContain("two children on “see to three”; a group has 3 to 5");
        HandMove.Prices(problem, groups, new(1), brief, Told).Single(p => p.To == 1).Reason.ShouldStartWith("Not seen on “see to three”");
        HandMove.Prices(problem, [groups[1], groups[0]], new(4), brief, Told).Select(p => p.To).ShouldBe([1, null]);
    }

    [Fact]
    public void Changes_say_what_was_seen_since()
    {
        var brief = Brief(Said(25, Alone), Said(27, Alone), Said(29, Alone));
        PastGroup[] before = [new(SchoolDay(26), 1, Say, [new(1), new(2)])];
        var since = new DateTimeOffset(SchoolDay(26).ToDateTime(default), TimeSpan.Zero);
        var changes = GroupChanges.Between(before, since, [new(See, 0, [new(1), new(3)]), new(Say, 1, [new(2)])], brief);
        changes.Select(c => c.Child.Value).ShouldBe([1, 3]);
        changes[0].Why.ShouldStartWith("Since then “say to five” alone on Wednesday and on Friday: it is secure now. Not seen on “see to three” yet");
        changes[1].Why.ShouldStartWith("Was in no group last time.");
        GroupChanges
            .Between(before, since, [], brief)
            .Single(c => c.Child.Value == 2)
            .Why.ShouldBe("Nothing new on “say to five”. Had a turn; children who wait longer go first.");
    }

    [Fact]
    public void An_aim_that_stays_is_told_where_something_new_was_seen()
    {
        var brief = Brief(Said(29, Alone));
        PastGroup[] before = [new(SchoolDay(26), 1, Say, [new(1), new(2)])];
        var since = new DateTimeOffset(SchoolDay(26).ToDateTime(default), TimeSpan.Zero);
        GroupChanges
            .Between(before, since, [new(Say, 0, [new(1), new(2)])], brief)
            .ShouldHaveSingleItem()
            .Why.ShouldBe("Since then “say to five” alone on Friday: it is nearly there. It stays the next step that gains most.");
    }

    [Fact]
    public void A_child_put_where_it_is_no_next_step_is_said_to_be_there_by_hand()
    {
        var brief = Brief(Said(27, Prompted));
        Reasons.ForPlaced(new(1), Say, brief).ShouldBe(Reasons.ForChild(new(1), Say, brief));
        Reasons.ForPlaced(new(1), new("count.say-10"), brief).ShouldBe("Put here by hand. Not ready yet: needs “say to five” first.");
    }

    [Fact]
    public void A_result_claims_no_more_than_it_has()
    {
        FormedGroup[] one = [new(Say, 0, [new(1), new(2), new(3)])];
        Reasons.ForResult(new(one, [], 300, true, 300)).ShouldBe("No better set of groups exists for these aims.");
        Reasons.ForResult(new(one, [], 300, false, 310)).ShouldBe("The best found so far, and at most 3 % short of any other.");
        Reasons.ForResult(new([], [], 0, true, 0)).ShouldStartWith("No group can be formed");
        Reasons.ForResult(new([], [], 0, false, 90)).ShouldStartWith("No groups that keep all wishes were found");
        Reasons
            .ForResult(new([], [], 0, false, 0) { Conflict = [new TurnWish(new(1)), new NearAdultWish(1)] })
            .ShouldBe("Two wishes can’t be kept together: let go of any one of them, and groups can be formed.");
    }

    private static readonly GroupNames Told = Names.Plain with { Skill = s => Map[s].InSentence };

    private static Observation Said(int day, Support support) => Saw(day, support, Representation.Spoken, skill: OneWay);

    private static Candidate Only(GroupingBrief brief) => Candidates.From(brief)[0];

    private static GroupingBrief Brief(params Observation[] seen) =>
        new(
            new ClassEvidence(Map, Calendar, EvidenceSettings.Default, Children, seen, SchoolDay(31)),
            SchoolDay(30),
            [],
            [],
            new Dictionary<ChildId, IReadOnlySet<int>>(),
            new HashSet<ChildId>()
        );

    private static (GroupingProblem Problem, IReadOnlyList<FormedGroup> Groups) TwoGroups(GroupingBrief brief) =>
        (
            new(
                Candidates.From(brief),
                GroupSlot.InARow(2),
                new(),
                [
                    [new(1), new(5)],
                ]
            ),
            [new(Say, 0, [new(1), new(2), new(3)]), new(See, 1, [new(4), new(5), new(6)])]
        );

    [Theory]
    [InlineData("All three are ready for “say to five” and not secure yet", "count.say-5", 1, 2, 3)]
    [InlineData("Both are ready for “say to five” and not secure yet", "count.say-5", 1, 2)]
    [InlineData("Nobody is new to “say to ten”: three children are to look at it again", "count.say-10", 1, 2, 3)]
    [InlineData("Nobody is new to “say to ten”: one child is to look at it again", "count.say-10", 1)]
    public void A_group_is_told_as_one_would_say_it_of_none_of_two_and_of_all(string begins, string skill, params int[] children) =>
        Reasons.ForGroup(ClassOf.Group(new(skill), 0, children), ClassOf.Brief(4)).ShouldStartWith(begins);

    [Theory]
    [InlineData(2, "One child is ready for “say to ten”, one to look at again")]
    [InlineData(3, "One child is ready for “say to ten”, two to look at again")]
    public void Who_is_ready_and_who_comes_back_are_counted_apart(int children, string begins)
    {
        // The first can say to five, so what comes next is open to it.
        var seen = Enumerable.Range(20, 6).Select(day => Saw(day, Alone, skill: Map[Say], child: 1));
        Reasons.ForGroup(ClassOf.Group(SayTen, 0, [.. Enumerable.Range(1, children)]), ClassOf.Brief(4, [.. seen])).ShouldStartWith(begins);
    }
}
