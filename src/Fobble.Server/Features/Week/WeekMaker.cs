using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Week;

/// <summary>Days that were worked out anew, and days that are none any more; kept in one go.</summary>
internal sealed record WorkedOutDays(ClassId ClassId, IReadOnlyList<DateOnly> Gone, IReadOnlyList<PlannedDayRow> Fresh)
{
    public async Task KeepAsync(FobbleDb db, CancellationToken stop)
    {
        var days = Gone.Concat(Fresh.Select(f => f.Day)).Distinct().ToList();
        await db.PlannedDays.Where(d => d.ClassId == ClassId.Value && days.Contains(d.Day)).ExecuteDeleteAsync(stop);
        db.PlannedDays.AddRange(Fresh);
    }
}

/// <summary>Works a week out day by day: the year's lessons with their activities, starters, centres and change-overs. It keeps nothing itself.</summary>
internal sealed class WeekMaker(ClassRoom room)
{
    private const int UsesDaysBack = 14;

    /// <summary>The days of a week from a day on, anew; what is pinned stays.</summary>
    public async Task<WorkedOutDays> PlanAsync(DateOnly monday, DateOnly from, CancellationToken stop)
    {
        var plan = WeekPlanner.Plan(await RequestAsync(monday, from, stop));
        var old = await RowsAsync(from, monday.AddDays(6), stop);
        return new(room.Id, [.. old.Keys], [.. plan.Days.Select(d => WithPins(ToRow(room.Id, d), old.GetValueOrDefault(d.Day)))]);
    }

    /// <summary>What follows from another plan of the year for days that were worked out already, and for this week; days on which nothing changes keep their activities.</summary>
    /// <param name="lost">Days that the class loses with it.</param>
    public async Task<WorkedOutDays> FollowAsync(YearPlan year, IReadOnlyList<Closure> lost, CancellationToken stop)
    {
        var own = await room.TimetableAsync(stop);
        var timetable = lost.Count == 0 ? own : own.On(new SchoolCalendar(own.Calendar.Terms, [.. own.Calendar.Closures, .. lost]));
        var from = await room.FirstOpenDayAsync(stop);
        var rows = await RowsAsync(from, DateOnly.MaxValue, stop);
        var mondays = rows.Keys.Select(SchoolCalendar.MondayOf).Append(SchoolCalendar.MondayOf(room.Today)).Distinct().Order().ToList();
        List<DateOnly> gone = [.. rows.Keys.Where(d => timetable.CarpetPlaces(d) == 0 && !year.On(d).Any())];
        List<PlannedDayRow> fresh = [];
        foreach (var monday in mondays)
        {
            var changed = timetable
                .Calendar.DaysOfWeek(monday)
                .Where(d => d >= from && timetable.CarpetPlaces(d) > 0 && !Same(rows.GetValueOrDefault(d), year, d))
                .ToHashSet();
            if (changed.Count > 0)
            {
                var request = await RequestAsync(monday, from, stop) with { Year = year, Timetable = timetable };
                fresh.AddRange(
                    WeekPlanner.Plan(request).Days.Where(d => changed.Contains(d.Day)).Select(d => WithPins(ToRow(room.Id, d), rows.GetValueOrDefault(d.Day)))
                );
            }
        }

        return new(room.Id, gone, fresh);
    }

    /// <summary>What a week is planned from; also what ranks activities for one of its days.</summary>
    public async Task<WeekRequest> RequestAsync(DateOnly monday, DateOnly from, CancellationToken stop)
    {
        var rows = (await RowsAsync(monday.AddDays(-UsesDaysBack), monday.AddDays(6 + UsesDaysBack), stop)).Values;
        var groups = await room.SessionsInForce().Where(s => s.Day < from).Select(s => s.Skill).Distinct().ToListAsync(stop);
        return new(await room.EvidenceAsync(stop), monday, await room.TaughtAsync(from, stop), room.Library)
        {
            From = from,
            Approach = room.Approach,
            Year = (await room.PlanAsync(stop))?.Document.Plan,
            Timetable = await room.TimetableAsync(stop),
            Stock = await room.StockAsync(stop),
            Uses = [.. rows.Where(r => r.Day < from || r.Day >= monday.AddDays(7)).SelectMany(UsesOf)],
            TaughtInGroups = groups.Count == 0 ? null : groups.Select(s => new SkillId(s)).ToHashSet(),
            Pinned = [.. rows.Where(r => r.Day >= from && r.Day < monday.AddDays(7)).SelectMany(PinsOf)],
        };
    }

    private Task<Dictionary<DateOnly, PlannedDayRow>> RowsAsync(DateOnly from, DateOnly to, CancellationToken stop) =>
        room
            .Db.PlannedDays.Include(d => d.Starters)
            .Include(d => d.More)
            .Where(d => d.ClassId == room.Id.Value && d.Day >= from && d.Day <= to)
            .ToDictionaryAsync(d => d.Day, stop);

    public static IEnumerable<ActivityUse> UsesOf(PlannedDayRow row) =>
        row
            .Starters.Select(s => s.Activity)
            .Concat(row.More.Select(m => m.Activity))
            .Concat([row.FocusActivity, row.Transition])
            .Concat(row.Choice is { } choice ? [choice] : [])
            .Select(a => new ActivityUse(new(a), row.Day));

    public static PlannedDayRow ToRow(ClassId classId, PlannedDay day)
    {
        ArgumentNullException.ThrowIfNull(day);
        var row = new PlannedDayRow
        {
            ClassId = classId.Value,
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
        row.Starters.AddRange(
            day.Starters.Select(s => new PlannedStarterRow
            {
                Skill = s.Skill.Value,
                Activity = s.Activity.Value,
                Reason = s.Reason,
            })
        );
        row.More.AddRange(
            day.More.Select(m => new PlannedMoreRow
            {
                Skill = m.Skill.Value,
                Number = m.Number,
                Of = m.Of,
                Stage = m.Stage,
                Activity = m.Activity.Value,
                Reason = m.Reason,
                ActivityReason = m.ActivityReason,
            })
        );
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
    private static bool Same(PlannedDayRow? row, YearPlan year, DateOnly day)
    {
        if (row is null)
        {
            return false;
        }

        var lessons = year.On(day).ToList();
        var reviews = year.Reviews.Where(r => r.Day == day).Select(r => r.Skill.Value).Order(StringComparer.Ordinal);
        return (
                lessons.Count == 0
                    ? row.More.Count == 0 && row.Stage == LessonStage.Check
                    : lessons[0].Skill.Value == row.FocusSkill
                        && lessons[0].Number == row.FocusNumber
                        && lessons[0].Of == row.FocusOf
                        && lessons.Skip(1).Select(l => l.Skill.Value).SequenceEqual(row.More.Select(m => m.Skill))
            ) && reviews.SequenceEqual(row.Starters.Select(s => s.Skill).Order(StringComparer.Ordinal));
    }
}
