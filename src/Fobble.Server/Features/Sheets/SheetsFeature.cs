using System.ComponentModel;
using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Core.Sessions;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;
using Fobble.Core.Stories;
using Fobble.Formats.Print;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.Extensions.Caching.Hybrid;

namespace Fobble.Server.Features.Sheets;

/// <param name="Groups">Groups of this week and the next, to be printed for with one tap.</param>
public sealed record SheetChoices(
    IReadOnlyList<SheetOfferView> Offers,
    IReadOnlyList<ChildName> Children,
    IReadOnlyList<SheetGroup> Groups,
    FrameFill Fill,
    DateOnly Today
);

public sealed record SheetGroup(int SessionId, DateOnly Day, TimeOnly Start, string Skill, IReadOnlyList<int> Children);

public sealed record SheetOfferView(
    SheetKind Kind,
    string Name,
    string Purpose,
    IReadOnlyList<SheetVariantView> Variants,
    int Lowest,
    int Highest,
    int Low,
    int High,
    int Count,
    int MostCount,
    bool EachChild,
    bool HasNumbers,
    bool HasFrames,
    bool HasStories
);

public sealed record SheetVariantView(SheetVariant Id, string Name);

/// <summary>What was asked for, made: how many pages there are, and which of them hold answers.</summary>
public sealed record SheetMade(string Title, int Pages, IReadOnlyList<int> KeyPages, double PaperWidth, double PaperHeight);

/// <summary>A request for a sheet, as it stands in an address; the same address gives the same sheet.</summary>
public sealed record SheetAsked
{
    public required SheetKind Kind { get; init; }

    public required SheetVariant Variant { get; init; }

    public PaperSize? Paper { get; init; }

    public required int Low { get; init; }

    public required int High { get; init; }

    public int? Count { get; init; }

    /// <summary>Numbers of children between commas; empty for a sheet without a name.</summary>
    public string? Children { get; init; }

    /// <summary>Fives or pairs; null for the class's way.</summary>
    public FrameFill? Fill { get; init; }

    public Ink? Ink { get; init; }

    public required uint Seed { get; init; }

    /// <summary>The day whose records the numbers rest on; null for today.</summary>
    public DateOnly? On { get; init; }

    public string? Theme { get; init; }

    /// <summary>Kinds of stories between commas; empty for all.</summary>
    public string? Stories { get; init; }

    public Ink InkOrUsual => Ink ?? Formats.Print.Ink.Saving;
}

internal sealed class SheetsFeature : IFeature
{
    public void AddServices(IServiceCollection services) => services.AddScoped<SheetStore>();

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        var sheets = ofClass.MapGroup("/sheets");
        sheets.MapGet("/", ChoicesAsync);
        sheets.MapGet("/made", MadeAsync);
        sheets.MapGet("/pdf", PdfAsync).Produces(StatusCodes.Status200OK, contentType: "application/pdf");
        sheets.MapGet("/pages/{page:int}/svg", SvgAsync).Produces(StatusCodes.Status200OK, contentType: "image/svg+xml");
    }

    private static async Task<Ok<SheetChoices>> ChoicesAsync(ClassRoom room, CancellationToken stop)
    {
        var monday = SchoolCalendar.MondayOf(room.Today);
        var sessions = await room.SessionsAsync(monday, monday.AddDays(13), stop);
        var approach = room.Approach;
        return TypedResults.Ok(
            new SheetChoices(
                [
                    .. SheetOffer.All.Select(o => new SheetOfferView(
                        o.Kind,
                        o.NameIn(approach.Words),
                        o.Purpose,
                        [.. o.Variants.Select(v => new SheetVariantView(v, v.Name()))],
                        o.Widest.Low,
                        o.Widest.High,
                        o.UsualIn(approach).Low,
                        o.UsualIn(approach).High,
                        o.Count,
                        o.MostCount,
                        o.EachChild,
                        o.HasNumbers,
                        o.HasFrames,
                        o.HasStories
                    )),
                ],
                await room.ChildrenAsync(stop),
                [
                    .. sessions.Select(s => new SheetGroup(
                        s.Id,
                        s.Day,
                        s.Slot!.Start,
                        room.Map[new SkillId(s.Skill)].Short,
                        [.. s.Members.Select(m => m.ChildId)]
                    )),
                ],
                approach.Frames.Fill,
                room.Today
            )
        );
    }

    private static async Task<Ok<SheetMade>> MadeAsync([AsParameters] SheetAsked asked, SheetStore sheets, CancellationToken stop)
    {
        var sheet = await sheets.MakeAsync(asked, stop);
        return TypedResults.Ok(
            new SheetMade(
                sheet.Title,
                sheet.Pages.Count,
                [.. Enumerable.Range(1, sheet.Pages.Count).Where(n => sheet.Pages[n - 1].IsKey)],
                sheet.Paper.Width,
                sheet.Paper.Height
            )
        );
    }

    private static async Task<FileContentHttpResult> PdfAsync([AsParameters] SheetAsked asked, SheetStore sheets, CancellationToken stop)
    {
        var sheet = await sheets.MakeAsync(asked, stop);
        return TypedResults.File(SheetWriter.Pdf(sheet, asked.InkOrUsual), "application/pdf", FileName(sheet.Title, asked.Seed, "pdf"));
    }

    private static async Task<Results<FileContentHttpResult, NotFound>> SvgAsync(
        int page,
        bool? download,
        [AsParameters] SheetAsked asked,
        SheetStore sheets,
        CancellationToken stop
    )
    {
        var sheet = await sheets.MakeAsync(asked, stop);
        return page < 1 || page > sheet.Pages.Count
            ? TypedResults.NotFound()
            : TypedResults.File(
                SheetWriter.Svg(sheet.Pages[page - 1], asked.InkOrUsual),
                "image/svg+xml",
                download == true ? FileName(sheet.Title, asked.Seed, "svg", page) : null
            );
    }

    private static string FileName(string title, uint seed, string ending, int? page = null) =>
        $"{title.ToLowerInvariant().Replace(' ', '-')}-{seed}{(page is { } number ? $"-page-{number}" : "")}.{ending}";
}

/// <summary>
/// Makes what an address asks for, with the children's names and what their records say. Asked for its page count, each picture and the file, a sheet is
/// worked out once.
/// </summary>
internal sealed class SheetStore(ClassRoom room, HybridCache cache)
{
    private static readonly HybridCacheEntryOptions Keep = new() { Expiration = TimeSpan.FromMinutes(5), LocalCacheExpiration = TimeSpan.FromMinutes(5) };

    /// <exception cref="RefusedException">There is no such sheet.</exception>
    public async Task<Sheet> MakeAsync(SheetAsked asked, CancellationToken stop)
    {
        var day = asked.On ?? room.Today;
        RefusedException.Unless(day <= room.Today, "on", Phrase("That day is still to come."));
        var range = NumberRange.Asked(asked.Low, asked.High);
        var wanted = (asked.Children ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries);
        var all = await room.ChildrenAsync(stop);
        var chosen = wanted
            .Select(id =>
                all.FirstOrDefault(c => $"{c.Id}" == id) ?? throw new RefusedException("children", Phrase("One of the children is not in this class."))
            )
            .ToList();

        // Whatever the numbers rest on is in the key; a sheet for nobody rests on no record.
        var rests = chosen.Count == 0 ? "" : $"{room.Versions.Record}.{room.Versions.LastSeen}";
        var key = $"sheet/{room.Id}/{room.ContentKey}/{room.Approach}/{room.UsualPaper}/{rests}/{day:O}/{asked with { Ink = null }}";
        var made = await cache.KeptAsync(key, async until => new MadeSheet(await MakeAsync(asked, range, chosen, day, until)), Keep, stop);
        return made.Sheet;
    }

    private async Task<Sheet> MakeAsync(SheetAsked asked, NumberRange range, IReadOnlyList<ChildName> children, DateOnly day, CancellationToken stop)
    {
        var own = room.Approach;
        var approach = asked.Fill is { } fill ? own with { Frames = own.Frames with { Fill = fill } } : own;
        return SheetMaker.Make(
            new SheetRequest(
                asked.Kind,
                asked.Variant,
                asked.Paper ?? room.UsualPaper,
                range,
                asked.Count ?? Math.Max(1, SheetOffer.Of(asked.Kind).Count),
                await WithHistoryAsync(children, day, stop),
                approach,
                asked.Seed,
                day,
                string.IsNullOrEmpty(asked.Theme) ? null : asked.Theme,
                StoriesOf(asked)
            )
        );
    }

    private static IReadOnlyList<StoryKind>? StoriesOf(SheetAsked asked) =>
        string.IsNullOrEmpty(asked.Stories)
            ? null
            :
            [
                .. asked
                    .Stories.Split(',')
                    .Select(text =>
                        Enum.TryParse<StoryKind>(text, out var kind) ? kind : throw new RefusedException("stories", Phrase($"There are no stories '{text}'."))
                    ),
            ];

    // Numbers rest on what was recorded before the day was over, so that the sheet can be made again later.
    private async Task<IReadOnlyList<SheetChild>> WithHistoryAsync(IReadOnlyList<ChildName> children, DateOnly day, CancellationToken stop)
    {
        if (children.Count == 0)
        {
            return [];
        }

        var evidence = await room.EvidenceAsync(day, room.Zone.StartOf(day.AddDays(1)), stop);
        return [.. children.Select(c => new SheetChild(c.Name, SessionCards.HistoryOf(new ChildId(c.Id), evidence)))];
    }

    [ImmutableObject(true)]
    private sealed record MadeSheet(Sheet Sheet);
}
