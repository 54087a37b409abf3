using Fobble.Core.Calendars;
using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>Puts a judgement into a sentence that a teacher understands, from the same clauses that decided it.</summary>
internal static class Explanation
{
    public static string Of(
        Skill skill,
        IReadOnlyList<Observation> observations,
        Mark mark,
        IReadOnlyList<Clause> clauses,
        DateOnly? lastAlone,
        DateOnly? firstSecure,
        SchoolCalendar calendar,
        DateOnly today
    )
    {
        var alone = observations.TakeLast(5).Count(o => o.Counted(skill) == Support.Alone);
        var missing = clauses.Where(c => !c.Holds).Select(c => c.StillToCome).ToList();
        var sentence = mark.Strength switch
        {
            Strength.NotSeen => "Not seen yet.",
            Strength.Tried => "Tried: so far only together with an adult, or not yet.",
            Strength.Prompted => $"With a prompt in the last three; not alone of late.{StillToCome(missing)}",
            Strength.Nearly => $"Nearly: alone {Words.Times(alone)} of the last {Words.Number(Math.Min(5, observations.Count))}.{StillToCome(missing)}",
            Strength.Secure =>
                $"Secure since {Words.Date(firstSecure!.Value)}: alone {Words.Times(alone)} of the last {Words.Number(Math.Min(5, observations.Count))}.",
            _ => $"Kept: secure since {Words.Date(firstSecure!.Value)}, and alone again on {Words.Date(lastAlone!.Value)}.",
        };
        return mark.LookAgain ? $"{sentence} Look again: {LookAgain(mark, lastAlone, calendar, today)}" : sentence;
    }

    private static string StillToCome(List<string> missing) => missing.Count == 0 ? "" : $" For secure: {string.Join("; ", missing)}.";

    /// <summary>Why a mark is in doubt, without the rest.</summary>
    public static string LookAgain(Mark mark, DateOnly? lastAlone, SchoolCalendar calendar, DateOnly today)
    {
        var days = lastAlone is { } last ? calendar.SchoolDaysBetween(last, today) : 0;
        return days > 0
            ? $"last alone {Words.Count(days, "school day", "school days")} ago."
            : $"the latest results leave it in doubt (belief {Words.Percent(mark.Belief)}).";
    }
}
