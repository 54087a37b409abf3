using System.Globalization;
using Fobble.Core.Numbers;

namespace Fobble.Core;

/// <summary>Numbers and plurals inside sentences.</summary>
public static class Words
{
    /// <summary>In words up to twelve, as in print.</summary>
    public static string Number(int number) => number is >= 0 and <= 12 ? NumberWords.Of(number) : $"{number}";

    /// <summary>From one number to another: both in words, or neither; one where they are the same.</summary>
    public static string Between(int low, int high) =>
        low == high ? Number(low)
        : high <= 12 ? Phrase($"{Number(low)} to {Number(high)}")
        : Phrase($"{low} to {high}");

    public static string Count(int number, string one, string many) => Phrase($"{Number(number)} {(number == 1 ? one : many)}");

    public static string More(int number, string one, string many) =>
        number == 1 ? Phrase($"one more {one}") : Phrase($"{Number(Math.Max(0, number))} more {many}");

    /// <summary>Day and month, in the order of the school's country.</summary>
    public static string Date(DateOnly day) =>
        Spoken is { } culture ? day.ToString(culture.DateTimeFormat.MonthDayPattern, culture) : day.ToString("d MMMM", CultureInfo.InvariantCulture);

    public static string NameOf(DayOfWeek day) => (Spoken ?? CultureInfo.InvariantCulture).DateTimeFormat.GetDayName(day);

    public static string Weekday(DateOnly day) => day.ToString("dddd", Spoken ?? CultureInfo.InvariantCulture);

    /// <summary>A time by the clock of the school's country: 13:15, or 1:15 PM.</summary>
    public static string Clock(TimeOnly time)
    {
        var culture = Spoken ?? CultureInfo.InvariantCulture;
        var byHalves = Spoken is not null && culture.DateTimeFormat.ShortTimePattern.Contains('h', StringComparison.Ordinal);
        return time.ToString(byHalves ? "h:mm\u00A0tt" : "H:mm", culture);
    }

    private static CultureInfo? Spoken => CultureInfo.CurrentUICulture.Name.Length == 0 ? null : CultureInfo.CurrentUICulture;

    /// <summary>Of a share from 0 to 1.</summary>
    public static string Percent(double share) => $"{Math.Round(share * 100)} %";

    public static string Times(int number) =>
        number switch
        {
            1 => Phrase("once"),
            2 => Phrase("twice"),
            _ => Phrase($"{Number(number)} times"),
        };

    public static string Capital(string text) => text.Length == 0 ? text : char.ToUpperInvariant(text[0]) + text[1..];

    /// <summary>With a full stop at its end, and no second one after an initial.</summary>
    public static string Stopped(string text) => text.EndsWith('.') ? text : text + ".";

    /// <summary>Joins as in speech: a, b and c.</summary>
    public static string List(IReadOnlyList<string> items) =>
        items.Count <= 1 ? string.Concat(items) : Phrase($"{string.Join(", ", items.Take(items.Count - 1))} and {items[^1]}");
}
