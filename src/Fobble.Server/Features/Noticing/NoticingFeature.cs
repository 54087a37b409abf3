using Fobble.Core.Activities;
using Fobble.Core.Evidence;
using Fobble.Core.Portraits;
using Fobble.Core.Skills;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fobble.Server.Features.Noticing;

public sealed record AgainMark(int ChildId, string Child, string Skill, string Short, int Strength, string Why);

public sealed record AgainSkill(string Skill, string Short, string ICan, string? ActivityId, string? Activity, IReadOnlyList<AgainMark> Children);

/// <param name="BySkill">What most children share first, so that one activity looks after several.</param>
public sealed record AgainView(int Marks, int Children, IReadOnlyList<AgainSkill> BySkill);

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
        ofClass.MapGet("/look-again", LookAgainAsync);
        ofClass.MapGet("/slips", SlipsAsync);
    }

    private static async Task<Ok<AgainView>> LookAgainAsync(ClassRoom room, CancellationToken stop)
    {
        var names = (await room.ChildrenAsync(stop)).ToDictionary(c => c.Id, c => c.Name);
        var evidence = await room.EvidenceAsync(stop);
        var due = evidence.LookAgain;
        return TypedResults.Ok(
            new AgainView(
                due.Count,
                due.Select(d => d.Child).Distinct().Count(),
                [
                    .. due.GroupBy(d => d.Skill)
                        .OrderByDescending(g => g.Count())
                        .Select(g => (g, activity: room.Library.For(g.Key, Place.Starter).Concat(room.Library.For(g.Key, Place.Group)).FirstOrDefault()))
                        .Select(p => new AgainSkill(
                            p.g.Key.Value,
                            room.Map[p.g.Key].Short,
                            room.Map[p.g.Key].ICan,
                            p.activity?.Id.Value,
                            p.activity?.Name,
                            [
                                .. p.g.Select(d => new AgainMark(
                                    d.Child.Value,
                                    names[d.Child.Value],
                                    d.Skill.Value,
                                    room.Map[d.Skill].Short,
                                    (int)evidence[d.Child, d.Skill].Strength,
                                    evidence.Judgement(d.Child, d.Skill).Doubt ?? ""
                                )),
                            ]
                        )),
                ]
            )
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
