using System.Globalization;
using Fobble.Core.Activities;
using Fobble.Core.Evidence;
using Fobble.Core.Portraits;
using Fobble.Core.Reports;
using Fobble.Core.Sessions;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;
using Fobble.Data.Model;
using Fobble.Formats.Print;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Reports;

/// <summary>What leaves the classroom on paper: the page for one family, and the class without names.</summary>
internal sealed class ReportsFeature : IFeature
{
    private const int MostPhotos = 3;

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        ofClass.MapGet("/children/{childId:int}/family-page", FamilyPageAsync).RequireAuthorization(Policies.Lead).WithTrace(TraceKind.FamilyPagePrinted);
        ofClass.MapGet("/summary", SummaryAsync).WithTrace(TraceKind.SummaryPrinted);
    }

    /// <param name="photos">Put the newest photos of the child's own pages on it; only where the family has agreed to photos.</param>
    private static async Task<Results<FileContentHttpResult, NotFound>> FamilyPageAsync(
        ClassRoom room,
        ChildId childId,
        PaperSize? paper,
        bool? photos,
        CancellationToken stop
    )
    {
        if (await room.NameOfAsync(childId, stop) is not { } child)
        {
            return TypedResults.NotFound();
        }

        var evidence = await room.EvidenceAsync(stop);
        var page = FamilyPage.Of(
            child,
            NameOf(room),
            evidence,
            new ChildPortrait(evidence, room.Library, childId),
            childId,
            (await room.CalendarAsync(stop)).TermBegan(room.Today),
            room.Approach.Words,
            skill => SkillPicture.Of(skill, room.Library, room.Approach)
        );
        List<ReportPhoto> pictures = [];
        if (photos == true)
        {
            var taken = await room.WithPhoto()
                .Where(o => o.ChildId == childId.Value && o.Child!.PhotosAllowed)
                .OrderByDescending(o => o.At)
                .Take(MostPhotos)
                .Select(o => new
                {
                    o.Photo!.Jpeg,
                    o.Skill,
                    o.Day,
                })
                .ToListAsync(stop);
            pictures.AddRange(
                taken.Select(p => new ReportPhoto(p.Jpeg, $"{(room.Map.Has(new(p.Skill)) ? room.Map[new(p.Skill)].Short : "")}, {Words.Date(p.Day)}"))
            );
        }

        return TypedResults.File(SheetWriter.Pdf(page.ToSheet(paper ?? room.UsualPaper, pictures), Ink.Saving), "application/pdf");
    }

    private static async Task<FileContentHttpResult> SummaryAsync(ClassRoom room, PaperSize? paper, CancellationToken stop)
    {
        var evidence = await room.EvidenceAsync(stop);
        var summary = ClassSummary.Of(NameOf(room), evidence, (await room.CalendarAsync(stop)).TermBegan(room.Today));
        return TypedResults.File(SheetWriter.Pdf(summary.ToSheet(paper ?? room.UsualPaper), Ink.Saving), "application/pdf");
    }

    private static string NameOf(ClassRoom room) => $"{room.Name}, {room.SchoolName}";
}
