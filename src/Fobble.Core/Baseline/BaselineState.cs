using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Baseline;

/// <summary>What is inferred about a skill that need not have been asked for.</summary>
/// <param name="Chance">That the child has it.</param>
/// <param name="Held">The more likely of the two. Together the held ones are a down-closed set, and the set with the most skills expected to be rightly placed.</param>
public sealed record Inferred(SkillId Skill, double Chance, bool Held)
{
    /// <summary>As it is kept with the check: what was worked out is never quite sure, since nought and one are what an adult said.</summary>
    public double Kept => Chance is 0 or 1 ? Chance : Math.Clamp(Math.Round(Chance, 3), 0.001, 0.999);

    /// <summary>How sure of having it or not, 0.5 to 1.</summary>
    public double Sure => Math.Max(Chance, 1 - Chance);

    /// <summary>As it is shown, in per cent.</summary>
    public int SurePercent => BaselineState.Percent(Sure);
}

/// <summary>How far a child seems to be in one strand.</summary>
/// <param name="UpTo">The last skill of the strand, in teaching order, that is likely held; null for none.</param>
public sealed record StrandReach(string Strand, int Held, int Of, double Sure, SkillId? UpTo, string Sentence);

/// <summary>Where a baseline check stands after some answers.</summary>
public sealed class BaselineState
{
    /// <summary>No more is shown, in per cent, however sure it is: an adult's own slips are not in the reckoning.</summary>
    public const int MostShownSure = 94;

    private readonly Dictionary<SkillId, Inferred> _by;

    internal BaselineState(SkillMap map, double[] chances, double sure, bool done, SkillId? next)
    {
        (Map, Sure, Done, Next) = (map, sure, done, next);
        Skills = [.. map.Skills.Select((s, i) => new Inferred(s.Id, chances[i], chances[i] > 0.5))];
        _by = Skills.ToDictionary(s => s.Skill);
    }

    public SkillMap Map { get; }

    /// <summary>In teaching order.</summary>
    public IReadOnlyList<Inferred> Skills { get; }

    /// <summary>Share of the skills looked at that is expected to be rightly placed.</summary>
    public double Sure { get; }

    /// <summary>Sure enough, or as many questions as a child should be asked.</summary>
    public bool Done { get; }

    /// <summary>What to ask next; null when done.</summary>
    public SkillId? Next { get; }

    public Inferred this[SkillId skill] => _by[skill];

    internal static int Percent(double sure) => Math.Min(MostShownSure, (int)Math.Round(sure * 100));

    /// <summary>How sure it is, as it is shown, in per cent.</summary>
    public int SurePercent => Percent(Sure);

    public string SureInWords => Phrase($"about {SurePercent} % sure");

    public IReadOnlyList<StrandReach> Reach =>
        [
            .. Map
                .Strands.Select(strand =>
                {
                    var own = Skills.Where(s => Map[s.Skill].Strand == strand.Id).ToList();
                    var held = own.Where(s => s.Held).ToList();
                    SkillId? upTo = held.Count > 0 ? held[^1].Skill : null;
                    return new StrandReach(
                        strand.Id,
                        held.Count,
                        own.Count,
                        own.Count == 0 ? 1 : own.Average(s => s.Sure),
                        upTo,
                        SentenceFor(held.Count, own.Count, upTo)
                    );
                })
                .Where(r => r.Of > 0),
        ];

    private string SentenceFor(int held, int of, SkillId? upTo) =>
        held == 0 ? Phrase("Likely at its beginning.")
        : held == of ? Phrase("Likely through all of it.")
        : Phrase($"Likely up to {Map[upTo!.Value].InSentence}: {Words.Number(held)} of {Words.Number(of)} skills.");

    /// <summary>What is inferred, with what an adult knows better put over it: who has a skill has what it needs, who lacks it lacks what needs it.</summary>
    public IReadOnlyList<Inferred> With(IReadOnlyDictionary<SkillId, bool> overrides)
    {
        ArgumentNullException.ThrowIfNull(overrides);
        var yes = overrides.Where(o => o.Value && Map.Has(o.Key)).SelectMany(o => Map.AllNeeds(o.Key).Append(o.Key)).ToHashSet();
        var no = overrides.Where(o => !o.Value && Map.Has(o.Key)).Select(o => o.Key).ToHashSet();
        return
        [
            .. Skills.Select(s =>
                no.Contains(s.Skill) || Map.AllNeeds(s.Skill).Overlaps(no) ? new Inferred(s.Skill, 0, false)
                : yes.Contains(s.Skill) ? new Inferred(s.Skill, 1, true)
                : s
            ),
        ];
    }

    /// <summary>What is likely next, as a guess to confirm: not held, but all that it needs is.</summary>
    public static IReadOnlyList<SkillId> LikelyNext(SkillMap map, IReadOnlyList<Inferred> inferred)
    {
        ArgumentNullException.ThrowIfNull(map);
        var held = inferred.Where(i => i.Held).Select(i => i.Skill).ToHashSet();
        return [.. inferred.Where(i => !i.Held && map[i.Skill].Needs.All(held.Contains)).Select(i => i.Skill)];
    }
}
