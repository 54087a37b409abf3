using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Week;

/// <summary>A week as it is planned and as far as it has come; read by the Plan, the string of beads, Today and the clipboard.</summary>
internal sealed class WeekReader(FobbleDb db, ClassFacts facts, SkillMap map, ActivityLibrary library, TimeProvider clock)
{
    public async Task<WeekView> ReadAsync(int classId, DateOnly monday, CancellationToken stop)
    {
        var calendar = await facts.CalendarAsync(classId, stop);
        var friday = monday.AddDays(4);
        var planned = await db.PlannedDays.AsNoTracking().Include(d => d.Starters).Where(d => d.ClassId == classId && d.Day >= monday && d.Day <= friday).ToDictionaryAsync(d => d.Day, stop);
        var slots = await db.LessonSlots.AsNoTracking().Include(s => s.Adult).Where(s => s.ClassId == classId && !s.Retired).OrderBy(s => s.Start).ThenBy(s => s.Id).ToListAsync(stop);
        var sessions = await SessionsAsync(classId, monday, friday, stop);
        var names = (await facts.ChildrenAsync(classId, stop)).ToDictionary(c => c.Id, c => c.Name);
        var recorded = await db.Observations.Where(o => o.Child!.ClassId == classId && o.Day >= monday && o.Day <= friday && o.Withdrawal == null).Select(o => o.Day).Distinct().ToListAsync(stop);
        List<WeekDay> days = [.. Enumerable.Range(0, 5).Select(i => monday.AddDays(i)).Select(day =>
        {
            var plan = planned.GetValueOrDefault(day);
            return new WeekDay(
                day,
                StateOf(day, calendar, plan is not null, recorded.Contains(day)),
                calendar.Closures.FirstOrDefault(c => c.First <= day && day <= c.Last)?.Name,
                plan is null ? null : FocusOf(plan),
                plan is null ? [] : [.. plan.Starters.Select(s => new WeekStarter(s.Skill, map[new(s.Skill)].Short, Named(s.Activity), s.Reason))],
                plan is null ? null : Named(plan.Transition),
                plan?.Choice is { } choice ? Named(choice) : null,
                calendar.IsSchoolDay(day) ? [.. slots.Where(s => s.Weekday == day.DayOfWeek).Select(s => SlotOf(s, sessions.FirstOrDefault(g => g.SlotId == s.Id && g.Day == day), names))] : []);
        })];
        var term = calendar.Terms.FirstOrDefault(t => t.First <= friday && monday <= t.Last)?.Name;
        return new WeekView(monday, term, planned.Count > 0, days);
    }

    /// <summary>Sessions of the cycles in force: of each week the set accepted last.</summary>
    public async Task<List<GroupSession>> SessionsAsync(int classId, DateOnly from, DateOnly to, CancellationToken stop) =>
        await db.GroupSessions.AsNoTracking().Include(s => s.Members)
            .Where(s => s.ClassId == classId && s.Day >= from && s.Day <= to)
            .Where(s => !db.GroupCycles.Any(later => later.ClassId == classId && later.Monday == s.Cycle!.Monday && later.Id > s.CycleId))
            .OrderBy(s => s.Day).ThenBy(s => s.SlotId).ToListAsync(stop);

    public NamedActivity Named(string id) => new(id, library[new ActivityId(id)].Name);

    private WeekFocus FocusOf(PlannedDayRow row)
    {
        var skill = map[new SkillId(row.FocusSkill)];
        return new WeekFocus(skill.Id.Value, skill.Short, skill.ICan, row.FocusNumber, row.FocusOf, row.Stage, Named(row.FocusActivity), row.Reason);
    }

    private WeekSlot SlotOf(LessonSlotRow slot, GroupSession? session, Dictionary<int, string> names) => new(
        slot.Id,
        slot.Kind,
        slot.Start,
        slot.Minutes,
        slot.Adult?.FullName ?? "",
        slot.Where,
        session?.Id,
        session is null ? null : map[new SkillId(session.Skill)].Short,
        session is null ? [] : [.. session.Members.Select(m => names.GetValueOrDefault(m.ChildId, "")).Order(StringComparer.InvariantCultureIgnoreCase)]);

    private DayState StateOf(DateOnly day, SchoolCalendar calendar, bool planned, bool recorded) =>
        !calendar.IsSchoolDay(day) ? DayState.Closed
        : recorded ? DayState.Recorded
        : !planned ? DayState.Open
        : day < clock.Today() ? DayState.Taught
        : DayState.Planned;
}
