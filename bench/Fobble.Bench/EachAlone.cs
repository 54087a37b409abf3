using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Bench;

/// <summary>How Fobble judged up to version 0.16: each skill by itself, all children alike. Kept to measure against.</summary>
internal static class EachAlone
{
    public static EvidenceSettings Settings { get; } = EvidenceSettings.Default with { LearnTaught = 0.10, LearnChoice = 0.03 };

    /// <summary>Strength and belief of one skill, and whether it was to be looked at again on a day.</summary>
    public static (bool Secure, bool Nearly, double Belief, bool LookAgain) Judge(
        Skill skill,
        SchoolCalendar calendar,
        IReadOnlyList<Observation> seen,
        DateOnly today
    )
    {
        if (seen.Count == 0)
        {
            return (false, false, Settings.Prior, false);
        }

        BeliefModel model = new(Settings, calendar);
        var peak = 0.0;
        foreach (var o in seen)
        {
            model.See(o, skill);
            peak = Math.Max(peak, model.Belief);
        }

        var alone = seen.TakeLast(5).Where(o => o.Counted(skill) == Support.Alone).ToList();
        var secure =
            alone.Count >= 3
            && alone.Select(o => o.Day).Distinct().Count() >= 2
            && alone.Select(o => o.Representation).Distinct().Count() >= Math.Min(2, skill.ShownIn.Count)
            && model.Belief >= 0.85
            && seen[^1].Support != Support.NotYet;
        var nearly = secure || seen.TakeLast(3).Any(o => o.Counted(skill) == Support.Alone);
        var now = model.On(today);
        int[] after = [3, 10, 30, 60];
        var overdue =
            seen.LastOrDefault(o => o.Counted(skill) == Support.Alone) is { } last
            && calendar.SchoolDaysBetween(last.Day, today) > after[Math.Max(model.SpacedSuccesses, 1) - 1];
        return (secure, nearly, now, nearly && ((peak >= 0.75 && now < 0.75) || overdue));
    }
}

/// <summary>The same as a forecast.</summary>
internal sealed class EachAloneForecast(SkillMap map, SchoolCalendar calendar) : IForecast
{
    private readonly Dictionary<(ChildId, SkillId), BeliefModel> _models = [];

    public double Alone(Observation next)
    {
        var b = _models.TryGetValue((next.Child, next.Skill), out var model) ? model.On(next.Day) : EachAlone.Settings.Prior;
        return (b * EachAlone.Settings.Alone.IfHas) + ((1 - b) * EachAlone.Settings.Alone.IfNot);
    }

    public void See(Observation seen)
    {
        var model = _models.TryGetValue((seen.Child, seen.Skill), out var known) ? known : new BeliefModel(EachAlone.Settings, calendar);
        model.See(seen, map[seen.Skill]);
        _models[(seen.Child, seen.Skill)] = model;
    }
}
