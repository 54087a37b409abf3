using Fobble.Core.Skills;

namespace Fobble.Core.Planning;

/// <summary>A focus lesson of a plan.</summary>
/// <param name="Place">Which of the day's whole-class lessons, from 0.</param>
/// <param name="Number">Lesson so many of <paramref name="Of"/> on the skill.</param>
public sealed record PlanLesson(DateOnly Day, int Place, SkillId Skill, int Number, int Of, LessonStage Stage, string Reason)
{
    /// <summary>Keeps its place when the plan is made anew.</summary>
    public bool Pinned { get; init; }

    /// <summary>The teacher's own words on it.</summary>
    public string Note { get; init; } = "";
}

/// <summary>A skill that comes back in a starter.</summary>
/// <param name="Round">1 for the first time, 2 for the second …; 0 where children are due another look.</param>
public sealed record PlanReview(DateOnly Day, SkillId Skill, int Round, string Reason);

/// <summary>A skill that can't come back when it should, and why.</summary>
public sealed record MissedReview(SkillId Skill, int Round, string Why);

/// <summary>The focus lessons and starters of the days to come, as one decision.</summary>
/// <param name="Unplaced">Lessons that found no place, by skill.</param>
/// <param name="Cost">Points against it: days early or late, strands too long in a row, skills stretched (rule R12). Comparable for one problem only.</param>
public sealed record YearPlan(
    PlanSettings Settings,
    IReadOnlyList<PlanLesson> Lessons,
    IReadOnlyList<PlanReview> Reviews,
    IReadOnlyList<MissedReview> Missed,
    IReadOnlyDictionary<string, int> Unplaced,
    int Cost
)
{
    public IEnumerable<PlanLesson> On(DateOnly day) => Lessons.Where(l => l.Day == day).OrderBy(l => l.Place);

    public PlanLesson? Find(SkillId skill, int number) => Lessons.FirstOrDefault(l => l.Skill == skill && l.Number == number);
}
