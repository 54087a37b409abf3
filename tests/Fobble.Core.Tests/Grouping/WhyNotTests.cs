using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Skills;
using static Fobble.Core.Tests.Evidence.Record;
using static Fobble.Core.Tests.Grouping.ClassOf;

namespace Fobble.Core.Tests.Grouping;

/// <summary>Why a child is not at a table: the price is the difference of two best sets.</summary>
public class WhyNotTests
{
    private static readonly GroupingBrief Seen = Brief(
        7,
        [.. Enumerable.Range(1, 3).Select(c => Saw(28, Support.Prompted, Representation.Spoken, skill: OneWay, child: c))]
    );

    [Fact]
    public void The_price_is_the_difference_to_the_best_set_with_the_child_there()
    {
        var problem = Problem(Seen);
        var best = Grouper.Form(problem);
        foreach (var (child, group) in problem.Children.SelectMany(c => best.Groups.Where(g => !g.Children.Contains(c.Child)).Select(g => (c.Child, g))))
        {
            var answer = WhyNot.Ask(problem, best.Groups, child, group.Slot, Seen, Told);
            if (answer.Instead is { } instead)
            {
                instead.Groups.ShouldContain(g => g.Slot == group.Slot && g.Skill == group.Skill && g.Children.Contains(child));
                answer.Price.ShouldBe(best.Score - instead.Score);
                answer.Price!.Value.ShouldBeGreaterThanOrEqualTo(0);
            }

            answer.Sentence.ShouldNotBeNullOrWhiteSpace();
        }
    }

    [Fact]
    public void What_needs_no_search_is_said_at_once()
    {
        var problem = Problem(Seen);
        FormedGroup[] groups = [Group(Say, 0, 1, 2, 3), Group(new("count.say-10"), 1, 4, 5, 6)];
        string Ask(int child, int slot, GroupingProblem? other = null) => WhyNot.Ask(other ?? problem, groups, new(child), slot, Seen, Told).Sentence;
        Ask(1, 0).ShouldStartWith("Child 1 is there. “Say to five” with a prompt");
        Ask(1, 1).ShouldBe("“say to ten” is no next step for Child 1. Not ready yet: needs “say to five” first.");
        Ask(1, 5).ShouldBe("No group sits there.");
        Ask(9, 0).ShouldBe("Child 9 has had a turn in this week’s groups already.");
        Ask(7, 0, problem with { Children = [.. problem.Children.Select(c => c with { AwayIn = new HashSet<int> { 0 } })] })
            .ShouldBe("Child 7 is not in class at that time.");
    }

    [Fact]
    public void A_wish_that_stands_against_it_is_named()
    {
        var problem = Problem(Seen);
        var apart = problem with { Rules = problem.Rules with { Wishes = [new SeatWish(new(1), 0), new ApartWish(new(new(1), new(7)))] } };
        WhyNot
            .Ask(apart, [Group(Say, 0, 1, 2, 3)], new(7), 0, Seen, Told)
            .Sentence.ShouldBe("It can’t be as long as Child 1 sits at the table of place 0 and Child 1 and Child 7 are to be kept apart.");
    }

    [Fact]
    public void Weights_change_what_is_worth_most()
    {
        Worth Of(GroupWeights weights) => Candidates.From(Seen with { Weights = weights })[0].Worths[Say];
        var usual = Of(GroupWeights.Usual);
        Of(new() { Near = 200 }).Base.ShouldBe(usual.Base + 20);
        Of(new() { Near = 0 }).Base.ShouldBe(80);
        Of(new() { Turns = 0 }).Fairness.ShouldBe(0);
        (Of(new() { Lessons = 0 }).Urgency, usual.Urgency > 0).ShouldBe((0, true));
        GroupWeights.All.ShouldAllBe(w => w.Read(w.With(GroupWeights.Usual, 400)) == 400 && w.Name.Length > 0 && w.Does.StartsWith("Higher"));
        GroupWeights.All.Select(w => w.Key).ShouldBeUnique();
    }

    [Theory]
    [InlineData("5=2+3", 5)]
    [InlineData("12", 20)]
    [InlineData("7 and 9", 10)]
    [InlineData("abc", null)]
    [InlineData("30", 100)]
    public void The_size_of_numbers_is_that_of_the_largest_last_used(string numbers, int? reach)
    {
        var brief = Brief(1, Saw(28, Support.Prompted, Representation.Spoken, skill: OneWay, numbers: numbers));
        (Candidates.From(brief)[0].Reach.TryGetValue(Say, out var found) ? (int?)found : null).ShouldBe(reach);
    }

    private static GroupingProblem Problem(GroupingBrief brief) => new(Candidates.From(brief), GroupSlot.InARow(2), new() { MaxSize = 4 }, []);
}
