using System.Text;
using CsCheck;
using Fobble.Formats.Csv;

namespace Fobble.Formats.Tests;

/// <summary>RFC 4180, written and read back.</summary>
public class CsvTableTests
{
    private static readonly Gen<string> Field = Gen.String[Gen.Char["ab ,\"\n;ä–=+-@'\t"], 0, 8].Select(s => s.Trim());

    [Fact]
    public void Whatever_is_written_is_read_back() =>
        Field
            .Array[3]
            .Array[1, 6]
            .Sample(rows =>
            {
                IReadOnlyList<string>[] all =
                [
                    ["One", "Two", "Three"],
                    .. rows.Where(r => r.Any(f => f.Length > 0)),
                ];
                var table = CsvTable.Read(Encoding.UTF8.GetBytes(CsvTable.Write(all)), lineBreaks: true);
                table.Faults.ShouldBeEmpty();
                table.Rows.Count.ShouldBe(all.Length);
                foreach (var (read, written) in table.Rows.Zip(all))
                {
                    read.Fields.ShouldBe(written);
                }
            });

    [Fact]
    public void No_field_of_any_file_is_a_formula_to_a_spreadsheet() =>
        Field.Sample(field =>
        {
            foreach (var begin in new[] { "", "=", "+", "-", "@", "\t=", "\r=" })
            {
                var written = CsvTable
                    .Write([
                        ["One"],
                        [begin + field + "."],
                    ])
                    .Split("\r\n", 2)[1];
                // Within quotes, where there are any; a quote of the field's own is doubled, and no formula.
                "=+-@\t\r".ShouldNotContain(written[written[0] == '"' ? 1 : 0]);
            }
        });

    [Fact]
    public void Columns_are_found_by_their_heading_whatever_its_case()
    {
        var table = CsvTable.Read(Encoding.UTF8.GetBytes("name,COUNT\nbell,2\ndrum"));
        table.Field(table.Rows[1], "Count").ShouldBe("2");
        table.Field(table.Rows[2], "Count").ShouldBe("");
        table.Field(table.Rows[1], "Colour").ShouldBe("");
        table.Lacks("Name", "Colour").ShouldBe(["Colour"]);
    }

    [Fact]
    public void Lines_are_numbered_as_the_person_who_has_the_file_open_sees_them()
    {
        var table = CsvTable.Read(Encoding.UTF8.GetBytes("Item,Count\r\n\r\nbell,1\r\n"));
        table.Rows[1].Line.ShouldBe(3);
    }
}
