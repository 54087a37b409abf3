using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.Week;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Groups;

/// <summary>Groups that met, from the sets in force: each with those who were there.</summary>
internal sealed class GroupHistory(FobbleDb db, WeekReader weeks)
{
    /// <summary>Sessions between two days, with their cycles, and who was away on which day.</summary>
    public async Task<(List<GroupSession> Sessions, ILookup<DateOnly, int> Away)> ReadAsync(int classId, DateOnly from, DateOnly until, CancellationToken stop)
    {
        var sessions = await weeks.SessionsAsync(classId, from, until, stop);
        var away = await db.Absences.AsNoTracking().Where(a => a.Child!.ClassId == classId && a.Day >= from && a.Day <= until).Select(a => new { a.Day, a.ChildId }).ToListAsync(stop);
        return (sessions, away.ToLookup(a => a.Day, a => a.ChildId));
    }

    /// <summary>Sessions since a day that have been held: those of days before today, and of today those in which something was recorded.</summary>
    public async Task<(List<GroupSession> Sessions, ILookup<DateOnly, int> Away)> HeldAsync(int classId, DateOnly from, DateOnly today, CancellationToken stop)
    {
        var (sessions, away) = await ReadAsync(classId, from, today, stop);
        var open = sessions.Where(s => s.Day == today).Select(s => s.Id).ToList();
        var begun = await db.Observations.Where(o => o.SessionId != null && open.Contains(o.SessionId.Value) && o.Withdrawal == null).Select(o => o.SessionId!.Value).Distinct().ToListAsync(stop);
        return ([.. sessions.Where(s => s.Day < today || begun.Contains(s.Id))], away);
    }

    /// <summary>A child who was away has had no turn.</summary>
    public static PastGroup Met(GroupSession session, ILookup<DateOnly, int> away) => new(
        session.Day, Core.Calendars.SchoolCalendar.MondayOf(session.Day).DayNumber / 7, new SkillId(session.Skill),
        [.. session.Members.Where(m => !away[session.Day].Contains(m.ChildId)).Select(m => new ChildId(m.ChildId)).Order()]);
}
