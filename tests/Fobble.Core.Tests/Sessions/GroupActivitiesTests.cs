using Fobble.Core.Activities;
using Fobble.Core.Grouping;
using Fobble.Core.Sessions;
using Fobble.Core.Skills;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Sessions;

public class GroupActivitiesTests
{
    private static readonly ActivityLibrary Library = ActivityLoader.Shipped(Map);
    private static readonly SkillId Skill = Map.Skills.First(s => Library.For(s.Id, Place.Group).Count >= 2).Id;
    private static readonly DateOnly Monday = new(2026, 11, 23);

    /// <summary>Three weeks with groups, however many holidays lie between.</summary>
    [Theory]
    [InlineData(1, true)]
    [InlineData(2, true)]
    [InlineData(3, true)]
    [InlineData(4, false)]
    public void An_activity_rests_for_three_weeks_with_groups(int weeksAgo, bool rests)
    {
        var first = Library.For(Skill, Place.Group)[0];
        var played = Enumerable
            .Range(1, 5)
            .Select(ago =>
                (Monday.AddDays(-14 * ago), ago == weeksAgo ? Skill : new SkillId("some.other"), ago == weeksAgo ? first.Id : new ActivityId("other"))
            )
            .ToList();
        (GroupActivities.For(Skill, Library, played, Monday).Id != first.Id).ShouldBe(rests);
    }

    [Fact]
    public void Where_all_were_played_the_most_pointed_is_played_again()
    {
        var all = Library.For(Skill, Place.Group);
        GroupActivities.For(Skill, Library, all.Select(a => (Monday.AddDays(-7), Skill, a.Id)), Monday).ShouldBe(all[0]);
    }

    [Fact]
    public void What_was_played_on_another_skill_or_this_week_does_not_rest()
    {
        var first = Library.For(Skill, Place.Group)[0];
        GroupActivities.For(Skill, Library, [(Monday.AddDays(-7), new("other.skill"), first.Id), (Monday, Skill, first.Id)], Monday).ShouldBe(first);
    }

    [Fact]
    public void Places_that_overlap_are_at_one_moment_and_those_after_each_other_are_not()
    {
        PlaceInWeek At(int id, int day, int hour, int minute, int minutes) => new(new(id), Monday.AddDays(day), new(hour, minute), minutes, new(id));
        var moments = PlaceInWeek
            .InMoments([At(1, 0, 9, 40, 15), At(2, 0, 9, 50, 15), At(3, 0, 10, 5, 15), At(4, 1, 9, 40, 15), At(5, 0, 9, 40, 15)])
            .Select(s => s.Moment)
            .ToList();
        moments[0].ShouldBe(moments[1]);
        moments[0].ShouldBe(moments[4]);
        moments[2].ShouldNotBe(moments[1]);
        moments[3].ShouldNotBe(moments[0]);
    }

    [Fact]
    public void A_group_was_held_once_its_day_is_past_or_something_was_seen_and_a_child_away_had_no_turn()
    {
        AcceptedGroup group = new(new(1), Monday, new(1), Skill, [new(3), new(1), new(2)], false);
        group.WasHeld(Monday).ShouldBeFalse();
        (group with { Recorded = true }).WasHeld(Monday).ShouldBeTrue();
        group.WasHeld(Monday.AddDays(1)).ShouldBeTrue();
        group.Met(c => c.Value == 2).Children.ShouldBe([new ChildId(1), new(3)]);
        AcceptedGroup.WeekOf(Monday.AddDays(6)).ShouldBe(AcceptedGroup.WeekOf(Monday));
        AcceptedGroup.WeekOf(Monday.AddDays(7)).ShouldBe(AcceptedGroup.WeekOf(Monday) + 1);
    }
}
