using Fobble.Core.Activities;
using Fobble.Core.Evidence;
using Fobble.Core.Portraits;
using Fobble.Core.Skills;
using Fobble.Server.Features.Sessions;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Clipboard;

/// <param name="Why">Why it stands among the first for this child.</param>
public sealed record AnyoneSkill(string Skill, string Why);

public sealed record AnyoneChild(int Id, string Name, bool Away, bool PhotosAllowed, IReadOnlyList<AnyoneSkill> Due);

/// <param name="Skills">All of them, by strand, with what can be noted about each.</param>
/// <param name="Playing">Skills of today's choice time and of what was recorded there last: most likely what is being watched.</param>
public sealed record AnyoneView(IReadOnlyList<CardSkill> Skills, IReadOnlyList<string> Playing, string PlayingName, IReadOnlyList<AnyoneChild> Children);

/// <summary>For choice time: any child, any skill, in two taps. Everything comes at once, so that no tap waits for the network.</summary>
internal static class Anyone
{
    private const int MostDue = 8;
    private const int MostPlaying = 5;

    public static async Task<Ok<AnyoneView>> GetAsync(ClassRoom room, CancellationToken stop)
    {
        var today = room.Today;
        var children = await room.ChildrenAsync(stop);
        var evidence = await room.EvidenceAsync(stop);
        var away = await room.AwayAsync(today, stop);
        var photos = (await room.ChildRowsAsync(stop)).Where(c => c.PhotosAllowed).Select(c => c.Id).ToHashSet();
        var choice = await room.Db.PlannedDays.Where(d => d.ClassId == room.Id.Value && d.Day == today).Select(d => d.Choice).FirstOrDefaultAsync(stop);
        var activity = choice is null ? null : room.Library.Find(new(choice));
        var lately = await room.Seen()
            .Where(o => o.Day == today && o.Setting == Setting.Choice)
            .OrderByDescending(o => o.At)
            .Select(o => o.Skill)
            .Take(30)
            .ToListAsync(stop);
        List<string> playing =
        [
            .. lately
                .Concat(activity?.Skills.Select(s => s.Skill.Value) ?? [])
                .Distinct()
                .Where(s => room.Map.Has(new(s)) && !room.Map[new(s)].Hidden)
                .Take(MostPlaying),
        ];
        return TypedResults.Ok(
            new AnyoneView(
                [.. room.Map.Strands.SelectMany(t => room.Map.Skills.Where(s => s.Strand == t.Id)).Select(CardReader.Describe)],
                playing,
                activity?.Name ?? "",
                [
                    .. children.Select(c => new AnyoneChild(
                        c.Id,
                        c.Name,
                        away.Contains(c.Id),
                        photos.Contains(c.Id),
                        [.. new ChildPortrait(evidence, room.Library, new(c.Id)).Due(MostDue).Select(d => new AnyoneSkill(d.Skill.Value, d.Why))]
                    )),
                ]
            )
        );
    }
}
