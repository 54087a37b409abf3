using Fobble.Core.ItemSets;
using Fobble.Core.Mats;

namespace Fobble.Server.Features.Mats;

/// <summary>Where an item's mat opens ready laid, as the rest of an address after the class's <c>/mats/</c>.</summary>
internal static class MatOpenings
{
    /// <returns>Null for items that nothing is laid out for.</returns>
    public static string? For(ItemKind kind, Item item)
    {
        var numbers = NumbersOf(item.Key);
        return kind switch
        {
            ItemKind.HowMany or ItemKind.SeeScattered or ItemKind.Guess => Look(LookLayout.Scattered, item.Value),
            ItemKind.SeeDice => Look(LookLayout.Dice, item.Value),
            ItemKind.Frame => Look(LookLayout.Frame, numbers[0]),
            ItemKind.ShowFingers => Look(LookLayout.Fingers, item.Value),
            ItemKind.TornTicket => Look(LookLayout.Ticket, item.Value),
            ItemKind.Spaces => Laid(numbers[0] + item.Value == 5 ? MatKind.FiveFrame : MatKind.TenFrame, numbers[0], 0),
            ItemKind.HiddenPart => Laid(MatKind.Bond, numbers[1], numbers[2], covered: 2),
            ItemKind.BondPart or ItemKind.MissingAddend => Laid(MatKind.Bond, numbers[1], numbers[2], covered: 2),
            ItemKind.Doubles => Laid(MatKind.TwoRows, numbers[0], numbers[0]),
            ItemKind.CompareSets => Laid(MatKind.TwoRows, numbers[0], numbers[1]),
            ItemKind.Ring => Laid(MatKind.Ring, numbers[1], numbers[2]),
            ItemKind.Wells => Laid(MatKind.Tray, numbers[0], 0),
            ItemKind.SayTo or ItemKind.SayOn or ItemKind.SayBack or ItemKind.Numeral or ItemKind.WriteNumeral => Path(numbers[0], ""),
            ItemKind.OneMore => Path(numbers[0], "1"),
            ItemKind.OneFewer => Path(numbers[0], "-1"),
            ItemKind.Adding => $"sums?a={numbers[1]}&b={numbers[2]}",
            ItemKind.TakingAway => $"sums?a={numbers[0]}&op=TakeAway&b={numbers[1]}",
            _ => null,
        };
    }

    private static string? Look(LookLayout layout, int number) => number < 1 || number > QuickLook.Most(layout) ? null : $"look?layout={layout}&number={number}&seed={number}";

    private static string? Laid(MatKind kind, int first, int more, int? covered = null)
    {
        var laid = MatDeeds.Do(MatState.Empty(kind), new(MatDeed.Deal, First: first, More: more));
        var state = covered is { } zone ? MatDeeds.Do(laid.State, new(MatDeed.Cover, Zone: zone)).State : laid.State;
        return laid.Refused is null ? $"counters/{kind}?state={state}" : null;
    }

    private static string Path(int number, string hops) => $"path?low=0&high={(number < 10 ? 10 : number < 20 ? 20 : 100)}&start={number}&hops={hops}";

    // The numbers of a key in their order: 5=2+3 gives 5, 2, 3.
    private static int[] NumbersOf(string key) => [.. key.Split([':', '=', '+', '-']).Where(t => t.Length > 0 && t.All(char.IsAsciiDigit)).Select(t => int.Parse(t, System.Globalization.CultureInfo.InvariantCulture))];
}
