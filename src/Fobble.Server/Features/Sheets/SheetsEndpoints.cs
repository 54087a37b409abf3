using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Core.Sessions;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Formats.Print;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Sheets;

/// <param name="Groups">Groups of this week and the next, to be printed for with one tap.</param>
public sealed record SheetShelf(IReadOnlyList<SheetOfferView> Offers, IReadOnlyList<ChildName> Children, IReadOnlyList<SheetGroup> Groups, FrameFill Fill, DateOnly Today);

public sealed record SheetGroup(int SessionId, DateOnly Day, TimeOnly Start, string Skill, IReadOnlyList<int> Children);

public sealed record SheetOfferView(SheetKind Kind, string Name, string Purpose, IReadOnlyList<SheetVariant> Variants, int Lowest, int Highest, int Low, int High, int Count, int MostCount, bool EachChild);

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

    public Ink InkOrUsual => Ink ?? Formats.Print.Ink.Saving;
}

internal static class SheetsEndpoints
{
    public static void MapSheets(this IEndpointRouteBuilder ofClass)
    {
        var sheets = ofClass.MapGroup("/sheets");
        sheets.MapGet("/", ShelfAsync);
        sheets.MapGet("/made", MadeAsync);
        sheets.MapGet("/pdf", PdfAsync).Produces(StatusCodes.Status200OK, contentType: "application/pdf");
        sheets.MapGet("/pages/{page:int}/svg", SvgAsync).Produces(StatusCodes.Status200OK, contentType: "image/svg+xml");
    }

    private static async Task<Ok<SheetShelf>> ShelfAsync(int classId, ClassFacts facts, FobbleDb db, SkillMap map, TimeProvider clock, CancellationToken stop)
    {
        var (monday, today) = (SchoolCalendar.MondayOf(clock.Today()), clock.Today());
        var sessions = await db.GroupSessions.AsNoTracking().Where(s => s.ClassId == classId && s.Day >= monday && s.Day < monday.AddDays(14)).OrderBy(s => s.Day).ThenBy(s => s.Slot!.Start)
            .Select(s => new { s.Id, s.Day, s.Slot!.Start, s.Skill, Children = s.Members.Select(m => m.ChildId).ToList() }).ToListAsync(stop);
        var approach = await facts.ApproachAsync(classId, stop);
        return TypedResults.Ok(new SheetShelf(
            [.. SheetOffer.All.Select(o => new SheetOfferView(o.Kind, o.NameIn(approach.Words), o.Purpose, o.Variants, o.Widest.Low, o.Widest.High, o.UsualIn(approach).Low, o.UsualIn(approach).High, o.Count, o.MostCount, o.EachChild))],
            await facts.ChildrenAsync(classId, stop), [.. sessions.Select(s => new SheetGroup(s.Id, s.Day, s.Start, map[new SkillId(s.Skill)].Short, s.Children))],
            approach.Frames.Fill, today));
    }

    private static async Task<Results<Ok<SheetMade>, ValidationProblem>> MadeAsync(int classId, [AsParameters] SheetAsked asked, SheetDesk desk, CancellationToken stop)
    {
        var (sheet, refused) = await desk.MakeAsync(classId, asked, stop);
        return sheet is null ? refused! : TypedResults.Ok(new SheetMade(
            sheet.Title, sheet.Pages.Count, [.. Enumerable.Range(1, sheet.Pages.Count).Where(n => sheet.Pages[n - 1].IsKey)], sheet.Paper.Width, sheet.Paper.Height));
    }

    private static async Task<Results<FileContentHttpResult, ValidationProblem>> PdfAsync(int classId, [AsParameters] SheetAsked asked, SheetDesk desk, CancellationToken stop)
    {
        var (sheet, refused) = await desk.MakeAsync(classId, asked, stop);
        return sheet is null ? refused! : TypedResults.File(SheetWriter.Pdf(sheet, asked.InkOrUsual), "application/pdf", FileName(sheet.Title, asked.Seed, "pdf"));
    }

    private static async Task<Results<FileContentHttpResult, ValidationProblem, NotFound>> SvgAsync(int classId, int page, bool? download, [AsParameters] SheetAsked asked, SheetDesk desk, CancellationToken stop)
    {
        var (sheet, refused) = await desk.MakeAsync(classId, asked, stop);
        if (sheet is null)
        {
            return refused!;
        }

        if (page < 1 || page > sheet.Pages.Count)
        {
            return TypedResults.NotFound();
        }

        return TypedResults.File(SheetWriter.Svg(sheet.Pages[page - 1], asked.InkOrUsual), "image/svg+xml", download == true ? FileName(sheet.Title, asked.Seed, "svg", page) : null);
    }

    private static string FileName(string title, uint seed, string ending, int? page = null) =>
        $"{title.ToLowerInvariant().Replace(' ', '-')}-{seed}{(page is { } number ? $"-page-{number}" : "")}.{ending}";
}

/// <summary>Makes what an address asks for, with the children's names and what their records say.</summary>
internal sealed class SheetDesk(ClassFacts facts, TimeProvider clock)
{
    public async Task<(Sheet? Sheet, ValidationProblem? Refused)> MakeAsync(int classId, SheetAsked asked, CancellationToken stop)
    {
        var day = asked.On ?? clock.Today();
        if (day > clock.Today())
        {
            return (null, Faults.One("on", "That day is still to come."));
        }

        if (asked.Low < 0 || asked.Low > asked.High || asked.High > 999)
        {
            return (null, Faults.One("range", $"{asked.Low} to {asked.High} is no range of numbers: choose from 0 to 999, the smaller first."));
        }

        var wanted = (asked.Children ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries);
        var all = await facts.ChildrenAsync(classId, stop);
        var chosen = wanted.Select(id => all.FirstOrDefault(c => $"{c.Id}" == id)).ToList();
        if (chosen.Contains(null))
        {
            return (null, Faults.One("children", "One of the children is not in this class."));
        }

        var own = await facts.ApproachAsync(classId, stop);
        var approach = asked.Fill is { } fill ? own with { Frames = own.Frames with { Fill = fill } } : own;
        try
        {
            return (SheetMaker.Make(new SheetRequest(
                asked.Kind, asked.Variant, asked.Paper ?? PaperSize.A4, new NumberRange(asked.Low, asked.High), asked.Count ?? Math.Max(1, SheetOffer.Of(asked.Kind).Count), await WithHistoryAsync(classId, chosen!, day, stop), approach, asked.Seed, day,
                string.IsNullOrEmpty(asked.Theme) ? null : asked.Theme)), null);
        }
        catch (ArgumentException refused)
        {
            return (null, Faults.One("sheet", refused.Message));
        }
    }

    // Numbers rest on what was recorded before the day was over, so that the sheet can be made again later.
    private async Task<IReadOnlyList<SheetChild>> WithHistoryAsync(int classId, IReadOnlyList<ChildName> children, DateOnly day, CancellationToken stop)
    {
        if (children.Count == 0)
        {
            return [];
        }

        var evidence = await facts.EvidenceAsync(classId, day, stop, new DateTimeOffset(day.AddDays(1).ToDateTime(TimeOnly.MinValue), clock.GetLocalNow().Offset));
        return [.. children.Select(c => new SheetChild(c.Name, SessionCards.HistoryOf(new ChildId(c.Id), evidence)))];
    }
}
