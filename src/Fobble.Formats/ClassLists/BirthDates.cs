using System.Globalization;

namespace Fobble.Formats.ClassLists;

/// <summary>Reads a column of dates. Whether the day or the month comes first is decided once, by the column as a whole.</summary>
internal sealed record BirthDates(bool MonthFirst, string? Note)
{
    private static readonly char[] Marks = ['/', '.', '-', ' '];

    public static BirthDates For(IEnumerable<string> column)
    {
        var parts = column.Select(c => c.Split(Marks)).Where(p => p.Length == 3 && p[0].Length <= 2 && p[2].Length == 4).ToList();
        bool Over12(int place) => parts.Any(p => int.TryParse(p[place], out var n) && n > 12);
        return (parts.Count > 0, Over12(0), Over12(1)) switch
        {
            (false, _, _) => new(false, null),
            (_, true, _) => new(false, null),
            (_, false, true) => new(true, Phrase("Dates were read with the month first.")),
            _ => new(false, Phrase("Dates could be read both ways and were read with the day first. Check one of them.")),
        };
    }

    public DateOnly? Read(string text)
    {
        string[] formats = MonthFirst
            ? ["yyyy-M-d", "M/d/yyyy", "M.d.yyyy", "M-d-yyyy", "M d yyyy"]
            : ["yyyy-M-d", "yyyy/M/d", "d/M/yyyy", "d.M.yyyy", "d-M-yyyy", "d M yyyy", "d MMM yyyy", "d MMMM yyyy"];
        return DateOnly.TryParseExact(text, formats, CultureInfo.InvariantCulture, DateTimeStyles.None, out var day) ? day : null;
    }
}
