using Fobble.Core.Numbers;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Google.OrTools.Sat;

namespace Fobble.Core.Tests.Planning;

/// <summary>What comes back in the starters: within its window, never more than the day has room for, and as near to the best day as can be.</summary>
public class ReviewPlannerTests
{
    private static readonly Gen<(IReadOnlyList<WantedReview> Wanted, int Days)> Any = Gen.ULong.Select(seed =>
    {
        var random = new SeededRandom(seed);
        var days = 10 + random.Next(60);
        IReadOnlyList<WantedReview> wanted =
        [
            .. Enumerable
                .Range(0, random.Next(60))
                .SelectMany(i =>
                {
                    var end = random.Next(days) - 10;
                    return PlanSettings.Usual.Gaps.Select(
                        (gap, round) => new WantedReview(new($"s.{i}"), round + 1, end + gap.Best, end + gap.Earliest, end + gap.Latest)
                    );
                })
                .Where(r => r.Latest >= 0 && r.Earliest < days),
        ];
        return (wanted, days);
    });

    [Fact]
    public void Windows_and_room_are_kept_and_a_skill_is_not_the_starter_of_its_own_lesson() =>
        Any.Sample(any =>
        {
            var (wanted, days) = any;
            var chosen = ReviewPlanner.Plan(wanted, days, d => d % 7 == 6 ? 0 : 2, d => [new SkillId($"s.{d}")]);
            foreach (var (review, day) in wanted.Zip(chosen).Where(p => p.Second is not null).Select(p => (p.First, p.Second!.Value)))
            {
                day.ShouldBeInRange(review.Earliest, review.Latest);
                review.Skill.Value.ShouldNotBe($"s.{day}");
            }

            chosen.OfType<int>().GroupBy(d => d).ShouldAllBe(g => g.Count() <= 2 && g.Key % 7 != 6);
        });

    // The same assignment as a model for CP-SAT, a solver of another kind.
    [Fact]
    public void No_other_assignment_is_nearer_to_the_best_days() =>
        Any.Sample(
            any =>
            {
                var (wanted, days) = any;
                var chosen = ReviewPlanner.Plan(wanted, days, _ => 1, _ => []);
                CpModel model = new();
                var objective = LinearExpr.NewBuilder();
                var byDay = Enumerable.Range(0, days).Select(_ => new List<BoolVar>()).ToList();
                foreach (var review in wanted)
                {
                    var missed = model.NewBoolVar("");
                    objective.AddTerm(missed, 1000);
                    List<BoolVar> all = [missed];
                    for (var day = Math.Max(0, review.Earliest); day <= Math.Min(days - 1, review.Latest); day++)
                    {
                        var literal = model.NewBoolVar("");
                        objective.AddTerm(literal, 4 * Math.Abs(day - review.Best));
                        byDay[day].Add(literal);
                        all.Add(literal);
                    }

                    model.AddExactlyOne(all);
                }

                byDay.ForEach(literals => model.AddAtMostOne(literals));
                model.Minimize(objective);
                CpSolver solver = new() { StringParameters = "num_workers:1" };
                solver.Solve(model).ShouldBe(CpSolverStatus.Optimal);
                wanted.Zip(chosen).Sum(p => p.Second is { } day ? 4 * Math.Abs(day - p.First.Best) : 1000).ShouldBe((int)Math.Round(solver.ObjectiveValue));
            },
            iter: Cases.Of(30)
        );

    [Fact]
    public void What_children_are_due_to_be_looked_at_again_comes_before_the_rest()
    {
        List<WantedReview> wanted = [new(new("s.taught"), 1, 0, 0, 0), new(new("s.due"), 0, 0, 0, 0)];
        ReviewPlanner.Plan(wanted, 1, _ => 1, _ => []).ShouldBe([null, 0]);
    }

    [Fact]
    public void A_starter_keeps_its_day_when_another_would_be_as_good()
    {
        WantedReview review = new(new("s.a"), 1, 5, 4, 6);
        ReviewPlanner.Plan([review], 10, d => d == 5 ? 0 : 1, _ => [], _ => 6).ShouldBe([6]);
        ReviewPlanner.Plan([review], 10, d => d == 5 ? 0 : 1, _ => [], _ => 4).ShouldBe([4]);
    }
}
