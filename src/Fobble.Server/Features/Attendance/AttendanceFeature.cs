using Fobble.Data.Model;
using Fobble.Server.Features.Groups;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fobble.Server.Features.Attendance;

public sealed record Attendance(bool Away);

/// <param name="Changes">What it changed in the groups of the day, in sentences; empty where nothing had to change.</param>
public sealed record AttendanceTaken(IReadOnlyList<string> Changes);

internal sealed class AttendanceFeature : IFeature
{
    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass) =>
        ofClass.MapPut("/attendance/{day}/{childId:int}", SetAsync).RequireAuthorization(Policies.Record);

    private static async Task<Results<Ok<AttendanceTaken>, NotFound>> SetAsync(
        ClassRoom room,
        DateOnly day,
        ChildId childId,
        Attendance request,
        DayReform reform,
        Decisions decisions,
        HttpContext http,
        CancellationToken stop
    )
    {
        if (await room.NameOfAsync(childId, stop) is null)
        {
            return TypedResults.NotFound();
        }

        // Which groups change is worked out before the write begins: nobody's tap waits for it. Another tap in between has it worked out again.
        return TypedResults.Ok(
            new AttendanceTaken(
                await decisions.SettleAsync(
                    Parts.Groups | Parts.Calendar,
                    async () =>
                        request.Away && !(await room.AwayAsync(day, stop)).Contains(childId.Value)
                            ? await reform.WithoutAsync(childId, day, stop)
                            : DayChanges.None,
                    async (db, changes) =>
                    {
                        var absence = await db.Absences.FindAsync([childId.Value, day], stop);
                        if (request.Away == (absence is not null))
                        {
                            return [];
                        }

                        if (absence is not null)
                        {
                            db.Absences.Remove(absence);
                            return await reform.BackAsync(childId, day, db, stop);
                        }

                        db.Absences.Add(
                            new Absence
                            {
                                ChildId = childId.Value,
                                Day = day,
                                MarkedBy = http.User.AdultId().Value,
                            }
                        );
                        await DayReform.KeepAsync(changes, childId, day, db, stop);
                        return changes.Sentences;
                    },
                    stop
                )
            )
        );
    }
}
