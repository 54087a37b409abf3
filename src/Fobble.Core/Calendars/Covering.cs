namespace Fobble.Core.Calendars;

/// <summary>The days on which somebody covers a class, first and last among them. On any other day they have nothing to do with it.</summary>
public static class Covering
{
    public const int LongestDays = 366;

    /// <exception cref="RefusedException">They are missing, in the wrong order, over already, or too many.</exception>
    public static void Check(DateOnly? from, DateOnly? until, DateOnly today)
    {
        RefusedException.Unless(from is not null, "from", Phrase("Say on which day it begins."));
        RefusedException.Unless(until is not null, "until", Phrase("Say on which day it ends."));
        foreach (var (field, day) in new[] { ("from", from!.Value), ("until", until!.Value) })
        {
            RefusedException.Unless(OurTime.Holds(day), field, OurTime.Reason(day));
        }

        RefusedException.Unless(from <= until, "until", Phrase("It ends before it begins."));
        RefusedException.Unless(until >= today, "until", Phrase("This day is over already."));
        RefusedException.Unless(
            until.Value.DayNumber - from.Value.DayNumber < LongestDays,
            "until",
            Phrase("Cover is for a year at the most: whoever stays longer belongs to the class.")
        );
    }

    /// <summary>Whether a membership counts on a day; one without days always does.</summary>
    public static bool Counts(DateOnly? from, DateOnly? until, DateOnly day) => (from is null || from <= day) && (until is null || day <= until);
}
