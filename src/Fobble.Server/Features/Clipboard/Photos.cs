using Fobble.Data;
using Fobble.Formats.Print;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Clipboard;

/// <summary>Photos of what a child made, where the family has agreed. Each is drawn anew on arrival, so that place, time and device are gone.</summary>
internal static class Photos
{
    private const int LargestFile = 6_000_000;

    public static void Map(IEndpointRouteBuilder ofClass)
    {
        ofClass.MapPut("/observations/{id:guid}/photo", TakeAsync).Accepts<IFormFile>("image/jpeg", "image/png", "image/webp").RequireAuthorization(Policies.Record);
        ofClass.MapGet("/observations/{id:guid}/photo", GetAsync);
    }

    private static async Task<Results<NoContent, NotFound, ValidationProblem, ProblemHttpResult>> TakeAsync(int classId, Guid id, HttpRequest request, FobbleDb db, CancellationToken stop)
    {
        var row = await db.Observations.Where(o => o.Id == id && o.Child!.ClassId == classId).Select(o => new { o.Child!.PhotosAllowed, Has = o.Photo != null }).FirstOrDefaultAsync(stop);
        if (row is null)
        {
            return TypedResults.NotFound();
        }

        if (!row.PhotosAllowed)
        {
            return Faults.One("photo", "The family has not agreed to photos of what this child makes.");
        }

        if (await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is not { } file)
        {
            return UploadedFile.TooLarge("a photo", LargestFile);
        }

        if (PhotoCopy.Of(file) is not { } copy)
        {
            return Faults.One("photo", "This is no picture that can be read.");
        }

        if (!row.Has)
        {
            db.Photos.Add(new() { ObservationId = id, Jpeg = copy });
            await db.SaveChangesAsync(stop);
        }

        return TypedResults.NoContent();
    }

    private static async Task<Results<FileContentHttpResult, NotFound>> GetAsync(int classId, Guid id, FobbleDb db, CancellationToken stop) =>
        await db.Observations.Where(o => o.Id == id && o.Child!.ClassId == classId && o.Withdrawal == null).Select(o => o.Photo!.Jpeg).FirstOrDefaultAsync(stop) is { } jpeg
            ? TypedResults.File(jpeg, "image/jpeg") : TypedResults.NotFound();
}
