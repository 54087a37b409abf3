using Fobble.Core.Activities;
using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.Cupboard;
using Fobble.Server.Features.Planning;
using Fobble.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Groups;

/// <summary>Reads everything about the groups of one class and week: the brief for the core, the places that are free, what was accepted before.</summary>
internal sealed class GroupingReader(
    FobbleDb db, ClassFacts facts, SkillMap map, ActivityLibrary library, GroupHistory history, GroupWishReader wishes, PlanReader plans, CupboardReader cupboard, TimeProvider clock)
{
    private const int RememberWeeks = 12;
    private const int HolidayWeeks = 8;

    public async Task<GroupingRound> ReadAsync(int classId, DateOnly monday, CancellationToken stop)
    {
        var today = clock.Today();
        var stored = await wishes.ReadAsync(classId, stop);
        var (sessions, away) = await history.ReadAsync(classId, monday.AddDays(-7 * RememberWeeks), monday.AddDays(6), stop);
        var cycles = await CyclesAsync(sessions, stop);
        var held = await HeldAsync(cycles.FirstOrDefault(c => c.Monday == monday), today, stop);
        var slots = await SlotsAsync(classId, monday, stop);
        var open = slots.Where(s => s.Day >= today && !held.Any(h => h.SlotId == s.SlotId && h.Day == s.Day)).ToList();
        var children = await facts.ChildrenAsync(classId, stop);
        var past = sessions.Where(s => s.Day < monday).Select(s => GroupHistory.Met(s, away)).OrderBy(g => g.Day).ToList();
        var brief = new GroupingBrief(
            await facts.EvidenceAsync(classId, today, stop), monday > today ? monday : today, await FocusAsync(classId, monday, stop), past,
            AwayIn(children, open, away, stored), held.SelectMany(s => s.Members).Select(m => new ChildId(m.ChildId)).ToHashSet())
        {
            Way = (await facts.ApproachAsync(classId, stop)).Groups,
            Teachable = library.ServedIn(Place.Group),
            Weights = stored.Weights,
            NeedAdultNear = stored.NearAdult.Select(c => new ChildId(c)).ToHashSet(),
        };
        return new GroupingRound(new(classId, monday, map, library, children, stored, cycles, past, held, slots, open, await cupboard.StockAsync(classId, stop), brief));
    }

    /// <summary>The rounds of the weeks from a Monday on that still have places for groups, at most so many.</summary>
    public async Task<IReadOnlyList<GroupingRound>> AheadAsync(int classId, DateOnly from, int weeks, CancellationToken stop)
    {
        List<GroupingRound> ahead = [];
        for (var monday = from; ahead.Count < weeks && monday < from.AddDays(7 * (weeks + HolidayWeeks)); monday = monday.AddDays(7))
        {
            var round = await ReadAsync(classId, monday, stop);
            ahead.AddRange(round.OpenSlots.Count > 0 ? [round] : []);
        }

        return ahead;
    }

    private static Dictionary<ChildId, IReadOnlySet<int>> AwayIn(IReadOnlyList<ChildName> children, IReadOnlyList<GroupSlotView> slots, ILookup<DateOnly, int> away, StoredWishes stored) =>
        children.Select(c => (c.Id, In: slots.Select((s, i) => (s, i)).Where(p => away[p.s.Day].Contains(c.Id) || stored.IsOut(c.Id, p.s.Day, p.s.Start, p.s.Minutes)).Select(p => p.i).ToHashSet()))
            .Where(p => p.In.Count > 0).ToDictionary(p => new ChildId(p.Id), p => (IReadOnlySet<int>)p.In);

    // What the week's whole-class lessons are on; where they are not worked out yet, what the year's plan has.
    private async Task<IReadOnlyList<SkillId>> FocusAsync(int classId, DateOnly monday, CancellationToken stop)
    {
        var rows = await db.PlannedDays.Where(d => d.ClassId == classId && d.Day >= monday && d.Day < monday.AddDays(7)).Select(d => new { d.Day, d.FocusSkill, More = d.More.Select(m => m.Skill).ToList() }).ToListAsync(stop);
        var planned = (await plans.CurrentAsync(classId, stop))?.Document.Plan.Lessons.Where(l => l.Day >= monday && l.Day < monday.AddDays(7) && rows.All(r => r.Day != l.Day)).Select(l => l.Skill) ?? [];
        return [.. rows.SelectMany(r => r.More.Append(r.FocusSkill)).Select(s => new SkillId(s)).Concat(planned).Distinct().Where(map.Has).Order()];
    }

    // The sets in force, this week's first, then those before it.
    private async Task<List<GroupCycle>> CyclesAsync(List<GroupSession> sessions, CancellationToken stop)
    {
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
}
