using Fobble.Core.Pictures;
using Fobble.Core.Sheets;

namespace Fobble.Core.Reports;

/// <summary>A part of a plan on paper: a heading and lines under it.</summary>
public sealed record PlanPageBlock(string Heading, IReadOnlyList<string> Lines)
{
    /// <summary>What it is about, to be seen from further off; null for none.</summary>
    public Picture? Picture { get; init; }
}

/// <summary>A day or a term on paper, to be read standing.</summary>
public sealed record PlanPage(string Title, string Under, IReadOnlyList<PlanPageBlock> Blocks)
{
    private const double PictureWidth = 70;
    private const double PictureHeight = 30;

    public Sheet ToSheet(string className, PaperSize size, DateOnly made)
    {
        var paper = Paper.Of(size);
        PageBuilder page = new(paper);
        page.NewPage();
        page.Text(PageBuilder.Margin, page.Y + 4, 8, Title);
        page.Y += 9;
        page.Paragraph(4.2, $"{className} · {Under}");
        foreach (var block in Blocks.Where(b => b.Lines.Count > 0 || Blocks.Count <= 5))
        {
            // A heading stays with its first lines.
            page.Need(6 + (Math.Min(3, block.Lines.Count) * 6));
            page.Y += 2;
            page.Rule(PageBuilder.Margin, page.Y, page.Right);
            page.Y += 5;
            page.Text(PageBuilder.Margin, page.Y, 4.6, block.Heading);
            page.Y += 4;
            foreach (var line in block.Lines)
            {
                page.Need(7);
                page.Paragraph(4, line, PageBuilder.Margin + 4);
            }

            if (block.Picture is { } picture)
            {
                page.Need(PictureHeight + 4);
                page.Fit(picture, PageBuilder.Margin + 4, page.Y + 2, PictureWidth, PictureHeight);
                page.Y += PictureHeight + 4;
            }
        }

        return new Sheet($"{Title}, {className}", paper, made, page.Finished(className, Title));
    }
}
