using Fobble.Core.Calendars;
using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>Why a skill is worth a second look.</summary>
public enum Doubt
{
    None,

    /// <summary>Done alone of late, and yet never quite sure.</summary>
    NeverSure,

    /// <summary>It was there, and neither it nor anything that builds on it has been seen for long.</summary>
    MayHaveFaded,
}

/// <summary>One child's skill to look at again.</summary>
/// <param name="Chance">That it turns out not to be there, 0 to 1.</param>
public readonly record struct SecondLook(ChildId Child, SkillId Skill, Doubt Doubt, double Chance);

/// <summary>
/// What is worth a second look this week: two short lists, each no longer than the minutes for it, gathered by skill so that several children are seen at once.
/// </summary>
internal sealed class SecondLooks(SkillMap map, SchoolCalendar calendar, SecondLookSettings settings, DateOnly today)
{
    /// <summary>Everything that is in doubt for a child, however much that is.</summary>
    public IEnumerable<SecondLook> Of(ChildId child, ChildRecord record)
    {
        var last = LastAloneOnItOrWhatBuildsOnIt(record);
        for (var i = 0; i < map.All.Count; i++)
        {
            if (record[i] is { Strength: >= Strength.Nearly } standing && !map.All[i].Hidden && Due(standing))
            {
                var (doubt, chance) = Weigh(standing, record.All.Held[i], last[i]);
                if (chance >= settings.LeastChance)
                {
                    yield return new(child, map.All[i].Id, doubt, chance);
                }
            }
        }
    }

    /// <summary>As much of one kind of doubt as fits the week: skill by skill, the most findings a minute first.</summary>
    public IEnumerable<SecondLook> ForTheWeek(IEnumerable<SecondLook> all, Doubt doubt)
    {
        var left = settings.Minutes;
        var skills = all.Where(l => l.Doubt == doubt)
            .GroupBy(l => l.Skill)
            .Select(g => Best([.. g]))
            .OrderByDescending(PerMinute)
            .ThenBy(g => map.IndexOf(g[0].Skill));
        foreach (var together in skills)
        {
            var minutes = MinutesOf(together.Count);
            if (minutes > left)
            {
                continue;
            }

            left -= minutes;
            foreach (var look in together)
            {
                yield return look;
            }
        }
    }

    private bool Due(Standing standing) => calendar.SchoolDaysBetween(standing.Seen[^1].Day, today) >= settings.NotBefore;

    private (Doubt Doubt, double Chance) Weigh(Standing standing, double held, DateOnly? lastAlone)
    {
        if (held < settings.SureFrom)
        {
            return (Doubt.NeverSure, 1 - held);
        }

        var days = lastAlone is { } last ? today.DayNumber - last.DayNumber : 0;
        var halfLife = settings.HalfLife * Math.Pow(settings.LongerEach, standing.Own.SpacedSuccesses);
        return (Doubt.MayHaveFaded, held * (1 - Math.Pow(2, -days / halfLife)));
    }

    // Teaching order: whatever builds on a skill comes after it.
    private DateOnly?[] LastAloneOnItOrWhatBuildsOnIt(ChildRecord record)
    {
        var last = new DateOnly?[map.All.Count];
        for (var i = last.Length - 1; i >= 0; i--)
        {
            last[i] = Later(last[i], record[i]?.LastAlone);
            foreach (var need in map.All[i].Needs)
            {
                var n = map.IndexOf(need);
                last[n] = Later(last[n], last[i]);
            }
        }

        return last;
    }

    private static DateOnly? Later(DateOnly? one, DateOnly? other) => one is null || other > one ? other : one;

    // The first few children by doubt, as long as one more is worth the minute.
    private List<SecondLook> Best(List<SecondLook> ofSkill)
    {
        var inOrder = ofSkill.OrderByDescending(l => l.Chance).ThenBy(l => l.Child).ToList();
        return Enumerable.Range(1, Math.Min(settings.MostAtOnce, inOrder.Count)).Select(n => inOrder.Take(n).ToList()).MaxBy(PerMinute)!;
    }

    private double PerMinute(List<SecondLook> together) => together.Sum(l => l.Chance) / MinutesOf(together.Count);

    private double MinutesOf(int children) => settings.MinutesASkill + (children * settings.MinutesAChild);
}
