using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Core.Standards;
using Fobble.Data;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Planning;

/// <param name="Code">A strand’s id, or a standard’s code.</param>
public sealed record CoverageRow(string Code, string Name, CoverageLine Line);

public sealed record CoverageFramework(string Name, IReadOnlyList<CoverageRow> Standards);

/// <param name="Pace">Against the year's first plan; null where there is none.</param>
/// <param name="NeverTaught">Planned for days that are past, and not given since.</param>
public sealed record ClassCoverage(int ClassId, string Class, string? Pace, CoverageLine Whole, IReadOnlyList<CoverageRow> Strands, IReadOnlyList<CoverageFramework> Frameworks, IReadOnlyList<string> NeverTaught);

/// <summary>Planned, taught, observed, secure: of this class, and of the school's other classes as far as this adult belongs to them.</summary>
internal static class CoverageEndpoints
{
    public static void MapCoverage(this IEndpointRouteBuilder ofClass) => ofClass.MapGet("/plan/coverage", GetAsync);

    private static async Task<Ok<IReadOnlyList<ClassCoverage>>> GetAsync(int classId, PlanReader reader, ClassFacts facts, SkillMap map, FobbleDb db, TimeProvider clock, HttpContext http, CancellationToken stop)
    {
        var adult = http.User.Adult().Id;
        var school = db.Classes.Where(c => c.Id == classId).Select(c => c.SchoolId);
        var classes = await db.Classes.Where(c => school.Contains(c.SchoolId) && c.Members.Any(m => m.AdultId == adult)).OrderBy(c => c.Id != classId).ThenBy(c => c.Name).Select(c => new { c.Id, c.Name }).ToListAsync(stop);
        List<ClassCoverage> all = [];
        foreach (var one in classes)
        {
            all.Add(await OfAsync(one.Id, one.Name, reader, facts, map, db, clock.Today(), stop));
        }

        return TypedResults.Ok<IReadOnlyList<ClassCoverage>>(all);
    }

    private static async Task<ClassCoverage> OfAsync(int classId, string name, PlanReader reader, ClassFacts facts, SkillMap map, FobbleDb db, DateOnly today, CancellationToken stop)
    {
        var year = await reader.YearAsync(classId, stop);
        var versions = await db.YearPlans.AsNoTracking().Where(p => p.ClassId == classId && p.Year == year).OrderBy(p => p.Version).Select(p => p.Document).ToListAsync(stop);
        var plans = versions.ConvertAll(PlanDocument.Read);
        var taught = (await reader.TaughtAsync(classId, today, stop)).Where(t => t.Day >= year && map.Has(t.Skill)).ToList();
        PlanCoverage coverage = new(await facts.EvidenceAsync(classId, today, stop), taught, plans.LastOrDefault()?.Plan);
        return new(
            classId, name,
            plans.Count == 0 ? null : coverage.PaceAgainst(plans[0].Plan, plans[0].From).Sentence,
            coverage.Of([.. map.Skills.Select(s => s.Id)]),
            [.. map.Strands.Select(strand => new CoverageRow(strand.Id, strand.Name, coverage.Of([.. map.Skills.Where(s => s.Strand == strand.Id).Select(s => s.Id)])))],
            [.. Framework.Shipped.Select(f => new CoverageFramework(f.Name, [.. f.Standards.Select(s => new CoverageRow(s.Code, s.Text, coverage.Of([.. Coverage.Reaching(map, s.Code).Select(x => x.Id)])))]))],
            [.. coverage.Missing([.. plans.Select(p => p.Plan)]).Select(m => $"{map[m.Skill].Short}: {Core.Evidence.Words.Count(m.Lessons, "lesson", "lessons")}, last planned for {Core.Evidence.Words.Date(m.Last)}.")]);
    }
}
