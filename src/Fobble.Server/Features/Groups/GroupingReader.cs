using Fobble.Core.Activities;
using Fobble.Core.Grouping;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Groups;

/// <summary>Reads everything about the groups of one class and week: the brief for the core, the places that are free, what was accepted before.</summary>
internal sealed class GroupingReader(ClassRoom room, GroupHistory history, GroupWishReader wishes)
{
    private const int RememberWeeks = 12;
    private const int HolidayWeeks = 8;

    public async Task<WeekGroups> ReadAsync(DateOnly monday, CancellationToken stop)
    {
        var stored = await wishes.ReadAsync(stop);
        var kept = await history.ReadAsync(monday.AddDays(-7 * RememberWeeks), monday.AddDays(6), stop);
        var sets = kept.Select(k => k.Row.Set!)
            .DistinctBy(c => c.Id)
            .OrderByDescending(c => c.Monday)
            .Select(c => new KeptSet(c, [.. kept.Where(k => k.Row.SetId == c.Id)]))
            .ToList();
        var held = sets.FirstOrDefault(s => s.Monday == monday)?.Groups.Where(g => g.Group.WasHeld(room.Today)).ToList() ?? [];
        var slots = await SlotsAsync(monday, stop);
        var open = slots.Where(s => s.Day >= room.Today && !held.Any(h => h.Row.SlotId == s.SlotId && h.Row.Day == s.Day)).ToList();
        var children = await room.ChildrenAsync(stop);
        var past = kept.Where(k => k.Row.Day < monday).Select(k => k.Met).OrderBy(g => g.Day).ToList();
        var away = await AwayAsync(monday, stop);
        var brief = new GroupingBrief(
            await room.EvidenceAsync(stop),
            monday > room.Today ? monday : room.Today,
            await FocusAsync(monday, stop),
            past,
            AwayIn(children, open, away, stored),
            held.SelectMany(s => s.Group.Children).ToHashSet()
        )
        {
            Way = room.Approach.Groups,
            Teachable = room.Library.ServedIn(Place.Group),
            Weights = stored.Weights,
            NeedAdultNear = stored.NearAdult.Select(c => new ChildId(c)).ToHashSet(),
            Planned = sets.Where(s => s.Monday == monday)
                .SelectMany(s => s.Groups)
                .Where(g => !g.Group.WasHeld(room.Today))
                .SelectMany(g => g.Group.Children.Select(c => (c, g.Group.Skill)))
                .ToHashSet(),
        };
        return new WeekGroups(
            new(
                room.Id,
                monday,
                room.Today,
                room.Map,
                room.Library,
                children,
                stored,
                sets,
                held,
                slots,
                open,
                await room.StockAsync(stop),
                await room.TimetableAsync(stop),
                brief
            )
        );
    }

    /// <summary>The weeks from a Monday on that still have places for groups, at most so many, each by its parts.</summary>
    public async Task<IReadOnlyList<WeekGroups>> AheadAsync(DateOnly from, int weeks, CancellationToken stop)
    {
        List<WeekGroups> ahead = [];
        var found = 0;
        for (var monday = from; found < weeks && monday < from.AddDays(7 * (weeks + HolidayWeeks)); monday = monday.AddDays(7))
        {
            var week = await ReadAsync(monday, stop);
            found += week.OpenSlots.Count > 0 ? 1 : 0;
            ahead.AddRange(week.Parts.Select(p => week.In(p, [])).Where(p => p.OpenSlots.Count > 0));
        }

        return ahead;
    }

    private static Dictionary<ChildId, IReadOnlySet<int>> AwayIn(
        IReadOnlyList<ChildName> children,
        IReadOnlyList<GroupSlotView> slots,
        ILookup<DateOnly, int> away,
        StoredWishes stored
    ) =>
        children
            .Select(c =>
                (
                    c.Id,
                    In: slots
                        .Select((s, i) => (s, i))
                        .Where(p => away[p.s.Day].Contains(c.Id) || stored.IsOut(c.Id, p.s.Day, p.s.Start, p.s.Minutes))
                        .Select(p => p.i)
                        .ToHashSet()
                )
            )
            .Where(p => p.In.Count > 0)
            .ToDictionary(p => new ChildId(p.Id), p => (IReadOnlySet<int>)p.In);

    private async Task<ILookup<DateOnly, int>> AwayAsync(DateOnly monday, CancellationToken stop)
    {
        var rows = await room
            .Db.Absences.Where(a => a.Child!.ClassId == room.Id.Value && a.Day >= monday && a.Day <= monday.AddDays(6))
            .Select(a => new { a.Day, a.ChildId })
            .ToListAsync(stop);
        return rows.ToLookup(a => a.Day, a => a.ChildId);
    }

    // What the week's whole-class lessons are on; where they are not worked out yet, what the year's plan has.
    private async Task<IReadOnlyList<SkillId>> FocusAsync(DateOnly monday, CancellationToken stop)
    {
        var rows = await room
            .Db.PlannedDays.Where(d => d.ClassId == room.Id.Value && d.Day >= monday && d.Day < monday.AddDays(7))
            .Select(d => new
            {
                d.Day,
                d.FocusSkill,
                More = d.More.Select(m => m.Skill).ToList(),
            })
            .ToListAsync(stop);
        var planned = (await room.PlanAsync(stop))
            ?.Document.Plan.Lessons.Where(l => l.Day >= monday && l.Day < monday.AddDays(7) && rows.All(r => r.Day != l.Day))
            .Select(l => l.Skill)
            ?? [];
        return [.. rows.SelectMany(r => r.More.Append(r.FocusSkill)).Select(s => new SkillId(s)).Concat(planned).Distinct().Where(room.Map.Has).Order()];
    }

    private async Task<List<GroupSlotView>> SlotsAsync(DateOnly monday, CancellationToken stop)
    {
        var timetable = await room.TimetableAsync(stop);
        return
        [
            .. timetable
                .Calendar.DaysOfWeek(monday)
                .SelectMany(day =>
                    timetable.On(day).Where(s => s.Kind == SlotKind.Group).Select(s => new GroupSlotView(s.Id, day, s.Start, s.Minutes, s.Adult, s.Where))
                ),
        ];
    }
}
