using Fobble.Core.Numbers;
using MathNet.Numerics.Distributions;

namespace Fobble.Core.Baseline;

/// <summary>
/// Many made-up children who together stand for what is known of one: drawn from the prior, then brought to the answers in steps
/// (annealed importance sampling, Neal 2001; resample and move, Gilks and Berzuini 2001). Rebuilt from the start after every answer, since
/// particles that are only reweighted lock into a wrong picture when answers contradict each other.
/// </summary>
internal sealed class Particles
{
    /// <summary>The share of particles that has to count after each step.</summary>
    private const double StillCount = 0.5;

    private const int SweepsAStep = 1;

    private readonly Down _map;
    private readonly BaselineSettings _settings;
    private readonly SoftStep _step;
    private readonly int[] _levels;
    private readonly double _level;
    private readonly double[] _forHeld;
    private readonly double[] _forNot;
    private readonly int[] _answered;
    private readonly int[][] _answeredIn;
    private ulong[] _states;
    private double[] _thetas;
    private double[] _strands;
    private readonly ulong[][] _seen;

    /// <param name="level">The general level to expect.</param>
    /// <param name="forHeld">By skill, the log-likelihood of all answers if it is held.</param>
    /// <param name="forNot">The same if it is not.</param>
    public Particles(Down map, BaselineSettings settings, double level, double[] forHeld, double[] forNot)
    {
        (_map, _settings, _level, _forHeld, _forNot) = (map, settings, level, forHeld, forNot);
        _step = new SoftStep(settings.Softness);
        _levels = [.. map.Levels.Select(_step.Steps)];
        _answered = [.. Enumerable.Range(0, map.Count).Where(i => forHeld[i] != forNot[i])];
        _answeredIn = [.. Enumerable.Range(0, map.Strands).Select(s => _answered.Where(i => map.StrandOf[i] == s).ToArray())];
        Count = settings.Particles;
        _states = new ulong[Count * map.Words];
        _thetas = new double[Count];
        _strands = new double[Count * map.Strands];
        _seen = new ulong[settings.Looks][];
    }

    private int Count { get; }

    /// <summary>States in which the children were seen in the end, each as likely as the others.</summary>
    public int Seen => _seen.Length * Count;

    public ReadOnlySpan<ulong> State(int seen) => _seen[seen / Count].AsSpan(seen % Count * _map.Words, _map.Words);

    /// <summary>Draws from the prior and brings the answers in. Deterministic for the same settings.</summary>
    public void Build()
    {
        var random = new SeededRandom(_settings.Seed);
        for (var p = 0; p < Count; p++)
        {
            // Levels are spread evenly over the prior, a stratum a particle.
            _thetas[p] = _level + (_settings.LevelSpread * Normal.InvCDF(0, 1, (p + random.NextShare()) / Count));
            for (var s = 0; s < _map.Strands; s++)
            {
                var u = _thetas[p] + (_settings.StrandSpread * random.NextNormal());
                _strands[(p * _map.Strands) + s] = u;
            }

            var state = _states.AsSpan(p * _map.Words, _map.Words);
            for (var i = 0; i < _map.Count; i++)
            {
                if (_map.Allows(state, i) && random.Chance(Chance(p, i)))
                {
                    Down.Put(state, i, true);
                }
            }
        }

        var logs = new double[Count];
        for (double reached = 0, next; reached < 1; reached = next)
        {
            for (var p = 0; p < Count; p++)
            {
                logs[p] = LogLikelihood(_states.AsSpan(p * _map.Words, _map.Words));
            }

            next = NextTemperature(logs, reached);
            Resample(logs, next - reached, random);
            Move(next, SweepsAStep, random);
        }

        // All answers are in: looked at again and again while they move on, so few children stand for many.
        for (var look = 0; look < _seen.Length; look++)
        {
            if (look > 0)
            {
                Move(1, 1, random);
            }

            _seen[look] = [.. _states];
        }
    }

    // Each particle has a stream of its own: the same answer however many processors there are.
    private void Move(double temperature, int sweeps, SeededRandom random)
    {
        ulong[] seeds = [.. Enumerable.Range(0, Count).Select(_ => random.NextBits())];
        var parts = Math.Min(Environment.ProcessorCount, 8);
        Parallel.For(0, parts, part =>
        {
            var mover = new Mover(this, temperature);
            for (var p = part; p < Count; p += parts)
            {
                mover.Move(p, sweeps, new SeededRandom(seeds[p]));
            }
        });
    }

    private double Chance(int particle, int skill) => _step.Chance(_step.Steps(_strands[(particle * _map.Strands) + _map.StrandOf[skill]]), _levels[skill]);

    private double LogLikelihood(ReadOnlySpan<ulong> state)
    {
        var sum = 0.0;
        foreach (var i in _answered)
        {
            sum += Down.Has(state, i) ? _forHeld[i] : _forNot[i];
        }

        return sum;
    }

    // The step at which enough of the particles still count, found by halving.
    private double NextTemperature(double[] logs, double reached)
    {
        if (EffectiveSize(logs, 1 - reached) >= Count * StillCount)
        {
            return 1;
        }

        var (low, high) = (0.0, 1 - reached);
        for (var i = 0; i < 30; i++)
        {
            var middle = (low + high) / 2;
            (low, high) = EffectiveSize(logs, middle) >= Count * StillCount ? (middle, high) : (low, middle);
        }

        return reached + Math.Max(low, 1e-4);
    }

    private static double EffectiveSize(double[] logs, double step)
    {
        var most = logs.Max();
        var (sum, squares) = (0.0, 0.0);
        foreach (var log in logs)
        {
            var weight = Math.Exp(step * (log - most));
            sum += weight;
            squares += weight * weight;
        }

        return sum * sum / squares;
    }

    // Systematic resampling (Kitagawa 1996): one random number, evenly spaced picks.
    private void Resample(double[] logs, double step, SeededRandom random)
    {
        var most = logs.Max();
        var total = logs.Sum(l => Math.Exp(step * (l - most)));
        var (states, thetas, strands) = (new ulong[_states.Length], new double[Count], new double[_strands.Length]);
        var (from, upTo, start) = (0, Math.Exp(step * (logs[0] - most)), random.NextShare());
        for (var p = 0; p < Count; p++)
        {
            var at = (p + start) / Count * total;
            while (upTo < at && from < Count - 1)
            {
                upTo += Math.Exp(step * (logs[++from] - most));
            }

            Array.Copy(_states, from * _map.Words, states, p * _map.Words, _map.Words);
            Array.Copy(_strands, from * _map.Strands, strands, p * _map.Strands, _map.Strands);
            thetas[p] = _thetas[from];
        }

        (_states, _thetas, _strands) = (states, thetas, strands);
    }

    /// <summary>Moves particles about so that they stay many after resampling; leaves the distribution at this temperature as it is.</summary>
    private sealed class Mover(Particles all, double temperature)
    {
        private readonly Down _map = all._map;
        private readonly SoftStep _step = all._step;
        private readonly int[] _levels = all._levels;
        private readonly BaselineSettings _settings = all._settings;
        private readonly ulong[] _proposed = new ulong[all._map.Words];

        // Of the particle in hand: what can be held at all, what something held needs; the prior of each strand; the strands' levels in steps.
        private readonly ulong[] _allowed = new ulong[all._map.Words];
        private readonly ulong[] _needed = new ulong[all._map.Words];
        private readonly double[] _priors = new double[all._map.Strands];
        private readonly int[] _steps = new int[all._map.Strands];

        public void Move(int particle, int sweeps, SeededRandom random)
        {
            var state = all._states.AsSpan(particle * _map.Words, _map.Words);
            var strands = all._strands.AsSpan(particle * _map.Strands, _map.Strands);
            ref var theta = ref all._thetas[particle];
            for (var sweep = 0; sweep < sweeps; sweep++)
            {
                DrawLevel(ref theta, strands, random);
                Survey(strands, state);
                ShiftAll(ref theta, strands, state, random);
                for (var s = 0; s < strands.Length; s++)
                {
                    WalkStrand(theta, strands, s, state, random);
                }

                FlipEdge(strands, state, random, backwards: random.Chance(0.5));
                for (var s = 0; s < strands.Length; s++)
                {
                    RedrawStrand(theta, strands, s, state, random);
                }
            }
        }

        // The level given the strands is normal again.
        private void DrawLevel(ref double theta, ReadOnlySpan<double> strands, SeededRandom random)
        {
            var (general, own) = (1 / (_settings.LevelSpread * _settings.LevelSpread), 1 / (_settings.StrandSpread * _settings.StrandSpread));
            var precision = general + (strands.Length * own);
            var sum = 0.0;
            foreach (var u in strands)
            {
                sum += u;
            }

            theta = (((all._level * general) + (sum * own)) / precision) + (random.NextNormal() / Math.Sqrt(precision));
        }

        private void Survey(ReadOnlySpan<double> strands, ReadOnlySpan<ulong> state)
        {
            _map.AllowedAndNeeded(state, _allowed, _needed);
            for (var s = 0; s < strands.Length; s++)
            {
                _priors[s] = LogPrior(s, strands[s], state);
            }
        }

        // Level and strands together, by which the whole child is older or younger than thought.
        private void ShiftAll(ref double theta, Span<double> strands, ReadOnlySpan<ulong> state, SeededRandom random)
        {
            var by = 0.6 * _settings.StrandSpread * random.NextNormal();
            var log = (Square((theta - all._level) / _settings.LevelSpread) - Square((theta + by - all._level) / _settings.LevelSpread)) / 2;
            Span<double> shifted = stackalloc double[strands.Length];
            for (var s = 0; s < strands.Length; s++)
            {
                shifted[s] = LogPrior(s, strands[s] + by, state);
                log += shifted[s] - _priors[s];
            }

            if (Accept(log, random))
            {
                theta += by;
                shifted.CopyTo(_priors);
                foreach (ref var u in strands)
                {
                    u += by;
                }
            }
        }

        private void WalkStrand(double theta, Span<double> strands, int s, ReadOnlySpan<ulong> state, SeededRandom random)
        {
            var to = strands[s] + (_settings.StrandSpread * random.NextNormal());
            var prior = LogPrior(s, to, state);
            if (
                Accept(
                    ((Square((strands[s] - theta) / _settings.StrandSpread) - Square((to - theta) / _settings.StrandSpread)) / 2) + prior - _priors[s],
                    random
                )
            )
            {
                (strands[s], _priors[s]) = (to, prior);
            }
        }

        // Gibbs over skills that can be given or taken without breaking the set.
        private void FlipEdge(ReadOnlySpan<double> strands, Span<ulong> state, SeededRandom random, bool backwards)
        {
            for (var s = 0; s < strands.Length; s++)
            {
                _steps[s] = _step.Steps(strands[s]);
            }

            // The edge moves while it is walked along, so it is read anew at each step.
            if (backwards)
            {
                for (var i = Down.LastBelow(_map.Count, _allowed, _needed); i >= 0; i = Down.LastBelow(i, _allowed, _needed))
                {
                    Flip(i, state, random);
                }
            }
            else
            {
                for (var i = Down.FirstFrom(0, _allowed, _needed); i >= 0; i = Down.FirstFrom(i + 1, _allowed, _needed))
                {
                    Flip(i, state, random);
                }
            }
        }

        private void Flip(int i, Span<ulong> state, SeededRandom random)
        {
            // If it is held, what it opens could be held as well, and is not.
            var at = _steps[_map.StrandOf[i]];
            var held = Down.Has(state, i);
            Down.Put(state, i, true);
            var log = _step.LogHeld(at, _levels[i]) - _step.LogNot(at, _levels[i]) + (temperature * (all._forHeld[i] - all._forNot[i]));
            foreach (var above in _map.Opens[i])
            {
                if (_map.Allows(state, above))
                {
                    log += _step.LogNot(_steps[_map.StrandOf[above]], _levels[above]);
                }
            }

            if (random.Chance(1 / (1 + Math.Exp(-log))))
            {
                if (!held)
                {
                    _map.Gained(i, state, _allowed, _needed);
                }
            }
            else
            {
                Down.Put(state, i, false);
                if (held)
                {
                    _map.Lost(i, state, _allowed, _needed);
                }
            }
        }

        // A whole strand anew from the prior: crosses valleys that single flips do not.
        private void RedrawStrand(double theta, Span<double> strands, int s, Span<ulong> state, SeededRandom random)
        {
            var to = theta + (_settings.StrandSpread * random.NextNormal());
            var at = _step.Steps(to);
            Span<ulong> proposed = _proposed;
            state.CopyTo(proposed);
            foreach (var i in _map.InStrand[s])
            {
                Down.Put(proposed, i, false);
            }

            foreach (var i in _map.InStrand[s])
            {
                if (_map.Allows(proposed, i) && random.Chance(_step.Chance(at, _levels[i])))
                {
                    Down.Put(proposed, i, true);
                }
            }

            var log = 0.0;
            foreach (var i in all._answeredIn[s])
            {
                log += temperature * (all._forHeld[i] - all._forNot[i]) * ((Down.Has(proposed, i) ? 1 : 0) - (Down.Has(state, i) ? 1 : 0));
            }

            foreach (var other in _map.OpensElsewhere[s])
            {
                if (!_map.NeedsOneThatDiffers(other, state, proposed))
                {
                    continue;
                }

                var (before, after) = (_map.Allows(state, other), _map.Allows(proposed, other));
                if (!after && Down.Has(state, other))
                {
                    return;
                }

                if (before != after)
                {
                    var not = _step.LogNot(_steps[_map.StrandOf[other]], _levels[other]);
                    log += after ? not : -not;
                }
            }

            if (Accept(log, random))
            {
                (strands[s], _steps[s]) = (to, at);
                proposed.CopyTo(state);
            }
        }

        private double LogPrior(int s, double u, ReadOnlySpan<ulong> state)
        {
            var at = _step.Steps(u);
            var sum = 0.0;
            for (var w = 0; w < state.Length; w++)
            {
                for (var rest = _allowed[w] & _map.StrandMask[s][w]; rest != 0; rest &= rest - 1)
                {
                    var i = (w << 6) + System.Numerics.BitOperations.TrailingZeroCount(rest);
                    sum += _step.Log(at, _levels[i], Down.Has(state, i));
                }
            }

            return sum;
        }

        private static bool Accept(double log, SeededRandom random) => log >= 0 || random.NextShare() < Math.Exp(log);

        private static double Square(double x) => x * x;
    }
}
