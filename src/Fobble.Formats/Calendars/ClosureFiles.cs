using System.Globalization;
using System.Text;
using Fobble.Core.Calendars;
using Fobble.Formats.Csv;
using Ical.Net;
using Ical.Net.CalendarComponents;
using Ical.Net.DataTypes;
using Ical.Net.Evaluation;

namespace Fobble.Formats.Calendars;

/// <summary>Closures read from a file, with all that stands in the way of taking them.</summary>
public sealed record ClosureReading(IReadOnlyList<Closure> Closures, IReadOnlyList<FileFault> Faults, IReadOnlyList<string> Notes);

/// <summary>Reads days without school from an iCalendar file (RFC 5545) or from CSV.</summary>
public static class ClosureFiles
{
    public const int LongestName = 80;
    public const int MostClosures = 300;

    // What is in a calendar of a school, ten times over. Calendars come from anywhere, and the work a file asks for has nothing to do with its size.
    private const int MostEntries = 5_000;
    private const int MostThatComeBack = 200;
    private const int MostYears = 150;
    private const int MostRules = 5;
    private const int MostInARule = 400;
    private const int LongestLists = 60_000;
    private const int MostWithoutADay = 1_000;
    private const int MostFaults = 100;

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
        if (LongestLists < LettersOfLists(text))
        {
            return new(
                [],
                [new(1, null, Phrase("Entries of this file come back by very long lists of days; this is no calendar of days without school."))],
                []
            );
        }

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

        if (calendar.Events.Count > MostEntries)
        {
            return new([], [new(1, null, Phrase($"The file holds {calendar.Events.Count} entries; {MostEntries} are the most that are looked at."))], []);
        }

        var (timed, comeBack) = (0, 0);
        foreach (var entry in calendar.Events)
        {
            var name = Short((entry.Summary ?? "").Trim());
            if (string.Equals(entry.Status, "CANCELLED", StringComparison.OrdinalIgnoreCase))
            {
                continue;
            }

            if (entry.Start is null || name.Length == 0)
            {
                faults.Add(new(1, null, Phrase($"An entry has no {(name.Length == 0 ? "name" : "day")}{(name.Length == 0 ? "" : $": “{name}”")}.")));
            }
            else if (ComesBack(entry) && ++comeBack > MostThatComeBack)
            {
                faults.Add(
                    new(1, null, Phrase($"More than {MostThatComeBack} entries come back again and again; this is no calendar of days without school."))
                );
            }
            else if (ComesBack(entry) && !CanBeFollowed(entry, from))
            {
                faults.Add(
                    new(
                        1,
                        null,
                        Phrase($"“{name}” comes back by a rule that no day without school has: more than once a day, for centuries, or by a very long list.")
                    )
                );
            }
            else
            {
                timed += entry.IsAllDay ? 0 : 1;
                try
                {
                    closures.AddRange(DaysOf(entry, name, from, until));
                }
#pragma warning disable CA1031 // Of other people's rules it throws many kinds: days after the last one there is, rules that never match.
                catch (Exception)
#pragma warning restore CA1031
                {
                    faults.Add(new(1, null, Phrase($"On which days “{name}” is can’t be found out by its rule.")));
                }
            }

            if (faults.Count > MostFaults)
            {
                break;
            }
        }

        return new(closures, faults, timed > 0 ? [Phrase($"{timed} with a time of day, taken as whole days.")] : []);
    }

    // Several rules, and rules for what is left out, are of an older form of the standard; files have them still.
#pragma warning disable CS0618
    private static List<RecurrenceRule> Rules(CalendarEvent entry) => [.. entry.RecurrenceRules, .. entry.ExceptionRules];
#pragma warning restore CS0618

    // Asked of the text: the reader itself takes hours over a list of some ten thousand days. A line that begins with a blank goes on with the one before (RFC 5545, 3.1).
    private static int LettersOfLists(string text)
    {
        var (letters, inList) = (0, false);
        foreach (var line in text.AsSpan().EnumerateLines())
        {
            if (line.IsEmpty || line[0] is not (' ' or '\t'))
            {
                inList = line.StartsWith("RDATE", StringComparison.OrdinalIgnoreCase) || line.StartsWith("EXDATE", StringComparison.OrdinalIgnoreCase);
            }

            letters += inList ? line.Length : 0;
        }

        return letters;
    }

    private static bool ComesBack(CalendarEvent entry) =>
        Rules(entry).Count > 0 || entry.RecurrenceDates.GetAllDates().Any() || entry.RecurrenceDates.GetAllPeriods().Any();

    // A rule of a few letters can stand for every second of a thousand years.
    private static bool CanBeFollowed(CalendarEvent entry, DateOnly from)
    {
        var rules = Rules(entry);
        return entry.Start!.Year > from.Year - MostYears
            && rules.Count <= MostRules
            && rules.All(r => r.Frequency is FrequencyType.Daily or FrequencyType.Weekly or FrequencyType.Monthly or FrequencyType.Yearly)
            && rules.All(r => r.BySecond.Count <= 1 && r.ByMinute.Count <= 1 && r.ByHour.Count <= 1)
            && rules.All(r =>
                r.ByDay.Count + r.ByMonthDay.Count + r.ByYearDay.Count + r.ByWeekNo.Count + r.ByMonth.Count + r.BySetPosition.Count <= MostInARule
            )
            && entry.RecurrenceDates.GetAllDates().Count() + entry.RecurrenceDates.GetAllPeriods().Count() + entry.ExceptionDates.GetAllDates().Count()
                <= MostInARule;
    }

    private static IEnumerable<Closure> DaysOf(CalendarEvent entry, string name, DateOnly from, DateOnly until)
    {
        EvaluationOptions limits = new() { MaxUnmatchedIncrementsLimit = MostWithoutADay };
        foreach (
            var occurrence in entry
                .GetOccurrences(new CalDateTime(from.AddDays(-60)), limits)
                .TakeWhile(o => Day(o.Period.StartTime) <= until)
                .Take(MostClosures + 1)
        )
        {
            var first = Day(occurrence.Period.StartTime);
            var end = occurrence.Period.EffectiveEndTime is { } e ? Day(e) : first;
            var last = entry.IsAllDay ? end.AddDays(-1) : end;
            yield return new(name, first, last < first ? first : last);
        }
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

        foreach (var row in table.Lines())
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
