using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.MadeUpClass;
using Fobble.Core.Skills;

namespace Fobble.Bench;

/// <summary>Made-up classes of thirty, two places for groups a day, to measure grouping by.</summary>
internal static class MadeUpTerm
{
    public const int GroupsADay = 2;
    private static readonly SkillMap Map = SkillMapLoader.Shipped();
    private static readonly ActivityLibrary Library = ActivityLoader.Shipped(Map);
    private static readonly DateOnly Monday = new(2026, 9, 7);
    private static readonly SchoolCalendar Calendar = new([new("Autumn", Season.Autumn, Monday, new(2027, 7, 16))], []);
    private static readonly ChildId[] Children = [.. Enumerable.Range(1, 30).Select(i => new ChildId(i))];

    /// <summary>A class after so many weeks: its history, what is known of it, and what groups for the next week start from.</summary>
    public static (History History, ClassEvidence Evidence, GroupingBrief Next) Play(
        ulong seed,
        int weeks,
        Func<WeekToGroup, IReadOnlyList<PastGroup>>? groups = null,
        MadeUpWorld? world = null,
        DayOfWeek? anewOn = null
    )
    {
        var now = new DateTimeOffset(Monday.AddDays((7 * (weeks - 1)) + 4).ToDateTime(new(16, 0)), TimeSpan.Zero);
        var history = MadeUpHistory.Play(
            new(Map, Library, Calendar, Children, Monday, now, GroupsADay, seed)
            {
                Groups = groups,
                World = world ?? MadeUpWorld.Usual,
                AnewOn = anewOn,
            }
        );
        var evidence = new ClassEvidence(Map, Calendar, EvidenceSettings.Default, Children, history.Observations, DateOnly.FromDateTime(now.DateTime));
        var past = history.Weeks.SelectMany(w => w.Groups).ToList();
        return (
            history,
            evidence,
            new(
                evidence,
                Monday.AddDays(7 * weeks),
                [history.Weeks[^1].Plan.Days[0].Focus.Skill],
                past,
                new Dictionary<ChildId, IReadOnlySet<int>>(),
                new HashSet<ChildId>()
            )
        );
    }
}
