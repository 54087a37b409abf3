using Fobble.Core.Sheets;

namespace Fobble.Core.Reports;

/// <summary>A day of a week on paper.</summary>
public sealed record DayColumn(string Heading, IReadOnlyList<PlanPageBlock> Blocks);

/// <summary>A week to pin to the wall: one page on its side, a column a day.</summary>
public sealed record WeekOnPaper(string Title, string Under, IReadOnlyList<DayColumn> Days)
{
    // Sizes of letters to try, in millimetres, until all of it is on the page; below the last nobody could read it from the door.
    private static readonly double[] Sizes = [4.2, 3.8, 3.4, 3.0, 2.7];
    private const double Between = 5;

    public Sheet ToSheet(string className, PaperSize size, DateOnly made)
    {
        var upright = Paper.Of(size);
        Paper paper = new(upright.Height, upright.Width);
        var page = Sizes.Select(s => Laid(paper, className, s)).FirstOrDefault(p => p.Fits).Page ?? Laid(paper, className, Sizes[^1]).Page;
        return new Sheet($"{Title}, {className}", paper, made, page.Finished(className, Title));
    }

    private (PageBuilder Page, bool Fits) Laid(Paper paper, string className, double size)
    {
        PageBuilder page = new(paper);
        page.NewPage();
        page.Text(PageBuilder.Margin, page.Y + 3, 7, Title);
        page.Text(PageBuilder.Margin, page.Y + 9.5, 3.6, $"{className} · {Under}");
        var (top, fits) = (page.Y + 14, true);
        var width = (page.Width - (Between * (Days.Count - 1))) / Math.Max(1, Days.Count);
        foreach (var (day, i) in Days.Select((d, i) => (d, i)))
        {
            var left = PageBuilder.Margin + (i * (width + Between));
            page.Y = top;
            page.Rule(left, page.Y, left + width);
            page.Y += 2;
            page.Paragraph(size * 1.2, day.Heading, left, width);
            foreach (var block in day.Blocks)
            {
                page.Y += size * 0.9;
                page.Paragraph(size, block.Heading, left, width);
                page.Rule(left, page.Y + 0.3, left + (width / 4));
                page.Y += size * 0.4;
                foreach (var line in block.Lines)
                {
                    page.Paragraph(size, line, left, width);
                    page.Y += size * 0.25;
                }
            }

            fits &= page.Y <= page.Floor;
        }

        return (page, fits);
    }
}
