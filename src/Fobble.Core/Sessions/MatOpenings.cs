using Fobble.Core.ItemSets;
using Fobble.Core.Mats;
using Fobble.Core.Stories;

namespace Fobble.Core.Sessions;

/// <summary>Where an item's mat opens ready laid, as the rest of an address after the class's <c>/mats/</c>.</summary>
public static class MatOpenings
{
    /// <returns>Null for items that nothing is laid out for.</returns>
    public static string? For(ItemKind kind, Item item)
    {
        ArgumentNullException.ThrowIfNull(item);
        var numbers = item.Case.Numbers;
        return kind switch
        {
            ItemKind.CountRing => Look(LookLayout.Circle, item.Value),
            ItemKind.HowMany or ItemKind.SeeScattered or ItemKind.Guess => Look(LookLayout.Scattered, item.Value),
            ItemKind.SeeDice => Look(LookLayout.Dice, item.Value),
            ItemKind.Frame or ItemKind.FramePairs => Look(LookLayout.Frame, numbers[0]),
            ItemKind.ShowFingers => Look(LookLayout.Fingers, item.Value),
            ItemKind.TornTicket => Look(LookLayout.Ticket, item.Value),
            ItemKind.Spaces => Laid(numbers[0] + item.Value == 5 ? MatKind.FiveFrame : MatKind.TenFrame, numbers[0], 0),
            ItemKind.HiddenPart or ItemKind.EmptyPart => Laid(MatKind.Bond, numbers[1], numbers[2], covered: 2),
            ItemKind.BondPart or ItemKind.MissingAddend => Laid(MatKind.Bond, numbers[1], numbers[2], covered: 2),
            ItemKind.Doubles => Laid(MatKind.TwoRows, numbers[0], numbers[0]),
            ItemKind.CompareSets or ItemKind.SameSets or ItemKind.FewerInSets => Laid(MatKind.TwoRows, numbers[0], numbers[1]),
            ItemKind.Spill => Laid(MatKind.Bond, numbers[1], numbers[2]),
            ItemKind.Ring or ItemKind.FewerInRing => Laid(MatKind.Ring, numbers[1], numbers[2]),
            ItemKind.Wells => Laid(MatKind.Tray, numbers[0], 0),
            ItemKind.SayTo or ItemKind.SayOn or ItemKind.SayBack or ItemKind.Numeral or ItemKind.WriteNumeral => Path(numbers[0], ""),
            ItemKind.OneMore => Path(numbers[0], "1"),
            ItemKind.OneFewer or ItemKind.OneLess => Path(numbers[0], "-1"),
            ItemKind.Adding => $"sums?a={numbers[1]}&b={numbers[2]}",
            ItemKind.TakingAway => TakeFrom(numbers),
            _ => ForWorked(kind, item, numbers),
        };
    }

    // Items that are worked out: sums by their strategy, stories, tens and ones.
    private static string? ForWorked(ItemKind kind, Item item, IReadOnlyList<int> numbers) =>
        kind switch
        {
            ItemKind.SayBackOn or ItemKind.OnTheLine or ItemKind.NearestTen or ItemKind.NumberWord => Path(numbers[0], ""),
            ItemKind.CountTens or ItemKind.CountTwos or ItemKind.CountFives => Path(0, ""),
            ItemKind.HeapsOfTen or ItemKind.WholeTens or ItemKind.TensAndOnes or ItemKind.WrittenOut or ItemKind.TenMore => $"kinds?number={numbers[0]}",
            ItemKind.AddOnes or ItemKind.AddTens or ItemKind.AddKinds => $"kinds?number={numbers[1]}&other={numbers[2]}",
            ItemKind.TakeTens => $"kinds?number={numbers[0]}&operation=TakeAway&other={numbers[1]}",
            ItemKind.HowManyMore or ItemKind.CompareSigns => numbers.Max() <= 10 ? Laid(MatKind.TwoRows, numbers[0], numbers[1]) : null,
            ItemKind.EvenOdd => numbers[0] <= 10 ? Laid(MatKind.TenFrame, numbers[0], 0) : null,
            ItemKind.TenAnd => Laid(MatKind.TwoTenFrames, 10, numbers[0] - 10),
            ItemKind.OpenParts => Laid(MatKind.Bond, numbers[0], 0),
            ItemKind.FactFamily => Laid(MatKind.Bond, numbers[1], numbers[2]),
            ItemKind.NoneOrAll or ItemKind.CountBack or ItemKind.TeenLess or ItemKind.BackThroughTen => TakeFrom(numbers),
            ItemKind.TurnRound
            or ItemKind.Undo
            or ItemKind.CountOn
            or ItemKind.FromLarger
            or ItemKind.PlusNine
            or ItemKind.MakeTen
            or ItemKind.NearDoubles
            or ItemKind.ChooseWay
            or ItemKind.SplitTeen => $"sums?a={numbers[1]}&b={numbers[2]}",
            ItemKind.StoryTotal => Story(StoryKind.AddToResult, "lanterns", numbers),
            ItemKind.StoryLeft => Story(StoryKind.TakeFromResult, "lanterns", numbers),
            ItemKind.StoryCame => Story(StoryKind.AddToChange, "wagons", numbers),
            ItemKind.StoryPart => Story(StoryKind.TogetherAddend, "wagons", numbers),
            ItemKind.StoryWent => Story(StoryKind.TakeFromChange, "kites", numbers),
            ItemKind.StoryAtFirst => Story(StoryKind.TakeFromStart, "kites", numbers),
            ItemKind.StoryCameAtFirst => Story(StoryKind.AddToStart, "wagons", numbers),
            ItemKind.StoryLarger => Story(StoryKind.CompareBiggerMore, "lanterns", numbers),
            ItemKind.StorySmaller => Story(StoryKind.CompareSmallerFewer, "lanterns", numbers),
            ItemKind.StoryCompare => Story(StoryKind.CompareDifferenceMore, "lanterns", numbers),
            _ => null,
        };

    private static string TakeFrom(IReadOnlyList<int> numbers) => $"sums?a={numbers[0]}&op=TakeAway&b={numbers[1]}";

    // The very story of the card: its numbers, and the things it tells of.
    private static string Story(StoryKind kind, string of, IReadOnlyList<int> numbers) =>
        $"story?kind={kind}&of={of}&low={numbers[0]}&high={numbers[0]}&first={numbers[1]}&seed={numbers[0]}";

    private static string? Look(LookLayout layout, int number) =>
        number < 1 || number > QuickLook.Most(layout) ? null : $"look?layout={layout}&number={number}&seed={number}";

    private static string? Laid(MatKind kind, int first, int more, int? covered = null)
    {
        var laid = MatDeeds.Do(MatState.Empty(kind), new(MatDeed.Deal, First: first, More: more));
        var state = covered is { } zone ? MatDeeds.Do(laid.State, new(MatDeed.Cover, Zone: zone)).State : laid.State;
        return laid.Refused is null ? $"counters/{kind}?state={state}" : null;
    }

    private static string Path(int number, string hops) =>
        number > 100
            ? $"path?low=100&high=120&start={number}&hops={hops}"
            : $"path?low=0&high={(number < 10 ? 10 : number < 20 ? 20 : 100)}&start={number}&hops={hops}";
}
