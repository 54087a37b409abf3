using System.Security.Claims;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.Groups;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Attendance;

public sealed record Attendance(bool Away);

/// <param name="Changes">What it changed in the groups of the day, in sentences; empty where nothing had to change.</param>
public sealed record AttendanceTaken(IReadOnlyList<string> Changes);

internal static class AttendanceEndpoints
{
    public static void MapAttendance(this IEndpointRouteBuilder ofClass) =>
        ofClass.MapPut("/attendance/{day}/{childId:int}", SetAsync).RequireAuthorization(Policies.Record);

    private static async Task<Results<Ok<AttendanceTaken>, NotFound>> SetAsync(int classId, DateOnly day, int childId, Attendance request, ClaimsPrincipal user, FobbleDb db, DayReform reform, CancellationToken stop)
    {
        if (!await db.Children.AnyAsync(c => c.Id == childId && c.ClassId == classId, stop))
        {
            return TypedResults.NotFound();
        }

        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        var absence = await db.Absences.FindAsync([childId, day], stop);
        if (request.Away == (absence is not null))
        {
            return TypedResults.Ok(new AttendanceTaken([]));
        }

        if (absence is null)
        {
            db.Absences.Add(new Absence { ChildId = childId, Day = day, MarkedBy = user.AdultId() });
        }
        else
        {
            db.Absences.Remove(absence);
        }

        await db.SaveChangesAsync(stop);
        var changes = request.Away ? await reform.AwayAsync(classId, day, childId, stop) : await reform.BackAsync(classId, day, childId, stop);
        await transaction.CommitAsync(stop);
        return TypedResults.Ok(new AttendanceTaken(changes));
    }
}
