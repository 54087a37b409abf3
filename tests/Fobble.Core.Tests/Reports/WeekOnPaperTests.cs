using Fobble.Core.Pictures;
using Fobble.Core.Reports;
using Fobble.Core.Sheets;

namespace Fobble.Core.Tests.Reports;

public class WeekOnPaperTests
{
    private static WeekOnPaper Week(int blocks, int words) =>
        new(
            "Week of 23 November",
            "Autumn",
            [
                .. Enumerable
                    .Range(1, 5)
                    .Select(d => new DayColumn(
                        $"Day {d}",
                        [.. Enumerable.Range(1, blocks).Select(b => new PlanPageBlock($"Part {b}", [string.Join(' ', Enumerable.Repeat("something", words))]))]
                    )),
            ]
        );

    [Theory]
    [InlineData(PaperSize.A4, 1, 3)]
    [InlineData(PaperSize.A4, 4, 14)]
    [InlineData(PaperSize.Letter, 4, 14)]
    public void A_week_is_one_page_on_its_side_with_nothing_outside_it(PaperSize size, int blocks, int words)
    {
        var sheet = Week(blocks, words).ToSheet("Rowan", size, new(2026, 11, 25));
        sheet.Paper.Width.ShouldBeGreaterThan(sheet.Paper.Height);
        var page = sheet.Pages.ShouldHaveSingleItem().Picture;
        page.Shapes.ShouldAllBe(s => s.X >= 0 && s.X <= sheet.Paper.Width && s.Y >= 0 && s.Y <= sheet.Paper.Height);
        page.Shapes.Where(s => s.Role == ShapeRole.Words).ShouldAllBe(s => s.Y <= sheet.Paper.Height - PageBuilder.Bottom + 1);
        Enumerable.Range(1, 5).ShouldAllBe(d => page.Shapes.Any(s => s.Text == $"Day {d}"));
    }

    [Fact]
    public void Little_is_written_large_and_much_smaller()
    {
        double Size(WeekOnPaper week) => week.ToSheet("Rowan", PaperSize.A4, new(2026, 11, 25)).Pages[0].Picture.Shapes.First(s => s.Text == "Part 1").Height;
        Size(Week(1, 3)).ShouldBeGreaterThan(Size(Week(5, 16)));
    }
}
