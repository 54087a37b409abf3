using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.Skills;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Grouping;

/// <summary>A class of which little is known yet: every child is ready for what needs nothing before it.</summary>
internal static class ClassOf
{
    public static readonly SkillId Say = new("count.say-5");
    public static readonly SkillId See = new("see.to-3");

    public static GroupingBrief Brief(int children, params Observation[] seen) =>
        new(
            new ClassEvidence(Map, Calendar, EvidenceSettings.Default, [.. Enumerable.Range(1, children).Select(i => new ChildId(i))], seen, SchoolDay(31)),
            SchoolDay(30),
            [],
            [],
            new Dictionary<ChildId, IReadOnlySet<int>>(),
            new HashSet<ChildId>()
        );

    public static FormedGroup Group(SkillId skill, int slot, params int[] children) => new(skill, slot, [.. children.Select(c => new ChildId(c))]);

    public static PastGroup Met(int day, SkillId skill, params int[] children) =>
        new(SchoolDay(day), day / 5, skill, [.. children.Select(c => new ChildId(c))]);

    public static GroupNames Told { get; } = Names.Plain with { Skill = s => Map[s].InSentence };
}
