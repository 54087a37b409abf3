using Fobble.Core.Calendars;
using Fobble.Core.Skills;

namespace Fobble.Bench;

/// <summary>
/// A child's skills judged together (rule R10, third version), measured here before it is taken into the core: belief propagation in two passes over the map, in
/// which a skill is held by chance c if all it needs is held and by ε if not. Skills are numbered so that all a skill needs has smaller numbers.
/// </summary>
/// <param name="needs">By skill, what it needs.</param>
/// <param name="bases">By skill, c before the child's level shifts it.</param>
internal sealed class TogetherModel(IReadOnlyList<int[]> needs, IReadOnlyList<double> bases)
{
    /// <summary>Chance to hold a skill without all it needs.</summary>
    private const double Without = 0.02;

    /// <summary>No message says more than ten to one.</summary>
    private const double Cap = 10;
    private const double LevelSpread = 0.7;
    private const double ClassWeight = 0.75;

    public int Count => needs.Count;

    /// <summary>The map's skills, with what is expected of their season.</summary>
    public static TogetherModel Of(SkillMap map)
    {
        var place = map.All.Select((s, i) => (s.Id, i)).ToDictionary(p => p.Id, p => p.i);
        return new(
            [.. map.All.Select(s => s.Needs.Select(n => place[n]).ToArray())],
            [
                .. map.All.Select(s =>
                    s.When switch
                    {
                        Season.Autumn => 0.5,
                        Season.Spring => 0.2,
                        _ => 0.1,
                    }
                ),
            ]
        );
    }

    /// <summary>Marginals of one child: q, and the level δ that its record speaks for.</summary>
    /// <param name="evidence">By skill the likelihood ratio λ of what was seen; 1 where nothing was.</param>
    /// <param name="seen">By skill whether anything was.</param>
    /// <param name="shift">Of the child's level, in logits.</param>
    public (double[] Held, double Level) Run(ReadOnlySpan<double> evidence, ReadOnlySpan<bool> seen, double shift)
    {
        var n = Count;
        var (c, pi, q, t, r) = (new double[n], new double[n], new double[n], new double[n], new double[n]);
        var messages = new double[n][];
        for (var s = 0; s < n; s++)
        {
            c[s] = Math.Clamp(Logistic(Math.Log(bases[s] / (1 - bases[s])) + shift), 0.02, 0.98);
            pi[s] = Without + ((c[s] - Without) * Product(needs[s], q));
            q[s] = Chance(Odds(pi[s]) * evidence[s]);
            t[s] = evidence[s];
        }

        for (var s = n - 1; s >= 0; s--)
        {
            t[s] = Math.Clamp(t[s], 1e-6, 1e6);
            messages[s] = new double[needs[s].Length];
            for (var j = 0; j < needs[s].Length; j++)
            {
                var others = 1.0;
                for (var i = 0; i < needs[s].Length; i++)
                {
                    others *= i == j ? 1 : q[needs[s][i]];
                }

                var with = Without + ((c[s] - Without) * others);
                messages[s][j] = Math.Clamp((1 - with + (with * t[s])) / (1 - Without + (Without * t[s])), 1 / Cap, Cap);
                t[needs[s][j]] *= messages[s][j];
            }
        }

        var (above, weight) = (0.0, 1 / (LevelSpread * LevelSpread));
        for (var s = 0; s < n; s++)
        {
            r[s] = 1;
            for (var j = 0; j < needs[s].Length; j++)
            {
                var p = needs[s][j];
                r[s] *= Chance(Odds(pi[p]) * t[p] / messages[s][j]);
            }

            pi[s] = Without + ((c[s] - Without) * r[s]);
            q[s] = Chance(Odds(pi[s]) * t[s]);
            var k = r[s] * c[s] * (1 - c[s]);
            above += (q[s] - pi[s]) * k / (pi[s] * (1 - pi[s]));
            weight += seen[s] ? k : 0;
        }

        return (q, Math.Clamp(above / weight, -3, 3));
    }

    /// <summary>The class's part of the children's levels.</summary>
    public static double OfClass(IReadOnlyCollection<double> levels) => levels.Sum() / (levels.Count + 4);

    /// <summary>How far a child's chances are shifted: its own level, less most of what is the whole class's.</summary>
    public static double Shift(double level, double ofClass) => level - (ClassWeight * ofClass);

    private static double Product(int[] these, double[] of)
    {
        var product = 1.0;
        foreach (var i in these)
        {
            product *= of[i];
        }

        return product;
    }

    private static double Logistic(double x) => 1 / (1 + Math.Exp(-x));

    private static double Odds(double p) => p / (1 - p);

    private static double Chance(double odds) => odds / (1 + odds);
}
