using Fobble.Core.Evidence;

namespace Fobble.Core.Grouping;

/// <summary>A child who changes tables because another is away.</summary>
/// <param name="From">Place it leaves; null where it had none.</param>
public sealed record DayMove(ChildId Child, int? From, int To);

/// <param name="Groups">The groups without those who are away.</param>
/// <param name="Moves">All that had to change besides.</param>
/// <param name="Sentences">What happened to each table that lost a child, in words.</param>
public sealed record DayChanged(IReadOnlyList<FormedGroup> Groups, IReadOnlyList<DayMove> Moves, IReadOnlyList<string> Sentences);

/// <summary>
/// Re-forms groups when children are away on the day, and only what has to be: a table that stays large enough goes on without the child. One that
/// does not gets somebody who has no turn yet, else somebody from a later table that can spare one; if nobody fits, two go on as two, and one left
/// alone joins another table of the day.
/// </summary>
public static class DayChange
{
    private const int FewestAtATable = 2;

    /// <param name="groups">All groups of the week that are still to come.</param>
    /// <param name="today">Places of the day.</param>
    /// <param name="away">Children who are away on the day.</param>
    public static DayChanged Around(
        GroupingProblem problem,
        IReadOnlyList<FormedGroup> groups,
        IReadOnlySet<int> today,
        IReadOnlySet<ChildId> away,
        GroupNames names
    )
    {
        ArgumentNullException.ThrowIfNull(problem);
        ArgumentNullException.ThrowIfNull(groups);
        ArgumentNullException.ThrowIfNull(names);
        var candidates = problem.Children.ToDictionary(c => c.Child);
        bool Away(ChildId child, FormedGroup group) => today.Contains(group.Slot) && away.Contains(child);
        List<FormedGroup> now = [.. groups.Select(g => g with { Children = [.. g.Children.Where(c => !Away(c, g))] })];
        List<DayMove> moves = [];
        List<string> sentences = [];
        foreach (var (before, i) in groups.Select((g, i) => (g, i)).Where(p => p.g.Children.Any(c => Away(c, p.g))))
        {
            var gone = Phrase(
                $"{Words.List([.. before.Children.Where(c => Away(c, before)).Select(names.Child)])} {(before.Children.Count(c => Away(c, before)) == 1 ? "is" : "are")} away"
            );
            List<string> come = [];
            while (now[i].Children.Count < problem.Rules.MinSize && SomebodyFor(i) is { } move)
            {
                come.Add(names.Child(move.Child));
                Apply(move, i);
            }

            var left = now[i].Children;
            if (left.Count == 1 && AnotherTableFor(left[0], i) is { } other)
            {
                sentences.Add(Phrase($"{gone}, and {names.Child(left[0])} joins the table of {names.Slot(now[other].Slot)}."));
                Apply(new(left[0], before.Slot, now[other].Slot), other);
                continue;
            }

            sentences.Add(
                left.Count switch
                {
                    0 => Phrase($"{gone}: this table is free."),
                    1 => Phrase(
                        $"{gone}: {names.Child(left[0])} is left alone on {names.Skill(before.Skill)}, and comes first next time if the group is not held."
                    ),
                    _ when come.Count > 0 => Phrase(
                        $"{gone}: {Words.List(come)} {(come.Count == 1 ? "comes" : "come")} to {names.Skill(before.Skill)} instead."
                    ),
                    _ when left.Count >= problem.Rules.MinSize => Phrase(
                        $"{gone}: the other {Words.Number(left.Count)} go on with {names.Skill(before.Skill)}."
                    ),
                    _ => Phrase(
                        $"{gone}: {Words.List([.. left.Select(names.Child)])} go on as {Words.Number(left.Count)}; nobody else is ready for {names.Skill(before.Skill)} and free."
                    ),
                }
            );
        }

        return new(now, moves, sentences);

        // Nobody who sits at another table of the day is moved for it; who has no turn comes first, then what gains most points.
        DayMove? SomebodyFor(int table)
        {
            return candidates
                .Values.Where(c =>
                    c.Worths.ContainsKey(now[table].Skill)
                    && !c.AwayIn.Contains(now[table].Slot)
                    && !groups.Any(g => today.Contains(g.Slot) && g.Children.Contains(c.Child))
                )
                .Select(c => (Child: c.Child, From: now.FindIndex(g => g.Children.Contains(c.Child))))
                .Where(p => p.From < 0 || now[p.From].Children.Count > Math.Max(FewestAtATable, problem.Rules.MinSize))
                .Select(p => (Move: new DayMove(p.Child, p.From < 0 ? null : now[p.From].Slot, now[table].Slot), After: HandMove.Apply(now, p.Child, table)))
                .Where(p => NothingNewBroken(p.After))
                .OrderBy(p => p.Move.From is null ? 0 : 1)
                .ThenByDescending(p => GroupScore.Of(problem, p.After))
                .ThenBy(p => p.Move.Child)
                .Select(p => p.Move)
                .FirstOrDefault();
        }

        int? AnotherTableFor(ChildId child, int table) =>
            Enumerable
                .Range(0, now.Count)
                .Where(i =>
                    i != table
                    && today.Contains(now[i].Slot)
                    && now[i].Children.Count is > 0
                    && now[i].Children.Count < problem.Rules.MaxSize
                    && candidates.TryGetValue(child, out var candidate)
                    && candidate.Worths.ContainsKey(now[i].Skill)
                )
                .Select(i => (i, After: HandMove.Apply(now, child, i)))
                .Where(p => NothingNewBroken(p.After))
                .OrderByDescending(p => GroupScore.Of(problem, p.After))
                .Select(p => (int?)p.i)
                .FirstOrDefault();

        // Sizes are looked after above: a table that gets somebody may still be too small.
        bool NothingNewBroken(IReadOnlyList<FormedGroup> after)
        {
            var loose = problem with { Rules = problem.Rules with { MinSize = 0 } };
            return GroupScore.NewlyBroken(loose, now, after, names).Count == 0;
        }

        void Apply(DayMove move, int table)
        {
            now = [.. HandMove.Apply(now, move.Child, table)];
            moves.Add(move);
        }
    }
}
