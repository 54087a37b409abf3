using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Baseline;

/// <summary>
/// Rule R11: finds out in some twenty questions where in the map a child is. Asks what tells most about all skills together, and stops when
/// it is sure enough. Knowledge spaces (Doignon and Falmagne 1999) with a prior over levels, by particles.
/// </summary>
public sealed class BaselineCheck
{
    /// <summary>Questions that tell so much of what the best tells are as good, within what particles can tell apart.</summary>
    private const double AsGood = 0.97;

    private readonly Down _map;
    private readonly BaselineSettings _settings;
    private readonly bool[] _inScope;

    /// <param name="strand">The strand to look at; null for the whole map.</param>
    public BaselineCheck(SkillMap map, BaselineSettings? settings = null, string? strand = null)
    {
        ArgumentNullException.ThrowIfNull(map);
        _settings = settings ?? BaselineSettings.Default;
        _map = new Down(map, BaselineSettings.LevelsOf(map));
        Strand = strand;
        _inScope = [.. map.Skills.Select(s => strand is null || s.Strand == strand)];
        if (!_inScope.Contains(true))
        {
            throw new ArgumentException($"The map has no strand '{strand}'.", nameof(strand));
        }
    }

    public string? Strand { get; }

    public SkillMap Map => _map.Map;

    /// <summary>What is known after these answers.</summary>
    /// <param name="answers">In the order in which they were given.</param>
    /// <param name="known">What was seen before. Of no skill does it say more than an answer in the check itself.</param>
    /// <param name="shift">What is known of the child's general level, in levels (see <see cref="BaselineSettings.ShiftFor"/>).</param>
    /// <param name="materials">The things that each skill's question is asked with: between questions as good, the one with the things at hand is asked.</param>
    public BaselineState After(
        IReadOnlyList<BaselineAnswer> answers,
        IReadOnlyList<RecordedSkill>? known = null,
        double shift = 0,
        IReadOnlyDictionary<SkillId, string>? materials = null
    )
    {
        ArgumentNullException.ThrowIfNull(answers);
        var (held, not) = (new double[_map.Count], new double[_map.Count]);
        var place = Map.Skills.Select((s, i) => (s.Id, i)).ToDictionary(p => p.Id, p => p.i);
        foreach (var answer in answers.Where(a => place.ContainsKey(a.Skill)))
        {
            var i = place[answer.Skill];
            held[i] += answer.Weight * Math.Log(answer.Right ? 1 - _settings.Slip : _settings.Slip);
            not[i] += answer.Weight * Math.Log(answer.Right ? _settings.Guess : 1 - _settings.Guess);
        }

        var most = Math.Log((1 - _settings.Slip) / _settings.Guess);
        foreach (var (skill, ratio) in (known ?? []).Where(k => place.ContainsKey(k.Skill)))
        {
            held[place[skill]] += Math.Clamp(Math.Log(ratio), -most, most);
        }

        Particles particles = new(_map, _settings, _settings.Level + shift, held, not);
        particles.Build();
        var columns = Columns(particles);
        double[] chances = [.. columns.Select(c => c.Sum(word => (double)System.Numerics.BitOperations.PopCount(word)) / particles.Seen)];
        var asked = answers.Select(a => place.TryGetValue(a.Skill, out var i) ? i : -1).ToHashSet();
        var sure = _inScope.Select((within, i) => (within, i)).Where(p => p.within).Average(p => Math.Max(chances[p.i], 1 - chances[p.i]));
        var done =
            answers.Count >= _settings.MostQuestions
            || (answers.Count >= _settings.FewestQuestions && sure >= _settings.SureEnough)
            || asked.Count >= _inScope.Count(s => s);
        var last = answers.Count > 0 && place.TryGetValue(answers[^1].Skill, out var before) ? before : (int?)null;
        return new BaselineState(Map, chances, sure, done, done ? null : Map.Skills[MostTelling(columns, particles.Seen, chances, asked, last, materials)].Id);
    }

    // Bits of all particles skill by skill, so that what two skills share is a count of bits.
    private ulong[][] Columns(Particles particles)
    {
        var columns = Enumerable.Range(0, _map.Count).Select(_ => new ulong[(particles.Seen + 63) / 64]).ToArray();
        for (var p = 0; p < particles.Seen; p++)
        {
            var state = particles.State(p);
            for (var i = 0; i < _map.Count; i++)
            {
                if (Down.Has(state, i))
                {
                    columns[i][p >> 6] |= 1UL << (p & 63);
                }
            }
        }

        return columns;
    }

    /// <summary>How much an answer about skill j tells about all skills of the check: the variance that it is expected to take away.</summary>
    private int MostTelling(ulong[][] columns, double count, double[] chances, HashSet<int> asked, int? last, IReadOnlyDictionary<SkillId, string>? materials)
    {
        var informs = 1 - _settings.Slip - _settings.Guess;
        var telling = new double[_map.Count];
        for (var j = 0; j < _map.Count; j++)
        {
            if (asked.Contains(j) || !_inScope[j])
            {
                continue;
            }

            var right = _settings.Guess + (informs * chances[j]);
            var sum = 0.0;
            for (var i = 0; i < _map.Count; i++)
            {
                if (_inScope[i])
                {
                    var both = 0;
                    for (var w = 0; w < columns[i].Length; w++)
                    {
                        both += System.Numerics.BitOperations.PopCount(columns[i][w] & columns[j][w]);
                    }

                    var covariance = (both / count) - (chances[i] * chances[j]);
                    sum += covariance * covariance;
                }
            }

            telling[j] = informs * informs * sum / (right * (1 - right));
        }

        // Of those as good as the best, the one whose things lie on the table already, then the same strand.
        var best = telling.Max();
        return Enumerable
            .Range(0, _map.Count)
            .Where(j => !asked.Contains(j) && _inScope[j] && telling[j] >= AsGood * best)
            .OrderByDescending(j => last is { } l && materials is not null && SameThings(l, j, materials))
            .ThenByDescending(j => last is { } l && _map.StrandOf[l] == _map.StrandOf[j])
            .ThenByDescending(j => telling[j])
            .First();
    }

    private bool SameThings(int one, int other, IReadOnlyDictionary<SkillId, string> materials) =>
        materials.TryGetValue(Map.Skills[one].Id, out var things) && materials.TryGetValue(Map.Skills[other].Id, out var others) && things == others;
}
