using System.Globalization;
using System.Security.Claims;
using System.Text;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Formats.Records;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Records;

/// <summary>The record out of the house and back in: CSV both ways, lines of JSON out. A child's own file is in <see cref="ChildFiles"/>.</summary>
internal static class RecordsEndpoints
{
    private const int LargestFile = 20_000_000;

    public static void MapRecords(this IEndpointRouteBuilder ofClass)
    {
        // The whole record with names is the lead teacher's to hand out.
        var file = ofClass.MapGroup("/records").RequireAuthorization(Policies.Lead);
        file.MapGet("/csv", CsvAsync);
        file.MapGet("/statements", StatementsAsync);
        file.MapPost("/csv/preview", PreviewAsync).Accepts<IFormFile>("text/csv");
        file.MapPost("/csv", TakeAsync).Accepts<IFormFile>("text/csv");
        ChildFiles.Map(ofClass);
    }

    private static async Task<FileContentHttpResult> CsvAsync(int classId, DateOnly? from, DateOnly? to, ClassFacts facts, SkillMap map, FobbleDb db, CancellationToken stop) =>
        TypedResults.File(Encoding.UTF8.GetBytes(ObservationCsv.Write(await LinesAsync(classId, from, to, facts, db, stop), map)), "text/csv", "observations.csv");

    private static async Task<FileContentHttpResult> StatementsAsync(int classId, DateOnly? from, DateOnly? to, ClassFacts facts, SkillMap map, FobbleDb db, CancellationToken stop)
    {
        var ids = (await facts.ChildrenAsync(classId, stop)).ToDictionary(c => c.Name, c => string.Create(CultureInfo.InvariantCulture, $"child-{c.Id}"));
        var lines = Statements.Of(await LinesAsync(classId, from, to, facts, db, stop), map, name => ids[name]);
        return TypedResults.File(Encoding.UTF8.GetBytes(string.Concat(lines.Select(l => l + "\n"))), "application/x-ndjson", "statements.jsonl");
    }

    private static async Task<Results<Ok<RecordsPreview>, ProblemHttpResult>> PreviewAsync(
        int classId, HttpRequest request, ClaimsPrincipal user, ClassFacts facts, SkillMap map, FobbleDb db, TimeProvider clock, CancellationToken stop) =>
        await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is { } file
            ? TypedResults.Ok(await PreviewOfAsync(classId, await ReadAsync(classId, file, user, facts, map, clock, stop), db, stop)) : UploadedFile.TooLarge("a list of observations", LargestFile);

    /// <summary>All of it or nothing. What is here already stays as it is.</summary>
    private static async Task<Results<Ok<RecordsPreview>, UnprocessableEntity<RecordsPreview>, ProblemHttpResult>> TakeAsync(
        int classId, HttpRequest request, ClaimsPrincipal user, ClassFacts facts, SkillMap map, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        if (await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is not { } file)
        {
            return UploadedFile.TooLarge("a list of observations", LargestFile);
        }

        var reading = await ReadAsync(classId, file, user, facts, map, clock, stop);
        var preview = await PreviewOfAsync(classId, reading, db, stop);
        if (!preview.CanBeTaken)
        {
            return TypedResults.UnprocessableEntity(preview);
        }

        var children = (await facts.ChildrenAsync(classId, stop)).ToDictionary(c => c.Name, c => c.Id);
        var known = await KnownAsync(reading.Lines.Select(l => l.Id), db, stop);
        var (adult, name) = user.Adult();
        foreach (var line in reading.Lines.Where(l => !known.ContainsKey(l.Id)))
        {
            ObservationRow row = new()
            {
                Id = line.Id, ChildId = children[line.Child], Skill = line.Skill.Value, At = line.At, Day = line.Day, AdultId = adult, SeenBy = line.By == name ? null : line.By, Setting = line.Setting, Support = line.Support,
                Representation = line.Representation, Numbers = line.Numbers, Slip = line.Slip, Strategy = line.Strategy, Note = line.Note,
            };
            row.Withdrawal = line.WithdrawnWhy is { } why ? new() { AdultId = adult, At = clock.GetUtcNow(), Why = why } : null;
            db.Observations.Add(row);
        }

        await db.SaveChangesAsync(stop);
        return TypedResults.Ok(preview);
    }

    private static async Task<ObservationReading> ReadAsync(int classId, byte[] file, ClaimsPrincipal user, ClassFacts facts, SkillMap map, TimeProvider clock, CancellationToken stop) =>
        ObservationCsv.Read(file, map, [.. (await facts.ChildrenAsync(classId, stop)).Select(c => c.Name)], clock.Today(), clock.LocalTimeZone.GetUtcOffset, user.Adult().Name);

    private static async Task<RecordsPreview> PreviewOfAsync(int classId, ObservationReading reading, FobbleDb db, CancellationToken stop)
    {
        var known = await KnownAsync(reading.Lines.Select(l => l.Id), db, stop);
        var faults = reading.Faults.ToList();
        faults.AddRange(reading.Lines.Where(l => known.TryGetValue(l.Id, out var where) && where != classId).Select(l => new Formats.Csv.FileFault(1, "Id", $"The id {l.Id} belongs to another class’s observation; leave the column empty.")).Take(5));
        return new(
            reading.Lines.Count(l => !known.ContainsKey(l.Id)), reading.Lines.Count(l => known.ContainsKey(l.Id)), reading.Lines.Select(l => l.Child).Distinct().Count(), reading.Lines.Count > 0 ? reading.Lines.Min(l => l.Day) : null,
            reading.Lines.Count > 0 ? reading.Lines.Max(l => l.Day) : null, faults, reading.Notes, faults.Count == 0 && reading.Lines.Count > 0);
    }

    /// <summary>Which of these observations are here, and in which class.</summary>
    internal static async Task<Dictionary<Guid, int>> KnownAsync(IEnumerable<Guid> ids, FobbleDb db, CancellationToken stop)
    {
        Dictionary<Guid, int> known = [];
        foreach (var some in ids.Chunk(500))
        {
            foreach (var row in await db.Observations.Where(o => some.Contains(o.Id)).Select(o => new { o.Id, o.Child!.ClassId }).ToListAsync(stop))
            {
                known[row.Id] = row.ClassId;
            }
        }

        return known;
    }

    private static async Task<List<ObservationLine>> LinesAsync(int classId, DateOnly? from, DateOnly? to, ClassFacts facts, FobbleDb db, CancellationToken stop)
    {
        var names = (await facts.ChildrenAsync(classId, stop)).ToDictionary(c => c.Id, c => c.Name);
        var rows = await db.Observations.AsNoTracking().Where(o => o.Child!.ClassId == classId && (from == null || o.Day >= from) && (to == null || o.Day <= to)).OrderBy(o => o.At)
            .Select(o => new { Row = o, By = o.SeenBy ?? o.Adult!.FullName, Why = o.Withdrawal!.Why }).ToListAsync(stop);
        return
        [
            .. rows.Select(r => new ObservationLine(
                r.Row.Id, names[r.Row.ChildId], new(r.Row.Skill), r.Row.At.ToLocalTime(), r.Row.Day, r.By, r.Row.Setting, r.Row.Support, r.Row.Representation, r.Row.Numbers, r.Row.Slip, r.Row.Strategy, r.Row.Note, r.Why)),
        ];
    }
}
