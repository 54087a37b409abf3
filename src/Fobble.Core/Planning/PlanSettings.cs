using System.Text.Json.Serialization;
using Fobble.Core.Approaches;
using Fobble.Core.Evidence;

namespace Fobble.Core.Planning;

/// <summary>When a skill comes back in a starter: best so many school days after its last focus lesson, at the earliest and latest so many.</summary>
public sealed record ReviewGap(int Best, int Earliest, int Latest);

/// <summary>What a year is planned by (rule R12). Stored with each plan, so that the same plan comes again.</summary>
public sealed record PlanSettings
{
    public static PlanSettings Usual { get; } = new();

    /// <summary>A skill's focus lessons lie within so many school days.</summary>
    public const int Span = 10;

    /// <summary>Points lost for each school day by which a skill begins before the days aimed at.</summary>
    public const int EarlyCost = 1;

    /// <summary>Points lost for each school day by which it begins after them.</summary>
    public const int LateCost = 2;

    /// <summary>Points lost for each change of strand where units are worked through, for each lesson of a run too long where strands take turns.</summary>
    public const int StrandCost = 6;

    /// <summary>Points lost for each school day that lies between the lessons of a skill.</summary>
    public const int StretchCost = 1;

    /// <summary>For each school day that a lesson of a revised plan lies off its old one, where the aims are kept.</summary>
    public const int OffCost = 4;

    /// <summary>In a spiral a strand may have so many lessons in a row before it costs.</summary>
    public const int StrandRun = 3;

    /// <summary>Spiral: strands change often. Unit by unit: they are kept.</summary>
    public YearOrder Order { get; init; }

    /// <summary>One place in so many stays free for what comes in between; 0 for no buffer.</summary>
    public int BufferOneIn { get; init; } = 10;

    /// <summary>The buffer is kept in each stretch of so many school days: two weeks, or as many days as one free place is for.</summary>
    public int BlockDays => Math.Max(10, BufferOneIn);

    /// <summary>How often a skill comes back: widening gaps (Cepeda et al. 2008: best is about a tenth to a fifth of the time it shall be kept).</summary>
    public IReadOnlyList<ReviewGap> Gaps { get; init; } = [new(3, 2, 5), new(10, 8, 14), new(30, 25, 40)];

    /// <summary>Reviews that fit before a whole-class lesson.</summary>
    public int StartersADay { get; init; } = 2;

    /// <summary>Weekdays with one whole-class lesson more than the timetable has.</summary>
    public IReadOnlyList<DayOfWeek> MoreOn { get; init; } = [];

    /// <summary>Skills with three lessons or more get one less.</summary>
    public bool Shorter { get; init; }

    /// <summary>Orders that are begun before the best is improved.</summary>
    public int Tries { get; init; } = 500;

    /// <summary>Steps of improvement; ten times as many make a plan a few hundredths better.</summary>
    public int Steps { get; init; } = 300_000;

    /// <summary>Improvements, each by other chances, of which the best is kept: as many at a time as there are cores.</summary>
    public int Ways { get; init; } = 4;

    /// <summary>The same seed gives the same plan.</summary>
    public ulong Seed { get; init; } = 1;

    /// <summary>How a plan comes about, a paragraph each.</summary>
    public static IReadOnlyList<string> Thought =>
        [
            Phrase(
                "Each skill comes after all that it needs. Among the orders that keep to that, the plan looks for one in which skills come near their season, their lessons lie close together, and strands take turns or are kept, as your class works."
            ),
            Phrase(
                "What most of the class shows already gets one lesson or none; what few are ready for gets one more. Each skill comes back in starters, with growing gaps."
            ),
        ];

    /// <summary>The numbers that a plan is made with.</summary>
    [JsonIgnore]
    public IReadOnlyList<ThoughtNumber> InNumbers =>
        [
            new(Phrase($"{Span} school days"), Phrase("is the longest that the lessons of one skill are spread over")),
            new(Phrase($"{EarlyCost} and {LateCost}"), Phrase("points are lost for each school day that a skill comes before, or after, its time")),
            new($"{StretchCost}", Phrase("point for each school day between the lessons of a skill")),
            new(
                $"{StrandCost}",
                Phrase($"points for each change of strand where units are kept, or for each lesson of a run beyond {StrandRun} where strands take turns")
            ),
            new($"{OffCost}", Phrase("points for each school day that a lesson moves when a plan is revised")),
            new(BufferOneIn == 0 ? Phrase("no place") : Phrase($"one place in {BufferOneIn}"), Phrase("stays free for what comes in between")),
            new(Words.List([.. Gaps.Select(g => $"{g.Best}")]), Phrase("school days after its last lesson a skill comes back")),
            new(Words.Percent(YearScope.KnownBy), Phrase("of the class have it, and a skill gets one lesson, to see who has not")),
            new(Words.Percent(YearScope.SecureWith), Phrase("are secure, and it gets none")),
            new(Words.Percent(YearScope.FewBelow), Phrase("or fewer have it or are ready when it is due, and it gets one more")),
        ];

    /// <summary>How many of these places may be filled.</summary>
    public int MostIn(int places) => BufferOneIn == 0 ? places : places - ((places + (BufferOneIn / 2)) / BufferOneIn);
}
