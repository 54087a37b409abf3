using Fobble.Core.Sheets;

namespace Fobble.Core.Reports;

/// <summary>Headings with sentences under them, on as many pages as they need: what somebody has asked to be told, to be read and filed.</summary>
public sealed record PlainPages(string Title, string Foot, DateOnly Day, IReadOnlyList<(string Heading, IReadOnlyList<string> Sentences)> Parts)
{
    private const double TextSize = 4;
    private const double HeadingSize = 5;

    public Sheet ToSheet(PaperSize size)
    {
        var paper = Paper.Of(size);
        PageBuilder page = new(paper);
        page.NewPage();
        page.Text(PageBuilder.Margin, page.Y + 4, 8, Title);
        page.Y += 14;
        foreach (var (heading, sentences) in Parts.Where(p => p.Sentences.Count > 0))
        {
            page.Need(HeadingSize * 5);
            page.Y += 3;
            page.Rule(PageBuilder.Margin, page.Y, page.Right);
            page.Y += 5;
            page.Text(PageBuilder.Margin, page.Y, HeadingSize, heading);
            page.Y += 5;
            foreach (var sentence in sentences)
            {
                page.Need(page.HeightOf(TextSize, sentence));
                page.Paragraph(TextSize, sentence);
            }
        }

        return new Sheet(Title, paper, Day, page.Finished(Foot, Title));
    }
}
