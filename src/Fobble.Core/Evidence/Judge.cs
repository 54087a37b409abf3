using Fobble.Core.Calendars;
using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>
/// From observations to a judgement (rule R10): the explicit rule for strength, and whether to look again. Strength rests on what was
/// seen, with the belief of that day; it does not drop because time has passed. Time shows as "look again".
/// </summary>
public sealed class Judge(SchoolCalendar calendar, EvidenceSettings settings)
{
    private const int Recent = 5;
    private const int Latest = 3;

    /// <summary>Strength, look-again flag and belief only: what a whole grid needs.</summary>
    public Mark MarkOf(Skill skill, IReadOnlyList<Observation> observations, DateOnly today) => Weigh(skill, observations, today).Mark;

    /// <summary>The judgement with its reasons.</summary>
    /// <param name="observations">One child's observations of this skill, none withdrawn, in order of time.</param>
    public Judgement Of(Skill skill, IReadOnlyList<Observation> observations, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(skill);
        var weighed = Weigh(skill, observations, today);
        var mark = weighed.Mark;
        var clauses = ClausesOf(skill, observations, weighed.BeliefThen);
        DateOnly? lastAlone = weighed.LastAlone;
        return new Judgement(
            mark.Strength,
            mark.Belief,
            mark.LookAgain,
            mark.Strength >= Strength.Secure ? weighed.FirstSecure : null,
            lastAlone,
            clauses,
            mark.LookAgain ? Explanation.LookAgain(mark, lastAlone, calendar, today) : null,
            Explanation.Of(skill, observations, mark, clauses, lastAlone, weighed.FirstSecure, calendar, today)
        );
    }

    /// <summary>How strength went up and down, each change on the day of the observation that made it.</summary>
    public IReadOnlyList<StrengthStep> StepsOf(Skill skill, IReadOnlyList<Observation> observations)
    {
        List<StrengthStep> steps = [];
        Weigh(skill, observations, DateOnly.MinValue, steps);
        return steps;
    }

    private Weighed Weigh(Skill skill, IReadOnlyList<Observation> observations, DateOnly today, List<StrengthStep>? steps = null)
    {
        var model = new BeliefModel(settings, calendar);
        DateOnly? firstSecure = null;
        DateOnly? lastAlone = null;
        var strength = Strength.NotSeen;
        for (var i = 0; i < observations.Count; i++)
        {
            model.See(observations[i], skill);
            var alone = observations[i].Counted(skill) == Support.Alone;
            lastAlone = alone ? observations[i].Day : lastAlone;
            strength = StrengthAfter(skill, observations, i + 1, model.Belief);
            if (strength == Strength.Secure)
            {
                firstSecure ??= observations[i].Day;
                strength =
                    calendar.SchoolDaysBetween(firstSecure.Value, lastAlone ?? firstSecure.Value) >= settings.KeptAfter ? Strength.Kept : Strength.Secure;
            }

            if (steps is not null && strength != (steps.Count > 0 ? steps[^1].Strength : Strength.NotSeen))
            {
                steps.Add(new(observations[i].Day, strength));
            }
        }

        var now = model.On(today);

        // Belief has to have been there before it can be missed: one lucky "alone" is not yet something to look at again.
        var faded = model.Peak >= settings.LookAgainBelow && now < settings.LookAgainBelow;
        var overdue = lastAlone is { } last && calendar.SchoolDaysBetween(last, today) > settings.LookAgainAfter[Math.Max(model.SpacedSuccesses, 1) - 1];
        return new Weighed(new Mark(strength, now, strength >= Strength.Nearly && (faded || overdue)), model.Belief, firstSecure, lastAlone);
    }

    private Strength StrengthAfter(Skill skill, IReadOnlyList<Observation> observations, int count, double belief)
    {
        if (IsSecure(skill, observations, count, belief))
        {
            return Strength.Secure;
        }

        var best = Strength.Tried;
        for (var i = Math.Max(0, count - Latest); i < count; i++)
        {
            best = observations[i].Counted(skill) switch
            {
                Support.Alone => Strength.Nearly,
                Support.Prompted when best == Strength.Tried => Strength.Prompted,
                _ => best,
            };
        }

        return best;
    }

    private bool IsSecure(Skill skill, IReadOnlyList<Observation> observations, int count, double belief)
    {
        var (alone, days, shown) = Tally(skill, observations, count);
        var rule = settings.Secure;
        return alone >= rule.Alone
            && days >= rule.Days
            && shown >= RepresentationsAsked(skill)
            && belief >= rule.Belief
            && observations[count - 1].Support != Support.NotYet;
    }

    // Of the last five up to count: how many alone, on how many days, in how many representations. No allocation: the grid runs this for every cell.
    private static (int Alone, int Days, int Shown) Tally(Skill skill, IReadOnlyList<Observation> observations, int count)
    {
        var (alone, days, shown, lastDay) = (0, 0, 0, default(DateOnly));
        for (var i = Math.Max(0, count - Recent); i < count; i++)
        {
            if (observations[i].Counted(skill) == Support.Alone)
            {
                alone++;
                days += observations[i].Day == lastDay ? 0 : 1;
                lastDay = observations[i].Day;
                shown |= 1 << (int)observations[i].Representation;
            }
        }

        return (alone, days, System.Numerics.BitOperations.PopCount((uint)shown));
    }

    private int RepresentationsAsked(Skill skill) => Math.Min(settings.Secure.Representations, skill.ShownIn.Count);

    private List<Clause> ClausesOf(Skill skill, IReadOnlyList<Observation> observations, double belief)
    {
        var rule = settings.Secure;
        var (alone, days, shown) = Tally(skill, observations, observations.Count);
        var ways = RepresentationsAsked(skill);
        List<Clause> clauses =
        [
            new($"{Words.Times(rule.Alone)} alone of the last {Recent}", alone >= rule.Alone, $"alone {Words.More(rule.Alone - alone, "time", "times")}"),
            new($"on {Words.Number(rule.Days)} school days", days >= rule.Days, $"on {Words.More(rule.Days - days, "school day", "school days")}"),
        ];
        if (ways > 1)
        {
            clauses.Add(
                new(
                    $"shown in {Words.Number(ways)} ways",
                    shown >= ways,
                    $"shown in {Words.More(ways - shown, "way", "ways")}, such as {EvidenceWords.NextWay(skill, observations)}"
                )
            );
        }

        clauses.Add(
            new(
                "the last not a “not yet”",
                observations.Count > 0 && observations[^1].Support != Support.NotYet,
                observations.Count == 0 ? "seen once" : "once again after the last “not yet”"
            )
        );
        clauses.Add(
            new(
                $"belief {Words.Percent(rule.Belief)} or more",
                belief >= rule.Belief,
                $"a little more evidence (belief was {Words.Percent(belief)} of {Words.Percent(rule.Belief)})"
            )
        );
        return clauses;
    }

    private readonly record struct Weighed(Mark Mark, double BeliefThen, DateOnly? FirstSecure, DateOnly? LastAlone);
}

/// <summary>The short form of a judgement.</summary>
public readonly record struct Mark(Strength Strength, double Belief, bool LookAgain);
