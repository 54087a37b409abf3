using Fobble.Formats.Print;
using Fobble.Server.Hosting;
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
        ofClass
            .MapPut("/observations/{id:guid}/photo", TakeAsync)
            .Accepts<IFormFile>("image/jpeg", "image/png", "image/webp")
            .RequireAuthorization(Policies.Record);
        ofClass.MapGet("/observations/{id:guid}/photo", GetAsync);
    }

    private static async Task<Results<NoContent, NotFound, ProblemHttpResult>> TakeAsync(
        ClassRoom room,
        Guid id,
        HttpRequest request,
        Decisions decisions,
        Solving solving,
        CancellationToken stop
    )
    {
        var row = await room.Seen().Where(o => o.Id == id).Select(o => new { o.ChildId }).FirstOrDefaultAsync(stop);
        if (row is null)
        {
            return TypedResults.NotFound();
        }

        if (await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is not { } file)
        {
            return UploadedFile.TooLarge(Phrase("a photo"), LargestFile);
        }

        var copy = await solving.RunAsync(room.Id, _ => PhotoCopy.Of(file), stop)
            ?? throw new RefusedException("photo", Phrase("This is no picture that can be read: a photo of at most 25 million pixels, as JPEG, PNG or WebP."));
        await decisions.DecideAsync(
            async db =>
            {
                // Asked within: the family may take its word back at this moment.
                var allowed = await db.Children.AnyAsync(c => c.Id == row.ChildId && c.PhotosAllowed, stop);
                RefusedException.Unless(allowed, "photo", Phrase("The family has not agreed to photos of what this child makes."));
                // One that comes late, of what was withdrawn meanwhile, is let go.
                if (!await db.Photos.AnyAsync(p => p.ObservationId == id, stop) && !await db.Withdrawals.AnyAsync(w => w.ObservationId == id, stop))
                {
                    db.Photos.Add(new() { ObservationId = id, Jpeg = copy });
                }
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<Results<FileContentHttpResult, NotFound>> GetAsync(ClassRoom room, Guid id, CancellationToken stop) =>
        await room.WithPhoto().Where(o => o.Id == id).Select(o => o.Photo!.Jpeg).FirstOrDefaultAsync(stop) is { } jpeg
            ? TypedResults.File(jpeg, "image/jpeg")
            : TypedResults.NotFound();
}
