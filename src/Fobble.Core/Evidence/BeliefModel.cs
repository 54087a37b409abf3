using Fobble.Core.Calendars;
using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>
/// Belief that a child has a skill: Bayesian knowledge tracing (Corbett and Anderson 1995) with four outcomes, less weight for repeats
/// on one day, and fading between observations. Fed in order; a value between 0 and 1.
/// </summary>
public struct BeliefModel(EvidenceSettings settings, SchoolCalendar calendar)
{
    private DateOnly? _lastDay;
    private DateOnly? _lastSpaced;
    private int _onLastDay;

    public double Belief { get; private set; } = settings.Prior;

    /// <summary>The highest belief there has been after any observation.</summary>
    public double Peak { get; private set; }

    /// <summary>Successes alone that lie at least two school days apart, at most four: each doubles how long belief lasts.</summary>
    public int SpacedSuccesses { get; private set; }

    /// <summary>Takes in one observation; those of one child and skill must come in order of time.</summary>
    public void See(Observation observation, Skill skill)
    {
        Belief = On(observation.Day);
        _onLastDay = observation.Day == _lastDay ? _onLastDay + 1 : 0;
        _lastDay = observation.Day;

        // A repeat on the same day tells half as much as the one before it, and teaches half as much.
        var weight = Math.Pow(0.5, _onLastDay);
        var support = observation.Counted(skill);
        var likelihood = settings.For(support);
        var has = Belief * Math.Pow(likelihood.IfHas, weight);
        var not = (1 - Belief) * Math.Pow(likelihood.IfNot, weight);
        var seen = has / (has + not);
        Belief = seen + ((1 - seen) * settings.LearningIn(observation.Setting) * weight);
        Peak = Math.Max(Peak, Belief);

        if (support == Support.Alone && (_lastSpaced is not { } last || calendar.SchoolDaysBetween(last, observation.Day) >= 2))
        {
            _lastSpaced = observation.Day;
            SpacedSuccesses = Math.Min(SpacedSuccesses + 1, settings.MostSpacedSuccesses);
        }
    }

    /// <summary>The belief as it has faded by a later day.</summary>
    public readonly double On(DateOnly day)
    {
        if (_lastDay is not { } last || day <= last)
        {
            return Belief;
        }

        var halfLife = settings.FadeHalfLife * (1 << SpacedSuccesses);
        return settings.Prior + ((Belief - settings.Prior) * Math.Pow(2, -(day.DayNumber - last.DayNumber) / halfLife));
    }
}
