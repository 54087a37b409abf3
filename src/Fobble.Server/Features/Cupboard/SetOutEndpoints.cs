using System.Globalization;
using Fobble.Core.Calendars;
using Fobble.Core.Cupboard;
using Fobble.Core.Evidence;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Sessions;
using Fobble.Core.SettingOut;
using Fobble.Core.Sheets;
using Fobble.Data.Model;
using Fobble.Formats.Print;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fobble.Server.Features.Cupboard;

public sealed record SetOutShare(DateOnly Day, TimeOnly Start, string Where, string For, string Activity, int Amount);

/// <param name="Short">What is short and what to take instead, in a sentence; null where nothing is.</param>
/// <param name="StillShort">How many are missing even with stand-ins and the pack.</param>
public sealed record SetOutThing(string Id, string Name, int AtOnce, int Owned, string? Short, int StillShort, bool Printed, IReadOnlyList<SetOutShare> Shares);

public sealed record SetOutPrint(string Sheet, string Variant, string For, string Activity, DateOnly Day, string Numbers, int Pages);

public sealed record SetOutTogether(DateOnly Day, TimeOnly Start, IReadOnlyList<string> What);

/// <param name="NextSchoolDay">Where there is no school on these days, the next on which there is.</param>
public sealed record SetOutView(
    DateOnly From,
    DateOnly To,
    DateOnly? NextSchoolDay,
    IReadOnlyList<SetOutThing> Things,
    IReadOnlyList<SetOutPrint> Prints,
    int Pages,
    int PrepareMinutes,
    IReadOnlyList<SetOutTogether> Together,
    IReadOnlyList<Caution> Cautions,
    string Standing
);

/// <summary>What to set out for a day or a week, and the pages for it as one file.</summary>
internal static class SetOutEndpoints
{
    public static void Map(IEndpointRouteBuilder ofClass)
    {
        ofClass.MapGet("/days/{day}/set-out", (ClassRoom room, DateOnly day, SetOutReader reader, PackMaker packs, CancellationToken stop) =>
            ViewAsync(room, day, day, reader, packs, stop)
        );
        ofClass.MapGet("/weeks/{day}/set-out", (ClassRoom room, DateOnly day, SetOutReader reader, PackMaker packs, CancellationToken stop) =>
            ViewAsync(room, SchoolCalendar.MondayOf(day), SchoolCalendar.MondayOf(day).AddDays(4), reader, packs, stop)
        );
        ofClass
            .MapGet("/days/{day}/pack", (ClassRoom room, DateOnly day, PaperSize? paper, SetOutReader reader, PackMaker packs, CancellationToken stop) =>
                PackAsync(room, day, day, paper, reader, packs, stop)
            )
            .WithTrace(TraceKind.PackPrinted)
            .Produces(StatusCodes.Status200OK, contentType: "application/pdf");
        ofClass
            .MapGet("/weeks/{day}/pack", (ClassRoom room, DateOnly day, PaperSize? paper, SetOutReader reader, PackMaker packs, CancellationToken stop) =>
                PackAsync(room, SchoolCalendar.MondayOf(day), SchoolCalendar.MondayOf(day).AddDays(4), paper, reader, packs, stop)
            )
            .WithTrace(TraceKind.PackPrinted)
            .Produces(StatusCodes.Status200OK, contentType: "application/pdf");
    }

    private static async Task<Ok<SetOutView>> ViewAsync(
        ClassRoom room,
        DateOnly from,
        DateOnly to,
        SetOutReader reader,
        PackMaker packs,
        CancellationToken stop
    )
    {
        var plan = await reader.PlanAsync(from, to, stop);
        var prints = await packs.PrintsAsync(plan, stop);
        var calendar = await room.CalendarAsync(stop);
        return TypedResults.Ok(
            new SetOutView(
                from,
                to,
                calendar.Days(from, to).Any() ? null : calendar.OnOrAfter(to),
                [
                    .. plan.Lines.Select(l => new SetOutThing(
                        l.Item.Id.Value,
                        l.Item.Name,
                        l.AtOnce,
                        l.Supplied.Own,
                        l.Printed ? Phrase($"Short by {l.Supplied.ShortBy}: print them, they are in the pack.") : l.Supplied.InWords(),
                        l.Printed ? 0 : l.Supplied.StillShort,
                        l.Printed,
                        [.. l.Shares.Select(s => new SetOutShare(s.Use.Day, s.Use.Start, s.Use.Where, s.Use.For, s.Use.Activity.Name, s.Amount))]
                    )),
                ],
                prints,
                prints.Sum(p => p.Pages),
                plan.PrepareMinutes,
                [
                    .. plan.Together.Select(t => new SetOutTogether(
                        t[0].Day,
                        t[0].Start,
                        [.. t.Select(u => $"{u.Activity.Name}, {u.Where.ToLowerInvariant()}")]
                    )),
                ],
                plan.Cautions,
                Cautions.Standing
            )
        );
    }

    private static async Task<Results<FileContentHttpResult, NotFound>> PackAsync(
        ClassRoom room,
        DateOnly from,
        DateOnly to,
        PaperSize? paper,
        SetOutReader reader,
        PackMaker packs,
        CancellationToken stop
    )
    {
        var pack = await packs.MakeAsync(await reader.PlanAsync(from, to, stop), from, paper ?? room.UsualPaper, stop);
        return pack.Pages.Count == 0
            ? TypedResults.NotFound()
            : TypedResults.File(
                SheetWriter.Pdf(pack, Ink.Saving),
                "application/pdf",
                string.Create(CultureInfo.InvariantCulture, $"pack-{from:yyyy-MM-dd}.pdf")
            );
    }
}

/// <summary>Makes the pack with the children's own numbers on their sheets.</summary>
internal sealed class PackMaker(ClassRoom room)
{
    public async Task<Sheet> MakeAsync(SetOutPlan plan, DateOnly from, PaperSize paper, CancellationToken stop)
    {
        var (approach, childOf, seed) = await KnownAsync(from, stop);
        return Pack.Make(plan, "Pack", paper, approach, childOf, seed, room.Today);
    }

    public async Task<IReadOnlyList<SetOutPrint>> PrintsAsync(SetOutPlan plan, CancellationToken stop)
    {
        if (plan.Prints.Count == 0)
        {
            return [];
        }

        var (approach, childOf, seed) = await KnownAsync(plan.Prints[0].Use.Day, stop);
        return
        [
            .. plan
                .Prints.Select(p => (p, request: Pack.RequestFor(p, room.UsualPaper, approach, childOf, seed, room.Today)))
                .Select(r => new SetOutPrint(
                    SheetOffer.Of(r.p.Sheet.Kind).NameIn(approach.Words),
                    $"{r.p.Sheet.Variant}",
                    r.p.EachChild && r.p.Use.Names.Count > 0 ? string.Join(", ", r.p.Use.Names) : r.p.Use.For,
                    r.p.Use.Activity.Name,
                    r.p.Use.Day,
                    $"{r.request.Range}",
                    SheetMaker.Make(r.request).Pages.Count
                )),
        ];
    }

    private async Task<(Core.Approaches.Approach Approach, Func<string, SheetChild> ChildOf, uint Seed)> KnownAsync(DateOnly from, CancellationToken stop)
    {
        var children = (await room.ChildrenAsync(stop)).ToDictionary(c => c.Name, c => new ChildId(c.Id));
        var evidence = await room.EvidenceAsync(stop);
        var seed = (uint)SeededRandom.SeedOf(string.Create(CultureInfo.InvariantCulture, $"pack|{room.Id.Value}|{from:O}"));
        return (
            room.Approach,
            name => new SheetChild(name, children.TryGetValue(name, out var id) ? SessionCards.HistoryOf(id, evidence) : ItemHistory.None),
            seed
        );
    }
}
