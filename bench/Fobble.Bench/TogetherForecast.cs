using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Bench;

/// <summary>Forecasts by what Fobble judges by: the child's skills together, its style and its level, faded to the day that is asked for.</summary>
internal sealed class TogetherForecast(SkillMap map, SchoolCalendar calendar, EvidenceSettings settings) : IForecast
{
    private readonly SkillsTogether _together = SkillsTogether.Of(map, settings.Together);
    private readonly Dictionary<ChildId, List<Observation>> _seen = [];
    private readonly Dictionary<ChildId, (DateOnly Day, double Style, IReadOnlyList<double> Held)> _held = [];

    public double Alone(Observation next)
    {
        var (_, style, held) = Held(next.Child, next.Day);
        var q = held[map.IndexOf(next.Skill)];
        var likelihood = settings.For(Support.Alone, style);
        return (q * likelihood.IfHas) + ((1 - q) * likelihood.IfNot);
    }

    public void See(Observation seen)
    {
        if (!_seen.TryGetValue(seen.Child, out var all))
        {
            _seen[seen.Child] = all = [];
        }

        all.Add(seen);
        _held.Remove(seen.Child);
    }

    // Worked out once a day for each child and after each observation: what was seen a moment ago counts.
    private (DateOnly Day, double Style, IReadOnlyList<double> Held) Held(ChildId child, DateOnly day)
    {
        if (_held.TryGetValue(child, out var known) && known.Day == day)
        {
            return known;
        }

        ChildRecord record = new(map, _together, calendar, settings, _seen.GetValueOrDefault(child) ?? []);
        var (evidence, seen) = (new double[map.All.Count], new bool[map.All.Count]);
        for (var i = 0; i < evidence.Length; i++)
        {
            seen[i] = record[i] is not null;
            evidence[i] = record[i]?.Own.RatioOn(day) ?? 1;
        }

        return _held[child] = (day, record.Style, _together.Judge(evidence, seen).Held);
    }
}
