using System.Globalization;
using Fobble.Core.Calendars;
using Fobble.Core.Numbers;
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

/// <summary>Numbers and plurals inside sentences.</summary>
public static class Words
{
    public static string Number(int number) => number is >= 0 and <= 12 ? NumberWords.Of(number) : $"{number}";

    public static string Count(int number, string one, string many) => $"{Number(number)} {(number == 1 ? one : many)}";

    public static string More(int number, string one, string many) => number == 1 ? $"one more {one}" : $"{Number(Math.Max(0, number))} more {many}";

    public static string Date(DateOnly day) => day.ToString("d MMMM", CultureInfo.InvariantCulture);

    public static string Weekday(DateOnly day) => day.ToString("dddd", CultureInfo.InvariantCulture);

    public static string Percent(double share) => $"{Math.Round(share * 100)} %";

    public static string Times(int number) =>
        number switch
        {
            1 => "once",
            2 => "twice",
            _ => $"{Number(number)} times",
        };

    /// <summary>The representation the child has not shown alone yet.</summary>
    public static string NextWay(Skill skill, IReadOnlyList<Observation> observations)
    {
        var shown = observations.Where(o => o.Counted(skill) == Support.Alone).Select(o => o.Representation).ToHashSet();
        var next = skill.ShownIn.FirstOrDefault(r => !shown.Contains(r), skill.ShownIn[^1]);
        return Of(next);
    }

    public static string Of(Representation representation) =>
        representation switch
        {
            Representation.Objects => "with objects",
            Representation.Fingers => "on fingers",
            Representation.Picture => "with a drawing",
            Representation.Spoken => "in words",
            _ => "with numerals",
        };

    public static string Of(Support support) =>
        support switch
        {
            Support.Alone => "alone",
            Support.Prompted => "with a prompt",
            Support.Together => "together",
            _ => "not yet",
        };

    public static string Capital(string text) => text.Length == 0 ? text : char.ToUpperInvariant(text[0]) + text[1..];

    /// <summary>With a full stop at its end, and no second one after an initial.</summary>
    public static string Stopped(string text) => text.EndsWith('.') ? text : text + ".";

    /// <summary>Joins as in speech: a, b and c.</summary>
    public static string List(IReadOnlyList<string> items) =>
        items.Count <= 1 ? string.Concat(items) : $"{string.Join(", ", items.Take(items.Count - 1))} and {items[^1]}";
}
