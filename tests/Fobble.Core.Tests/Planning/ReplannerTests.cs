using Fobble.Core.Numbers;
using Fobble.Core.Planning;

namespace Fobble.Core.Tests.Planning;

/// <summary>Re-planning after lost days (rule R12): every rule kept, as few lessons moved as can be, and never more than by pushing on.</summary>
public class ReplannerTests
{
    private static readonly Gen<(PlanProblem Before, PlanProblem After, IReadOnlyList<FreeLesson> Lessons)> AnyLoss = Gen.Select(
            Gen.ULong[1, 100_000],
            Gen.Int[40, 90],
            Gen.Int[1, 4]
        )
        .Select((seed, days, lost) => Lose(seed, days, days / 2, lost));

    [Fact]
    public void After_lost_days_every_rule_holds_and_no_more_is_moved_than_by_pushing_on() =>
        AnyLoss.Sample(
            year =>
            {
                var (_, after, lessons) = year;
                var found = Replanner.FewestMoves(after, lessons, 4).ShouldNotBeNull();
                if (found.Days.Any(d => d is null))
                {
                    return;
                }

                Years.Faults(after, ByItem(after, lessons, found.Days), PlanSettings.Span + 4, buffer: false).ShouldBeEmpty();
                var pushed = Replanner.Pushed(after, lessons);
                if (
                    found.ProvenFewest
                    && pushed.All(d => d is not null)
                    && Years.Faults(after, ByItem(after, lessons, pushed), PlanSettings.Span + 4, buffer: false).Count == 0
                )
                {
                    Moved(lessons, found.Days).ShouldBeLessThanOrEqualTo(Moved(lessons, pushed));
                }
            },
            iter: Cases.Of(40)
        );

    [Fact]
    public void What_is_held_stays_or_it_is_said_that_it_cannot() =>
        AnyLoss.Sample(
            year =>
            {
                var (_, after, lessons) = year;
                var random = new SeededRandom(3);
                List<FreeLesson> held = [.. lessons.Select(l => l with { Held = random.Chance(0.3) && after.Days[l.Was!.Value].Places > 0 })];
                if (Replanner.FewestMoves(after, held, 4) is { } found)
                {
                    held.Zip(found.Days).Where(p => p.First.Held).ShouldAllBe(p => p.Second == p.First.Was);
                    Years
                        .Faults(after, ByItem(after, held, found.Days), PlanSettings.Span + 4, buffer: false)
                        .Where(f => !f.Contains(" of ", StringComparison.Ordinal))
                        .ShouldBeEmpty();
                }
            },
            iter: Cases.Of(25)
        );

    [Fact]
    public void A_lesson_held_on_a_lost_day_is_refused()
    {
        var (_, after, lessons) = Lose(4, 50, 25, 2);
        var lost = lessons.First(l => after.Days[l.Was!.Value].Places == 0);
        Replanner.FewestMoves(after, [.. lessons.Select(l => l == lost ? l with { Held = true } : l)], 2).ShouldBeNull();
    }

    [Fact]
    public void Nothing_moves_where_nothing_is_lost()
    {
        var problem = Years.Random(11, 60, 30);
        List<FreeLesson> lessons = [.. YearPlanner.DaysFor(problem).SelectMany((own, item) => own.Select(day => new FreeLesson(item, day, false)))];
        Moved(lessons, Replanner.FewestMoves(problem, lessons, 0)!.Days).ShouldBe(0);
    }

    [Fact]
    public void The_same_question_gets_the_same_answer() =>
        AnyLoss.Sample(
            year => Replanner.FewestMoves(year.After, year.Lessons, 4)!.Days.ShouldBe(Replanner.FewestMoves(year.After, year.Lessons, 4)!.Days),
            iter: 5
        );

    // Every subset of lessons that could move, the smallest first, and every way to put them elsewhere.
    [Fact]
    public void No_rearrangement_of_a_small_plan_moves_fewer()
    {
        var compared = 0;
        for (var seed = 1UL; seed <= 60; seed++)
        {
            var (_, after, lessons) = Lose(seed, 9, 3, 1);
            var found = Replanner.FewestMoves(after, lessons, 1).ShouldNotBeNull();
            if (lessons.Count is 0 or > 6 || found.Days.Any(d => d is null))
            {
                continue;
            }

            compared++;
            Moved(lessons, found.Days).ShouldBe(Fewest(after, lessons), $"seed {seed}");
        }

        compared.ShouldBeGreaterThan(20);
    }

    [Fact]
    public void The_solver_takes_its_parameters() =>
        new Google.OrTools.Sat.CpSolver { StringParameters = Replanner.Parameters(4) }
            .Solve(new())
            .ShouldBe(Google.OrTools.Sat.CpSolverStatus.Optimal);

    private static int Fewest(PlanProblem after, IReadOnlyList<FreeLesson> lessons)
    {
        var best = int.MaxValue;
        Try([]);
        return best;

        void Try(List<int?> days)
        {
            if (days.Count == lessons.Count)
            {
                if (Moved(lessons, days) < best && Years.Faults(after, ByItem(after, lessons, days), PlanSettings.Span + 1, buffer: false).Count == 0)
                {
                    best = Moved(lessons, days);
                }

                return;
            }

            for (var day = 0; day < after.Days.Count; day++)
            {
                if (after.Days[day].Places > 0 && !days.Contains(day))
                {
                    days.Add(day);
                    Try(days);
                    days.RemoveAt(days.Count - 1);
                }
            }
        }
    }

    private static (PlanProblem Before, PlanProblem After, IReadOnlyList<FreeLesson> Lessons) Lose(ulong seed, int days, int skills, int lost)
    {
        var before = Years.Random(seed, days, skills);
        var plan = YearPlanner.DaysFor(before);
        var random = new SeededRandom(seed + 7);
        var gone = Enumerable.Range(0, lost).Select(_ => random.Next(Math.Max(1, days / 3))).ToHashSet();
        var after = before with { Days = [.. before.Days.Select((d, i) => gone.Contains(i) ? d with { Places = 0 } : d)] };
        return (before, after, [.. plan.SelectMany((own, item) => own.Select(day => new FreeLesson(item, day, false)))]);
    }

    private static List<IReadOnlyList<int>> ByItem(PlanProblem problem, IReadOnlyList<FreeLesson> lessons, IReadOnlyList<int?> days) =>
        [
            .. problem.Items.Select(
                (_, item) => (IReadOnlyList<int>)[.. lessons.Zip(days).Where(p => p.First.Item == item).Select(p => p.Second).OfType<int>().Order()]
            ),
        ];

    // A day that one of the skill's lessons had and that none of them has now.

    private static int Moved(IReadOnlyList<FreeLesson> lessons, IReadOnlyList<int?> days) =>
        lessons.Zip(days).GroupBy(p => p.First.Item).Sum(own => own.Select(p => p.First.Was).Except(own.Select(p => p.Second)).Count());
}
