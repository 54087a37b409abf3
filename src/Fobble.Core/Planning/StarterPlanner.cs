using Fobble.Core.Activities;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Planning;

/// <summary>
/// Chooses the starters of a week, at most two a day and none twice: skills that most children are due to be looked at again, then
/// those taught about 3, 10 or 30 school days ago (widening gaps, Cepeda et al. 2008).
/// </summary>
public sealed class StarterPlanner(WeekRequest request, ActivityChooser chooser)
{
    /// <summary>A starter takes at most so many minutes: an activity that is longer is cut short.</summary>
    public const int Minutes = 4;

    // So long may an activity be that is cut short.
    private const int Longest = 10;

    private const int MostADay = 2;
    private static readonly (int From, int To)[] Windows = [(2, 5), (8, 14), (25, 40)];
    private readonly HashSet<SkillId> _used = [];
    private readonly IReadOnlySet<SkillId> _served = request.Library.ServedIn(Place.Starter).Concat(request.Library.ServedIn(Place.Carpet)).ToHashSet();

    /// <param name="focus">What the day's lessons are on: no starter of their own.</param>
    public IReadOnlyList<Starter> For(DateOnly day, IReadOnlyList<SkillId> focus)
    {
        var evidence = request.Evidence;
        if (request.Year is { Reviews.Count: > 0 } year)
        {
            return
            [
                .. year
                    .Reviews.Where(r => r.Day == day && _served.Contains(r.Skill) && !focus.Contains(r.Skill))
                    .Select(r => new Starter(r.Skill, ActivityFor(r.Skill, day), r.Reason)),
            ];
        }

        var due = evidence
            .Map.Skills.Where(skill => !focus.Contains(skill.Id) && !_used.Contains(skill.Id) && _served.Contains(skill.Id))
            .Select(skill => (skill, Again: evidence.InDoubt(skill.Id), Since: SinceTaught(skill.Id, day)))
            .Where(d => d.Again > 0 || IsDue(d.Since))
            .OrderByDescending(d => d.Again)
            .ThenByDescending(d => d.Since)
            .Take(MostADay)
            .ToList();
        _used.UnionWith(due.Select(d => d.skill.Id));
        return [.. due.Select(d => new Starter(d.skill.Id, ActivityFor(d.skill.Id, day), Reason(d.Again, d.Since)))];
    }

    private static bool IsDue(int? since) => since is { } days && Windows.Any(w => days >= w.From && days <= w.To);

    private static string Reason(int again, int? since) =>
        again > 0
            ? Phrase(
                $"{Words.Capital(Words.Count(again, "child is", "children are"))} due another look{(IsDue(since) ? $"; taught {Words.Count(since!.Value, "school day", "school days")} ago" : "")}."
            )
            : Phrase($"Taught {Words.Count(since!.Value, "school day", "school days")} ago: time to bring it back.");

    private int? SinceTaught(SkillId skill, DateOnly day)
    {
        var last = request.Taught.LastOrDefault(t => t.Skill == skill);
        return last is null ? null : request.Evidence.Calendar.SchoolDaysBetween(last.Day, day);
    }

    private ActivityId ActivityFor(SkillId skill, DateOnly day)
    {
        var ranked = Ranked(chooser, skill, day);
        var pinned = request.Pinned.FirstOrDefault(p => p.Day == day && p.Place == Place.Starter && p.Skill == skill);
        var chosen = (ranked.FirstOrDefault(r => r.Activity.Id == pinned?.Activity) ?? ranked[0]).Activity.Id;
        chooser.Use(chosen, day);
        return chosen;
    }

    /// <summary>Minutes that an activity takes as a starter, not as a whole lesson.</summary>
    public static int MinutesOf(Activity activity)
    {
        ArgumentNullException.ThrowIfNull(activity);
        return Math.Min(Minutes, activity.Minutes);
    }

    /// <summary>What will do as a starter for a skill: what is made for one, else a whole-class activity cut short.</summary>
    public static IReadOnlyList<RankedActivity> Ranked(ActivityChooser chooser, SkillId skill, DateOnly day)
    {
        ActivityWish wish = new(Place.Starter, skill, null, day, Longest);
        return chooser.Rank(wish) is { Count: > 0 } made ? made : chooser.Rank(wish with { Place = Place.Carpet });
    }
}
