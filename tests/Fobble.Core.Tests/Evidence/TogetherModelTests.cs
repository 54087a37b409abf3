using Fobble.Bench;

namespace Fobble.Core.Tests.Evidence;

/// <summary>Skills judged together, against worked values and against all states of a small map, one by one.</summary>
public class TogetherModelTests
{
    // See to three; see to five, which needs it; how many to five; split four, which needs the last two.
    private static readonly int[][] Needs =
    [
        [],
        [0],
        [],
        [1, 2],
    ];
    private static readonly double[] Bases = [0.5, 0.5, 0.5, 0.5];

    [Theory]
    [InlineData(
        new[] { 1, 9.33333, 0.44444, 36 },
        new[] { false, true, true, true },
        new[] { 0.9091, 0.9298, 0.7921, 0.8469 },
        0.6064,
        new[] { 0.9483, 0.9792, 0.8907, 0.9288 }
    )]
    [InlineData(
        new[] { 1, 9.33333, 36, 0.44444 },
        new[] { false, true, true, true },
        new[] { 0.7791, 0.7075, 0.9662, 0.2126 },
        0.3478,
        new[] { 0.8422, 0.7770, 0.9740, 0.2939 }
    )]
    public void Two_runs_come_to_the_worked_values(double[] evidence, bool[] seen, double[] first, double level, double[] second)
    {
        TogetherModel model = new(Needs, Bases);
        var run = model.Run(evidence, seen, 0);
        Near(run.Held, first, 1e-4);
        run.Level.ShouldBe(level, 1e-4);
        Near(model.Run(evidence, seen, TogetherModel.Shift(level, 0)).Held, second, 1e-4);
    }

    // A tree has no two ways between skills, so that passing messages is exact but for the cap on them.
    [Fact]
    public void On_a_tree_it_is_what_all_states_come_to() =>
        Gen.Select(Gen.Double[0.2, 5].Array[4], Gen.Double[0.1, 0.9].Array[4])
            .Sample(
                (evidence, bases) =>
                {
                    var held = new TogetherModel(Needs, bases).Run(evidence, [true, true, true, true], 0).Held;
                    Near(held, Enumerated(evidence, bases), 2e-3);
                }
            );

    [Fact]
    public void What_builds_on_a_skill_speaks_for_it_and_what_it_needs_against_it()
    {
        TogetherModel model = new(Needs, Bases);
        double[] Held(params double[] evidence) => model.Run(evidence, [.. evidence.Select(e => e != 1)], 0).Held;
        var nothing = Held(1, 1, 1, 1);
        Held(1, 1, 1, 30)[0].ShouldBeGreaterThan(nothing[0]);
        Held(0.05, 1, 1, 1)[3].ShouldBeLessThan(nothing[3]);
    }

    private static double[] Enumerated(double[] evidence, double[] bases)
    {
        var (held, all) = (new double[4], 0.0);
        for (var state = 0; state < 16; state++)
        {
            bool Has(int s) => ((state >> s) & 1) == 1;
            var weight = 1.0;
            for (var s = 0; s < 4; s++)
            {
                var chance = Needs[s].All(Has) ? Math.Clamp(bases[s], 0.02, 0.98) : 0.02;
                weight *= Has(s) ? chance * evidence[s] : 1 - chance;
            }

            all += weight;
            for (var s = 0; s < 4; s++)
            {
                held[s] += Has(s) ? weight : 0;
            }
        }

        return [.. held.Select(h => h / all)];
    }

    private static void Near(double[] values, double[] expected, double off)
    {
        for (var i = 0; i < expected.Length; i++)
        {
            values[i].ShouldBe(expected[i], off);
        }
    }
}
