using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Core.Portraits;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;

namespace Fobble.Core.Reports;

/// <summary>A photo for a page, with a line under it.</summary>
public sealed record ReportPhoto(byte[] Jpeg, string Caption);

/// <summary>
/// One page for the family of one child: what it can do, what is new, what it works on, what to try at home. Plain words; no level, no number
/// that compares, nothing about other children, and nothing that names a difficulty.
/// </summary>
public sealed record FamilyPage(
    string Child,
    string Class,
    DateOnly Day,
    IReadOnlyList<string> New,
    IReadOnlyList<(string Strand, IReadOnlyList<string> Can)> Can,
    IReadOnlyList<string> Working,
    IReadOnlyList<string> Home
)
{
    /// <summary>Of the first thing that is told: what it looks like where it is played.</summary>
    public Picture? Learned { get; init; }

    private const int MostNew = 5;
    private const int MostWorking = 4;
    private const int MostHome = 3;
    private const int MostAStrand = 3;
    private const double TextSize = 4.4;
    private const double PhotoWidth = 56;
    private const double PictureWidth = 60;
    private const double PictureHeight = 15;
    private const double LargestScale = 7;
    private const double PhotoHeight = 42;

    /// <param name="pictureOf">What a skill looks like where it is played; null where it is heard or done.</param>
    /// <param name="since">What became secure from this day on is new.</param>
    public static FamilyPage Of(
        string child,
        string className,
        ClassEvidence evidence,
        ChildPortrait portrait,
        ChildId id,
        DateOnly since,
        Wording words,
        Func<SkillId, Picture?> pictureOf
    )
    {
        ArgumentNullException.ThrowIfNull(evidence);
        ArgumentNullException.ThrowIfNull(portrait);
        var map = evidence.Map;
        var secure = map.Skills.Where(s => evidence[id, s.Id].Strength >= Strength.Secure).ToList();
        var fresh = secure
            .Select(s => (s, day: evidence.StepsOf(id, s.Id).First(step => step.Strength == Strength.Secure).Day))
            .Where(p => p.day >= since)
            .OrderByDescending(p => p.day)
            .Take(MostNew)
            .Select(p => p.s)
            .ToList();

        // The last ones in teaching order say most: who can do them can do what comes before.
        var can = map
            .Strands.Select(strand =>
                (strand.Name, own: secure.Where(s => s.Strand == strand.Id && !fresh.Contains(s)).TakeLast(MostAStrand).Select(s => s.ICan).ToList())
            )
            .Where(p => p.own.Count > 0)
            .Select(p => (p.Name, (IReadOnlyList<string>)p.own))
            .ToList();
        var next = portrait.NextSteps.Select(n => n.Skill).Take(MostWorking).ToList();
        return new(
            child,
            className,
            evidence.Today,
            [.. fresh.Select(s => s.ICan)],
            can,
            [.. next.Select(s => Aim(map[s].ICan))],
            [.. next.Select(s => HomeTips.For(s, words)).OfType<string>().Distinct().Take(MostHome)]
        )
        {
            Learned = fresh.Concat(secure.AsEnumerable().Reverse()).Select(s => pictureOf(s.Id)).FirstOrDefault(p => p is not null),
        };
    }

    /// <summary>"I can count back from ten." as "to count back from ten".</summary>
    internal static string Aim(string iCan)
    {
        var bare = iCan.TrimEnd('.');
        return bare.StartsWith("I can ", StringComparison.Ordinal) ? Phrase($"to {bare[6..]}")
            : bare.StartsWith("I know ", StringComparison.Ordinal) ? Phrase($"to know {bare[7..]}")
            : bare;
    }

    public Sheet ToSheet(PaperSize size, IReadOnlyList<ReportPhoto>? photos = null)
    {
        var paper = Paper.Of(size);
        PageBuilder page = new(paper);
        page.NewPage();
        page.Text(PageBuilder.Margin, page.Y + 5, 9, Child);
        page.Text(PageBuilder.Margin, page.Y + 15, TextSize, Phrase($"{Class} · {Words.Date(Day)} {Day.Year} · numbers and counting"), Pictures.ShapeRole.Note);
        if (Learned is { } learned)
        {
            page.Fit(learned, page.Right - PictureWidth, page.Y - 5, PictureWidth, PictureHeight, LargestScale);
        }

        page.Y += 22;
        Part(page, Phrase("New since the term began"), New);
        if (Can.Count > 0)
        {
            Heading(page, New.Count > 0 ? Phrase("And also") : Phrase("What I can do"));
            foreach (var (strand, lines) in Can)
            {
                page.Need(16);
                page.Text(PageBuilder.Margin, page.Y + 3, 3.6, strand, Pictures.ShapeRole.Note);
                page.Y += 5;
                Lines(page, lines);
            }
        }

        if (New.Count == 0 && Can.Count == 0)
        {
            Part(page, Phrase("Where we are"), [Phrase("We have just begun to watch and note. There will be more to say soon.")]);
        }

        Part(page, Phrase("I am learning"), [.. Working.Select(w => Words.Capital(w) + ".")]);
        Part(page, Phrase("To try at home, a minute or two"), Home);
        if (Home.Count > 0)
        {
            page.Y += 1;
            page.Paragraph(3.4, Phrase("Stay beside your child with small things, which can be swallowed."));
        }

        var placed = Photos(page, photos ?? []);
        return new Sheet(
            $"{Child}, {Words.Date(Day)}",
            paper,
            Day,
            [
                .. page.Finished(Phrase($"For the family of {Child}"), Phrase($"For the family of {Child}"))
                    .Select((p, i) => p with { Photos = [.. placed.Where(f => f.Page == i).Select(f => f.Photo)] }),
            ]
        );
    }

    private static void Part(PageBuilder page, string heading, IReadOnlyList<string> lines)
    {
        if (lines.Count > 0)
        {
            Heading(page, heading);
            Lines(page, lines);
        }
    }

    private static void Heading(PageBuilder page, string text)
    {
        page.Need(34);
        page.Y += 3;
        page.Rule(PageBuilder.Margin, page.Y, page.Right);
        page.Y += 6;
        page.Text(PageBuilder.Margin, page.Y, 5.2, text);
        page.Y += 6;
    }

    private static void Lines(PageBuilder page, IReadOnlyList<string> lines)
    {
        foreach (var line in lines)
        {
            page.Need(10);
            page.Add(Pictures.Shape.Circle($"dot-{page.Y:0.0}", Pictures.ShapeRole.CounterA, PageBuilder.Margin + 2, page.Y + (TextSize * 0.75), 2.2));
            page.Paragraph(TextSize, line, PageBuilder.Margin + 6);
            page.Y += 0.8;
        }
    }

    private static List<(int Page, PagePhoto Photo)> Photos(PageBuilder page, IReadOnlyList<ReportPhoto> photos)
    {
        List<(int, PagePhoto)> placed = [];
        var x = PageBuilder.Margin;
        foreach (var photo in photos)
        {
            if (x > PageBuilder.Margin && x + PhotoWidth > page.Right)
            {
                (x, page.Y) = (PageBuilder.Margin, page.Y + PhotoHeight + 10);
            }

            page.Need(PhotoHeight + 10);
            placed.Add((page.Pages - 1, new(photo.Jpeg, x, page.Y + 3, PhotoWidth, PhotoHeight)));
            page.Text(x, page.Y + PhotoHeight + 6, 3.2, photo.Caption, Pictures.ShapeRole.Note);
            x += PhotoWidth + 5;
        }

        return placed;
    }
}
