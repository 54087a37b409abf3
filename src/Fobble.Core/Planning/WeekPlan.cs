using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Cupboard;
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

    /// <summary>What the year's plan has for these days; null where there is none. A day without a lesson in it is chosen for as before.</summary>
    public YearPlan? Year { get; init; }

    /// <summary>Lessons that a day has room for; null for one on every school day.</summary>
    public Timetable? Timetable { get; init; }

    /// <summary>What is in the cupboard; null where it is not known.</summary>
    public IReadOnlyList<StockLine>? Stock { get; init; }

    /// <summary>Activities used before the week.</summary>
    public IReadOnlyList<ActivityUse> Uses { get; init; } = [];

    /// <summary>Skills that a small group has worked on, from which choice-time centres are chosen; null where it is not known.</summary>
    public IReadOnlySet<SkillId>? TaughtInGroups { get; init; }

    /// <summary>Activities that a teacher pinned: they stay, as long as the day still has what they are for.</summary>
    public IReadOnlyList<PinnedActivity> Pinned { get; init; } = [];

    /// <summary>A chooser that knows the class, the cupboard and what was used.</summary>
    public ActivityChooser Chooser() => new(Library, Evidence, Approach, Stock, Uses);
}

/// <summary>An activity that keeps its place in a day.</summary>
/// <param name="Skill">What it is for; null for a centre or a change-over.</param>
public sealed record PinnedActivity(DateOnly Day, Place Place, SkillId? Skill, ActivityId Activity);

public enum LessonStage
{
    Introduce,
    Practise,
    Apply,

    /// <summary>Most have it already: to see who has not.</summary>
    Check,
}

/// <summary>The whole-class focus of a day: lesson <see cref="Number"/> of <see cref="Of"/> on the skill.</summary>
/// <param name="Reason">Why this skill.</param>
public sealed record FocusLesson(SkillId Skill, int Number, int Of, LessonStage Stage, ActivityId Activity, string Reason)
{
    /// <summary>Why this activity.</summary>
    public string ActivityReason { get; init; } = "";
}

/// <summary>A short review at the start of the lesson.</summary>
public sealed record Starter(SkillId Skill, ActivityId Activity, string Reason);

/// <param name="Choice">The centre put out at choice time; null while nothing has been taught that one builds on.</param>
public sealed record PlannedDay(DateOnly Day, FocusLesson Focus, IReadOnlyList<Starter> Starters, ActivityId Transition, ActivityId? Choice)
{
    /// <summary>Further whole-class lessons of the day.</summary>
    public IReadOnlyList<FocusLesson> More { get; init; } = [];
}

public sealed record WeekPlan(DateOnly Monday, IReadOnlyList<PlannedDay> Days);
