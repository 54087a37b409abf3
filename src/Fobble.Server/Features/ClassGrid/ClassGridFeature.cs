using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.ClassGrid;

public sealed record GridStrand(string Id, string Name);

public sealed record GridSkill(string Id, string Strand, string Short, string ICan, Season When);

/// <param name="Strength">0 to 5.</param>
/// <param name="Inferred">Everything else speaks for it; nobody has seen it yet.</param>
public sealed record GridMark(int Strength, bool LookAgain, bool Ready, bool Inferred);

/// <param name="Marks">In the order of the grid's skills.</param>
public sealed record GridChild(int Id, string Name, bool Away, IReadOnlyList<GridMark> Marks);

/// <summary>A small group of this week, to look at its children only.</summary>
public sealed record GridGroup(int SessionId, DateOnly Day, string Short, IReadOnlyList<int> Children);

/// <param name="Skills">By strand, and within it in teaching order.</param>
/// <param name="Season">Of today.</param>
public sealed record Grid(
    string Class,
    Season Season,
    IReadOnlyList<GridStrand> Strands,
    IReadOnlyList<GridSkill> Skills,
    IReadOnlyList<GridChild> Children,
    IReadOnlyList<GridGroup> Groups
);

public sealed record ColumnChild(int Id, string Name, int Strength, bool LookAgain, bool Guess, string Why);

/// <summary>One skill across the class: who has it, who is ready, who is not yet.</summary>
public sealed record ColumnView(
    string Skill,
    string Short,
    string ICan,
    string Sentence,
    IReadOnlyList<ColumnChild> Ready,
    IReadOnlyList<ColumnChild> Has,
    IReadOnlyList<ColumnChild> NotYet,
    string? ActivityId,
    string? Activity,
    string? Purpose
);

public sealed record CellStep(DateOnly Day, int Strength);

public sealed record CellClause(string Asks, bool Holds, string StillToCome);

/// <param name="ShownIn">The first way in which the skill is shown: for saying with one tap how it is.</param>
public sealed record Cell(
    string Child,
    string Skill,
    string ICan,
    int Strength,
    bool LookAgain,
    bool Inferred,
    double Belief,
    string Sentence,
    string Ready,
    IReadOnlyList<CellClause> Clauses,
    IReadOnlyList<CellStep> Steps,
    IReadOnlyList<string> LookFor,
    Representation ShownIn,
    IReadOnlyList<SeenOnce> Seen
);

internal sealed class ClassGridFeature : IFeature
{
    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        ofClass.MapGet("/grid", GridAsync).WithMetadata(new SameForAll());
        ofClass.MapGet("/grid/{skillId}", ColumnAsync);
        ofClass.MapGet("/children/{childId:int}/skills/{skillId}", CellAsync);
    }

    private static async Task<Ok<Grid>> GridAsync(ClassRoom room, CancellationToken stop)
    {
        var today = room.Today;
        var children = await room.ChildrenAsync(stop);
        var evidence = await room.EvidenceAsync(stop);
        var away = await room.AwayAsync(today, stop);
        var skills = room.Map.Strands.SelectMany(strand => room.Map.Skills.Where(s => s.Strand == strand.Id)).ToList();
        var monday = SchoolCalendar.MondayOf(today);
        var groups = await room.SessionsAsync(monday, monday.AddDays(6), stop);
        return TypedResults.Ok(
            new Grid(
                room.Name,
                (await room.CalendarAsync(stop)).SeasonOf(today),
                [.. room.Map.Strands.Select(s => new GridStrand(s.Id, s.Name))],
                [.. skills.Select(s => new GridSkill(s.Id.Value, s.Strand, s.Short, s.ICan, s.When))],
                [.. children.Select(c => new GridChild(c.Id, c.Name, away.Contains(c.Id), [.. skills.Select(s => MarkOf(evidence, new ChildId(c.Id), s.Id))]))],
                [
                    .. groups.Select(g => new GridGroup(
                        g.Id,
                        g.Day,
                        room.Map.Has(new(g.Skill)) ? room.Map[new(g.Skill)].Short : g.Skill,
                        [.. g.Members.Select(m => m.ChildId)]
                    )),
                ]
            )
        );
    }

    private static async Task<Results<Ok<ColumnView>, NotFound>> ColumnAsync(ClassRoom room, string skillId, CancellationToken stop)
    {
        if (!room.Map.Has(new(skillId)))
        {
            return TypedResults.NotFound();
        }

        var skill = room.Map[new(skillId)];
        var evidence = await room.EvidenceAsync(stop);
        var names = (await room.ChildrenAsync(stop)).ToDictionary(c => new ChildId(c.Id));
        var overview = evidence.OverviewOf(skill.Id);
        IEnumerable<ColumnChild> Rows(IEnumerable<ChildId> children) => children.Select(c => RowOf(evidence, names[c], skill.Id));
        var activity = room.Library.For(skill.Id, Place.Group) is [var first, ..] ? first : null;
        return TypedResults.Ok(
            new ColumnView(
                skillId,
                skill.Short,
                skill.ICan,
                overview.Sentence,
                [.. Rows(overview.Ready).OrderByDescending(r => r.Strength)],
                [.. Rows(overview.Has.Concat(overview.Likely)).OrderByDescending(r => r.LookAgain)],
                [.. Rows(overview.NotYet)],
                activity?.Id.Value,
                activity?.Name,
                activity?.Purpose
            )
        );
    }

    private static ColumnChild RowOf(ClassEvidence evidence, ChildName child, SkillId skill)
    {
        var (id, mark) = (new ChildId(child.Id), evidence[new(child.Id), skill]);
        return new(
            child.Id,
            child.Name,
            (int)mark.Strength,
            mark.LookAgain,
            evidence.IsReadyByGuess(id, skill) || evidence.IsInferred(id, skill),
            mark.Strength > Strength.NotSeen ? evidence.Judgement(id, skill).Sentence : evidence.ReadyBecause(id, skill)
        );
    }

    private static async Task<Results<Ok<Cell>, NotFound>> CellAsync(ClassRoom room, ChildId childId, string skillId, CancellationToken stop)
    {
        if (await room.NameOfAsync(childId, stop) is not { } child || !room.Map.Has(new SkillId(skillId)))
        {
            return TypedResults.NotFound();
        }

        var skill = room.Map[new SkillId(skillId)];
        var evidence = await room.EvidenceAsync(stop);
        var judgement = evidence.Judgement(childId, skill.Id);
        var seen = await room.Seen()
            .Where(o => o.ChildId == childId.Value && o.Skill == skillId)
            .OrderByDescending(o => o.At)
            .Select(SeenRecord.Projection)
            .ToListAsync(stop);
        return TypedResults.Ok(
            new Cell(
                child,
                skill.Short,
                skill.ICan,
                (int)judgement.Strength,
                judgement.LookAgain,
                evidence.IsInferred(childId, skill.Id),
                judgement.Belief,
                judgement.Sentence,
                evidence.ReadyBecause(childId, skill.Id),
                [.. judgement.Clauses.Select(c => new CellClause(c.Asks, c.Holds, c.StillToCome))],
                [.. evidence.StepsOf(childId, skill.Id).Select(s => new CellStep(s.Day, (int)s.Strength))],
                skill.LookFor,
                skill.ShownIn[0],
                [.. seen.Select(s => SeenRecord.InWords(s, room))]
            )
        );
    }

    private static GridMark MarkOf(ClassEvidence evidence, ChildId child, SkillId skill)
    {
        var mark = evidence[child, skill];
        return new GridMark((int)mark.Strength, mark.LookAgain, evidence.IsReady(child, skill), evidence.IsInferred(child, skill));
    }
}
