using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>
/// From what was seen of a skill, and the belief that all skills together give it, to a strength (rule R10). Strength does not drop because time has passed.
/// </summary>
public sealed class StrengthRule(EvidenceSettings settings)
{
    private const int Recent = 8;
    private const int Latest = 3;

    /// <summary>What is missing to the belief asked for is little up to here.</summary>
    private const double Little = 0.2;

    /// <param name="seen">One child's observations of this skill, none withdrawn, in order of time.</param>
    /// <param name="held">Belief, 0 to 1.</param>
    /// <param name="borne">Something that builds on it is secure: what was done there was done with this too, so being right with it once of late is enough.</param>
    /// <returns>Never <see cref="Strength.Kept"/>: that takes the day on which it became secure.</returns>
    public Strength Of(Skill skill, IReadOnlyList<Observation> seen, double held, bool borne = false)
    {
        ArgumentNullException.ThrowIfNull(skill);
        ArgumentNullException.ThrowIfNull(seen);
        if (seen.Count == 0)
        {
            return Strength.NotSeen;
        }

        if (IsSecure(skill, seen, held, borne))
        {
            return Strength.Secure;
        }

        var best = Strength.Tried;
        for (var i = Math.Max(0, seen.Count - Latest); i < seen.Count; i++)
        {
            best = seen[i].Counted(skill) switch
            {
                Support.Alone => Strength.Nearly,
                Support.Prompted when best == Strength.Tried => Strength.Prompted,
                _ => best,
            };
        }

        return best;
    }

    /// <summary>What "secure" asks, clause by clause.</summary>
    public IReadOnlyList<Clause> Clauses(Skill skill, IReadOnlyList<Observation> seen, double held, bool borne = false)
    {
        ArgumentNullException.ThrowIfNull(skill);
        ArgumentNullException.ThrowIfNull(seen);
        var rule = settings.Secure;
        var (alone, days, shown) = Tally(skill, seen);
        var ways = WaysAsked(skill);
        List<Clause> clauses =
        [
            new(
                Phrase($"alone {Words.Times(rule.Alone)} in the last {Words.Number(Recent)}"),
                borne ? days > 0 : alone >= rule.Alone,
                Phrase($"alone {Words.More(rule.Alone - alone, "time", "times")}")
            ),
            new(
                Phrase($"right on {Words.Number(rule.Days)} school days"),
                borne || days >= rule.Days,
                Phrase($"on {Words.More(rule.Days - days, "school day", "school days")}")
            ),
        ];
        if (ways > 1)
        {
            clauses.Add(
                new(
                    Phrase($"shown in {Words.Number(ways)} ways"),
                    borne || shown >= ways,
                    Phrase($"shown in {Words.More(ways - shown, "way", "ways")}, such as {EvidenceWords.NextWay(skill, seen)}")
                )
            );
        }

        clauses.Add(
            new(
                Phrase("the last not a “not yet”"),
                seen.Count > 0 && seen[^1].Support != Support.NotYet,
                seen.Count == 0 ? Phrase("seen once") : Phrase("once again after the last “not yet”")
            )
        );
        clauses.Add(
            new(
                Phrase($"{Words.Percent(rule.Belief)} sure or more"),
                held >= rule.Belief,
                Phrase(
                    $"{(held >= rule.Belief - Little ? "a little" : "much")} more evidence ({Words.Percent(Math.Min(held, rule.Belief - 0.01))} sure of {Words.Percent(rule.Belief)})"
                )
            )
        );
        return clauses;
    }

    private bool IsSecure(Skill skill, IReadOnlyList<Observation> seen, double held, bool borne)
    {
        var rule = settings.Secure;
        if (held < rule.Belief || seen[^1].Support == Support.NotYet)
        {
            return false;
        }

        var (alone, days, shown) = Tally(skill, seen);
        return borne ? days > 0 : alone >= rule.Alone && days >= rule.Days && shown >= WaysAsked(skill);
    }

    // Of the latest: how many alone; right, alone or prompted, on how many days and in how many ways. No allocation: a grid asks this for every cell.
    private static (int Alone, int Days, int Shown) Tally(Skill skill, IReadOnlyList<Observation> seen)
    {
        var (alone, days, shown, lastDay) = (0, 0, 0, default(DateOnly));
        for (var i = Math.Max(0, seen.Count - Recent); i < seen.Count; i++)
        {
            var support = seen[i].Counted(skill);
            if (support is Support.Alone or Support.Prompted)
            {
                alone += support == Support.Alone ? 1 : 0;
                days += seen[i].Day == lastDay ? 0 : 1;
                lastDay = seen[i].Day;
                shown |= 1 << (int)seen[i].Representation;
            }
        }

        return (alone, days, System.Numerics.BitOperations.PopCount((uint)shown));
    }

    private int WaysAsked(Skill skill) => Math.Min(settings.Secure.Representations, skill.ShownIn.Count);
}
