using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Baseline;

/// <summary>What a child showed when asked about one skill. Alone is right; with help, or not yet, is not.</summary>
public readonly record struct BaselineAnswer(SkillId Skill, Support Support)
{
    public bool Right => Support == Support.Alone;

    /// <summary>With help tells half as much against having it as "not yet" does.</summary>
    public double Weight => Support is Support.Prompted or Support.Together ? 0.5 : 1;

    /// <summary>What the rest of a child's record says when one strand is looked at again: what is secure, and what was tried in vain.</summary>
    public static IReadOnlyList<BaselineAnswer> OnRecord(ClassEvidence evidence, ChildId child, string exceptStrand)
    {
        ArgumentNullException.ThrowIfNull(evidence);
        return
        [
            .. evidence
                .Map.Skills.Where(s => s.Strand != exceptStrand)
                .Select(s => (s.Id, evidence[child, s.Id].Strength))
                .Where(p => p.Strength is >= Strength.Secure or Strength.Tried)
                .Select(p => new BaselineAnswer(p.Id, p.Strength >= Strength.Secure ? Support.Alone : Support.Together)),
        ];
    }
}
