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
            Representation.Objects => Phrase("with objects"),
            Representation.Fingers => Phrase("on fingers"),
            Representation.Picture => Phrase("with a drawing"),
            Representation.Spoken => Phrase("in words"),
            _ => Phrase("with numerals"),
        };

    public static string Of(Support support) =>
        support switch
        {
            Support.Alone => Phrase("alone"),
            Support.Prompted => Phrase("with a prompt"),
            Support.Together => Phrase("together"),
            _ => Phrase("not yet"),
        };
}
