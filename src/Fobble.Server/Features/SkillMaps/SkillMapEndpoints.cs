using Fobble.Core.Activities;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Core.Standards;
using Fobble.Data;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.SkillMaps;

/// <summary>The map of skills with the class's or a child's strengths laid over it, and what the school does differently.</summary>
internal static class SkillMapEndpoints
{
    public static void MapSkillMaps(this IEndpointRouteBuilder ofClass)
    {
        var map = ofClass.MapGroup("/map");
        map.MapGet("/", GetAsync);
        map.MapGet("/skills/{skillId}", SkillAsync);
        SkillMapFiles.Map(map);
        var lead = map.MapGroup("/").RequireAuthorization(Policies.Lead);
        lead.MapPut("/skills/{skillId}", ChangeAsync);
        lead.MapPost("/skills", AddAsync);
        lead.MapDelete("/skills/{skillId}/change", TakeBackAsync);
    }

    private static async Task<Results<Ok<MapView>, NotFound>> GetAsync(int classId, int? childId, ClassFacts facts, ClassContent content, TimeProvider clock, CancellationToken stop)
    {
        var children = await facts.ChildrenAsync(classId, stop);
        if (childId is { } wanted && children.All(c => c.Id != wanted))
        {
            return TypedResults.NotFound();
        }

        var evidence = await facts.EvidenceAsync(classId, clock.Today(), stop);
        var words = (await facts.ApproachAsync(classId, stop)).Words;
        return TypedResults.Ok(new MapView(
            [.. content.Map.Strands.Select(s => new MapStrand(s.Id, s.Name))],
            [.. content.Map.All.Select(s => ViewOf(s, childId is { } id ? new ChildId(id) : null, evidence, content.School))],
            children,
            words.YearName));
    }

    private static MapSkill ViewOf(Skill skill, ChildId? child, ClassEvidence evidence, SchoolMap school)
    {
        var overview = evidence.OverviewOf(skill.Id);
        var mark = child is { } one ? evidence[one, skill.Id] : (Mark?)null;
        return new(
            skill.Id.Value, skill.Strand, skill.Short, skill.When, [.. skill.Needs.Select(n => n.Value)], skill.Hidden, school.IsOwn(skill.Id), school.IsChanged(skill.Id),
            (int)(mark?.Strength ?? overview.Middle), mark?.LookAgain ?? false, overview.Has.Count, child is { } who ? (evidence.IsReady(who, skill.Id) ? 1 : 0) : overview.Ready.Count,
            child is { } named ? evidence.Judgement(named, skill.Id).Sentence : overview.Sentence);
    }

    private static async Task<Results<Ok<MapSkillView>, NotFound>> SkillAsync(int classId, string skillId, ClassFacts facts, ClassContent content, TimeProvider clock, CancellationToken stop)
    {
        SkillId id = new(skillId);
        if (!content.Map.Has(id))
        {
            return TypedResults.NotFound();
        }

        var evidence = await facts.EvidenceAsync(classId, clock.Today(), stop);
        var names = (await facts.ChildrenAsync(classId, stop)).ToDictionary(c => new ChildId(c.Id), c => c.Name);
        var skill = content.Map[id];
        var written = content.School.Written.First(s => s.Id == id);
        var overview = evidence.OverviewOf(id);
        MapLink Link(SkillId other) => new(other.Value, content.Map[other].Short, evidence.OverviewOf(other).Has.Count);
        return TypedResults.Ok(new MapSkillView(
            skill.Id.Value, content.Map.Strands.First(s => s.Id == skill.Strand).Name, skill.Short, skill.ICan, skill.When, $"{skill.Range}", skill.Lessons, skill.ShownIn, skill.LookFor,
            [.. skill.Slips.Select(s => s.Text)], [.. skill.Strategies.Where(s => s.Asked).Select(s => s.Text)], skill.Words,
            [.. skill.Needs.Select(Link)], [.. content.Map.Opens(id).Select(Link)], [.. overview.Ready.Select(c => names[c])], overview.Has.Count, names.Count,
            [.. content.Library.Activities.Where(a => a.For(id) is not null).OrderBy(a => a.Skills.Count).Select(a => new MapActivity(a.Id.Value, a.Name, a.Purpose))],
            [.. skill.Standards.Select(code => new MapStandard(code, Framework.Find(code)?.Text ?? ""))],
            skill.Hidden, content.School.IsOwn(id), content.School.IsChanged(id),
            new(written.Short, written.ICan, written.When, written.Hidden, [.. written.Needs.Select(n => n.Value)], written.Words)));
    }

    private static async Task<Results<NoContent, ValidationProblem, NotFound>> ChangeAsync(
        int classId, string skillId, MapWritten change, ClassContent content, SchoolMapStore store, CancellationToken stop)
    {
        if (content.School.Written.FirstOrDefault(s => s.Id.Value == skillId) is not { } skill)
        {
            return TypedResults.NotFound();
        }

        var wanted = skill with
        {
            Short = change.Short.Trim(),
            ICan = change.ICan.Trim(),
            When = change.When,
            Hidden = change.Hidden,
            Needs = [.. change.Needs.Select(n => new SkillId(n)).Distinct()],
            Words = [.. change.Words.Select(w => w.Trim()).Where(w => w.Length > 0).Distinct()],
        };
        return await store.TakeAsync(classId, [.. content.School.Written.Select(s => s.Id == skill.Id ? wanted : s)], wanted, stop) is { } refused ? refused : TypedResults.NoContent();
    }

    private static async Task<Results<Ok<MapSkillAdded>, ValidationProblem>> AddAsync(int classId, NewMapSkill request, ClassContent content, SchoolMapStore store, CancellationToken stop)
    {
        if (request.Low < 0 || request.Low > request.High || request.High > 999)
        {
            return Faults.One("range", "Numbers go from 0 to 999, the smaller first.");
        }

        var slug = new string([.. request.Short.Trim().ToLowerInvariant().Select(c => char.IsLetterOrDigit(c) ? c : '-')]).Trim('-');
        var id = Enumerable.Range(1, 99).Select(n => new SkillId($"own.{slug}{(n == 1 ? "" : $"-{n}")}")).First(i => content.School.Written.All(s => s.Id != i));
        Skill skill = new(
            id, request.Strand, request.Short.Trim(), request.ICan.Trim(), [.. request.Needs.Select(n => new SkillId(n)).Distinct()], request.When, [.. request.ShownIn.Distinct()], new(request.Low, request.High), 3,
            Lines(request.LookFor), [.. Lines(request.Slip).Select((t, i) => new Slip($"slip-{i + 1}", t, null))], [.. Lines(request.Way).Select((t, i) => new Strategy($"way-{i + 1}", t, true))],
            [.. request.Words.Select(w => w.Trim()).Where(w => w.Length > 0).Distinct()], []);
        return await store.TakeAsync(classId, [.. content.School.Written, skill], skill, stop) is { } refused ? refused : TypedResults.Ok(new MapSkillAdded(id.Value));
    }

    private static async Task<Results<NoContent, ValidationProblem, NotFound>> TakeBackAsync(int classId, string skillId, ClassContent content, SchoolMapStore store, FobbleDb db, CancellationToken stop)
    {
        SkillId id = new(skillId);
        if (!content.School.IsChanged(id))
        {
            return TypedResults.NotFound();
        }

        if (content.School.IsOwn(id))
        {
            if (await db.Observations.AnyAsync(o => o.Skill == skillId, stop) || await db.PlannedDays.AnyAsync(d => d.FocusSkill == skillId || d.More.Any(m => m.Skill == skillId), stop) || await db.YearPlans.AnyAsync(p => p.Document.Contains($"\"{skillId}\""), stop) || await db.GroupSessions.AnyAsync(s => s.Skill == skillId, stop))
            {
                return Faults.One("skill", "Records or plans speak of this skill. Hide it instead: what was seen is kept.");
            }

            var others = content.School.Written.Where(s => s.Id != id).ToList();
            return others.FirstOrDefault(s => s.Needs.Contains(id)) is { } needing ? Faults.One("skill", $"{needing.InSentence} needs this skill: change that one first.")
                : content.Library.Activities.FirstOrDefault(a => a.For(id) is not null) is { } activity ? Faults.One("skill", $"The activity {activity.Name} serves this skill: change that one first.")
                : await store.TakeAsync(classId, others, null, stop) is { } refused ? refused : TypedResults.NoContent();
        }

        var shipped = SkillMapLoader.AsWritten()[id];
        return await store.TakeAsync(classId, [.. content.School.Written.Select(s => s.Id == id ? shipped : s)], shipped, stop) is { } not ? not : TypedResults.NoContent();
    }

    private static List<string> Lines(string text) => [.. text.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)];
}
