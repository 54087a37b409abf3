using System.Text;
using CsvHelper;

namespace Fobble.Formats.Csv;

/// <summary>Something that stands in the way of taking a file.</summary>
/// <param name="Row">Line of the file, the heading being line 1.</param>
/// <param name="Column">Heading of the column, or null where the whole line is meant.</param>
/// <param name="Reason">A sentence for the person who has the file open.</param>
public sealed record FileFault(int Row, string? Column, string Reason);

/// <summary>
/// Rows of a CSV file (RFC 4180 and its common variations): comma, semicolon or tab, quotes, any line ends, a byte order mark or none.
/// Collects faults instead of stopping at the first, and stops where nobody would read on.
/// </summary>
public sealed class CsvTable
{
    /// <summary>Rows that a file of ours has at the most, where whoever reads it says nothing else.</summary>
    public const int MostRows = 5_000;
    private const int MostColumns = 200;
    private const int MostFaults = 200;

    private readonly Dictionary<string, int> _columns = new(StringComparer.OrdinalIgnoreCase);

    private CsvTable(IReadOnlyList<(int Line, IReadOnlyList<string> Fields)> rows, List<FileFault> faults, List<string> notes)
    {
        foreach (var (heading, column) in (rows.Count > 0 ? rows[0].Fields : []).Select((heading, column) => (heading, column)))
        {
            _columns.TryAdd(heading, column);
        }

        (Rows, Faults, Notes) = (rows, faults, notes);
    }

    /// <summary>All rows that hold anything, the heading first.</summary>
    public IReadOnlyList<(int Line, IReadOnlyList<string> Fields)> Rows { get; }

    /// <summary>The rows below the heading, to be gone through once. It ends, and says so, after as many faults as anybody would mend in one go.</summary>
    public IEnumerable<(int Line, IReadOnlyList<string> Fields)> Lines()
    {
        foreach (var row in Rows.Skip(1))
        {
            if (Faults.Count >= MostFaults)
            {
                Faults.Add(new(row.Line, null, Phrase("There are too many faults to name them all; from here on the file was not looked at.")));
                yield break;
            }

            yield return row;
        }
    }

    public List<FileFault> Faults { get; }

    /// <summary>How it was read, where there was a choice.</summary>
    public List<string> Notes { get; }

    /// <param name="lineBreaks">Whether a field may run over several lines; if not, one forgotten quote spoils one line only.</param>
    /// <param name="mostRows">With more the file has a fault, and no row.</param>
    public static CsvTable Read(byte[] file, bool lineBreaks = false, int mostRows = MostRows)
    {
        ArgumentNullException.ThrowIfNull(file);
        List<string> notes = [];
        List<FileFault> faults = [];
        return new(RowsOf(Decode(file, notes), faults, lineBreaks, mostRows), faults, notes);
    }

    // What a spreadsheet would run as a formula when a field begins with it, as OWASP lists them.
    private const string FormulaBegins = "=+-@\t\r";
    private const char Guard = '\'';

    /// <summary>The file with these rows, in which no field is a formula to a spreadsheet; <see cref="Read"/> gives the fields as they were.</summary>
    public static string Write(IEnumerable<IReadOnlyList<string>> rows)
    {
        ArgumentNullException.ThrowIfNull(rows);
        using StringWriter text = new();
        using (
            var writer = CsvWriter.Create(
                text,
                new CsvWriterOptions
                {
                    NewLine = "\r\n",
                    Injection = CsvInjection.Escape,
                    InjectionCharacters = FormulaBegins,
                    InjectionEscape = Guard,
                    ValidateFieldCount = false,
                },
                leaveOpen: true
            )
        )
        {
            foreach (var row in rows)
            {
                foreach (var field in row)
                {
                    // What begins with the guard itself would lose it when it is read.
                    writer.WriteField(IsGuarded(field) ? Guard + field : field);
                }

                writer.EndRecord();
            }
        }

        return text.ToString();
    }

    private static bool IsGuarded(string field) => field.Length > 1 && field[0] == Guard && (FormulaBegins.Contains(field[1]) || field[1] == Guard);

    /// <summary>The field under a heading, whatever its case; empty where there is none.</summary>
    public string Field((int Line, IReadOnlyList<string> Fields) row, string heading)
    {
        var column = ColumnOf(heading);
        return column >= 0 && column < row.Fields.Count ? row.Fields[column] : "";
    }

    /// <summary>A field that names one of a few words, such as <c>Not yet</c>; null, and a fault, where it does not.</summary>
    public T? Word<T>((int Line, IReadOnlyList<string> Fields) row, string heading, string word)
        where T : struct, Enum
    {
        ArgumentNullException.ThrowIfNull(word);
        if (
            !word.All(char.IsAsciiDigit)
            && Enum.TryParse<T>(word.Replace(" ", "", StringComparison.Ordinal), ignoreCase: true, out var value)
            && Enum.IsDefined(value)
        )
        {
            return value;
        }

        Faults.Add(new(row.Line, heading, Phrase($"“{word}” is none of {string.Join(", ", Enum.GetNames<T>())}.")));
        return null;
    }

    /// <summary>Of these headings those that the file lacks.</summary>
    public IReadOnlyList<string> Lacks(params IEnumerable<string> headings) => [.. headings.Where(h => ColumnOf(h) < 0)];

    private int ColumnOf(string heading) => _columns.GetValueOrDefault(heading, -1);

    private static string Decode(byte[] file, List<string> notes)
    {
        try
        {
            using var reader = new StreamReader(
                new MemoryStream(file),
                new UTF8Encoding(false, throwOnInvalidBytes: true),
                detectEncodingFromByteOrderMarks: true
            );
            return reader.ReadToEnd();
        }
        catch (DecoderFallbackException)
        {
            notes.Add(Phrase("The file is not in Unicode; it was read as Western European. Check names with accents."));
            return Encoding.Latin1.GetString(file);
        }
    }

    private static List<(int Line, IReadOnlyList<string> Fields)> RowsOf(string text, List<FileFault> faults, bool lineBreaks, int mostRows)
    {
        List<(int, IReadOnlyList<string>)> rows = [];
        var options = new CsvReaderOptions
        {
            Separator = SeparatorOf(text),
            HasHeader = false,
            TrimWhitespace = true,
            TrackLineNumbers = true,
            AllowLineBreaksInQuotes = lineBreaks,
            OnMalformedRecord = bad =>
            {
                if (faults.Count < MostFaults)
                {
                    faults.Add(
                        new(
                            (int)bad.LineNumber,
                            null,
                            Phrase("The quotes on this line do not match; a quote inside a name has to be doubled, and the name put in quotes.")
                        )
                    );
                }
            },
        };
        using var reader = CsvReader.FromText(text, options);
        while (reader.Read())
        {
            if (rows.Count > mostRows)
            {
                faults.Add(
                    new((int)reader.LineNumber, null, Phrase($"The file has more than {mostRows} lines, and no more can be taken at once. Cut it in parts."))
                );
                return [];
            }

            if (reader.FieldCount > MostColumns)
            {
                faults.Add(
                    new((int)reader.LineNumber, null, Phrase($"This line has {reader.FieldCount} fields; no file of ours has more than {MostColumns}."))
                );
                return [];
            }

            var fields = Enumerable.Range(0, reader.FieldCount).Select(i => reader.GetString(i).Trim()).Select(f => IsGuarded(f) ? f[1..].Trim() : f).ToList();
            if (fields.Any(f => f.Length > 0))
            {
                rows.Add(((int)reader.LineNumber, fields));
            }
        }

        return rows;
    }

    // The separator is the one that the heading uses most, quotes aside.
    private static char SeparatorOf(string text)
    {
        var heading = text.Split('\n').FirstOrDefault(line => !string.IsNullOrWhiteSpace(line)) ?? "";
        var bare = string.Concat(heading.Split('"').Where((_, i) => i % 2 == 0));
        return new[] { ',', ';', '\t' }.MaxBy(separator => bare.Count(letter => letter == separator));
    }
}
