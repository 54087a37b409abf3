using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Planning;

/// <summary>How far a part of the curriculum has come.</summary>
/// <param name="Skills">Skills in it.</param>
/// <param name="Planned">Skills with lessons, given or to come.</param>
/// <param name="Taught">Skills of which every planned lesson was given.</param>
/// <param name="Observed">Of all pairs of a child and one of these skills, the share that was ever seen.</param>
/// <param name="Secure">The share that is secure.</param>
public sealed record CoverageLine(int Skills, int Planned, int Taught, double Observed, double Secure);

/// <summary>A lesson that the plan had for a day and that was not given since.</summary>
public sealed record NeverTaught(SkillId Skill, int Lessons, DateOnly Last);

/// <param name="Given">Focus lessons given this year.</param>
/// <param name="Expected">Lessons that the year's first plan had until now.</param>
public sealed record Pace(int Given, int Expected, string Sentence);

/// <summary>What was planned, taught, observed and is secure (rule R12).</summary>
public sealed class PlanCoverage(ClassEvidence evidence, IReadOnlyList<TaughtLesson> taught, YearPlan? plan)
{
    private readonly Dictionary<SkillId, int> _given = taught.GroupBy(t => t.Skill).ToDictionary(g => g.Key, g => g.Count());
    private readonly HashSet<SkillId> _coming = plan?.Lessons.Where(l => l.Day >= evidence.Today).Select(l => l.Skill).ToHashSet() ?? [];

    public CoverageLine Of(IReadOnlyCollection<SkillId> skills)
    {
        ArgumentNullException.ThrowIfNull(skills);
        double Share(Strength least)
        {
            var pairs = skills.Count * evidence.Children.Count;
            return pairs == 0 ? 0 : (double)skills.Sum(s => evidence.Children.Count(c => evidence[c, s].Strength >= least)) / pairs;
        }

        return new(
            skills.Count,
            skills.Count(s => _coming.Contains(s) || _given.ContainsKey(s)),
            skills.Count(s => !_coming.Contains(s) && _given.ContainsKey(s)),
            Share(Strength.Tried),
            Share(Strength.Secure)
        );
    }

    /// <summary>Skills whose lessons were planned for days that are past, of which none was given and none is to come.</summary>
    /// <param name="plans">Every version of the year's plan, the oldest first.</param>
    public IReadOnlyList<NeverTaught> Missing(IReadOnlyList<YearPlan> plans)
    {
        ArgumentNullException.ThrowIfNull(plans);
        return
        [
            .. plans
                .SelectMany(p => p.Lessons)
                .Where(l => l.Day < evidence.Today && !_given.ContainsKey(l.Skill) && !_coming.Contains(l.Skill) && evidence.Map.Has(l.Skill))
                .GroupBy(l => l.Skill)
                .Select(g => new NeverTaught(g.Key, g.Select(l => l.Number).Distinct().Count(), g.Max(l => l.Day)))
                .OrderBy(n => n.Last),
        ];
    }

    /// <summary>How many lessons were given, beside how many the first plan of the year had by now.</summary>
    public Pace PaceAgainst(YearPlan first, DateOnly firstDay)
    {
        ArgumentNullException.ThrowIfNull(first);
        // A skill once more in a place that was kept free is no lesson of the plan.
        var planned = first.Lessons.GroupBy(l => l.Skill).ToDictionary(g => g.Key, g => g.Count());
        var given = taught
            .Where(t => t.Day >= firstDay && t.Day < evidence.Today)
            .GroupBy(t => t.Skill)
            .Sum(g => Math.Min(g.Count(), planned.GetValueOrDefault(g.Key)));
        var expected = first.Lessons.Count(l => l.Day >= firstDay && l.Day < evidence.Today);
        var apart = given - expected;
        return new(
            given,
            expected,
            apart == 0
                ? Phrase($"In step with the plan of {Words.Date(firstDay)}: {Words.Count(given, "lesson", "lessons")} given.")
                : Phrase(
                    $"{Words.Capital(Words.Count(Math.Abs(apart), "lesson", "lessons"))} {(apart < 0 ? "behind" : "ahead of")} the plan of {Words.Date(firstDay)}: {given} given, {expected} planned by now."
                )
        );
    }
}
