using Fobble.Core.Activities;
using Fobble.Core.Baseline;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Microsoft.Extensions.Caching.Memory;

namespace Fobble.Server.Features.Baseline;

/// <summary>A check as far as the reckoning goes.</summary>
internal sealed record CheckSoFar(string? Strand, double Shift, IReadOnlyList<BaselineAnswer> Answers, IReadOnlyList<BaselineAnswer> Known);

/// <summary>
/// Works out where checks stand. A state takes a fifth of a second, so while the child thinks, those after each possible answer are worked out
/// already: the next question is there at once.
/// </summary>
internal sealed class BaselineDesk(IMemoryCache cache)
{
    private static readonly TimeSpan Keep = TimeSpan.FromMinutes(20);
    private static readonly Support[] Possible = [Support.Alone, Support.NotYet, Support.Prompted];

    public Task<BaselineState> StateAsync(SkillMap map, ActivityLibrary library, CheckSoFar check) =>
        cache.GetOrCreate((map, TextOf(check)), entry =>
        {
            entry.SlidingExpiration = Keep;
            return new Lazy<Task<BaselineState>>(() => Task.Run(() => new BaselineCheck(map, strand: check.Strand).After(check.Answers, check.Known, check.Shift, MaterialsOf(map, library))));
        })!.Value;

    /// <summary>Begins to work out what follows each possible answer to the next question.</summary>
    public void LookAhead(SkillMap map, ActivityLibrary library, CheckSoFar check, SkillId next) => _ = Task.Run(async () =>
    {
        foreach (var support in Possible)
        {
            await StateAsync(map, library, check with { Answers = [.. check.Answers, new(next, support)] });
        }
    });

    private IReadOnlyDictionary<SkillId, string> MaterialsOf(SkillMap map, ActivityLibrary library) =>
        cache.GetOrCreate((map, "materials"), entry =>
        {
            entry.SlidingExpiration = Keep;
            return BaselineQuestion.Materials(map, library);
        })!;

    // "Prompted" and "together" weigh the same, and the same answers in another order too, but for what is at hand.
    private static string TextOf(CheckSoFar check) =>
        string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{check.Strand}|{check.Shift:0.00}|{Said(check.Answers)}|{Said(check.Known)}");

    private static string Said(IReadOnlyList<BaselineAnswer> answers) => string.Join(',', answers.Select(a => $"{a.Skill}{(a.Right ? '+' : a.Weight < 1 ? '~' : '-')}"));
}
