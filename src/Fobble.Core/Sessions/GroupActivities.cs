using Fobble.Core.Activities;
using Fobble.Core.Skills;

namespace Fobble.Core.Sessions;

/// <summary>Which activity a small group plays.</summary>
public static class GroupActivities
{
    /// <summary>For so many weeks with groups an activity rests after a group has played it on a skill.</summary>
    public const int RestWeeks = 3;

    /// <summary>The most pointed activity for a skill that was not played on it lately; where all were, the most pointed one.</summary>
    /// <param name="played">What groups played on which skill, by the Monday of their week.</param>
    /// <param name="monday">The week it is for.</param>
    public static Activity For(
        SkillId skill,
        ActivityLibrary library,
        IEnumerable<(DateOnly Monday, SkillId Skill, ActivityId Activity)> played,
        DateOnly monday
    )
    {
        ArgumentNullException.ThrowIfNull(library);
        var all = library.For(skill, Place.Group);
        var before = played.Where(p => p.Monday < monday).ToList();
        var lately = before.Select(p => p.Monday).Distinct().OrderDescending().Take(RestWeeks).ToHashSet();
        var resting = before.Where(p => lately.Contains(p.Monday) && p.Skill == skill).Select(p => p.Activity).ToHashSet();
        return all.FirstOrDefault(a => !resting.Contains(a.Id)) ?? all[0];
    }
}
