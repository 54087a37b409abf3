using Fobble.Core.Numbers;

namespace Fobble.Core.Skills;

/// <summary>All skills with what each needs and opens. Building one checks it: no id twice, no unknown prerequisite, no circle.</summary>
public sealed class SkillMap
{
    private static readonly SkillId Zero = new("numeral.zero");
    private readonly Dictionary<SkillId, int> _index;
    private readonly IReadOnlyList<SkillId>[] _opens;
    private readonly IReadOnlySet<SkillId>[] _allNeeds;
    private readonly int[] _allOpens;

    /// <exception cref="InvalidSkillMapException">The skills make no sound map; the message names every fault.</exception>
    public SkillMap(IReadOnlyList<Strand> strands, IReadOnlyList<Skill> skills)
    {
        ArgumentNullException.ThrowIfNull(strands);
        ArgumentNullException.ThrowIfNull(skills);
        List<string> faults = [.. skills.GroupBy(s => s.Id).Where(g => g.Count() > 1).Select(g => Phrase($"{g.Key} is there {g.Count()} times"))];
        var known = skills.Select(s => s.Id).ToHashSet();
        faults.AddRange(skills.SelectMany(s => s.Needs.Where(n => !known.Contains(n)).Select(n => Phrase($"{s.Id} needs {n}, which does not exist"))));
        faults.AddRange(skills.Where(s => strands.All(t => t.Id != s.Strand)).Select(s => Phrase($"{s.Id} is of an unknown strand '{s.Strand}'")));
        All = faults.Count == 0 ? InTeachingOrder(strands, skills, faults) : [];
        if (faults.Count > 0)
        {
            throw new InvalidSkillMapException(faults);
        }

        Strands = strands;
        Skills = [.. All.Where(s => !s.Hidden)];
        _index = All.Select((skill, i) => (skill.Id, i)).ToDictionary(p => p.Id, p => p.i);
        var opens = Skills.SelectMany(s => s.Needs.Select(need => (need, s.Id))).ToLookup(p => p.need, p => p.Id);
        _opens = [.. All.Select(s => (IReadOnlyList<SkillId>)[.. opens[s.Id].Order()])];
        _allNeeds = new IReadOnlySet<SkillId>[All.Count];
        for (var i = 0; i < All.Count; i++)
        {
            // Teaching order: whatever a skill needs has been worked out before it.
            _allNeeds[i] = All[i].Needs.SelectMany(need => _allNeeds[_index[need]].Append(need)).ToHashSet();
        }

        _allOpens = [.. All.Select(s => Skills.Count(o => _allNeeds[_index[o.Id]].Contains(s.Id)))];
    }

    public IReadOnlyList<Strand> Strands { get; }

    /// <summary>The same map in the language of this request, with the class's words put in.</summary>
    /// <param name="own">Skills that the school has written.</param>
    public SkillMap InWords(Wording words, IReadOnlySet<SkillId>? own = null) =>
        new([.. Strands.Select(s => s with { Name = Phrase(s.Name) })], [.. All.Select(s => s.InWords(words, own?.Contains(s.Id) == true))]);

    /// <summary>Every skill that is not hidden, after what it needs; within that by season, then as written.</summary>
    public IReadOnlyList<Skill> Skills { get; }

    /// <summary>The same with hidden ones: records and plans of the past may speak of them.</summary>
    public IReadOnlyList<Skill> All { get; }

    public Skill this[SkillId id] => All[IndexOf(id)];

    /// <summary>The skill's place in <see cref="All"/>.</summary>
    /// <exception cref="KeyNotFoundException">The map has no such skill.</exception>
    public int IndexOf(SkillId id) => _index.TryGetValue(id, out var index) ? index : throw new KeyNotFoundException($"There is no skill '{id}'.");

    public bool Has(SkillId id) => _index.ContainsKey(id);

    /// <summary>Skills that need this one directly.</summary>
    public IReadOnlyList<SkillId> Opens(SkillId id) => _opens[IndexOf(id)];

    /// <summary>All prerequisites, near and far.</summary>
    public IReadOnlySet<SkillId> AllNeeds(SkillId id) => _allNeeds[IndexOf(id)];

    /// <summary>
    /// Whether children on a skill know zero as a number: it is the skill, or comes before it. On a map without that skill, zero is like any other number.
    /// </summary>
    public bool KnowsZero(SkillId id) => !Has(Zero) || id == Zero || AllNeeds(id).Contains(Zero);

    /// <summary>How many skills need this one, near or far.</summary>
    public int AllOpens(SkillId id) => _allOpens[IndexOf(id)];

    // Kahn 1962, always taking the earliest season first; what is left at the end lies on a circle.
    private static List<Skill> InTeachingOrder(IReadOnlyList<Strand> strands, IReadOnlyList<Skill> skills, List<string> faults)
    {
        var strandOrder = strands.Select((s, i) => (s.Id, i)).ToDictionary(p => p.Id, p => p.i);
        List<Skill> ordered = [];
        HashSet<SkillId> done = [];
        var left = skills
            .Select((skill, at) => (skill, at))
            .OrderBy(p => p.skill.When)
            .ThenBy(p => strandOrder[p.skill.Strand])
            .ThenBy(p => p.at)
            .Select(p => p.skill)
            .ToList();
        while (left.FindIndex(s => s.Needs.All(done.Contains)) is >= 0 and var index)
        {
            done.Add(left[index].Id);
            ordered.Add(left[index]);
            left.RemoveAt(index);
        }

        if (left.Count > 0)
        {
            faults.Add(Phrase($"these skills need each other in a circle, or need one that does: {string.Join(", ", left.Select(s => s.Id))}"));
        }

        return ordered;
    }
}

/// <summary>The content is not a sound map. <see cref="Exception.Message"/> lists every fault.</summary>
public sealed class InvalidSkillMapException(IReadOnlyList<string> faults)
    : RefusedException("skills", Phrase("The skill map has faults: ") + string.Join("; ", faults) + ".")
{
    public IReadOnlyList<string> Faults { get; } = faults;
}
