using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.Cupboard;
using Fobble.Server.Features.Planning;
using Fobble.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Week;

/// <summary>Works a week out day by day: the year's lessons with their activities, starters, centres and change-overs.</summary>
internal sealed class WeekMaker(FobbleDb db, ClassFacts facts, PlanReader plans, CupboardReader cupboard, ActivityLibrary library, TimeProvider clock)
{
    private const int UsesDaysBack = 14;

    /// <summary>Plans the days of a week from a day on anew; what is pinned stays.</summary>
    public async Task<int> PlanAsync(int classId, DateOnly monday, DateOnly from, CancellationToken stop)
    {
        var plan = WeekPlanner.Plan(await RequestAsync(classId, monday, from, stop));
        var pins = await db.PlannedDays.AsNoTracking().Include(d => d.Starters).Where(d => d.ClassId == classId && d.Day >= from && d.Day < monday.AddDays(7)).ToDictionaryAsync(d => d.Day, stop);
        await db.PlannedDays.Where(d => d.ClassId == classId && d.Day >= from && d.Day < monday.AddDays(7)).ExecuteDeleteAsync(stop);
        db.PlannedDays.AddRange(plan.Days.Select(d => WithPins(ToRow(classId, d), pins.GetValueOrDefault(d.Day))));
        await db.SaveChangesAsync(stop);
        return plan.Days.Count;
    }

    /// <summary>After the year's plan changed: days that were worked out already follow it, and this week's; days on which nothing changed keep their activities.</summary>
    public async Task FollowAsync(int classId, DateOnly from, CancellationToken stop)
    {
        var year = (await plans.CurrentAsync(classId, stop))?.Document.Plan;
        var timetable = await facts.TimetableAsync(classId, stop);
        var rows = await db.PlannedDays.Include(d => d.Starters).Include(d => d.More).Where(d => d.ClassId == classId && d.Day >= from).ToListAsync(stop);
        var mondays = rows.Select(r => SchoolCalendar.MondayOf(r.Day)).Append(SchoolCalendar.MondayOf(clock.Today())).Distinct().Order().ToList();
        foreach (var monday in mondays)
        {
            List<PlannedDayRow> old = [.. rows.Where(r => SchoolCalendar.MondayOf(r.Day) == monday)];
            var gone = old.Where(r => timetable.CarpetPlaces(r.Day) == 0 && year?.On(r.Day).Any() != true).ToList();
            db.PlannedDays.RemoveRange(gone);
            var changed = timetable.Calendar.DaysOfWeek(monday).Where(d => d >= from && timetable.CarpetPlaces(d) > 0 && !Same(old.FirstOrDefault(r => r.Day == d), year, d)).ToHashSet();
            if (changed.Count > 0)
            {
                var fresh = WeekPlanner.Plan(await RequestAsync(classId, monday, from, stop)).Days.Where(d => changed.Contains(d.Day)).Select(d => WithPins(ToRow(classId, d), old.FirstOrDefault(r => r.Day == d.Day))).ToList();
                db.PlannedDays.RemoveRange(old.Where(r => changed.Contains(r.Day)));
                await db.SaveChangesAsync(stop);
                db.PlannedDays.AddRange(fresh);
            }

            await db.SaveChangesAsync(stop);
        }
    }

    /// <summary>What a week is planned from; also what ranks activities for one of its days.</summary>
    public async Task<WeekRequest> RequestAsync(int classId, DateOnly monday, DateOnly from, CancellationToken stop)
    {
        var rows = await db.PlannedDays.AsNoTracking().Include(d => d.Starters).Include(d => d.More).Where(d => d.ClassId == classId && d.Day >= monday.AddDays(-UsesDaysBack) && d.Day < monday.AddDays(7 + UsesDaysBack)).ToListAsync(stop);
        var groups = await db.GroupSessions.Where(s => s.ClassId == classId && s.Day < from).Select(s => s.Skill).Distinct().ToListAsync(stop);
        return new(await facts.EvidenceAsync(classId, clock.Today(), stop), monday, await plans.TaughtAsync(classId, from, stop), library)
        {
            From = from,
            Approach = await facts.ApproachAsync(classId, stop),
            Year = (await plans.CurrentAsync(classId, stop))?.Document.Plan,
            Timetable = await facts.TimetableAsync(classId, stop),
            Stock = await cupboard.StockAsync(classId, stop),
            Uses = [.. rows.Where(r => r.Day < from || r.Day >= monday.AddDays(7)).SelectMany(UsesOf)],
            TaughtInGroups = groups.Count == 0 ? null : groups.Select(s => new SkillId(s)).ToHashSet(),
            Pinned = [.. rows.Where(r => r.Day >= from && r.Day < monday.AddDays(7)).SelectMany(PinsOf)],
        };
    }

    public static IEnumerable<ActivityUse> UsesOf(PlannedDayRow row) =>
        row.Starters.Select(s => s.Activity).Concat(row.More.Select(m => m.Activity)).Concat([row.FocusActivity, row.Transition]).Concat(row.Choice is { } choice ? [choice] : []).Select(a => new ActivityUse(new(a), row.Day));

    public static PlannedDayRow ToRow(int classId, PlannedDay day)
    {
        ArgumentNullException.ThrowIfNull(day);
        var row = new PlannedDayRow
        {
            ClassId = classId,
            Day = day.Day,
            FocusSkill = day.Focus.Skill.Value,
            FocusNumber = day.Focus.Number,
            FocusOf = day.Focus.Of,
            Stage = day.Focus.Stage,
            FocusActivity = day.Focus.Activity.Value,
            Reason = day.Focus.Reason,
            ActivityReason = day.Focus.ActivityReason,
            Transition = day.Transition.Value,
            Choice = day.Choice?.Value,
        };
        row.Starters.AddRange(day.Starters.Select(s => new PlannedStarterRow { Skill = s.Skill.Value, Activity = s.Activity.Value, Reason = s.Reason }));
        row.More.AddRange(day.More.Select(m => new PlannedMoreRow { Skill = m.Skill.Value, Number = m.Number, Of = m.Of, Stage = m.Stage, Activity = m.Activity.Value, Reason = m.Reason, ActivityReason = m.ActivityReason }));
        return row;
    }

    private static IEnumerable<PinnedActivity> PinsOf(PlannedDayRow row)
    {
        if (row.FocusPinned)
        {
            yield return new(row.Day, Place.Carpet, new(row.FocusSkill), new(row.FocusActivity));
        }

        if (row.TransitionPinned)
        {
            yield return new(row.Day, Place.Transition, null, new(row.Transition));
        }

        if (row is { ChoicePinned: true, Choice: { } choice })
        {
            yield return new(row.Day, Place.Choice, null, new(choice));
        }

        foreach (var starter in row.Starters.Where(s => s.Pinned))
        {
            yield return new(row.Day, Place.Starter, new(starter.Skill), new(starter.Activity));
        }
    }

    // A pin stays a pin as long as the day still has what was pinned.
    private static PlannedDayRow WithPins(PlannedDayRow row, PlannedDayRow? old)
    {
        if (old is null)
        {
            return row;
        }

        row.FocusPinned = old.FocusPinned && old.FocusActivity == row.FocusActivity && old.FocusSkill == row.FocusSkill;
        row.TransitionPinned = old.TransitionPinned && old.Transition == row.Transition;
        row.ChoicePinned = old.ChoicePinned && old.Choice == row.Choice;
        row.Starters.ForEach(s => s.Pinned = old.Starters.Any(o => o.Pinned && o.Skill == s.Skill && o.Activity == s.Activity));
        return row;
    }

    // Whether a day is worked out for what the plan has on it now. A day without a lesson in the plan keeps what it has.
    private static bool Same(PlannedDayRow? row, YearPlan? year, DateOnly day)
    {
        if (row is null)
        {
            return false;
        }

        var lessons = year?.On(day).ToList() ?? [];
        var reviews = year?.Reviews.Where(r => r.Day == day).Select(r => r.Skill.Value).Order(StringComparer.Ordinal) ?? Enumerable.Empty<string>();
        return (lessons.Count == 0
                ? row.More.Count == 0 && row.Stage == LessonStage.Check
                : lessons[0].Skill.Value == row.FocusSkill && lessons[0].Number == row.FocusNumber && lessons[0].Of == row.FocusOf && lessons.Skip(1).Select(l => l.Skill.Value).SequenceEqual(row.More.Select(m => m.Skill)))
            && reviews.SequenceEqual(row.Starters.Select(s => s.Skill).Order(StringComparer.Ordinal));
    }
}
