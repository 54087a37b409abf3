using Fobble.Core.Calendars;
using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>
/// What was seen of one skill by itself: Bayesian knowledge tracing (Corbett and Anderson 1995) with four outcomes, less weight for repeats
/// on one day, and fading between observations. Fed in order; a value between 0 and 1.
/// </summary>
public struct BeliefModel(EvidenceSettings settings, SchoolCalendar calendar)
{
    // Nothing is ever so sure that it could not be unlearned from the record.
    private const double Least = 1e-4;

    private DateOnly? _lastDay;
    private DateOnly? _lastSpaced;
    private int _onLastDay;

    public double Belief { get; private set; } = settings.Prior;

    /// <summary>Successes alone that lie at least two school days apart, at most four: each doubles how long belief lasts.</summary>
    public int SpacedSuccesses { get; private set; }

    /// <summary>How many times likelier what was seen is if the child has the skill; 1 where nothing was.</summary>
    public readonly double Ratio => RatioOf(Belief);

    /// <summary>The same as it has faded by a later day.</summary>
    public readonly double RatioOn(DateOnly day) => RatioOf(On(day));

    /// <summary>Takes in one observation of a child of the usual style.</summary>
    public void See(Observation observation, Skill skill) => See(observation, skill, settings.UsualStyle);

    /// <summary>Takes in one observation; those of one child and skill must come in order of time.</summary>
    /// <param name="style">How much of what the child has it shows without a nod, 0 to 1.</param>
    public void See(Observation observation, Skill skill, double style)
    {
        var before = Belief;
        Belief = On(observation.Day);
        _onLastDay = observation.Day == _lastDay ? _onLastDay + 1 : 0;
        _lastDay = observation.Day;

        // A repeat on the same day tells half as much as the one before it, and teaches half as much.
        var weight = Math.Pow(0.5, _onLastDay);
        var support = observation.Counted(skill);
        var likelihood = settings.For(support, style);
        var has = Belief * Math.Pow(likelihood.IfHas, weight);
        var not = (1 - Belief) * Math.Pow(likelihood.IfNot, weight);
        var seen = has / (has + not);
        Belief = seen + ((1 - seen) * settings.LearningIn(observation.Setting) * weight);

        // What is done alone after a long time was not lost meanwhile: seeing it never speaks against it.
        Belief = support == Support.Alone ? Math.Max(Belief, before) : Belief;

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

    private readonly double RatioOf(double belief)
    {
        var within = Math.Clamp(belief, Least, 1 - Least);
        return within / (1 - within) * (1 - settings.Prior) / settings.Prior;
    }
}
