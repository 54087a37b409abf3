using System.Globalization;
using Fobble.Core.Numbers;

namespace Fobble.Core;

/// <summary>Numbers and plurals inside sentences.</summary>
public static class Words
{
    /// <summary>In words up to twelve, as in print.</summary>
    public static string Number(int number) => number is >= 0 and <= 12 ? NumberWords.Of(number) : $"{number}";

    public static string Count(int number, string one, string many) => $"{Number(number)} {(number == 1 ? one : many)}";

    public static string More(int number, string one, string many) => number == 1 ? $"one more {one}" : $"{Number(Math.Max(0, number))} more {many}";

    public static string Date(DateOnly day) => day.ToString("d MMMM", CultureInfo.InvariantCulture);

    public static string Weekday(DateOnly day) => day.ToString("dddd", CultureInfo.InvariantCulture);

    /// <summary>Of a share from 0 to 1.</summary>
    public static string Percent(double share) => $"{Math.Round(share * 100)} %";

    public static string Times(int number) =>
        number switch
        {
            1 => "once",
            2 => "twice",
            _ => $"{Number(number)} times",
        };

    public static string Capital(string text) => text.Length == 0 ? text : char.ToUpperInvariant(text[0]) + text[1..];

    /// <summary>With a full stop at its end, and no second one after an initial.</summary>
    public static string Stopped(string text) => text.EndsWith('.') ? text : text + ".";

    /// <summary>Joins as in speech: a, b and c.</summary>
    public static string List(IReadOnlyList<string> items) =>
        items.Count <= 1 ? string.Concat(items) : $"{string.Join(", ", items.Take(items.Count - 1))} and {items[^1]}";
}
