using System.Globalization;
using System.Text;
using Fobble.Core.Calendars;
using Fobble.Formats.Csv;
using Ical.Net.DataTypes;

namespace Fobble.Formats.Calendars;

/// <summary>Closures read from a file, with all that stands in the way of taking them.</summary>
public sealed record ClosureReading(IReadOnlyList<Closure> Closures, IReadOnlyList<FileFault> Faults, IReadOnlyList<string> Notes);

/// <summary>Reads days without school from an iCalendar file (RFC 5545) or from CSV.</summary>
public static class ClosureFiles
{
    public const int LongestName = 80;
    public const int MostClosures = 300;

    /// <summary>Reads either; which one is seen from the file's first line.</summary>
    /// <param name="from">First day that matters: what is over before it is left out, and said.</param>
    /// <param name="until">Last day that matters; repeating events are followed up to it.</param>
    public static ClosureReading Read(byte[] file, DateOnly from, DateOnly until)
    {
        ArgumentNullException.ThrowIfNull(file);
        var start = Encoding.UTF8.GetString(file, 0, Math.Min(file.Length, 200)).TrimStart('\uFEFF', ' ', '\r', '\n');
        var reading = start.StartsWith("BEGIN:VCALENDAR", StringComparison.OrdinalIgnoreCase)
            ? ReadCalendar(Encoding.UTF8.GetString(file), from, until)
            : ReadCsv(file);
        var inside = reading.Closures.Where(c => c.Last >= from && c.First <= until).DistinctBy(c => (c.Name, c.First, c.Last)).OrderBy(c => c.First).ToList();
        var outside = reading.Closures.Count - inside.Count;
        List<FileFault> faults = [.. reading.Faults];
        if (reading.Closures.Count == 0 && faults.Count == 0)
        {
            faults.Add(new(1, null, Phrase("The file holds no days.")));
        }

        if (inside.Count > MostClosures)
        {
            faults.Add(new(1, null, Phrase($"The file holds {inside.Count} entries; {MostClosures} are the most that can be taken at once.")));
        }

        return new(
            inside,
            faults,
            [.. reading.Notes, .. outside > 0 ? [Phrase($"{outside} outside the school’s terms, or twice in the file, left out.")] : Array.Empty<string>()]
        );
    }

    // All-day events end on the day after (RFC 5545, 3.6.1). An event with a time of day closes nothing, but a trip may well be written so.
    private static ClosureReading ReadCalendar(string text, DateOnly from, DateOnly until)
    {
        List<Closure> closures = [];
        List<FileFault> faults = [];
        Ical.Net.Calendar calendar;
        try
        {
            calendar = Ical.Net.Calendar.Load(text) ?? throw new InvalidDataException("nothing in it");
        }
#pragma warning disable CA1031 // The reader throws many kinds; whichever it is, the file can't be read.
        catch (Exception fault)
#pragma warning restore CA1031
        {
            return new([], [new(1, null, Phrase($"This is no calendar file that can be read: {fault.Message}"))], []);
        }

        var timed = 0;
        foreach (var entry in calendar.Events)
        {
            var name = (entry.Summary ?? "").Trim();
            if (string.Equals(entry.Status, "CANCELLED", StringComparison.OrdinalIgnoreCase))
            {
                continue;
            }

            if (entry.Start is null || name.Length == 0)
            {
                faults.Add(new(1, null, Phrase($"An entry has no {(name.Length == 0 ? "name" : "day")}{(name.Length == 0 ? "" : $": “{Short(name)}”")}.")));
                continue;
            }

            timed += entry.IsAllDay ? 0 : 1;
            foreach (var occurrence in entry.GetOccurrences(new CalDateTime(from.AddDays(-60))).TakeWhile(o => Day(o.Period.StartTime) <= until).Take(400))
            {
                var first = Day(occurrence.Period.StartTime);
                var end = occurrence.Period.EffectiveEndTime is { } e ? Day(e) : first;
                var last = entry.IsAllDay ? end.AddDays(-1) : end;
                closures.Add(new(Short(name), first, last < first ? first : last));
            }
        }

        return new(closures, faults, timed > 0 ? [Phrase($"{timed} with a time of day, taken as whole days.")] : []);
    }

    private static DateOnly Day(CalDateTime time) => DateOnly.FromDateTime(time.Value);

    private static string Short(string name) => name.Length <= LongestName ? name : name[..LongestName];

    private static ClosureReading ReadCsv(byte[] file)
    {
        var table = CsvTable.Read(file);
        List<Closure> closures = [];
        if (table.Rows.Count == 0)
        {
            return new([], table.Faults.Count > 0 ? table.Faults : [new(1, null, Phrase("The file is empty."))], table.Notes);
        }

        if (!new[] { "Name", "First" }.All(h => table.Rows[0].Fields.Any(f => f.Trim().Equals(h, StringComparison.OrdinalIgnoreCase))))
        {
            table.Faults.Add(
                new(
                    table.Rows[0].Line,
                    null,
                    Phrase("The headings are Name, First, and if wanted Last and Kind (Closed, HalfDay, NoLessons), From and Until for half days.")
                )
            );
            return new([], table.Faults, table.Notes);
        }

        foreach (var row in table.Rows.Skip(1))
        {
            var name = table.Field(row, "Name").Trim();
            var first = DayOf(table, row, "First", required: true);
            var last = DayOf(table, row, "Last", required: false) ?? first;
            var kind = table.Field(row, "Kind").Trim() is { Length: > 0 } word ? table.Word<ClosureKind>(row, "Kind", word) : ClosureKind.Closed;
            var (opens, closes) = (TimeOf(table, row, "From"), TimeOf(table, row, "Until"));
            if (name.Length is 0 or > LongestName)
            {
                table.Faults.Add(
                    new(row.Line, "Name", name.Length == 0 ? Phrase("The name is missing.") : Phrase($"A name has at most {LongestName} letters."))
                );
            }

            if (last < first)
            {
                table.Faults.Add(new(row.Line, "Last", Phrase("It ends before it begins.")));
            }

            if (kind == ClosureKind.HalfDay && opens is null && closes is null)
            {
                table.Faults.Add(new(row.Line, "Until", Phrase("A half day says from when, or until when, there is school.")));
            }

            if (first is { } day && last is { } end && kind is { } so)
            {
                closures.Add(
                    new(name, day, end)
                    {
                        Kind = so,
                        OpenFrom = so == ClosureKind.HalfDay ? opens : null,
                        OpenUntil = so == ClosureKind.HalfDay ? closes : null,
                    }
                );
            }
        }

        return new(closures, table.Faults, table.Notes);
    }

    private static DateOnly? DayOf(CsvTable table, (int Line, IReadOnlyList<string> Fields) row, string heading, bool required)
    {
        var text = table.Field(row, heading).Trim();
        if (text.Length == 0 && !required)
        {
            return null;
        }

        if (DateOnly.TryParseExact(text, "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day))
        {
            return day;
        }

        table.Faults.Add(new(row.Line, heading, text.Length == 0 ? Phrase("The day is missing.") : Phrase($"“{text}” is no day: write it as 2026-12-21.")));
        return null;
    }

    private static TimeOnly? TimeOf(CsvTable table, (int Line, IReadOnlyList<string> Fields) row, string heading)
    {
        var text = table.Field(row, heading).Trim();
        if (text.Length == 0)
        {
            return null;
        }

        if (TimeOnly.TryParseExact(text, ["HH:mm", "H:mm"], CultureInfo.InvariantCulture, DateTimeStyles.None, out var time))
        {
            return time;
        }

        table.Faults.Add(new(row.Line, heading, Phrase($"“{text}” is no time: write it as 12:00.")));
        return null;
    }
}
