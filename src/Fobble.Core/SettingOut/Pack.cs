using Fobble.Core.Approaches;
using Fobble.Core.Numbers;
using Fobble.Core.Sheets;

namespace Fobble.Core.SettingOut;

/// <summary>All that has to be printed for a day or a week, as one sheet of many pages.</summary>
public static class Pack
{
    /// <summary>The pack's pages, in the order in which they are needed; empty where nothing is to be printed.</summary>
    /// <param name="childOf">What is known of a child by the name under which it stands in a use.</param>
    public static Sheet Make(SetOutPlan plan, string title, PaperSize paper, Approach approach, Func<string, SheetChild> childOf, uint seed, DateOnly made)
    {
        ArgumentNullException.ThrowIfNull(plan);
        return new(title, Paper.Of(paper), made, [.. plan.Prints.SelectMany(p => SheetMaker.Make(RequestFor(p, paper, approach, childOf, seed, made)).Pages)]);
    }

    /// <summary>What one print asks the sheet maker for: its numbers and count held within what the kind can do.</summary>
    public static SheetRequest RequestFor(ToPrint print, PaperSize paper, Approach approach, Func<string, SheetChild> childOf, uint seed, DateOnly made)
    {
        ArgumentNullException.ThrowIfNull(print);
        var offer = SheetOffer.Of(print.Sheet.Kind);
        var count =
            offer.MostCount == 0 ? 1
            : print.EachChild ? offer.Count
            : Math.Clamp(print.Copies, 1, offer.MostCount);
        return new(
            print.Sheet.Kind,
            print.Sheet.Variant,
            paper,
            print.Use.Activity.RangeOn(print.Sheet.Kind, print.Use.Range),
            count,
            offer.EachChild && print.EachChild ? [.. print.Use.Names.Select(childOf)] : [],
            approach,
            seed,
            made,
            Stories: LessonStories.For(print.Use.Setting.Items)
        );
    }
}
