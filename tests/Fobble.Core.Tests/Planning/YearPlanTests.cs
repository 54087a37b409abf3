using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using static Fobble.Core.Tests.Evidence.Record;
using static Fobble.Core.Tests.Planning.PlanWorld;

namespace Fobble.Core.Tests.Planning;

/// <summary>From a class, a calendar and a map to lessons on days (rule R12).</summary>
public class YearPlanTests
{
    private static readonly Closure Trip = new("Trip", new(2026, 10, 6), new(2026, 10, 6)) { Kind = ClosureKind.NoLessons };
    private static readonly Closure Half = new("Fair", new(2026, 10, 7), new(2026, 10, 7)) { Kind = ClosureKind.HalfDay, OpenUntil = new(12, 0) };
    private static readonly Closure Late = new("Late start", new(2026, 10, 8), new(2026, 10, 8)) { Kind = ClosureKind.HalfDay, OpenFrom = new(11, 0) };
    private static readonly Closure Closed = new("Snow", new(2026, 10, 9), new(2026, 10, 12));

    [Fact]
    public void Nothing_is_planned_on_a_closure_a_trip_or_a_morning_without_school()
    {
        var plan = YearPlanner.Plan(Request(timetable: Timetable(Trip, Half, Late, Closed)));
        foreach (var day in new DateOnly[] { new(2026, 10, 6), new(2026, 10, 8), new(2026, 10, 9), new(2026, 10, 12) })
        {
            plan.On(day).ShouldBeEmpty();
            plan.Reviews.ShouldNotContain(r => r.Day == day);
        }

        YearScope.DaysOf(Request(timetable: Timetable(Trip, Half, Late, Closed))).First(d => d.Day == Half.First).Places.ShouldBe(1);
    }

    [Fact]
    public void What_a_skill_needs_is_finished_before_it_begins_also_through_skills_left_out()
    {
        // Everyone is secure in how-many-5: give-5 then waits for what that one needed, if anything of it is still to come.
        var request = Request(seen: AllShow(new("count.how-many-5")), from: SchoolDay(10));
        var scope = YearScope.Of(request);
        scope.LeftOut.ShouldContain(l => l.Skill.Value == "count.how-many-5" && l.Why == "Nearly everyone is secure.");
        scope.Problem.Items.First(i => i.Skill.Value == "count.give-5").Needs.ShouldContain(new SkillId("count.touch-5"));
        var plan = YearPlanner.Plan(request);
        foreach (var skill in plan.Lessons.Select(l => l.Skill).Distinct())
        {
            foreach (var need in Map.AllNeeds(skill).Where(n => plan.Lessons.Any(l => l.Skill == n)))
            {
                plan.Lessons.Where(l => l.Skill == need).Max(l => l.Day).ShouldBeLessThan(plan.Lessons.Where(l => l.Skill == skill).Min(l => l.Day));
            }
        }
    }

    [Fact]
    public void What_most_have_gets_one_lesson_to_see_who_has_not()
    {
        var request = Request(seen: AllShow(new("see.to-3"), children: 8), from: SchoolDay(10));
        var item = YearScope.Of(request).Problem.Items.First(i => i.Skill.Value == "see.to-3");
        (item.Lessons, item.Check, item.Why).ShouldBe((1, true, "80 % have it already: one lesson, to see who has not."));
        YearPlanner.Plan(request).Lessons.Single(l => l.Skill.Value == "see.to-3").Stage.ShouldBe(LessonStage.Check);
    }

    [Fact]
    public void What_few_are_ready_for_when_it_is_due_gets_a_lesson_more_but_only_of_a_class_that_was_looked_at()
    {
        var deep = new SkillId("bond.all-5");
        YearScope.Of(Request()).Problem.Items.First(i => i.Skill == deep).Lessons.ShouldBe(Map[deep].Lessons);
        var looked = Request(
            seen: Ten.Select(c => Saw(0, Support.Together, Map[new("count.say-5")].ShownIn[0], skill: Map[new("count.say-5")], child: c.Value)),
            from: SchoolDay(10)
        );
        YearScope
            .Of(looked)
            .Problem.Items.First(i => i.Skill == deep)
            .ShouldSatisfyAllConditions(i => i.Lessons.ShouldBe(Map[deep].Lessons + 1), i => i.Why.ShouldContain("one lesson more"));
    }

    [Fact]
    public void A_skill_half_taught_goes_on_where_it_stopped()
    {
        var skill = Map.Skills.First(s => s.Lessons >= 3 && s.When == Season.Autumn);
        var request = Request(from: SchoolDay(5)) with { Taught = [new(SchoolDay(3), skill.Id)] };
        var lessons = YearPlanner.Plan(request).Lessons.Where(l => l.Skill == skill.Id).ToList();
        lessons.Select(l => l.Number).ShouldBe(Enumerable.Range(2, skill.Lessons - 1));
        lessons.ShouldAllBe(l => l.Of == skill.Lessons);
    }

    [Fact]
    public void Stages_go_from_introducing_to_using_and_are_told_by_the_approach()
    {
        var lessons = YearPlanner.Plan(Request()).Lessons.Where(l => l.Skill.Value == "numeral.match-5").ToList();
        lessons[0].Stage.ShouldBe(LessonStage.Introduce);
        lessons[^1].Stage.ShouldBe(LessonStage.Apply);
        var skill = Map[new("numeral.match-5")];
        StageWords.Of(LessonStage.Introduce, skill, Approach.Usual).ShouldBe("introduce with objects");
        StageWords
            .Of(LessonStage.Introduce, skill, Approach.Usual with { Symbols = SymbolsWhen.FromTheStart })
            .ShouldBe("introduce with objects, signs beside");
        StageWords.Of(LessonStage.Practise, skill, Approach.Usual).ShouldBe("practise with drawing and talk");
        StageWords.Of(LessonStage.Apply, skill, Approach.Usual).ShouldBe("use it in stories and with signs");
    }

    [Fact]
    public void Signs_are_meant_for_later_or_earlier_as_the_class_has_them()
    {
        // Both lie in the same season; one is shown in signs only.
        int Target(SymbolsWhen when) =>
            YearScope
                .Of(Request() with { Approach = Approach.Usual with { Symbols = when } })
                .Problem.Items.First(i => i.Skill.Value == "numeral.write-5")
                .TargetFirst;
        Target(SymbolsWhen.AfterObjects).ShouldBeGreaterThan(Target(SymbolsWhen.FromTheStart));
    }

    [Fact]
    public void Every_skill_comes_back_at_widening_gaps()
    {
        var request = Request();
        var plan = YearPlanner.Plan(request);
        plan.Missed.ShouldBeEmpty();
        foreach (var review in plan.Reviews.Where(r => r.Round > 0))
        {
            var gap = PlanSettings.Usual.Gaps[review.Round - 1];
            request
                .Timetable.Calendar.SchoolDaysBetween(plan.Lessons.Where(l => l.Skill == review.Skill).Max(l => l.Day), review.Day)
                .ShouldBeInRange(gap.Earliest, gap.Latest);
        }

        plan.Reviews.GroupBy(r => r.Day).ShouldAllBe(g => g.Count() <= 2);
        plan.Reviews.Count(r => r.Round == 3).ShouldBe(plan.Lessons.Select(l => l.Skill).Distinct().Count());
    }

    [Fact]
    public void Last_years_plan_is_followed_where_it_can_be()
    {
        var late = Map.Skills.First(s => s.When == Season.Autumn && !Map.Opens(s.Id).Any(UpTo(Season.Autumn).Contains)).Id;
        var plan = YearPlanner.Plan(Request() with { AsBefore = new Dictionary<SkillId, double> { [late] = 0.8 } });
        plan.Lessons.First(l => l.Skill == late).ShouldSatisfyAllConditions(l => l.Day.ShouldBeGreaterThan(new(2027, 4, 1)));
    }

    [Fact]
    public void The_same_request_gives_the_same_plan_and_another_seed_another() =>
        string.Join(',', YearPlanner.Plan(Request()).Lessons)
            .ShouldSatisfyAllConditions(
                plan => plan.ShouldBe(string.Join(',', YearPlanner.Plan(Request()).Lessons)),
                plan => plan.ShouldNotBe(string.Join(',', YearPlanner.Plan(Request() with { Settings = Request().Settings with { Seed = 5 } }).Lessons))
            );

    [Fact]
    public void What_does_not_fit_says_by_how_much_and_every_way_out_leads_to_a_plan_that_fits()
    {
        var request = Request(UpTo(Season.Summer));
        var fit = Fit.Of(YearScope.Of(request).Problem);
        fit.Over.ShouldBe(fit.Lessons - fit.Room);
        fit.Sentence.ShouldStartWith($"It does not fit: {fit.Over} lessons too many.");
        var ways = WaysOut.Of(request);
        ways.Select(w => w.Kind).ShouldBe(["drop", "one-more", "more", "shorter", "buffer"]);
        foreach (var way in ways)
        {
            var taken = WaysOut.Taken(request, way);
            Fit.Of(YearScope.Of(taken).Problem).Over.ShouldBe(0, way.Kind);
            var kept = YearScope.Of(taken).Problem.Items.Select(i => i.Skill).ToHashSet();
            way.Dropped.ShouldAllBe(d => !kept.Contains(d) && !kept.Any(k => Map.AllNeeds(k).Contains(d)));
        }

        ways.First(w => w.Kind == "shorter").Dropped.Count.ShouldBeLessThan(ways.First(w => w.Kind == "drop").Dropped.Count);
        ways.First(w => w.Kind == "drop").Loses.ShouldContain("wait for another year");
        var worked = WaysOut.WorkThrough(request, ways.First(w => w.Kind == "drop"));
        worked.Fit.Fits.ShouldBeTrue();
        worked.Plan.Unplaced.ShouldBeEmpty();
        worked.Gains.ShouldContain($"{worked.Plan.Lessons.Count} lessons");
    }

    [Fact]
    public void Too_many_reviews_are_a_way_out_of_their_own()
    {
        var request = Request(from: new(2027, 7, 5)) with
        {
            Settings = PlanSettings.Usual with { StartersADay = 1, Tries = 20, Steps = 100 },
            Skills = Map.Skills.Where(s => s.Needs.Count == 0 && s.Lessons <= 2).Take(4).Select(s => s.Id).ToHashSet(),
        };
        Fit.Of(YearScope.Of(request).Problem).ReviewsOver.ShouldBeGreaterThan(0);
        WaysOut.Of(request).ShouldContain(w => w.Kind == "reviews" && w.Settings.Gaps.Count == 2);
        WaysOut.Of(Request()).ShouldBeEmpty();
    }
}
