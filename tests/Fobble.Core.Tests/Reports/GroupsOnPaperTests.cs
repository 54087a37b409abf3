using Fobble.Core.Pictures;
using Fobble.Core.Reports;
using Fobble.Core.Sheets;

namespace Fobble.Core.Tests.Reports;

public class GroupsOnPaperTests
{
    private static GroupsOnPaper Week(int groups, int names, PaperSize size) =>
        new(
            "Rowan",
            new(2026, 11, 23),
            [
                .. Enumerable
                    .Range(0, groups)
                    .Select(g => new GroupOnPaper(
                        new DateOnly(2026, 11, 23).AddDays(g % 5),
                        new(9, 40),
                        "Ines Okonjo",
                        "Round table",
                        "Say to five",
                        "I can say the numbers to five in order.",
                        "Along the line",
                        [.. Enumerable.Range(1, names).Select(n => n % 2 == 0 ? "Maximiliane" : "Ana Si.")]
                    ))
                    .OrderBy(g => g.Day),
            ],
            size,
            new(2026, 11, 25)
        );

    [Fact]
    public void Nothing_reaches_into_the_foot_whatever_is_on_the_page()
    {
        foreach (var size in new[] { PaperSize.A4, PaperSize.Letter })
        {
            foreach (var groups in Enumerable.Range(1, 12))
            {
                foreach (var names in Enumerable.Range(2, 8))
                {
                    var week = Week(groups, names, size);
                    foreach (var page in new[] { week.Wall(), week.Cards() }.SelectMany(s => s.Pages.Select(p => (p.Picture, s.Paper))))
                    {
                        page.Picture.Shapes.Where(s => s.Role == ShapeRole.Words)
                            .ShouldAllBe(s => s.Y + (s.Height / 2) <= page.Paper.Height - PageBuilder.Bottom + 1, $"{size}, {groups} groups of {names}");
                    }
                }
            }
        }
    }

    [Fact]
    public void Four_names_of_usual_length_stand_on_one_line_of_the_wall()
    {
        var words = Week(1, 2, PaperSize.A4) with { Groups = [Week(1, 2, PaperSize.A4).Groups[0] with { Names = ["Anton", "Jonas", "Sorcha", "Vera"] }] };
        words.Wall().Pages[0].Picture.Shapes.ShouldContain(s => s.Text == "Anton  ·  Jonas  ·  Sorcha  ·  Vera");
    }
}
