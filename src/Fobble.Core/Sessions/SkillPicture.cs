using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Core.Skills;

namespace Fobble.Core.Sessions;

/// <summary>What a skill looks like where it is played, for those at home who have not seen it: one of the things that is asked in the class, with its picture.</summary>
public static class SkillPicture
{
    private const int Looks = 6;

    /// <summary>Null where the skill is heard or done, and not seen.</summary>
    public static Picture? Of(SkillId skill, ActivityLibrary library, Approach approach) =>
        library
            .Activities.Select(a => a.For(skill))
            .OfType<ActivitySkill>()
            .SelectMany(s =>
                ItemSetMaker.Make(
                    new ItemRequest(s.Items, s.Range, Looks, ItemHistory.None, SeededRandom.SeedOf(skill.Value)) { Approach = approach, Zero = false }
                )
            )
            .Where(i => i is { HasZero: false, Picture: not null })
            .MaxBy(i => i.Value)
            ?.Picture;
}
