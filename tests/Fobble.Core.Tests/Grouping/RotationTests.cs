using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Skills;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Grouping;

/// <summary>Several weeks of groups ahead.</summary>
public class RotationTests
{
    private static readonly GroupingBrief Twelve = ClassOf.Brief(12);
    private static readonly IReadOnlyList<WeekAhead> Weeks =
    [
        .. Enumerable.Range(6, 4).Select(week => new WeekAhead(week, SchoolDay(week * 5), GroupSlot.InARow(3), new Dictionary<ChildId, IReadOnlySet<int>>())),
    ];

    private static readonly RotationPlan Plan = Rotation.Plan(Twelve, new() { MaxSize = 4 }, Weeks);

    [Fact]
    public void Over_four_weeks_every_child_has_its_turns_and_works_with_many_others()
    {
        Plan.Weeks.Count.ShouldBe(4);
        Plan.Children.ShouldAllBe(c => c.Turns >= 3 && c.Others >= 5);
        Plan.Sentence.ShouldStartWith("In four weeks each child has ");
    }

    [Fact]
    public void Nobody_has_the_same_aim_twice() =>
        Plan.Weeks.SelectMany(c => c.Groups.SelectMany(g => g.Children.Select(child => (child, g.Skill)))).ShouldBeUnique();

    [Fact]
    public void Every_cycle_keeps_the_rules_and_who_is_away_is_left_out()
    {
        var ids = Enumerable.Range(0, 3).ToHashSet();
        var away = Weeks.Select((w, i) => i == 1 ? w with { AwayIn = new Dictionary<ChildId, IReadOnlySet<int>> { [new(4)] = ids } } : w).ToList();
        var plan = Rotation.Plan(Twelve, new() { MaxSize = 4, Wishes = [new ApartWish(new(new(1), new(2)))] }, away);
        plan.Weeks.SelectMany(c => c.Groups)
            .ShouldAllBe(g => g.Children.Count >= 3 && g.Children.Count <= 4 && !(g.Children.Contains(new(1)) && g.Children.Contains(new(2))));
        plan.Weeks[1].Unplaced.ShouldContain(new ChildId(4));
    }

    [Fact]
    public void The_second_look_never_makes_it_worse_and_the_answer_is_always_the_same()
    {
        var again = Rotation.Plan(Twelve, new() { MaxSize = 4 }, Weeks);
        again.Weeks.Select(c => c.Score).ShouldBe(Plan.Weeks.Select(c => c.Score));
        List<double> shares = [];
        Rotation.Plan(Twelve, new() { MaxSize = 4 }, [.. Weeks.Take(2)], new Heard(shares));
        shares.ShouldBe([0.25, 0.5, 0.75, 1]);
    }

    [Fact]
    public void It_can_be_stopped()
    {
        using CancellationTokenSource stop = new();
        stop.Cancel();
        Should.Throw<OperationCanceledException>(() => Rotation.Plan(Twelve, new(), Weeks, null, stop.Token));
    }

    private sealed class Heard(List<double> shares) : IProgress<double>
    {
        public void Report(double value) => shares.Add(value);
    }
}
