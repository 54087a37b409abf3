using Fobble.Core.Calendars;
using Fobble.Core.Planning;
using Fobble.Core.Skills;

namespace Fobble.Core.Tests.Planning;

/// <summary>Rules that once lay between the core and the world: what was taught, how far a day has come, what a timetable takes, what a class begins with.</summary>
public class HouseRulesTests
{
    private static readonly DateOnly Monday = new(2026, 9, 7);
    private static readonly SkillId Say = new("count.say-5"),
        See = new("see.to-3");
    private static readonly SchoolCalendar Calendar = new(
        [new("Autumn", Season.Autumn, Monday, new(2026, 12, 18))],
        [
            new("Snow", Monday.AddDays(1), Monday.AddDays(1)),
            new("Trip", Monday.AddDays(2), Monday.AddDays(2)) { Kind = ClosureKind.NoLessons },
            new("Short", Monday.AddDays(3), Monday.AddDays(3)) { Kind = ClosureKind.HalfDay, OpenUntil = new(12, 0) },
        ]
    );

    [Fact]
    public void Taught_is_what_days_had_worked_out_else_the_plan_and_never_on_a_day_without_lessons()
    {
        PlanLesson Planned(int day) => new(Monday.AddDays(day), 0, See, 1, 1, LessonStage.Introduce, "");
        YearPlan year = new(PlanSettings.Usual, [.. Enumerable.Range(0, 5).Select(Planned)], [], [], new Dictionary<string, int>(), 0);
        TaughtLesson[] workedOut = [new(Monday, Say), new(Monday.AddDays(1), Say)];
        TaughtLessons.Before(Monday.AddDays(4), workedOut, year, Calendar).ShouldBe([new(Monday, Say), new(Monday.AddDays(3), See)]);
        TaughtLessons.Before(Monday.AddDays(5), workedOut, year, Calendar)[^1].Day.ShouldBe(Monday.AddDays(4));
        TaughtLessons.Before(Monday, workedOut, year, Calendar).ShouldBeEmpty();
    }

    [Theory]
    [InlineData(0, false, false, DayState.Open)]
    [InlineData(0, true, false, DayState.Taught)]
    [InlineData(0, true, true, DayState.Recorded)]
    [InlineData(1, true, false, DayState.Closed)]
    [InlineData(2, true, false, DayState.Closed)]
    [InlineData(3, true, false, DayState.Taught)]
    [InlineData(4, true, false, DayState.Planned)]
    [InlineData(5, false, false, DayState.Closed)]
    public void A_day_has_come_as_far_as_was_planned_given_and_seen(int day, bool planned, bool recorded, DayState state) =>
        DayStates.Of(Monday.AddDays(day), Monday.AddDays(4), Calendar, planned, recorded).ShouldBe(state);

    [Fact]
    public void Today_may_be_changed_until_something_was_seen()
    {
        TaughtLessons.FirstOpenDay(Monday, false).ShouldBe(Monday);
        TaughtLessons.FirstOpenDay(Monday, true).ShouldBe(Monday.AddDays(1));
    }

    [Theory]
    [InlineData("9:40", 15, "start")]
    [InlineData("9:20", 15, "start")]
    [InlineData("9:55", 4, "minutes")]
    [InlineData("9:50", 121, "minutes")]
    [InlineData("9:50", 15, null)]
    [InlineData("9:15", 15, "start")]
    [InlineData("9:00", 15, "start")]
    [InlineData("10:50", 15, "start")]
    public void An_adult_has_one_lesson_at_a_time_and_groups_within_its_hours(string start, int minutes, string? field)
    {
        TimeSlice[] busy = [TimeSlice.Of(DayOfWeek.Tuesday, new(9, 30), 20)];
        TimeSlice[] hours = [new(DayOfWeek.Tuesday, new(9, 0), new(11, 0))];
        Action check = () => SlotRules.CheckLesson(SlotKind.Group, DayOfWeek.Tuesday, TimeOnly.Parse(start, null), minutes, "Round table", busy, hours);
        if (field is null || start is "9:15" or "9:00")
        {
            // A quarter of an hour from nine or a quarter past ends before half past.
            check.ShouldNotThrow();
        }
        else
        {
            Should.Throw<RefusedException>(check).Reasons[0].Field.ShouldBe(field);
        }
    }

    [Fact]
    public void A_class_begins_with_a_week_that_can_be_planned_and_holds_no_clash()
    {
        foreach (var adults in new[] { 1, 2, 3 })
        {
            var lessons = UsualWeek.Lessons(adults);
            lessons.Select(l => l.Weekday).Distinct().Count().ShouldBe(5);
            lessons.ShouldAllBe(l => l.Adult >= 0 && l.Adult < adults);
            foreach (var own in lessons.GroupBy(l => l.Adult))
            {
                var slices = own.Select(l => TimeSlice.Of(l.Weekday, l.Start, l.Minutes)).ToList();
                slices.SelectMany((a, i) => slices.Skip(i + 1).Select(b => (a, b))).ShouldAllBe(p => !p.a.Overlaps(p.b));
            }
        }
    }

    [Fact]
    public void What_a_plan_can_not_be_asked_for_is_told_all_at_once()
    {
        var asked = PlanAsk.Usual with { BufferOneIn = 2, StartersADay = 5, Rounds = 0, MoreOn = [DayOfWeek.Sunday], Source = ScopeSource.Before };
        asked.Faults(_ => false).Select(f => f.Field).ShouldBe(["bufferOneIn", "startersADay", "rounds", "moreOn", "planId"]);
        PlanAsk.Usual.Faults(_ => false).ShouldBeEmpty();
    }
}
