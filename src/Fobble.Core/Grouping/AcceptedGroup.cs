using Fobble.Core.Calendars;
using Fobble.Core.Skills;

namespace Fobble.Core.Grouping;

/// <summary>A small group in its place in the week, as it was accepted.</summary>
/// <param name="Recorded">Whether something was seen in it.</param>
public sealed record AcceptedGroup(SessionId Id, DateOnly Day, SlotId Slot, SkillId Skill, IReadOnlyList<ChildId> Children, bool Recorded)
{
    /// <summary>A group has met, and stays as it is, once its day is past or something was seen in it.</summary>
    public bool WasHeld(DateOnly today) => Day < today || Recorded;

    /// <summary>The group as it met: a child who was away has had no turn.</summary>
    public PastGroup Met(Func<ChildId, bool> away) => new(Day, WeekOf(Day), Skill, [.. Children.Where(c => !away(c)).Order()]);

    /// <summary>Number of the week that a day lies in: the same for all days of a week, one more for the next.</summary>
    public static int WeekOf(DateOnly day) => SchoolCalendar.MondayOf(day).DayNumber / 7;
}

/// <summary>A place for a small group on a day.</summary>
public sealed record PlaceInWeek(SlotId Slot, DateOnly Day, TimeOnly Start, int Minutes, AdultId Adult)
{
    /// <summary>Places with a number for the moment they are at: those that overlap in time share it.</summary>
    public static IReadOnlyList<GroupSlot> InMoments(IReadOnlyList<PlaceInWeek> places)
    {
        ArgumentNullException.ThrowIfNull(places);
        var moment = -1;
        (DateOnly Day, TimeOnly End) until = default;
        var moments = new int[places.Count];
        foreach (var (place, i) in places.Select((p, i) => (p, i)).OrderBy(p => p.p.Day).ThenBy(p => p.p.Start))
        {
            var end = place.Start.AddMinutes(place.Minutes);
            var same = until.Day == place.Day && place.Start < until.End;
            moment += same ? 0 : 1;
            until = (place.Day, same && until.End > end ? until.End : end);
            moments[i] = moment;
        }

        return [.. places.Select((p, i) => new GroupSlot(p.Adult.Value, moments[i]) { Day = p.Day })];
    }
}
