using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Google.OrTools.Sat;

namespace Fobble.Core.Grouping;

/// <summary>
/// The groups of one problem as a model for CP-SAT. The objective counts the points of <see cref="GroupScore"/>, less what it costs to
/// leave everyone out, which is the same for all sets of groups.
/// </summary>
internal sealed class GroupingModel
{
    private readonly GroupingProblem _problem;
    private readonly List<Copy> _copies = [];
    private readonly List<SlotClass> _slotClasses;
    private readonly LinearExprBuilder _objective = LinearExpr.NewBuilder();
    private int _constant;

    public GroupingModel(GroupingProblem problem)
    {
        _problem = problem;
        _slotClasses = ClassesOfSlots(problem);
        AddCopies();
        AddSlots();
        AddChildren();
        AddPairs();
        AddMeetings();
        AddSlips();
        AddShowing();
        Model.Maximize(_objective);
    }

    public CpModel Model { get; } = new();

    public int BoundFrom(double bound) => (int)Math.Floor(bound + 1e-6) + _constant;

    /// <summary>Starts the search from groups that are known to be possible.</summary>
    public void Hint(IReadOnlyList<FormedGroup> groups)
    {
        foreach (var bySkill in groups.GroupBy(g => g.Skill))
        {
            // Copies are numbered by their first child.
            foreach (var (group, copy) in bySkill.OrderBy(g => g.Children[0]).Zip(_copies.Where(c => c.Skill == bySkill.Key)))
            {
                Model.AddHint(copy.Open, 1);
                foreach (var (candidate, member) in copy.Members)
                {
                    Model.AddHint(member, group.Children.Contains(candidate.Child) ? 1 : 0);
                }
            }
        }
    }

    public IReadOnlyList<FormedGroup> Read(CpSolver solver)
    {
        var free = _slotClasses.Select(c => new Queue<int>(c.Slots)).ToList();
        return
        [
            .. _copies.Where(copy => solver.BooleanValue(copy.Open)).Select(copy => new FormedGroup(
                copy.Skill,
                free[copy.InClass.FindIndex(solver.BooleanValue)].Dequeue(),
                [.. copy.Members.Where(m => solver.BooleanValue(m.Value)).Select(m => m.Key.Child).Order()])).OrderBy(g => g.Slot),
        ];
    }

    // Slots in which the same children are away are alike; treating them as one class with a capacity leaves less to search.
    private static List<SlotClass> ClassesOfSlots(GroupingProblem problem) =>
    [
        .. Enumerable.Range(0, problem.Slots)
            .GroupBy(slot => string.Join(',', problem.Children.Where(c => c.AwayIn.Contains(slot)).Select(c => c.Child)))
            .Select(g => new SlotClass([.. g])),
    ];

    // As many copies of a skill as could be filled. Child number i can't be in a copy later than i: copies are alike,
    // so they may be numbered by their first child.
    private void AddCopies()
    {
        var (min, max) = (_problem.Rules.MinSize, _problem.Rules.MaxSize);
        foreach (var skill in _problem.Children.SelectMany(c => c.Worths.Keys).Distinct().Order())
        {
            var ready = _problem.Children.Where(c => c.Worths.ContainsKey(skill)).ToList();
            for (var k = 0; k < Math.Min(ready.Count / min, _problem.Slots); k++)
            {
                var copy = new Copy(skill, Model.NewBoolVar(""), ready.Skip(k).ToDictionary(c => c, _ => Model.NewBoolVar("")), [.. _slotClasses.Select(_ => Model.NewBoolVar(""))]);
                var size = LinearExpr.Sum(copy.Members.Values);
                Model.Add(size >= min * copy.Open);
                Model.Add(size <= max * copy.Open);
                if (k > 0)
                {
                    Model.AddImplication(copy.Open, _copies[^1].Open);
                }

                _copies.Add(copy);
            }
        }
    }

    private void AddSlots()
    {
        foreach (var copy in _copies)
        {
            Model.Add(LinearExpr.Sum(copy.InClass) == copy.Open);
            foreach (var (candidate, member) in copy.Members)
            {
                for (var i = 0; i < _slotClasses.Count; i++)
                {
                    if (candidate.AwayIn.Contains(_slotClasses[i].Slots[0]))
                    {
                        Model.AddImplication(member, copy.InClass[i].Not());
                    }
                }
            }
        }

        // Follows from the sizes, but only for whole groups; saying so tells the solver before it searches.
        Model.Add(LinearExpr.Sum(_copies.Select(c => c.Open)) <= Math.Min(_problem.Slots, _problem.Children.Count / _problem.Rules.MinSize));
        for (var i = 0; i < _slotClasses.Count; i++)
        {
            var index = i;
            Model.Add(LinearExpr.Sum(_copies.Select(c => c.InClass[index])) <= _slotClasses[i].Slots.Count);
        }
    }

    private void AddChildren()
    {
        foreach (var candidate in _problem.Children)
        {
            var places = _copies.Where(c => c.Members.ContainsKey(candidate)).ToList();
            Model.AddAtMostOne(places.Select(c => c.Members[candidate]));
            var leftOut = GroupScore.CostOfLeavingOut(candidate, _problem.Rules);
            _constant -= leftOut;
            for (var i = 0; i < places.Count; i++)
            {
                var points = candidate.Worths[places[i].Skill].Total + leftOut;
                _objective.AddTerm(places[i].Members[candidate], points);
            }
        }
    }

    private void AddPairs()
    {
        var candidates = _problem.Children.ToDictionary(c => c.Child);
        foreach (var copy in _copies)
        {
            foreach (var (a, b) in Members(copy, _problem.Rules.Apart, candidates))
            {
                if (a is not null && b is not null)
                {
                    Model.AddAtMostOne([a, b]);
                }
            }

            foreach (var (a, b) in Members(copy, _problem.Rules.Together, candidates))
            {
                if (a is not null && b is not null)
                {
                    Model.Add(a == b);
                }
                else if ((a ?? b) is { } alone)
                {
                    Model.Add(alone == 0);
                }
            }
        }
    }

    // Children who met before cost as many points as pairs of them meet again. With n of a past group's children in a copy
    // that is n(n − 1)/2, which is convex: the lines through its neighbouring points, t·n − t(t + 1)/2, hold it exactly and
    // tell the solver far more than a literal for each pair would.
    private void AddMeetings()
    {
        var candidates = _problem.Children.ToDictionary(c => c.Child);
        foreach (var copy in _copies)
        {
            foreach (var met in _problem.MetLately)
            {
                var members = met.Select(child => Member(copy, candidates, child)).OfType<BoolVar>().ToList();
                var most = Math.Min(members.Count, _problem.Rules.MaxSize);
                if (most < 2)
                {
                    continue;
                }

                var again = Model.NewIntVar(0, most * (most - 1) / 2, "");
                for (var t = 1; t < most; t++)
                {
                    Model.Add(again >= (t * LinearExpr.Sum(members)) - (t * (t + 1) / 2));
                }

                _objective.AddTerm(again, -GroupScore.PairMetCost);
            }
        }
    }

    // A further kind of slip in a group costs: one literal a kind, and how many there are beyond the first.
    private void AddSlips()
    {
        foreach (var copy in _copies)
        {
            var kinds = copy.Members.Where(m => m.Key.Slips.ContainsKey(copy.Skill)).GroupBy(m => m.Key.Slips[copy.Skill]).ToList();
            if (kinds.Count < 2)
            {
                continue;
            }

            var present = kinds.Select(kind =>
            {
                var there = Model.NewBoolVar("");
                foreach (var (_, member) in kind)
                {
                    Model.AddImplication(member, there);
                }

                return there;
            }).ToList();
            var further = Model.NewIntVar(0, kinds.Count - 1, "");
            Model.Add(further >= LinearExpr.Sum(present) - 1);
            _objective.AddTerm(further, -GroupScore.FurtherSlipCost);
        }
    }

    private void AddShowing()
    {
        foreach (var copy in _copies)
        {
            var showing = copy.Members.Where(m => m.Key.Worths[copy.Skill].Shows).Select(m => m.Value).ToList();
            if (showing.Count > 1)
            {
                Model.AddAtMostOne(showing);
            }
        }
    }

    private static IEnumerable<(BoolVar? A, BoolVar? B)> Members(Copy copy, IReadOnlyList<ChildPair> pairs, Dictionary<ChildId, Candidate> candidates) =>
        pairs.Select(p => (Member(copy, candidates, p.First), Member(copy, candidates, p.Second)));

    private static BoolVar? Member(Copy copy, Dictionary<ChildId, Candidate> candidates, ChildId child) =>
        candidates.TryGetValue(child, out var candidate) ? copy.Members.GetValueOrDefault(candidate) : null;

    private sealed record Copy(SkillId Skill, BoolVar Open, Dictionary<Candidate, BoolVar> Members, List<BoolVar> InClass);

    private sealed record SlotClass(IReadOnlyList<int> Slots);
}
