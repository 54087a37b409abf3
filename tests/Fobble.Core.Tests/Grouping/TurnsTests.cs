using Fobble.Bench;
using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Skills;
using static Fobble.Core.Tests.Evidence.Record;
using static Fobble.Core.Tests.Grouping.ClassOf;

namespace Fobble.Core.Tests.Grouping;

/// <summary>Two turns a week: when there are two, and what the second knows of the first.</summary>
public class TurnsTests
{
    private static readonly DateOnly[] TwoADay = [.. Enumerable.Range(0, 5).SelectMany(d => Enumerable.Repeat(Monday.AddDays(d), 2))];

    [Theory]
    [InlineData(10, 30, TurnsAWeek.AsPlacesAllow, 2)]
    [InlineData(8, 30, TurnsAWeek.AsPlacesAllow, 2)]
    [InlineData(7, 30, TurnsAWeek.AsPlacesAllow, 1)]
    [InlineData(7, 30, TurnsAWeek.Two, 2)]
    [InlineData(10, 30, TurnsAWeek.One, 1)]
    [InlineData(2, 5, TurnsAWeek.Two, 1)]
    [InlineData(0, 30, TurnsAWeek.Two, 0)]
    public void A_week_has_two_parts_where_there_are_places_for_it_or_the_class_wants_it(int places, int children, TurnsAWeek turns, int parts) =>
        WeekParts.Of(TwoADay[..places], children, largest: 5, turns).Count.ShouldBe(parts);

    [Fact]
    public void The_parts_share_the_places_evenly_and_no_day_is_in_both()
    {
        var parts = WeekParts.Of(TwoADay, 30, 5, TurnsAWeek.AsPlacesAllow);
        parts.ShouldBe([new(1, Monday, Monday.AddDays(2)), new(2, Monday.AddDays(3), Monday.AddDays(4))]);
        parts.Select(p => p.Name).ShouldBe(["Monday to Wednesday", "Thursday to Friday"]);
        WeekParts.Of([Monday, Monday, Monday, Monday, Monday.AddDays(2), Monday.AddDays(4)], 12, 5, TurnsAWeek.Two)[0].Until.ShouldBe(Monday);
    }

    [Fact]
    public void A_further_turn_counts_no_waiting_and_less_than_a_first_and_is_never_on_the_same_aim()
    {
        var brief = Brief(2);
        PastGroup first = new(SchoolDay(30), 6, Say, [new(1)]);
        var candidates = Candidates.From(brief with { Beside = [first] });
        var before = Candidates.From(brief)[0];
        candidates[0].Worths.ContainsKey(Say).ShouldBeFalse();
        candidates[0].Fairness.ShouldBe(0);
        candidates[0].Elsewhere.ShouldBe([SchoolDay(30)]);
        candidates[0].Worths[See].Total.ShouldBe(before.Worths[See].Total - before.Fairness - Candidates.FurtherTurn);
        candidates[1].Worths.ShouldBe(Candidates.From(brief)[1].Worths, ignoreOrder: true);
        var everyone = new GroupRules { EveryoneOnce = true };
        GroupScore.CostOfLeavingOut(candidates[0], everyone).ShouldBe(0);
        GroupScore.CostOfLeavingOut(candidates[1], everyone).ShouldBeGreaterThan(GroupScore.LeftOutCost - 1);
        (brief with { Beside = [first] }).MetLately.ShouldHaveSingleItem().ShouldBe(first.Children);
    }

    [Fact]
    public void The_second_half_is_worth_asking_again_once_the_first_met_and_somebody_in_it_was_seen_since()
    {
        WeekPart first = new(1, SchoolDay(0), SchoolDay(2)),
            second = new(2, SchoolDay(3), SchoolDay(4));
        AcceptedGroup Of(int day, params int[] children) => new(new(day), SchoolDay(day), new(1), See, [.. children.Select(c => new ChildId(c))], false);
        AcceptedGroup[] accepted = [Of(1, 1, 2), Of(3, 1, 3), Of(4, 1, 4)];
        string? Told(WeekPart part, AcceptedGroup[] held, params Observation[] seen) =>
            WeekParts.WorthAskingAgain(part, accepted, Saw(0, Support.Alone).At, held, Brief(4, seen).Evidence);

        // Child 2 has no group in the second half, and what was seen before they were accepted is in them.
        Told(second, [accepted[0]], Saw(1, Support.Alone), Saw(1, Support.Alone, child: 2)).ShouldNotBeNull().ShouldStartWith("One child has been seen since");
        Told(second, [accepted[0]], Saw(1, Support.Alone), Saw(2, Support.NotYet, child: 4)).ShouldNotBeNull().ShouldStartWith("Two children have");
        Told(second, [accepted[0]], Saw(0, Support.Alone), Saw(1, Support.Alone, child: 2)).ShouldBeNull();
        Told(second, [], Saw(1, Support.Alone)).ShouldBeNull();
        Told(second, [accepted[0], accepted[1]], Saw(1, Support.Alone)).ShouldBeNull();
        Told(first, [accepted[0]], Saw(1, Support.Alone)).ShouldBeNull();
    }

    [Fact]
    public void What_an_adult_takes_in_a_week_is_less_by_the_groups_beside() =>
        ((int[])[0, 1, 2, 3]).Select(taken => new MostForAdultWish(7, 2).Beside([8, .. Enumerable.Repeat(7, taken)]).Most).ShouldBe([2, 1, 0, 0]);

    /// <summary>Played for made-up classes: what the second turn promises, tried on each.</summary>
    [Theory]
    [InlineData(1)]
    [InlineData(2)]
    [InlineData(3)]
    [InlineData(4)]
    public void Nobody_works_twice_on_an_aim_or_on_a_day_and_most_have_two_turns(ulong seed)
    {
        var brief = MadeUpTerm.Play(seed, 6).Next;
        var monday = brief.ForDay;
        DateOnly[] places = [.. Enumerable.Range(0, 5).SelectMany(d => Enumerable.Repeat(monday.AddDays(d), 2))];
        List<PastGroup> groups = [];
        foreach (var part in WeekParts.Of(places, 30, 5, TurnsAWeek.AsPlacesAllow))
        {
            List<GroupSlot> slots = [.. places.Where(part.Has).Select((d, i) => new GroupSlot(0, i) { Day = d })];
            var own = brief with { Beside = [.. groups] };
            GroupingProblem problem = new(Candidates.From(own), slots, new(), own.MetLately);
            var found = Grouper.Form(problem);
            GroupScore.Broken(problem, found.Groups, Names.Plain).ShouldBeEmpty();
            groups.AddRange(found.Groups.Select(g => new PastGroup(slots[g.Slot].Day!.Value, 100, g.Skill, g.Children)));
            var told = Reasons.ForFurtherTurns(found, problem.Children);
            (told.Length > 0).ShouldBe(part.Number == 2);
        }

        var turns = groups.SelectMany(g => g.Children.Select(c => (Child: c, g.Skill, g.Day))).ToList();
        turns.Select(t => (t.Child, t.Skill)).ShouldBeUnique();
        turns.Select(t => (t.Child, t.Day)).ShouldBeUnique();
        turns.Select(t => t.Child).Distinct().Count().ShouldBe(30);
        turns.GroupBy(t => t.Child).Count(g => g.Count() == 2).ShouldBeGreaterThan(12);
    }

    [Fact]
    public void Groups_change_places_so_that_turns_are_days_apart_and_only_where_nothing_minds()
    {
        Candidate Child(int id, SkillId skill, params DateOnly[] elsewhere) =>
            new(new(id), new Dictionary<SkillId, Worth> { [skill] = new(60, 0, 0) }, 0, new HashSet<int>(), new Dictionary<SkillId, string>())
            {
                Elsewhere = elsewhere,
            };
        GroupSlot[] slots = [new(0, 0) { Day = SchoolDay(3) }, new(0, 1) { Day = SchoolDay(4) }];
        Candidate[] children =
        [
            Child(1, See, SchoolDay(2)),
            Child(2, See, SchoolDay(2)),
            Child(3, See, SchoolDay(0)),
            Child(4, Say),
            Child(5, Say),
            Child(6, Say),
        ];
        GroupingProblem problem = new(children, slots, new(), []);
        Grouper.Form(problem).Groups.Single(g => g.Skill == See).Slot.ShouldBe(1);
        var seated = problem with { Rules = problem.Rules with { Wishes = [new SeatWish(new(1), 0)] } };
        Grouper.Form(seated).Groups.Single(g => g.Skill == See).Slot.ShouldBe(0);

        // What somebody has put by hand is not put elsewhere.
        FormedGroup[] byHand = [Group(See, 0, 1, 2, 3), Group(Say, 1, 4, 5, 6)];
        Grouper.AsFound(problem, byHand).Groups.ShouldBe(byHand);
    }

    [Fact]
    public void What_comes_out_as_it_stands_keeps_its_place_unless_something_speaks_against_it()
    {
        Candidate Child(int id, SkillId skill) =>
            new(new(id), new Dictionary<SkillId, Worth> { [skill] = new(60, 0, 0) }, 0, new HashSet<int>(), new Dictionary<SkillId, string>());
        Candidate[] children = [.. Enumerable.Range(1, 8).Select(i => Child(i, i < 5 ? See : Say))];
        GroupingProblem problem = new(children, GroupSlot.InARow(3), new(), []);
        int PlaceOf(GroupingProblem asked, SkillId skill) => Grouper.Form(asked).Groups.Single(g => g.Skill == skill).Slot;

        // Two that changed places, and one that has lost a child and gone to the place that is free.
        foreach (var (see, say) in new[] { (0, 1), (1, 0), (2, 0), (1, 2) })
        {
            var standing = problem with { Standing = [Group(See, see, 1, 2, 3, 9), Group(Say, say, 5, 6, 7, 8)] };
            (PlaceOf(standing, See), PlaceOf(standing, Say)).ShouldBe((see, say));
        }

        // Another skill, mostly others, or a seat that was asked for: nothing to stay for.
        var before = PlaceOf(problem, See);
        PlaceOf(problem with { Standing = [Group(See, 2, 1, 9, 10, 11)] }, See).ShouldBe(before);
        PlaceOf(
                problem with
                {
                    Standing = [Group(See, 2, 1, 2, 3, 4)],
                    Rules = new() { Wishes = [new SeatWish(new(1), 1)] },
                },
                See
            )
            .ShouldBe(1);
    }

    [Fact]
    public void A_group_that_is_planned_stays_for_a_few_points_and_goes_for_more()
    {
        GroupingBrief Planned(params SkillId[] aims) => Brief(1) with { Planned = aims.Select(a => (new ChildId(1), a)).ToHashSet() };
        int Worth(GroupingBrief brief, SkillId skill) => Candidates.From(brief)[0].Worths[skill].Total;
        (Worth(Planned(See), See) - Worth(Brief(1), See)).ShouldBe(Candidates.StayWorth);
        Worth(Planned(See), Say).ShouldBe(Worth(Brief(1), Say));
        Worth(Planned(See) with { Weights = GroupWeights.Usual with { Stay = 0 } }, See).ShouldBe(Worth(Brief(1), See));
        Candidates.StayWorth.ShouldBeInRange(2, 3);
    }

    [Fact]
    public void Weeks_ahead_know_both_parts()
    {
        var brief = Brief(12);
        WeekAhead Part(int week, int from, int days) =>
            new(
                week,
                SchoolDay((5 * week) + from),
                [.. Enumerable.Range(0, days).Select(d => new GroupSlot(0, d) { Day = SchoolDay((5 * week) + from + d) })],
                new Dictionary<ChildId, IReadOnlySet<int>>()
            );
        List<WeekAhead> weeks = [Part(6, 0, 3), Part(6, 3, 2), Part(7, 0, 3), Part(7, 3, 2)];
        var plan = Rotation.Plan(brief, new() { MaxSize = 4 }, weeks);
        plan.Sentence.ShouldStartWith("In two weeks");
        var turns = plan
            .Weeks.Zip(weeks)
            .SelectMany(w => w.First.Groups.SelectMany(g => g.Children.Select(c => (Child: c, g.Skill, w.Second.Number))))
            .ToList();
        turns.Select(t => (t.Child, t.Skill)).ShouldBeUnique();
        turns.GroupBy(t => (t.Child, t.Number)).Max(g => g.Count()).ShouldBe(2);
    }
}
