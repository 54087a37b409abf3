using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>Where a class stands with one skill.</summary>
/// <param name="Likely">Have it as far as a check can tell; nobody has seen it.</param>
/// <param name="NotYet">Neither have it nor are ready.</param>
/// <param name="Middle">The strength that half of the class has at least.</param>
public sealed record SkillOverview(
    IReadOnlyList<ChildId> Has,
    IReadOnlyList<ChildId> Ready,
    IReadOnlyList<ChildId> Likely,
    IReadOnlyList<ChildId> NotYet,
    Strength Middle,
    string Sentence
);

public static class SkillOverviews
{
    public static SkillOverview OverviewOf(this ClassEvidence evidence, SkillId skill)
    {
        ArgumentNullException.ThrowIfNull(evidence);
        var has = evidence.Children.Where(c => evidence[c, skill].Strength >= Strength.Secure).ToList();
        var ready = evidence.Children.Where(c => evidence.IsReady(c, skill)).ToList();
        var likely = evidence.Children.Where(c => evidence.LikelyHas(c, skill)).ToList();
        var strengths = evidence.Children.Select(c => evidence[c, skill].Strength).Order().ToList();
        return new(
            has,
            ready,
            likely,
            [.. evidence.Children.Except(has).Except(ready).Except(likely)],
            strengths.Count == 0 ? Strength.NotSeen : strengths[(strengths.Count - 1) / 2],
            Phrase($"{Words.Capital(Words.Count(has.Count, "child has", "children have"))} it, {Words.Count(ready.Count, "is", "are")} ready.")
        );
    }
}
