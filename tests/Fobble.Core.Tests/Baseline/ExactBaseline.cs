using Fobble.Core.Baseline;
using Fobble.Core.Skills;

namespace Fobble.Core.Tests.Baseline;

/// <summary>
/// The posterior of a baseline check worked out exactly, for small maps: every down-closed set, with levels integrated over a fine grid.
/// Shares nothing with the particles but the numbers of the settings.
/// </summary>
internal sealed class ExactBaseline
{
    private readonly SkillMap _map;
    private readonly List<bool[]> _states;
    private readonly double[] _prior;

    public ExactBaseline(SkillMap map, BaselineSettings settings)
    {
        _map = map;
        _states = [.. DownClosed(map)];
        _prior = new double[_states.Count];
        var levels = BaselineSettings.LevelsOf(map);
        var strands = map.Skills.Select(s => s.Strand).Distinct().ToList();
        var place = map.Skills.Select((s, i) => (s.Id, i)).ToDictionary(p => p.Id, p => p.i);
        foreach (var (theta, weight) in Grid(settings.Level, settings.LevelSpread, 41))
        {
            var grid = Grid(theta, settings.StrandSpread, 61);
            var held = grid.Select(g => levels.Select(d => 1 / (1 + Math.Exp(-(g.At - d) / settings.Softness))).ToArray()).ToList();
            for (var x = 0; x < _states.Count; x++)
            {
                var state = _states[x];
                var product = weight;
                foreach (var strand in strands)
                {
                    var own = Enumerable
                        .Range(0, state.Length)
                        .Where(i => map.Skills[i].Strand == strand && map.Skills[i].Needs.All(n => state[place[n]]))
                        .ToArray();
                    product *= grid.Select((g, at) => g.Weight * own.Aggregate(1.0, (p, i) => p * (state[i] ? held[at][i] : 1 - held[at][i]))).Sum();
                }

                _prior[x] += product;
            }
        }
    }

    public IReadOnlyList<double> After(IReadOnlyList<BaselineAnswer> answers, BaselineSettings settings)
    {
        var weights = _states
            .Select((state, x) => answers.Aggregate(_prior[x], (w, a) =>
                    {
                        var right = state[_map.IndexOf(a.Skill)] ? 1 - settings.Slip : settings.Guess;
                        return w * Math.Pow(a.Right ? right : 1 - right, a.Weight);
                    }))
            .ToList();
        return [.. Enumerable.Range(0, _map.Skills.Count).Select(i => weights.Where((_, x) => _states[x][i]).Sum() / weights.Sum())];
    }

    /// <summary>Every set that holds a skill only with all that it needs.</summary>
    public static IEnumerable<bool[]> DownClosed(SkillMap map)
    {
        var place = map.Skills.Select((s, i) => (s.Id, i)).ToDictionary(p => p.Id, p => p.i);
        IEnumerable<bool[]> From(bool[] state, int i)
        {
            if (i == state.Length)
            {
                return [state];
            }

            var without = From(state, i + 1);
            if (!map.Skills[i].Needs.All(n => state[place[n]]))
            {
                return without;
            }

            bool[] with = [.. state];
            with[i] = true;
            return without.Concat(From(with, i + 1));
        }

        return From(new bool[map.Skills.Count], 0);
    }

    private static List<(double At, double Weight)> Grid(double mean, double spread, int points)
    {
        var all = Enumerable
            .Range(0, points)
            .Select(i => -4.5 + (9.0 * i / (points - 1)))
            .Select(z => (At: mean + (spread * z), Weight: Math.Exp(-z * z / 2)))
            .ToList();
        var sum = all.Sum(p => p.Weight);
        return [.. all.Select(p => (p.At, p.Weight / sum))];
    }
}
