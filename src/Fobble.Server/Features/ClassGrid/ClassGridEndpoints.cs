using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.ItemSets;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.ClassGrid;

public sealed record GridStrand(string Id, string Name);

public sealed record GridSkill(string Id, string Strand, string Short, string ICan, Season When);

/// <param name="Strength">0 to 5.</param>
public sealed record GridMark(int Strength, bool LookAgain, bool Ready);

/// <param name="Marks">In the order of the grid's skills.</param>
public sealed record GridChild(int Id, string Name, bool Away, IReadOnlyList<GridMark> Marks);

/// <param name="Skills">By strand, and within it in teaching order.</param>
public sealed record Grid(IReadOnlyList<GridStrand> Strands, IReadOnlyList<GridSkill> Skills, IReadOnlyList<GridChild> Children);

public sealed record SeenOnce(Guid Id, DateTimeOffset At, string By, Setting Setting, Support Support, Representation Representation, string? Numbers, string? Slip, string? Strategy, string? Note, string? WithdrawnWhy);

public sealed record CellClause(string Asks, bool Holds, string StillToCome);

public sealed record Cell(string Child, string Skill, string ICan, int Strength, bool LookAgain, double Belief, string Sentence, string Ready, IReadOnlyList<CellClause> Clauses, IReadOnlyList<string> LookFor, IReadOnlyList<SeenOnce> Seen);

internal static class ClassGridEndpoints
{
    public static void MapClassGrid(this IEndpointRouteBuilder ofClass)
    {
        ofClass.MapGet("/grid", GridAsync);
        ofClass.MapGet("/children/{childId:int}/skills/{skillId}", CellAsync);
    }

    private static async Task<Ok<Grid>> GridAsync(int classId, ClassFacts facts, FobbleDb db, SkillMap map, TimeProvider clock, CancellationToken stop)
    {
        var today = clock.Today();
        var children = await facts.ChildrenAsync(classId, stop);
        var evidence = await facts.EvidenceAsync(classId, today, stop);
        var away = await db.Absences.Where(a => a.Day == today && a.Child!.ClassId == classId).Select(a => a.ChildId).ToListAsync(stop);
        var skills = map.Strands.SelectMany(strand => map.Skills.Where(s => s.Strand == strand.Id)).ToList();
        return TypedResults.Ok(new Grid(
            [.. map.Strands.Select(s => new GridStrand(s.Id, s.Name))],
            [.. skills.Select(s => new GridSkill(s.Id.Value, s.Strand, s.Short, s.ICan, s.When))],
            [.. children.Select(c => new GridChild(c.Id, c.Name, away.Contains(c.Id), [.. skills.Select(s => MarkOf(evidence, new ChildId(c.Id), s.Id))]))]));
    }

    private static async Task<Results<Ok<Cell>, NotFound>> CellAsync(int classId, int childId, string skillId, ClassFacts facts, FobbleDb db, SkillMap map, TimeProvider clock, CancellationToken stop)
    {
        var children = await facts.ChildrenAsync(classId, stop);
        if (children.FirstOrDefault(c => c.Id == childId) is not { } child || !map.Has(new SkillId(skillId)))
        {
            return TypedResults.NotFound();
        }

        var skill = map[new SkillId(skillId)];
        var evidence = await facts.EvidenceAsync(classId, clock.Today(), stop);
        var judgement = evidence.Judgement(new ChildId(childId), skill.Id);
        var seen = await db.Observations.Where(o => o.ChildId == childId && o.Skill == skillId).OrderByDescending(o => o.At)
            .Select(o => new SeenOnce(o.Id, o.At, o.Adult!.FullName, o.Setting, o.Support, o.Representation, o.Numbers, o.Slip, o.Strategy, o.Note, o.Withdrawal!.Why))
            .ToListAsync(stop);
        return TypedResults.Ok(new Cell(
            child.Name,
            skill.Short,
            skill.ICan,
            (int)judgement.Strength,
            judgement.LookAgain,
            judgement.Belief,
            judgement.Sentence,
            evidence.ReadyBecause(new ChildId(childId), skill.Id),
            [.. judgement.Clauses.Select(c => new CellClause(c.Asks, c.Holds, c.StillToCome))],
            skill.LookFor,
            [.. seen.Select(s => InWords(s, skill))]));
    }

    private static GridMark MarkOf(ClassEvidence evidence, ChildId child, SkillId skill)
    {
        var mark = evidence[child, skill];
        return new GridMark((int)mark.Strength, mark.LookAgain, evidence.IsReady(child, skill));
    }

    private static SeenOnce InWords(SeenOnce seen, Skill skill) => seen with
    {
        Numbers = seen.Numbers is { } key ? Item.KeyInWords(key) : null,
        Slip = skill.Slips.FirstOrDefault(s => s.Id == seen.Slip)?.Text,
        Strategy = skill.Strategies.FirstOrDefault(s => s.Id == seen.Strategy)?.Text,
    };
}
