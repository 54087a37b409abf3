using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Planning;

public class WeekPlannerTests
{
    private static readonly ActivityLibrary Library = ActivityLoader.Shipped(Map);
    private static readonly ChildId[] Children = [.. Enumerable.Range(1, 10).Select(i => new ChildId(i))];
    private static readonly DateOnly NextMonday = SchoolDay(30);

    // A class of which each child holds a random down-closed part of the map, and a random list of lessons given.
    private static readonly Gen<WeekRequest> AnyWeek = Gen.ULong.Select(seed =>
    {
        var random = new SeededRandom(seed);
        List<Observation> seen = [];
        foreach (var child in Children)
        {
            HashSet<SkillId> held = [];
            foreach (var skill in Map.Skills.Where(s => s.Needs.All(held.Contains) && random.Chance(0.75)))
            {
                held.Add(skill.Id);
                seen.Add(Saw(random.Next(25), random.Chance(0.6) ? Support.Alone : Support.Prompted, skill.ShownIn[0], skill: skill, child: child.Value));
            }
        }

        var taught = Enumerable.Range(0, random.Next(20)).Select(i => new TaughtLesson(SchoolDay(i), random.Pick(Map.Skills).Id)).ToList();
        return Request(seen, taught);
    });

    [Fact]
    public void A_focus_never_comes_before_what_it_needs_unless_it_says_so_and_says_so_only_then() =>
        AnyWeek.Sample(request =>
        {
            var given = request.Taught.ToList();
            foreach (var day in WeekPlanner.Plan(request).Days)
            {
                var open = Map[day.Focus.Skill]
                    .Needs.Any(need =>
                        request.Evidence.Share(c => request.Evidence[c, need].Strength >= Strength.Nearly) < WeekPlanner.InPlaceWith
                        && given.Count(t => t.Skill == need) < Map[need].Lessons
                    );
                day.Focus.Reason.Contains("Not everything it needs is in place", StringComparison.Ordinal).ShouldBe(open, day.Focus.Reason);
                given.Add(new(day.Day, day.Focus.Skill));
            }
        });

    [Fact]
    public void What_a_reason_says_of_lessons_before_is_so() =>
        AnyWeek.Sample(request =>
        {
            var given = request.Taught.ToList();
            foreach (var day in WeekPlanner.Plan(request).Days)
            {
                var own = given.Where(t => t.Skill == day.Focus.Skill).ToList();
                var begins =
                    own.Count == 0 ? "New this week"
                    : own.Count >= Map[day.Focus.Skill].Lessons ? "Comes back once more"
                    : Calendar.SchoolDaysBetween(own[^1].Day, day.Day) <= 10 ? "Carries on"
                    : "Goes on after a while";
                day.Focus.Reason.ShouldStartWith(begins);
                given.Add(new(day.Day, day.Focus.Skill));
            }
        });

    [Fact]
    public void When_everything_is_known_and_was_taught_the_reason_says_that_and_not_that_something_is_missing()
    {
        var seen = Children
            .SelectMany(c =>
                Map.Skills.SelectMany(s => new[] { 3, 9, 16, 22 }.Select(d => Saw(d, Support.Alone, s.ShownIn[d % s.ShownIn.Count], skill: s, child: c.Value)))
            )
            .ToList();
        var taught = Map.Skills.SelectMany(s => Enumerable.Range(0, s.Lessons).Select(i => new TaughtLesson(SchoolDay(i), s.Id))).ToList();
        var reasons = WeekPlanner.Plan(Request(seen, taught)).Days.Select(d => d.Focus.Reason).ToList();
        reasons.ShouldAllBe(r => r.Contains("Comes back once more", StringComparison.Ordinal) && r.Contains("Most have it already", StringComparison.Ordinal));
        reasons.ShouldAllBe(r => !r.Contains("Not everything", StringComparison.Ordinal));
    }

    [Theory]
    [InlineData(10, "Carries on from lesson one")]
    [InlineData(11, "Goes on after a while from lesson one")]
    public void A_begun_skill_is_carried_on_within_ten_school_days(int ago, string begins)
    {
        // Only one skill is served on the carpet, so it is the focus whatever speaks for another.
        var activity = Library
            .Activities.Select(a => a with { Skills = [a.Skills[0]] })
            .First(a => a.Places.Contains(Place.Carpet) && Map[a.Skills[0].Skill].Lessons > 1);
        var skill = activity.Skills[0].Skill;
        var only = Library.Activities.Where(a => !a.Places.Contains(Place.Carpet)).Append(activity).ToList();
        var request = Request([], [new(SchoolDay(30 - ago), skill)]) with { Library = new ActivityLibrary(Map, only) };
        WeekPlanner.Plan(request).Days[0].Focus.ShouldSatisfyAllConditions(f => f.Skill.ShouldBe(skill), f => f.Reason.ShouldStartWith(begins));
    }

    [Fact]
    public void A_skill_that_nothing_serves_yet_is_neither_focus_nor_starter_however_much_it_is_due()
    {
        var lemons = Map[new("count.say-5")] with { Id = new("own.lemons"), Needs = [] };
        SkillMap map = new(Map.Strands, [.. Map.Skills, lemons]);
        var seen = Children.SelectMany(c =>
            Enumerable.Range(0, 3).Select(day => Saw(day, Support.Alone, Representation.Spoken, skill: lemons, child: c.Value))
        );
        var evidence = new ClassEvidence(map, Calendar, EvidenceSettings.Default, Children, seen, NextMonday);
        evidence.Children.ShouldContain(c => evidence[c, lemons.Id].LookAgain);
        var plan = WeekPlanner.Plan(new WeekRequest(evidence, NextMonday, [], new ActivityLibrary(map, Library.Activities)));
        plan.Days.SelectMany(d => d.Starters.Select(s => s.Skill).Append(d.Focus.Skill)).ShouldNotContain(lemons.Id);
    }

    [Fact]
    public void A_week_has_a_whole_plan_for_each_day_and_no_starter_twice() =>
        AnyWeek.Sample(request =>
        {
            var plan = WeekPlanner.Plan(request);
            plan.Days.Select(d => d.Day).ShouldBe(Calendar.DaysOfWeek(NextMonday));
            foreach (var day in plan.Days)
            {
                Library[day.Focus.Activity].For(day.Focus.Skill).ShouldNotBeNull();
                Library[day.Focus.Activity].Places.ShouldContain(Place.Carpet);
                Library[day.Transition].Places.ShouldContain(Place.Transition);
                day.Starters.Count.ShouldBeLessThanOrEqualTo(2);
                day.Starters.ShouldAllBe(s => s.Skill != day.Focus.Skill);
                day.Focus.Number.ShouldBeInRange(1, day.Focus.Of);
            }

            var starters = plan.Days.SelectMany(d => d.Starters.Select(s => s.Skill)).ToList();
            starters.Distinct().Count().ShouldBe(starters.Count);
        });

    [Fact]
    public void The_same_class_gets_the_same_week() =>
        AnyWeek.Sample(request =>
            WeekPlanner
                .Plan(request)
                .Days.Select(d => (d.Focus, string.Join(",", d.Starters)))
                .ShouldBe(WeekPlanner.Plan(request).Days.Select(d => (d.Focus, string.Join(",", d.Starters))))
        );

    [Fact]
    public void A_new_class_begins_with_skills_that_need_nothing()
    {
        var first = WeekPlanner.Plan(Request([], [])).Days[0];
        Map[first.Focus.Skill].Needs.ShouldBeEmpty();
        first.Focus.Stage.ShouldBe(LessonStage.Introduce);
        first.Focus.Reason.ShouldBe("New this week: 10 of 10 are ready for it and nobody has it yet.");
        first.Choice.ShouldBeNull();
        first.Starters.ShouldBeEmpty();
    }

    [Fact]
    public void What_eight_of_ten_children_have_is_no_focus()
    {
        var seen = Children.Take(8).Select(c => Saw(28, Support.Alone, Representation.Spoken, skill: OneWay, child: c.Value)).ToList();
        WeekPlanner.Plan(Request(seen, [])).Days.ShouldAllBe(d => d.Focus.Skill != OneWay.Id);
    }

    [Fact]
    public void A_started_skill_is_carried_on()
    {
        var plan = WeekPlanner.Plan(Request([], [new(SchoolDay(28), new("see.to-3"))]));
        var again = plan.Days.First(d => d.Focus.Skill.Value == "see.to-3");
        again.Focus.Number.ShouldBe(2);
        again.Focus.Stage.ShouldBe(LessonStage.Apply);
        again.Focus.Reason.ShouldStartWith("Carries on from lesson one");
    }

    [Fact]
    public void Starters_are_what_most_children_are_due_another_look_at()
    {
        // One success each and a "not yet" after it, more than three school days ago.
        var seen = Children
            .Take(9)
            .SelectMany(c =>
                new[]
                {
                    Saw(19, Support.Alone, Representation.Spoken, skill: OneWay, child: c.Value),
                    Saw(20, Support.NotYet, Representation.Spoken, skill: OneWay, child: c.Value),
                }
            )
            .ToList();
        var starter = WeekPlanner.Plan(Request(seen, [])).Days[0].Starters[0];
        starter.Skill.ShouldBe(OneWay.Id);
        starter.Reason.ShouldBe("Nine children are due another look.");
    }

    [Fact]
    public void A_week_that_has_begun_is_planned_from_the_day_asked_for_and_lessons_count_on()
    {
        var request = Request([], [new(NextMonday, new("see.to-3")), new(NextMonday.AddDays(1), new("count.say-5"))]) with { From = NextMonday.AddDays(2) };
        var plan = WeekPlanner.Plan(request);
        plan.Days.Select(d => d.Day).ShouldBe([NextMonday.AddDays(2), NextMonday.AddDays(3), NextMonday.AddDays(4)]);
        plan.Days.Where(d => d.Focus.Skill.Value is "see.to-3" or "count.say-5").ShouldAllBe(d => d.Focus.Number == 2);
    }

    [Fact]
    public void A_week_of_holidays_has_no_days() => WeekPlanner.Plan(Request([], []) with { Monday = new(2028, 1, 3) }).Days.ShouldBeEmpty();

    private static WeekRequest Request(List<Observation> seen, List<TaughtLesson> taught) =>
        new(new ClassEvidence(Map, Calendar, EvidenceSettings.Default, Children, seen.OrderBy(o => o.At), NextMonday), NextMonday, taught, Library);
}
