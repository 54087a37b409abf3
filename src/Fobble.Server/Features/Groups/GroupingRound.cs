using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Planning;
using Fobble.Core.Sessions;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.Planning;
using Fobble.Server.Features.Week;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Groups;

/// <summary>
/// Everything about the groups of one class and week, read once: the brief for the core, the places that are free, what was accepted
/// before. Turns requests into the core's terms and its results into views.
/// </summary>
internal sealed class GroupingRound
{
    private const int RememberWeeks = 12;

    private readonly SkillMap _map;
    private readonly ActivityLibrary _library;
    private readonly IReadOnlyDictionary<ChildId, string> _names;
    private readonly IReadOnlyList<PairWish> _wishes;
    private readonly GroupCycle? _accepted;
    private readonly GroupCycle? _before;
    private readonly IReadOnlyList<GroupSlotView> _slots;
    private readonly int _classId;

    private GroupingRound(
        int classId, DateOnly monday, SkillMap map, ActivityLibrary library, IReadOnlyList<ChildName> children, IReadOnlyList<PairWish> wishes,
        GroupCycle? accepted, GroupCycle? before, IReadOnlyList<GroupSession> run, IReadOnlyList<GroupSlotView> slots, IReadOnlyList<GroupSlotView> open, GroupingBrief brief)
    {
        (_classId, Monday, _map, _library, _wishes, _accepted, _before, Run, _slots, OpenSlots, Brief) =
            (classId, monday, map, library, wishes, accepted, before, run, slots, open, brief);
        _names = children.ToDictionary(c => new ChildId(c.Id), c => c.Name);
    }

    public DateOnly Monday { get; }

    /// <summary>Sessions of the week that were held; they stay as they are.</summary>
    public IReadOnlyList<GroupSession> Run { get; }

    /// <summary>Places for groups that are still to come and not taken by a session that was held.</summary>
    public IReadOnlyList<GroupSlotView> OpenSlots { get; }

    public GroupingBrief Brief { get; }

    public string NameOf(ChildId child) => _names.GetValueOrDefault(child, "?");

    public GroupingProblem ProblemFor(GroupWishes wishes) => new(
        Candidates.From(Brief),
        OpenSlots.Count,
        new GroupRules
        {
            MinSize = wishes.MinSize,
            MaxSize = wishes.MaxSize,
            EveryoneOnce = wishes.EveryoneOnce,
            Apart = [.. _wishes.Where(w => !w.Together).Select(PairOf)],
            Together = [.. _wishes.Where(w => w.Together).Select(PairOf)],
        },
        Candidates.MetLately(Brief.Past));

    public IReadOnlyList<FormedGroup> Formed(IReadOnlyList<ChosenGroup> groups) =>
        [.. groups.Select(g => new FormedGroup(new SkillId(g.Skill), IndexOf(g), [.. g.Children.Select(c => new ChildId(c)).Order()]))];

    /// <summary>What makes chosen groups impossible (not merely unwise): places, skills or children that do not exist, or a child twice.</summary>
    public ValidationProblem? FaultOf(IReadOnlyList<ChosenGroup> groups)
    {
        var placed = groups.SelectMany(g => g.Children).ToList();
        return groups.Any(g => IndexOf(g) < 0) ? Faults.One("slotId", "A group stands in a place that the week does not have, or that is taken.")
            : groups.GroupBy(IndexOf).Any(g => g.Count() > 1) ? Faults.One("slotId", "Two groups stand in the same place.")
            : groups.Any(g => !_map.Has(new SkillId(g.Skill))) ? Faults.One("skill", "There is no such skill.")
            : placed.Any(c => !_names.ContainsKey(new ChildId(c))) ? Faults.One("children", "A child is not in this class.")
            : placed.Distinct().Count() != placed.Count ? Faults.One("children", "A child is in two groups.")
            : placed.Any(c => Brief.Excluded.Contains(new ChildId(c))) ? Faults.One("children", "A child has had a turn in this week already.")
            : null;
    }

    public IEnumerable<GroupSession> ToSessions(IReadOnlyList<FormedGroup> groups) => groups.Where(g => g.Children.Count > 0).Select(g =>
    {
        var slot = OpenSlots[g.Slot];
        var session = new GroupSession
        {
            ClassId = _classId,
            Day = slot.Day,
            SlotId = slot.SlotId,
            Skill = g.Skill.Value,
            Activity = ActivityFor(g.Skill).Id.Value,
            Seed = (long)SessionCards.SeedFor(_classId, slot.Day, slot.SlotId, g.Skill),
            Reason = Reasons.ForGroup(g, Brief),
        };
        session.Members.AddRange(g.Children.Select(c => new GroupMember { ChildId = c.Value, Reason = Reasons.ForPlaced(c, g.Skill, Brief) }));
        return session;
    });

    public GroupsView ViewProposal(GroupingResult result)
    {
        var candidates = Candidates.From(Brief);
        var kept = Run.Select(ViewOf);
        var proposed = result.Groups.Select(g => new GroupView(
            OpenSlots[g.Slot], g.Skill.Value, _map[g.Skill].Short, _map[g.Skill].ICan, ActivityFor(g.Skill).Name, Reasons.ForGroup(g, Brief),
            [.. g.Children.Select(c => new PlacedChild(c.Value, NameOf(c), Reasons.ForPlaced(c, g.Skill, Brief)))], null, false));
        var changes = _before is null ? [] : GroupChanges.Between(PastOf([_before]), _before.AcceptedAt, result.Groups, Brief).Where(c => !Brief.Excluded.Contains(c.Child));
        return new GroupsView(
            Monday, false, [.. kept.Concat(proposed).OrderBy(g => g.Slot.Day).ThenBy(g => g.Slot.Start)],
            [.. result.Unplaced.Select(c => new PlacedChild(c.Value, NameOf(c), Reasons.ForUnplaced(c, Brief, candidates)))],
            result.ProvenBest, Reasons.ForResult(result),
            [.. changes.Select(c => new ChangeView(c.Child.Value, NameOf(c.Child), ShortOf(c.From), ShortOf(c.To), c.Why))],
            _before?.Monday, WishViews());
    }

    public GroupsView ViewAccepted()
    {
        var sessions = _accepted?.Sessions ?? [];
        var placed = sessions.SelectMany(s => s.Members.Select(m => m.ChildId)).ToHashSet();
        var candidates = Candidates.From(Brief);
        return new GroupsView(
            Monday, _accepted is not null, [.. sessions.Select(ViewOf).OrderBy(g => g.Slot.Day).ThenBy(g => g.Slot.Start)],
            _accepted is null ? [] : [.. _names.Where(n => !placed.Contains(n.Key.Value)).Select(n => new PlacedChild(n.Key.Value, n.Value, Reasons.ForUnplaced(n.Key, Brief, candidates)))],
            false, _accepted is null ? "No groups have been accepted for this week yet." : "Accepted.", [], null, WishViews());
    }

    private IReadOnlyList<PairWishView> WishViews() =>
        [.. _wishes.Select(w => new PairWishView(w.FirstId, w.SecondId, $"{NameOf(new(w.FirstId))} and {NameOf(new(w.SecondId))}", w.Together))];

    private GroupView ViewOf(GroupSession session)
    {
        var skill = _map[new SkillId(session.Skill)];
        var slot = _slots.FirstOrDefault(s => s.SlotId == session.SlotId && s.Day == session.Day) ?? new(session.SlotId, session.Day, default, 0, "", "");
        return new GroupView(
            slot, session.Skill, skill.Short, skill.ICan, _library[new ActivityId(session.Activity)].Name, session.Reason,
            [.. session.Members.Select(m => new PlacedChild(m.ChildId, NameOf(new(m.ChildId)), m.Reason)).OrderBy(c => c.Name, StringComparer.InvariantCultureIgnoreCase)],
            session.Id, Run.Any(r => r.Id == session.Id));
    }

    private Activity ActivityFor(SkillId skill) => _library.For(skill, Place.Group)[0];

    private int IndexOf(ChosenGroup group) => OpenSlots.ToList().FindIndex(s => s.SlotId == group.SlotId && s.Day == group.Day);

    private string? ShortOf(SkillId? skill) => skill is { } id ? _map[id].Short : null;

    private static ChildPair PairOf(PairWish wish) => new(new(wish.FirstId), new(wish.SecondId));

    private static IReadOnlyList<PastGroup> PastOf(IEnumerable<GroupCycle> cycles) =>
    [
        .. cycles.SelectMany(c => c.Sessions.Select(s => new PastGroup(s.Day, c.Monday.DayNumber / 7, new SkillId(s.Skill), [.. s.Members.Select(m => new ChildId(m.ChildId))])))
            .OrderBy(g => g.Day),
    ];

    internal sealed class Reader(FobbleDb db, ClassFacts facts, SkillMap map, ActivityLibrary library, WeekReader weeks, PlanReader plans, TimeProvider clock)
    {
        public async Task<GroupingRound> ReadAsync(int classId, DateOnly monday, CancellationToken stop)
        {
            var today = clock.Today();
            var children = await facts.ChildrenAsync(classId, stop);
            var evidence = await facts.EvidenceAsync(classId, today, stop);
            var cycles = await CyclesAsync(classId, monday, stop);
            var accepted = cycles.FirstOrDefault(c => c.Monday == monday);
            var held = await HeldAsync(accepted, today, stop);
            var slots = await SlotsAsync(classId, monday, stop);
            var open = slots.Where(s => s.Day >= today && !held.Any(h => h.SlotId == s.SlotId && h.Day == s.Day)).ToList();
            var wishes = await db.PairWishes.AsNoTracking().Where(w => w.First!.ClassId == classId).ToListAsync(stop);
            var focus = await FocusAsync(classId, monday, stop);
            var brief = new GroupingBrief(
                evidence,
                monday > today ? monday : today,
                focus,
                PastOf(cycles.Where(c => c.Monday < monday)),
                await AwayAsync(classId, open, stop),
                held.SelectMany(s => s.Members).Select(m => new ChildId(m.ChildId)).ToHashSet())
            {
                Way = (await facts.ApproachAsync(classId, stop)).Groups,
                Teachable = library.ServedIn(Place.Group),
            };
            return new GroupingRound(classId, monday, map, library, children, wishes, accepted, cycles.FirstOrDefault(), held, slots, open, brief);
        }

        // What the week's whole-class lessons are on; where they are not worked out yet, what the year's plan has.
        private async Task<IReadOnlyList<SkillId>> FocusAsync(int classId, DateOnly monday, CancellationToken stop)
        {
            var rows = await db.PlannedDays.Where(d => d.ClassId == classId && d.Day >= monday && d.Day < monday.AddDays(7)).Select(d => new { d.Day, d.FocusSkill, More = d.More.Select(m => m.Skill).ToList() }).ToListAsync(stop);
            var planned = (await plans.CurrentAsync(classId, stop))?.Document.Plan.Lessons.Where(l => l.Day >= monday && l.Day < monday.AddDays(7) && rows.All(r => r.Day != l.Day)).Select(l => l.Skill) ?? [];
            return [.. rows.SelectMany(r => r.More.Append(r.FocusSkill)).Select(s => new SkillId(s)).Concat(planned).Distinct().Where(map.Has).Order()];
        }

        // The sets in force, this week's first, then those before it.
        private async Task<List<GroupCycle>> CyclesAsync(int classId, DateOnly monday, CancellationToken stop)
        {
            var sessions = await weeks.SessionsAsync(classId, monday.AddDays(-7 * RememberWeeks), monday.AddDays(6), stop);
            var ids = sessions.Select(s => s.CycleId).Distinct().ToList();
            var cycles = await db.GroupCycles.AsNoTracking().Where(c => ids.Contains(c.Id)).OrderByDescending(c => c.Monday).ToListAsync(stop);
            foreach (var cycle in cycles)
            {
                cycle.Sessions.AddRange(sessions.Where(s => s.CycleId == cycle.Id));
            }

            return cycles;
        }

        private async Task<List<GroupSession>> HeldAsync(GroupCycle? accepted, DateOnly today, CancellationToken stop)
        {
            if (accepted is null)
            {
                return [];
            }

            var ids = accepted.Sessions.Select(s => s.Id).ToList();
            var recorded = await db.Observations.Where(o => o.SessionId != null && ids.Contains(o.SessionId.Value) && o.Withdrawal == null).Select(o => o.SessionId!.Value).Distinct().ToListAsync(stop);
            return [.. accepted.Sessions.Where(s => s.Day < today || recorded.Contains(s.Id))];
        }

        private async Task<List<GroupSlotView>> SlotsAsync(int classId, DateOnly monday, CancellationToken stop)
        {
            var timetable = await facts.TimetableAsync(classId, stop);
            return [.. timetable.Calendar.DaysOfWeek(monday).SelectMany(day => timetable.On(day).Where(s => s.Kind == SlotKind.Group).Select(s => new GroupSlotView(s.Id, day, s.Start, s.Minutes, s.Adult, s.Where)))];
        }

        private async Task<Dictionary<ChildId, IReadOnlySet<int>>> AwayAsync(int classId, List<GroupSlotView> open, CancellationToken stop)
        {
            var days = open.Select(s => s.Day).Distinct().ToList();
            var away = await db.Absences.Where(a => a.Child!.ClassId == classId && days.Contains(a.Day)).ToListAsync(stop);
            return away.GroupBy(a => a.ChildId).ToDictionary(
                g => new ChildId(g.Key),
                g => (IReadOnlySet<int>)open.Select((slot, i) => (slot, i)).Where(p => g.Any(a => a.Day == p.slot.Day)).Select(p => p.i).ToHashSet());
        }
    }
}
