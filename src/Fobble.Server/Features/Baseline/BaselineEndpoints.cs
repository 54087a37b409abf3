using System.Security.Claims;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.Clipboard;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Baseline;

/// <summary>Rule R11 at the table: start checks, ask, answer, pause by going away, end, and know better.</summary>
internal static class BaselineEndpoints
{
    private const int MostAtOnce = 60;

    public static void MapBaseline(this IEndpointRouteBuilder ofClass)
    {
        var baseline = ofClass.MapGroup("/baseline");
        baseline.MapGet("/", OverviewAsync);
        baseline.MapGet("/{checkId:int}", GetAsync);
        var changes = baseline.MapGroup("").RequireAuthorization(Policies.Record);
        changes.MapPost("/", StartAsync);
        changes.MapPost("/{checkId:int}/answers", AnswerAsync);
        changes.MapPost("/{checkId:int}/end", EndAsync);
        changes.MapPut("/{checkId:int}/skills/{skillId}", KnowBetterAsync);
    }

    private static async Task<Ok<BaselineOverview>> OverviewAsync(int classId, ClassFacts facts, SkillMap map, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        var today = clock.Today();
        var children = await facts.ChildrenAsync(classId, stop);
        var checks = await db.BaselineChecks.AsNoTracking().Where(c => c.ClassId == classId).OrderBy(c => c.StartedAt)
            .Select(c => new { c.Id, c.ChildId, c.Strand, c.StartedAt, c.EndedAt, Asked = db.Observations.Count(o => o.CheckId == c.Id && o.Withdrawal == null) }).ToListAsync(stop);
        var away = await db.Absences.Where(a => a.Day == today && a.Child!.ClassId == classId).Select(a => a.ChildId).ToListAsync(stop);
        var evidence = await facts.EvidenceAsync(classId, today, stop);

        // The one under way, else the last.
        var shown = checks.GroupBy(c => c.ChildId).ToDictionary(g => g.Key, g => g.LastOrDefault(c => c.EndedAt is null) ?? g.Last());
        return TypedResults.Ok(new BaselineOverview(
            [
                .. children.Select(c =>
                {
                    var check = shown.GetValueOrDefault(c.Id);
                    return new BaselineChild(c.Id, c.Name, away.Contains(c.Id), check?.Id, check?.Strand, check?.Asked ?? 0, check?.StartedAt, check?.EndedAt, map.Skills.Count(s => evidence[new(c.Id), s.Id].Strength > Strength.NotSeen));
                }),
            ],
            [.. map.Strands.Where(t => map.Skills.Any(s => s.Strand == t.Id)).Select(t => new BaselineStrand(t.Id, t.Name))]));
    }

    private static async Task<Results<Ok<IReadOnlyList<StartedCheck>>, ValidationProblem>> StartAsync(
        int classId, StartChecks request, ClaimsPrincipal user, FobbleDb db, SkillMap map, TimeProvider clock, CancellationToken stop)
    {
        Faults faults = new();
        var ids = request.ChildIds.Distinct().ToList();
        faults.Check("childIds", ids.Count is > 0 and <= MostAtOnce, "Choose at least one child.");
        faults.Check("strand", request.Strand is null || map.Skills.Any(s => s.Strand == request.Strand), "There is no such strand.");
        var here = await db.Children.CountAsync(c => c.ClassId == classId && ids.Contains(c.Id), stop);
        faults.Check("childIds", ids.Count > 0 && here == ids.Count, ids.Count == 0 ? "Choose at least one child." : "One of these children is not in the class any more.");
        if (!faults.None)
        {
            return faults.ToProblem("No check was begun.");
        }

        // A check of the same kind that is under way goes on.
        var open = await db.BaselineChecks.Where(c => c.ClassId == classId && ids.Contains(c.ChildId) && c.EndedAt == null && c.Strand == request.Strand).ToListAsync(stop);
        var fresh = ids.Except(open.Select(c => c.ChildId)).Select(id => new BaselineCheckRow { ClassId = classId, ChildId = id, Strand = request.Strand, StartedAt = clock.GetUtcNow(), StartedBy = user.AdultId() }).ToList();
        db.BaselineChecks.AddRange(fresh);
        await db.SaveChangesAsync(stop);
        return TypedResults.Ok<IReadOnlyList<StartedCheck>>([.. open.Concat(fresh).OrderBy(c => ids.IndexOf(c.ChildId)).Select(c => new StartedCheck(c.Id, c.ChildId))]);
    }

    private static async Task<Results<Ok<CheckView>, NotFound>> GetAsync(int classId, int checkId, BaselineReader reader, CancellationToken stop) =>
        await reader.FindAsync(classId, checkId, stop) is { } row ? TypedResults.Ok(await reader.ViewAsync(row, stop)) : TypedResults.NotFound();

    private static async Task<Results<Ok<CheckView>, NotFound, ValidationProblem, Conflict>> AnswerAsync(
        int classId, int checkId, NewAnswer answer, ClaimsPrincipal user, BaselineReader reader, Recorder recorder, CancellationToken stop)
    {
        if (await reader.FindAsync(classId, checkId, stop) is not { } row)
        {
            return TypedResults.NotFound();
        }

        if (row.EndedAt is not null)
        {
            return Faults.One("checkId", "This check has ended. Begin another to ask more.");
        }

        NewObservation seen = new(answer.Id, row.ChildId, answer.Skill, answer.At, Setting.Baseline, answer.Support, answer.Representation, answer.Numbers, answer.Slip, null, null, null);
        var faults = await recorder.FaultsOf(classId, seen, stop);
        if (!faults.None)
        {
            return faults.ToProblem("This can't be recorded; nothing was changed.");
        }

        return await recorder.KeepAsync(classId, seen, user.Adult(), checkId, stop) == Recorded.Taken ? TypedResults.Conflict() : TypedResults.Ok(await reader.ViewAsync(row, stop));
    }

    private static async Task<Results<Ok<CheckView>, NotFound, ValidationProblem>> EndAsync(int classId, int checkId, BaselineReader reader, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        if (await reader.FindAsync(classId, checkId, stop) is not { } row)
        {
            return TypedResults.NotFound();
        }

        if (row.EndedAt is null)
        {
            if (!await db.Observations.AnyAsync(o => o.CheckId == checkId && o.Withdrawal == null, stop))
            {
                return Faults.One("checkId", "Nothing has been asked yet, so there is nothing to infer from.");
            }

            row.Inferred = await reader.InferredAsync(row, stop);
            row.EndedAt = clock.GetUtcNow();
            await db.SaveChangesAsync(stop);
        }

        return TypedResults.Ok(await reader.ViewAsync(row, stop));
    }

    private static async Task<Results<Ok<CheckView>, NotFound>> KnowBetterAsync(
        int classId, int checkId, string skillId, KnownBetter better, ClaimsPrincipal user, BaselineReader reader, FobbleDb db, SkillMap map, TimeProvider clock, CancellationToken stop)
    {
        if (await reader.FindAsync(classId, checkId, stop) is not { } row || !map.Has(new(skillId)))
        {
            return TypedResults.NotFound();
        }

        var known = row.Overrides.FirstOrDefault(o => o.Skill == skillId);
        if (better.Has is not { } has)
        {
            row.Overrides.Remove(known!);
        }
        else if (known is null)
        {
            row.Overrides.Add(new() { CheckId = checkId, Skill = skillId, Has = has, AdultId = user.AdultId(), At = clock.GetUtcNow() });
        }
        else
        {
            (known.Has, known.AdultId, known.At) = (has, user.AdultId(), clock.GetUtcNow());
        }

        if (row.EndedAt is not null)
        {
            row.Inferred = await reader.InferredAsync(row, stop);
        }

        await db.SaveChangesAsync(stop);
        return TypedResults.Ok(await reader.ViewAsync(row, stop));
    }
}
