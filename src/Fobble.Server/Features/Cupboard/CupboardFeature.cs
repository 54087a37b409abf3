using Fobble.Core.Cupboard;
using Fobble.Formats.Csv;
using Fobble.Formats.Cupboards;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Cupboard;

public sealed record CupboardThing(
    string Id,
    string Name,
    Purpose Purpose,
    string Size,
    ItemShape Shape,
    string Colour,
    string Material,
    int Count,
    bool Own,
    IReadOnlyList<string> Risks
);

public sealed record CupboardPartView(Purpose Purpose, string Name, IReadOnlyList<CupboardThing> Things);

public sealed record CaresView(bool Mouths, IReadOnlyList<Allergen> Allergies);

/// <summary>What isn't named stays as it is.</summary>
public sealed record CaresChange
{
    public bool? Mouths { get; init; }
    public IReadOnlyList<Allergen>? Allergies { get; init; }
}

public sealed record AllergenName(Allergen Allergen, string Name);

/// <param name="Cautions">In full, for all that is owned.</param>
/// <param name="Standing">What closes every list of cautions.</param>
public sealed record CupboardView(
    IReadOnlyList<CupboardPartView> Shelves,
    CaresView Cares,
    IReadOnlyList<AllergenName> Allergens,
    IReadOnlyList<Caution> Cautions,
    string Standing
);

public sealed record StockCount(int Count);

public sealed record NewKind(
    string Name,
    Purpose Purpose,
    ItemShape Shape,
    string Colour,
    string Material,
    double? Length,
    double? Width,
    double? Height,
    IReadOnlyList<Allergen> Contains,
    IReadOnlyList<Hazard> Hazards,
    int Count
);

/// <summary>What would happen if the file were taken.</summary>
public sealed record StockPreview(int Kinds, int New, IReadOnlyList<FileFault> Faults, IReadOnlyList<string> Notes, bool CanBeTaken);

/// <summary>What is in the cupboard, and what the class has to be careful of.</summary>
internal sealed class CupboardFeature : IFeature
{
    private const int LargestFile = 1_000_000;

    public void AddServices(IServiceCollection services)
    {
        services.AddScoped<SetOutReader>();
        services.AddScoped<PackMaker>();
    }

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        ofClass.MapGet("/cupboard", GetAsync);
        ofClass.MapGet("/cupboard/file", FileAsync).Produces(StatusCodes.Status200OK, contentType: "text/csv");
        var lead = ofClass.MapGroup("/").RequireAuthorization(Policies.Lead);
        lead.MapPatch("/cares", SetCaresAsync);
        lead.MapPut("/cupboard/things/{item}", CountAsync);
        lead.MapDelete("/cupboard/things/{item}", RemoveAsync);
        lead.MapPost("/cupboard/things", AddAsync);
        lead.MapPost("/cupboard/file/preview", PreviewAsync).Accepts<byte[]>("text/csv");
        lead.MapPost("/cupboard/file", TakeAsync).Accepts<byte[]>("text/csv");
        SetOutEndpoints.Map(ofClass);
    }

    private static async Task<Ok<CupboardView>> GetAsync(ClassRoom room, CancellationToken stop)
    {
        var stock = await room.StockAsync(stop);
        var cares = room.Cares;
        var counts = stock.ToDictionary(s => s.Item.Id, s => s.Count);
        var all = CupboardCatalogue.Shipped.Items.Concat(stock.Select(s => s.Item).Where(i => CupboardCatalogue.Shipped.Find(i.Id) is null));
        return TypedResults.Ok(
            new CupboardView(
                [
                    .. all.GroupBy(i => i.Purpose)
                        .OrderBy(g => g.Key)
                        .Select(g => new CupboardPartView(
                            g.Key,
                            CupboardWords.NameOf(g.Key),
                            [
                                .. g.Select(i => new CupboardThing(
                                    i.Id.Value,
                                    i.Name,
                                    i.Purpose,
                                    CupboardWords.SizeOf(i),
                                    i.Shape,
                                    i.Colour,
                                    i.Material,
                                    counts.GetValueOrDefault(i.Id),
                                    CupboardCatalogue.Shipped.Find(i.Id) is null,
                                    [.. Cautions.For([i], cares).Select(c => c.Name)]
                                )),
                            ]
                        )),
                ],
                new(cares.Mouths, [.. cares.Allergies.Order()]),
                [.. Enum.GetValues<Allergen>().Select(a => new AllergenName(a, Cautions.NameOf(a)))],
                Cautions.For(stock.Where(s => s.Count > 0).Select(s => s.Item), cares),
                Cautions.Standing
            )
        );
    }

    private static async Task<NoContent> SetCaresAsync(ClassRoom room, CaresChange change, Decisions decisions, CancellationToken stop)
    {
        await decisions.DecideAsync(
            async db =>
            {
                var own = await db.Classes.SingleAsync(c => c.Id == room.Id.Value, stop);
                own.Mouths = change.Mouths ?? own.Mouths;
                own.Allergies = change.Allergies is { } named ? [.. named.Where(Enum.IsDefined).Distinct().Order()] : own.Allergies;
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, NotFound>> CountAsync(
        ClassRoom room,
        string item,
        StockCount count,
        Decisions decisions,
        CancellationToken stop
    )
    {
        RefusedException.Unless(count.Count is >= 0 and <= StockCsv.MostOfAKind, "count", Phrase($"A count goes from 0 to {StockCsv.MostOfAKind}."));
        var found = await decisions.DecideAsync(
            async db =>
            {
                var row = await db.Stock.FindAsync([room.Id.Value, item], stop);
                if (row is null && CupboardCatalogue.Shipped.Find(new(item)) is null)
                {
                    return false;
                }

                row ??= db.Stock.Add(new() { ClassId = room.Id.Value, Item = item }).Entity;
                row.Count = count.Count;
                return true;
            },
            stop
        );
        return found ? TypedResults.NoContent() : TypedResults.NotFound();
    }

    private static async Task<NoContent> RemoveAsync(ClassRoom room, string item, Decisions decisions, CancellationToken stop)
    {
        await decisions.DecideAsync(db => db.Stock.Where(s => s.ClassId == room.Id.Value && s.Item == item).ExecuteDeleteAsync(stop), stop);
        return TypedResults.NoContent();
    }

    // Read as a line of a file would be, so that there is one set of rules for a kind.
    private static async Task<NoContent> AddAsync(ClassRoom room, NewKind kind, Decisions decisions, CancellationToken stop)
    {
        var sides = ((double?[])[kind.Length, kind.Width, kind.Height]).OfType<double>().ToList();
        var id = new string([.. kind.Name.Trim().ToLowerInvariant().Select(c => char.IsLetterOrDigit(c) ? c : '-')]).Trim('-');
        CupboardItem item = new(
            new(id),
            kind.Name.Trim(),
            kind.Purpose,
            sides,
            kind.Shape,
            kind.Colour.Trim(),
            kind.Material.Trim(),
            [.. kind.Contains.Distinct()],
            [.. kind.Hazards.Distinct()],
            false,
            0
        );
        var reading = StockCsv.Read(System.Text.Encoding.UTF8.GetBytes(StockCsv.Write([new(item, kind.Count)])));
        if (reading.Faults.Count > 0)
        {
            throw new RefusedException((reading.Faults[0].Column ?? "name").Split(' ')[0].ToLowerInvariant(), reading.Faults[0].Reason);
        }

        await decisions.DecideAsync(
            async db =>
            {
                var there =
                    CupboardCatalogue.Shipped.Find(item.Id) is not null || await db.Stock.AnyAsync(s => s.ClassId == room.Id.Value && s.Item == id, stop);
                RefusedException.Unless(!there, "name", Phrase($"There are {kind.Name.Trim()} in the cupboard already: change their count."));
                db.Stock.Add(StoredStock.RowOf(room.Id, reading.Lines[0]));
            },
            stop
        );
        return TypedResults.NoContent();
    }

    private static async Task<FileContentHttpResult> FileAsync(ClassRoom room, CancellationToken stop)
    {
        var stock = await room.StockAsync(stop);
        var have = stock.Select(s => s.Item.Id).ToHashSet();
        var rest = CupboardCatalogue.Shipped.Items.Where(i => !have.Contains(i.Id)).Select(i => new StockLine(i, 0));
        return TypedResults.File(System.Text.Encoding.UTF8.GetBytes(StockCsv.Write(stock.Concat(rest))), "text/csv", "cupboard.csv");
    }

    private static async Task<Results<Ok<StockPreview>, ProblemHttpResult>> PreviewAsync(ClassRoom room, HttpRequest request, CancellationToken stop) =>
        await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is { } file
            ? TypedResults.Ok(PreviewOf(StockCsv.Read(file)))
            : UploadedFile.TooLarge(Phrase("a cupboard’s list"), LargestFile);

    /// <summary>Counts of the file replace what was there; kinds that it does not name stay.</summary>
    private static async Task<Results<Ok<StockPreview>, UnprocessableEntity<StockPreview>, ProblemHttpResult>> TakeAsync(
        ClassRoom room,
        HttpRequest request,
        Decisions decisions,
        CancellationToken stop
    )
    {
        if (await UploadedFile.ReadAsync(request.Body, LargestFile, stop) is not { } file)
        {
            return UploadedFile.TooLarge(Phrase("a cupboard’s list"), LargestFile);
        }

        var reading = StockCsv.Read(file);
        var preview = PreviewOf(reading);
        if (!preview.CanBeTaken)
        {
            return TypedResults.UnprocessableEntity(preview);
        }

        var named = reading.Lines.Select(l => l.Item.Id.Value).ToList();
        await decisions.DecideAsync(
            async db =>
            {
                await db.Stock.Where(s => s.ClassId == room.Id.Value && named.Contains(s.Item)).ExecuteDeleteAsync(stop);
                db.Stock.AddRange(reading.Lines.Select(l => StoredStock.RowOf(room.Id, l)));
            },
            stop
        );
        return TypedResults.Ok(preview);
    }

    private static StockPreview PreviewOf(StockReading reading) =>
        new(
            reading.Lines.Count,
            reading.Lines.Count(l => CupboardCatalogue.Shipped.Find(l.Item.Id) is null),
            reading.Faults,
            reading.Notes,
            reading.Faults.Count == 0 && reading.Lines.Count > 0
        );
}
