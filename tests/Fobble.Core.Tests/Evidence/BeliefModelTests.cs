using Fobble.Core.Evidence;
using static Fobble.Core.Evidence.Support;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Evidence;

/// <summary>Rule R10, belief. The recursion is that of Corbett and Anderson 1995.</summary>
public class BeliefModelTests
{
    // Two outcomes, no fading: prior 0.4, slip 0.1, guess 0.2, learning 0.3.
    private static readonly EvidenceSettings Textbook = new()
    {
        Prior = 0.4,
        Alone = new(0.9, 0.2),
        NotYet = new(0.1, 0.8),
        LearnTaught = 0.3,
        FadeHalfLife = double.PositiveInfinity,
    };

    [Fact]
    public void With_two_outcomes_and_no_fading_it_is_the_textbook_recursion()
    {
        var model = new BeliefModel(Textbook, Calendar);

        // Worked by hand: 0.4·0.9 / (0.4·0.9 + 0.6·0.2) = 0.75; 0.75 + 0.25·0.3 = 0.825.
        model.See(Saw(0, Alone), TwoWays);
        model.Belief.ShouldBe(0.825, 1e-12);

        // 0.0825 / (0.0825 + 0.175·0.8) = 0.370787; 0.370787 + 0.629213·0.3 = 0.559551.
        model.See(Saw(1, NotYet), TwoWays);
        model.Belief.ShouldBe(0.559550561797753, 1e-12);
    }

    [Fact]
    public void A_first_success_alone_in_a_group_is_worked_out_by_hand()
    {
        // 0.2·0.72 / (0.2·0.72 + 0.8·0.10) = 0.642857; 0.642857 + 0.357143·0.06 = 0.664286.
        Own(Saw(0, Alone)).Belief.ShouldBe(0.664285714285714, 1e-12);
    }

    [Fact]
    public void A_baseline_check_teaches_nothing() => Own(Saw(0, Alone, setting: Setting.Baseline)).Belief.ShouldBe(0.144 / 0.224, 1e-12);

    [Fact]
    public void A_repeat_on_the_same_day_counts_half()
    {
        var once = Own(Saw(0, Alone, setting: Setting.Baseline)).Belief;
        var twice = Own(Saw(0, Alone, setting: Setting.Baseline), Saw(0, Alone, setting: Setting.Baseline)).Belief;

        // The odds are multiplied by 7.2 the first time and by √7.2 the second.
        (once / (1 - once)).ShouldBe(0.25 * 7.2, 1e-9);
        (twice / (1 - twice)).ShouldBe(0.25 * 7.2 * Math.Sqrt(7.2), 1e-9);
    }

    [Fact]
    public void After_one_success_half_of_it_has_faded_in_sixty_days()
    {
        // h = 30·2^1 calendar days after one success alone.
        var model = new BeliefModel(EvidenceSettings.Default, Calendar);
        model.See(Saw(0, Alone), TwoWays);
        model.On(Monday.AddDays(60)).ShouldBe(0.2 + ((model.Belief - 0.2) / 2), 1e-12);
        model.On(Monday.AddDays(-3)).ShouldBe(model.Belief);
    }

    [Fact]
    public void What_is_done_alone_after_a_long_time_never_lowers_belief() =>
        Gen.Select(Gen.Int[1, 8], Gen.Int[5, 180])
            .Sample(
                (times, later) =>
                {
                    var before = Own([.. Enumerable.Range(0, times).Select(d => Saw(d, Alone))]);
                    Own([.. Enumerable.Range(0, times).Select(d => Saw(d, Alone)), Saw(times + later, Alone)])
                        .Belief.ShouldBeGreaterThanOrEqualTo(before.Belief);
                }
            );

    [Fact]
    public void Only_successes_two_school_days_apart_make_it_last()
    {
        var model = new BeliefModel(EvidenceSettings.Default, Calendar);
        foreach (var (day, expected) in new[] { (0, 1), (1, 1), (2, 2), (3, 2), (4, 3), (6, 4), (9, 4) })
        {
            model.See(Saw(day, Alone), TwoWays);
            model.SpacedSuccesses.ShouldBe(expected);
        }
    }

    [Fact]
    public void Belief_stays_between_nothing_and_certainty_and_more_support_never_raises_it() =>
        Gen.Select(Gen.Int[0, 60], Gen.Enum<Support>(), Gen.Enum<Setting>())
            .Array[1, 25]
            .Sample(results =>
            {
                var model = new BeliefModel(EvidenceSettings.Default, Calendar);
                foreach (var (day, support, setting) in results.OrderBy(r => r.Item1))
                {
                    var (better, worse) = (model, model);
                    better.See(Saw(day, Alone, setting: setting), TwoWays);
                    worse.See(Saw(day, NotYet, setting: setting), TwoWays);
                    model.See(Saw(day, support, setting: setting), TwoWays);
                    model.Belief.ShouldBeInRange(0, 1);
                    model.Belief.ShouldBeLessThanOrEqualTo(better.Belief + 1e-12);
                    model.Belief.ShouldBeGreaterThanOrEqualTo(worse.Belief - 1e-12);
                }
            });

    [Fact]
    public void Alone_by_a_way_that_is_not_asked_for_counts_as_prompted()
    {
        var see = Map[new("see.to-5")];
        var counted = Judged(0, Saw(0, Alone, skill: see, strategy: "counted"));
        Own(Saw(0, Alone, skill: see, strategy: "counted")).Belief.ShouldBe(Own(Saw(0, Prompted, skill: see)).Belief);
        counted.Strength.ShouldBe(Strength.Prompted);
        Judged(0, Saw(0, Alone, skill: see, strategy: "parts")).Strength.ShouldBe(Strength.Nearly);
    }

    // Of one skill by itself.
    private static BeliefModel Own(params Observation[] seen)
    {
        var model = new BeliefModel(EvidenceSettings.Default, Calendar);
        foreach (var observation in seen)
        {
            model.See(observation, Map[observation.Skill]);
        }

        return model;
    }
}
