using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Bench;

/// <summary>Says how likely the next observation is "alone", before it is made, and then takes it in. One class at a time, in order of time.</summary>
internal interface IForecast
{
    /// <summary>0 to 1.</summary>
    double Alone(Observation next);

    void See(Observation seen);
}

/// <summary>A way to forecast: its name, and a fresh one for a class.</summary>
internal sealed record Yardstick(string Name, Func<IForecast> Begin);

/// <summary>Figures of a forecast over many observations.</summary>
/// <param name="LogLoss">Mean of −ln of the chance given to what happened.</param>
/// <param name="Brier">Mean squared distance (Brier 1950).</param>
/// <param name="Auc">Chance that one that came alone was given more than one that did not (Hanley and McNeil 1982).</param>
/// <param name="Ece">Mean distance between chance and share in ten bins (Naeini and others 2015).</param>
internal sealed record ForecastFigures(double LogLoss, double Brier, double Auc, double Ece)
{
    public static ForecastFigures Of(IReadOnlyList<(double Chance, bool Alone)> all)
    {
        var clamped = all.Select(a => (Chance: Math.Clamp(a.Chance, 1e-4, 1 - 1e-4), a.Alone)).ToList();
        var ranked = clamped.OrderBy(a => a.Chance).ToList();
        var (below, auc, ties) = (0L, 0.0, 0);
        for (var i = 0; i < ranked.Count; i += ties)
        {
            ties = 1;
            while (i + ties < ranked.Count && ranked[i + ties].Chance == ranked[i].Chance)
            {
                ties++;
            }

            var not = ranked.Skip(i).Take(ties).Count(a => !a.Alone);
            auc += (ties - not) * (below + (not / 2.0));
            below += not;
        }

        return new(
            clamped.Average(a => -Math.Log(a.Alone ? a.Chance : 1 - a.Chance)),
            clamped.Average(a => Math.Pow(a.Chance - (a.Alone ? 1 : 0), 2)),
            auc / (below * (double)(clamped.Count - below)),
            clamped.GroupBy(a => (int)(a.Chance * 10)).Sum(g => Math.Abs(g.Sum(a => a.Chance - (a.Alone ? 1 : 0)))) / clamped.Count
        );
    }

    public override string ToString() => $"{LogLoss:.000} / {Brier:.000} / {Auc:.000} / {Ece:.000}";
}

/// <summary>What came last time for this child and skill, else what comes usually.</summary>
internal sealed class LastOutcome : IForecast
{
    private readonly Dictionary<(ChildId, SkillId), bool> _last = [];

    public double Alone(Observation next) =>
        !_last.TryGetValue((next.Child, next.Skill), out var last) ? 0.5
        : last ? 0.75
        : 0.3;

    public void See(Observation seen) => _last[(seen.Child, seen.Skill)] = seen.Support == Support.Alone;
}

/// <summary>The child's share of alone on this skill, from a beginning of two in four; with a half-life in days, older ones count less.</summary>
internal sealed class Share(double? halfLife) : IForecast
{
    private readonly Dictionary<(ChildId, SkillId), (double Alone, double All, DateOnly Day)> _shares = [];

    public double Alone(Observation next)
    {
        var (alone, all) = Faded(next);
        return (alone + 2) / (all + 4);
    }

    public void See(Observation seen)
    {
        var (alone, all) = Faded(seen);
        _shares[(seen.Child, seen.Skill)] = (alone + (seen.Support == Support.Alone ? 1 : 0), all + 1, seen.Day);
    }

    private (double Alone, double All) Faded(Observation at)
    {
        var (alone, all, day) = _shares.GetValueOrDefault((at.Child, at.Skill));
        var left = halfLife is { } h && all > 0 ? Math.Pow(2, -(at.Day.DayNumber - day.DayNumber) / h) : 1;
        return (alone * left, all * left);
    }
}

/// <summary>Knowledge tracing with two outcomes (Corbett and Anderson 1995); its four numbers fitted over a grid on other classes.</summary>
internal sealed class FittedTracing(double prior, double learn, double guess, double slip) : IForecast
{
    private readonly Dictionary<(ChildId, SkillId), double> _belief = [];

    public double Alone(Observation next)
    {
        var b = _belief.GetValueOrDefault((next.Child, next.Skill), prior);
        return (b * (1 - slip)) + ((1 - b) * guess);
    }

    public void See(Observation seen)
    {
        var b = _belief.GetValueOrDefault((seen.Child, seen.Skill), prior);
        var (has, not) = seen.Support == Support.Alone ? (b * (1 - slip), (1 - b) * guess) : (b * slip, (1 - b) * (1 - guess));
        var after = has / (has + not);
        _belief[(seen.Child, seen.Skill)] = after + ((1 - after) * learn);
    }

    public static Yardstick Fitted(IReadOnlyList<IReadOnlyList<Observation>> classes)
    {
        var best = (
            from prior in (double[])[0.2, 0.4, 0.6]
            from learn in (double[])[0.02, 0.08, 0.15]
            from guess in (double[])[0.1, 0.2, 0.3]
            from slip in (double[])[0.25, 0.35, 0.45]
            select (prior, learn, guess, slip)
        ).MinBy(p => Forecasts.Of(new("", () => new FittedTracing(p.prior, p.learn, p.guess, p.slip)), classes).LogLoss);
        return new("knowledge tracing, fitted", () => new FittedTracing(best.prior, best.learn, best.guess, best.slip));
    }
}

/// <summary>
/// Performance factors (Pavlik, Cen and Koedinger 2009): a logistic model of skill, setting, and how often the child did it alone and otherwise, with the child's
/// own share beside them; its weights learned on other classes, child by child from the record so far.
/// </summary>
internal sealed class PerformanceFactors(double[] weights) : IForecast
{
    private const int Features = 8;
    private readonly Dictionary<(ChildId, SkillId), (int Alone, int Not)> _skill = [];
    private readonly Dictionary<ChildId, (int Alone, int All)> _child = [];
    private readonly Dictionary<SkillId, (int Alone, int All)> _class = [];

    public double Alone(Observation next) => 1 / (1 + Math.Exp(-Of(next).Select((x, i) => x * weights[i]).Sum()));

    public void See(Observation seen)
    {
        var alone = seen.Support == Support.Alone ? 1 : 0;
        var (a, n) = _skill.GetValueOrDefault((seen.Child, seen.Skill));
        _skill[(seen.Child, seen.Skill)] = (a + alone, n + 1 - alone);
        var (ca, c) = _child.GetValueOrDefault(seen.Child);
        _child[seen.Child] = (ca + alone, c + 1);
        var (sa, s) = _class.GetValueOrDefault(seen.Skill);
        _class[seen.Skill] = (sa + alone, s + 1);
    }

    public static Yardstick Fitted(IReadOnlyList<IReadOnlyList<Observation>> classes)
    {
        var weights = new double[Features];
        for (var round = 0; round < 6; round++)
        {
            foreach (var seen in classes)
            {
                PerformanceFactors model = new(weights);
                foreach (var o in seen)
                {
                    var x = model.Of(o);
                    var error = (o.Support == Support.Alone ? 1 : 0) - (1 / (1 + Math.Exp(-x.Select((v, i) => v * weights[i]).Sum())));
                    for (var i = 0; i < Features; i++)
                    {
                        weights[i] += 0.02 / (1 + round) * error * x[i];
                    }

                    model.See(o);
                }
            }
        }

        return new("performance factors, fitted", () => new PerformanceFactors(weights));
    }

    private double[] Of(Observation o)
    {
        var (alone, not) = _skill.GetValueOrDefault((o.Child, o.Skill));
        var (ofChild, all) = _child.GetValueOrDefault(o.Child);
        var (ofSkill, everyone) = _class.GetValueOrDefault(o.Skill);
        return
        [
            1,
            Math.Log(1 + alone),
            Math.Log(1 + not),
            Logit((ofChild + 2.0) / (all + 4)),
            Logit((ofSkill + 2.0) / (everyone + 4)),
            o.Setting == Setting.Choice ? 1 : 0,
            o.Setting == Setting.Carpet ? 1 : 0,
            o.Setting == Setting.OneToOne ? 1 : 0,
        ];
    }

    private static double Logit(double share) => Math.Log(share / (1 - share));
}

internal static class Forecasts
{
    /// <summary>Each class from its first observation to its last, a fresh forecast for each.</summary>
    public static ForecastFigures Of(Yardstick yardstick, IReadOnlyList<IReadOnlyList<Observation>> classes)
    {
        List<(double, bool)> all = [];
        foreach (var seen in classes)
        {
            var forecast = yardstick.Begin();
            foreach (var next in seen)
            {
                all.Add((forecast.Alone(next), next.Support == Support.Alone));
                forecast.See(next);
            }
        }

        return ForecastFigures.Of(all);
    }
}
