using Fobble.Core.Activities;
using Fobble.Core.Evidence;
using Fobble.Core.Portraits;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.ChildPage;

/// <summary>Everything about one child on one page.</summary>
internal static class ChildEndpoints
{
    /// <summary>The newest ones come with the page; the rest is asked for when someone scrolls that far.</summary>
    private const int SeenWithPage = 60;
    private const int MostGroups = 12;

    public static void MapChildPage(this IEndpointRouteBuilder ofClass)
    {
        ofClass.MapGet("/children/{childId:int}", GetAsync);
        ofClass.MapGet("/children/{childId:int}/observations", ObservationsAsync);
        ofClass.MapPut("/children/{childId:int}/photos-allowed", AllowPhotosAsync).RequireAuthorization(Policies.Lead);
    }

    private static async Task<Results<Ok<ChildView>, NotFound>> GetAsync(int classId, int childId, ClassFacts facts, SkillMap map, ActivityLibrary library, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        var names = await facts.ChildrenAsync(classId, stop);
        if (names.FirstOrDefault(c => c.Id == childId) is not { } named)
        {
            return TypedResults.NotFound();
        }

        var today = clock.Today();
        var calendar = await facts.CalendarAsync(classId, stop);
        var child = await db.Children.AsNoTracking().FirstAsync(c => c.Id == childId, stop);
        var evidence = await facts.EvidenceAsync(classId, today, stop);
        ChildId id = new(childId);
        ChildPortrait portrait = new(evidence, library, id);
        var started = await db.Observations.Where(o => o.ChildId == childId).OrderBy(o => o.Day).Select(o => (DateOnly?)o.Day).FirstOrDefaultAsync(stop);
        var from = started is { } begun && begun > calendar.YearBegan(today) ? begun : calendar.YearBegan(today);
        var away = await db.Absences.Where(a => a.ChildId == childId && a.Day >= from).OrderByDescending(a => a.Day).Select(a => a.Day).ToListAsync(stop);
        var check = await db.BaselineChecks.Where(c => c.ChildId == childId).OrderByDescending(c => c.StartedAt).Select(c => new { c.Id, c.EndedAt }).FirstOrDefaultAsync(stop);
        return TypedResults.Ok(new ChildView(
            childId, named.Name, child.Born, child.PhotosAllowed, check?.Id, check?.EndedAt,
            [.. portrait.WeeksFrom(from).Select(w => new ChildBead(w.Monday, w.Seen, [.. w.Secured.Select(s => map[s].Short)]))],
            [.. portrait.NextSteps.Select(n => new ChildStep(n.Skill.Value, map[n.Skill].Short, map[n.Skill].ICan, (int)n.Mark.Strength, n.Mark.LookAgain, n.Guess, n.Because, n.Activity?.Id.Value, n.Activity?.Name, n.Activity?.Easier))],
            [.. portrait.Shown.Select(s => new ChildShown(s.Representation, s.Alone, s.Seen))],
            [.. portrait.Slips.Select(s => new ChildSlip(s.Skill.Value, map[s.Skill].Short, s.Slip.Text, s.Times, s.Last))],
            [.. portrait.Bonds.Select(b => new ChildBond(b.Whole, b.Part, b.Other, b.Known, b.Last))],
            [.. map.Strands.Select(t => new ChildStrand(t.Id, t.Name, [.. map.Skills.Where(s => s.Strand == t.Id).Select(s => SkillOf(evidence, id, s))])).Where(t => t.Skills.Count > 0)],
            await db.JarRounds.Where(r => r.ClassId == classId && r.Guesses.Any(g => g.ChildId == childId)).OrderBy(r => r.Filled)
                .Select(r => new ChildJar(r.Filled, r.Guesses.First(g => g.ChildId == childId).Guess, r.Counted, r.Counted == null ? null : (r.Guesses.First(g => g.ChildId == childId).Guess - r.Counted.Value) / (double)r.Counted.Value)).ToListAsync(stop),
            await GroupsAsync(classId, childId, names, map, db, today, stop),
            away,
            calendar.SchoolDaysBetween(from.AddDays(-1), today),
            await SeenAsync(classId, childId, 0, SeenWithPage, map, db, stop),
            await db.Observations.CountAsync(o => o.ChildId == childId, stop)));
    }

    /// <summary>More of them, the newest first.</summary>
    private static async Task<Results<Ok<IReadOnlyList<SeenOnce>>, NotFound>> ObservationsAsync(int classId, int childId, int? skip, SkillMap map, FobbleDb db, CancellationToken stop) =>
        await db.Children.AnyAsync(c => c.Id == childId && c.ClassId == classId, stop)
            ? TypedResults.Ok(await SeenAsync(classId, childId, Math.Max(0, skip ?? 0), 200, map, db, stop)) : TypedResults.NotFound();

    private static async Task<Results<NoContent, NotFound>> AllowPhotosAsync(int classId, int childId, PhotosAllowed request, FobbleDb db, CancellationToken stop)
    {
        if (await db.Children.FirstOrDefaultAsync(c => c.Id == childId && c.ClassId == classId, stop) is not { } child)
        {
            return TypedResults.NotFound();
        }

        child.PhotosAllowed = request.Allowed;
        if (!request.Allowed)
        {
            // The family has taken its word back: what was taken goes.
            await db.Photos.Where(p => db.Observations.Any(o => o.Id == p.ObservationId && o.ChildId == childId)).ExecuteDeleteAsync(stop);
        }

        await db.SaveChangesAsync(stop);
        return TypedResults.NoContent();
    }

    private static async Task<IReadOnlyList<SeenOnce>> SeenAsync(int classId, int childId, int skip, int take, SkillMap map, FobbleDb db, CancellationToken stop)
    {
        var rows = await db.Observations.Where(o => o.ChildId == childId && o.Child!.ClassId == classId).OrderByDescending(o => o.At).Skip(skip).Take(take).Select(SeenRecord.Projection).ToListAsync(stop);
        return [.. rows.Select(r => SeenRecord.InWords(r, map))];
    }

    private static ChildSkill SkillOf(ClassEvidence evidence, ChildId child, Skill skill)
    {
        var mark = evidence[child, skill.Id];
        return new(skill.Id.Value, skill.Short, (int)mark.Strength, mark.LookAgain, evidence.IsReady(child, skill.Id), evidence.LikelyHas(child, skill.Id), evidence.StepsOf(child, skill.Id) is [.., var last] ? last.Day : null);
    }

    private static async Task<IReadOnlyList<ChildGroup>> GroupsAsync(int classId, int childId, IReadOnlyList<ChildName> names, SkillMap map, FobbleDb db, DateOnly today, CancellationToken stop)
    {
        var sessions = await db.GroupSessions.AsNoTracking().Include(s => s.Members).Where(s => s.ClassId == classId && s.Day <= today && s.Members.Any(m => m.ChildId == childId))
            .OrderByDescending(s => s.Day).Take(MostGroups).ToListAsync(stop);
        var byId = names.ToDictionary(n => n.Id, n => n.Name);
        return
        [
            .. sessions.Select(s => new ChildGroup(
                s.Id, s.Day, map.Has(new(s.Skill)) ? map[new(s.Skill)].Short : s.Skill, [.. s.Members.Where(m => m.ChildId != childId && byId.ContainsKey(m.ChildId)).Select(m => byId[m.ChildId])],
                s.Members.First(m => m.ChildId == childId).Reason)),
        ];
    }
}
