using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Data.Model;
using Fobble.Server.Features.GuessJar;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Week;

/// <summary>A week as it is planned and as far as it has come; read by the Plan, the string of beads, Today and the clipboard.</summary>
internal sealed class WeekReader(ClassRoom room)
{
    public async Task<WeekView> ReadAsync(DateOnly monday, CancellationToken stop)
    {
        var timetable = await room.TimetableAsync(stop);
        var calendar = timetable.Calendar;
        var approach = room.Approach;
        var friday = monday.AddDays(4);
        var planned = await room
            .Db.PlannedDays.Include(d => d.Starters)
            .Include(d => d.More)
            .Where(d => d.ClassId == room.Id.Value && d.Day >= monday && d.Day <= friday)
            .ToDictionaryAsync(d => d.Day, stop);
        var sessions = await room.SessionsAsync(monday, friday, stop);
        var children = await room.ChildrenAsync(stop);
        var evidence = sessions.Count == 0 ? null : await room.EvidenceAsync(stop);
        var recorded = await room.Seen().Where(o => o.Day >= monday && o.Day <= friday && o.Withdrawal == null).Select(o => o.Day).Distinct().ToListAsync(stop);
        var year = (await room.PlanAsync(stop))?.Document.Plan;
        List<WeekDay> days =
        [
            .. Enumerable
                .Range(0, 5)
                .Select(i => monday.AddDays(i))
                .Select(day =>
                {
                    var plan = planned.GetValueOrDefault(day);
                    var slots = timetable.On(day);
                    var minutes = plan is null ? null : MinutesOf(plan, slots);
                    var lessons = year?.On(day).ToList() ?? [];
                    return new WeekDay(
                        day,
                        DayStates.Of(day, room.Today, calendar, plan is not null, recorded.Contains(day)),
                        calendar.Different(day)?.Name,
                        plan is null ? null : FocusOf(plan, approach),
                        plan is null ? [] : [.. plan.More.Select(m => FocusOf(m, approach))],
                        plan is null
                            ? []
                            : [.. plan.Starters.Select(s => new WeekStarter(s.Skill, room.Map[new(s.Skill)].Short, Named(s.Activity), s.Reason, s.Pinned))],
                        plan is null ? null : Named(plan.Transition),
                        plan?.TransitionPinned == true,
                        plan?.Choice is { } choice ? Named(choice) : null,
                        plan?.ChoicePinned == true,
                        [
                            .. slots.Select(s =>
                                sessions.FirstOrDefault(g => g.SlotId == s.Id && g.Day == day) is { } session
                                    ? SlotOf(s, session.Id, room.Map[new SkillId(session.Skill)].Short, MembersOf(session, children, evidence!))
                                    : SlotOf(s)
                            ),
                        ],
                        plan is null ? [.. lessons.Where(l => room.Map.Has(l.Skill)).Select(l => room.Map[l.Skill].Short)] : [],
                        minutes?.Sentence,
                        minutes?.Over > 0,
                        [.. lessons.Select(l => l.Note).Where(n => n.Length > 0)]
                    );
                }),
        ];
        var term = calendar.Terms.FirstOrDefault(t => t.First <= friday && monday <= t.Last)?.Name;
        return new WeekView(monday, term, planned.Count > 0, await JarSentence.ForAsync(room, children.Count, stop), days);
    }

    public NamedActivity Named(string id) => new(id, room.Library[new ActivityId(id)].Name);

    // The first whole-class lesson: its starters, and what it is on.
    private DayMinutes? MinutesOf(PlannedDayRow plan, IReadOnlyList<LessonSlot> slots)
    {
        if (slots.FirstOrDefault(s => s.Kind == SlotKind.Carpet) is not { } carpet)
        {
            return null;
        }

        var focus = room.Library[new(plan.FocusActivity)];
        return new(
            carpet.Minutes,
            [
                .. plan.Starters.Select(s => new MinutesLine(room.Library[new(s.Activity)].Name, StarterPlanner.MinutesOf(room.Library[new(s.Activity)]))),
                new MinutesLine(focus.Name, focus.MinutesFor(focus.GroupSize.High)),
            ]
        );
    }

    private WeekFocus FocusOf(PlannedDayRow row, Approach approach)
    {
        var skill = room.Map[new SkillId(row.FocusSkill)];
        return new(
            skill.Id.Value,
            skill.Short,
            skill.ICan,
            row.FocusNumber,
            row.FocusOf,
            row.Stage,
            StageWords.Of(row.Stage, skill, approach),
            Named(row.FocusActivity),
            row.Reason,
            row.ActivityReason,
            row.FocusPinned
        );
    }

    private WeekFocus FocusOf(PlannedMoreRow row, Approach approach)
    {
        var skill = room.Map[new SkillId(row.Skill)];
        return new(
            skill.Id.Value,
            skill.Short,
            skill.ICan,
            row.Number,
            row.Of,
            row.Stage,
            StageWords.Of(row.Stage, skill, approach),
            Named(row.Activity),
            row.Reason,
            row.ActivityReason,
            false
        );
    }

    private static WeekSlot SlotOf(LessonSlot slot, int? session = null, string? skill = null, IReadOnlyList<WeekChild>? children = null) =>
        new(slot.Id, slot.Kind, slot.Start, slot.Minutes, slot.Adult, slot.Where, session, skill, children ?? []);

    /// <summary>The children of a group in the order of their names, each as it stands in the group's aim.</summary>
    public static IReadOnlyList<WeekChild> MembersOf(GroupSession session, IReadOnlyList<ChildName> children, ClassEvidence evidence)
    {
        var members = session.Members.Select(m => m.ChildId).ToHashSet();
        return
        [
            .. children
                .Where(c => members.Contains(c.Id))
                .Select(c => (c.Name, Mark: evidence[new(c.Id), new(session.Skill)]))
                .Select(c => new WeekChild(c.Name, (int)c.Mark.Strength, c.Mark.LookAgain)),
        ];
    }
}
