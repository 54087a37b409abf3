using Fobble.Core.People;
using Fobble.Formats.Csv;
using Fobble.Formats.Fonts;

namespace Fobble.Formats.ClassLists;

/// <summary>
/// Reads a class list from CSV, its columns in any order and under many names. Collects every fault instead of stopping at the first.
/// </summary>
public static class ClassListReader
{
    public const int MostChildren = 200;

    /// <param name="today">Birth dates must lie before it, and not by more than thirteen years.</param>
    /// <param name="answers">To what it asked when it was read before; they go before what the file says.</param>
    public static ClassListReading Read(byte[] file, DateOnly today, ClassListAnswers? answers = null)
    {
        ArgumentNullException.ThrowIfNull(file);
        var given = answers ?? ClassListAnswers.None;
        var table = CsvTable.Read(file);
        var (rows, faults, notes) = (table.Rows, table.Faults, table.Notes);
        if (rows.Count == 0)
        {
            return new([], faults.Count > 0 ? faults : [new(1, null, Phrase("The file is empty."))], notes, []);
        }

        var columns = ClassListColumns.Find(rows[0].Fields);
        if (!columns.HasNames)
        {
            faults.Add(
                new(
                    rows[0].Line,
                    null,
                    Phrase(
                        $"No column of names was found. The headings are {string.Join(", ", rows[0].Fields.Select(h => $"“{h}”"))}; call them {ClassListColumns.Usual}."
                    )
                )
            );
            return new([], faults, notes, []);
        }

        var dates = BirthDates.For(rows.Skip(1).Select(r => Field(r, columns.Born)));
        if (dates.Note is { } note)
        {
            notes.Add(note);
        }

        List<UnprintedName> unprinted = [];
        List<ClassListChild> children = [.. table.Lines().Select(row => Child(row, columns, dates, today, given, faults, unprinted)).OfType<ClassListChild>()];
        foreach (
            var twice in children
                .GroupBy(c => (ShortNames.Same(c.GivenName), ShortNames.Same(c.FamilyName), c.Born, ShortNames.Same(c.Mark ?? "")))
                .Where(g => g.Count() > 1)
        )
        {
            faults.AddRange(
                twice
                    .Skip(1)
                    .Select(c => new FileFault(
                        c.Row,
                        columns.Heading(columns.Given ?? columns.Full),
                        Phrase($"{c.GivenName} {c.FamilyName} is on line {twice.First().Row} already. If they are two children, give each a mark.")
                            .Replace("  ", " ", StringComparison.Ordinal)
                    ))
            );
        }

        if (children.Count == 0 && faults.Count == 0)
        {
            faults.Add(new(rows[0].Line, null, Phrase("The file has headings but no children.")));
        }

        if (children.Count > MostChildren)
        {
            faults.Add(new(children[MostChildren].Row, null, Phrase($"More than {MostChildren} children: is this the list of one class?")));
        }

        return new(children, [.. faults.OrderBy(f => f.Row)], notes, unprinted);
    }

    private static string Field((int Line, IReadOnlyList<string> Fields) row, int? column) =>
        column is { } index && index < row.Fields.Count ? row.Fields[index].Trim() : "";

    private static ClassListChild? Child(
        (int Line, IReadOnlyList<string> Fields) row,
        ClassListColumns columns,
        BirthDates dates,
        DateOnly today,
        ClassListAnswers answers,
        List<FileFault> faults,
        List<UnprintedName> unprinted
    )
    {
        var before = faults.Count;
        if (row.Fields.Count > columns.Headings.Count && row.Fields.Skip(columns.Headings.Count).Any(f => f.Trim().Length > 0))
        {
            faults.Add(
                new(
                    row.Line,
                    null,
                    Phrase(
                        $"This line has {row.Fields.Count} fields, the heading {columns.Headings.Count}: a separator inside a name needs quotes around the name."
                    )
                )
            );
        }

        var (given, family) = columns.Given is null ? Apart(Field(row, columns.Full)) : (Field(row, columns.Given), Field(row, columns.Family));
        var nameColumn = columns.Heading(columns.Given ?? columns.Full);
        if (NameFonts.Missing($"{given} {family}").Count > 0)
        {
            var printed = answers.Names.GetValueOrDefault(row.Line)?.Trim() ?? "";
            unprinted.Add(new(row.Line, NameFonts.Printable($"{given} {family}".Trim()), printed));
            if (printed.Length > 0)
            {
                (given, family) = Apart(printed);
            }
        }

        if (given.Length == 0)
        {
            faults.Add(new(row.Line, nameColumn, Phrase("The first name is missing.")));
        }

        if (given.Length > Naming.LongestName || family.Length > Naming.LongestName)
        {
            faults.Add(new(row.Line, nameColumn, Phrase($"A name of more than {Naming.LongestName} letters: are the columns in the right places?")));
        }

        if ((given + family).Any(char.IsControl))
        {
            faults.Add(new(row.Line, nameColumn, Phrase("The name runs over a line end or holds a hidden character.")));
        }

        if (NameFonts.Missing($"{given} {family}") is { Count: > 0 } missing)
        {
            // By their numbers in Unicode: what no font has would stand here as boxes.
            var letters = Words.List([.. missing.Select(letter => string.Join(' ', letter.EnumerateRunes().Select(r => $"U+{r.Value:X4}")))]);
            faults.Add(
                new(
                    row.Line,
                    nameColumn,
                    missing.Count == 1
                        ? Phrase($"No font at hand has a letter of this name ({letters}): write it as it may be printed.")
                        : Phrase($"No font at hand has {missing.Count} letters of this name ({letters}): write it as it may be printed.")
                )
            );
        }

        var mark = (answers.Marks.GetValueOrDefault(row.Line) ?? Field(row, columns.Mark)).Trim();
        if (mark.Length > ShortNames.LongestMark || mark.Any(char.IsControl))
        {
            faults.Add(
                new(row.Line, columns.Heading(columns.Mark), Phrase($"A mark has {ShortNames.LongestMark} letters at the most: it only tells two names apart."))
            );
        }

        DateOnly? born = null;
        var birth = Field(row, columns.Born);
        if (birth.Length > 0)
        {
            born = dates.Read(birth);
            var reason =
                born is not { } day ? Phrase($"“{birth}” can't be read as a date; write it like 2021-11-30.")
                : day >= today ? Phrase($"“{birth}” lies in the future.")
                : day < today.AddYears(-Naming.OldestYears) ? Phrase($"“{birth}” is more than {Naming.OldestYears} years ago.")
                : null;
            if (reason is not null)
            {
                faults.Add(new(row.Line, columns.Heading(columns.Born), reason));
            }
        }

        return faults.Count > before ? null : new ClassListChild(row.Line, given, family, born, mark.Length == 0 ? null : mark);
    }

    // "Okafor, Ada" or "Ada Okafor"; a single word is a first name.
    private static (string Given, string Family) Apart(string full)
    {
        if (full.Split(',', 2, StringSplitOptions.TrimEntries) is [var family, var given])
        {
            return (given, family);
        }

        var last = full.LastIndexOf(' ');
        return last < 0 ? (full, "") : (full[..last].Trim(), full[(last + 1)..]);
    }
}
