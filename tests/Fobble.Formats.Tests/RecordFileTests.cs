using System.Text;
using System.Text.Json;
using CsCheck;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;
using Fobble.Formats.Print;
using Fobble.Formats.Records;
using NJsonSchema;
using SkiaSharp;
using UglyToad.PdfPig;

namespace Fobble.Formats.Tests;

public class RecordFileTests
{
    private static readonly SkillMap Map = SkillMapLoader.Shipped();
    private static readonly DateOnly Today = new(2026, 11, 25);
    private static readonly string[] Children = ["Kofi M.", "Amara N."];

    [Fact]
    public void What_is_written_is_read_back_whatever_stands_in_it() =>
        Gen.Select(Gen.Int[0, Map.Skills.Count - 1], Gen.Int[0, 3], Gen.Int[0, 4], Gen.Int[0, 300], Gen.String[Gen.Char[" =+-@;,\"'abcé5"], 0, 20])
            .Array[1, 8]
            .Sample(draws =>
            {
                List<ObservationLine> lines =
                [
                    .. draws.Select((d, i) => Line(i, Map.Skills[d.Item1], (Support)d.Item2, (Setting)d.Item3, Today.AddDays(-d.Item4), d.Item5.Trim())),
                ];
                var reading = Read(ObservationCsv.Write(lines, Map));
                reading.Faults.ShouldBeEmpty();
                reading.Lines.ShouldBe(lines);
            });

    [Fact]
    public void No_field_is_taken_for_a_formula_by_a_spreadsheet()
    {
        var csv = ObservationCsv.Write([Line(1, Map.Skills[0], Support.Alone, Setting.Group, Today, "=HYPERLINK(\"x\")")], Map);
        csv.ShouldContain("\"'=HYPERLINK");
        Read(csv).Lines.Single().Note.ShouldBe("=HYPERLINK(\"x\")");
    }

    [Fact]
    public void Every_fault_is_named_by_line_and_column_at_once()
    {
        var reading = Read(
            "Child;Skill;Day;Time;Support;Slip;Shown with\nKofi M.;count.say-5;2026-13-01;25:00;Alone;;\nGus;see.none;2026-11-24;;Sometimes;;ears\nKofi M.;bond.split-4;24/11/2026;9:30;not yet;made-up;\n"
        );
        reading
            .Faults.Select(f => (f.Row, f.Column))
            .ShouldBe([(2, "Day"), (2, "Time"), (3, "Child"), (3, "Skill"), (3, "Support"), (3, "Shown with"), (4, "Slip")]);
        reading.Faults.ShouldAllBe(f => f.Reason.Length > 10);
        reading.Lines.ShouldBeEmpty();
    }

    [Theory]
    [InlineData("", "The file is empty.")]
    [InlineData("Child,Day\nKofi M.,2026-11-24\n", "There is no column “Skill” and no column “Support”.")]
    public void A_file_that_is_none_says_why(string text, string reason) => Read(text).Faults.Single().Reason.ShouldBe(reason);

    [Fact]
    public void The_same_row_has_the_same_id_each_time_and_stands_once_in_a_file()
    {
        const string Row = "kofi m.,Say to five,24.11.2026,alone\n";
        var id = Read("Child,Skill,Day,Support\n" + Row).Lines.Single().Id;
        Read("Child,Skill,Day,Support\n" + Row).Lines.Single().Id.ShouldBe(id);
        Read("Child,Skill,Day,Support\n" + Row + Row).Faults.Single().Reason.ShouldBe("The same observation stands in line 2.");
    }

    [Fact]
    public void Statements_have_what_xAPI_asks_for_and_no_name_and_no_note()
    {
        var line = Line(1, Map[new("bond.hidden-5")], Support.Prompted, Setting.Choice, Today, "Kofi said so") with
        {
            WithdrawnWhy = "Wrong child",
            Numbers = "5=2+3",
        };
        var statements = Statements.Of([line], Map, _ => "child-7").Select(s => JsonDocument.Parse(s).RootElement).ToList();
        statements.Count.ShouldBe(2);
        statements.ShouldAllBe(s =>
            s.GetProperty("actor").ValueKind == JsonValueKind.Object
            && s.GetProperty("verb").GetProperty("id").GetString()!.Contains(':')
            && s.GetProperty("object").ValueKind == JsonValueKind.Object
        );
        statements[0].GetProperty("result").GetProperty("success").GetBoolean().ShouldBeFalse();
        statements[0].GetProperty("timestamp").GetString().ShouldBe("2026-11-25T09:00:00.000Z");
        statements[0].GetProperty("context").GetProperty("extensions").GetProperty("urn:fobble:numbers").GetString().ShouldBe("5=2+3");
        statements[0].ToString().ShouldNotContain("Kofi");
        statements[1].GetProperty("object").GetProperty("id").GetString().ShouldBe($"{line.Id}");
    }

    [Fact]
    public async Task A_childs_file_keeps_to_its_published_schema_and_is_read_back()
    {
        var file = Child();
        var schema = await JsonSchema.FromJsonAsync(ChildFile.Schema);
        schema.Validate(Encoding.UTF8.GetString(file.Write())).ShouldBeEmpty();
        schema.Validate(Encoding.UTF8.GetString(file.Write()).Replace("\"notYet\"", "\"perhaps\"", StringComparison.Ordinal)).ShouldNotBeEmpty();
        var (back, faults) = ChildFile.Read(file.Write(), Today);
        faults.ShouldBeEmpty();
        back!.Child.ShouldBe(file.Child);
        back.Observations.ShouldBe(file.Observations);
        back.Skills.ShouldBe(file.Skills);
        back.Checks.Single().Inferred.ShouldBe(file.Checks.Single().Inferred);
    }

    [Fact]
    public void A_childs_file_with_two_of_one_id_or_of_tomorrow_is_refused()
    {
        var file = Child();
        ChildFile.Read((file with { Observations = [file.Observations[0], file.Observations[0]] }).Write(), Today).Faults.Single().ShouldContain("2 times");
        ChildFile.Read(file.Write(), Today.AddDays(-30)).Faults.ShouldAllBe(f => f.Contains("still to come"));
    }

    [Fact]
    public void A_photo_is_scaled_down_turned_upright_and_freed_of_all_else()
    {
        using SKBitmap wide = new(3000, 1000);
        wide.Erase(SKColors.Goldenrod);
        var copy = PhotoCopy.Of(WithOrientation(wide.Encode(SKEncodedImageFormat.Jpeg, 90).ToArray(), 6))!;
        using var picture = SKBitmap.Decode(copy);
        (picture.Width, picture.Height).ShouldBe((426, 1280));
        Encoding.Latin1.GetString(copy).ShouldNotContain("Exif");
        PhotoCopy.Of([1, 2, 3]).ShouldBeNull();
    }

    [Fact]
    public void A_photo_is_printed_on_the_page_it_lies_on()
    {
        using SKBitmap small = new(40, 30);
        small.Erase(SKColors.SteelBlue);
        var sheet = new Sheet(
            "Page",
            Paper.Of(PaperSize.A4),
            Today,
            [new(new(210, 297, [], "A page"), false) { Photos = [new(small.Encode(SKEncodedImageFormat.Jpeg, 90).ToArray(), 20, 30, 56, 42)] }]
        );
        using var pdf = PdfDocument.Open(SheetWriter.Pdf(sheet, Ink.Saving));
        var box = pdf.GetPage(1).GetImages().Single().BoundingBox;
        (box.Left / 72 * 25.4).ShouldBe(20, 0.2);
        (box.Width / 72 * 25.4).ShouldBe(56, 0.2);
    }

    private static ObservationReading Read(string csv) =>
        ObservationCsv.Read(Encoding.UTF8.GetBytes(csv), Map, Children, Today, SchoolZone.Universal, "Ines Okonjo");

    private static ObservationLine Line(int i, Skill skill, Support support, Setting setting, DateOnly day, string note) =>
        new(
            new Guid(i + 1, 0, 0, new byte[8]),
            Children[i % 2],
            skill.Id,
            new(day.ToDateTime(new(9, 0)), TimeSpan.Zero),
            day,
            "Tomasz Birk",
            setting,
            support,
            skill.ShownIn[^1],
            null,
            skill.Slips[0].Id,
            null,
            note.Length > 0 ? note : null,
            null
        );

    private static ChildFile Child() =>
        new(
            ChildFile.FormatName,
            ChildFile.CurrentVersion,
            Today,
            new("Lantern Hill School", "Rowan"),
            new("Kofi", "Mensah", new(2021, 3, 4)),
            [
                new("count.say-5", "I can say the numbers to five in order.", 4, false, Today.AddDays(-9)),
                new("see.to-3", "I can see up to three without counting.", 1, false),
            ],
            [
                new(
                    Guid.NewGuid(),
                    "count.say-5",
                    new(2026, 11, 20, 9, 0, 0, TimeSpan.Zero),
                    new(2026, 11, 20),
                    "Ines Okonjo",
                    Setting.Group,
                    Support.Alone,
                    Representation.Spoken,
                    "say:5",
                    null,
                    null,
                    "twice"
                ),
                new(
                    Guid.NewGuid(),
                    "see.to-3",
                    new(2026, 11, 23, 9, 0, 0, TimeSpan.Zero),
                    new(2026, 11, 23),
                    "Ines Okonjo",
                    Setting.OneToOne,
                    Support.NotYet,
                    Representation.Objects,
                    null,
                    null,
                    null,
                    null,
                    new(new(2026, 11, 23, 10, 0, 0, TimeSpan.Zero), "Ines Okonjo", "Wrong child")
                ),
            ],
            [new(new(2026, 9, 14), new Dictionary<string, double> { ["count.say-10"] = 0.83 })]
        );

    // A JPEG as a camera writes it that was held upright: an Exif segment with the orientation alone.
    private static byte[] WithOrientation(byte[] jpeg, byte orientation)
    {
        byte[] exif = [0x45, 0x78, 0x69, 0x66, 0, 0, 0x4D, 0x4D, 0, 0x2A, 0, 0, 0, 8, 0, 1, 1, 0x12, 0, 3, 0, 0, 0, 1, 0, orientation, 0, 0, 0, 0, 0, 0];
        return [.. jpeg[..2], 0xFF, 0xE1, 0, (byte)(exif.Length + 2), .. exif, .. jpeg[2..]];
    }
}
