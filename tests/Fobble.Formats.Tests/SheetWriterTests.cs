using System.Diagnostics;
using System.Text;
using System.Xml.Linq;
using Fobble.Core.Approaches;
using Fobble.Core.ItemSets;
using Fobble.Core.Pictures;
using Fobble.Core.Sheets;
using Fobble.Formats.Print;
using SkiaSharp;
using UglyToad.PdfPig;

namespace Fobble.Formats.Tests;

/// <summary>Printed sheets, read back by PdfPig and drawn by poppler: neither knows how they were made.</summary>
public class SheetWriterTests
{
    private const int MostBytesAPage = 60_000;
    private static readonly SheetChild[] Two = [new("Nils K", ItemHistory.None), new("Žofia Đ", ItemHistory.None)];

    public static TheoryData<SheetKind, SheetVariant> Everything => [.. SheetOffer.All.SelectMany(o => o.Variants.Select(v => (o.Kind, v)))];

    [Theory]
    [MemberData(nameof(Everything))]
    public void A_pdf_has_its_pages_true_to_size_its_words_and_one_embedded_typeface_and_is_small(SheetKind kind, SheetVariant variant)
    {
        var sheet = Make(kind, variant);
        var file = SheetWriter.Pdf(sheet, Ink.Full);
        (file.Length / sheet.Pages.Count).ShouldBeLessThan(MostBytesAPage);
        using var pdf = PdfDocument.Open(file);
        pdf.NumberOfPages.ShouldBe(sheet.Pages.Count);
        pdf.Information.Title.ShouldBe(sheet.Title);
        foreach (var page in pdf.GetPages())
        {
            // A4 is 210 × 297 mm (ISO 216); a point is 1/72 inch. Skia gives the paper in whole points, which is less than 0.2 mm off.
            page.Width.ShouldBe(210 / 25.4 * 72, 0.5);
            page.Height.ShouldBe(297 / 25.4 * 72, 0.5);
            page.Letters.Select(l => l.FontName).Distinct().ShouldAllBe(f => f!.EndsWith("FobbleChild-Regular", StringComparison.Ordinal));
            Squeezed(page.Text).ShouldContain(Squeezed("seed 48213"));
        }

        Encoding.Latin1.GetString(file).ShouldContain("/FontFile2");
    }

    [Fact]
    public void Every_word_of_a_story_page_can_be_read_back_in_every_alphabet_that_a_name_may_need()
    {
        var sheet = Make(SheetKind.Stories, SheetVariant.HalfGiven);
        using var pdf = PdfDocument.Open(SheetWriter.Pdf(sheet, Ink.Saving));
        foreach (var (page, made) in pdf.GetPages().Zip(sheet.Pages))
        {
            var read = Squeezed(page.Text);
            foreach (var text in made.Picture.Shapes.Where(s => s.Kind == ShapeKind.Text))
            {
                read.ShouldContain(Squeezed(text.Text!));
            }
        }

        SheetWriter.WidthOf("ŽĐșộ−…", 10).ShouldBeGreaterThan(20);
    }

    [Fact]
    public void No_text_runs_off_its_paper() =>
        Everything
            .ToList()
            .ForEach(o =>
            {
                var sheet = Make(o.Data.Item1, o.Data.Item2);
                foreach (var shape in sheet.Pages.SelectMany(p => p.Picture.Shapes).Where(s => s.Kind == ShapeKind.Text))
                {
                    var width = SheetWriter.WidthOf(shape.Text!, shape.Height);
                    var left = shape.FromLeft ? shape.X : shape.X - (width / 2);
                    left.ShouldBeGreaterThan(5, shape.Text);
                    (left + width).ShouldBeLessThan(sheet.Paper.Width - 5, shape.Text);
                }
            });

    [Fact]
    public void Letter_paper_is_eight_and_a_half_by_eleven_inches()
    {
        using var pdf = PdfDocument.Open(SheetWriter.Pdf(Make(SheetKind.TenFrames, SheetVariant.Blank, PaperSize.Letter), Ink.Full));
        pdf.GetPage(1).Width.ShouldBe(612, 0.1);
        pdf.GetPage(1).Height.ShouldBe(792, 0.1);
    }

    [Fact]
    public void The_same_sheet_is_the_same_file_byte_for_byte()
    {
        var (once, again) = (Make(SheetKind.Stories, SheetVariant.Together), Make(SheetKind.Stories, SheetVariant.Together));
        SheetWriter.Pdf(once, Ink.Full).ShouldBe(SheetWriter.Pdf(again, Ink.Full));
        SheetWriter.Svg(once.Pages[0], Ink.Full).ShouldBe(SheetWriter.Svg(again.Pages[0], Ink.Full));
        SheetWriter.Png(once.Pages[0], Ink.Full, 50).ShouldBe(SheetWriter.Png(again.Pages[0], Ink.Full, 50));
    }

    [Theory]
    [InlineData(SheetKind.TenFrames, SheetVariant.Filled, Ink.Full)]
    [InlineData(SheetKind.HalfCards, SheetVariant.Whole, Ink.Saving)]
    [InlineData(SheetKind.Stories, SheetVariant.Together, Ink.Saving)]
    [InlineData(SheetKind.PracticeStrips, SheetVariant.Whole, Ink.Full)]
    public void Poppler_draws_the_pdf_as_it_is_drawn_here(SheetKind kind, SheetVariant variant, Ink ink)
    {
        const int Dots = 144;
        var sheet = Make(kind, variant);
        using var theirs = DrawnByPoppler(SheetWriter.Pdf(sheet, ink), Dots, "-png");
        using var ours = SKBitmap.Decode(SheetWriter.Png(sheet.Pages[0], ink, Dots));
        Difference(ours, theirs).ShouldBeLessThan(0.04);
        using var other = SKBitmap.Decode(SheetWriter.Png(Make(SheetKind.NumeralCards, SheetVariant.Whole).Pages[0], ink, Dots));
        Difference(other, theirs).ShouldBeGreaterThan(0.15, "the measure must tell another page from this one");
    }

    [Theory]
    [InlineData(Ink.Full)]
    [InlineData(Ink.Saving)]
    public void Printed_in_grey_the_two_parts_stay_apart(Ink ink)
    {
        var both = Frames.Ten(1, 1);
        SheetPage page = new(both with { Shapes = [.. both.Shapes.Select(s => s.Scaled(20))], Width = both.Width * 20, Height = both.Height * 20 }, false);
        using var pdf = DrawnByPoppler(
            SheetWriter.Pdf(new Sheet("Two parts", new(page.Picture.Width, page.Picture.Height), new(2026, 1, 1), [page]), ink),
            72,
            "-gray",
            "-png"
        );
        var (first, second) = (Grey(pdf, page, "counter-1"), Grey(pdf, page, "counter-2"));
        Math.Abs(first - second).ShouldBeGreaterThan(ink == Ink.Full ? 60 : 8);
    }

    [Fact]
    public void An_svg_is_a_page_true_to_size_that_says_what_it_is_and_needs_no_typeface()
    {
        var sheet = Make(SheetKind.Sentences, SheetVariant.Adding);
        var svg = XDocument.Parse(Encoding.UTF8.GetString(SheetWriter.Svg(sheet.Pages[0], Ink.Full))).Root!;
        svg.Attribute("width")!.Value.ShouldBe("210mm");
        svg.Attribute("viewBox")!.Value.ShouldBe("0 0 210 297");
        svg.Elements().First(e => e.Name.LocalName == "title").Value.ShouldStartWith("Number sentences to finish, page 1 of");
        svg.Descendants().ShouldNotContain(e => e.Name.LocalName == "text");
        svg.Descendants().Count(e => e.Name.LocalName == "path").ShouldBeGreaterThan(20);
    }

    private static Sheet Make(SheetKind kind, SheetVariant variant, PaperSize paper = PaperSize.A4)
    {
        var offer = SheetOffer.Of(kind);
        return SheetMaker.Make(
            new(kind, variant, paper, offer.Usual, Math.Max(1, offer.Count), offer.EachChild ? Two : [], Approach.Usual, 48213, new(2026, 11, 25))
        );
    }

    private static string Squeezed(string text) => string.Concat(text.Where(c => !char.IsWhiteSpace(c)));

    // The first page, drawn by poppler's pdftoppm (Debian: poppler-utils).
    private static SKBitmap DrawnByPoppler(byte[] pdf, int dots, params string[] how)
    {
        var folder = Directory.CreateTempSubdirectory("fobble-print-");
        try
        {
            var file = Path.Combine(folder.FullName, "sheet.pdf");
            File.WriteAllBytes(file, pdf);
            using var drawing = Process.Start(
                new ProcessStartInfo("pdftoppm", ["-r", $"{dots}", .. how, "-f", "1", "-l", "1", "-singlefile", file, Path.Combine(folder.FullName, "page")])
            )!;
            drawing.WaitForExit();
            drawing.ExitCode.ShouldBe(0);
            return SKBitmap.Decode(Path.Combine(folder.FullName, "page.png"));
        }
        finally
        {
            folder.Delete(recursive: true);
        }
    }

    // Mean difference of brightness between two drawings of a page, 0 to 1, looked at through blocks of eight dots so that a shift by half a dot does not count.
    private static double Difference(SKBitmap one, SKBitmap other)
    {
        const int Block = 8;
        var (columns, rows) = (Math.Min(one.Width, other.Width) / Block, Math.Min(one.Height, other.Height) / Block);
        double Mean(SKBitmap map, int column, int row)
        {
            var sum = 0.0;
            for (var i = 0; i < Block * Block; i++)
            {
                sum += Brightness(map.GetPixel((column * Block) + (i % Block), (row * Block) + (i / Block)));
            }

            return sum / (Block * Block);
        }

        var cells = Enumerable
            .Range(0, columns * rows)
            .Select(i => (First: Mean(one, i % columns, i / columns), Second: Mean(other, i % columns, i / columns)))
            .Where(c => c.First < 254 || c.Second < 254)
            .ToList();
        return cells.Average(c => Math.Abs(c.First - c.Second)) / 255;
    }

    // Mean brightness of what a shape covers.
    private static double Grey(SKBitmap drawn, SheetPage page, string key)
    {
        const double DotsPerMm = 72 / 25.4;
        var shape = page.Picture.Shapes.Single(s => s.Key == key);
        var reach = (int)(shape.Width * 0.33 * DotsPerMm);
        var (x, y) = ((int)(shape.X * DotsPerMm), (int)(shape.Y * DotsPerMm));
        return Enumerable
            .Range(-reach, 2 * reach)
            .SelectMany(dx => Enumerable.Range(-reach, 2 * reach).Select(dy => Brightness(drawn.GetPixel(x + dx, y + dy))))
            .Average();
    }

    private static double Brightness(SKColor color) => (0.2126 * color.Red) + (0.7152 * color.Green) + (0.0722 * color.Blue);
}
