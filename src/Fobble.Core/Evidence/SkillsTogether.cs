using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>
/// A child's skills judged together (rule R10): what is seen of one speaks for what it needs and against what needs it. Belief propagation (Pearl 1988) in two
/// passes over the map, in which a skill is held by a chance c if all it needs is held, and hardly ever if not; c is shifted by one number for the whole child,
/// its level. Skills are numbered so that whatever a skill needs has a smaller number.
/// </summary>
public sealed class SkillsTogether
{
    // A message is never taken to say more than this many to one, and what a skill is told by all others no more than a million.
    private const double MostTold = 1e6;

    private readonly int[][] _needs;
    private readonly double[] _bases;
    private readonly TogetherSettings _settings;

    /// <param name="needs">By skill, what it needs.</param>
    /// <param name="bases">By skill, the chance to hold it once all it needs is held, 0 to 1, before the child's level shifts it.</param>
    public SkillsTogether(IReadOnlyList<int[]> needs, IReadOnlyList<double> bases, TogetherSettings? settings = null)
    {
        (_needs, _bases, _settings) = ([.. needs], [.. bases.Select(b => Math.Log(b / (1 - b)))], settings ?? new());
    }

    /// <summary>The skills of a map in its order, with what is expected of their season.</summary>
    public static SkillsTogether Of(SkillMap map, TogetherSettings settings)
    {
        ArgumentNullException.ThrowIfNull(map);
        ArgumentNullException.ThrowIfNull(settings);
        return new([.. map.All.Select(s => s.Needs.Select(map.IndexOf).ToArray())], [.. map.All.Select(s => TogetherSettings.Expected(s.When))], settings);
    }

    /// <summary>What follows from all that was seen of one child: first its level, then its skills at that level.</summary>
    /// <param name="evidence">By skill how many times likelier what was seen of it is if the child has it; 1 where nothing was.</param>
    /// <param name="seen">By skill whether anything was.</param>
    public Marginals Judge(ReadOnlySpan<double> evidence, ReadOnlySpan<bool> seen) => Run(evidence, seen, _settings.LevelWeight * Run(evidence, seen, 0).Level);

    /// <summary>One round at a given level.</summary>
    /// <param name="shift">In logits, for every skill.</param>
    public Marginals Run(ReadOnlySpan<double> evidence, ReadOnlySpan<bool> seen, double shift)
    {
        var n = _needs.Length;
        var (c, before, held, told, ready) = (new double[n], new double[n], new double[n], new double[n], new double[n]);
        var messages = new double[n][];
        var without = _settings.Without;
        for (var s = 0; s < n; s++)
        {
            c[s] = Math.Clamp(1 / (1 + Math.Exp(-_bases[s] - shift)), 0.02, 0.98);
            before[s] = without + ((c[s] - without) * Product(_needs[s], held));
            held[s] = Chance(Odds(before[s]) * evidence[s]);
            told[s] = evidence[s];
        }

        for (var s = n - 1; s >= 0; s--)
        {
            var needs = _needs[s];
            told[s] = Math.Clamp(told[s], 1 / MostTold, MostTold);
            messages[s] = new double[needs.Length];
            for (var j = 0; j < needs.Length; j++)
            {
                var others = 1.0;
                for (var i = 0; i < needs.Length; i++)
                {
                    others *= i == j ? 1 : held[needs[i]];
                }

                var with = without + ((c[s] - without) * others);
                messages[s][j] = Math.Clamp(
                    (1 - with + (with * told[s])) / (1 - without + (without * told[s])),
                    1 / _settings.MostAMessageSays,
                    _settings.MostAMessageSays
                );
                told[needs[j]] *= messages[s][j];
            }
        }

        var (above, weight) = (0.0, 1 / (_settings.LevelSpread * _settings.LevelSpread));
        for (var s = 0; s < n; s++)
        {
            ready[s] = 1;
            for (var j = 0; j < _needs[s].Length; j++)
            {
                var need = _needs[s][j];
                ready[s] *= Chance(Odds(before[need]) * told[need] / messages[s][j]);
            }

            before[s] = without + ((c[s] - without) * ready[s]);
            held[s] = Chance(Odds(before[s]) * told[s]);
            var k = ready[s] * c[s] * (1 - c[s]);
            above += (held[s] - before[s]) * k / (before[s] * (1 - before[s]));
            weight += seen[s] ? k : 0;
        }

        return new(held, before, told, Math.Clamp(above / weight, -3, 3), shift);
    }

    private static double Product(int[] these, double[] of)
    {
        var product = 1.0;
        foreach (var i in these)
        {
            product *= of[i];
        }

        return product;
    }

    private static double Odds(double p) => p / (1 - p);

    private static double Chance(double odds) => odds / (1 + odds);
}

/// <summary>What follows for each skill, by its number.</summary>
/// <param name="Held">Chance that the child has it, by everything that was seen, 0 to 1.</param>
/// <param name="Before">The same by what it needs and the child's level alone.</param>
/// <param name="Told">How many times likelier what was seen of it, and of all that builds on it, is if the child has it.</param>
/// <param name="Level">What the record says about the child's level, in logits; 0 is what is usual.</param>
/// <param name="Shift">How much of it was used.</param>
public sealed record Marginals(IReadOnlyList<double> Held, IReadOnlyList<double> Before, IReadOnlyList<double> Told, double Level, double Shift);
