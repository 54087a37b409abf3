using Fobble.Core.ItemSets;
using Fobble.Core.Skills;

namespace Fobble.Core.Gates;

/// <summary>
/// Whether a slip would be noticed with the numbers of an item: whoever makes it must come to something else than what is right. "Gives the part in sight" shows
/// nothing where both parts are alike. Slips of manner (points, whispers, counts all) can be seen with any numbers and are not here.
/// </summary>
internal static class SlipShows
{
    private static readonly Dictionary<string, Func<ItemCase, bool?>> BySlip = new()
    {
        ["gives-seen"] = c => OfParts(c, (_, one, other) => one != other),
        ["gives-whole"] = c => OfParts(c, (_, one, other) => one != 0 && other != 0),
        ["only-whole"] = c => OfParts(c, (_, one, other) => one != 0 && other != 0),
        ["whole-again"] = c => OfParts(c, (_, one, other) => one != 0 && other != 0),
        ["keeps-both"] = c => OfParts(c, (whole, one, other) => whole > 10 && one is > 0 and < 10 && other is > 0 and < 10),
        ["one-only"] = c => OfParts(c, (_, one, other) => one != other),
        ["same-twice"] = c => OfParts(c, (_, one, other) => one != other),
        ["left-to-right"] = c => OfParts(c, (_, one, other) => one < other),
        ["from-first"] = c => OfParts(c, (_, one, other) => one < other),
        ["forgets-one"] = c => OfParts(c, (_, one, other) => one == 9 || other == 9),
        ["double-only"] = c => OfParts(c, (_, one, other) => one != other),
        ["says-taken"] = c => OfTaking(c, (from, gone) => gone != from - gone),
        ["other-part"] = c => OfTaking(c, (from, gone) => gone != from - gone),
        ["says-start"] = c => OfTaking(c, (_, gone) => gone > 0),
        ["stops-short"] = c => OfTaking(c, (_, gone) => gone > 1),
        ["adds-again"] = c => OfParts(c, (whole, _, _) => whole > 0),
        ["gives-larger"] = c => OfTwo(c, (one, other) => one != other),
        ["gives-all"] = c => OfTwo(c, (one, other) => Math.Abs(one - other) != one + other),
        ["taller"] = c => OfTwo(c, (one, other) => one != other),
        ["ones-first"] = c => OfTwo(c, (one, other) => one / 10 != other / 10 && one % 10 != other % 10 && (one / 10 > other / 10) != (one % 10 > other % 10)),
        ["first-numbers"] = c =>
            c.Form == CaseForm.Sums ? (c.Numbers[1] > c.Numbers[4]) != (c.Numbers[0] > c.Numbers[3]) || c.Numbers[1] == c.Numbers[4] : null,
        ["left-over"] = c => c.Form == CaseForm.Share ? c.Numbers[0] % c.Numbers[1] > 0 : null,
        ["pair-is-one"] = c => OfOne(c, n => n > 1),
        ["skips-fifteen"] = c => OfOne(c, n => n >= 15),
        ["skips-teen"] = c => OfOne(c, n => n >= 13),
        ["skips-seven"] = c => OfOne(c, n => n >= 7),
        ["two-hundred"] = c => OfOne(c, n => n > 100),
        ["writes-1001"] = c => OfOne(c, n => n > 100),
        ["drops-zero"] = c => OfOne(c, n => n > 100 && n / 10 % 10 == 0),
        ["loses-nought"] = c => OfOne(c, n => n >= 10 && (n % 10 == 0 || n / 10 % 10 == 0)),
        ["puts-beside"] = c => OfOne(c, n => n > 20 && n % 10 > 0),
        ["swaps"] = c => OfOne(c, n => n >= 10 && n / 10 != n % 10),
        ["turned"] = c => OfOne(c, n => n >= 10 && n / 10 != n % 10),
        ["face-value"] = c => OfOne(c, n => n >= 10),
        ["big-is-even"] = c => OfOne(c, n => n % 2 == 1),
        ["one-for-zero"] = c => OfOne(c, n => n == 0),
        ["one-more"] = c => c is { Form: CaseForm.Parts, Numbers: [_, var one, var other] } && one == other ? one > 1 : null,
        ["always-three"] = c => OfOne(c, n => n != 3),
    };

    /// <summary>Whether at least one of the items would show it; true also where nothing is known about the slip and these numbers.</summary>
    public static bool In(Slip slip, IReadOnlyList<Item> items)
    {
        if (!BySlip.TryGetValue(slip.Id, out var shows))
        {
            return true;
        }

        var known = items.Select(i => shows(i.Case)).OfType<bool>().ToList();
        return known.Count == 0 || known.Contains(true);
    }

    private static bool? OfOne(ItemCase c, Func<int, bool> shows) => c.Form == CaseForm.Number ? shows(c.Numbers[0]) : null;

    private static bool? OfTwo(ItemCase c, Func<int, int, bool> shows) => c.Form == CaseForm.Pair ? shows(c.Numbers[0], c.Numbers[1]) : null;

    private static bool? OfTaking(ItemCase c, Func<int, int, bool> shows) => c.Form == CaseForm.Take ? shows(c.Numbers[0], c.Numbers[1]) : null;

    private static bool? OfParts(ItemCase c, Func<int, int, int, bool> shows) =>
        c is { Form: CaseForm.Parts, Numbers: [var whole, var one, var other] } ? shows(whole, one, other) : null;
}
