using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Baseline;

/// <summary>What a child showed when asked about one skill. Alone is right; with help, or not yet, is not.</summary>
public readonly record struct BaselineAnswer(SkillId Skill, Support Support)
{
    public bool Right => Support == Support.Alone;

    /// <summary>With help tells half as much against having it as "not yet" does.</summary>
    public double Weight => Support is Support.Prompted or Support.Together ? 0.5 : 1;
}
