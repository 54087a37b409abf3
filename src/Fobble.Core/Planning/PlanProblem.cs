using Fobble.Core.Skills;

namespace Fobble.Core.Planning;

/// <summary>A school day that can be planned.</summary>
/// <param name="Places">Whole-class lessons it has room for; 0 on a trip.</param>
/// <param name="Block">The stretch of school days with a buffer of its own that it belongs to, counted from the beginning of the year.</param>
public sealed record PlanDay(DateOnly Day, int Places, int Block);

/// <summary>Focus lessons that one skill still needs.</summary>
/// <param name="Given">Lessons it had before: the first to come is number Given + 1.</param>
/// <param name="Lessons">Lessons to come, at least one.</param>
/// <param name="TargetFirst">Index of the first day of the week for which it is meant.</param>
/// <param name="TargetLast">Index of the last day of that week.</param>
/// <param name="Needs">Skills of the same plan that must be finished before it begins: prerequisites, also through skills that are in place already.</param>
/// <param name="Check">Most have it: one lesson to see who has not.</param>
/// <param name="Why">Why so many lessons, in a sentence; empty where it is what the map says.</param>
public sealed record PlanItem(
    SkillId Skill,
    string Strand,
    int Given,
    int Lessons,
    int TargetFirst,
    int TargetLast,
    IReadOnlyList<SkillId> Needs,
    bool Check,
    string Why
);

/// <summary>A lesson that keeps its place.</summary>
public sealed record Pin(SkillId Skill, int Day);

/// <summary>What is to be laid out on which days.</summary>
public sealed record PlanProblem(IReadOnlyList<PlanDay> Days, IReadOnlyList<PlanItem> Items, PlanSettings Settings)
{
    public IReadOnlyList<Pin> Pins { get; init; } = [];

    public int Needed => Items.Sum(i => i.Lessons);

    /// <summary>Places that may be filled, the buffer left out.</summary>
    public int Room => Days.GroupBy(d => d.Block).Sum(block => Settings.MostIn(block.Sum(d => d.Places)));
}
