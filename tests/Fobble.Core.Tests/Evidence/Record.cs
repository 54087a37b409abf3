using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Tests.Evidence;

/// <summary>Short ways to write down what was seen, for tests.</summary>
internal static class Record
{
    public static readonly SkillMap Map = SkillMapLoader.Shipped();
    public static readonly DateOnly Monday = new(2026, 9, 7);
    public static readonly SchoolCalendar Calendar = new([new("Autumn", Season.Autumn, Monday, new(2027, 7, 16))], []);
    public static readonly Skill TwoWays = Map[new("see.spaces")];
    public static readonly Skill OneWay = Map[new("count.say-5")];

    public static DateOnly SchoolDay(int number) => Monday.AddDays((number / 5 * 7) + (number % 5));

    public static Observation Saw(
        int day,
        Support support,
        Representation shown = Representation.Objects,
        Setting setting = Setting.Group,
        Skill? skill = null,
        int child = 1,
        string? strategy = null,
        string? slip = null,
        string? numbers = null
    ) =>
        new(
            new(child),
            (skill ?? TwoWays).Id,
            new DateTimeOffset(SchoolDay(day).ToDateTime(new(10, 0)), TimeSpan.Zero),
            SchoolDay(day),
            setting,
            support,
            shown,
            numbers,
            slip,
            strategy
        );

    public static Judgement Judged(int today, params Observation[] seen) => Judged(EvidenceSettings.Default, today, seen);

    public static Judgement Judged(EvidenceSettings settings, int today, params Observation[] seen) =>
        EvidenceOf(settings, today, seen).Judgement(new(1), seen.Length > 0 ? seen[0].Skill : TwoWays.Id);

    /// <summary>Of one child, unless what was seen is of others.</summary>
    public static ClassEvidence EvidenceOf(EvidenceSettings settings, int today, params Observation[] seen) =>
        new(Map, Calendar, settings, [.. seen.Select(o => o.Child).Append(new(1)).Distinct()], seen, SchoolDay(today));
}
