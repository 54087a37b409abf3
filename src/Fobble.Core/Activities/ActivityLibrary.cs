using Fobble.Core.ItemSets;
using Fobble.Core.Skills;

namespace Fobble.Core.Activities;

/// <summary>All activities, checked against the skill map when built.</summary>
public sealed class ActivityLibrary
{
    /// <exception cref="FormatException">An activity is incomplete, or a skill of the map has none for carpet or group; lists every fault.</exception>
    public ActivityLibrary(SkillMap map, IReadOnlyList<Activity> activities)
    {
        ArgumentNullException.ThrowIfNull(map);
        ArgumentNullException.ThrowIfNull(activities);
        List<string> faults = [.. activities.GroupBy(a => a.Id).Where(g => g.Count() > 1).Select(g => $"{g.Key} is there {g.Count()} times")];
        faults.AddRange(activities.SelectMany(a => a.Skills.Where(s => !map.Has(s.Skill)).Select(s => $"{a.Id} serves {s.Skill}, which does not exist")));
        faults.AddRange(activities.SelectMany(a => a.Skills.Where(s => ItemCases.All(s.Items, s.Range, 1).Count == 0).Select(s => $"{a.Id} has no items for {s.Skill}")));
        foreach (var place in (ReadOnlySpan<Place>)[Place.Carpet, Place.Group])
        {
            faults.AddRange(map.Skills.Where(skill => !activities.Any(a => a.Places.Contains(place) && a.For(skill.Id) is not null)).Select(s => $"{s.Id} has no activity for {place}"));
        }

        if (faults.Count > 0)
        {
            throw new FormatException("The activities have faults: " + string.Join("; ", faults) + ".");
        }

        Activities = activities;
    }

    public IReadOnlyList<Activity> Activities { get; }

    public Activity this[ActivityId id] => Activities.FirstOrDefault(a => a.Id == id) ?? throw new KeyNotFoundException($"There is no activity '{id}'.");

    /// <summary>Activities for a skill in a place, those made for fewest skills (the most pointed) first.</summary>
    public IReadOnlyList<Activity> For(SkillId skill, Place place) =>
        [.. Activities.Where(a => a.Places.Contains(place) && a.For(skill) is not null).OrderBy(a => a.Skills.Count)];
}
