using Fobble.Core.Evidence;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;

namespace Fobble.Core.Reports;

/// <summary>One strand of a class in sentences.</summary>
public sealed record StrandSummary(string Strand, IReadOnlyList<string> Sentences);

/// <summary>Where a class stands, for a maths lead or a head: strand by strand in plain words, without a name of a child.</summary>
public sealed record ClassSummary(string Class, DateOnly Day, string Opening, IReadOnlyList<StrandSummary> Strands, IReadOnlyList<string> ToWatch)
{
    private const int MostToWatch = 4;

    public static ClassSummary Of(string className, ClassEvidence evidence, DateOnly since)
    {
        ArgumentNullException.ThrowIfNull(evidence);
        var count = evidence.Children.Count;
        var secured = evidence.Children.Sum(c =>
            evidence.Map.Skills.Count(s =>
                evidence[c, s.Id].Strength >= Strength.Secure && evidence.StepsOf(c, s.Id).First(step => step.Strength == Strength.Secure).Day >= since
            )
        );
        var unseen = evidence.Children.Count(c => evidence.Map.Skills.All(s => evidence.Seen(c, s.Id).All(o => o.Day < evidence.Today.AddDays(-14))));
        return new(
            className,
            evidence.Today,
            count == 0
                ? Phrase("No children yet.")
                : Phrase(
                    $"{Words.Capital(Words.Count(count, "child", "children"))}. Since {Words.Date(since)} {Words.Count(secured, "skill has", "skills have")} become secure, all children together{(unseen == 0 ? "; everyone was seen within the last two weeks" : $"; {Words.Count(unseen, "child was", "children were")} not seen within the last two weeks")}."
                ),
            [.. evidence.Map.Strands.Select(strand => new StrandSummary(strand.Name, SentencesFor(evidence, strand))).Where(s => s.Sentences.Count > 0)],
            [
                .. evidence
                    .Map.Skills.Select(s => (s, due: evidence.InDoubt(s.Id)))
                    .Where(p => p.due > 1)
                    .OrderByDescending(p => p.due)
                    .Take(MostToWatch)
                    .Select(p => Phrase($"{p.s.Short}: to be looked at again with {Words.Count(p.due, "child", "children")}.")),
            ]
        );
    }

    public Sheet ToSheet(PaperSize size)
    {
        var paper = Paper.Of(size);
        PageBuilder page = new(paper);
        page.NewPage();
        page.Text(PageBuilder.Margin, page.Y + 5, 9, Class);
        page.Text(PageBuilder.Margin, page.Y + 15, 4.4, Phrase($"Numbers and counting · {Words.Date(Day)} {Day.Year}"), Pictures.ShapeRole.Note);
        page.Y += 22;
        page.Paragraph(4.4, Opening);
        foreach (
            var (heading, sentences) in Strands.Select(s => (s.Strand, s.Sentences)).Concat(ToWatch.Count > 0 ? [(Phrase("To look at again"), ToWatch)] : [])
        )
        {
            page.Need(22);
            page.Y += 3;
            page.Rule(PageBuilder.Margin, page.Y, page.Right);
            page.Y += 5;
            page.Text(PageBuilder.Margin, page.Y, 5, heading);
            page.Y += 5;
            foreach (var sentence in sentences)
            {
                page.Need(10);
                page.Paragraph(4.2, sentence);
            }
        }

        return new Sheet(
            $"{Class}, {Words.Date(Day)}",
            paper,
            Day,
            page.Finished(Phrase($"{Class} · no child is named on this page"), Phrase($"Summary of {Class}"))
        );
    }

    // The last thing that nearly all can do, what the class is in the middle of, and what has just begun.
    private static List<string> SentencesFor(ClassEvidence evidence, Strand strand)
    {
        var count = evidence.Children.Count;
        var own = evidence
            .Map.Skills.Where(s => s.Strand == strand.Id)
            .Select(s =>
                (
                    s,
                    has: evidence.Children.Count(c => evidence[c, s.Id].Strength >= Strength.Secure),
                    begun: evidence.Children.Count(c => evidence[c, s.Id].Strength is > Strength.NotSeen and < Strength.Secure)
                )
            )
            .ToList();
        List<string> sentences = [];
        if (count == 0)
        {
            return sentences;
        }

        if (own.Where(p => p.has >= 0.8 * count).Select(p => p.s).LastOrDefault() is { } firm)
        {
            sentences.Add(Phrase($"Nearly all can do this: {Lower(firm)}."));
        }

        foreach (var middle in own.Where(p => p.has >= 0.3 * count && p.has < 0.8 * count).TakeLast(2))
        {
            sentences.Add(Phrase($"{Words.Capital(Words.Number(middle.has))} of {Words.Number(count)} can do this: {Lower(middle.s)}."));
        }

        if (own.Where(p => p.has < 0.3 * count && p.begun > 0).OrderByDescending(p => p.begun).Select(p => p.s).FirstOrDefault() is { } young)
        {
            sentences.Add(Phrase($"Just begun: {Lower(young)}."));
        }

        return sentences;
    }

    private static string Lower(Skill skill) =>
        FamilyPage.Aim(skill.ICan) is var words && words.StartsWith("to ", StringComparison.Ordinal) ? words[3..] : words;
}
