namespace Fobble.Core.Calendars;

/// <summary>Days that a school can mean. Anything else is a slip of the hand, and arithmetic on it would leave the calendar.</summary>
public static class OurTime
{
    public static readonly DateOnly First = new(2000, 1, 1);
    public static readonly DateOnly Last = new(2100, 12, 31);

    public static bool Holds(DateOnly day) => First <= day && day <= Last;

    /// <summary>Why a day is none of these.</summary>
    public static string Reason(DateOnly day) =>
        string.Create(System.Globalization.CultureInfo.InvariantCulture, $"{Phrase("The year has to lie between 2000 and 2100")}: {day:yyyy-MM-dd}.");
}
