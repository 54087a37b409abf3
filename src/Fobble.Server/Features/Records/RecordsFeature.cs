using System.Globalization;
using System.Security.Claims;
using System.Text;
using Fobble.Core.Calendars;
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
internal sealed class RecordsFeature : IFeature
{
    private const int LargestFile = 20_000_000;

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        // The whole record with names is the lead teacher's to hand out.
        var file = ofClass.MapGroup("/records").RequireAuthorization(Policies.Lead);
        file.MapGet("/csv", CsvAsync).WithTrace(TraceKind.RecordsOut);
        file.MapGet("/statements", StatementsAsync).WithTrace(TraceKind.RecordsOut);
        file.MapPost("/csv/preview", PreviewAsync).Accepts<IFormFile>("text/csv");
        file.MapPost("/csv", TakeAsync).Accepts<IFormFile>("text/csv").WithTrace(TraceKind.RecordsIn);
        ChildFiles.Map(ofClass);
    }

    private static async Task<FileContentHttpResult> CsvAsync(ClassRoom room, DateOnly? from, DateOnly? to, CancellationToken stop) =>
        TypedResults.File(Encoding.UTF8.GetBytes(ObservationCsv.Write(await LinesAsync(room, from, to, stop), room.Map)), "text/csv", "observations.csv");

    private static async Task<FileContentHttpResult> StatementsAsync(ClassRoom room, DateOnly? from, DateOnly? to, CancellationToken stop)
    {
        var ids = (await room.ChildrenAsync(stop)).ToDictionary(c => c.Name, c => string.Create(CultureInfo.InvariantCulture, $"child-{c.Id}"));
        var lines = Statements.Of(await LinesAsync(room, from, to, stop), room.Map, name => ids[name]);
        return TypedResults.File(Encoding.UTF8.GetBytes(string.Concat(lines.Select(l => l + "\n"))), "application/x-ndjson", "statements.jsonl");
    }

    private static async Task<Results<Ok<RecordsPreview>, ProblemHttpResult>> PreviewAsync(
        ClassRoom room,
        HttpRequest request,
        ClaimsPrincipal user,
        CancellationToken stop
    ) =>
        await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is { } file
            ? TypedResults.Ok(await PreviewOfAsync(room.Db, room, await ReadAsync(room, file, user, stop), stop))
            : UploadedFile.TooLarge(Phrase("a list of observations"), LargestFile);

    /// <summary>All of it or nothing. What is here already stays as it is.</summary>
    private static async Task<Results<Ok<RecordsPreview>, UnprocessableEntity<RecordsPreview>, ProblemHttpResult>> TakeAsync(
        ClassRoom room,
        HttpRequest request,
        ClaimsPrincipal user,
        Decisions decisions,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        if (await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is not { } file)
        {
            return UploadedFile.TooLarge(Phrase("a list of observations"), LargestFile);
        }

        var reading = await ReadAsync(room, file, user, stop);
        var children = (await room.ChildrenAsync(stop)).ToDictionary(c => c.Name, c => c.Id);
        var (adult, name) = user.Adult();
        var preview = await decisions.DecideAsync(
            async db =>
            {
                var seen = await PreviewOfAsync(db, room, reading, stop);
                var known = await KnownAsync(reading.Lines.Select(l => l.Id), db, stop);
                if (!seen.CanBeTaken)
                {
                    return seen;
                }

                List<ObservationLine> lines = [.. reading.Lines.Where(l => !known.ContainsKey(l.Id))];
                ObservationWriter.Add(
                    db,
                    lines.Select(line => new ObservationRow
                    {
                        Id = line.Id,
                        ChildId = children[line.Child],
                        Skill = line.Skill.Value,
                        At = line.At,
                        Day = line.Day,
                        AdultId = adult.Value,
                        SeenBy = line.By == name ? null : line.By,
                        Setting = line.Setting,
                        Support = line.Support,
                        Representation = line.Representation,
                        Numbers = line.Numbers,
                        Slip = line.Slip,
                        Strategy = line.Strategy,
                        Note = line.Note,
                    })
                );
                db.Withdrawals.AddRange(
                    lines
                        .Where(line => line.WithdrawnWhy is not null)
                        .Select(line => new Withdrawal
                        {
                            ObservationId = line.Id,
                            AdultId = adult.Value,
                            At = clock.GetUtcNow(),
                            Why = line.WithdrawnWhy!,
                        })
                );
                return seen;
            },
            stop
        );
        return preview.CanBeTaken ? TypedResults.Ok(preview) : TypedResults.UnprocessableEntity(preview);
    }

    private static async Task<ObservationReading> ReadAsync(ClassRoom room, byte[] file, ClaimsPrincipal user, CancellationToken stop) =>
        ObservationCsv.Read(file, room.Map, [.. (await room.ChildrenAsync(stop)).Select(c => c.Name)], room.Today, room.Zone, user.Adult().Name);

    private static async Task<RecordsPreview> PreviewOfAsync(FobbleDb db, ClassRoom room, ObservationReading reading, CancellationToken stop)
    {
        var known = await KnownAsync(reading.Lines.Select(l => l.Id), db, stop);
        var faults = reading.Faults.ToList();
        faults.AddRange(
            reading
                .Lines.Where(l => known.TryGetValue(l.Id, out var where) && where != room.Id.Value)
                .Select(l => new Formats.Csv.FileFault(1, "Id", Phrase($"The id {l.Id} belongs to another class’s observation; leave the column empty.")))
                .Take(5)
        );
        return new(
            reading.Lines.Count(l => !known.ContainsKey(l.Id)),
            reading.Lines.Count(l => known.ContainsKey(l.Id)),
            reading.Lines.Select(l => l.Child).Distinct().Count(),
            reading.Lines.Count > 0 ? reading.Lines.Min(l => l.Day) : null,
            reading.Lines.Count > 0 ? reading.Lines.Max(l => l.Day) : null,
            faults,
            reading.Notes,
            faults.Count == 0 && reading.Lines.Count > 0
        );
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

    private static async Task<List<ObservationLine>> LinesAsync(ClassRoom room, DateOnly? from, DateOnly? to, CancellationToken stop)
    {
        var names = (await room.ChildrenAsync(stop)).ToDictionary(c => c.Id, c => c.Name);
        return await LinesAsync(
            room.Seen().Where(o => (from == null || o.Day >= from) && (to == null || o.Day <= to)),
            id => names[id],
            room.Zone,
            room.NotesFrom,
            stop
        );
    }

    /// <param name="notesFrom">Notes of before are left out; null where none are.</param>
    internal static async Task<List<ObservationLine>> LinesAsync(
        IQueryable<ObservationRow> seen,
        Func<int, string> nameOf,
        SchoolZone zone,
        DateOnly? notesFrom,
        CancellationToken stop
    )
    {
        var rows = await seen.OrderBy(o => o.At)
            .Select(o => new
            {
                Row = o,
                By = o.SeenBy ?? o.Adult!.FullName,
                Why = o.Withdrawal!.Why,
            })
            .ToListAsync(stop);
        return
        [
            .. rows.Select(r => new ObservationLine(
                r.Row.Id,
                nameOf(r.Row.ChildId),
                new(r.Row.Skill),
                zone.LocalOf(r.Row.At),
                r.Row.Day,
                r.By,
                r.Row.Setting,
                r.Row.Support,
                r.Row.Representation,
                r.Row.Numbers,
                r.Row.Slip,
                r.Row.Strategy,
                r.Row.Day < notesFrom ? null : r.Row.Note,
                r.Row.Day < notesFrom && r.Why != null ? "" : r.Why
            )),
        ];
    }
}
