using System.Globalization;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.People;
using Fobble.Core.Skills;
using Fobble.Formats.Csv;
using Fobble.Formats.SkillMaps;

namespace Fobble.Formats.Records;

/// <summary>Observations as CSV: written for a spreadsheet, and read back from one.</summary>
public static class ObservationCsv
{
    private const int LongestText = 500;

    // A class of thirty over four years, well observed, has half of it.
    private const int MostLines = 100_000;
    private static readonly string[] Headings =
    [
        "Id",
        "Child",
        "Skill",
        "Skill name",
        "Day",
        "Time",
        "Support",
        "Setting",
        "Shown with",
        "Numbers",
        "Slip",
        "Way",
        "Note",
        "Seen by",
        "Withdrawn because",
    ];
    private static readonly string[] Needed = ["Child", "Skill", "Day", "Support"];

    public static string Write(IEnumerable<ObservationLine> lines, SkillMap map)
    {
        ArgumentNullException.ThrowIfNull(map);
        return CsvTable.Write([
            Headings,
            .. lines.Select(l =>
                (IReadOnlyList<string>)
                    [
                        $"{l.Id}",
                        ShortNames.Typed(l.Child),
                        l.Skill.Value,
                        map.Has(l.Skill) ? map[l.Skill].Short : "",
                        l.Day.ToString("yyyy-MM-dd", CultureInfo.InvariantCulture),
                        l.At.ToString("HH:mm:ss", CultureInfo.InvariantCulture),
                        $"{l.Support}",
                        $"{l.Setting}",
                        $"{l.Representation}",
                        l.Numbers ?? "",
                        l.Slip ?? "",
                        l.Strategy ?? "",
                        l.Note ?? "",
                        l.By,
                        l.WithdrawnWhy ?? "",
                    ]
            ),
        ]);
    }

    /// <summary>Reads them. A child is named as the class names it; a skill by its id or its short name. What has no id gets one from what it says, so that a file taken twice is taken once.</summary>
    /// <param name="children">Names of the class's children.</param>
    /// <param name="zone">Whose clock the times of the file are by.</param>
    /// <param name="progress">Is told the share of the lines that is read, 0 to 1.</param>
    /// <exception cref="OperationCanceledException">Nobody waits any more.</exception>
    public static ObservationReading Read(
        byte[] file,
        SkillMap map,
        IReadOnlyCollection<string> children,
        DateOnly today,
        SchoolZone zone,
        string by,
        IProgress<double>? progress = null,
        CancellationToken stop = default
    )
    {
        ArgumentNullException.ThrowIfNull(map);
        ArgumentNullException.ThrowIfNull(children);
        var table = CsvTable.Read(file, mostRows: MostLines);
        if (table.Rows.Count == 0)
        {
            return new([], table.Faults.Count > 0 ? table.Faults : [new(1, null, Phrase("The file is empty."))], table.Notes);
        }

        if (table.Lacks(Needed) is { Count: > 0 } lacks)
        {
            return new(
                [],
                [.. table.Faults, new(table.Rows[0].Line, null, Phrase($"There is no column {string.Join(" and no column ", lacks.Select(h => $"“{h}”"))}."))],
                table.Notes
            );
        }

        var known = children.ToDictionary(ShortNames.Same);
        var byName = map
            .All.GroupBy(s => s.Short, StringComparer.OrdinalIgnoreCase)
            .Where(g => g.Count() == 1)
            .ToDictionary(g => g.Key, g => g.Single(), StringComparer.OrdinalIgnoreCase);
        Dictionary<Guid, int> ids = [];
        List<ObservationLine> lines = [];
        foreach (var row in table.Lines())
        {
            if (row.Line % 1000 == 0)
            {
                stop.ThrowIfCancellationRequested();
                progress?.Report((double)row.Line / table.Rows[^1].Line);
            }

            var before = table.Faults.Count;
            void Check(string heading, bool holds, string reason)
            {
                if (!holds)
                {
                    table.Faults.Add(new(row.Line, heading, reason));
                }
            }

            string Text(string heading) => table.Field(row, heading);
            string? Said(string heading) => Text(heading) is { Length: > 0 } text ? text : null;
            var child = Text("Child");
            Check(
                "Child",
                known.ContainsKey(ShortNames.Same(child)),
                child.Length == 0
                    ? Phrase("The child’s name is missing.")
                    : Phrase($"There is no “{child}” in this class; names are written as Fobble shows them.")
            );
            var named = Text("Skill");
            var skill = map.Has(new(named)) ? map[new(named)] : byName.GetValueOrDefault(named);
            Check("Skill", skill is not null, named.Length == 0 ? Phrase("The skill is missing.") : Phrase($"There is no skill “{named}”."));
            Check(
                "Day",
                DateOnly.TryParseExact(Text("Day"), ["yyyy-MM-dd", "dd.MM.yyyy", "dd/MM/yyyy"], CultureInfo.InvariantCulture, DateTimeStyles.None, out var day),
                Phrase($"“{Text("Day")}” is no day; write it as {today:yyyy-MM-dd}.")
            );
            Check("Day", day <= today, Phrase("This day is still to come."));
            Check("Day", day == default || OurTime.Holds(day), OurTime.Reason(day));
            var time = new TimeOnly(12, 0);
            Check(
                "Time",
                Said("Time") is not { } clock
                    || TimeOnly.TryParseExact(clock, ["HH:mm:ss", "HH:mm", "H:mm"], CultureInfo.InvariantCulture, DateTimeStyles.None, out time),
                Phrase($"“{Text("Time")}” is no time; write it as 10:30.")
            );
            var support = table.Word<Support>(row, "Support", Text("Support"));
            var setting = Said("Setting") is { } where ? table.Word<Setting>(row, "Setting", where) : Setting.Group;
            var shown = Said("Shown with") is { } how ? table.Word<Representation>(row, "Shown with", how) : skill?.ShownIn[0] ?? Representation.Objects;
            Check(
                "Slip",
                Said("Slip") is not { } slip || skill is null || skill.Slips.Any(s => s.Id == slip),
                Phrase($"“{Text("Slip")}” is no slip of this skill.")
            );
            Check(
                "Way",
                Said("Way") is not { } way || skill is null || skill.Strategies.Any(s => s.Id == way),
                Phrase($"“{Text("Way")}” is no way of this skill.")
            );
            Check("Note", Text("Note").Length <= LongestText, Phrase($"A note has {LongestText} letters at the most."));
            Check("Numbers", Text("Numbers").Length <= 40, Phrase("Numbers have 40 letters at the most."));
            Guid id = default;
            Check(
                "Id",
                Said("Id") is not { } written || (Guid.TryParse(written, out id) && id != Guid.Empty),
                Phrase($"“{Text("Id")}” is no id; leave it empty.")
            );
            if (table.Faults.Count > before)
            {
                continue;
            }

            id =
                id == default
                    ? NameUuid.Of(
                        NameUuid.Url,
                        $"urn:fobble:observation|{ShortNames.Typed(child)}|{skill!.Id}|{day:O}|{time:O}|{support}|{Text("Numbers")}|{Text("Note")}"
                    )
                    : id;
            Check("Id", ids.TryAdd(id, row.Line), Phrase($"The same observation stands in line {ids.GetValueOrDefault(id)}."));
            lines.Add(
                new(
                    id,
                    known[ShortNames.Same(child)],
                    skill!.Id,
                    zone.At(day, time),
                    day,
                    Said("Seen by") ?? by,
                    setting!.Value,
                    support!.Value,
                    shown!.Value,
                    Said("Numbers"),
                    Said("Slip"),
                    Said("Way"),
                    Said("Note"),
                    Said("Withdrawn because")
                )
            );
        }

        return new(lines, table.Faults, table.Notes);
    }
}
