using Fobble.Data;
using Fobble.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Rooms;

/// <summary>Takes children from class to class, within a decision. A record hangs on its child and goes with it; where it was is kept, for the class as it was.</summary>
internal static class Moving
{
    /// <param name="day">The child's last day where it was.</param>
    /// <returns>Where it was; null where it comes back from having left that very class.</returns>
    public static async Task<StayRow?> ToAsync(FobbleDb db, Child child, int classId, DateOnly day, CancellationToken stop)
    {
        (child.LeftOn, child.KeptUntil) = (null, null);
        if (child.ClassId == classId)
        {
            return null;
        }

        StayRow stay = new()
        {
            ChildId = child.Id,
            ClassId = child.ClassId,
            Until = day,
        };
        db.Stays.Add(stay);
        child.ClassId = classId;

        // What was inferred, and a check under way, are the child's.
        await db.BaselineChecks.Where(c => c.ChildId == child.Id).ExecuteUpdateAsync(c => c.SetProperty(x => x.ClassId, classId), stop);
        return stay;
    }

    public static void Away(Child child, DateOnly day, DateOnly keptUntil) => (child.LeftOn, child.KeptUntil) = (day, keptUntil);

    /// <summary>Groups to come are formed without a child that goes in the middle of a week; those it was in stay as they were.</summary>
    public static async Task LeaveGroupsAsync(FobbleDb db, int childId, DateOnly day, CancellationToken stop)
    {
        await db.GroupMembers.Where(m => m.ChildId == childId && db.GroupSessions.Any(s => s.Id == m.SessionId && s.Day > day)).ExecuteDeleteAsync(stop);
        await db.DayMoves.Where(m => (m.ChildId == childId || m.AwayChildId == childId) && m.Day > day).ExecuteDeleteAsync(stop);
    }
}
