using Fobble.Core.Skills;
using Fobble.Data.Model;
using Fobble.Formats.SkillMaps;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fobble.Server.Features.SkillMaps;

/// <summary>The map as a file: CASE 1.0 to exchange it, CSV to work on it elsewhere. The same file is sent to be looked at and to be taken.</summary>
internal static class SkillMapFiles
{
    private const int LargestFile = 4_000_000;

    public static void Map(RouteGroupBuilder map)
    {
        map.MapGet("/file/case", Case).Produces(StatusCodes.Status200OK, contentType: "application/json");
        map.MapGet("/file/csv", (ClassRoom room) =>
                TypedResults.File(System.Text.Encoding.UTF8.GetBytes(SkillMapCsv.Write(room.Content.School.Written)), "text/csv", "skill-map.csv")
            )
            .Produces(StatusCodes.Status200OK, contentType: "text/csv");
        var lead = map.MapGroup("/file").RequireAuthorization(Policies.LeadSchool);
        lead.MapPost("/preview", PreviewAsync).Accepts<byte[]>("application/octet-stream");
        lead.MapPost("/", TakeAsync).Accepts<byte[]>("application/octet-stream").WithTrace(TraceKind.MapChanged);
    }

    private static FileContentHttpResult Case(ClassRoom room, TimeProvider clock)
    {
        var text = CaseFile.Write(room.Content.Map.Strands, room.Content.School.Written, room.SchoolName, clock.GetUtcNow());
        return TypedResults.File(System.Text.Encoding.UTF8.GetBytes(text), "application/json", "skill-map.case.json");
    }

    private static async Task<Results<Ok<MapFilePreview>, ProblemHttpResult>> PreviewAsync(ClassRoom room, HttpRequest request, CancellationToken stop) =>
        await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is { } file
            ? TypedResults.Ok(PreviewOf(Read(file), room.Content.School))
            : UploadedFile.TooLarge(Phrase("a map"), LargestFile);

    private static async Task<Results<Ok<MapFilePreview>, UnprocessableEntity<MapFilePreview>, ProblemHttpResult>> TakeAsync(
        ClassRoom room,
        HttpRequest request,
        SchoolMapStore store,
        CancellationToken stop
    )
    {
        if (await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is not { } file)
        {
            return UploadedFile.TooLarge(Phrase("a map"), LargestFile);
        }

        var reading = Read(file);
        var preview = PreviewOf(reading, room.Content.School);
        if (!preview.CanBeTaken)
        {
            return TypedResults.UnprocessableEntity(preview);
        }

        await store.TakeAsync(reading.Skills, null, stop);
        return TypedResults.Ok(preview);
    }

    private static SkillMapReading Read(byte[] file) =>
        file.FirstOrDefault(b => !char.IsWhiteSpace((char)b) && b < 0x80) == '{' ? CaseFile.Read(file) : SkillMapCsv.Read(file);

    private static MapFilePreview PreviewOf(SkillMapReading reading, SchoolMap now)
    {
        var faults = reading.Faults.ToList();
        if (faults.Count == 0)
        {
            try
            {
                _ = new SchoolMap(SkillMapLoader.AsWritten(), SchoolMap.Between(SkillMapLoader.AsWritten(), reading.Skills));
            }
            catch (InvalidSkillMapException invalid)
            {
                faults.AddRange(invalid.Faults.Select(f => new Formats.Csv.FileFault(1, null, char.ToUpperInvariant(f[0]) + f[1..] + ".")));
            }
        }

        var before = now.Written.ToDictionary(s => s.Id);
        var after = reading.Skills.DistinctBy(s => s.Id).ToDictionary(s => s.Id);
        return new(
            [.. after.Values.Where(s => before.TryGetValue(s.Id, out var was) && !SkillMapLoader.Same(was, s)).Select(s => s.Short)],
            [.. after.Values.Where(s => !before.ContainsKey(s.Id)).Select(s => s.Short)],
            [.. before.Values.Where(s => !s.Hidden && (!after.TryGetValue(s.Id, out var then) || then.Hidden)).Select(s => s.Short)],
            faults,
            faults.Count == 0
        );
    }
}
