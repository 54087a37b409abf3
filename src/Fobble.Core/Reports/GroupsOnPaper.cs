using Fobble.Core.Evidence;
using Fobble.Core.Pictures;
using Fobble.Core.Sheets;

namespace Fobble.Core.Reports;

/// <summary>A group as it is put on paper.</summary>
/// <param name="Names">First names only: the page may hang on a wall.</param>
public sealed record GroupOnPaper(
    DateOnly Day,
    TimeOnly Start,
    string Adult,
    string Where,
    string Aim,
    string ICan,
    string Activity,
    IReadOnlyList<string> Names
);

/// <summary>The groups of a week on paper: one page for the wall, without aims, and cards for the adults who take them.</summary>
public sealed record GroupsOnPaper(string ClassName, DateOnly Monday, IReadOnlyList<GroupOnPaper> Groups, PaperSize Size, DateOnly Made)
{
    private const double CardHeight = 64;
    private const double NameSize = 7;
    private const double NameSizeOnWall = 9;
    private const double WhenSizeOnWall = 4;
    private const double SignSize = 15;
    private const double BesideSign = SignSize + 5;

    /// <summary>For the wall, to be read by children and families: when, with whom, who. What a group works on is not said there, so that nobody is placed by it.</summary>
    public Sheet Wall()
    {
        var (page, title) = Begin(Phrase("Who works with whom"));
        foreach (var day in Groups.GroupBy(g => g.Day))
        {
            page.Need(16 + HeightOnWall(page, day.First()));
            page.Y += 3;
            page.Rule(PageBuilder.Margin, page.Y, page.Right);
            page.Y += 7;
            page.Text(PageBuilder.Margin, page.Y, 6, Words.Weekday(day.Key));
            page.Y += 3;
            foreach (var group in day)
            {
                page.Need(HeightOnWall(page, group));
                page.Y += 2;
                var top = page.Y;
                // Who does not read yet finds the table by its dots.
                page.Fit(SignOf(group.Where), PageBuilder.Margin, page.Y + 1, SignSize, SignSize);
                page.Paragraph(WhenSizeOnWall, WhenAndWhere(group), PageBuilder.Margin + BesideSign);
                page.Paragraph(NameSizeOnWall, Together(group), PageBuilder.Margin + BesideSign);
                page.Y = Math.Max(page.Y, top + SignSize + 2);
            }
        }

        return new(title, Paper.Of(Size), Made, page.Finished(ClassName, title));
    }

    /// <summary>A card for each group, to be cut out: aim, activity, who.</summary>
    public Sheet Cards()
    {
        var (page, title) = Begin(Phrase("Cards for the small groups"));
        foreach (var group in Groups)
        {
            page.Need(CardHeight);
            var top = page.Y;
            page.Cut(PageBuilder.Margin, top, page.Right, top);
            page.Y += 7;
            page.Fit(SignOf(group.Where), page.Right - SignSize, top + 2, SignSize, SignSize);
            page.Text(PageBuilder.Margin, page.Y, 4.4, $"{Words.Weekday(group.Day)} {Words.Clock(group.Start)} · {group.Adult} · {group.Where}");
            page.Y += 9;
            page.Text(PageBuilder.Margin, page.Y, 7, group.Aim);
            page.Y += 4;
            page.Paragraph(4, group.ICan);
            page.Paragraph(4, group.Activity);
            page.Y += 3;
            page.Paragraph(NameSize, Together(group));
            page.Y = Math.Max(page.Y, top + CardHeight);
        }

        return new(title, Paper.Of(Size), Made, page.Finished(ClassName, title));
    }

    private static string WhenAndWhere(GroupOnPaper group) => Phrase($"{Words.Clock(group.Start)} with {group.Adult}, {group.Where.ToLowerInvariant()}");

    // A name stays whole at the end of a line.
    private static string Together(GroupOnPaper group) => string.Join("  ·  ", group.Names.Select(n => n.Replace(' ', '\u00A0')));

    private static double HeightOnWall(PageBuilder page, GroupOnPaper group) =>
        4
        + Math.Max(
            SignSize,
            page.HeightOf(WhenSizeOnWall, WhenAndWhere(group), PageBuilder.Margin + BesideSign)
                + page.HeightOf(NameSizeOnWall, Together(group), PageBuilder.Margin + BesideSign)
        );

    /// <summary>Each table has a face of a die, the same on the wall and on its cards; beyond six a number of counters in a circle.</summary>
    private Picture SignOf(string table)
    {
        var number = 1 + Groups.Select(g => g.Where).Distinct().Order(StringComparer.Ordinal).ToList().IndexOf(table);
        return number <= 6 ? Patterns.Dice(number) : Patterns.InCircle(number);
    }

    private (PageBuilder Page, string Title) Begin(string what)
    {
        PageBuilder page = new(Paper.Of(Size));
        page.NewPage();
        page.Text(PageBuilder.Margin, page.Y + 4, 9, what);
        page.Y += 10;
        page.Paragraph(
            4.2,
            Groups.Count == 0
                ? Phrase($"{ClassName}: no groups have been accepted for the week of {Words.Date(Monday)}.")
                : Phrase($"{ClassName}, week of {Words.Date(Monday)}")
        );
        return (page, Phrase($"{what}, week of {Words.Date(Monday)}"));
    }
}
