using Fobble.Core.Approaches;
using Fobble.Core.Numbers;
using Fobble.Core.Planning;
using Fobble.Core.Skills;

namespace Fobble.Core.Tests.Planning;

/// <summary>Rule R12 on years made at random: whatever the map and the calendar, a plan keeps every rule, and the same seed gives it again.</summary>
public class YearPlannerTests
{
    private static readonly Gen<PlanProblem> AnyYear = Gen.Select(Gen.ULong, Gen.Int[15, 120], Gen.Int[1, 2])
        .Select((seed, days, places) => Years.Random(seed, days, days / 2, places));

    [Fact]
    public void Prerequisites_spans_room_and_buffer_hold_on_any_map_and_calendar() =>
        AnyYear.Sample(
            problem =>
            {
                var days = YearPlanner.DaysFor(problem);

                // A layout that could not be completed says so by the missing lessons, and keeps every other rule.
                Years
                    .Faults(problem, days)
                    .Where(f => !f.Contains("lessons", StringComparison.Ordinal) || !f.Contains(" of ", StringComparison.Ordinal))
                    .ShouldBeEmpty();
            },
            iter: Cases.Of(150)
        );

    [Fact]
    public void Years_that_are_four_fifths_full_are_laid_out_to_the_last_lesson()
    {
        var complete = Enumerable
            .Range(1, 60)
            .Count(seed => Years.Faults(Years.Random((ulong)seed, 100, 60), YearPlanner.DaysFor(Years.Random((ulong)seed, 100, 60))).Count == 0);
        complete.ShouldBeGreaterThanOrEqualTo(58);
    }

    [Fact]
    public void The_same_seed_gives_the_same_plan() =>
        AnyYear.Sample(
            problem => YearPlanner.DaysFor(problem).SelectMany(d => d).ShouldBe(YearPlanner.DaysFor(problem).SelectMany(d => d)),
            iter: Cases.Of(10)
        );

    [Fact]
    public void Pinned_lessons_keep_their_day() =>
        AnyYear.Sample(
            problem =>
            {
                var days = YearPlanner.DaysFor(problem);
                List<Pin> pins =
                [
                    .. problem
                        .Items.Select((item, i) => (item, i))
                        .Where(p => p.i % 3 == 0 && days[p.i].Count > 0)
                        .Select(p => new Pin(p.item.Skill, days[p.i][0])),
                ];
                var again = YearPlanner.DaysFor(problem with { Pins = pins, Settings = problem.Settings with { Seed = 99 } });
                foreach (var pin in pins)
                {
                    again[problem.Items.ToList().FindIndex(i => i.Skill == pin.Skill)].ShouldContain(pin.Day);
                }
            },
            iter: Cases.Of(60)
        );

    // Small enough to try every layout: the planner finds one that costs as little.
    [Fact]
    public void No_layout_of_a_small_year_is_cheaper()
    {
        for (var seed = 1UL; seed <= 40; seed++)
        {
            var problem = Years.Random(seed, 8, 4, 1, 0.75);
            var found = YearPlanner.DaysFor(problem);
            if (Every(problem, [], 0).Select(days => (int?)YearPlanner.CostOf(problem, days)).Min() is { } cheapest)
            {
                Years.Faults(problem, found).ShouldBeEmpty();
                YearPlanner.CostOf(problem, found).ShouldBe(cheapest, $"seed {seed}");
            }
        }
    }

    [Fact]
    public void Strands_alternate_in_a_spiral_and_are_kept_unit_by_unit()
    {
        int Changes(YearOrder order)
        {
            var problem = Years.Random(5, 100, 60);
            problem = problem with { Settings = problem.Settings with { Order = order, Steps = 60_000 } };
            var days = YearPlanner.DaysFor(problem);
            var strands = days.SelectMany((own, i) => own.Select(day => (day, problem.Items[i].Strand))).OrderBy(p => p.day).Select(p => p.Strand).ToList();
            return strands.Zip(strands.Skip(1)).Count(p => p.First != p.Second);
        }

        Changes(YearOrder.UnitByUnit).ShouldBeLessThan(Changes(YearOrder.Spiral) * 2 / 3);
    }

    [Fact]
    public void Improving_is_worth_it()
    {
        for (var seed = 1UL; seed <= 8; seed++)
        {
            var problem = Years.Random(seed, 150, 80);
            var once = YearPlanner.CostOf(problem, YearPlanner.DaysFor(problem with { Settings = problem.Settings with { Tries = 1, Steps = 0 } }));
            var improved = YearPlanner.CostOf(problem, YearPlanner.DaysFor(problem with { Settings = problem.Settings with { Steps = 60_000 } }));
            improved.ShouldBeLessThan(once);
        }
    }

    // The improver adds up what each small change costs; it has to agree with counting the whole plan.
    [Fact]
    public void What_a_change_costs_is_what_the_whole_plan_costs_more() =>
        AnyYear.Sample(
            problem =>
            {
                var grid = YearPlanner.Lay(problem with { Settings = problem.Settings with { Steps = 0 } }, null, default);
                SeededRandom random = new(problem.Settings.Seed);
                for (var i = 0; i < 200 && grid.Count > 8; i++)
                {
                    var (before, at) = (grid.Cost(), grid.Copy());
                    var first = random.Next(grid.Count - 6);
                    if ((random.Chance(0.5) ? grid.Swap(first, first + 1 + random.Next(5)) : grid.Rotate(first, first + 2 + random.Next(3))) is { } change)
                    {
                        grid.Cost().ShouldBe(before + change);
                    }
                    else
                    {
                        grid.Copy().ShouldBe(at);
                    }
                }
            },
            iter: Cases.Of(30)
        );

    [Fact]
    public void A_cancelled_search_ends()
    {
        using CancellationTokenSource stop = new();
        stop.Cancel();
        var problem = Years.Random(1, 100, 60);
        Should.Throw<OperationCanceledException>(() => YearPlanner.Lay(problem, null, stop.Token));
    }

    private static IEnumerable<List<IReadOnlyList<int>>> Every(PlanProblem problem, List<IReadOnlyList<int>> sofar, int item)
    {
        if (item == problem.Items.Count)
        {
            if (Years.Faults(problem, sofar).Count == 0)
            {
                yield return [.. sofar];
            }

            yield break;
        }

        var taken = sofar.SelectMany(d => d).ToHashSet();
        var free = Enumerable.Range(0, problem.Days.Count).Where(d => problem.Days[d].Places > 0 && !taken.Contains(d)).ToList();
        foreach (var own in Choose(free, problem.Items[item].Lessons))
        {
            sofar.Add(own);
            foreach (var found in Every(problem, sofar, item + 1))
            {
                yield return found;
            }

            sofar.RemoveAt(sofar.Count - 1);
        }
    }

    private static IEnumerable<List<int>> Choose(List<int> from, int count) =>
        count == 0
            ?
            [
                [],
            ]
            : Enumerable.Range(0, from.Count).SelectMany(i => Choose([.. from.Skip(i + 1)], count - 1).Select(rest => (List<int>)[from[i], .. rest]));
}
