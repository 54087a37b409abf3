using Fobble.Core.Calendars;
using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>
/// One class on one day: every child's mark on every skill, and what each is ready for. Built once from the observations and asked many times.
/// </summary>
public sealed class ClassEvidence
{
    private readonly Judge _judge;
    private readonly Dictionary<ChildId, IReadOnlyList<Observation>[]> _seen;
    private readonly Dictionary<ChildId, Mark[]> _marks;
    private readonly IReadOnlyDictionary<ChildId, Inference> _inferred;

    /// <param name="observations">The class's observations, none withdrawn, in order of time.</param>
    /// <param name="inferred">What baseline checks take to be there or not, of children who had one.</param>
    public ClassEvidence(
        SkillMap map,
        SchoolCalendar calendar,
        EvidenceSettings settings,
        IReadOnlyList<ChildId> children,
        IEnumerable<Observation> observations,
        DateOnly today,
        IReadOnlyDictionary<ChildId, Inference>? inferred = null
    )
    {
        ArgumentNullException.ThrowIfNull(map);
        ArgumentNullException.ThrowIfNull(children);
        ArgumentNullException.ThrowIfNull(observations);
        (Map, Calendar, Children, Today) = (map, calendar, children, today);
        _judge = new Judge(calendar, settings);
        _inferred = inferred ?? new Dictionary<ChildId, Inference>();
        var lists = children.ToDictionary(c => c, _ => new List<Observation>?[map.All.Count]);
        foreach (var observation in observations)
        {
            if (lists.TryGetValue(observation.Child, out var skills) && map.Has(observation.Skill))
            {
                (skills[map.IndexOf(observation.Skill)] ??= []).Add(observation);
            }
        }

        _seen = lists.ToDictionary(p => p.Key, p => p.Value.Select(o => (IReadOnlyList<Observation>?)o ?? []).ToArray());
        _marks = _seen.ToDictionary(p => p.Key, p => p.Value.Select((o, i) => _judge.MarkOf(map.All[i], o, today)).ToArray());
    }

    public SkillMap Map { get; }

    public SchoolCalendar Calendar { get; }

    public IReadOnlyList<ChildId> Children { get; }

    public DateOnly Today { get; }

    public Mark this[ChildId child, SkillId skill] => _marks[child][Map.IndexOf(skill)];

    /// <summary>A child's marks in the order of all skills of the map.</summary>
    public IReadOnlyList<Mark> Row(ChildId child) => _marks[child];

    public IReadOnlyList<Observation> Seen(ChildId child, SkillId skill) => _seen[child][Map.IndexOf(skill)];

    /// <summary>Skills that a child is secure in, or has kept.</summary>
    public IReadOnlySet<SkillId> SecureSkills(ChildId child) =>
        Map.Skills.Select(s => s.Id).Where(id => this[child, id].Strength >= Strength.Secure).ToHashSet();

    public Judgement Judgement(ChildId child, SkillId skill)
    {
        var judged = _judge.Of(Map[skill], Seen(child, skill), Today);
        return judged.Strength == Strength.NotSeen && InferenceOf(child, skill) is { } inferred ? judged with { Sentence = inferred.Sentence } : judged;
    }

    /// <summary>How strength went up and down over time, each step on the day of the observation that made it.</summary>
    public IReadOnlyList<StrengthStep> StepsOf(ChildId child, SkillId skill) => _judge.StepsOf(Map[skill], Seen(child, skill));

    /// <summary>What a baseline check takes to be the case with a skill that nobody has seen yet; null where there is nothing to say.</summary>
    public InferredSkill? InferenceOf(ChildId child, SkillId skill) =>
        this[child, skill].Strength == Strength.NotSeen && _inferred.TryGetValue(child, out var all) ? all.Of(skill) : null;

    /// <summary>Inferred to be there, and not seen yet: shown as a guess to confirm.</summary>
    public bool LikelyHas(ChildId child, SkillId skill) => InferenceOf(child, skill) is { Likely: true };

    /// <summary>
    /// Every prerequisite is at strength 3 or more (or likely there, after a baseline check), and the skill itself is neither secure nor likely
    /// there already: the outer fringe of what the child knows (Doignon and Falmagne 1999).
    /// </summary>
    public bool IsReady(ChildId child, SkillId skill) =>
        this[child, skill].Strength < Strength.Secure
        && !LikelyHas(child, skill)
        && Map[skill].Needs.All(need => this[child, need].Strength >= Strength.Nearly || LikelyHas(child, need));

    /// <summary>Ready as far as can be told, but on something that is inferred and not seen.</summary>
    public bool IsReadyByGuess(ChildId child, SkillId skill) => IsReady(child, skill) && Map[skill].Needs.Any(need => LikelyHas(child, need));

    /// <summary>Share of the class, 0 to 1, for which something holds.</summary>
    public double Share(Func<ChildId, bool> holds) => Children.Count == 0 ? 0 : (double)Children.Count(holds) / Children.Count;

    /// <summary>Everything that is to be looked at again, the most doubtful first.</summary>
    public IReadOnlyList<(ChildId Child, SkillId Skill)> LookAgain =>
        [
            .. Children
                .SelectMany(child => Map.Skills.Where(s => this[child, s.Id].LookAgain).Select(s => (child, s.Id)))
                .OrderBy(due => this[due.child, due.Id].Belief),
        ];

    /// <summary>
    /// Whom to look at again first: of each child the skill most in doubt, the most doubtful children first, so that the list is a
    /// handful of children and not one child's whole record.
    /// </summary>
    public IReadOnlyList<(ChildId Child, SkillId Skill)> DueForAnotherLook(int most) =>
        [
            .. Children
                .Select(child => (child, skill: Map.Skills.Where(s => this[child, s.Id].LookAgain).MinBy(s => this[child, s.Id].Belief)))
                .Where(due => due.skill is not null)
                .OrderBy(due => this[due.child, due.skill!.Id].Belief)
                .Take(most)
                .Select(due => (due.child, due.skill!.Id)),
        ];

    /// <summary>Why a child is or is not ready for a skill.</summary>
    public string ReadyBecause(ChildId child, SkillId skill)
    {
        var likely = Map[skill].Needs.Where(need => LikelyHas(child, need)).Select(need => Map[need].InSentence).ToList();
        var missing = Map[skill]
            .Needs.Where(need => this[child, need].Strength < Strength.Nearly && !LikelyHas(child, need))
            .Select(need => Map[need].InSentence)
            .ToList();
        return this[child, skill].Strength >= Strength.Secure ? "Has it already."
            : LikelyHas(child, skill) ? "Has it already, as far as the check can tell: see it once to be sure."
            : likely.Count > 0 && missing.Count == 0
                ? $"Ready, as a guess to confirm: {Words.List(likely)} {(likely.Count == 1 ? "is" : "are")} inferred and not seen yet."
            : missing.Count > 0 ? $"Not ready yet: needs {Words.List(missing)} first."
            : Map[skill].Needs.Count == 0 ? "Ready: it needs nothing before it."
            : $"Ready: has {Words.List([.. Map[skill].Needs.Select(n => Map[n].InSentence)])}.";
    }
}
