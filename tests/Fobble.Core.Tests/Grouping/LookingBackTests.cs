using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Skills;
using static Fobble.Core.Evidence.Support;
using static Fobble.Core.Tests.Evidence.Record;
using static Fobble.Core.Tests.Grouping.ClassOf;

namespace Fobble.Core.Tests.Grouping;

/// <summary>What came of groups, who had turns, who met whom.</summary>
public class LookingBackTests
{
    [Fact]
    public void An_outcome_tells_strength_before_after_and_now()
    {
        var brief = Brief(
            3,
            Saw(20, Prompted, Representation.Spoken, skill: OneWay),
            Saw(25, Alone, Representation.Spoken, skill: OneWay),
            Saw(27, Alone, Representation.Spoken, skill: OneWay),
            Saw(29, Alone, Representation.Spoken, skill: OneWay),
            Saw(25, NotYet, Representation.Spoken, skill: OneWay, child: 2)
        );
        var outcome = GroupOutcomes.Of(Met(25, Say, 1, 2, 3), brief.Evidence, Told);
        outcome
            .Children.Select(c => (c.Before, c.After, c.Now))
            .ShouldBe([
                (Strength.Prompted, Strength.Nearly, Strength.Secure),
                (Strength.NotSeen, Strength.Tried, Strength.Tried),
                (Strength.NotSeen, Strength.NotSeen, Strength.NotSeen),
            ]);
        outcome.Children.Select(c => (c.Reached, c.CarriedOver, c.Recorded)).ShouldBe([(true, false, true), (false, true, true), (false, true, false)]);
        outcome.Sentence.ShouldBe("Child 1 is secure now and Child 2 got further that day. Carried over: Child 2 and Child 3.");
        GroupOutcomes.Of(Met(24, Say, 1, 2), brief.Evidence, Told).Sentence.ShouldBe("Nothing was recorded in this group.");
        GroupOutcomes
            .Of(Met(25, Say, 1, 2), brief.Evidence, Told with { Child = c => c.Value == 1 ? "Kofi M." : "Wren A." })
            .Sentence.ShouldBe("Kofi M. is secure now and Wren A. got further that day. Carried over: Wren A.");
    }

    [Fact]
    public void Turns_and_meetings_are_counted_for_every_child_and_pair()
    {
        var report = Company.Of(Six, [Met(0, Say, 1, 2, 3), Met(5, See, 1, 2, 4), Met(10, Say, 1, 5)], Told);
        report.Children.Select(c => (c.Turns, c.Others)).ShouldBe([(3, 4), (2, 3), (1, 2), (1, 2), (1, 1), (0, 0)]);
        report.Children[0].Last.ShouldBe(SchoolDay(10));
        report.Met.Select(p => (p.Pair.First.Value, p.Pair.Second.Value, p.Times)).ShouldBe([(1, 2, 2), (1, 3, 1), (1, 4, 1), (1, 5, 1), (2, 3, 1), (2, 4, 1)]);
        report.Warnings.ShouldBe(["Child 6 has not had a turn."]);
    }

    [Theory]
    [InlineData(new[] { 0, 0 }, "No small group has met since 2 November.")]
    [InlineData(new int[0], "No small group has met since 2 November.")]
    [InlineData(new[] { 3, 5, 4 }, "Since 2 November each child has had three to five turns in a small group.")]
    [InlineData(new[] { 11, 15 }, "Since 2 November each child has had 11 to 15 turns in a small group.")]
    [InlineData(new[] { 1, 1 }, "Since 2 November each child has had one turn in a small group.")]
    [InlineData(new[] { 2, 0, 3, 0 }, "Since 2 November children have had two to three turns in a small group, and two children none.")]
    public void Turns_of_a_class_are_told_without_a_name(int[] turns, string said) => Company.TurnsInWords(turns, new(2026, 11, 2)).ShouldBe(said);

    [Fact]
    public void Children_who_always_sit_together_are_named_as_one_circle_and_by_name_only()
    {
        List<PastGroup> past = [.. Enumerable.Range(0, 4).SelectMany(i => new[] { Met(i * 5, Say, 1, 2, 3), Met(i * 5, See, i < 2 ? 4 : 6, 5) })];
        var warning = Company.Of(Six, past, Told).Warnings.Single(w => w.Contains("together", StringComparison.Ordinal));
        warning.ShouldStartWith("Child 1, Child 2 and Child 3 nearly always sit together.");
        Company.Of(Six, [.. past.Where(p => p.Skill == See)], Told).Warnings.ShouldAllBe(w => !w.Contains("together"));
    }

    [Fact]
    public void A_pair_is_told_with_its_numbers_and_few_turns_are_said()
    {
        List<PastGroup> past = [.. Enumerable.Range(0, 4).SelectMany(i => new[] { Met(i * 5, Say, 1, 2), Met(i * 5, See, 3, 4 + (i % 2)) }), Met(20, Say, 6)];
        Company
            .Of(Six, past, Told)
            .Warnings.ShouldSatisfyAllConditions(
                w => w[0].ShouldBe("Child 4, Child 5 and Child 6 have had half as many turns as is usual in this class, or fewer; usual is four."),
                w => w[1].ShouldStartWith("Child 1 and Child 2 nearly always sit together: 4 times, of 4 groups.")
            );
        Company.Of(Six, [], Told).Warnings.ShouldBeEmpty();
    }

    [Fact]
    public void Aims_tell_who_changes_comes_in_or_falls_out() =>
        GroupChanges
            .Aims([Group(Say, 0, 1, 2), Group(See, 1, 3)], [Group(Say, 1, 1, 3), Group(See, 0, 4)])
            .Select(a => (a.Child.Value, a.From, a.To))
            .ShouldBe([(2, Say, null), (3, See, Say), (4, null, See)]);

    private static IReadOnlyList<ChildId> Six { get; } = [.. Enumerable.Range(1, 6).Select(i => new ChildId(i))];
}
