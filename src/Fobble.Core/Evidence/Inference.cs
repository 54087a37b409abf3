using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>What a baseline check of one child takes to be the case with skills that it did not ask for.</summary>
/// <param name="Day">The day of the check.</param>
/// <param name="Chances">Chance by skill that the child has it.</param>
public sealed record Inference(DateOnly Day, IReadOnlyDictionary<SkillId, double> Chances)
{
    public InferredSkill? Of(SkillId skill) => Chances.TryGetValue(skill, out var chance) ? new(Day, chance) : null;

    /// <summary>What was not worked out but said: an adult knew better, and nothing that is worked out is ever quite sure.</summary>
    public IReadOnlyList<SaidOfSkill> Said =>
        [.. Chances.Where(c => c.Value is <= 0 or >= 1).OrderBy(c => c.Key).Select(c => new SaidOfSkill(c.Key, c.Value >= 1))];
}

/// <summary>Said by an adult, without its being seen: it is there, or it is not.</summary>
public readonly record struct SaidOfSkill(SkillId Skill, bool There);

/// <summary>Inferred, not observed: a dot in outline where a mark would be.</summary>
public readonly record struct InferredSkill(DateOnly Day, double Chance)
{
    /// <summary>Above this an inferred skill is taken to be there until it is seen.</summary>
    private const double LikelyFrom = 0.8;

    // An adult's own slips are not in the reckoning, so it is never said to be surer than this.
    private const double MostShownSure = 0.94;

    public bool Likely => Chance >= LikelyFrom;

    public string Sentence =>
        Likely
            ? Phrase($"Not seen yet. The check of {Words.Date(Day)} takes it to be there (about {Words.Percent(Math.Min(Chance, MostShownSure))} sure).")
            : Phrase($"Not seen yet. The check of {Words.Date(Day)} could not take it to be there.");
}

/// <summary>A change of strength on a day.</summary>
public sealed record StrengthStep(DateOnly Day, Strength Strength);
