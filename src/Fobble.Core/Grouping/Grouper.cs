using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Google.OrTools.Sat;

namespace Fobble.Core.Grouping;

/// <summary>
/// Finds the best groups (rule R13) with OR-Tools CP-SAT: a child goes to one of several possible copies of a skill; open copies take
/// a slot each. Deterministic: one worker, a fixed seed, work counted instead of time, and a tie-break that is part of the objective.
/// </summary>
public static class Grouper
{
    // A malformed string ends the process, so it is built here only and held by a test.
    internal const string Parameters = "num_workers:1 random_seed:7 linearization_level:2 cp_model_probing_level:0 max_deterministic_time:3";

    private const int TieBreak = 16384;

    /// <summary>The best groups within a fixed amount of work; says whether they are proven best.</summary>
    public static GroupingResult Form(GroupingProblem problem)
    {
        ArgumentNullException.ThrowIfNull(problem);
        var build = new Build(problem);
        var solver = new CpSolver { StringParameters = Parameters };
        var status = solver.Solve(build.Model);
        if (status is not (CpSolverStatus.Optimal or CpSolverStatus.Feasible))
        {
            // No group at all is always allowed, so this is a fault of the model and not of the wishes.
            throw new InvalidOperationException($"The solver ended with {status}.");
        }

        var groups = build.Read(solver);
        var placed = groups.SelectMany(g => g.Children).ToHashSet();
        var score = GroupScore.Of(problem, groups);
        var proven = status == CpSolverStatus.Optimal;
        return new GroupingResult(
            groups,
            [.. problem.Children.Select(c => c.Child).Where(c => !placed.Contains(c))],
            score,
            proven,
            proven ? score : build.BoundFrom(solver.BestObjectiveBound));
    }

    private sealed class Build
    {
        private readonly GroupingProblem _problem;
        private readonly List<Copy> _copies = [];
        private readonly List<SlotClass> _slotClasses;
        private readonly LinearExprBuilder _objective = LinearExpr.NewBuilder();
        private readonly int _tieRange;
        private int _constant;

        public Build(GroupingProblem problem)
        {
            _problem = problem;
            _tieRange = (TieBreak - 1) / Math.Max(1, problem.Children.Count);
            _slotClasses = ClassesOfSlots(problem);
            AddCopies();
            AddSlots();
            AddChildren();
            AddPairs();
            AddSlips();
            Model.Maximize(_objective);
        }

        public CpModel Model { get; } = new();

        public int BoundFrom(double bound) => (int)Math.Floor(bound / TieBreak) + _constant;

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
                    _objective.AddTerm(places[i].Members[candidate], ((long)points * TieBreak) + Hash(candidate.Child, places[i].Skill, i));
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

                foreach (var (pair, met) in _problem.MetLately)
                {
                    if (Member(copy, candidates, pair.First) is { } one && Member(copy, candidates, pair.Second) is { } other)
                    {
                        var both = Model.NewBoolVar("");
                        Model.AddBoolOr([one.Not(), other.Not(), both]);
                        _objective.AddTerm(both, -(long)GroupScore.PairMetCost * met * TieBreak);
                    }
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
                _objective.AddTerm(further, -(long)GroupScore.FurtherSlipCost * TieBreak);
            }
        }

        private static IEnumerable<(BoolVar? A, BoolVar? B)> Members(Copy copy, IReadOnlyList<ChildPair> pairs, Dictionary<ChildId, Candidate> candidates) =>
            pairs.Select(p => (Member(copy, candidates, p.First), Member(copy, candidates, p.Second)));

        private static BoolVar? Member(Copy copy, Dictionary<ChildId, Candidate> candidates, ChildId child) =>
            candidates.TryGetValue(child, out var candidate) ? copy.Members.GetValueOrDefault(candidate) : null;

        // Equal sets of groups are told apart by this, so that the same wishes give the same groups on every machine.
        private long Hash(ChildId child, SkillId skill, int copy)
        {
            var hash = Numbers.SeededRandom.SeedOf($"{child.Value}|{skill.Value}|{copy}");
            return (long)(hash % (ulong)_tieRange);
        }
    }

    private sealed record Copy(SkillId Skill, BoolVar Open, Dictionary<Candidate, BoolVar> Members, List<BoolVar> InClass);

    private sealed record SlotClass(IReadOnlyList<int> Slots);
}
