using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Cupboard;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using static Fobble.Core.Tests.Evidence.Record;
using static Fobble.Core.Tests.Planning.PlanWorld;

namespace Fobble.Core.Tests.Planning;

/// <summary>Which activity for which part of the day, and why.</summary>
public class ActivityChooserTests
{
    private static readonly SkillId Skill = new("bond.all-5");
    private static readonly DateOnly Day = new(2026, 11, 3);
    private static readonly ActivityWish Wish = new(Place.Carpet, Skill, LessonStage.Introduce, Day, 12);

    private static ActivityChooser Chooser(IReadOnlyList<StockLine>? stock = null, params ActivityUse[] uses) =>
        new(Library, Class(Year(), AllShow(new("see.to-3")), Day), Approach.Usual, stock, uses);

    [Fact]
    public void What_was_used_within_a_week_goes_back_and_says_so()
    {
        var first = Chooser().Rank(Wish)[0].Activity.Id;
        var again = Chooser(uses: new ActivityUse(first, Day.AddDays(-2))).Rank(Wish);
        again[0].Activity.Id.ShouldNotBe(first);
        again.First(r => r.Activity.Id == first).Reason.ShouldStartWith("Used within a week");
        Chooser(uses: new ActivityUse(first, Day.AddDays(-10))).Rank(Wish).First(r => r.Activity.Id == first).Reason.ShouldStartWith("Used within two weeks");
        Chooser(uses: new ActivityUse(first, Day)).Rank(Wish)[0].Activity.Id.ShouldBe(first, "what stands on the day itself does not speak against it");
    }

    [Fact]
    public void What_the_cupboard_lacks_goes_back_and_says_what_is_short()
    {
        var ranked = Chooser([]).Rank(Wish);
        ranked.ShouldContain(r => r.Reason.Contains("short by", StringComparison.Ordinal));
        var all = CupboardCatalogue.Shipped.Items.Select(i => new StockLine(i, 500)).ToList();
        Chooser(all).Rank(Wish).ShouldAllBe(r => r.Reason.Contains("all of it is in the cupboard", StringComparison.Ordinal));
    }

    [Fact]
    public void Too_long_for_the_time_there_is_goes_back_and_says_by_how_much()
    {
        var longest = Chooser().Rank(Wish).MaxBy(r => r.Minutes)!;
        Chooser()
            .Rank(Wish with { Minutes = longest.Minutes - 3 })
            .First(r => r.Activity.Id == longest.Activity.Id)
            .ShouldSatisfyAllConditions(
                r => r.Reason.ShouldContain($"{longest.Minutes} minutes, 3 more than there are"),
                r => r.Points.ShouldBe(longest.Points - 12)
            );
    }

    [Fact]
    public void Centres_are_only_what_half_of_the_class_has_met_and_a_group_has_worked_on()
    {
        ActivityWish centre = new(Place.Choice, null, null, Day, 15);
        Chooser().Rank(centre).ShouldAllBe(r => r.Activity.Skills.Any(s => s.Skill == new SkillId("see.to-3")));
        Chooser().Rank(centre, new HashSet<SkillId> { new("bond.all-5") }).ShouldAllBe(r => r.Activity.Skills.Any(s => s.Skill == Skill));
        Chooser().Rank(centre, new HashSet<SkillId>()).ShouldBeEmpty();
    }

    [Fact]
    public void An_introduction_has_things_in_hand_before_others() =>
        Chooser().Rank(Wish).Where(r => r.Reason.Contains("with things in hand", StringComparison.Ordinal)).ShouldNotBeEmpty();

    [Fact]
    public void Minutes_add_up_or_say_by_how_much_they_do_not()
    {
        new DayMinutes(20, [new("a", 4), new("b", 4), new("c", 10)]).Sentence.ShouldBe("4 + 4 + 10 = 18 of 20 minutes, two minutes to spare.");
        DayMinutes over = new(15, [new("a", 4), new("c", 12)]);
        (over.Over, over.Sentence).ShouldBe((1, "4 + 12 = 16 minutes, 1 more than the 15 there are."));
    }

    [Fact]
    public void A_week_follows_the_years_plan_and_keeps_what_is_pinned()
    {
        var year = YearPlanner.Plan(Request());
        var monday = new DateOnly(2026, 9, 14);
        WeekRequest request = new(
            Class(Year(), today: monday),
            monday,
            [.. year.Lessons.Where(l => l.Day < monday).Select(l => new TaughtLesson(l.Day, l.Skill))],
            Library
        )
        {
            Year = year,
            Timetable = Timetable(),
        };
        var plan = WeekPlanner.Plan(request);
        foreach (var day in plan.Days.Where(d => year.On(d.Day).Any()))
        {
            (day.Focus.Skill, day.Focus.Number).ShouldBe((year.On(day.Day).First().Skill, year.On(day.Day).First().Number));
            day.Starters.Select(s => s.Skill).ShouldBe(year.Reviews.Where(r => r.Day == day.Day).Select(r => r.Skill), ignoreOrder: true);
            day.Focus.ActivityReason.ShouldNotBeEmpty();
        }

        var first = plan.Days[0];
        var other = request.Chooser().Rank(new(Place.Carpet, first.Focus.Skill, first.Focus.Stage, first.Day, 12))[^1].Activity.Id;
        WeekPlanner.Plan(request with { Pinned = [new(first.Day, Place.Carpet, first.Focus.Skill, other)] }).Days[0].Focus.Activity.ShouldBe(other);
    }

    [Fact]
    public void A_place_that_is_kept_free_brings_something_taught_back_and_a_trip_has_no_lesson()
    {
        var year = YearPlanner.Plan(Request());
        var free = Year().Days(new(2026, 9, 14), new(2026, 10, 30)).First(d => !year.On(d).Any());
        var monday = Fobble.Core.Calendars.SchoolCalendar.MondayOf(free);
        var taught = year.Lessons.Where(l => l.Day < monday).Select(l => new TaughtLesson(l.Day, l.Skill)).ToList();
        var day = WeekPlanner
            .Plan(new(Class(Year(), today: monday), monday, taught, Library) { Year = year, Timetable = Timetable() })
            .Days.First(d => d.Day == free);
        day.Focus.Reason.ShouldStartWith("A place that the plan keeps free");
        taught.ShouldContain(t => t.Skill == day.Focus.Skill);
        year.Lessons.ShouldNotContain(l => l.Skill == day.Focus.Skill && l.Day >= free);

        var trip = Timetable(new Fobble.Core.Calendars.Closure("Trip", free, free) { Kind = Fobble.Core.Calendars.ClosureKind.NoLessons });
        WeekPlanner
            .Plan(new(Class(trip.Calendar, today: monday), monday, taught, Library) { Year = year, Timetable = trip })
            .Days.ShouldNotContain(d => d.Day == free);
    }
}
