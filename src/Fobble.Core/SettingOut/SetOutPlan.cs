using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Cupboard;
using Fobble.Core.Numbers;
using Fobble.Core.Sheets;

namespace Fobble.Core.SettingOut;

/// <summary>An activity that is done somewhere at some time, and so needs its things there.</summary>
/// <param name="For">What it is, such as "Carpet" or "Small group".</param>
/// <param name="Range">Numbers it is set to.</param>
/// <param name="Groups">Groups that work at it at the same moment.</param>
/// <param name="Names">Children by name, for sheets of their own; empty for the whole class.</param>
/// <param name="Lesson">Whether it is a lesson, with a sheet where the class uses them, rather than a starter, a centre or a change-over.</param>
public sealed record Use(
    DateOnly Day,
    TimeOnly Start,
    int Minutes,
    string Where,
    string For,
    Activity Activity,
    ActivitySkill Setting,
    int Children,
    int Groups,
    IReadOnlyList<string> Names,
    bool Lesson
)
{
    public NumberRange Range => Setting.Range;

    public TimeOnly End => Start.AddMinutes(Minutes);

    public bool Overlaps(Use other)
    {
        ArgumentNullException.ThrowIfNull(other);
        return Day == other.Day && Start < other.End && other.Start < End;
    }

    public int AmountOf(Material material)
    {
        ArgumentNullException.ThrowIfNull(material);
        return material.Amount.For(Range.High, Children, Groups);
    }
}

/// <summary>How many of a thing one use takes.</summary>
public sealed record Share(Use Use, int Amount);

/// <param name="AtOnce">The most that is out at one moment; for what is used up, all of it together.</param>
/// <param name="Supplied">How that moment is met from the cupboard.</param>
/// <param name="Printed">It is short, and a page of the pack makes up for it.</param>
public sealed record SetOutLine(CupboardItem Item, IReadOnlyList<Share> Shares, int AtOnce, Supplied Supplied, bool Printed);

/// <summary>Something to print for a use.</summary>
/// <param name="Copies">How many are wanted; what that means is the sheet's affair.</param>
/// <param name="EachChild">A page for each of the use's children, rather than things to share.</param>
public sealed record ToPrint(SheetChoice Sheet, Use Use, int Copies, bool EachChild);

/// <param name="Together">Uses that run at the same moment, where there is more than one.</param>
public sealed record SetOutPlan(
    IReadOnlyList<SetOutLine> Lines,
    IReadOnlyList<ToPrint> Prints,
    int PrepareMinutes,
    IReadOnlyList<Caution> Cautions,
    IReadOnlyList<IReadOnlyList<Use>> Together
);

/// <summary>What to fetch for a day or a week, what is short, what may stand in, what to print and what to watch for (rule R14).</summary>
public static class SettingOutRules
{
    /// <summary>Works the list out. The order of things is the order in which they are first needed.</summary>
    public static SetOutPlan Plan(IReadOnlyList<Use> uses, IReadOnlyList<StockLine> stock, ClassCares cares, Approach approach)
    {
        ArgumentNullException.ThrowIfNull(uses);
        ArgumentNullException.ThrowIfNull(approach);
        var inTime = uses.OrderBy(u => u.Day).ThenBy(u => u.Start).ToList();
        var moments = inTime
            .Select(u => (IReadOnlyList<Use>)[.. inTime.Where(o => o == u || (o.Day == u.Day && o.Start <= u.Start && u.Start < o.End))])
            .ToList();
        Dictionary<ItemId, Supplied> worst = [];
        foreach (var moment in moments)
        {
            Supply supply = new(stock);
            foreach (var needed in NeedsOf(moment, inTime))
            {
                var met = supply.Meet(needed);
                if (
                    !worst.TryGetValue(needed.Item.Id, out var before)
                    || (met.StillShort, met.ShortBy, needed.Amount).CompareTo((before.StillShort, before.ShortBy, before.Need.Amount)) > 0
                )
                {
                    worst[needed.Item.Id] = met;
                }
            }
        }

        var lines = inTime
            .SelectMany(u => u.Activity.Materials.Select(m => (u, m)))
            .GroupBy(p => p.m.Item.Id)
            .Select(g => new SetOutLine(
                g.First().m.Item,
                [.. g.Select(p => new Share(p.u, p.u.AmountOf(p.m)))],
                worst[g.Key].Need.Amount,
                worst[g.Key],
                worst[g.Key].ShortBy > 0 && g.Any(p => p.m.Print is not null)
            ))
            .ToList();
        return new(
            lines,
            PrintsOf(inTime, lines, approach),
            lines.Sum(l => l.Item.PrepareMinutes),
            Cupboard.Cautions.For(lines.SelectMany(l => l.Supplied.StandIns.Select(s => s.Item).Prepend(l.Item)), cares),
            [.. moments.Where(m => m.Count > 1).DistinctBy(m => string.Join("|", m.Select(u => inTime.IndexOf(u))))]
        );
    }

    // What is used up does not come back for the next use.
    private static IEnumerable<Need> NeedsOf(IReadOnlyList<Use> moment, IReadOnlyList<Use> all) =>
        moment
            .SelectMany(u => u.Activity.Materials)
            .GroupBy(m => m.Item.Id)
            .Select(g => new Need(
                g.First().Item,
                (g.First().Item.UsedUp ? all : moment).Sum(u => u.Activity.Materials.Where(m => m.Item.Id == g.Key).Sum(u.AmountOf)),
                g.Any(m => m.Alike)
            ));

    private static List<ToPrint> PrintsOf(IReadOnlyList<Use> uses, IReadOnlyList<SetOutLine> lines, Approach approach)
    {
        var missing = lines.Where(l => l.Printed).Select(l => l.Item.Id).ToHashSet();
        var things = uses.SelectMany(u =>
            u.Activity.Materials.Where(m => m.Print is not null && missing.Contains(m.Item.Id)).Select(m => new ToPrint(m.Print!, u, u.AmountOf(m), false))
        );
        var sheets =
            approach.Sheets == SheetUse.None
                ? []
                : uses.Where(u => u.Lesson && (u.Names.Count > 0 || approach.Sheets == SheetUse.EveryLesson))
                    .Select(u => new ToPrint(u.Activity.SheetPrint, u, u.Children, true));

        // A child's own page is printed for each; anything else once for the same numbers, whatever it is for, and as many as are wanted at most.
        return
        [
            .. things
                .Concat(sheets)
                .GroupBy(p =>
                    (
                        p.Sheet,
                        Range: HasNumbers(p.Sheet) ? p.Use.Range : (NumberRange?)null,
                        p.EachChild && SheetOffer.Of(p.Sheet.Kind).EachChild ? p.Use : null
                    )
                )
                .Select(g => g.First() with { Copies = g.Max(p => p.Copies) }),
        ];
    }

    private static bool HasNumbers(SheetChoice sheet) =>
        sheet is not ({ Variant: SheetVariant.Blank or SheetVariant.DoubleBlank or SheetVariant.Turns } or { Kind: SheetKind.GuessSlips });
}
