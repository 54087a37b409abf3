using Fobble.Core.Activities;
using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;
using Fobble.Core.Standards;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.SkillMaps;

/// <summary>The map of skills with the class's or a child's strengths laid over it, and what the school does differently.</summary>
internal sealed class SkillMapsFeature : IFeature
{
    public void AddServices(IServiceCollection services) => services.AddScoped<SchoolMapStore>();

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        var map = ofClass.MapGroup("/map");
        map.MapGet("/", GetAsync);
        map.MapGet("/skills/{skillId}", SkillAsync);
        SkillMapFiles.Map(map);
        var lead = map.MapGroup("/").RequireAuthorization(Policies.LeadSchool);
        lead.MapPut("/skills/{skillId}", ChangeAsync).WithTrace(TraceKind.MapChanged);
        lead.MapPost("/skills", AddAsync).WithTrace(TraceKind.MapChanged);
        lead.MapDelete("/skills/{skillId}/change", TakeBackAsync).WithTrace(TraceKind.MapChanged);
    }

    private static async Task<Results<Ok<MapView>, NotFound>> GetAsync(ClassRoom room, int? childId, CancellationToken stop)
    {
        var children = await room.ChildrenAsync(stop);
        if (childId is { } wanted && children.All(c => c.Id != wanted))
        {
            return TypedResults.NotFound();
        }

        var evidence = await room.EvidenceAsync(stop);
        var words = room.Approach.Words;
        return TypedResults.Ok(
            new MapView(
                [.. room.Content.Map.Strands.Select(s => new MapStrand(s.Id, s.Name))],
                [.. room.Content.Map.All.Select(s => ViewOf(s, childId is { } id ? new ChildId(id) : null, evidence, room.Content.School))],
                children,
                words.YearName
            )
        );
    }

    private static MapSkill ViewOf(Skill skill, ChildId? child, ClassEvidence evidence, SchoolMap school)
    {
        var overview = evidence.OverviewOf(skill.Id);
        var mark = child is { } one ? evidence[one, skill.Id] : (Mark?)null;
        return new(
            skill.Id.Value,
            skill.Strand,
            skill.Short,
            skill.When,
            [.. skill.Needs.Select(n => n.Value)],
            skill.Hidden,
            school.IsOwn(skill.Id),
            school.IsChanged(skill.Id),
            (int)(mark?.Strength ?? overview.Middle),
            mark?.LookAgain ?? false,
            overview.Has.Count,
            child is { } who ? (evidence.IsReady(who, skill.Id) ? 1 : 0) : overview.Ready.Count,
            child is { } named ? evidence.Judgement(named, skill.Id).Sentence : overview.Sentence
        );
    }

    private static async Task<Results<Ok<MapSkillView>, NotFound>> SkillAsync(ClassRoom room, string skillId, CancellationToken stop)
    {
        SkillId id = new(skillId);
        if (!room.Content.Map.Has(id))
        {
            return TypedResults.NotFound();
        }

        var evidence = await room.EvidenceAsync(stop);
        var names = (await room.ChildrenAsync(stop)).ToDictionary(c => new ChildId(c.Id), c => c.Name);
        var skill = room.Content.Map[id];
        var written = room.Content.School.Written.First(s => s.Id == id);
        var overview = evidence.OverviewOf(id);
        MapLink Link(SkillId other) => new(other.Value, room.Content.Map[other].Short, evidence.OverviewOf(other).Has.Count);
        return TypedResults.Ok(
            new MapSkillView(
                skill.Id.Value,
                room.Content.Map.Strands.First(s => s.Id == skill.Strand).Name,
                skill.Short,
                skill.ICan,
                skill.When,
                $"{skill.Range}",
                skill.Lessons,
                skill.ShownIn,
                skill.LookFor,
                [.. skill.Slips.Select(s => s.Text)],
                [.. skill.Strategies.Where(s => s.Asked).Select(s => s.Text)],
                skill.Words,
                [.. skill.Needs.Select(Link)],
                [.. room.Content.Map.Opens(id).Select(Link)],
                [.. overview.Ready.Select(c => names[c])],
                overview.Has.Count,
                names.Count,
                [
                    .. room
                        .Content.Library.Activities.Where(a => a.For(id) is not null)
                        .OrderBy(a => a.Skills.Count)
                        .Select(a => new MapActivity(a.Id.Value, a.Name, a.Purpose)),
                ],
                [.. skill.Standards.Select(code => new MapStandard(code, Framework.Find(code)?.Text ?? ""))],
                skill.Hidden,
                room.Content.School.IsOwn(id),
                room.Content.School.IsChanged(id),
                new(written.Short, written.ICan, written.When, written.Hidden, [.. written.Needs.Select(n => n.Value)], written.Words)
            )
        );
    }

    private static async Task<Results<NoContent, NotFound>> ChangeAsync(
        ClassRoom room,
        string skillId,
        MapWritten change,
        SchoolMapStore store,
        CancellationToken stop
    )
    {
        if (room.Content.School.Written.FirstOrDefault(s => s.Id.Value == skillId) is not { } skill)
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
        await store.TakeAsync([.. room.Content.School.Written.Select(s => s.Id == skill.Id ? wanted : s)], wanted, stop);
        return TypedResults.NoContent();
    }

    private static async Task<Ok<MapSkillAdded>> AddAsync(ClassRoom room, NewMapSkill request, SchoolMapStore store, CancellationToken stop)
    {
        var slug = new string([.. request.Short.Trim().ToLowerInvariant().Select(c => char.IsLetterOrDigit(c) ? c : '-')]).Trim('-');
        var id = Enumerable
            .Range(1, 99)
            .Select(n => new SkillId($"own.{slug}{(n == 1 ? "" : $"-{n}")}"))
            .First(i => room.Content.School.Written.All(s => s.Id != i));
        Skill skill = new(
            id,
            request.Strand,
            request.Short.Trim(),
            request.ICan.Trim(),
            [.. request.Needs.Select(n => new SkillId(n)).Distinct()],
            request.When,
            [.. request.ShownIn.Distinct()],
            NumberRange.Asked(request.Low, request.High),
            3,
            Lines(request.LookFor),
            [.. Lines(request.Slip).Select((t, i) => new Slip($"slip-{i + 1}", t, null))],
            [.. Lines(request.Way).Select((t, i) => new Strategy($"way-{i + 1}", t, true))],
            [.. request.Words.Select(w => w.Trim()).Where(w => w.Length > 0).Distinct()],
            []
        );
        await store.TakeAsync([.. room.Content.School.Written, skill], skill, stop);
        return TypedResults.Ok(new MapSkillAdded(id.Value));
    }

    private static async Task<Results<NoContent, NotFound>> TakeBackAsync(ClassRoom room, string skillId, SchoolMapStore store, CancellationToken stop)
    {
        SkillId id = new(skillId);
        var school = room.Content.School;
        if (!school.IsChanged(id))
        {
            return TypedResults.NotFound();
        }

        if (!school.IsOwn(id))
        {
            var shipped = SkillMapLoader.AsWritten()[id];
            await store.TakeAsync([.. school.Written.Select(s => s.Id == id ? shipped : s)], shipped, stop);
            return TypedResults.NoContent();
        }

        var others = school.Written.Where(s => s.Id != id).ToList();
        RefusedException.Unless(
            !await IsSpokenOfAsync(room, skillId, stop),
            "skill",
            Phrase("Records or plans speak of this skill. Hide it instead: what was seen is kept.")
        );
        var needing = others.FirstOrDefault(s => s.Needs.Contains(id));
        RefusedException.Unless(needing is null, "skill", Phrase($"{needing?.InSentence} needs this skill: change that one first."));
        var serving = room.Library.Activities.FirstOrDefault(a => a.For(id) is not null);
        RefusedException.Unless(serving is null, "skill", Phrase($"The activity {serving?.Name} serves this skill: change that one first."));
        await store.TakeAsync(others, null, stop);
        return TypedResults.NoContent();
    }

    // Sets of groups that were replaced speak of it as well.
    private static async Task<bool> IsSpokenOfAsync(ClassRoom room, string skillId, CancellationToken stop) =>
        await room.Db.Observations.AnyAsync(o => o.Skill == skillId, stop)
        || await room.Db.PlannedDays.AnyAsync(d => d.FocusSkill == skillId || d.More.Any(m => m.Skill == skillId), stop)
        || await room.Db.YearPlans.AnyAsync(p => p.Document.Contains($"\"{skillId}\""), stop)
        || await room.Db.GroupSessions.AnyAsync(s => s.Skill == skillId, stop);

    private static List<string> Lines(string text) => [.. text.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)];
}
