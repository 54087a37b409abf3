using Fobble.Core.Activities;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;

namespace Fobble.Core.Gates;

/// <summary>
/// Weighs a set of items against the skill it is for: zero only where zero is a number already, numbers the skill works with, its point in at least half of the
/// items, next to none that ask nothing, and wrong answers that children really give.
/// </summary>
public static class WeighingGate
{
    /// <summary>In so many items of a set at least the skill's point has to come up.</summary>
    public const double LeastShare = 0.5;

    /// <summary>No more than this share may be alike on both sides, or take none or all, unless that is the point.</summary>
    public const double MostTrivial = 0.25;

    private static readonly Dictionary<string, (string Point, Func<Item, bool> Has)> Points = new()
    {
        ["strategy.from-larger"] = ("the smaller number first", i => Added(i) is { } s && s.First < s.Second),
        ["strategy.count-on"] = ("one, two or three to go on", i => Added(i) is { } s && s.Second <= 3),
        ["strategy.near-doubles"] = ("a double that is known, to five and five", i =>
            Added(i) is { } s && Math.Abs(s.First - s.Second) == 1 && Math.Min(s.First, s.Second) <= 5
        ),
        ["strategy.make-ten-9"] = ("a nine", i => Added(i) is { } s && Math.Max(s.First, s.Second) == 9 && s.Total > 10),
        ["strategy.make-ten"] = ("a sum over ten", i => Added(i) is { Total: > 10 }),
        ["strategy.plus-nine"] = ("a nine to add", i => Added(i) is { } s && (s.First == 9 || s.Second == 9)),
        ["strategy.back-through-ten"] = ("a step down over ten", i =>
            i.Case is { Form: CaseForm.Take } c && c.Numbers[0] > 10 && c.Numbers[0] - c.Numbers[1] < 10
        ),
        ["take.zero"] = ("none or all", i => i.Case.Form == CaseForm.Take && i.Case.Numbers[1] is var gone && (gone == 0 || gone == i.Case.Numbers[0])),
        ["bond.zero-part"] = ("an empty part", i => i.Case.Numbers.Contains(0)),
        ["compare.fewer-10"] = ("where there are fewer", i =>
            i.Answer.StartsWith("fewer", StringComparison.Ordinal)
            || i.Answer.StartsWith("less", StringComparison.Ordinal)
            || i.Answer.StartsWith("the same", StringComparison.Ordinal)
        ),
    };

    /// <returns>What is wrong with the set, in words for people who write content; empty for a sound one.</returns>
    public static IReadOnlyList<string> Faults(SkillMap map, ActivitySkill setting, IReadOnlyList<Item> items)
    {
        ArgumentNullException.ThrowIfNull(map);
        ArgumentNullException.ThrowIfNull(setting);
        ArgumentNullException.ThrowIfNull(items);
        List<string> faults = [];
        if (!map.KnowsZero(setting.Skill) && items.FirstOrDefault(i => i.HasZero) is { } zero)
        {
            faults.Add($"zero before it was taught: {zero.Ask} {zero.Answer}");
        }

        if (Points.TryGetValue(setting.Skill.Value, out var point) && items.Count(point.Has) < LeastShare * items.Count)
        {
            faults.Add($"{point.Point} in {items.Count(point.Has)} of {items.Count} only, for instance not in {items.First(i => !point.Has(i)).Ask}");
        }

        foreach (var slip in map[setting.Skill].Slips.Where(s => s.Confuses is { } c && !setting.Range.Contains(c.One) && !setting.Range.Contains(c.Other)))
        {
            faults.Add($"the slip '{slip.Text}' can't be seen with {setting.Range}");
        }

        foreach (var slip in map[setting.Skill].Slips.Where(s => !SlipShows.In(s, items)))
        {
            faults.Add($"the slip '{slip.Text}' comes to what is right in every item, for instance in {items[0].Ask}");
        }

        if (setting.Skill.Value is not ("take.zero" or "bond.zero-part" or "compare.same") && items.Count(AsksNothing) > Math.Max(1, MostTrivial * items.Count))
        {
            faults.Add($"{items.Count(AsksNothing)} of {items.Count} ask nothing, for instance {items.First(AsksNothing).Ask}");
        }

        if (items.FirstOrDefault(i => Slip(i) is { } slip && !i.Distractors.Contains(slip)) is { } offered && offered.Distractors.Count > 0)
        {
            faults.Add($"{offered.Ask}: {string.Join(", ", offered.Distractors)} are offered, {Slip(offered)} is what children say");
        }

        return faults;
    }

    // The number that a number of two digits is most often taken for.
    private static int? Slip(Item item) => item.Value > 12 && Confusion.TakenFor(item.Value).Any() ? Confusion.TakenFor(item.Value).First() : null;

    private static Split? Added(Item item) =>
        item.Case.Form == CaseForm.Parts && item.Case.Numbers.Count == 3 ? new Split(item.Case.Numbers[1], item.Case.Numbers[2]) : null;

    private static bool AsksNothing(Item item) =>
        item.Case switch
        {
            { Form: CaseForm.Pair } c => c.Numbers[0] == c.Numbers[1],
            { Form: CaseForm.Take } c => c.Numbers[1] == 0 || c.Numbers[0] == c.Numbers[1],
            { Form: CaseForm.Parts } c => c.Numbers.Skip(1).Contains(0),
            _ => false,
        };
}
