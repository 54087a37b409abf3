using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Cupboard;
using Fobble.Core.Evidence;
using Fobble.Core.ItemSets;
using Fobble.Core.Sessions;
using Fobble.Core.Skills;

namespace Fobble.Core.Baseline;

/// <summary>One question as the adult needs it: what to lay out, what to say, what counts as right.</summary>
/// <param name="Items">The case to ask with, and a second one in case the first was unclear; empty for a skill that no activity serves.</param>
public sealed record BaselineQuestion(
    Skill Skill,
    IReadOnlyList<SetOut> LayOut,
    IReadOnlyList<Item> Items,
    IReadOnlyList<string> Right,
    IReadOnlyList<Caution> Cautions
)
{
    private const int Cases = 2;

    public static BaselineQuestion For(
        SkillId skill,
        ChildId child,
        ClassEvidence evidence,
        ActivityLibrary library,
        Approach approach,
        ClassCares cares,
        ulong seed
    )
    {
        ArgumentNullException.ThrowIfNull(evidence);
        ArgumentNullException.ThrowIfNull(library);
        if (ActivityFor(skill, library) is not { } activity)
        {
            return new(evidence.Map[skill], [], [], evidence.Map[skill].LookFor, []);
        }

        var card = SessionCards.Make(skill, activity, [child], evidence, approach, cares, seed);

        // One case has to stand for the skill, so neither the easiest nor the hardest.
        var items = card.Items.OrderBy(i => i.Difficulty).Skip((card.Items.Count - Cases) / 2).Take(Cases);
        return new(card.Skill, card.SetOut, [.. items], card.Skill.LookFor, card.Cautions);
    }

    /// <summary>The things that each skill is asked with, so that questions with the same things can follow each other.</summary>
    public static IReadOnlyDictionary<SkillId, string> Materials(SkillMap map, ActivityLibrary library)
    {
        ArgumentNullException.ThrowIfNull(map);
        return map.Skills.ToDictionary(
            s => s.Id,
            s => string.Join('+', (ActivityFor(s.Id, library)?.Items ?? []).Select(i => i.Id.Value).Order(StringComparer.Ordinal))
        );
    }

    private static Activity? ActivityFor(SkillId skill, ActivityLibrary library) => library.For(skill, Place.Group) is [var first, ..] ? first : null;
}
