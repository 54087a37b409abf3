using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Planning;

/// <summary>A focus lesson that was given.</summary>
public sealed record TaughtLesson(DateOnly Day, SkillId Skill);

/// <summary>What a week is planned from.</summary>
/// <param name="Evidence">The class as it stands on the day of planning.</param>
/// <param name="Monday">First day of the week to plan.</param>
/// <param name="Taught">Focus lessons before the first day that is planned, in order of time.</param>
public sealed record WeekRequest(ClassEvidence Evidence, DateOnly Monday, IReadOnlyList<TaughtLesson> Taught, ActivityLibrary Library)
{
    /// <summary>First day to plan; later than Monday when the week has begun.</summary>
    public DateOnly From { get; init; } = Monday;

    /// <summary>How the class works: the order of the year, the size of numbers and when signs come in weigh on the choice of a focus.</summary>
    public Approach Approach { get; init; } = Approach.Usual;
}

public enum LessonStage
{
    Introduce,
    Practise,
    Apply,

    /// <summary>Most have it already: to see who has not.</summary>
    Check,
}

/// <summary>The whole-class focus of a day: lesson <see cref="Number"/> of <see cref="Of"/> on the skill.</summary>
public sealed record FocusLesson(SkillId Skill, int Number, int Of, LessonStage Stage, ActivityId Activity, string Reason);

/// <summary>A short review at the start of the lesson.</summary>
public sealed record Starter(SkillId Skill, ActivityId Activity, string Reason);

/// <param name="Choice">The centre put out at choice time; null while nothing has been taught that one builds on.</param>
public sealed record PlannedDay(DateOnly Day, FocusLesson Focus, IReadOnlyList<Starter> Starters, ActivityId Transition, ActivityId? Choice);

public sealed record WeekPlan(DateOnly Monday, IReadOnlyList<PlannedDay> Days);
