using Fobble.Core.Skills;
using Fobble.Formats.Csv;

namespace Fobble.Formats.SkillMaps;

/// <summary>What a file of skills says. It can be taken only when it has no fault.</summary>
public sealed record SkillMapReading(IReadOnlyList<Skill> Skills, IReadOnlyList<FileFault> Faults);

/// <summary>
/// The map as CSV, a line a skill. The columns that a person would look at come first; the last holds the whole skill as a content
/// file would, so that nothing is lost. What a column says counts more than what the last one says.
/// </summary>
public static class SkillMapCsv
{
    private static readonly string[] Headings = ["Id", "Strand", "Name", "I can", "Needs", "When", "Words", "Standards", "Hidden", "Whole"];

    public static string Write(IEnumerable<Skill> skills) => CsvTable.Write([Headings, .. skills.Select(RowOf)]);

    public static SkillMapReading Read(byte[] file)
    {
        var table = CsvTable.Read(file, lineBreaks: true);
        if (table.Rows.Count == 0)
        {
            return new([], table.Faults.Count > 0 ? table.Faults : [new(1, null, Phrase("The file is empty."))]);
        }

        if (table.Lacks("Id", "Whole") is { Count: > 0 } lacks)
        {
            return new(
                [],
                [
                    .. table.Faults,
                    new(
                        table.Rows[0].Line,
                        null,
                        Phrase($"There is no column {string.Join(" and no column ", lacks.Select(h => $"“{h}”"))}: begin with a map that was exported here.")
                    ),
                ]
            );
        }

        List<Skill> skills = [];
        foreach (var row in table.Lines())
        {
            try
            {
                skills.Add(SkillOf(table, row));
            }
            catch (RefusedException fault)
            {
                table.Faults.Add(new(row.Line, table.Field(row, "Whole").Length == 0 ? "Whole" : null, fault.Message));
            }
        }

        foreach (var twice in skills.GroupBy(s => s.Id).Where(g => g.Count() > 1))
        {
            table.Faults.Add(
                new(table.Rows.Last(r => table.Field(r, "Id") == twice.Key.Value).Line, "Id", Phrase($"{twice.Key} is in the file {twice.Count()} times."))
            );
        }

        return new(skills, table.Faults);
    }

    private static string[] RowOf(Skill skill) =>
        [
            skill.Id.Value,
            skill.Strand,
            skill.Short,
            skill.ICan,
            string.Join("; ", skill.Needs),
            $"{skill.When}",
            string.Join("; ", skill.Words),
            string.Join("; ", skill.Standards),
            skill.Hidden ? "yes" : "",
            SkillMapLoader.WriteOne(skill),
        ];

    private static Skill SkillOf(CsvTable table, (int Line, IReadOnlyList<string> Fields) row)
    {
        var whole = SkillMapLoader.ReadOne(table.Field(row, "Whole"));
        string Or(string heading, string before) => table.Lacks(heading).Count > 0 ? before : table.Field(row, heading);
        IReadOnlyList<string> List(string heading, IEnumerable<string> before) =>
            table.Lacks(heading).Count > 0
                ? [.. before]
                : [.. table.Field(row, heading).Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)];
        var changed = whole with
        {
            Short = Or("Name", whole.Short),
            ICan = Or("I can", whole.ICan),
            Needs = [.. List("Needs", whole.Needs.Select(n => n.Value)).Select(n => new SkillId(n))],
            When =
                Enum.TryParse<Core.Calendars.Season>(Or("When", $"{whole.When}"), ignoreCase: true, out var when) && Enum.IsDefined(when)
                    ? when
                    : throw new RefusedException("When", Phrase($"“{Or("When", "")}” is no season: Autumn, Spring, Summer or Beyond.")),
            Words = List("Words", whole.Words),
            Standards = List("Standards", whole.Standards),
            Hidden = table.Lacks("Hidden").Count > 0 ? whole.Hidden : table.Field(row, "Hidden").Length > 0,
        };

        // Once more through the loader, which knows what a whole skill has to have.
        return SkillMapLoader.ReadOne(SkillMapLoader.WriteOne(changed));
    }
}
