using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Google.OrTools.Sat;

namespace Fobble.Core.Grouping;

/// <summary>
/// Chooses among thinkable groups: each child in one at most, places enough for all, every wish kept. Far less to search than children and skills one
/// by one, as long as the columns are few.
/// </summary>
internal sealed class ColumnModel
{
    private readonly GroupingProblem _problem;
    private readonly IReadOnlyList<GroupColumn> _columns;
    private readonly List<Candidate> _open;
    private readonly SlotClasses _slots;
    private readonly List<BoolVar> _chosen;
    private readonly List<Kind> _kinds = [];

    public ColumnModel(GroupingProblem problem, SlotClasses slots, IReadOnlyList<GroupColumn> columns)
    {
        (_problem, _slots, _columns, _open) = (problem, slots, columns, [.. problem.Open]);
        _chosen = [.. columns.Select(_ => Model.NewBoolVar(""))];
        AddChildren();
        AddPlaces();
        AddMoments();
        AddUnlike();
        foreach (var wish in problem.Rules.Wishes)
        {
            Add(wish);
        }

        Model.Maximize(LinearExpr.WeightedSum(_chosen, columns.Select(c => (long)c.Points)));
    }

    public CpModel Model { get; } = new();

    public void Hint(IReadOnlyList<FormedGroup> groups)
    {
        var known = groups.Select(g => (g.Skill, string.Join(',', g.Children))).ToHashSet();
        for (var i = 0; i < _columns.Count; i++)
        {
            if (known.Contains((_columns[i].Skill, string.Join(',', ChildrenOf(_columns[i])))))
            {
                Model.AddHint(_chosen[i], 1);
            }
        }
    }

    public IReadOnlyList<FormedGroup> Read(CpSolver solver)
    {
        var free = _slots.Classes.Select(c => new Queue<int>(c)).ToList();
        List<FormedGroup> groups = [.. _problem.Fixed];
        foreach (var kind in _kinds)
        {
            Queue<int> places = new(kind.Counts.SelectMany(c => Enumerable.Range(0, (int)solver.Value(c.Value)).Select(_ => free[c.Key].Dequeue())));
            groups.AddRange(
                kind.Columns.Where(i => solver.BooleanValue(_chosen[i]))
                    .Select(i => new FormedGroup(_columns[i].Skill, places.Dequeue(), [.. ChildrenOf(_columns[i])]))
            );
        }

        return [.. groups.OrderBy(g => g.Slot)];
    }

    private IEnumerable<ChildId> ChildrenOf(GroupColumn column) => column.Members.Select(m => _open[m].Child).Order();

    private void AddChildren()
    {
        foreach (var own in Enumerable.Range(0, _columns.Count).SelectMany(i => _columns[i].Members.Select(m => (m, i))).GroupBy(p => p.m, p => p.i))
        {
            Model.AddAtMostOne(own.Select(i => _chosen[i]));
        }
    }

    // Columns that can stand in the same places are of one kind, by skill where a rule asks for it: so many of a kind go to each class of places.
    private void AddPlaces()
    {
        var told = _problem
            .Rules.Wishes.OfType<AimWish>()
            .Select(a => a.Skill)
            .Concat(_problem.Rules.Clashes.SelectMany(c => new[] { c.Item1, c.Item2 }))
            .ToHashSet();
        foreach (
            var kind in Enumerable
                .Range(0, _columns.Count)
                .GroupBy(i =>
                    (
                        Places: string.Join(',', _slots.For(_columns[i].Skill, ChildrenOf(_columns[i]))),
                        Skill: told.Contains(_columns[i].Skill) ? _columns[i].Skill : (SkillId?)null
                    )
                )
        )
        {
            List<int> columns = [.. kind];
            var counts = _slots
                .For(_columns[columns[0]].Skill, ChildrenOf(_columns[columns[0]]))
                .ToDictionary(c => c, c => Model.NewIntVar(0, _slots.Classes[c].Count, ""));
            Model.Add(LinearExpr.Sum(columns.Select(i => _chosen[i])) == LinearExpr.Sum(counts.Values));
            _kinds.Add(new(kind.Key.Skill, columns, counts));
        }

        for (var i = 0; i < _slots.Classes.Count; i++)
        {
            Model.Add(In([i], null) <= _slots.Classes[i].Count);
        }
    }

    private void AddMoments()
    {
        foreach (var (classes, most, taken) in _slots.Moments)
        {
            if (most is { } limit)
            {
                Model.Add(In(classes, null) <= limit);
            }

            Dictionary<SkillId, BoolVar> there = [];
            BoolVar There(SkillId skill)
            {
                if (!there.TryGetValue(skill, out var yes))
                {
                    there[skill] = yes = Model.NewBoolVar("");
                    Model.Add(In(classes, skill) <= classes.Sum(c => _slots.Classes[c].Count) * yes);
                }

                return yes;
            }

            foreach (var (one, other) in _problem.Rules.Clashes)
            {
                if (one == other)
                {
                    Model.Add(In(classes, one) <= 1);
                }
                else if (_kinds.Any(k => k.Skill == one) && _kinds.Any(k => k.Skill == other))
                {
                    Model.AddAtMostOne([There(one), There(other)]);
                }
            }

            foreach (var skill in _kinds.Select(k => k.Skill).OfType<SkillId>().Distinct().Where(s => taken.Any(t => _problem.Rules.Clash(s, t))))
            {
                Model.Add(In(classes, skill) == 0);
            }
        }
    }

    private void AddUnlike()
    {
        foreach (var other in _problem.Unlike)
        {
            var aims = other.SelectMany(g => g.Children.Select(c => (c, g.Skill))).ToHashSet();
            var same = _columns.Select((c, i) => (i, n: ChildrenOf(c).Count(child => aims.Contains((child, c.Skill))))).Where(p => p.n > 0).ToList();
            Model.Add(LinearExpr.WeightedSum(same.Select(p => _chosen[p.i]), same.Select(p => (long)p.n)) <= _problem.MostAlike(other));
        }
    }

    // What is asked of each group by itself has been seen to when the columns were made.
    private void Add(Wish wish)
    {
        if (wish.IsMetBy(_problem.Fixed, _problem))
        {
            return;
        }

        switch (wish)
        {
            case MostForAdultWish most:
                Model.Add(In(_slots.Of(s => s.Adult == most.Adult), null) <= most.Most - _problem.Fixed.Count(g => _problem.Slots[g.Slot].Adult == most.Adult));
                break;
            case TurnWish turn:
                Model.Add(With(turn.Child, null) == 1);
                break;
            case SeatWish seat:
                Model.Add(With(seat.Child, null) == 1);
                break;
            case WorkWish work:
                Model.Add(With(work.Child, work.Skill) == 1);
                break;
            case AimWish aim:
                Model.Add(In(_slots.ClassesOf([aim.Slot]), aim.Skill) == 1);
                break;
        }
    }

    private LinearExpr With(ChildId child, SkillId? skill) =>
        LinearExpr.Sum(
            Enumerable
                .Range(0, _columns.Count)
                .Where(i => (skill is null || _columns[i].Skill == skill) && _columns[i].Members.Any(m => _open[m].Child == child))
                .Select(i => _chosen[i])
        );

    private LinearExpr In(IReadOnlyList<int> classes, SkillId? skill) =>
        LinearExpr.Sum(_kinds.Where(k => skill is null || k.Skill == skill).SelectMany(k => k.Counts.Where(c => classes.Contains(c.Key)).Select(c => c.Value)));

    /// <param name="Skill">Null where the skill does not matter.</param>
    /// <param name="Counts">How many of them go to each class of places.</param>
    private sealed record Kind(SkillId? Skill, IReadOnlyList<int> Columns, Dictionary<int, IntVar> Counts);
}
