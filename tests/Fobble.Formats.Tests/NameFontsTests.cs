using System.Diagnostics;
using Fobble.Core.People;
using Fobble.Core.Pictures;
using Fobble.Core.Sheets;
using Fobble.Formats.Fonts;
using Fobble.Formats.Print;

namespace Fobble.Formats.Tests;

/// <summary>Names of many scripts on paper, read back by poppler, which does not know how they were made.</summary>
public class NameFontsTests
{
    public static TheoryData<string, string> Names =>
        new()
        {
            { "مريم", "الخطيب" },
            { "山田", "太郎" },
            { "王", "小明" },
            { "김", "서연" },
            { "Ганна", "Шевченко" },
            { "Ζωή", "Παππά" },
            { "ශ්‍රී", "පෙරේරා" },
            { "กานต์", "ศรีสุข" },
            { "नीलाक्षी", "शर्मा" },
            { "যশোধরা", "চট্টোপাধ্যায়" },
            { "தமிழ்", "செல்வி" },
            { "רבקה", "כהן" },
            { "ሰላም", "ተስፋዬ" },
            { "ანა", "ბერიძე" },
            { "Անի", "Գրիգորյան" },
            { "Ọ̀ṣun", "Adébáyọ̀" },
            { "Kaʻiulani", "Kealoha" },
            { "Trần", "Nguyễn" },
        };

    [Theory]
    [MemberData(nameof(Names))]
    public void A_name_of_any_script_is_whole_on_paper_and_can_be_read_back(string given, string family)
    {
        NameFonts.Missing($"{given} {family}").ShouldBeEmpty();
        var name = ShortNames.Of([new(given, family), new(given, family + "x")])[0];
        var file = SheetWriter.Pdf(Page(name, $"For the family of {name}, 3 of 5"), Ink.Full);

        // A typeface a script, cut to what is needed: never a whole font.
        file.Length.ShouldBeLessThan(250_000);
        var read = Read(file);
        read.Count.ShouldBe(2);
        read[0].ShouldBe(Seen(name));
        read[1].ShouldContain(Seen(name));
    }

    [Theory]
    [MemberData(nameof(Names))]
    public void On_paper_and_as_outlines_a_name_is_drawn_by_the_letters_it_has(string given, string family)
    {
        // What stands for letters that no font has is a dot of one outline; a name has more.
        var runs = TextRun.Of($"{given} {family}");
        runs.ShouldNotContain(r => r.Text.Contains('·', StringComparison.Ordinal));
        runs.Sum(r => r.WidthAt(10)).ShouldBeGreaterThan(10);
        SheetWriter.Svg(Page($"{given} {family}").Pages[0], Ink.Full).Length.ShouldBeGreaterThan(SheetWriter.Svg(Page("").Pages[0], Ink.Full).Length + 600);
    }

    [Fact]
    public void A_name_from_right_to_left_stands_in_its_own_order_and_leaves_the_sentence_in_its()
    {
        var name = ShortNames.Of([new("مريم", "الخطيب")])[0];
        var runs = TextRun.Of($"For {name} and Bo");
        var order = runs.Select(r => r.Text.Replace('\u00A0', ' ')).ToList();
        order.ShouldBe(["For ", ".", "ا", " ", "مريم", " and Bo"]);

        // Outside of a name as well, as where an adult's or a school's name is printed.
        TextRun.Of("At دار السلام today").Select(r => r.Text).ShouldBe(["At ", "السلام", " ", "دار", " today"]);
    }

    [Fact]
    public void What_the_usual_typeface_has_is_one_run_as_it_was_written() =>
        TextRun
            .Of("Žofia Đ. and 7 − 3")
            .ShouldHaveSingleItem()
            .ShouldSatisfyAllConditions(r => r.Text.ShouldBe("Žofia Đ. and 7 − 3"), r => r.Shaped.ShouldBeFalse());

    [Fact]
    public void What_no_font_has_is_a_dot_on_paper_and_is_asked_about_at_import()
    {
        NameFonts.Missing("Ana 🦄").ShouldBe(["🦄"]);
        TextRun.Of("Ana 🦄!").Select(r => r.Text).ShouldBe(["Ana ·!"]);
    }

    [Fact]
    public void Accents_written_apart_are_joined_to_their_letter() => TextRun.Of("Zoe\u0308").Single().Text.ShouldBe("Zoë");

    [Fact]
    public void Each_piece_of_the_fonts_can_be_fetched_by_a_browser_and_read()
    {
        var css = NameFonts.Css(piece => piece, han: false) + NameFonts.Css(piece => piece, han: true);
        var pieces = System.Text.RegularExpressions.Regex.Matches(css, @"url\(([\w-]+)\)").Select(m => m.Groups[1].Value).ToList();
        pieces.Count.ShouldBeGreaterThan(300);
        pieces.ShouldBeUnique();
        foreach (var piece in pieces.Where((_, i) => i % 10 == 0))
        {
            NameFonts.Woff(piece)![..4].ShouldBe("wOFF"u8.ToArray());
        }

        NameFonts.Woff("../letters").ShouldBeNull();
        Should.Throw<InvalidDataException>(() => WoffFile.Unpack(new byte[100]));
    }

    // By poppler's pdftotext, a line each, without spaces and signs for the direction, which it sets by its own judgement.
    private static List<string> Read(byte[] file)
    {
        var path = Path.GetTempFileName();
        try
        {
            File.WriteAllBytes(path, file);
            using var reader = Process.Start(new ProcessStartInfo("pdftotext", ["-layout", path, "-"]) { RedirectStandardOutput = true })!;
            var text = reader.StandardOutput.ReadToEnd();
            reader.WaitForExit();
            return [.. text.Split('\n').Select(Seen).Where(line => line.Length > 0)];
        }
        finally
        {
            File.Delete(path);
        }
    }

    private static string Seen(string text) =>
        string.Concat(
            text.Normalize().Where(c => !char.IsWhiteSpace(c) && !char.IsControl(c) && c is not (>= '\u202A' and <= '\u202E' or >= '\u2066' and <= '\u2069'))
        );

    private static Sheet Page(params string[] lines) =>
        new(
            "Names",
            Paper.Of(PaperSize.A4),
            new(2026, 11, 25),
            [new(new(210, 297, [.. lines.Select((line, i) => Shape.TextFrom($"{i}", ShapeRole.Letter, 20, 20 + (i * 14), 6, line))], "Names"), false)]
        );
}
