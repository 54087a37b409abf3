using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using static Fobble.Core.Tests.Evidence.Record;
using static Fobble.Core.Tests.Planning.PlanWorld;

namespace Fobble.Core.Tests.Planning;

/// <summary>A plan in force: moved by hand, revised, watched, and what has come of it.</summary>
public class PlanChangesTests
{
    private static readonly YearPlan Plan = YearPlanner.Plan(Request());
    private static readonly DateOnly Today = new(2026, 10, 5);
    private static readonly PlanSetting Setting = new(Plan, Timetable(), Map, Today, Ends);

    private static PlanSetting With(params Closure[] closures) => Setting with { Timetable = Timetable(closures) };

    private static Closure Lost(DateOnly day) => new("Snow", day, day) { Kind = ClosureKind.NoLessons };

    private static Revision Revise(IReadOnlyList<Closure> lost, params LessonChange[] changes) =>
        new(
            Plan,
            Timetable([.. lost]),
            Map,
            Today,
            Ends,
            [.. PlanWatch.LessonsWithoutRoom(With([.. lost])).Where(l => l.Day < Today)],
            changes,
            [],
            RevisionAim.MoveLeast
        );

    [Fact]
    public void The_price_of_a_day_is_what_the_rules_say_of_the_plan_with_the_lesson_there()
    {
        foreach (var lesson in Plan.Lessons.Where(l => l.Day >= Today).Take(12))
        {
            LessonName name = new(lesson.Skill, lesson.Number);
            foreach (var price in PlanByHand.Prices(Setting, name).Where(p => p.Refused is null))
            {
                var moved = PlanByHand.Move(Setting, name, price.Day).ShouldNotBeNull();
                moved.Count.ShouldBe(Plan.Lessons.Count);
                moved.ShouldContain(l => l.Skill == lesson.Skill && l.Day == price.Day);
                moved.GroupBy(l => l.Day).ShouldAllBe(g => g.Count() == 1);
                var touched = new[] { lesson.Skill, price.With?.Skill ?? lesson.Skill };
                var broken = touched.Any(s =>
                    Map.AllNeeds(s)
                        .Any(n =>
                            moved.Any(l => l.Skill == n) && moved.Where(l => l.Skill == n).Max(l => l.Day) >= moved.Where(l => l.Skill == s).Min(l => l.Day)
                        )
                );
                price.Advice.Any(a => a.Contains("would begin before", StringComparison.Ordinal)).ShouldBe(broken, $"{lesson.Skill} on {price.Day}");
            }
        }
    }

    [Fact]
    public void Days_without_a_lesson_are_refused_with_the_reason_and_past_ones_are_not_offered()
    {
        var lesson = Plan.Lessons.First(l => l.Day > Today);
        var prices = PlanByHand.Prices(With(Lost(new(2026, 11, 3))), new(lesson.Skill, lesson.Number));
        prices.First(p => p.Day == new DateOnly(2026, 11, 3)).Refused.ShouldBe("Snow: there is no lesson that day.");
        prices.ShouldAllBe(p => p.Day >= Today);
        var past = Plan.Lessons.First(l => l.Day < Today);
        PlanByHand.Prices(Setting, new(past.Skill, past.Number)).ShouldAllBe(p => p.Refused == "It is past.");
        PlanByHand.Move(Setting, new(past.Skill, past.Number), new(2026, 11, 3)).ShouldBeNull();
        Should.Throw<KeyNotFoundException>(() => PlanByHand.Prices(Setting, new(new("no.such"), 1)));
    }

    [Fact]
    public void Pinned_lessons_do_not_make_room()
    {
        var pinned = Plan.Lessons.First(l => l.Day > Today);
        var plan = Plan with { Lessons = [.. Plan.Lessons.Select(l => l == pinned ? l with { Pinned = true } : l)] };
        var other = plan.Lessons.First(l => l.Day > pinned.Day && l.Skill != pinned.Skill);
        PlanByHand
            .Prices(Setting with { Plan = plan }, new(other.Skill, other.Number))
            .First(p => p.Day == pinned.Day)
            .Refused.ShouldBe("What is there is pinned.");
    }

    [Fact]
    public void A_skill_moved_far_from_its_other_lessons_or_past_its_starters_is_advised_against()
    {
        var own = Plan.Lessons.Where(l => l.Day > Today).GroupBy(l => l.Skill).First(g => g.Count() > 1 && g.Min(l => l.Number) == 1).ToList();
        var prices = PlanByHand.Prices(Setting, new(own[^1].Skill, own[^1].Number)).Where(p => p.Refused is null).ToList();
        prices[^1].Advice.ShouldContain(a => a.Contains("school days apart; ten is the usual most", StringComparison.Ordinal));
        prices.ShouldContain(p => p.Advice.Count == 0);
    }

    [Fact]
    public void After_four_lost_days_the_past_and_the_pinned_stay_every_rule_holds_and_each_move_says_why()
    {
        var coming = Plan.Lessons.Where(l => l.Day > Today).ToList();
        var days = coming.Skip(4).Take(4).Select(l => l.Day).Distinct().ToList();
        var pinned = coming.First(l => !days.Contains(l.Day));
        var revision = Revise([.. days.Select(Lost)]) with
        {
            Plan = Plan with { Lessons = [.. Plan.Lessons.Select(l => l == pinned ? l with { Pinned = true } : l)] },
        };
        var revised = PlanRevision.Revise(revision).ShouldNotBeNull();
        revised.Lessons.ShouldAllBe(l => l.Day >= Today && !days.Contains(l.Day));
        revised.Lessons.ShouldContain(l => l.Day == pinned.Day && l.Skill == pinned.Skill && l.Pinned);
        revised.Room.ShouldBeEmpty();
        revised.Lessons.Count.ShouldBe(Plan.Lessons.Count(l => l.Day >= Today));
        var all = Plan.Lessons.Where(l => l.Day < Today).Concat(revised.Lessons).ToList();
        foreach (var skill in all.Select(l => l.Skill).Distinct())
        {
            var own = all.Where(l => l.Skill == skill).Select(l => l.Day).Order().ToList();
            own.Distinct().Count().ShouldBe(own.Count);
            Map.AllNeeds(skill).Where(n => all.Any(l => l.Skill == n)).ShouldAllBe(n => all.Where(l => l.Skill == n).Max(l => l.Day) < own[0]);
        }

        revised.Moves.Count.ShouldBeInRange(days.Count, 12);
        revised.Moves.ShouldAllBe(m => m.Why.Length > 5 && m.Was != m.Is);
        revised.Moves.Where(m => days.Contains(m.Was!.Value)).ShouldAllBe(m => m.Why.StartsWith("Snow on ", StringComparison.Ordinal));
        revised.ProvenFewest.ShouldBeTrue();
        revised.Sentence.ShouldEndWith("lessons move: no arrangement within reach moves fewer.");
    }

    [Fact]
    public void Keeping_the_aims_moves_more_lessons_and_each_less_far()
    {
        var days = Plan.Lessons.Where(l => l.Day > Today).Skip(4).Take(4).Select(l => l.Day).ToList();
        int Distance(Revised r) =>
            r.Moves.Sum(m =>
                Timetable()
                    .Calendar.SchoolDaysBetween(m.Was!.Value < m.Is!.Value ? m.Was.Value : m.Is.Value, m.Was.Value < m.Is.Value ? m.Is.Value : m.Was.Value)
            );
        var least = PlanRevision.Revise(Revise([.. days.Select(Lost)]))!;
        var aims = PlanRevision.Revise(Revise([.. days.Select(Lost)]) with { Aim = RevisionAim.KeepTheAims })!;
        aims.Moves.Count.ShouldBeGreaterThanOrEqualTo(least.Moves.Count);
        Distance(aims).ShouldBeLessThanOrEqualTo(Distance(least));
        aims.ProvenFewest.ShouldBeFalse();
    }

    [Fact]
    public void One_more_lesson_comes_in_and_a_needless_one_goes_out()
    {
        var own = Plan.Lessons.Where(l => l.Day > Today).GroupBy(l => l.Skill).First(g => g.Count() > 1).ToList();
        var more = PlanRevision.Revise(Revise([], new LessonChange(own[0].Skill, 1, "It needs longer.")))!;
        more.Lessons.Count(l => l.Skill == own[0].Skill).ShouldBe(own.Count + 1);
        more.Moves.ShouldContain(m => m.Was == null && m.Is != null && m.Why == "It needs longer.");
        more.Sentence.ShouldContain("one comes in");
        var less = PlanRevision.Revise(Revise([], new LessonChange(own[0].Skill, -1, "They have it.")))!;
        less.Lessons.Count(l => l.Skill == own[0].Skill).ShouldBe(own.Count - 1);
        less.Moves.ShouldHaveSingleItem().ShouldSatisfyAllConditions(m => m.Is.ShouldBeNull(), m => m.Why.ShouldBe("They have it."));
        less.Lessons.Where(l => l.Skill == own[0].Skill).ShouldAllBe(l => l.Of == own[0].Of - 1);
    }

    [Fact]
    public void A_lesson_lost_in_the_past_is_given_again_before_what_builds_on_it()
    {
        var past = Plan.Lessons.Last(l => l.Day < Today && Plan.Lessons.Any(o => o.Day >= Today && Map.AllNeeds(o.Skill).Contains(l.Skill)));
        var revised = PlanRevision.Revise(Revise([Lost(past.Day)]))!;
        var again = revised.Lessons.Where(l => l.Skill == past.Skill).Max(l => l.Day);
        revised.Lessons.Where(l => Map.AllNeeds(l.Skill).Contains(past.Skill)).ShouldAllBe(l => l.Day > again);
        revised.Moves.ShouldContain(m => m.Was == null && m.Why == "Its lesson was lost and is given now.");
    }

    [Fact]
    public void What_is_held_can_make_it_impossible_and_then_nothing_is_made_up()
    {
        var day = Plan.Lessons.First(l => l.Day > Today);
        PlanRevision.Revise(Revise([Lost(day.Day)]) with { Held = [new(day.Skill, day.Number)] }).ShouldBeNull();
    }

    [Fact]
    public void A_year_without_room_says_what_falls_out()
    {
        List<Closure> lost = [new("Long closure", new(2026, 11, 1), Ends) { Kind = ClosureKind.NoLessons }];
        var revised = PlanRevision.Revise(Revise(lost))!;
        revised.Room.Count.ShouldBeGreaterThan(0);
        revised.Sentence.ShouldContain("no room any more");
    }

    [Theory]
    [InlineData(0)]
    [InlineData(4)]
    [InlineData(12)]
    public void However_many_days_are_lost_the_rest_of_the_year_is_kept_and_the_lessons_left_over_are_named(int left)
    {
        var last = Year().Days(Today, Ends).Skip(left).First();
        var revised = PlanRevision.Revise(Revise([new("Repairs", last, Ends) { Kind = ClosureKind.NoLessons }])).ShouldNotBeNull();
        revised.Room.Count.ShouldBeGreaterThan(0);
        revised.Lessons.ShouldAllBe(l => l.Day < last);
        (revised.Lessons.Count + revised.Room.Count).ShouldBe(Plan.Lessons.Count(l => l.Day >= Today));
    }

    [Fact]
    public void A_lesson_on_a_day_that_was_closed_afterwards_moves_and_says_that_its_day_is_gone()
    {
        var closed = Plan.Lessons.First(l => l.Day > Today.AddDays(40)).Day;
        var revised = PlanRevision.Revise(Revise([new("Polling day", closed, closed)])).ShouldNotBeNull();
        var move = revised.Moves.Single(m => m.Was == closed);
        move.Why.ShouldStartWith("Polling day on ");
        move.Why.ShouldEndWith(": its day is gone.");
        move.Is.ShouldNotBeNull();
        Math.Abs(move.Is.Value.DayNumber - closed.DayNumber).ShouldBeLessThan(30);
        revised.Sentence.ShouldNotContain("in.");
    }

    [Fact]
    public void The_watch_offers_what_calendar_and_evidence_say_and_nothing_else()
    {
        PlanWatch.Look(Setting, Class(Year(), today: Today)).ShouldBeEmpty();

        var lost = Plan.Lessons.First(l => l.Day > Today);
        PlanWatch
            .Look(With(Lost(lost.Day)), Class(Year(), today: Today))
            .ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(
                s => s.Kind.ShouldBe(SuggestionKind.LostDays),
                s => s.Days.ShouldBe([lost.Day]),
                s => s.Sentence.ShouldStartWith("One lesson of the plan is on a day without a lesson (Snow)")
            );

        // Coming within two weeks, and seen with eight of ten: shorter; with three: those three go on.
        var soon = Plan
            .Lessons.Where(l => l.Day >= Today)
            .GroupBy(l => l.Skill)
            .First(g => g.Count() > 1 && g.Min(l => l.Number) == 1 && Year().SchoolDaysBetween(Today, g.Min(l => l.Day)) < 8)
            .Key;
        var most = PlanWatch.Look(Setting, Class(Year(), AllShow(soon, 8, 5), Today)).First(s => s.Skill == soon);
        (most.Kind, most.Lessons < 0).ShouldBe((SuggestionKind.AlreadyThere, true));
        var few = PlanWatch.Look(Setting, Class(Year(), AllShow(soon, 3, 5), Today)).First(s => s.Skill == soon);
        few.ShouldSatisfyAllConditions(s => s.Kind.ShouldBe(SuggestionKind.FarAhead), s => s.Children.Count.ShouldBe(3), s => s.Next.ShouldNotBeNull());

        // Taught to the end lately, and seen with hardly anyone.
        var taught = Plan.Lessons.GroupBy(l => l.Skill).Last(g => g.Max(l => l.Day) < Today);
        var end = Year().SchoolDaysBetween(Begins, taught.Min(l => l.Day));
        var seen = Ten.Take(5).Select(c => Saw(end + 1, Support.NotYet, Map[taught.Key].ShownIn[0], skill: Map[taught.Key], child: c.Value));
        PlanWatch
            .Look(Setting, Class(Year(), seen, Today))
            .First(s => s.Kind == SuggestionKind.NeedsLonger)
            .ShouldSatisfyAllConditions(
                s => s.Skill.ShouldBe(taught.Key),
                s => s.Lessons.ShouldBe(1),
                s => s.Sentence.ShouldContain("0 of the 5 children seen with it have it")
            );
    }

    [Fact]
    public void Coverage_counts_what_was_planned_taught_seen_and_is_secure_and_the_pace()
    {
        var given = Plan.Lessons.Where(l => l.Day < Today).Select(l => new TaughtLesson(l.Day, l.Skill)).ToList();
        var first = given[0].Skill;
        PlanCoverage coverage = new(Class(Year(), AllShow(first, 5), Today), given, Plan);
        var line = coverage.Of([first]);
        (line.Skills, line.Planned, line.Taught, line.Observed, line.Secure).ShouldBe((1, 1, 1, 0.5, 0.5));
        coverage.Of([.. Map.Skills.Select(s => s.Id)]).Planned.ShouldBe(Plan.Lessons.Select(l => l.Skill).Distinct().Count());
        coverage.PaceAgainst(Plan, Begins).Sentence.ShouldStartWith("In step with the plan of 7 September");
        var behind = new PlanCoverage(Class(Year(), today: Today), [.. given.Skip(2)], Plan).PaceAgainst(Plan, Begins);
        (behind.Given, behind.Expected, behind.Sentence[..17]).ShouldBe((given.Count - 2, given.Count, "Two lessons behin"));

        // Dropped from the plan after its day was lost: planned, never taught.
        var without = Plan with { Lessons = [.. Plan.Lessons.Where(l => l.Skill != first)] };
        new PlanCoverage(Class(Year(), today: Today), [.. given.Where(t => t.Skill != first)], without)
            .Missing([Plan, without])
            .ShouldHaveSingleItem()
            .Skill.ShouldBe(first);
        coverage.Missing([Plan]).ShouldBeEmpty();
    }
}
