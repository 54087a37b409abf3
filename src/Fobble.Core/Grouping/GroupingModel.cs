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
    private readonly List<Candidate> _open;
    private readonly Dictionary<ChildId, Candidate> _candidates;
    private readonly List<Copy> _copies = [];
    private readonly SlotClasses _slots;
    private readonly LinearExprBuilder _objective = LinearExpr.NewBuilder();
    private readonly Dictionary<int, Wish> _assumed = [];
    private int _constant;

    /// <param name="explain">Each wish can be switched off by an assumption, to find those that can't hold together; nothing is maximised.</param>
    public GroupingModel(GroupingProblem problem, bool explain = false)
    {
        _problem = problem;
        _open = [.. problem.Open];
        _candidates = _open.ToDictionary(c => c.Child);
        _slots = new(problem);
        AddCopies();
        AddSlots();
        AddMoments();
        AddChildren();
        AddShowing();
        AddUnlike();
        foreach (var wish in problem.Rules.Wishes)
        {
            ILiteral? holds = null;
            if (explain)
            {
                var assumed = Model.NewBoolVar("");
                Model.AddAssumption(assumed);
                _assumed[assumed.GetIndex()] = wish;
                holds = assumed;
            }

            Add(wish, holds);
        }

        if (!explain)
        {
            AddMeetings();
            AddFurtherKinds(c => c.Slips, GroupScore.FurtherSlip(problem.Rules));
            AddFurtherKinds(c => c.Reach, GroupScore.FurtherReach(problem.Rules));
            Model.Maximize(_objective);
        }
    }

    public CpModel Model { get; } = new();

    public int BoundFrom(double bound) => (int)Math.Floor(bound + 1e-6) + _constant;

    /// <summary>Wishes that together are enough to make the model impossible.</summary>
    public IReadOnlyList<Wish> Core(CpSolver solver) =>
        [.. solver.SufficientAssumptionsForInfeasibility().Where(_assumed.ContainsKey).Select(i => _assumed[i])];

    /// <summary>Starts the search from groups that are known to be possible.</summary>
    public void Hint(IReadOnlyList<FormedGroup> groups)
    {
        foreach (var bySkill in groups.Where(g => !_problem.Fixed.Contains(g)).GroupBy(g => g.Skill))
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

    public IReadOnlyList<FormedGroup> Read(Func<BoolVar, bool> value)
    {
        var free = _slots.Classes.Select(c => new Queue<int>(c)).ToList();
        return
        [
            .. _problem
                .Fixed.Concat(
                    _copies
                        .Where(copy => value(copy.Open))
                        .Select(copy => new FormedGroup(
                            copy.Skill,
                            free[copy.InClass.FindIndex(c => value(c))].Dequeue(),
                            [.. copy.Members.Where(m => value(m.Value)).Select(m => m.Key.Child).Order()]
                        ))
                )
                .OrderBy(g => g.Slot),
        ];
    }

    // As many copies of a skill as could be filled. Child number i can't be in a copy later than i: copies are alike,
    // so they may be numbered by their first child.
    private void AddCopies()
    {
        var (min, max) = (_problem.Rules.MinSize, _problem.Rules.MaxSize);
        foreach (var skill in _open.SelectMany(c => c.Worths.Keys).Distinct().Order())
        {
            var ready = _open.Where(c => c.Worths.ContainsKey(skill)).ToList();
            for (var k = 0; k < Math.Min(ready.Count / min, _slots.Free.Count); k++)
            {
                var copy = new Copy(
                    skill,
                    Model.NewBoolVar(""),
                    ready.Skip(k).ToDictionary(c => c, _ => Model.NewBoolVar("")),
                    [.. _slots.Classes.Select(_ => Model.NewBoolVar(""))]
                );
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
                for (var i = 0; i < _slots.Classes.Count; i++)
                {
                    if (candidate.AwayIn.Contains(_slots.Classes[i][0]))
                    {
                        Model.AddImplication(member, copy.InClass[i].Not());
                    }
                }
            }
        }

        // Follows from the sizes, but only for whole groups; saying so tells the solver before it searches.
        Model.Add(LinearExpr.Sum(_copies.Select(c => c.Open)) <= Math.Min(_slots.Free.Count, _open.Count / _problem.Rules.MinSize));
        for (var i = 0; i < _slots.Classes.Count; i++)
        {
            Model.Add(LinearExpr.Sum(_copies.Select(c => c.InClass[i])) <= _slots.Classes[i].Count);
        }
    }

    // What the room and the cupboard allow at one time.
    private void AddMoments()
    {
        foreach (var (classes, most, taken) in _slots.Moments)
        {
            if (most is { } limit)
            {
                Model.Add(LinearExpr.Sum(_copies.SelectMany(c => classes.Select(i => c.InClass[i]))) <= limit);
            }

            AddClashes(classes, taken);
        }
    }

    // For each skill that clashes whether it is there at the moment, so that a pair of skills is one small rule however many copies there are.
    private void AddClashes(IReadOnlyList<int> classes, IReadOnlyList<SkillId> taken)
    {
        var bySkill = _copies.GroupBy(c => c.Skill).ToDictionary(g => g.Key, g => g.SelectMany(c => classes.Select(i => c.InClass[i])).ToList());
        Dictionary<SkillId, BoolVar> there = [];
        BoolVar There(SkillId skill)
        {
            if (!there.TryGetValue(skill, out var yes))
            {
                there[skill] = yes = Model.NewBoolVar("");
                foreach (var inside in bySkill[skill])
                {
                    Model.AddImplication(inside, yes);
                }
            }

            return yes;
        }

        foreach (var (one, other) in _problem.Rules.Clashes.Where(c => bySkill.ContainsKey(c.Item1) && bySkill.ContainsKey(c.Item2)))
        {
            if (one == other)
            {
                Model.AddAtMostOne(bySkill[one]);
            }
            else
            {
                Model.AddAtMostOne([There(one), There(other)]);
            }
        }

        foreach (var (_, inside) in bySkill.Where(s => taken.Any(t => _problem.Rules.Clash(s.Key, t))))
        {
            Model.Add(LinearExpr.Sum(inside) == 0);
        }
    }

    private void AddChildren()
    {
        _constant += _problem.Fixed.Sum(g => GroupScore.OfGroup(_problem, g));
        foreach (var candidate in _open)
        {
            var places = PlacesOf(candidate.Child);
            Model.AddAtMostOne(places.Select(p => p.Member));
            var leftOut = GroupScore.CostOfLeavingOut(candidate, _problem.Rules);
            _constant -= leftOut;
            foreach (var (copy, member) in places)
            {
                _objective.AddTerm(member, candidate.Worths[copy.Skill].Total + leftOut);
            }
        }
    }

    // Children who met before cost as many points as pairs of them meet again. With n of a past group's children in a copy
    // that is n(n − 1)/2, which is convex: the lines through its neighbouring points, t·n − t(t + 1)/2, hold it exactly and
    // tell the solver far more than a literal for each pair would.
    private void AddMeetings()
    {
        var cost = GroupScore.PairMet(_problem.Rules);
        foreach (var copy in cost == 0 ? [] : _copies)
        {
            foreach (var met in _problem.MetLately)
            {
                var members = met.Select(child => Member(copy, child)).OfType<BoolVar>().ToList();
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

                _objective.AddTerm(again, -cost);
            }
        }
    }

    // A further kind of slip, or size of numbers, in a group costs: one literal a kind, and how many there are beyond the first.
    private void AddFurtherKinds<T>(Func<Candidate, IReadOnlyDictionary<SkillId, T>> kindsOf, int cost)
        where T : notnull
    {
        foreach (var copy in cost == 0 ? [] : _copies)
        {
            var kinds = copy.Members.Where(m => kindsOf(m.Key).ContainsKey(copy.Skill)).GroupBy(m => kindsOf(m.Key)[copy.Skill]).ToList();
            if (kinds.Count < 2)
            {
                continue;
            }

            var present = kinds
                .Select(kind =>
                {
                    var there = Model.NewBoolVar("");
                    foreach (var (_, member) in kind)
                    {
                        Model.AddImplication(member, there);
                    }

                    return there;
                })
                .ToList();
            var further = Model.NewIntVar(0, kinds.Count - 1, "");
            Model.Add(further >= LinearExpr.Sum(present) - 1);
            _objective.AddTerm(further, -cost);
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

    private void AddUnlike()
    {
        foreach (var other in _problem.Unlike)
        {
            var same = other
                .SelectMany(g => g.Children.SelectMany(child => PlacesOf(child).Where(p => p.Copy.Skill == g.Skill).Select(p => p.Member)))
                .ToList();
            Model.Add(LinearExpr.Sum(same) <= _problem.MostAlike(other));
        }
    }

    private void Add(Wish wish, ILiteral? holds)
    {
        if (wish.IsMetBy(_problem.Fixed, _problem))
        {
            return;
        }

        void Must(BoundedLinearExpression what)
        {
            var constraint = Model.Add(what);
            if (holds is not null)
            {
                constraint.OnlyEnforceIf(holds);
            }
        }

        switch (wish)
        {
            case ApartWish apart:
                foreach (var copy in _copies)
                {
                    if (Member(copy, apart.Pair.First) is { } one && Member(copy, apart.Pair.Second) is { } other)
                    {
                        Must(one + other <= 1);
                    }
                }

                break;
            case TogetherWish together when together.IsOpen(_problem):
                foreach (var copy in _copies)
                {
                    var pair = new[] { Member(copy, together.Pair.First), Member(copy, together.Pair.Second) }.OfType<BoolVar>().ToList();
                    Must(pair.Count == 2 ? pair[0] - pair[1] == 0 : LinearExpr.Sum(pair) == 0);
                }

                break;
            case AdultWish adult:
                foreach (var (copy, member) in PlacesOf(adult.Child))
                {
                    Must(member <= LinearExpr.Sum(_slots.Of(s => s.Adult == adult.Adult == adult.With).Select(i => copy.InClass[i])));
                }

                break;
            case NearAdultWish near:
                foreach (var copy in _copies)
                {
                    Must(LinearExpr.Sum(copy.Members.Where(m => m.Key.NeedsAdultNear).Select(m => m.Value)) <= near.Most);
                }

                break;
            case RunsWish runs:
                Must(
                    LinearExpr.Sum(
                        _copies.Where(c => !runs.Skills.Contains(c.Skill)).SelectMany(c => _slots.Of(s => s.Adult == runs.Adult).Select(i => c.InClass[i]))
                    ) == 0
                );
                break;
            case MostForAdultWish most:
                Must(
                    LinearExpr.Sum(_copies.SelectMany(c => _slots.Of(s => s.Adult == most.Adult).Select(i => c.InClass[i])))
                        <= most.Most - _problem.Fixed.Count(g => _problem.Slots[g.Slot].Adult == most.Adult)
                );
                break;
            case TurnWish turn:
                Must(LinearExpr.Sum(PlacesOf(turn.Child).Select(p => p.Member)) == 1);
                break;
            case SeatWish seat:
                Must(LinearExpr.Sum(PlacesOf(seat.Child).Select(p => p.Member)) == 1);
                foreach (var (copy, member) in PlacesOf(seat.Child))
                {
                    Must(member <= LinearExpr.Sum(_slots.ClassesOf([seat.Slot]).Select(i => copy.InClass[i])));
                }

                break;
            case AimWish aim:
                Must(LinearExpr.Sum(_copies.Where(c => c.Skill == aim.Skill).SelectMany(c => _slots.ClassesOf([aim.Slot]).Select(i => c.InClass[i]))) == 1);
                break;
            case WorkWish work:
                Must(LinearExpr.Sum(PlacesOf(work.Child).Where(p => p.Copy.Skill == work.Skill).Select(p => p.Member)) == 1);
                break;
        }
    }

    private List<(Copy Copy, BoolVar Member)> PlacesOf(ChildId child) =>
        _candidates.TryGetValue(child, out var candidate)
            ? [.. _copies.Where(c => c.Members.ContainsKey(candidate)).Select(c => (c, c.Members[candidate]))]
            : [];

    private BoolVar? Member(Copy copy, ChildId child) => _candidates.TryGetValue(child, out var candidate) ? copy.Members.GetValueOrDefault(candidate) : null;

    private sealed record Copy(SkillId Skill, BoolVar Open, Dictionary<Candidate, BoolVar> Members, List<BoolVar> InClass);
}
