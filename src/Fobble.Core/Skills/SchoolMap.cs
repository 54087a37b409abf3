using Fobble.Core.Calendars;

namespace Fobble.Core.Skills;

/// <summary>
/// What a school does differently with one skill: leave it out, or put a changed skill, or one of its own, in its place.
/// </summary>
/// <param name="Instead">The whole skill as the school has it; null where only <paramref name="Hidden"/> differs from what ships.</param>
public sealed record SkillChange(SkillId Skill, bool Hidden, Skill? Instead);

/// <summary>The map that ships with a school's changes laid over it. What ships stays as it is; changes can always be taken back.</summary>
public sealed class SchoolMap
{
    private readonly SkillMap _shipped;
    private readonly Dictionary<SkillId, SkillChange> _changes;

    /// <exception cref="InvalidSkillMapException">With the changes it is no sound map: a circle, an unknown prerequisite or strand.</exception>
    public SchoolMap(SkillMap shipped, IReadOnlyList<SkillChange> changes)
    {
        ArgumentNullException.ThrowIfNull(shipped);
        ArgumentNullException.ThrowIfNull(changes);
        _shipped = shipped;
        _changes = changes.ToDictionary(c => c.Skill);
        Written =
        [
            .. shipped.Skills.Select(s => _changes.GetValueOrDefault(s.Id) is { } change ? (change.Instead ?? s) with { Hidden = change.Hidden } : s),
            .. changes.Where(c => !shipped.Has(c.Skill) && c.Instead is not null).Select(c => c.Instead! with { Hidden = c.Hidden }),
        ];

        // Checked as written first, so that a link to a skill that is left out still has to make sense.
        _ = new SkillMap(shipped.Strands, Written);
        Map = new SkillMap(shipped.Strands, Bridged(Written));
    }

    /// <summary>Every skill as the school has it, hidden ones among them, each with the links that were written for it.</summary>
    public IReadOnlyList<Skill> Written { get; }

    /// <summary>The map to plan and judge with: what needs a hidden skill needs that one's prerequisites instead.</summary>
    public SkillMap Map { get; }

    public bool IsOwn(SkillId id) => !_shipped.Has(id);

    public bool IsChanged(SkillId id) => _changes.ContainsKey(id);

    public IReadOnlyList<SkillChange> Changes => [.. _changes.Values];

    /// <summary>The changes that make the map that ships into this one; skills that are missing here are hidden.</summary>
    public static IReadOnlyList<SkillChange> Between(SkillMap shipped, IReadOnlyList<Skill> wanted)
    {
        ArgumentNullException.ThrowIfNull(shipped);
        var byId = wanted.ToDictionary(s => s.Id);
        IEnumerable<SkillChange> known = shipped.Skills.Select(s =>
            byId.GetValueOrDefault(s.Id) is not { } mine
                ? new SkillChange(s.Id, true, null)
                : new SkillChange(s.Id, mine.Hidden, SkillMapLoader.Same(s, mine) ? null : mine with { Hidden = false })
        );
        var own = wanted.Where(s => !shipped.Has(s.Id)).Select(s => new SkillChange(s.Id, s.Hidden, s with { Hidden = false }));
        return [.. known.Where(c => c.Hidden || c.Instead is not null), .. own];
    }

    /// <summary>Why a skill can't need another: the way that would close the circle, in a sentence; null where it can.</summary>
    public string? CircleIf(SkillId skill, SkillId needs)
    {
        var byId = Written.ToDictionary(s => s.Id);
        if (skill == needs)
        {
            return Phrase($"{byId[skill].InSentence} can't need itself.");
        }

        var way = WayDown(needs, skill, byId, []);
        return way is null
            ? null
            : Phrase(
                $"{byId[skill].InSentence} can't need {byId[needs].InSentence}: {string.Join(", which needs ", way.Select((id, i) => i == 0 ? $"that one needs {byId[id].InSentence}" : byId[id].InSentence))}. It would be a circle."
            );
    }

    /// <summary>Refuses a changed or new skill that can't be, with the reason at its field.</summary>
    /// <param name="about">Null where the change is about the whole map.</param>
    /// <exception cref="RefusedException">It can't be.</exception>
    public void CheckChange(Skill? about)
    {
        if (about is null)
        {
            return;
        }

        _ = SkillMapLoader.ReadOne(SkillMapLoader.WriteOne(about));
        foreach (var need in about.Needs)
        {
            RefusedException.Unless(Written.Any(s => s.Id == need), "needs", Phrase($"There is no skill '{need}'."));
            var circle = Written.Any(s => s.Id == about.Id) ? CircleIf(about.Id, need) : null;
            RefusedException.Unless(circle is null, "needs", circle ?? "");
        }
    }

    private static IReadOnlyList<SkillId>? WayDown(SkillId from, SkillId to, Dictionary<SkillId, Skill> byId, HashSet<SkillId> seen)
    {
        foreach (var need in byId.TryGetValue(from, out var skill) && seen.Add(from) ? skill.Needs : [])
        {
            if (need == to || WayDown(need, to, byId, seen) is not null)
            {
                return need == to ? [need] : [need, .. WayDown(need, to, byId, [])!];
            }
        }

        return null;
    }

    private static IReadOnlyList<Skill> Bridged(IReadOnlyList<Skill> written)
    {
        var byId = written.ToDictionary(s => s.Id);
        IEnumerable<SkillId> Needs(Skill skill) => skill.Needs.SelectMany(n => byId[n].Hidden ? Needs(byId[n]) : [n]).Distinct();
        return written.All(s => !s.Hidden) ? written : [.. written.Select(s => s with { Needs = [.. Needs(s)] })];
    }
}
