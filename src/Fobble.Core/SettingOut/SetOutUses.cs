using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Planning;
using Fobble.Core.Sessions;
using Fobble.Core.Skills;

namespace Fobble.Core.SettingOut;

/// <summary>An activity on a skill, as a day has it.</summary>
public sealed record DayActivity(SkillId Skill, Activity Activity);

/// <summary>What is done on a planned day.</summary>
/// <param name="Lessons">Whole-class lessons, in order.</param>
/// <param name="Away">How many children are away.</param>
public sealed record DayToSetOut(
    DateOnly Day,
    IReadOnlyList<DayActivity> Starters,
    IReadOnlyList<DayActivity> Lessons,
    Activity Transition,
    Activity? Choice,
    int Away
);

/// <summary>A small group that meets.</summary>
/// <param name="There">Names of those who are there.</param>
public sealed record GroupToSetOut(DateOnly Day, TimeOnly Start, int Minutes, string Where, DayActivity Work, IReadOnlyList<string> There);

/// <summary>Where things have to be on which days, for how many.</summary>
public static class SetOutUses
{
    /// <summary>So many work at a centre at a time (common practice).</summary>
    private const int AtACentre = 4;

    /// <param name="children">How many the class has.</param>
    public static IReadOnlyList<Use> Of(
        IReadOnlyList<DayToSetOut> days,
        IReadOnlyList<GroupToSetOut> groups,
        int children,
        Timetable timetable,
        ClassEvidence evidence
    )
    {
        ArgumentNullException.ThrowIfNull(days);
        ArgumentNullException.ThrowIfNull(timetable);
        return
        [
            .. days.SelectMany(d => OfDay(d, children, timetable, evidence)),
            .. groups.Select(g => new Use(
                g.Day,
                g.Start,
                g.Minutes,
                g.Where,
                Phrase("Small group"),
                g.Work.Activity,
                SettingOf(g.Work.Activity, g.Work.Skill, evidence),
                Math.Max(1, g.There.Count),
                1,
                g.There,
                true
            )),
        ];
    }

    private static IEnumerable<Use> OfDay(DayToSetOut day, int children, Timetable timetable, ClassEvidence evidence)
    {
        var slots = timetable.On(day.Day);
        var carpets = slots.Where(s => s.Kind == SlotKind.Carpet).ToList();
        var first = Carpet(0);
        foreach (var starter in day.Starters)
        {
            yield return new(
                day.Day,
                first.Start,
                StarterPlanner.MinutesOf(starter.Activity),
                first.Where,
                Phrase("Starter"),
                starter.Activity,
                SettingOf(starter.Activity, starter.Skill, evidence),
                AtOnce(starter.Activity),
                1,
                [],
                false
            );
        }

        foreach (var (lesson, i) in day.Lessons.Select((l, i) => (l, i)))
        {
            var (start, minutes, where) = Carpet(i);
            yield return new(
                day.Day,
                start,
                minutes,
                where,
                Phrase("Carpet"),
                lesson.Activity,
                SettingOf(lesson.Activity, lesson.Skill, evidence),
                AtOnce(lesson.Activity),
                1,
                [],
                true
            );
        }

        if (day.Choice is { } choice && slots.FirstOrDefault(s => s.Kind == SlotKind.Choice) is { } centres)
        {
            yield return new(
                day.Day,
                centres.Start,
                centres.Minutes,
                centres.Where,
                Phrase("Choice time"),
                choice,
                SettingOf(choice, null, evidence),
                Math.Min(AtACentre, choice.GroupSize.High),
                1,
                [],
                false
            );
        }

        yield return new(
            day.Day,
            first.Start.AddMinutes(first.Minutes),
            day.Transition.Minutes,
            first.Where,
            Phrase("Change-over"),
            day.Transition,
            SettingOf(day.Transition, null, evidence),
            AtOnce(day.Transition),
            1,
            [],
            false
        );

        // A lesson for which the timetable has no place is held when and where the first is.
        (TimeOnly Start, int Minutes, string Where) Carpet(int lesson) =>
            lesson < carpets.Count ? (carpets[lesson].Start, carpets[lesson].Minutes, carpets[lesson].Where)
            : carpets.Count > 0 ? (carpets[0].Start, UsualWeek.CarpetMinutes, carpets[0].Where)
            : (UsualWeek.CarpetStart, UsualWeek.CarpetMinutes, UsualWeek.CarpetWhere);

        // On the carpet as many work with the things as the activity is made for; the others watch and take their turn.
        int AtOnce(Activity activity) => Math.Min(children - day.Away, activity.GroupSize.High);
    }

    private static ActivitySkill SettingOf(Activity activity, SkillId? skill, ClassEvidence evidence) =>
        (skill is { } id ? activity.For(id) : null) ?? activity.MetBy(evidence);
}
