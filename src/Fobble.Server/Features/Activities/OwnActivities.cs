using Fobble.Core.Activities;
using Fobble.Data.Model;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Activities;

public sealed record ActivitiesTaken(IReadOnlyList<string> Names);

/// <summary>Activities that teachers wrote or changed: kept for the school, handed on as a file.</summary>
internal static class OwnActivities
{
    private const int LargestFile = 1_000_000;

    public static void Map(RouteGroupBuilder activities)
    {
        activities.MapGet("/{activityId}/written", Written);
        activities.MapGet("/{activityId}/file", File).Produces(StatusCodes.Status200OK, contentType: "application/yaml");
        var lead = activities.MapGroup("/").RequireAuthorization(Policies.Lead);
        lead.MapPut("/{activityId}", KeepAsync);
        lead.MapDelete("/{activityId}", TakeBackAsync);
        lead.MapPost("/file", TakeFileAsync).Accepts<byte[]>("application/yaml");
    }

    /// <summary>The form in which it is changed.</summary>
    private static Results<Ok<ActivityEntry>, NotFound> Written(ClassRoom room, string activityId) =>
        room.Content.Written.FirstOrDefault(a => a.Id.Value == activityId) is { } activity
            ? TypedResults.Ok(ActivityEntry.Of(activity))
            : TypedResults.NotFound();

    private static Results<FileContentHttpResult, NotFound> File(ClassRoom room, string activityId) =>
        room.Content.Written.FirstOrDefault(a => a.Id.Value == activityId) is { } activity
            ? TypedResults.File(System.Text.Encoding.UTF8.GetBytes(ActivityLoader.Write([activity])), "application/yaml", $"{activity.Id}.yaml")
            : TypedResults.NotFound();

    private static async Task<NoContent> KeepAsync(ClassRoom room, string activityId, ActivityEntry entry, Decisions decisions, CancellationToken stop)
    {
        await KeepAllAsync(room, [ActivityLoader.ToActivity(room.Map, entry with { Id = activityId })], decisions, stop);
        return TypedResults.NoContent();
    }

    private static async Task<Results<Ok<ActivitiesTaken>, ProblemHttpResult>> TakeFileAsync(
        ClassRoom room,
        HttpRequest request,
        Decisions decisions,
        CancellationToken stop
    )
    {
        if (await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is not { } file)
        {
            return UploadedFile.TooLarge(Phrase("a file of activities"), LargestFile);
        }

        var read = ActivityLoader.Read(room.Map, [(Phrase("The file"), System.Text.Encoding.UTF8.GetString(file))]);
        await KeepAllAsync(room, read, decisions, stop);
        return TypedResults.Ok(new ActivitiesTaken([.. read.Select(a => a.Name)]));
    }

    private static async Task KeepAllAsync(ClassRoom room, IReadOnlyList<Activity> activities, Decisions decisions, CancellationToken stop)
    {
        ActivityLibrary.CheckOwn(room.Map, activities);
        var ids = activities.Select(a => a.Id.Value).ToList();
        await decisions.DecideAsync(
            Expected.Unchanged(room, Parts.Content),
            async db =>
            {
                await db.OwnActivities.Where(a => a.SchoolId == room.SchoolId && ids.Contains(a.Activity)).ExecuteDeleteAsync(stop);
                db.OwnActivities.AddRange(
                    activities.Select(a => new OwnActivityRow
                    {
                        SchoolId = room.SchoolId,
                        Activity = a.Id.Value,
                        Content = ActivityLoader.Write([a]),
                    })
                );
            },
            stop
        );
    }

    private static async Task<Results<NoContent, NotFound>> TakeBackAsync(ClassRoom room, string activityId, Decisions decisions, CancellationToken stop)
    {
        var ships = ActivityLoader.AsWritten.Any(a => a.Id.Value == activityId);
        var gone = await decisions.DecideAsync(
            async db =>
            {
                // Sets of groups that were replaced speak of it as well: their cards can be asked for by what was recorded.
                var spokenOf =
                    !ships
                    && (
                        await db.GroupSessions.AnyAsync(s => s.Activity == activityId, stop)
                        || await db.PlannedDays.AnyAsync(
                            d =>
                                d.FocusActivity == activityId
                                || d.Choice == activityId
                                || d.Transition == activityId
                                || d.Starters.Any(s => s.Activity == activityId)
                                || d.More.Any(m => m.Activity == activityId),
                            stop
                        )
                    );
                RefusedException.Unless(!spokenOf, "activity", Phrase("Plans or sessions speak of this activity, so it stays. Change it instead."));
                return await db.OwnActivities.Where(a => a.Activity == activityId && a.SchoolId == room.SchoolId).ExecuteDeleteAsync(stop);
            },
            stop
        );
        return gone == 0 ? TypedResults.NotFound() : TypedResults.NoContent();
    }
}
