using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Planning;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fobble.Server.Features.Thoughts;

/// <param name="Kind">What it is about: where it is chosen hangs on that.</param>
/// <param name="Example">What is said of a child of this class today; null while there is none.</param>
public sealed record ThoughtView(ThoughtKind Kind, string Title, IReadOnlyList<string> Says, IReadOnlyList<ThoughtNumber> Numbers, ThoughtExampleView? Example);

public enum ThoughtKind
{
    Judging,
    Grouping,
    Planning,
}

public sealed record ThoughtExampleView(int? ChildId, string? Child, string? SkillId, string? Skill, string Sentence);

/// <summary>How Fobble thinks: what each word of its judgements means, the numbers in it, and an example from the class.</summary>
internal sealed class ThoughtsFeature : IFeature
{
    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass) => ofClass.MapGet("/thoughts", GetAsync);

    private static async Task<Ok<IReadOnlyList<ThoughtView>>> GetAsync(ClassRoom room, CancellationToken stop)
    {
        var evidence = await room.EvidenceAsync(stop);
        var names = (await room.ChildrenAsync(stop)).ToDictionary(c => c.Id, c => c.Name);
        var sessions = await room.SessionsAsync(room.Today.AddDays(-14), room.Today.AddDays(14), stop);
        var plan = await room.PlanAsync(stop);
        var settings = plan?.Document.Plan.Settings ?? PlanSettings.Usual;
        return TypedResults.Ok<IReadOnlyList<ThoughtView>>([
            .. Thinking
                .Of(evidence)
                .Select(t => new ThoughtView(
                    ThoughtKind.Judging,
                    t.Title,
                    t.Says,
                    t.Numbers,
                    t.Example is { } e ? new(e.Child.Value, names[e.Child.Value], e.Skill.Value, room.Map[e.Skill].Short, e.Sentence) : null
                )),
            new(
                ThoughtKind.Grouping,
                Phrase("Why these groups"),
                GroupWeights.Thought,
                [.. GroupWeights.All.Select(w => new ThoughtNumber(w.Name, w.Does))],
                sessions is [.., var last] ? new(null, null, last.Skill, room.Map[new(last.Skill)].Short, last.Reason) : null
            ),
            new(
                ThoughtKind.Planning,
                Phrase("Why this order"),
                PlanSettings.Thought,
                settings.InNumbers,
                plan is { Document.Plan.Missed: [var missed, ..] } && room.Map.Has(missed.Skill)
                    ? new(null, null, missed.Skill.Value, room.Map[missed.Skill].Short, missed.Why)
                    : null
            ),
        ]);
    }
}
