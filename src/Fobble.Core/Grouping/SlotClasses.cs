using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Grouping;

/// <summary>
/// The free places of a problem, those together that are alike to every child, adult and wish: treating them as one class with so many places leaves
/// less to search.
/// </summary>
internal sealed class SlotClasses
{
    private readonly GroupingProblem _problem;
    private readonly Dictionary<ChildId, IReadOnlySet<int>> _awayIn;

    public SlotClasses(GroupingProblem problem)
    {
        _problem = problem;
        List<Candidate> open = [.. problem.Open];
        _awayIn = open.ToDictionary(c => c.Child, c => c.AwayIn);
        var wishes = problem.Rules.Wishes;
        var named = wishes
            .Select(w =>
                w switch
                {
                    SeatWish s => s.Slot,
                    AimWish a => a.Slot,
                    _ => -1,
                }
            )
            .ToHashSet();
        var adults = wishes
            .Select(w =>
                w switch
                {
                    AdultWish a => a.Adult,
                    RunsWish r => r.Adult,
                    MostForAdultWish m => m.Adult,
                    _ => -1,
                }
            )
            .ToHashSet();
        var moments = problem
            .Slots.Select((s, i) => (s.Moment, i))
            .GroupBy(p => p.Moment, p => p.i)
            .Select(m => (Moment: m.Key, Slots: m.ToList()))
            .Where(m => m.Slots.Count > 1 && (problem.Rules.Clashes.Count > 0 || problem.Rules.MostAtOnce < m.Slots.Count))
            .ToList();
        var crowded = moments.Select(m => m.Moment).ToHashSet();
        Free = [.. Enumerable.Range(0, problem.Slots.Count).Where(s => problem.Fixed.All(g => g.Slot != s))];
        Classes =
        [
            .. Free.GroupBy(slot =>
                    (
                        Away: string.Join(',', open.Where(c => c.AwayIn.Contains(slot)).Select(c => c.Child)),
                        Named: named.Contains(slot) ? slot : -1,
                        Adult: adults.Contains(problem.Slots[slot].Adult) ? problem.Slots[slot].Adult : -1,
                        Moment: crowded.Contains(problem.Slots[slot].Moment) ? problem.Slots[slot].Moment : -1
                    )
                )
                .Select(g => (IReadOnlyList<int>)[.. g]),
        ];
        Moments =
        [
            .. moments.Select(m =>
                (
                    ClassesOf(m.Slots),
                    problem.Rules.MostAtOnce is { } most && most < m.Slots.Count
                        ? (int?)Math.Max(0, most - problem.Fixed.Count(g => m.Slots.Contains(g.Slot)))
                        : null,
                    (IReadOnlyList<SkillId>)[.. problem.Fixed.Where(g => m.Slots.Contains(g.Slot)).Select(g => g.Skill)]
                )
            ),
        ];
    }

    /// <summary>Places that no group stands in already.</summary>
    public IReadOnlyList<int> Free { get; }

    public IReadOnlyList<IReadOnlyList<int>> Classes { get; }

    /// <summary>Times at which not all places can be used at will: their classes, how many groups may still be there (null for no limit), and skills of those that stay.</summary>
    public IReadOnlyList<(IReadOnlyList<int> Classes, int? Most, IReadOnlyList<SkillId> Taken)> Moments { get; }

    /// <summary>Classes whose places are of a kind.</summary>
    public IReadOnlyList<int> Of(Func<GroupSlot, bool> which) => [.. Enumerable.Range(0, Classes.Count).Where(i => which(_problem.Slots[Classes[i][0]]))];

    /// <summary>Classes that lie within some places.</summary>
    public IReadOnlyList<int> ClassesOf(IReadOnlyList<int> slots) => [.. Enumerable.Range(0, Classes.Count).Where(i => slots.Contains(Classes[i][0]))];

    /// <summary>Classes in which a group can be: every child is there, the adult takes the skill, seats and wishes for adults are kept.</summary>
    public IReadOnlyList<int> For(SkillId skill, IEnumerable<ChildId> children)
    {
        List<ChildId> members = [.. children];
        bool Fits(int index)
        {
            var slot = Classes[index][0];
            return members.All(c => !_awayIn[c].Contains(slot))
                && _problem.Rules.Wishes.All(w =>
                    w switch
                    {
                        RunsWish runs => _problem.Slots[slot].Adult != runs.Adult || runs.Skills.Contains(skill),
                        AdultWish adult => !members.Contains(adult.Child) || _problem.Slots[slot].Adult == adult.Adult == adult.With,
                        SeatWish seat => !members.Contains(seat.Child) || slot == seat.Slot,
                        _ => true,
                    }
                );
        }

        return [.. Enumerable.Range(0, Classes.Count).Where(Fits)];
    }

    /// <summary>Whether a group keeps to all that is asked of each group by itself.</summary>
    public bool Allows(SkillId skill, IReadOnlyList<Candidate> members)
    {
        bool In(ChildId child) => members.Any(c => c.Child == child);
        return _problem.Rules.Wishes.All(w =>
                w switch
                {
                    ApartWish apart => !(In(apart.Pair.First) && In(apart.Pair.Second)),
                    TogetherWish together => !together.IsOpen(_problem) || In(together.Pair.First) == In(together.Pair.Second),
                    NearAdultWish near => members.Count(c => c.NeedsAdultNear) <= near.Most,
                    WorkWish work => !In(work.Child) || work.Skill == skill,
                    _ => true,
                }
            )
            && For(skill, members.Select(c => c.Child)).Count > 0;
    }
}
