using Fobble.Core.Activities;
using Fobble.Core.Chance;
using Fobble.Core.Cupboard;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Sheets;

namespace Fobble.Core.Gates;

/// <summary>
/// Plays an activity out with a set of items it will really get: lays things out, deals cards, says the words, rolls the dice, walks the path. What can't be
/// done with the things on the list, or not in the minutes, is a fault.
/// </summary>
public static class PlayingGate
{
    /// <summary>Setting: seconds to move one thing and say its number; to say one number word; to ask an item and hear the answer.</summary>
    private const double SecondsAThing = 1,
        SecondsAWord = 0.7,
        SecondsAnItem = 8;

    /// <summary>Minutes may be off by half (and a minute).</summary>
    private const double OffBy = 1.5;
    private const double LeastShare = 0.5;
    private const int LongestGame = 30;
    private const int Fingers = 10;

    private static readonly HashSet<ItemKind> LaidWithThings =
    [
        ItemKind.HowMany,
        ItemKind.Give,
        ItemKind.HeapsOfTen,
        ItemKind.HiddenPart,
        ItemKind.EmptyPart,
        ItemKind.Spill,
        ItemKind.Ring,
        ItemKind.FewerInRing,
        ItemKind.CompareSets,
        ItemKind.SameSets,
        ItemKind.FewerInSets,
        ItemKind.HowManyMore,
        ItemKind.EvenOdd,
        ItemKind.ShareEqually,
        ItemKind.Adding,
        ItemKind.TakingAway,
        ItemKind.TurnRound,
        ItemKind.Undo,
        ItemKind.NearDoubles,
        ItemKind.MakeTen,
        ItemKind.PlusNine,
        ItemKind.CountOn,
        ItemKind.FromLarger,
        ItemKind.CountBack,
        ItemKind.BackThroughTen,
        ItemKind.SplitTeen,
        ItemKind.ThreeAddends,
    ];

    private static readonly HashSet<ItemKind> BuiltWithBlocks =
    [
        ItemKind.TensAndOnes,
        ItemKind.WrittenOut,
        ItemKind.WholeTens,
        ItemKind.AddKinds,
        ItemKind.TenMore,
        ItemKind.TakeTens,
    ];

    /// <param name="items">As the session gets them.</param>
    /// <param name="children">In one small group, or on the carpet.</param>
    /// <returns>What can't be done, in words for people who write content; empty for what can be played.</returns>
    public static IReadOnlyList<string> Faults(Activity activity, ActivitySkill setting, IReadOnlyList<Item> items, int children)
    {
        ArgumentNullException.ThrowIfNull(activity);
        ArgumentNullException.ThrowIfNull(setting);
        ArgumentNullException.ThrowIfNull(items);
        int Amount(Material material) => material.Amount.For(setting.Range.High, children);
        int Of(string item) => activity.Materials.Where(m => m.Item.Id.Value == item).Sum(Amount);
        int OfPurpose(Purpose purpose) => activity.Materials.Where(m => m.Item.Purpose == purpose).Sum(Amount);
        return
        [
            .. activity.Game is { } game ? Rolled(game, activity, setting, children) : Timed(activity, setting, items),
            .. items.SelectMany(item => Laid(activity, setting.Items, item, OfPurpose(Purpose.Counting) + OfPurpose(Purpose.Joining))).Take(1),
            .. items.SelectMany(item => Built(setting.Items, item, Of)).Take(1),
            .. items.SelectMany(item => Dealt(activity, setting, item, Of("numeral-cards"))).Take(1),
            .. items.SelectMany(item => Shown(setting, item)).Take(1),
        ];
    }

    private static IEnumerable<string> Rolled(Game game, Activity activity, ActivitySkill setting, int children)
    {
        if (game.MinutesFor(children) is not { } minutes || minutes > LongestGame)
        {
            yield return $"with {children} children the game takes {game.MinutesFor(children)?.ToString() ?? "no end of"} minutes";
        }

        // What the dice give has to be what the skill is about: the sum, or the number that is taken from.
        var throws = new Throws(game.Dice, game.Operation);
        var within = game.Operation switch
        {
            DiceOperation.TakeAway => game.Dice[0].Faces.Count(setting.Range.Contains) / (double)game.Dice[0].Faces.Count,
            DiceOperation.Add when game.Dice.Count > 1 => throws.Results.Where(r => setting.Range.Contains(r.Result)).Sum(r => r.Share),
            _ => 1,
        };
        if (within < LeastShare)
        {
            yield return $"{within:P0} of the throws are in {setting.Range}";
        }

        if (activity.SheetPrint.Kind == SheetKind.NumberPath && !activity.RangeOn(SheetKind.NumberPath, setting.Range).Contains(game.Target))
        {
            yield return $"the printed path {activity.RangeOn(SheetKind.NumberPath, setting.Range)} ends before the game does at {game.Target}";
        }
    }

    private static IEnumerable<string> Timed(Activity activity, ActivitySkill setting, IReadOnlyList<Item> items)
    {
        var seconds = items.Sum(i => SecondsAnItem + Effort(setting.Items, i.Case.Numbers));
        if (seconds > ((activity.Minutes * OffBy) + 1) * 60)
        {
            yield return $"{items.Count} items take about {seconds / 60:0} minutes, not {activity.Minutes}";
        }
    }

    private static double Effort(ItemKind kind, IReadOnlyList<int> numbers) =>
        kind switch
        {
            ItemKind.SayTo or ItemKind.SayBack => numbers[0] * SecondsAWord,
            ItemKind.CountTens => numbers[0] / 10 * SecondsAWord,
            ItemKind.CountFives => numbers[0] / 5 * SecondsAWord,
            ItemKind.CountTwos => numbers[0] / 2 * SecondsAWord,
            ItemKind.HowMany or ItemKind.Give or ItemKind.HeapsOfTen or ItemKind.EvenOdd or ItemKind.ShareEqually => numbers[0] * SecondsAThing,
            _ => 0,
        };

    // Things to lay: as many as the largest number of the item, wherever the activity has things and the item is laid with them.
    private static IEnumerable<string> Laid(Activity activity, ItemKind kind, Item item, int there)
    {
        var needed = item.Case.Form == CaseForm.Pair ? item.Case.Numbers.Sum() : item.Case.Numbers[0];
        if (LaidWithThings.Contains(kind) && there > 0 && needed > there && activity.Materials.All(m => m.Item.Purpose is not Purpose.Blocks))
        {
            yield return $"{item.Ask}: {needed} things are needed, {there} are there";
        }
    }

    // Hundreds, tens and ones to build numbers with, and cards to write them.
    private static IEnumerable<string> Built(ItemKind kind, Item item, Func<string, int> of)
    {
        var numbers = item.Case.Form is CaseForm.Parts && item.Case.Numbers.Count == 3 ? item.Case.Numbers.Skip(1).ToList() : [item.Case.Numbers[0]];
        var values = numbers.Select(n => PlaceValue.Of(n)).ToList();
        (string Item, int Needed)[] needs =
        [
            ("hundred-plates", values.Sum(v => v.Hundreds)),
            ("ten-rods", values.Sum(v => v.Tens)),
            ("unit-blocks", values.Sum(v => v.Ones)),
        ];
        var blocks = BuiltWithBlocks.Contains(kind) && needs.Any(n => of(n.Item) > 0);
        foreach (var (thing, needed) in needs)
        {
            if (blocks && needed > of(thing))
            {
                yield return $"{item.Ask}: {needed} {thing} are needed, {of(thing)} are there";
            }
        }

        // A full set has nine cards of each kind.
        var places = values.Max(v => v.Hundreds > 0 ? 3 : 2);
        if (of("place-value-cards") is > 0 and var cards && BuiltWithBlocks.Contains(kind) && places * 9 > cards && values.Any(v => v.Number >= 20))
        {
            yield return $"{item.Ask}: {places * 9} place-value cards are needed, {cards} are there";
        }
    }

    // Two numbers that are alike need two cards.
    private static IEnumerable<string> Dealt(Activity activity, ActivitySkill setting, Item item, int cards)
    {
        var twice = item.Case.Form == CaseForm.Parts && item.Case.Numbers.Skip(1).Distinct().Count() < item.Case.Numbers.Count - 1;
        if (
            twice
            && setting.Items == ItemKind.Adding
            && cards is > 0
            && cards < 2 * setting.Range.High
            && activity.Materials.All(m => m.Item.Purpose != Purpose.Dominoes)
        )
        {
            yield return $"{item.Ask} needs a numeral twice, and there are {cards} cards";
        }
    }

    private static IEnumerable<string> Shown(ActivitySkill setting, Item item)
    {
        if (setting.Items == ItemKind.ShowFingers && item.Case.Numbers[0] > Fingers)
        {
            yield return $"{item.Ask}: nobody has so many fingers";
        }
    }
}
