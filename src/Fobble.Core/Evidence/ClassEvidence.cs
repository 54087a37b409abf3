using System.Collections.Concurrent;
using Fobble.Core.Calendars;
using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>
/// One class on one day: every child's mark on every skill, and what each is ready for. Built once from the observations and asked many times.
/// </summary>
public sealed class ClassEvidence
{
    private readonly EvidenceSettings _settings;
    private readonly Dictionary<ChildId, ChildRecord> _records;
    private readonly Dictionary<ChildId, Mark[]> _marks;
    private readonly IReadOnlyDictionary<ChildId, Inference> _inferred;
    private readonly Dictionary<SkillId, int> _inDoubt;
    private readonly ConcurrentDictionary<ChildId, Fringe> _fringes = new();

    /// <param name="observations">The class's observations, none withdrawn, in order of time.</param>
    /// <param name="inferred">What baseline checks take to be there or not, of children who had one.</param>
    /// <param name="memory">Where records stay that were read before; null to read all of them.</param>
    public ClassEvidence(
        SkillMap map,
        SchoolCalendar calendar,
        EvidenceSettings settings,
        IReadOnlyList<ChildId> children,
        IEnumerable<Observation> observations,
        DateOnly today,
        IReadOnlyDictionary<ChildId, Inference>? inferred = null,
        RecordMemory? memory = null
    )
        : this(map, calendar, settings, children, SeenOfClass.Of(observations), today, inferred, memory) { }

    /// <inheritdoc cref="ClassEvidence(SkillMap, SchoolCalendar, EvidenceSettings, IReadOnlyList{ChildId}, IEnumerable{Observation}, DateOnly, IReadOnlyDictionary{ChildId, Inference}?, RecordMemory?)"/>
    public ClassEvidence(
        SkillMap map,
        SchoolCalendar calendar,
        EvidenceSettings settings,
        IReadOnlyList<ChildId> children,
        SeenOfClass seen,
        DateOnly today,
        IReadOnlyDictionary<ChildId, Inference>? inferred = null,
        RecordMemory? memory = null
    )
    {
        ArgumentNullException.ThrowIfNull(map);
        ArgumentNullException.ThrowIfNull(children);
        ArgumentNullException.ThrowIfNull(seen);
        (Map, Calendar, Children, Today, _settings) = (map, calendar, children, today, settings);
        _inferred = inferred ?? new Dictionary<ChildId, Inference>();
        var together = SkillsTogether.Of(map, settings.Together);
        var year = memory is null ? "" : string.Join(' ', calendar.Terms) + string.Join(' ', calendar.Closures);
        _records = children.ToDictionary(c => c, child => Read(child, seen.Of(child), together, memory, year));
        SecondLooks looks = new(map, calendar, settings.SecondLook, today);
        AllInDoubt = [.. _records.SelectMany(p => InDoubtOf(p.Key, p.Value, looks, memory)).OrderByDescending(l => l.Chance).ThenBy(l => l.Child)];
        LookAgain = [.. looks.ForTheWeek(AllInDoubt, Doubt.NeverSure), .. looks.ForTheWeek(AllInDoubt, Doubt.MayHaveFaded)];
        _inDoubt = AllInDoubt.CountBy(l => l.Skill).ToDictionary();
        var doubts = AllInDoubt.ToDictionary(l => (l.Child, l.Skill), l => l.Doubt);
        var listed = LookAgain.Select(l => (l.Child, l.Skill)).ToHashSet();
        _marks = _records.ToDictionary(
            p => p.Key,
            p =>
                map.All.Select(
                        (s, i) =>
                            new Mark(
                                p.Value[i]?.Strength ?? Strength.NotSeen,
                                p.Value.All.Held[i],
                                doubts.GetValueOrDefault((p.Key, s.Id)),
                                listed.Contains((p.Key, s.Id))
                            )
                    )
                    .ToArray()
        );
    }

    /// <summary>By what it is judged.</summary>
    public EvidenceSettings Settings => _settings;

    public SkillMap Map { get; }

    public SchoolCalendar Calendar { get; }

    public IReadOnlyList<ChildId> Children { get; }

    public DateOnly Today { get; }

    /// <summary>What is worth a second look this week: what was never quite sure, then what may have faded; of each no more than there are minutes for.</summary>
    public IReadOnlyList<SecondLook> LookAgain { get; }

    /// <summary>Everything in doubt, the most doubtful first, however much it is.</summary>
    public IReadOnlyList<SecondLook> AllInDoubt { get; }

    /// <summary>Of how many children a skill is in doubt.</summary>
    public int InDoubt(SkillId skill) => _inDoubt.GetValueOrDefault(skill);

    public Mark this[ChildId child, SkillId skill] => _marks[child][Map.IndexOf(skill)];

    /// <summary>A child's marks in the order of all skills of the map.</summary>
    public IReadOnlyList<Mark> Row(ChildId child) => _marks[child];

    public IReadOnlyList<Observation> Seen(ChildId child, SkillId skill) => StandingOf(child, skill)?.Seen ?? [];

    /// <summary>Skills that a child is secure in, or has kept.</summary>
    public IReadOnlySet<SkillId> SecureSkills(ChildId child) =>
        Map.Skills.Select(s => s.Id).Where(id => this[child, id].Strength >= Strength.Secure).ToHashSet();

    public Judgement Judgement(ChildId child, SkillId skill)
    {
        var (record, mark, standing) = (_records[child], this[child, skill], StandingOf(child, skill));
        var clauses = new StrengthRule(_settings).Clauses(Map[skill], Seen(child, skill), mark.Belief, record.IsBorne(Map.IndexOf(skill)));
        Explanation explanation = new(this, record, child, Map[skill], mark, standing, clauses);
        return new(
            mark.Strength,
            mark.Belief,
            mark.LookAgain,
            mark.Strength >= Strength.Secure ? standing!.FirstSecure : null,
            standing?.LastAlone,
            clauses,
            mark.Doubt == Doubt.None ? null : explanation.Doubt(),
            explanation.Sentence()
        );
    }

    /// <summary>How strength went up and down over time, each step on the day of the observations that made it.</summary>
    public IReadOnlyList<StrengthStep> StepsOf(ChildId child, SkillId skill) => StandingOf(child, skill)?.Steps ?? [];

    /// <summary>How much of what the child has it shows without a nod, 0 to 1.</summary>
    public double StyleOf(ChildId child) => _records[child].Style;

    /// <summary>How many times likelier what was seen of a skill from a day on is if the child has it, faded to today; 1 where nothing was.</summary>
    public double RatioSince(DateOnly day, ChildId child, SkillId skill)
    {
        BeliefModel own = new(_settings, Calendar);
        foreach (var observation in Seen(child, skill).Where(o => o.Day >= day))
        {
            own.See(observation, Map[skill], StyleOf(child));
        }

        return own.RatioOn(Today);
    }

    /// <summary>What a baseline check takes to be the case with a skill that nobody has seen yet; null where there is nothing to say.</summary>
    public InferredSkill? InferenceOf(ChildId child, SkillId skill) =>
        this[child, skill].Strength == Strength.NotSeen && _inferred.TryGetValue(child, out var all) ? all.Of(skill) : null;

    /// <summary>
    /// Taken to be there though it is not secure: nobody has seen it and what builds on it speaks for it; a check takes it to be there and nothing speaks
    /// against it; or something that builds on it is secure. What nobody ever looked at, nor at anything that builds on it, stays to be seen. Shown as a guess
    /// to confirm.
    /// </summary>
    public bool LikelyHas(ChildId child, SkillId skill) => FringeOf(child).Likely[Map.IndexOf(skill)];

    /// <summary>Likely there, and nobody has seen it yet.</summary>
    public bool IsInferred(ChildId child, SkillId skill) => this[child, skill].Strength == Strength.NotSeen && LikelyHas(child, skill);

    /// <summary>
    /// Every prerequisite is at strength 3 or more (or likely there), and the skill itself is neither secure nor likely
    /// there already: the outer fringe of what the child knows (Doignon and Falmagne 1999).
    /// </summary>
    public bool IsReady(ChildId child, SkillId skill) => FringeOf(child).Ready[Map.IndexOf(skill)];

    /// <summary>Ready as far as can be told, but on something that is inferred and not seen.</summary>
    public bool IsReadyByGuess(ChildId child, SkillId skill) => FringeOf(child).ByGuess[Map.IndexOf(skill)];

    /// <summary>Share of the class, 0 to 1, for which something holds.</summary>
    public double Share(Func<ChildId, bool> holds) => Children.Count == 0 ? 0 : (double)Children.Count(holds) / Children.Count;

    /// <summary>
    /// Whom to look at again first: of each child the skill most in doubt, the most doubtful children first, so that the list is a
    /// handful of children and not one child's whole record.
    /// </summary>
    public IReadOnlyList<SecondLook> DueForAnotherLook(int most) =>
        [.. LookAgain.GroupBy(l => l.Child).Select(g => g.MaxBy(l => l.Chance)).OrderByDescending(l => l.Chance).Take(most)];

    /// <summary>Why a child is or is not ready for a skill.</summary>
    public string ReadyBecause(ChildId child, SkillId skill)
    {
        var likely = Map[skill].Needs.Where(need => IsInferred(child, need)).Select(need => Map[need].InSentence).ToList();
        var missing = Map[skill]
            .Needs.Where(need => this[child, need].Strength < Strength.Nearly && !LikelyHas(child, need))
            .Select(need => Map[need].InSentence)
            .ToList();
        return this[child, skill].Strength >= Strength.Secure ? Phrase("Has it already.")
            : LikelyHas(child, skill) ? Phrase("Has it already, as far as can be told: see it once to be sure.")
            : likely.Count > 0 && missing.Count == 0
                ? Phrase($"Ready, as a guess to confirm: {Words.List(likely)} {(likely.Count == 1 ? "is" : "are")} inferred and not seen yet.")
            : missing.Count > 0 ? Phrase($"Not ready yet: needs {Words.List(missing)} first.")
            : Map[skill].Needs.Count == 0 ? Phrase("Ready: it needs nothing before it.")
            : Phrase($"Ready: has {Words.List([.. Map[skill].Needs.Select(n => Map[n].InSentence)])}.");
    }

    private IReadOnlyList<SecondLook> InDoubtOf(ChildId child, ChildRecord record, SecondLooks looks, RecordMemory? memory)
    {
        IReadOnlyList<SecondLook> Anew() => [.. looks.Of(child, record)];
        return memory?.LooksOf(child, record, Today, Anew) ?? Anew();
    }

    // A page asks for all of a child's skills, and each would ask for those it needs: worked out once a child, in the order of the map.
    private Fringe FringeOf(ChildId child) => _fringes.GetOrAdd(child, Reckon);

    private Fringe Reckon(ChildId child)
    {
        var (marks, record, skills) = (_marks[child], _records[child], Map.All);
        var inferred = _inferred.GetValueOrDefault(child);
        bool Taken(int i) => inferred?.Of(skills[i].Id) is { Likely: true };
        bool[] likely =
        [
            .. marks.Select(
                (mark, i) =>
                    mark.Strength switch
                    {
                        >= Strength.Secure => false,
                        _ when record.IsBorne(i) => true,
                        Strength.NotSeen when record.All.Told[i] > 1 => mark.Belief >= _settings.LikelyFrom || Taken(i),
                        Strength.NotSeen => record.All.Told[i] >= 0.5 && Taken(i),
                        _ => false,
                    }
            ),
        ];
        bool[] ready =
        [
            .. skills.Select(
                (s, i) => marks[i].Strength < Strength.Secure && !likely[i] && NeedsOf(s).All(n => marks[n].Strength >= Strength.Nearly || likely[n])
            ),
        ];
        return new(likely, ready, [.. skills.Select((s, i) => ready[i] && NeedsOf(s).Any(n => marks[n].Strength == Strength.NotSeen && likely[n]))]);
    }

    private IEnumerable<int> NeedsOf(Skill skill) => skill.Needs.Select(Map.IndexOf);

    private Standing? StandingOf(ChildId child, SkillId skill) => _records[child][Map.IndexOf(skill)];

    private ChildRecord Read(ChildId child, IReadOnlyList<Observation> seen, SkillsTogether together, RecordMemory? memory, string year)
    {
        var said = (_inferred.GetValueOrDefault(child)?.Said ?? []).Where(s => Map.Has(s.Skill)).ToList();
        ChildRecord Anew() => new(Map, together, Calendar, _settings, seen, said);
        return memory?.Of(child, (Map, _settings, year, string.Join(' ', said)), seen, Anew) ?? Anew();
    }
}

/// <summary>What of a child's skills is likely there unseen, what it is ready for, and which of those by a guess; each in the order of the map.</summary>
internal sealed record Fringe(bool[] Likely, bool[] Ready, bool[] ByGuess);

/// <summary>The short form of a judgement.</summary>
/// <param name="Belief">Chance that the child has it, by everything that was seen; time does not change it.</param>
/// <param name="Doubt">Whether there is reason to doubt it today.</param>
/// <param name="LookAgain">Among the few to be looked at again this week.</param>
public readonly record struct Mark(Strength Strength, double Belief, Doubt Doubt, bool LookAgain);
