using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Planning;
using Fobble.Core.Standards;
using Fobble.Server.Features.Groups;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Planning;

/// <param name="Code">A strand’s id, or a standard’s code.</param>
public sealed record CoverageRow(string Code, string Name, CoverageLine Line);

public sealed record CoverageFramework(string Name, IReadOnlyList<CoverageRow> Standards);

/// <param name="Day">On which it is taught.</param>
public sealed record TaughtNext(DateOnly Day, string Skill);

/// <param name="Turns">Small groups of this term, no child named.</param>
/// <param name="Next">The focus of lessons that come next, by the plan.</param>
/// <param name="Pace">Against the year's first plan; null where there is none.</param>
/// <param name="NeverTaught">Planned for days that are past, and not given since.</param>
public sealed record ClassCoverage(
    int ClassId,
    string Class,
    string? Pace,
    string Turns,
    IReadOnlyList<TaughtNext> Next,
    CoverageLine Whole,
    IReadOnlyList<CoverageRow> Strands,
    IReadOnlyList<CoverageFramework> Frameworks,
    IReadOnlyList<string> NeverTaught
);

/// <summary>Planned, taught, observed, secure: of this class, and of the school's other classes as far as this adult belongs to them.</summary>
internal static class CoverageEndpoints
{
    private const int Ahead = 3;

    public static void MapCoverage(this IEndpointRouteBuilder ofClass) => ofClass.MapGet("/plan/coverage", GetAsync);

    private static async Task<Ok<IReadOnlyList<ClassCoverage>>> GetAsync(ClassRoom room, ClassRooms rooms, HttpContext http, CancellationToken stop)
    {
        var mine = Members.ClassesOf(room.Db, http.User.AdultId(), room.Today);
        var others = await room
            .Db.Classes.Where(c => c.SchoolId == room.SchoolId && c.Id != room.Id.Value && c.ArchivedOn == null && mine.Contains(c.Id))
            .OrderBy(c => c.Name)
            .Select(c => c.Id)
            .ToListAsync(stop);
        List<ClassCoverage> all = [await OfAsync(room, stop)];
        foreach (var other in others)
        {
            await using var next = await rooms.OpenAsync(new(other), stop);
            all.Add(await OfAsync(next, stop));
        }

        return TypedResults.Ok<IReadOnlyList<ClassCoverage>>(all);
    }

    private static async Task<ClassCoverage> OfAsync(ClassRoom room, CancellationToken stop)
    {
        var map = room.Map;
        var year = await room.YearAsync(stop);
        var versions = await room
            .Db.YearPlans.Where(p => p.ClassId == room.Id.Value && p.Year == year)
            .OrderBy(p => p.Version)
            .Select(p => p.Document)
            .ToListAsync(stop);
        var plans = versions.ConvertAll(PlanDocument.Read);
        var taught = (await room.TaughtAsync(room.Today, stop)).Where(t => t.Day >= year && map.Has(t.Skill)).ToList();
        PlanCoverage coverage = new(await room.EvidenceAsync(stop), taught, plans.LastOrDefault()?.Plan);
        var term = (await room.CalendarAsync(stop)).TermBegan(room.Today);
        var held = (await new GroupHistory(room).HeldAsync(term, stop)).Select(g => g.Met).ToList();
        return new(
            room.Id.Value,
            room.Name,
            plans.Count == 0 ? null : coverage.PaceAgainst(plans[0].Plan, plans[0].From).Sentence,
            Company.TurnsInWords([.. (await room.ChildrenAsync(stop)).Select(c => held.Count(g => g.Children.Contains(new(c.Id))))], term),
            [
                .. (plans.LastOrDefault()?.Plan.Lessons ?? [])
                    .Where(l => l.Day >= room.Today && map.Has(l.Skill))
                    .OrderBy(l => l.Day)
                    .Take(Ahead)
                    .Select(l => new TaughtNext(l.Day, map[l.Skill].Short)),
            ],
            coverage.Of([.. map.Skills.Select(s => s.Id)]),
            [
                .. map.Strands.Select(strand => new CoverageRow(
                    strand.Id,
                    strand.Name,
                    coverage.Of([.. map.Skills.Where(s => s.Strand == strand.Id).Select(s => s.Id)])
                )),
            ],
            [
                .. Framework.Shipped.Select(f => new CoverageFramework(
                    f.Name,
                    [.. f.Standards.Select(s => new CoverageRow(s.Code, s.Text, coverage.Of([.. Coverage.Reaching(map, s.Code).Select(x => x.Id)])))]
                )),
            ],
            [
                .. coverage
                    .Missing([.. plans.Select(p => p.Plan)])
                    .Select(m => Phrase($"{map[m.Skill].Short}: {Words.Count(m.Lessons, "lesson", "lessons")}, last planned for {Words.Date(m.Last)}.")),
            ]
        );
    }
}
