using System.Text.RegularExpressions;
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

    /// <summary>Setting: seconds an item takes where every child of the group has a turn at it and all of them talk it over; and to gather and to clear away.</summary>
    private const double SlowestItem = 60,
        AroundIt = 120;

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

    // Words that name a thing, and what on the list may be meant by them.
    private static readonly (Regex Named, Purpose[] Meant)[] Things =
    [
        (new(@"\bbell\b|\bdrum\b"), [Purpose.Sound]),
        (new(@"^Roll\b|\b(dice|die)\b"), [Purpose.Dice]),
        (new(@"(?<!and )\bsticks\b|\bbands?\b"), [Purpose.Joining]),
        (new(@"\bcards?\b"), [Purpose.NumeralCards, Purpose.DotCards, Purpose.HalfCards, Purpose.PlaceValueCards]),
        (new(@"\bframes?\b"), [Purpose.TenFrame, Purpose.FiveFrame]),
        (new(@"\bcounters?\b|\bcubes?\b"), [Purpose.Counting]),
        (new(@"\bcloth\b|\blid\b"), [Purpose.Cover]),
        (new(@"\bbalance\b"), [Purpose.Scales]),
        (new(@"\bpath\b"), [Purpose.Path, Purpose.Line]),
        (new(@"\bboards?\b"), [Purpose.Paper, Purpose.Path]),
        (new(@"\bbox(es)?\b|\bbaskets?\b|\bbags?\b"), [Purpose.Container]),
        (new(@"\btins?\b"), [Purpose.Tins]),
        (new(@"\btrays?\b|\bwells?\b(?! done)"), [Purpose.Tray]),
        (new(@"\bcoins?\b"), [Purpose.Money]),
        (new(@"\bdomino(es)?\b"), [Purpose.Dominoes]),
        (new(@"\brods?\b|\bplates?\b"), [Purpose.Blocks]),
        (new(@"\bmat\b"), [Purpose.BondMat, Purpose.Path]),
        (new(@"\bpaper\b|\b[Ww]rites?\b(?!.* air)"), [Purpose.Paper, Purpose.Writing, Purpose.Slips]),
    ];

    private static readonly Regex SoMany = new(
        @"\b(?<many>two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|twenty)\s(?:more\s)?(?<thing>dice|cards|frames|counters|cubes|boxes|baskets|bags|tins|trays|coins|rods|plates|dominoes|sticks|boards)\b",
        RegexOptions.IgnoreCase
    );
    private static readonly Regex MovesAcross = new(@"\bmoves? (one|some)\b.*\b(level|balance|equal|as many|the same)", RegexOptions.IgnoreCase);

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
            .. Named(activity),
            .. activity.Prepare.Concat(activity.Steps).SelectMany(line => Handled(line, activity, Amount)),
            .. activity.Steps.SelectMany(step => Levelled(step, items)).Take(1),
            .. activity.Game is { } game ? Rolled(game, activity, setting, children) : Timed(activity, setting, items),
            .. items.SelectMany(item => Laid(activity, setting.Items, item, OfPurpose(Purpose.Counting) + OfPurpose(Purpose.Joining))).Take(1),
            .. items.SelectMany(item => Built(setting.Items, item, Of)).Take(1),
            .. items.SelectMany(item => Dealt(activity, setting, item, Of("numeral-cards"))).Take(1),
            .. items.SelectMany(item => Shown(setting, item)).Take(1),
        ];
    }

    private static IEnumerable<string> Named(Activity activity) =>
        from line in activity.Prepare.Concat(activity.Steps)
        from thing in Things
        let word = thing.Named.Match(line)
        where word.Success && !activity.Materials.Any(m => thing.Meant.Contains(m.Item.Purpose))
        select $"'{line}': no {word.Value.ToLowerInvariant()} is on the list";

    // A line that takes so many of a thing in hand needs as many on the list: "roll two dice", "lay ten sticks".
    private static IEnumerable<string> Handled(string line, Activity activity, Func<Material, int> amount)
    {
        foreach (Match match in SoMany.Matches(line))
        {
            var needed = Enumerable.Range(2, 19).First(n => match.Groups["many"].Value.Equals(NumberWords.Of(n), StringComparison.OrdinalIgnoreCase));
            var meant = Things.Where(t => t.Named.IsMatch(match.Groups["thing"].Value)).SelectMany(t => t.Meant).ToList();
            var there = activity.Materials.Where(m => meant.Contains(m.Item.Purpose)).Sum(amount);
            if (there > 0 && needed > there)
            {
                yield return $"'{line}': {needed} {match.Groups["thing"].Value} are needed, {there} are there";
            }
        }
    }

    // One thing moved across changes both sides: sides that differ by an odd number never come level.
    private static IEnumerable<string> Levelled(string step, IReadOnlyList<Item> items)
    {
        if (MovesAcross.IsMatch(step))
        {
            foreach (var item in items.Where(i => i.Case is { Form: CaseForm.Pair or CaseForm.Sums } && Difference(i.Case) % 2 == 1))
            {
                yield return $"'{step}': {item.Ask} can't come level";
            }
        }
    }

    private static int Difference(ItemCase c) => Math.Abs(c.Numbers[0] - c.Numbers[c.Form == CaseForm.Sums ? 3 : 1]);

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

        if (FactsMet(game, setting.Range) is < LeastShare and var met)
        {
            yield return $"{met:P0} of the facts in {setting.Range} can come up at all";
        }

        if (activity.SheetPrint.Kind == SheetKind.NumberPath && !activity.RangeOn(SheetKind.NumberPath, setting.Range).Contains(game.Target))
        {
            yield return $"the printed path {activity.RangeOn(SheetKind.NumberPath, setting.Range)} ends before the game does at {game.Target}";
        }
    }

    // Of all sums (whichever comes first) or take-aways with numbers of the range, those that two dice can show; null where they show no facts.
    private static double? FactsMet(Game game, NumberRange range)
    {
        if (game.Dice.Count != 2 || game.Operation == DiceOperation.PlusOrMinus)
        {
            return null;
        }

        var (one, other) = (game.Dice[0].Faces, game.Dice[1].Faces);
        var adds = game.Operation == DiceOperation.Add;
        var facts = range
            .Numbers.SelectMany(whole =>
                adds
                    ? Enumerable.Range(0, (whole / 2) + 1).Select(part => (First: part, Second: whole - part))
                    : Enumerable.Range(0, whole + 1).Select(gone => (First: whole, Second: gone))
            )
            .ToList();
        return facts.Count(f => (one.Contains(f.First) && other.Contains(f.Second)) || (adds && one.Contains(f.Second) && other.Contains(f.First)))
            / (double)facts.Count;
    }

    private static IEnumerable<string> Timed(Activity activity, ActivitySkill setting, IReadOnlyList<Item> items)
    {
        var seconds = items.Sum(i => SecondsAnItem + Effort(setting.Items, i.Case.Numbers));
        if (seconds > ((activity.Minutes * OffBy) + 1) * 60)
        {
            yield return $"{items.Count} items take about {seconds / 60:0} minutes, not {activity.Minutes}";
        }

        var slowly = AroundIt + items.Sum(i => SlowestItem + (2 * Effort(setting.Items, i.Case.Numbers)));
        if (items.Count > 0 && activity.Minutes * 60 > slowly * OffBy)
        {
            yield return $"{items.Count} items are over in {slowly / 60:0} minutes at most, not {activity.Minutes}";
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
