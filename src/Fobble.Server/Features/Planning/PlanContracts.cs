using Fobble.Core.Calendars;
using Fobble.Core.Planning;
using Fobble.Server.Hosting;

namespace Fobble.Server.Features.Planning;

/// <param name="How">What kind of lesson it is, in words.</param>
/// <param name="Past">Can't be moved any more.</param>
/// <param name="Given">Past, and its day had a lesson.</param>
public sealed record LessonView(
    string Skill,
    string Short,
    string Strand,
    int Number,
    int Of,
    LessonStage Stage,
    string How,
    DateOnly Day,
    int Place,
    string Reason,
    bool Pinned,
    string Note,
    bool Past,
    bool Given
);

public sealed record ReviewView(string Skill, string Short, string Strand, DateOnly Day, int Round, string Reason);

/// <param name="Places">Whole-class lessons it has room for.</param>
/// <param name="Different">What is different about it: a closure, a trip, a half day.</param>
public sealed record PlanDayView(DateOnly Day, bool School, int Places, string? Different);

public sealed record PlanWeek(DateOnly Monday, string? Term, IReadOnlyList<PlanDayView> Days);

public sealed record PlanStrand(string Id, string Name);

public sealed record SuggestionView(
    SuggestionKind Kind,
    string? Skill,
    string? Short,
    int Lessons,
    IReadOnlyList<DateOnly> Days,
    IReadOnlyList<string> Children,
    string? Next,
    string Sentence
);

public sealed record PlanVersion(int Version, DateTimeOffset At, string By, string What);

/// <summary>The year as it was taught and is planned.</summary>
/// <param name="Version">Null where there is no plan yet: only what was taught is there.</param>
/// <param name="From">First day that may be changed.</param>
/// <param name="Margin">How the lessons to come stand to the places left, in a sentence.</param>
public sealed record PlanView(
    PlanVersion? Version,
    bool CanUndo,
    DateOnly Today,
    DateOnly From,
    IReadOnlyList<PlanWeek> Weeks,
    IReadOnlyList<PlanStrand> Strands,
    IReadOnlyList<LessonView> Lessons,
    IReadOnlyList<ReviewView> Reviews,
    IReadOnlyList<string> Missed,
    string Margin,
    IReadOnlyList<SuggestionView> Suggestions,
    IReadOnlyList<PlanVersion> Versions
);

/// <param name="Needs">All that it builds on, by id.</param>
public sealed record ScopeSkill(string Id, string Short, string Strand, Season When, int Lessons, int Usual, string Why, IReadOnlyList<string> Needs);

public sealed record ScopeSeason(Season Season, int Skills, int Lessons);

public sealed record ScopeFramework(string Name, int Skills, int Lessons);

public sealed record EarlierPlan(int Id, string Class, DateOnly Year, int Skills);

/// <summary>What can be asked for, with what this class needs of it from today on.</summary>
/// <param name="Usual">What is asked for to begin with: as before or as is usual, as far as the days hold.</param>
/// <param name="Offered">That, in a sentence; null where it is all as before.</param>
public sealed record ScopeChoices(
    PlanAsk Usual,
    string? Offered,
    DateOnly From,
    DateOnly Until,
    int TeachingDays,
    IReadOnlyList<PlanStrand> Strands,
    IReadOnlyList<ScopeSeason> Seasons,
    IReadOnlyList<ScopeFramework> Frameworks,
    IReadOnlyList<EarlierPlan> Plans,
    IReadOnlyList<ScopeSkill> Skills
);

public sealed record FitView(int Lessons, int Room, int Buffer, int Over, int ReviewsOver, string Sentence);

/// <param name="Ask">What to ask for to take it.</param>
public sealed record WayOutView(string Kind, string Title, string Loses, string Gains, bool Fits, IReadOnlyList<string> Dropped, PlanAsk Ask);

public sealed record DraftPlan(IReadOnlyList<LessonView> Lessons, IReadOnlyList<string> Missed, IReadOnlyList<string> Unplaced, string Sentence);

/// <summary>A plan in the making.</summary>
/// <param name="Progress">Share that is done.</param>
/// <param name="Ways">Where it does not fit: what can be done, each worked through.</param>
/// <param name="LeftOut">Skills that need no lesson, and why.</param>
/// <param name="Version">Of the plan it would take the place of; 0 for none.</param>
/// <param name="Changed">Skills that get more or fewer lessons than usual, and why.</param>
public sealed record DraftView(
    Guid Id,
    JobState State,
    double Progress,
    string Doing,
    PlanAsk Ask,
    FitView? Fit,
    IReadOnlyList<WayOutView> Ways,
    DraftPlan? Plan,
    IReadOnlyList<string> LeftOut,
    IReadOnlyList<string> Changed,
    int Version
);

/// <param name="Version">Of the plan that is to give way; 0 for none.</param>
public sealed record AcceptDraft(int Version);

public sealed record LessonRef(string Skill, int Number);

public sealed record DayPriceView(DateOnly Day, string? Refused, IReadOnlyList<string> Advice, string? With);

/// <param name="Version">Of the plan that was looked at: refused with 409 if another took its place.</param>
/// <param name="Anyway">Overrules advice.</param>
public sealed record MoveLesson(int Version, string Skill, int Number, DateOnly Day, bool Anyway);

/// <param name="Version">Of the plan that was looked at.</param>
/// <param name="Pinned">Null leaves it as it is: what somebody else has changed meanwhile is not undone by the way.</param>
/// <param name="Note">Null leaves it as it is.</param>
public sealed record ChangeLesson(int Version, string Skill, int Number, bool? Pinned, string? Note);

/// <param name="Version">Of the plan that was looked at: it is what is undone.</param>
public sealed record UndoPlan(int Version);

public sealed record MoreLessons(string Skill, int Lessons);

/// <summary>What happened, and how the plan shall be revised.</summary>
/// <param name="LostDays">Days without a lesson, past or to come.</param>
/// <param name="Why">What the days were lost to.</param>
/// <param name="Changes">Skills that need more lessons, or fewer (below zero).</param>
/// <param name="Held">Lessons that stay where they are.</param>
public sealed record RevisePlan(
    IReadOnlyList<DateOnly> LostDays,
    string Why,
    IReadOnlyList<MoreLessons> Changes,
    IReadOnlyList<LessonRef> Held,
    RevisionAim Aim
);

public sealed record MoveView(string Skill, string Short, string Strand, int Number, DateOnly? Was, DateOnly? Is, string Why);

/// <param name="Version">The plan it revises: accepting it is refused if another took its place.</param>
public sealed record RevisionView(
    int Version,
    string Sentence,
    bool ProvenFewest,
    IReadOnlyList<MoveView> Moves,
    IReadOnlyList<LessonView> Before,
    IReadOnlyList<LessonView> After,
    IReadOnlyList<string> Room
);

public sealed record AcceptRevision(int Version, RevisePlan Revision);
