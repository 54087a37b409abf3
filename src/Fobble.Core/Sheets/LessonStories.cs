using Fobble.Core.ItemSets;
using Fobble.Core.Stories;

namespace Fobble.Core.Sheets;

/// <summary>Which stories belong on a page to a lesson.</summary>
public static class LessonStories
{
    /// <summary>Those that fit what is asked with a kind of item, for a page of stories to a lesson.</summary>
    public static IReadOnlyList<StoryKind> For(ItemKind items) =>
        items switch
        {
            ItemKind.StoryTotal or ItemKind.StoryThree or ItemKind.Adding => [StoryKind.AddToResult, StoryKind.TogetherTotal],
            ItemKind.StoryLeft or ItemKind.TakingAway => [StoryKind.TakeFromResult],
            ItemKind.StoryCame => [StoryKind.AddToChange],
            ItemKind.StoryPart or ItemKind.MissingAddend => [StoryKind.TogetherAddend],
            ItemKind.StoryWent => [StoryKind.TakeFromChange],
            ItemKind.StoryAtFirst => [StoryKind.TakeFromStart],
            ItemKind.StoryCameAtFirst => [StoryKind.AddToStart],
            ItemKind.StoryCompare or ItemKind.HowManyMore => [StoryKind.CompareDifferenceMore, StoryKind.CompareDifferenceFewer],
            ItemKind.StoryLarger => [StoryKind.CompareBiggerMore, StoryKind.CompareBiggerFewer],
            ItemKind.StorySmaller => [StoryKind.CompareSmallerMore, StoryKind.CompareSmallerFewer],
            ItemKind.OpenParts => [StoryKind.TogetherBoth],
            _ => StoryKinds.Kindergarten,
        };
}
