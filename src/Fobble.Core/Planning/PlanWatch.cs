using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Planning;

public enum SuggestionKind
{
    /// <summary>Lessons were planned for days on which there is none.</summary>
    LostDays,

    /// <summary>A skill was taught, and few have it.</summary>
    NeedsLonger,

    /// <summary>A skill comes soon, and most have it.</summary>
    AlreadyThere,

    /// <summary>A group of children has what comes soon for the class.</summary>
    FarAhead,
}

/// <summary>Something that evidence or the calendar says about the plan: offered, never done by itself.</summary>
/// <param name="Lessons">How many lessons more (or less, below zero) it asks for.</param>
/// <param name="Days">Days it is about.</param>
/// <param name="Children">Children it is about.</param>
/// <param name="Next">What could be offered to those who are ahead.</param>
public sealed record Suggestion(
    SuggestionKind Kind,
    SkillId? Skill,
    int Lessons,
    IReadOnlyList<DateOnly> Days,
    IReadOnlyList<ChildId> Children,
    SkillId? Next,
    string Sentence
);

/// <summary>Looks at a plan beside what the class has shown.</summary>
public static class PlanWatch
{
    private const double TooFew = 0.4;
    private const double SeenEnough = 0.33;
    private const int TaughtWithin = 15;
    private const int ComesWithin = 20;
    private const int AheadWithin = 10;
    private const int LeastAhead = 3;

    public static IReadOnlyList<Suggestion> Look(PlanSetting setting, ClassEvidence evidence)
    {
        ArgumentNullException.ThrowIfNull(setting);
        ArgumentNullException.ThrowIfNull(evidence);
        return [.. LostDays(setting), .. NeedsLonger(setting, evidence), .. Coming(setting, evidence)];
    }

    /// <summary>Lessons of the plan, past or to come, on days that have no room for them.</summary>
    public static IReadOnlyList<PlanLesson> LessonsWithoutRoom(PlanSetting setting)
    {
        ArgumentNullException.ThrowIfNull(setting);
        return [.. setting.Plan.Lessons.GroupBy(l => l.Day).SelectMany(day => day.OrderBy(l => l.Place).Skip(RoomOn(setting, day.Key)))];
    }

    /// <summary>What was planned for a day and has no room on it any more, since a trip or closure came after the plan; null where all has.</summary>
    public static string? LostOn(PlanSetting setting, DateOnly day)
    {
        ArgumentNullException.ThrowIfNull(setting);
        var lost = LessonsWithoutRoom(setting).Where(l => l.Day == day && setting.Map.Has(l.Skill)).Select(l => setting.Map[l.Skill].InSentence).ToList();
        var since = setting.Timetable.Calendar.Different(day)?.Name is { } name ? $" ({name})" : "";
        return lost.Count == 0 ? null : Phrase($"Planned for this day, and without a place now{since}: {Words.List(lost)}.");
    }

    private static int RoomOn(PlanSetting setting, DateOnly day) => YearScope.DaysOf(setting.Timetable, day, day, setting.Plan.Settings).Sum(d => d.Places);

    private static IEnumerable<Suggestion> LostDays(PlanSetting setting)
    {
        var lost = LessonsWithoutRoom(setting);
        if (lost.Count > 0)
        {
            var days = lost.Select(l => l.Day).Distinct().ToList();
            var names = days.Select(d => setting.Timetable.Calendar.Different(d)?.Name).OfType<string>().Distinct().ToList();
            yield return new(
                SuggestionKind.LostDays,
                null,
                0,
                days,
                [],
                null,
                Phrase(
                    $"{Words.Capital(Words.Count(lost.Count, "lesson", "lessons"))} of the plan {(lost.Count == 1 ? "is" : "are")} on {(days.Count == 1 ? "a day" : "days")} without a lesson{(names.Count == 0 ? "" : $" ({Words.List(names)})")}: {Words.List([.. days.Take(5).Select(Words.Date)])}{(days.Count > 5 ? " …" : "")}."
                )
            );
        }
    }

    private static IEnumerable<Suggestion> NeedsLonger(PlanSetting setting, ClassEvidence evidence)
    {
        var calendar = setting.Timetable.Calendar;
        foreach (var own in setting.Plan.Lessons.GroupBy(l => l.Skill).Where(g => setting.Map.Has(g.Key)))
        {
            var last = own.Max(l => l.Day);
            if (last >= setting.From || calendar.SchoolDaysBetween(last, setting.From) > TaughtWithin)
            {
                continue;
            }

            var seen = evidence.Children.Where(c => evidence.Seen(c, own.Key).Any(o => o.Day >= own.Min(l => l.Day))).ToList();
            var have = seen.Count(c => evidence[c, own.Key].Strength >= Strength.Nearly);
            if (seen.Count >= SeenEnough * evidence.Children.Count && have < TooFew * seen.Count)
            {
                yield return new(
                    SuggestionKind.NeedsLonger,
                    own.Key,
                    1,
                    [],
                    seen,
                    null,
                    Phrase(
                        $"{setting.Map[own.Key].AtStart} was finished on {Words.Date(last)}, and {have} of the {seen.Count} children seen with it have it: one more lesson."
                    )
                );
            }
        }
    }

    private static IEnumerable<Suggestion> Coming(PlanSetting setting, ClassEvidence evidence)
    {
        var calendar = setting.Timetable.Calendar;
        foreach (var own in setting.Plan.Lessons.Where(l => l.Day >= setting.From).GroupBy(l => l.Skill).Where(g => setting.Map.Has(g.Key)))
        {
            var first = own.Min(l => l.Day);
            var away = calendar.SchoolDaysBetween(setting.From, first);
            if (away > ComesWithin)
            {
                continue;
            }

            var have = evidence.Children.Where(c => evidence[c, own.Key].Strength >= Strength.Nearly).ToList();
            var movable = own.Count(l => !l.Pinned);
            if (have.Count >= YearScope.KnownBy * evidence.Children.Count && evidence.Children.Count > 0 && own.Count() > 1 && movable > 0)
            {
                yield return new(
                    SuggestionKind.AlreadyThere,
                    own.Key,
                    -Math.Min(movable, own.Count() - 1),
                    [],
                    have,
                    null,
                    Phrase(
                        $"{setting.Map[own.Key].AtStart} comes on {Words.Date(first)}, and {have.Count} of {evidence.Children.Count} have it already: one lesson, to see who has not, is enough."
                    )
                );
            }
            else if (
                away <= AheadWithin
                && have.Where(c => evidence[c, own.Key].Strength >= Strength.Secure).ToList() is { Count: >= LeastAhead } ahead
                && NextFor(ahead, own.Key, evidence) is { } next
            )
            {
                yield return new(
                    SuggestionKind.FarAhead,
                    own.Key,
                    0,
                    [],
                    ahead,
                    next,
                    Phrase(
                        $"{Words.Capital(Words.Count(ahead.Count, "child is", "children are"))} secure in {setting.Map[own.Key].InSentence} before it comes on {Words.Date(first)}: {setting.Map[next].InSentence} for them, in a small group, while the class works on it."
                    )
                );
            }
        }
    }

    // Of what most of them are ready for, what builds on the skill; else something of the same strand, else what is furthest on.
    private static SkillId? NextFor(List<ChildId> ahead, SkillId skill, ClassEvidence evidence)
    {
        var ready = evidence
            .Map.Skills.Select(s => (s.Id, Count: ahead.Count(c => evidence.IsReady(c, s.Id)), Builds: evidence.Map.AllNeeds(s.Id).Contains(skill)))
            .Where(s => s.Count * 2 > ahead.Count)
            .OrderByDescending(s => s.Builds)
            .ThenByDescending(s => evidence.Map[s.Id].Strand == evidence.Map[skill].Strand)
            .ThenByDescending(s => evidence.Map[s.Id].When)
            .ThenByDescending(s => s.Count)
            .Select(s => (SkillId?)s.Id);
        return ready.FirstOrDefault();
    }
}
