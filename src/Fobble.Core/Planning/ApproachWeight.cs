using Fobble.Core.Approaches;
using Fobble.Core.Skills;

namespace Fobble.Core.Planning;

/// <summary>How much the class's way of working speaks for or against a skill as the next focus, in the planner's points. Settings.</summary>
public static class ApproachWeight
{
    /// <summary>Points for the strand of the lesson before where units are worked through, against it where strands take turns.</summary>
    public const int SameStrand = 25;

    /// <summary>Points for a skill shown in signs where they come from the start, against one shown in signs alone where they come late.</summary>
    public const int Signs = 20;

    /// <summary>Points for large numbers where they come early, against them elsewhere.</summary>
    public const int Large = 20;

    /// <summary>Numbers above this are large for four- to six-year-olds.</summary>
    private const int LargeAbove = 10;

    /// <param name="lastStrand">Strand of the focus lesson before; null where there was none.</param>
    public static int Of(Skill skill, string? lastStrand, Approach approach)
    {
        ArgumentNullException.ThrowIfNull(skill);
        ArgumentNullException.ThrowIfNull(approach);
        var strand =
            skill.Strand != lastStrand ? 0
            : approach.Order == YearOrder.UnitByUnit ? SameStrand
            : -SameStrand;
        var signs =
            approach.Symbols == SymbolsWhen.FromTheStart
                ? skill.ShownIn.Contains(Representation.Symbols)
                    ? Signs
                    : 0
                : skill.ShownIn.All(r => r == Representation.Symbols)
                    ? -Signs
                    : 0;
        var size =
            skill.Range.High <= LargeAbove ? 0
            : approach.Sizes == NumberSize.LargeEarly ? Large
            : -Large;
        return strand + signs + size;
    }
}
