using Fobble.Core.Evidence;

namespace Fobble.Core.Grouping;

/// <summary>Why a child is not at a table.</summary>
/// <param name="Instead">The best set in which the child is there; null where there is none.</param>
/// <param name="Price">Points by which that set is worse; below zero where groups changed by hand can be bettered.</param>
public sealed record WhyNotAnswer(string Sentence, GroupingResult? Instead, int? Price);

/// <summary>Answers "why not there?" by finding the best set of groups in which the child is there: the difference is the price.</summary>
public static class WhyNot
{
    private const int MostNamed = 4;

    /// <param name="groups">The groups as they stand.</param>
    /// <param name="slot">Place of the table that is asked for.</param>
    public static WhyNotAnswer Ask(
        GroupingProblem problem,
        IReadOnlyList<FormedGroup> groups,
        ChildId child,
        int slot,
        GroupingBrief brief,
        GroupNames names,
        CancellationToken stop = default
    )
    {
        ArgumentNullException.ThrowIfNull(problem);
        ArgumentNullException.ThrowIfNull(groups);
        ArgumentNullException.ThrowIfNull(brief);
        ArgumentNullException.ThrowIfNull(names);
        var name = names.Child(child);
        if (groups.FirstOrDefault(g => g.Slot == slot) is not { } table)
        {
            return new(Phrase("No group sits there."), null, null);
        }

        if (table.Children.Contains(child))
        {
            return new(Phrase($"{name} is there. {Reasons.ForPlaced(child, table.Skill, brief)}"), null, null);
        }

        if (problem.Children.FirstOrDefault(c => c.Child == child) is not { } candidate)
        {
            return new(Phrase($"{name} has had a turn in this week’s groups already."), null, null);
        }

        if (!candidate.Worths.TryGetValue(table.Skill, out var there))
        {
            return new(
                $"{Words.Stopped(Phrase($"{Words.Capital(names.Skill(table.Skill))} is no next step for {name}"))} {brief.Evidence.ReadyBecause(child, table.Skill)}",
                null,
                null
            );
        }

        if (candidate.AwayIn.Contains(slot))
        {
            return new(Phrase($"{name} is not in class at that time."), null, null);
        }

        Wish[] asked = [new SeatWish(child, slot), new AimWish(table.Skill, slot)];
        var instead = Grouper.Form(problem with { Rules = problem.Rules with { Wishes = [.. problem.Rules.Wishes, .. asked] } }, stop);
        if (instead.Groups.Count == 0)
        {
            var against = instead.Conflict.Except(asked).Select(w => w.InWords(names)).ToList();
            return new(
                against.Count == 0
                    ? Phrase("No set of groups has the child at that table: too few others could sit there.")
                    : Phrase($"It can’t be as long as {Words.List(against)}."),
                null,
                null
            );
        }

        var price = GroupScore.Of(problem, groups) - instead.Score;
        var here =
            groups.FirstOrDefault(g => g.Children.Contains(child)) is { } own
            && own.Skill != table.Skill
            && candidate.Worths.TryGetValue(own.Skill, out var now)
                ? Phrase($" By itself {names.Skill(table.Skill)} counts {there.Total} points for {name}, {names.Skill(own.Skill)} {now.Total}.")
                : "";
        var verdict = price switch
        {
            > 0 => Phrase($"With {name} there the best set is {Words.Count(price, "point", "points")} worse."),
            0 => Phrase($"A set with {name} there is just as good."),
            _ => Phrase($"A set with {name} there is {Words.Count(-price, "point", "points")} better than the groups as they stand."),
        };
        return new(verdict + here + Others(groups, instead.Groups, child, names), instead, price);
    }

    private static string Others(IReadOnlyList<FormedGroup> before, IReadOnlyList<FormedGroup> after, ChildId child, GroupNames names)
    {
        var moved = GroupChanges.Aims(before, after).Where(m => m.Child != child).ToList();
        if (moved.Count == 0)
        {
            return Phrase(" Nobody else’s aim changes.");
        }

        var told = moved
            .Take(MostNamed)
            .Select(m => m.To is { } to ? Phrase($"{names.Child(m.Child)} works on {names.Skill(to)}") : Phrase($"{names.Child(m.Child)} has no turn"))
            .ToList();
        return Phrase($" Then {Words.List(moved.Count > MostNamed ? [.. told, $"{Words.Number(moved.Count - MostNamed)} more change their aim"] : told)}.");
    }
}
