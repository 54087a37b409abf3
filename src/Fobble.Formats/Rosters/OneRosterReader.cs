using System.Collections.ObjectModel;
using System.Globalization;
using System.IO.Compression;
using Fobble.Core.People;
using Fobble.Formats.Csv;

namespace Fobble.Formats.Rosters;

/// <param name="File">Of the zip; empty where the zip itself is meant.</param>
/// <param name="Row">Line of that file, the heading being line 1.</param>
public sealed record RosterFault(string File, int Row, string? Column, string Reason);

/// <summary>What an office's file says. It can be taken only when it has no fault.</summary>
public sealed record RosterReading(OfficeList List, IReadOnlyList<RosterFault> Faults)
{
    public bool CanBeTaken => Faults.Count == 0;
}

/// <summary>
/// Reads who is in which class from a zip in the form of OneRoster 1.2 or 1.1 (1EdTech, CSV binding): orgs, academicSessions, users, classes, enrollments, and the days of
/// birth from demographics where it is there. Nothing else of it is read. Collects its faults instead of stopping at the first.
/// </summary>
public static class OneRosterReader
{
    public const int LargestZip = 20_000_000;

    // Unpacked, of all files together: a zip of some kilobytes can hold a disk full of zeros.
    private const int LargestUnpacked = 60_000_000;
    private const int MostLines = 50_000;
    private const int MostFaults = 40;

    // A grading period is part of a term, that of a semester, that of a year; a list can also go round in a circle.
    private const int MostPartsOfAYear = 10;

    private static readonly string[] Versions = ["1.1", "1.2"];

    private static readonly (OneRosterFile File, string[] Needs)[] Needed =
    [
        (OneRosterFile.Orgs, ["sourcedId", "name", "type"]),
        (OneRosterFile.Sessions, ["sourcedId", "startDate", "endDate", "parentSourcedId"]),
        (OneRosterFile.Users, ["sourcedId", "givenName", "familyName"]),
        (OneRosterFile.Classes, ["sourcedId", "title", "schoolSourcedId", "termSourcedIds"]),
        (OneRosterFile.Enrollments, ["sourcedId", "classSourcedId", "userSourcedId", "role", "beginDate", "endDate"]),
    ];

    /// <param name="today">Classes and places in them that are over by then, or have not begun, don't count.</param>
    public static RosterReading Read(byte[] file, DateOnly today)
    {
        ArgumentNullException.ThrowIfNull(file);
        FirstFaults faults = [];
        var tables = TablesOf(file, faults);
        return faults.Count > 0 ? new(new([], []), faults) : ListOf(tables, today, faults);
    }

    /// <summary>As many faults as anybody reads; what comes after them is let go.</summary>
    private sealed class FirstFaults : Collection<RosterFault>
    {
        public void AddRange(IEnumerable<RosterFault> faults)
        {
            foreach (var fault in faults.Take(MostFaults - Count))
            {
                Add(fault);
            }
        }

        protected override void InsertItem(int index, RosterFault item)
        {
            if (Count < MostFaults)
            {
                base.InsertItem(index, item);
            }
        }
    }

    private static Dictionary<string, CsvTable> TablesOf(byte[] file, FirstFaults faults)
    {
        Dictionary<string, CsvTable> tables = [];
        var left = LargestUnpacked;
        try
        {
            using ZipArchive zip = new(new MemoryStream(file), ZipArchiveMode.Read);

            // Some programs put all of it into a folder.
            foreach (var entry in zip.Entries.Where(e => IsRead(e.Name)).DistinctBy(e => e.Name.ToUpperInvariant()))
            {
                if (Unpacked(entry, left) is not { } bytes)
                {
                    faults.Add(new(entry.Name, 1, null, Phrase($"Unpacked, the files are larger than {LargestUnpacked / 1_000_000} MB.")));
                    return tables;
                }

                left -= bytes.Length;
                tables.Add(entry.Name[..^4].ToUpperInvariant(), CsvTable.Read(bytes, mostRows: MostLines));
            }
        }
        catch (InvalidDataException)
        {
            faults.Add(new("", 1, null, Phrase("This is no zip, or only a part of one.")));
            return [];
        }

        CheckManifest(tables, faults);
        foreach (var (needed, columns) in Needed)
        {
            CheckColumns(tables, needed, columns, faults);
        }

        if (tables.ContainsKey(Key(OneRosterFile.Demographics)))
        {
            CheckColumns(tables, OneRosterFile.Demographics, ["sourcedId", "birthDate"], faults);
        }

        return tables;
    }

    private static string Key(OneRosterFile file) => file.Name.ToUpperInvariant();

    private static bool IsRead(string name) =>
        Needed
            .Select(n => n.File)
            .Append(OneRosterFile.Manifest)
            .Append(OneRosterFile.Demographics)
            .Any(f => string.Equals(name, f.FileName, StringComparison.OrdinalIgnoreCase));

    private static byte[]? Unpacked(ZipArchiveEntry entry, int most)
    {
        using var from = entry.Open();
        using MemoryStream to = new();
        var part = new byte[81_920];
        int read;
        while ((read = from.Read(part, 0, part.Length)) > 0)
        {
            if (to.Length + read > most)
            {
                return null;
            }

            to.Write(part, 0, read);
        }

        return to.ToArray();
    }

    private static void CheckManifest(Dictionary<string, CsvTable> tables, FirstFaults faults)
    {
        var manifest = OneRosterFile.Manifest;
        if (!tables.TryGetValue(Key(manifest), out var table))
        {
            faults.Add(new("", 1, null, Phrase($"{manifest.FileName} is missing: it says what the other files are.")));
            return;
        }

        foreach (var row in table.Rows)
        {
            var (name, value) = (row.Fields[0], row.Fields.ElementAtOrDefault(1) ?? "");
            if (string.Equals(name, "oneroster.version", StringComparison.OrdinalIgnoreCase) && !Versions.Contains(value))
            {
                faults.Add(new(manifest.FileName, row.Line, "value", Phrase($"This is OneRoster {value}; {Words.List(Versions)} can be read here.")));
            }

            if (
                string.Equals(value, "delta", StringComparison.OrdinalIgnoreCase)
                && Needed.Any(n => string.Equals(name, $"file.{n.File.Name}", StringComparison.OrdinalIgnoreCase))
            )
            {
                faults.Add(
                    new(
                        manifest.FileName,
                        row.Line,
                        "value",
                        Phrase($"{name[5..]} holds changes only. Ask for all of it each time (“bulk”): it is compared here.")
                    )
                );
            }
        }
    }

    private static void CheckColumns(Dictionary<string, CsvTable> tables, OneRosterFile file, IEnumerable<string> columns, FirstFaults faults)
    {
        if (!tables.TryGetValue(Key(file), out var table))
        {
            faults.Add(new("", 1, null, Phrase($"{file.FileName} is missing.")));
            return;
        }

        faults.AddRange(table.Faults.Select(f => new RosterFault(file.FileName, f.Row, f.Column, f.Reason)));
        faults.AddRange(
            (table.Rows.Count == 0 ? [.. columns] : table.Lacks(columns)).Select(c => new RosterFault(
                file.FileName,
                1,
                c,
                Phrase($"There is no column “{c}”.")
            ))
        );
    }

    private sealed record Row(OneRosterFile File, CsvTable Table, (int Line, IReadOnlyList<string> Fields) At)
    {
        public string this[string column] => Table.Field(At, column);

        public RosterFault Fault(string column, string reason) => new(File.FileName, At.Line, column, reason);
    }

    private sealed record Span(DateOnly First, DateOnly Last, string Parent);

    private static RosterReading ListOf(Dictionary<string, CsvTable> tables, DateOnly today, FirstFaults faults)
    {
        List<Row> RowsOf(OneRosterFile file) =>
            [
                .. tables
                    .GetValueOrDefault(Key(file))
                    ?.Rows.Skip(1)
                    .Select(r => new Row(file, tables[Key(file)], r))
                    .Where(r => !string.Equals(r["status"], "tobedeleted", StringComparison.OrdinalIgnoreCase))
                    ?? [],
            ];

        var orgs = ById(RowsOf(OneRosterFile.Orgs), faults);
        var sessions = ById(RowsOf(OneRosterFile.Sessions), faults)
            .ToDictionary(
                s => s.Key,
                s => new Span(
                    Day(s.Value, "startDate", faults) ?? DateOnly.MinValue,
                    Day(s.Value, "endDate", faults) ?? DateOnly.MaxValue,
                    s.Value["parentSourcedId"]
                )
            );
        var classes = ById(RowsOf(OneRosterFile.Classes), faults);
        var users = ById(RowsOf(OneRosterFile.Users), faults);
        var born = ById(RowsOf(OneRosterFile.Demographics), faults).ToDictionary(d => d.Key, d => Day(d.Value, "birthDate", faults));
        var severalSchools = classes.Values.Select(c => c["schoolSourcedId"]).Distinct().Count() > 1;
        List<OfficeClass> taught = [];
        foreach (var (id, row) in classes)
        {
            Check(row, "schoolSourcedId", orgs.ContainsKey(row["schoolSourcedId"]), faults);
            var terms = row["termSourcedIds"].Split(',', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries).Distinct().ToList();
            foreach (var unknown in terms.Where(t => !sessions.ContainsKey(t)))
            {
                faults.Add(row.Fault("termSourcedIds", Phrase($"“{unknown}” is in no line of {OneRosterFile.Sessions.FileName}.")));
            }

            if (row["title"].Length == 0)
            {
                faults.Add(row.Fault("title", Phrase("The class has no name.")));
            }

            var years = terms.Where(sessions.ContainsKey).Select(t => YearOf(sessions, t)).ToList();
            if (years.Count == 0 || (years.Min(y => y.First) <= today && years.Max(y => y.Last) >= today))
            {
                taught.Add(new(id, severalSchools && orgs.TryGetValue(row["schoolSourcedId"], out var org) ? $"{row["title"]} ({org["name"]})" : row["title"]));
            }
        }

        var current = taught.Select(t => t.Key).ToHashSet();
        Dictionary<string, List<(bool Primary, string Class)>> places = [];
        foreach (var row in ById(RowsOf(OneRosterFile.Enrollments), faults).Values)
        {
            Check(row, "classSourcedId", classes.ContainsKey(row["classSourcedId"]), faults, OneRosterFile.Classes);
            Check(row, "userSourcedId", users.ContainsKey(row["userSourcedId"]), faults, OneRosterFile.Users);
            var (begins, ends) = (Day(row, "beginDate", faults), Day(row, "endDate", faults));
            if (
                string.Equals(row["role"], "student", StringComparison.OrdinalIgnoreCase)
                && current.Contains(row["classSourcedId"])
                && !(begins > today)
                && !(ends < today)
            )
            {
                if (!places.TryGetValue(row["userSourcedId"], out var of))
                {
                    places[row["userSourcedId"]] = of = [];
                }

                of.Add((string.Equals(row["primary"], "true", StringComparison.OrdinalIgnoreCase), row["classSourcedId"]));
            }
        }

        List<OfficeChild> children = [];
        foreach (var (id, of) in places.Where(p => users.ContainsKey(p.Key)))
        {
            var row = users[id];
            var given = Called(row, "preferredGivenName", "givenName");
            if (given.Length == 0)
            {
                faults.Add(row.Fault("givenName", Phrase("The first name is missing.")));
            }

            children.Add(
                new(
                    id,
                    given,
                    Called(row, "preferredFamilyName", "familyName"),
                    born.GetValueOrDefault(id),
                    [.. of.OrderByDescending(p => p.Primary).Select(p => p.Class).Distinct()]
                )
            );
        }

        if (children.Count == 0 && faults.Count == 0)
        {
            faults.Add(new(OneRosterFile.Enrollments.FileName, 1, null, Phrase("No child is in any class today.")));
        }

        return faults.Count > 0 ? new(new([], []), faults) : new(new(taught, children), []);
    }

    private static Dictionary<string, Row> ById(List<Row> rows, FirstFaults faults)
    {
        Dictionary<string, Row> byId = [];
        foreach (var row in rows)
        {
            var id = row["sourcedId"];
            if (id.Length == 0)
            {
                faults.Add(row.Fault("sourcedId", Phrase("This line has no key.")));
            }
            else if (!byId.TryAdd(id, row))
            {
                faults.Add(row.Fault("sourcedId", Phrase($"The key “{id}” is on line {byId[id].At.Line} already.")));
            }
        }

        return byId;
    }

    private static void Check(Row row, string column, bool known, FirstFaults faults, OneRosterFile? of = null)
    {
        if (!known)
        {
            faults.Add(row.Fault(column, Phrase($"“{row[column]}” is in no line of {(of ?? OneRosterFile.Orgs).FileName}.")));
        }
    }

    private static string Called(Row user, string preferred, string usual) => user[preferred] is { Length: > 0 } name ? name : user[usual];

    private static DateOnly? Day(Row row, string column, FirstFaults faults)
    {
        var text = row[column];
        if (text.Length == 0)
        {
            return null;
        }

        // Dates of the standard; some programs write the time of midnight behind it.
        if (DateOnly.TryParseExact(text.Split('T')[0], "yyyy-MM-dd", CultureInfo.InvariantCulture, DateTimeStyles.None, out var day))
        {
            return day;
        }

        faults.Add(row.Fault(column, Phrase($"“{text}” is no day in the form 2026-11-25.")));
        return null;
    }

    // A class of one term is not over with it: what counts is the year that the term is a part of.
    private static Span YearOf(Dictionary<string, Span> sessions, string id)
    {
        var span = sessions[id];
        for (var steps = 0; steps < MostPartsOfAYear && sessions.TryGetValue(span.Parent, out var parent); steps++)
        {
            span = parent;
        }

        return span;
    }
}
