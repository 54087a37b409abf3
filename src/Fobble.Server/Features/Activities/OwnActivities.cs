using Fobble.Core.Activities;
using Fobble.Core.Skills;
using Fobble.Data;
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

    public static async Task<IReadOnlySet<string>> IdsAsync(int classId, FobbleDb db, CancellationToken stop) =>
        (await Of(classId, db).Select(a => a.Activity).ToListAsync(stop)).ToHashSet();

    private static IQueryable<Data.Model.OwnActivityRow> Of(int classId, FobbleDb db) => db.OwnActivities.AsNoTracking().Where(a => db.Classes.Any(c => c.Id == classId && c.SchoolId == a.SchoolId));

    /// <summary>The form in which it is changed.</summary>
    private static Results<Ok<ActivityEntry>, NotFound> Written(int classId, string activityId, ClassContent content) =>
        content.Written.FirstOrDefault(a => a.Id.Value == activityId) is { } activity ? TypedResults.Ok(ActivityEntry.Of(activity)) : TypedResults.NotFound();

    private static Results<FileContentHttpResult, NotFound> File(int classId, string activityId, ClassContent content) => content.Written.FirstOrDefault(a => a.Id.Value == activityId) is { } activity
        ? TypedResults.File(System.Text.Encoding.UTF8.GetBytes(ActivityLoader.Write([activity])), "application/yaml", $"{activity.Id}.yaml")
        : TypedResults.NotFound();

    private static async Task<Results<NoContent, ValidationProblem>> KeepAsync(int classId, string activityId, ActivityEntry entry, ClassContent content, ContentShelf shelf, FobbleDb db, CancellationToken stop)
    {
        try
        {
            var activity = ActivityLoader.ToActivity(content.Map, entry with { Id = activityId });
            await KeepAllAsync(classId, [activity], content.Map, shelf, db, stop);
            return TypedResults.NoContent();
        }
        catch (FormatException fault)
        {
            return Faults.One("activity", fault.Message);
        }
    }

    private static async Task<Results<Ok<ActivitiesTaken>, ValidationProblem, ProblemHttpResult>> TakeFileAsync(int classId, HttpRequest request, ClassContent content, ContentShelf shelf, FobbleDb db, CancellationToken stop)
    {
        if (await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is not { } file)
        {
            return UploadedFile.TooLarge("a file of activities", LargestFile);
        }

        try
        {
            var read = ActivityLoader.Read(content.Map, [("The file", System.Text.Encoding.UTF8.GetString(file))]);
            await KeepAllAsync(classId, read, content.Map, shelf, db, stop);
            return TypedResults.Ok(new ActivitiesTaken([.. read.Select(a => a.Name)]));
        }
        catch (FormatException fault)
        {
            return Faults.One("file", fault.Message + " Nothing was taken.");
        }
    }

    /// <exception cref="FormatException">Two have one id, or one serves a skill with numbers that hold no item.</exception>
    private static async Task KeepAllAsync(int classId, IReadOnlyList<Activity> activities, SkillMap map, ContentShelf shelf, FobbleDb db, CancellationToken stop)
    {
        _ = new ActivityLibrary(map, activities);
        if (activities.FirstOrDefault(a => a.Id.Value.Length > 80 || a.Name.Length > 80) is { } tooLong)
        {
            throw new FormatException($"Activity {tooLong.Id.Value[..Math.Min(20, tooLong.Id.Value.Length)]}: a name has at most 80 letters.");
        }

        var school = await db.Classes.Where(c => c.Id == classId).Select(c => c.SchoolId).SingleAsync(stop);
        var ids = activities.Select(a => a.Id.Value).ToList();
        await using var transaction = await db.Database.BeginTransactionAsync(stop);
        await db.OwnActivities.Where(a => a.SchoolId == school && ids.Contains(a.Activity)).ExecuteDeleteAsync(stop);
        db.OwnActivities.AddRange(activities.Select(a => new Data.Model.OwnActivityRow { SchoolId = school, Activity = a.Id.Value, Content = ActivityLoader.Write([a]) }));
        await db.SaveChangesAsync(stop);
        await transaction.CommitAsync(stop);
        shelf.Forget();
    }

    private static async Task<Results<NoContent, ValidationProblem, NotFound>> TakeBackAsync(int classId, string activityId, ContentShelf shelf, FobbleDb db, CancellationToken stop)
    {
        var ships = ActivityLoader.AsWritten.Any(a => a.Id.Value == activityId);
        if (!ships && (await db.PlannedDays.AnyAsync(d => d.FocusActivity == activityId || d.Choice == activityId || d.Transition == activityId || d.Starters.Any(s => s.Activity == activityId) || d.More.Any(m => m.Activity == activityId), stop)
            || await db.GroupSessions.AnyAsync(s => s.Activity == activityId, stop)))
        {
            return Faults.One("activity", "Plans or sessions speak of this activity, so it stays. Change it instead.");
        }

        var gone = await db.OwnActivities.Where(a => a.Activity == activityId && db.Classes.Any(c => c.Id == classId && c.SchoolId == a.SchoolId)).ExecuteDeleteAsync(stop);
        shelf.Forget();
        return gone == 0 ? TypedResults.NotFound() : TypedResults.NoContent();
    }
}
