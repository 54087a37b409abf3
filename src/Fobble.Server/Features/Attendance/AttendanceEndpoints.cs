using System.Security.Claims;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Attendance;

public sealed record Attendance(bool Away);

internal static class AttendanceEndpoints
{
    public static void MapAttendance(this IEndpointRouteBuilder ofClass) =>
        ofClass.MapPut("/attendance/{day}/{childId:int}", SetAsync).RequireAuthorization(Policies.Record);

    private static async Task<Results<NoContent, NotFound>> SetAsync(int classId, DateOnly day, int childId, Attendance request, ClaimsPrincipal user, FobbleDb db, CancellationToken stop)
    {
        if (!await db.Children.AnyAsync(c => c.Id == childId && c.ClassId == classId, stop))
        {
            return TypedResults.NotFound();
        }

        var absence = await db.Absences.FindAsync([childId, day], stop);
        if (request.Away && absence is null)
        {
            db.Absences.Add(new Absence { ChildId = childId, Day = day, MarkedBy = user.AdultId() });
        }
        else if (!request.Away && absence is not null)
        {
            db.Absences.Remove(absence);
        }

        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }
}
