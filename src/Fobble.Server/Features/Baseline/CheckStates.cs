using System.ComponentModel;
using System.Globalization;
using Fobble.Core.Baseline;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Server.Hosting;
using Microsoft.Extensions.Caching.Hybrid;

namespace Fobble.Server.Features.Baseline;

/// <summary>A check as far as the reckoning goes.</summary>
internal sealed record CheckSoFar(string? Strand, double Shift, IReadOnlyList<BaselineAnswer> Answers, IReadOnlyList<RecordedSkill> Known);

/// <summary>
/// Works out where checks stand, and keeps it for a while. A state takes a fifth of a second, so while the child thinks, those after each possible answer are
/// worked out already: the next question is there at once. A fault is not kept.
/// </summary>
internal sealed class CheckStates(HybridCache cache, Solving solving, AheadQueue ahead)
{
    private static readonly HybridCacheEntryOptions Keep = new() { Expiration = TimeSpan.FromMinutes(20), LocalCacheExpiration = TimeSpan.FromMinutes(20) };
    private static readonly Support[] Possible = [Support.Alone, Support.NotYet, Support.Prompted];

    public Task<BaselineState> OfAsync(ClassRoom room, CheckSoFar check, CancellationToken stop) =>
        OfAsync(room.Id, room.ContentKey, room.Content, check, stop);

    /// <summary>Begins to work out what follows each possible answer to the next question.</summary>
    public void LookAhead(ClassRoom room, CheckSoFar check, SkillId next)
    {
        // The room is gone by the time it is worked out: what is needed of it is taken along.
        var (id, key, content) = (room.Id, room.ContentKey, room.Content);
        foreach (var support in Possible)
        {
            ahead.Add(stop => OfAsync(id, key, content, check with { Answers = [.. check.Answers, new(next, support)] }, stop));
        }
    }

    private async Task<BaselineState> OfAsync(ClassId classId, string contentKey, ClassContent content, CheckSoFar check, CancellationToken stop)
    {
        var kept = await cache.KeptAsync(
            $"check/{contentKey}/{TextOf(check)}",
            async until => new KeptState(
                await solving.RunAsync(
                    classId,
                    _ => new BaselineCheck(content.Map, strand: check.Strand).After(check.Answers, check.Known, check.Shift, content.BaselineMaterials),
                    until
                )
            ),
            Keep,
            stop
        );
        return kept.State;
    }

    // "Prompted" and "together" weigh the same, and the same answers in another order too, but for what is at hand.
    private static string TextOf(CheckSoFar check) =>
        string.Create(
            CultureInfo.InvariantCulture,
            $"{check.Strand}|{check.Shift:0.00}|{Said(check.Answers)}|{string.Join(',', check.Known.Select(k => $"{k.Skill}{Math.Log(k.Ratio).ToString("0.00", CultureInfo.InvariantCulture)}"))}"
        );

    private static string Said(IReadOnlyList<BaselineAnswer> answers) =>
        string.Join(',', answers.Select(a => $"{a.Skill}{(a.Right ? '+' : a.Weight < 1 ? '~' : '-')}"));

    [ImmutableObject(true)]
    private sealed record KeptState(BaselineState State);
}
