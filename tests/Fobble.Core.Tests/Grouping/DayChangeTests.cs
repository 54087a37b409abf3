using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;
using static Fobble.Core.Tests.Grouping.ClassOf;

namespace Fobble.Core.Tests.Grouping;

/// <summary>A child is away on the day: only what has to be is changed.</summary>
public class DayChangeTests
{
    private static readonly IReadOnlySet<int> Today = new HashSet<int> { 0, 1 };

    [Fact]
    public void A_table_that_is_still_large_enough_goes_on()
    {
        var changed = Around(Ten(away: 1), Group(Say, 0, 1, 2, 3, 4), Group(See, 1, 5, 6, 7));
        changed.Moves.ShouldBeEmpty();
        changed.Sentences.ShouldBe(["Child 1 is away: the other three go on with “say to five”."]);
        changed.Groups[0].Children.Select(c => c.Value).ShouldBe([2, 3, 4]);
    }

    [Fact]
    public void A_table_that_is_too_small_gets_somebody_without_a_turn()
    {
        var changed = Around(Ten(away: 1), Group(Say, 0, 1, 2, 3), Group(See, 1, 5, 6, 7), Group(See, 2, 4, 8, 9));
        changed.Moves.ShouldHaveSingleItem().ShouldBe(new(new(10), null, 0));
        changed.Sentences.ShouldBe(["Child 1 is away: Child 10 comes to “say to five” instead."]);
    }

    [Fact]
    public void Else_somebody_from_a_later_table_that_can_spare_one_and_never_from_one_of_the_same_day()
    {
        Around(Ten(away: 1), Group(Say, 0, 1, 2, 3), Group(See, 1, 4, 5, 6, 10), Group(See, 2, 7, 8, 9))
            .ShouldSatisfyAllConditions(
                c => c.Moves.ShouldBeEmpty(),
                c => c.Sentences.ShouldBe(["Child 1 is away: Child 2 and Child 3 go on as two; nobody else is ready for “say to five” and free."])
            );
        Around(Ten(away: 1), Group(Say, 0, 1, 2, 3), Group(See, 1, 4, 5, 6), Group(See, 2, 7, 8, 9, 10))
            .Moves.ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(m => m.From.ShouldBe(2), m => m.To.ShouldBe(0));
    }

    [Fact]
    public void One_who_is_left_alone_joins_another_table_of_the_day()
    {
        var changed = Around(Ten(away: 1, second: 2), Group(Say, 0, 1, 2, 3), Group(See, 1, 4, 5, 6, 10), Group(See, 2, 7, 8, 9));
        changed.Moves.ShouldBe([new(new(3), 0, 1)]);
        changed.Sentences.ShouldBe(["Child 1 and Child 2 are away, and Child 3 joins the table of place 1."]);
    }

    [Fact]
    public void One_who_has_had_another_turn_already_is_missed_as_well()
    {
        var problem = Ten(away: 1);
        var changed = DayChange.Around(
            problem with
            {
                Children = [.. problem.Children.Where(c => c.Child.Value != 1)],
            },
            [Group(Say, 0, 1, 2, 3, 4), Group(See, 1, 5, 6, 7)],
            Today,
            new HashSet<ChildId> { new(1) },
            Told
        );
        changed.Sentences.ShouldBe(["Child 1 is away: the other three go on with “say to five”."]);
    }

    [Fact]
    public void Wishes_are_kept_on_the_day_as_well()
    {
        var problem = Ten(away: 1);
        var apart = problem with { Rules = new() { Wishes = [new ApartWish(new(new(2), new(10)))] } };
        Around(apart, Group(Say, 0, 1, 2, 3), Group(See, 1, 5, 6, 7), Group(See, 2, 4, 8, 9)).Moves.ShouldBeEmpty();
    }

    [Fact]
    public void Whatever_the_groups_nobody_is_lost_nobody_sits_twice_and_tables_that_lost_no_child_keep_theirs() =>
        Gen.ULong.Sample(
            seed =>
            {
                SeededRandom random = new(seed);
                var children = random.Shuffled(Enumerable.Range(1, 14)).ToList();
                FormedGroup[] groups =
                [
                    .. Enumerable.Range(0, 3).Select(i => Group(random.Pick([Say, See]), i, [.. children.Skip(i * 4).Take(3 + random.Next(2)).Order()])),
                ];
                var away = children.Where(_ => random.Chance(0.2)).ToHashSet();
                var problem = Problem(14, [.. away]);
                var changed = Around(problem, groups);
                var placed = changed.Groups.SelectMany(g => g.Children).ToList();
                placed.ShouldBeUnique();
                placed.ShouldAllBe(c => !away.Contains(c.Value) || groups[2].Children.Contains(c));
                groups.SelectMany(g => g.Children).Where(c => !away.Contains(c.Value)).ShouldBeSubsetOf(placed);
                changed.Groups[1].Children.Except(groups[1].Children).ShouldBeSubsetOf(changed.Moves.Where(m => m.To == 1).Select(m => m.Child));
                if (!groups.Take(2).Any(g => g.Children.Any(c => away.Contains(c.Value))))
                {
                    changed.Moves.ShouldBeEmpty();
                }
            },
            iter: Cases.Of(300),
            threads: 1
        );

    private static DayChanged Around(GroupingProblem problem, params FormedGroup[] groups) =>
        DayChange.Around(problem, groups, Today, problem.Children.Where(c => c.AwayIn.Count > 0).Select(c => c.Child).ToHashSet(), Told);

    private static GroupingProblem Ten(int away, int second = 0) => Problem(10, [away, second]);

    private static GroupingProblem Problem(int children, IReadOnlyList<int> away)
    {
        var brief = Brief(children) with { AwayIn = away.Where(c => c > 0).ToDictionary(c => new ChildId(c), _ => (IReadOnlySet<int>)Today.ToHashSet()) };
        return new(Candidates.From(brief), GroupSlot.InARow(3), new(), []);
    }
}
