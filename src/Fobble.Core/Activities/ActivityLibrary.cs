using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;

namespace Fobble.Core.Activities;

/// <summary>All activities, checked against the skill map when built.</summary>
public sealed class ActivityLibrary
{
    private readonly Dictionary<ActivityId, Activity> _byId;

    /// <exception cref="RefusedException">An id is there twice, or an activity serves a skill that does not exist or that it has no items for; lists every fault.</exception>
    public ActivityLibrary(SkillMap map, IReadOnlyList<Activity> activities)
    {
        ArgumentNullException.ThrowIfNull(map);
        ArgumentNullException.ThrowIfNull(activities);
        List<string> faults = [.. activities.GroupBy(a => a.Id).Where(g => g.Count() > 1).Select(g => Phrase($"{g.Key} is there {g.Count()} times"))];
        faults.AddRange(
            activities.SelectMany(a => a.Skills.Where(s => !map.Has(s.Skill)).Select(s => Phrase($"{a.Id} serves {s.Skill}, which does not exist")))
        );
        faults.AddRange(
            activities.SelectMany(a =>
                a.Skills.Where(s => ItemCases.All(s.Items, s.Range, 1).Count == 0).Select(s => Phrase($"{a.Id} has no items for {s.Skill}"))
            )
        );
        if (faults.Count > 0)
        {
            throw new RefusedException("activity", Phrase("The activities have faults: ") + string.Join("; ", faults) + ".");
        }

        Activities = activities;
        _byId = activities.ToDictionary(a => a.Id);
        Unserved =
        [
            .. ((Place[])[Place.Carpet, Place.Group]).SelectMany(place =>
                map.Skills.Where(s => For(s.Id, place).Count == 0).Select(s => Phrase($"{s.Id} has no activity for {place}"))
            ),
        ];
    }

    public IReadOnlyList<Activity> Activities { get; }

    /// <summary>Skills that can't be taught to the class or to a group yet, since nothing serves them there. Empty for what ships.</summary>
    public IReadOnlyList<string> Unserved { get; }

    /// <exception cref="KeyNotFoundException">There is no such activity.</exception>
    public Activity this[ActivityId id] => Find(id) ?? throw new KeyNotFoundException($"There is no activity '{id}'.");

    public Activity? Find(ActivityId id) => _byId.GetValueOrDefault(id);

    /// <summary>Skills for which there is something to do in a place.</summary>
    public IReadOnlySet<SkillId> ServedIn(Place place) =>
        Activities.Where(a => a.Places.Contains(place)).SelectMany(a => a.Skills.Select(s => s.Skill)).ToHashSet();

    /// <summary>Activities for a skill in a place, those made for fewest skills (the most pointed) first.</summary>
    public IReadOnlyList<Activity> For(SkillId skill, Place place) =>
        [.. Activities.Where(a => a.Places.Contains(place) && a.For(skill) is not null).OrderBy(a => a.Skills.Count)];

    /// <summary>Refuses activities of a school's own that can't be: two of one id, one that serves a skill with numbers that hold no item, names beyond all measure.</summary>
    /// <exception cref="RefusedException">They can't.</exception>
    public static void CheckOwn(SkillMap map, IReadOnlyList<Activity> activities)
    {
        _ = new ActivityLibrary(map, activities);
        foreach (var activity in activities)
        {
            RefusedException.Unless(
                activity.Id.Value.Length <= LongestName && activity.Name.Length <= LongestName,
                "activity",
                Phrase($"A name has at most {LongestName} letters: {activity.Name[..Math.Min(20, activity.Name.Length)]} … has more.")
            );
        }
    }

    private const int LongestName = 80;
}
