using Fobble.Core.Activities;
using Fobble.Core.Evidence;
using Fobble.Core.Portraits;
using Fobble.Core.Skills;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fobble.Server.Features.Noticing;

public sealed record AgainMark(int ChildId, string Child, string Skill, string Short, int Strength, string Why);

public sealed record AgainSkill(string Skill, string Short, string ICan, string? ActivityId, string? Activity, IReadOnlyList<AgainMark> Children);

/// <param name="NeverSure">Done alone of late and yet never quite sure, skill by skill, the most to be found out in a minute first.</param>
/// <param name="Faded">It was there, and has not been seen for long.</param>
/// <param name="Minutes">That each list takes at most.</param>
public sealed record AgainView(IReadOnlyList<AgainSkill> NeverSure, IReadOnlyList<AgainSkill> Faded, int Minutes);

public sealed record TalliedChild(int Id, string Name, int Times, DateOnly Last);

public sealed record TalliedSlipView(
    string Skill,
    string Short,
    string Slip,
    IReadOnlyList<TalliedChild> Children,
    IReadOnlyList<string> Helps,
    string? ActivityId,
    string? Activity
);

public sealed record SlipsView(int Days, IReadOnlyList<TalliedSlipView> Slips);

/// <summary>What has been noticed across the class: marks to look at again, and slips that go about.</summary>
internal sealed class NoticingFeature : IFeature
{
    private const int SlipDays = 20;

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        ofClass.MapGet("/look-again", LookAgainAsync).WithMetadata(new SameForAll());
        ofClass.MapGet("/slips", SlipsAsync);
    }

    private static async Task<Ok<AgainView>> LookAgainAsync(ClassRoom room, CancellationToken stop)
    {
        var names = (await room.ChildrenAsync(stop)).ToDictionary(c => c.Id, c => c.Name);
        var evidence = await room.EvidenceAsync(stop);
        IReadOnlyList<AgainSkill> Of(Doubt doubt) =>
            [.. evidence.LookAgain.Where(l => l.Doubt == doubt).GroupBy(l => l.Skill).Select(g => OfSkill(room, evidence, names, room.Map[g.Key], [.. g]))];
        return TypedResults.Ok(new AgainView(Of(Doubt.NeverSure), Of(Doubt.MayHaveFaded), (int)EvidenceSettings.Of(room.Approach).SecondLook.Minutes));
    }

    private static AgainSkill OfSkill(ClassRoom room, ClassEvidence evidence, Dictionary<int, string> names, Skill skill, IReadOnlyList<SecondLook> looks)
    {
        var activity = room.Library.For(skill.Id, Place.Starter).Concat(room.Library.For(skill.Id, Place.Group)).FirstOrDefault();
        return new(
            skill.Id.Value,
            skill.Short,
            skill.ICan,
            activity?.Id.Value,
            activity?.Name,
            [
                .. looks.Select(l => new AgainMark(
                    l.Child.Value,
                    names[l.Child.Value],
                    skill.Id.Value,
                    skill.Short,
                    (int)evidence[l.Child, skill.Id].Strength,
                    evidence.Judgement(l.Child, skill.Id).Doubt ?? ""
                )),
            ]
        );
    }

    private static async Task<Ok<SlipsView>> SlipsAsync(ClassRoom room, CancellationToken stop)
    {
        var names = (await room.ChildrenAsync(stop)).ToDictionary(c => c.Id, c => c.Name);
        var evidence = await room.EvidenceAsync(stop);
        return TypedResults.Ok(
            new SlipsView(
                SlipDays,
                [
                    .. SlipTally
                        .Of(evidence, room.Library, SlipDays)
                        .Select(b => new TalliedSlipView(
                            b.Skill.Value,
                            room.Map[b.Skill].Short,
                            b.Slip.Text,
                            [.. b.Children.Select(c => new TalliedChild(c.Child.Value, names[c.Child.Value], c.Times, c.Last))],
                            b.Helps,
                            b.Activity?.Id.Value,
                            b.Activity?.Name
                        )),
                ]
            )
        );
    }
}
