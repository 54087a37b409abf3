using System.Globalization;
using Fobble.Core.People;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Formats.ClassLists;
using Fobble.Formats.Csv;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.ClassList;

/// <param name="Already">A child of this name is in the class; this line is left out.</param>
/// <param name="Mark">Tells it from a child of the same name.</param>
/// <param name="Name">As everybody will see it.</param>
/// <param name="Shared">Another child has the same whole name: a mark tells them apart best.</param>
public sealed record ListedChild(int Row, string GivenName, string FamilyName, DateOnly? Born, bool Already, string? Mark, string Name, bool Shared);

/// <summary>What would happen if the file were taken.</summary>
public sealed record ClassListPreview(
    IReadOnlyList<ListedChild> Children,
    IReadOnlyList<FileFault> Faults,
    IReadOnlyList<string> Notes,
    IReadOnlyList<UnprintedName> Unprinted,
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
        list.MapPost("/", TakeAsync).Accepts<byte[]>("text/csv").WithTrace(TraceKind.ClassListIn);
    }

    private static async Task<Ok<IReadOnlyList<ChildName>>> ChildrenAsync(ClassRoom room, CancellationToken stop) =>
        TypedResults.Ok(await room.ChildrenAsync(stop));

    private static async Task<Results<Ok<ClassListPreview>, ProblemHttpResult>> PreviewAsync(
        ClassRoom room,
        HttpRequest request,
        [FromQuery] string[]? mark,
        [FromQuery] string[]? printed,
        CancellationToken stop
    ) =>
        await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is { } file
            ? TypedResults.Ok(await PreviewOfAsync(room.Db, room, file, new(ByLine(mark, "mark"), ByLine(printed, "printed")), stop))
            : UploadedFile.TooLarge(Phrase("a class list"), LargestFile);

    private static async Task<Results<Ok<ClassListTaken>, UnprocessableEntity<ClassListPreview>, ProblemHttpResult>> TakeAsync(
        ClassRoom room,
        HttpRequest request,
        [FromQuery] string[]? mark,
        [FromQuery] string[]? printed,
        Decisions decisions,
        CancellationToken stop
    )
    {
        if (await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is not { } file)
        {
            return UploadedFile.TooLarge(Phrase("a class list"), LargestFile);
        }

        // Who is there already is asked within: the same list sent twice at once adds its children once.
        var preview = await decisions.DecideAsync(
            async db =>
            {
                var seen = await PreviewOfAsync(db, room, file, new(ByLine(mark, "mark"), ByLine(printed, "printed")), stop);
                db.Children.AddRange(
                    seen.Children.Where(c => seen.CanBeTaken && !c.Already)
                        .Select(c => new Child
                        {
                            ClassId = room.Id.Value,
                            GivenName = c.GivenName,
                            FamilyName = c.FamilyName,
                            Born = c.Born,
                            Mark = c.Mark,
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

    private static async Task<ClassListPreview> PreviewOfAsync(FobbleDb db, ClassRoom room, byte[] file, ClassListAnswers answers, CancellationToken stop)
    {
        var reading = ClassListReader.Read(file, room.Today, answers);
        List<ListedName> there =
        [
            .. (await db.Children.Where(c => c.ClassId == room.Id.Value && c.LeftOn == null).OrderBy(c => c.Id).ToListAsync(stop)).Select(ClassRoom.Listed),
        ];
        var read = reading.Children.Select(c => (Child: c, c.Listed, Already: there.Any(t => IsOne(c.Listed, t)))).ToList();
        List<ListedName> together = [.. there, .. read.Where(c => !c.Already).Select(c => c.Listed)];
        var names = ShortNames.Of(together);
        string NameOf(ListedName listed, bool already) => names[together.FindIndex(c => already ? IsOne(listed, c) : ReferenceEquals(c, listed))];
        List<ListedChild> children =
        [
            .. read.Select(c => new ListedChild(
                c.Child.Row,
                c.Child.GivenName,
                c.Child.FamilyName,
                c.Child.Born,
                c.Already,
                c.Child.Mark,
                NameOf(c.Listed, c.Already),
                ShortNames.AlikeTo(c.Listed, together).Count > 1
            )),
        ];
        var notes = reading.Notes.Concat(await KnownElsewhereAsync(db, room, [.. read.Where(c => !c.Already).Select(c => (c.Child.Row, c.Listed))], stop));
        return new(children, reading.Faults, [.. notes], reading.Unprinted, children.Count(c => !c.Already), reading.CanBeTaken);
    }

    // Two records of one child can't be put together afterwards: who brings in a list is told before.
    private static async Task<IEnumerable<string>> KnownElsewhereAsync(
        FobbleDb db,
        ClassRoom room,
        IReadOnlyList<(int Row, ListedName Listed)> fresh,
        CancellationToken stop
    )
    {
        var elsewhere = await db
            .Children.Where(c => c.Class!.SchoolId == room.SchoolId && (c.ClassId != room.Id.Value || c.LeftOn != null))
            .OrderBy(c => c.Id)
            .Select(c => new { Child = c, Class = c.Class!.Name })
            .ToListAsync(stop);
        return fresh.SelectMany(f =>
            elsewhere
                .Where(e => IsOne(f.Listed, ClassRoom.Listed(e.Child)))
                .Select(e =>
                    e.Child.LeftOn is null
                        ? Phrase(
                            $"Line {f.Row}: a child of this name is in {e.Class}. Is it the same, whoever leads the school moves it here with its record; this list begins a new one."
                        )
                        : Phrase(
                            $"Line {f.Row}: a child of this name has left the school. Is it the same, whoever leads the school brings it back with its record; this list begins a new one."
                        )
                )
        );
    }

    // A mark that nobody there has says that it is another child of the same name.
    private static bool IsOne(ListedName read, ListedName there) =>
        ShortNames.AlikeTo(read, [there]).Count > 0
        && (there.Born is null || read.Born is null || there.Born == read.Born)
        && (read.Mark is null || ShortNames.Same(read.Mark) == ShortNames.Same(there.Mark ?? ""));

    // “3:B” for the child in line 3 of the file.
    private static Dictionary<int, string> ByLine(string[]? answers, string field)
    {
        Dictionary<int, string> byLine = [];
        foreach (var answer in answers ?? [])
        {
            var colon = answer.IndexOf(':', StringComparison.Ordinal);
            RefusedException.Unless(
                colon > 0 && int.TryParse(answer[..colon], NumberStyles.None, CultureInfo.InvariantCulture, out _),
                field,
                Phrase($"“{answer}” can't be read: write the line of the file, a colon, and what is said of it, like 3:B.")
            );
            byLine[int.Parse(answer[..colon], CultureInfo.InvariantCulture)] = answer[(colon + 1)..];
        }

        return byLine;
    }
}
