using Fobble.Core.Activities;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Planning;

/// <summary>
/// Chooses the starters of a week, at most two a day and none twice: skills that most children are due to be looked at again, then
/// those taught about 3, 10 or 30 school days ago (widening gaps, Cepeda et al. 2008).
/// </summary>
internal sealed class StarterPlanner(WeekRequest request)
{
    private const int MostADay = 2;
    private static readonly (int From, int To)[] Windows = [(2, 5), (8, 14), (25, 40)];
    private readonly HashSet<SkillId> _used = [];
    private readonly IReadOnlySet<SkillId> _served = request.Library.ServedIn(Place.Starter).Concat(request.Library.ServedIn(Place.Carpet)).ToHashSet();

    public IReadOnlyList<Starter> For(DateOnly day, SkillId focus)
    {
        var evidence = request.Evidence;
        var due = evidence.Map.Skills
            .Where(skill => skill.Id != focus && !_used.Contains(skill.Id) && _served.Contains(skill.Id))
            .Select(skill => (skill, Again: evidence.Children.Count(c => evidence[c, skill.Id].LookAgain), Since: SinceTaught(skill.Id, day)))
            .Where(d => d.Again > 0 || IsDue(d.Since))
            .OrderByDescending(d => d.Again)
            .ThenByDescending(d => d.Since)
            .Take(MostADay)
            .ToList();
        _used.UnionWith(due.Select(d => d.skill.Id));
        return [.. due.Select(d => new Starter(d.skill.Id, ActivityFor(d.skill.Id), Reason(d.Again, d.Since)))];
    }

    private static bool IsDue(int? since) => since is { } days && Windows.Any(w => days >= w.From && days <= w.To);

    private static string Reason(int again, int? since) => again > 0
        ? $"{Words.Capital(Words.Count(again, "child is", "children are"))} due another look{(IsDue(since) ? $"; taught {Words.Count(since!.Value, "school day", "school days")} ago" : "")}."
        : $"Taught {Words.Count(since!.Value, "school day", "school days")} ago: time to bring it back.";

    private int? SinceTaught(SkillId skill, DateOnly day)
    {
        var last = request.Taught.LastOrDefault(t => t.Skill == skill);
        return last is null ? null : request.Evidence.Calendar.SchoolDaysBetween(last.Day, day);
    }

    private ActivityId ActivityFor(SkillId skill) => request.Library.For(skill, Place.Starter).Concat(request.Library.For(skill, Place.Carpet)).First().Id;
}
