using Fobble.Core.Numbers;
using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>How a child did it and with what, inside a sentence.</summary>
public static class EvidenceWords
{
    /// <summary>The representation the child has not shown alone yet.</summary>
    public static string NextWay(Skill skill, IReadOnlyList<Observation> observations)
    {
        var shown = observations.Where(o => o.Counted(skill) == Support.Alone).Select(o => o.Representation).ToHashSet();
        var next = skill.ShownIn.FirstOrDefault(r => !shown.Contains(r), skill.ShownIn[^1]);
        return Of(next);
    }

    public static string Of(Representation representation) =>
        representation switch
        {
            Representation.Objects => "with objects",
            Representation.Fingers => "on fingers",
            Representation.Picture => "with a drawing",
            Representation.Spoken => "in words",
            _ => "with numerals",
        };

    public static string Of(Support support) =>
        support switch
        {
            Support.Alone => "alone",
            Support.Prompted => "with a prompt",
            Support.Together => "together",
            _ => "not yet",
        };
}
