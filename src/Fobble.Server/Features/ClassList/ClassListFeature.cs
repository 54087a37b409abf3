using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Formats.ClassLists;
using Fobble.Formats.Csv;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.ClassList;

/// <param name="Already">A child of this name is in the class; this line is left out.</param>
public sealed record ListedChild(int Row, string GivenName, string FamilyName, DateOnly? Born, bool Already);

/// <summary>What would happen if the file were taken.</summary>
public sealed record ClassListPreview(
    IReadOnlyList<ListedChild> Children,
    IReadOnlyList<FileFault> Faults,
    IReadOnlyList<string> Notes,
    int New,
    bool CanBeTaken
);

public sealed record ClassListTaken(int Added, int Already);

/// <summary>The children by the names that may be seen, and the import of a class list: the same file is sent for the preview and for taking it, and read in the same way.</summary>
internal sealed class ClassListFeature : IFeature
{
    private const int LargestFile = 1_000_000;

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        ofClass.MapGet("/children", ChildrenAsync);
        var list = ofClass.MapGroup("/class-list").RequireAuthorization(Policies.Lead);
        list.MapPost("/preview", PreviewAsync).Accepts<byte[]>("text/csv");
        list.MapPost("/", TakeAsync).Accepts<byte[]>("text/csv");
    }

    private static async Task<Ok<IReadOnlyList<ChildName>>> ChildrenAsync(ClassRoom room, CancellationToken stop) =>
        TypedResults.Ok(await room.ChildrenAsync(stop));

    private static async Task<Results<Ok<ClassListPreview>, ProblemHttpResult>> PreviewAsync(ClassRoom room, HttpRequest request, CancellationToken stop) =>
        await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is { } file
            ? TypedResults.Ok(await PreviewOfAsync(room.Db, room, file, stop))
            : UploadedFile.TooLarge("a class list", LargestFile);

    private static async Task<Results<Ok<ClassListTaken>, UnprocessableEntity<ClassListPreview>, ProblemHttpResult>> TakeAsync(
        ClassRoom room,
        HttpRequest request,
        Decisions decisions,
        CancellationToken stop
    )
    {
        if (await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is not { } file)
        {
            return UploadedFile.TooLarge("a class list", LargestFile);
        }

        // Who is there already is asked within: the same list sent twice at once adds its children once.
        var preview = await decisions.DecideAsync(
            async db =>
            {
                var seen = await PreviewOfAsync(db, room, file, stop);
                db.Children.AddRange(
                    seen.Children.Where(c => seen.CanBeTaken && !c.Already)
                        .Select(c => new Child
                        {
                            ClassId = room.Id.Value,
                            GivenName = c.GivenName,
                            FamilyName = c.FamilyName,
                            Born = c.Born,
                        })
                );
                return seen;
            },
            stop
        );
        return preview.CanBeTaken
            ? TypedResults.Ok(new ClassListTaken(preview.New, preview.Children.Count - preview.New))
            : TypedResults.UnprocessableEntity(preview);
    }

    private static async Task<ClassListPreview> PreviewOfAsync(FobbleDb db, ClassRoom room, byte[] file, CancellationToken stop)
    {
        var reading = ClassListReader.Read(file, room.Today);
        var there = await db
            .Children.Where(c => c.ClassId == room.Id.Value)
            .Select(c => new
            {
                c.GivenName,
                c.FamilyName,
                c.Born,
            })
            .ToListAsync(stop);
        bool IsThere(ClassListChild child) =>
            there.Any(t =>
                ClassListReader.Same(t.GivenName) == ClassListReader.Same(child.GivenName)
                && ClassListReader.Same(t.FamilyName) == ClassListReader.Same(child.FamilyName)
                && (t.Born is null || child.Born is null || t.Born == child.Born)
            );
        List<ListedChild> children = [.. reading.Children.Select(c => new ListedChild(c.Row, c.GivenName, c.FamilyName, c.Born, IsThere(c)))];
        return new(children, reading.Faults, reading.Notes, children.Count(c => !c.Already), reading.CanBeTaken);
    }
}
