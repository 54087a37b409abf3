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

    public void AddServices(IServiceCollection services) => services.AddSingleton<Imports>();

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        // The whole record with names is the lead teacher's to hand out.
        var file = ofClass.MapGroup("/records").RequireAuthorization(Policies.Lead);
        file.MapGet("/csv", CsvAsync).WithTrace(TraceKind.RecordsOut);
        file.MapGet("/statements", StatementsAsync).WithTrace(TraceKind.RecordsOut);
        file.MapPost("/csv/preview", PreviewAsync).Accepts<IFormFile>("text/csv");
        file.MapPost("/csv", TakeAsync).Accepts<IFormFile>("text/csv").WithTrace(TraceKind.RecordsIn);
        file.MapGet("/imports/{id:guid}", ShareOf);
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

    /// <param name="import">Under this name it can be asked how far it is.</param>
    private static async Task<Results<Ok<RecordsPreview>, ProblemHttpResult>> PreviewAsync(
        ClassRoom room,
        HttpRequest request,
        Guid? import,
        ClaimsPrincipal user,
        Solving solving,
        Imports imports,
        CancellationToken stop
    )
    {
        using var underWay = imports.Begin(user.AdultId(), import);
        if (await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is not { } file)
        {
            return UploadedFile.TooLarge(Phrase("a list of observations"), LargestFile);
        }

        var reading = await ReadAsync(room, file, user, solving, underWay.Part(0, 0.7), stop);
        return TypedResults.Ok(PreviewOf(reading, ObservationWriter.Known(room.Db, IdsOf(reading), underWay.Part(0.7, 1), stop), room));
    }

    /// <summary>All of it or nothing. What is here already stays as it is.</summary>
    /// <param name="import">Under this name it can be asked how far it is.</param>
    private static async Task<Results<Ok<RecordsPreview>, UnprocessableEntity<RecordsPreview>, ProblemHttpResult>> TakeAsync(
        ClassRoom room,
        HttpRequest request,
        Guid? import,
        ClaimsPrincipal user,
        Decisions decisions,
        Solving solving,
        Imports imports,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        var (adult, name) = user.Adult();
        using var underWay = imports.Begin(adult, import);
        if (await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is not { } file)
        {
            return UploadedFile.TooLarge(Phrase("a list of observations"), LargestFile);
        }

        var reading = await ReadAsync(room, file, user, solving, underWay.Part(0, 0.4), stop);
        var children = (await room.ChildrenAsync(stop)).ToDictionary(c => c.Name, c => c.Id);
        var preview = await decisions.DecideAsync(
            db =>
            {
                var known = ObservationWriter.Known(db, IdsOf(reading), underWay.Part(0.4, 0.6), stop);
                var seen = PreviewOf(reading, known, room);
                if (!seen.CanBeTaken)
                {
                    return Task.FromResult(seen);
                }

                List<ObservationLine> lines = [.. reading.Lines.Where(l => !known.ContainsKey(l.Id))];
                ObservationWriter.Add(
                    db,
                    [
                        .. lines.Select(line => new ObservationRow
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
                        }),
                    ],
                    underWay.Part(0.6, 1),
                    stop
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
                return Task.FromResult(seen);
            },
            stop
        );
        return preview.CanBeTaken ? TypedResults.Ok(preview) : TypedResults.UnprocessableEntity(preview);
    }

    private static Results<Ok<ImportShare>, NotFound> ShareOf(Guid id, ClaimsPrincipal user, Imports imports) =>
        imports.ShareOf(user.AdultId(), id) is { } share ? TypedResults.Ok(new ImportShare(share)) : TypedResults.NotFound();

    private static async Task<ObservationReading> ReadAsync(
        ClassRoom room,
        byte[] file,
        ClaimsPrincipal user,
        Solving solving,
        IProgress<double> progress,
        CancellationToken stop
    )
    {
        List<string> names = [.. (await room.ChildrenAsync(stop)).Select(c => c.Name)];
        var (map, today, zone, by) = (room.Map, room.Today, room.Zone, user.Adult().Name);
        return await solving.RunAsync(room.Id, until => ObservationCsv.Read(file, map, names, today, zone, by, progress, until), stop);
    }

    private static List<Guid> IdsOf(ObservationReading reading) => [.. reading.Lines.Select(l => l.Id)];

    private static RecordsPreview PreviewOf(ObservationReading reading, Dictionary<Guid, int> known, ClassRoom room)
    {
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
