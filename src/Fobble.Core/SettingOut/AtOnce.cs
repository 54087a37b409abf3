using Fobble.Core.Activities;
using Fobble.Core.Cupboard;
using Fobble.Core.Skills;

namespace Fobble.Core.SettingOut;

/// <summary>Which small groups can't work at the same time, because the cupboard has not enough for both (rule R14).</summary>
public static class AtOnce
{
    /// <param name="groups">For each skill what a group does: its activity, set to a number range, for as many children as a group may have. Times don't matter.</param>
    /// <returns>Pairs of skills, the smaller id first; a skill with itself where two groups can't both do it. One that is short by itself is in no pair: that is told when things are set out.</returns>
    public static IReadOnlySet<(SkillId, SkillId)> Clashes(IReadOnlyList<(SkillId Skill, Use Use)> groups, IReadOnlyList<StockLine> stock)
    {
        ArgumentNullException.ThrowIfNull(groups);
        Supply cupboard = new(stock);
        var possible = groups.OrderBy(g => g.Skill).Select(g => (g.Skill, Needs: NeedsOf(g.Use))).Where(g => Enough(g.Needs, cupboard)).ToList();
        return possible
            .SelectMany(
                (one, i) => possible.Skip(i).Where(other => !Enough([.. one.Needs, .. other.Needs], cupboard)).Select(other => (one.Skill, other.Skill))
            )
            .ToHashSet();
    }

    // What a page can be printed for is never short.
    private static IReadOnlyList<Need> NeedsOf(Use use) =>
        [.. use.Activity.Materials.Where(m => m.Print is null && !m.Item.UsedUp).Select(m => new Need(m.Item, use.AmountOf(m), m.Alike))];

    private static bool Enough(IReadOnlyList<Need> needs, Supply cupboard)
    {
        var supply = cupboard.Afresh();
        return needs.GroupBy(n => n.Item.Id).All(g => supply.Meet(new(g.First().Item, g.Sum(n => n.Amount), g.Any(n => n.Alike))).StillShort == 0);
    }
}
