using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Planning;

/// <summary>A made-up class with the shipped map in a year of three terms, for tests of its plan.</summary>
internal static class PlanWorld
{
    public static readonly DateOnly Begins = new(2026, 9, 7);
    public static readonly DateOnly Ends = new(2027, 7, 16);
    public static readonly ActivityLibrary Library = ActivityLoader.Shipped(Map);
    public static readonly IReadOnlyList<ChildId> Ten = [.. Enumerable.Range(1, 10).Select(i => new ChildId(i))];

    public static readonly IReadOnlyList<LessonSlot> EveryMorning =
    [
        .. Enumerable
            .Range(1, 5)
            .SelectMany(d =>
                new LessonSlot[]
                {
                    new(d, SlotKind.Carpet, (DayOfWeek)d, new(9, 15), 20, "Ines", "Carpet"),
                    new(10 + d, SlotKind.Group, (DayOfWeek)d, new(13, 0), 15, "Tomasz", "Table"),
                }
            ),
    ];

    public static SchoolCalendar Year(params Closure[] closures) =>
        new(
            [
                new("Autumn", Season.Autumn, Begins, new(2026, 12, 18)),
                new("Spring", Season.Spring, new(2027, 1, 5), new(2027, 3, 26)),
                new("Summer", Season.Summer, new(2027, 4, 12), Ends),
            ],
            closures
        );

    public static Timetable Timetable(params Closure[] closures) => new(Year(closures), EveryMorning);

    public static ClassEvidence Class(SchoolCalendar calendar, IEnumerable<Observation>? seen = null, DateOnly? today = null) =>
        new(Map, calendar, EvidenceSettings.Default, Ten, seen ?? [], today ?? Begins);

    public static YearRequest Request(
        IReadOnlySet<SkillId>? skills = null,
        IEnumerable<Observation>? seen = null,
        Timetable? timetable = null,
        DateOnly? from = null
    ) =>
        new(
            Class((timetable ?? Timetable()).Calendar, seen, from),
            timetable ?? Timetable(),
            from ?? Begins,
            Ends,
            [],
            skills ?? UpTo(Season.Autumn),
            Approach.Usual,
            PlanSettings.Usual with
            {
                Tries = 60,
                Steps = 6_000,
            }
        )
        {
            Served = Library.ServedIn(Place.Carpet),
        };

    public static HashSet<SkillId> UpTo(Season season) => Map.Skills.Where(s => s.When <= season).Select(s => s.Id).ToHashSet();

    /// <summary>Every child did it alone on two days, in all its ways: three fifths of the class secure or nearly, if so many are asked for.</summary>
    public static IEnumerable<Observation> AllShow(SkillId skill, int children = 10, int firstDay = 0) =>
        Ten.Take(children)
            .SelectMany(c =>
                Enumerable
                    .Range(0, 4)
                    .Select(i => Saw(firstDay + i, Support.Alone, Map[skill].ShownIn[i % Map[skill].ShownIn.Count], skill: Map[skill], child: c.Value))
            );
}
