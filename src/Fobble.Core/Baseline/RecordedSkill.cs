using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Baseline;

/// <summary>What was seen of a skill before a check begins, which starts from it.</summary>
/// <param name="Ratio">How many times likelier it is if the child has the skill.</param>
public readonly record struct RecordedSkill(SkillId Skill, double Ratio)
{
    /// <summary>What was seen in so many weeks before a check is evidence in it; what is older is asked for anew.</summary>
    public const int Weeks = 8;

    /// <summary>What a check starts from, in words; null where nothing was seen.</summary>
    public static string? InWords(IReadOnlyList<RecordedSkill> known)
    {
        ArgumentNullException.ThrowIfNull(known);
        return known.Count == 0
            ? null
            : Phrase($"starts from what was seen of {Words.Count(known.Count, "skill", "skills")} in the last {Words.Number(Weeks)} weeks");
    }

    /// <summary>A child's record of the last weeks, skill by skill, where there is one.</summary>
    public static IReadOnlyList<RecordedSkill> Of(ClassEvidence evidence, ChildId child)
    {
        ArgumentNullException.ThrowIfNull(evidence);
        var since = evidence.Today.AddDays(-7 * Weeks);
        return
        [
            .. evidence
                .Map.Skills.Where(s => evidence.Seen(child, s.Id) is [.., var last] && last.Day >= since)
                .Select(s => new RecordedSkill(s.Id, evidence.RatioSince(since, child, s.Id))),
        ];
    }
}
