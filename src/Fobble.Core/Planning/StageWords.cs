using Fobble.Core.Approaches;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Planning;

/// <summary>What kind of lesson a stage is, for one skill in one class: objects first, then drawing and talk, then stories or signs (common practice); or signs beside from the start.</summary>
public static class StageWords
{
    public static string Of(LessonStage stage, Skill skill, Approach approach)
    {
        ArgumentNullException.ThrowIfNull(skill);
        ArgumentNullException.ThrowIfNull(approach);
        var signs = skill.ShownIn.Contains(Representation.Symbols);
        var beside = signs && skill.ShownIn.Count > 1 && approach.Symbols == SymbolsWhen.FromTheStart ? Phrase(", signs beside") : "";
        return stage switch
        {
            LessonStage.Introduce => Phrase($"introduce {EvidenceWords.Of(skill.ShownIn[0])}{beside}"),
            LessonStage.Practise => skill.ShownIn.Contains(Representation.Picture)
                ? Phrase($"practise with drawing and talk{beside}")
                : Phrase($"practise, and talk about it{beside}"),
            LessonStage.Apply => signs ? Phrase("use it in stories and with signs") : Phrase("use it in stories and games"),
            _ => Phrase("see who has it"),
        };
    }
}
