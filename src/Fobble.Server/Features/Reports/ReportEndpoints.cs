using System.Globalization;
using Fobble.Core.Activities;
using Fobble.Core.Evidence;
using Fobble.Core.Portraits;
using Fobble.Core.Reports;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Formats.Print;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Reports;

/// <summary>What leaves the classroom on paper: the page for one family, and the class without names.</summary>
internal static class ReportEndpoints
{
    private const int MostPhotos = 3;

    public static void MapReports(this IEndpointRouteBuilder ofClass)
    {
        ofClass.MapGet("/children/{childId:int}/family-page", FamilyPageAsync).RequireAuthorization(Policies.Lead);
        ofClass.MapGet("/summary", SummaryAsync);
    }

    /// <param name="photos">Put the newest photos of the child's own pages on it; only where the family has agreed to photos.</param>
    private static async Task<Results<FileContentHttpResult, NotFound>> FamilyPageAsync(
        int classId, int childId, PaperSize? paper, bool? photos, ClassFacts facts, SkillMap map, ActivityLibrary library, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        if ((await facts.ChildrenAsync(classId, stop)).FirstOrDefault(c => c.Id == childId) is not { } child)
        {
            return TypedResults.NotFound();
        }

        var evidence = await facts.EvidenceAsync(classId, clock.Today(), stop);
        var page = FamilyPage.Of(
            child.Name, await NameAsync(classId, db, stop), evidence, new ChildPortrait(evidence, library, new(childId)), new(childId), (await facts.CalendarAsync(classId, stop)).TermBegan(clock.Today()), (await facts.ApproachAsync(classId, stop)).Words);
        List<ReportPhoto> pictures = [];
        if (photos == true)
        {
            var taken = await db.Observations.Where(o => o.ChildId == childId && o.Child!.PhotosAllowed && o.Photo != null && o.Withdrawal == null).OrderByDescending(o => o.At).Take(MostPhotos).Select(o => new { o.Photo!.Jpeg, o.Skill, o.Day }).ToListAsync(stop);
            pictures.AddRange(taken.Select(p => new ReportPhoto(p.Jpeg, $"{(map.Has(new(p.Skill)) ? map[new(p.Skill)].Short : "")}, {Words.Date(p.Day)}")));
        }

        return TypedResults.File(SheetWriter.Pdf(page.ToSheet(paper ?? PaperSize.A4, pictures), Ink.Saving), "application/pdf");
    }

    private static async Task<FileContentHttpResult> SummaryAsync(int classId, PaperSize? paper, ClassFacts facts, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        var evidence = await facts.EvidenceAsync(classId, clock.Today(), stop);
        var summary = ClassSummary.Of(await NameAsync(classId, db, stop), evidence, (await facts.CalendarAsync(classId, stop)).TermBegan(clock.Today()));
        return TypedResults.File(SheetWriter.Pdf(summary.ToSheet(paper ?? PaperSize.A4), Ink.Saving), "application/pdf");
    }

    private static Task<string> NameAsync(int classId, FobbleDb db, CancellationToken stop) => db.Classes.Where(c => c.Id == classId).Select(c => c.Name + ", " + c.School!.Name).FirstAsync(stop);
}
