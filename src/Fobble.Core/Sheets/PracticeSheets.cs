using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;

namespace Fobble.Core.Sheets;

/// <summary>Pages that a child works on with a pencil, each with numbers of their own.</summary>
internal static class PracticeSheets
{
    public static void Fill(PageBuilder pages, SheetRequest request)
    {
        List<AnswerKey.Of> answers = [];
        foreach (var (child, seed) in Children(request))
        {
            pages.NewPage();
            pages.NameLine(child?.Name);
            switch (request.Kind)
            {
                case SheetKind.PracticeStrips:
                    Strips(pages, request, child?.Name);
                    break;
                case SheetKind.Bonds when request.Variant == SheetVariant.Blank:
                    Rows(pages, child?.Name, [.. Enumerable.Repeat(Things.Bond(null, null, null), request.Count)], 3, 58);
                    break;
                case SheetKind.Bonds:
                    var bonds = Items(request, ItemKind.BondPart, child, seed);
                    Rows(pages, child?.Name, [.. bonds.Select(b => b.Picture!)], 3, 58);
                    answers.Add(new(child?.Name, [.. bonds.Select(b => b.Case.InWords())]));
                    break;
                default:
                    var kind = request.Variant switch
                    {
                        SheetVariant.TakingAway => ItemKind.TakingAway,
                        SheetVariant.MissingAddend => ItemKind.MissingAddend,
                        _ => ItemKind.Adding,
                    };
                    var sentences = Items(request, kind, child, seed);
                    Sentences(pages, child?.Name, [.. sentences.Select(s => s.Ask)]);
                    answers.Add(new(child?.Name, [.. sentences.Select(s => s.Ask.Replace("□", s.Answer, StringComparison.Ordinal))]));
                    break;
            }
        }

        AnswerKey.Fill(pages, answers);
    }

    /// <summary>Whom the pages are for, each with a seed of their own; one page without a name where nobody is chosen.</summary>
    public static IEnumerable<(SheetChild? Child, ulong Seed)> Children(SheetRequest request) =>
        request.Children.Count == 0 ? [(null, request.Seed)] : request.Children.Select((c, i) => ((SheetChild?)c, SeededRandom.SeedOf($"{request.Seed}|{i}")));

    private static IReadOnlyList<Item> Items(SheetRequest request, ItemKind kind, SheetChild? child, ulong seed) =>
        ItemSetMaker.Make(
            new ItemRequest(kind, request.Range, request.Count, child?.History ?? ItemHistory.None, seed)
            {
                Approach = request.Approach,
                Zero = request.Range.Low == 0,
            }
        );

    private static void Rows(PageBuilder pages, string? name, IReadOnlyList<Picture> pictures, int columns, double height)
    {
        var width = pages.Width / columns;
        foreach (var row in pictures.Chunk(columns))
        {
            if (pages.Need(height))
            {
                pages.NameLine(name);
            }

            foreach (var (picture, column) in row.Select((p, i) => (p, i)))
            {
                pages.Fit(picture, PageBuilder.Margin + (column * width) + 4, pages.Y + 4, width - 8, height - 8);
            }

            pages.Y += height;
        }
    }

    // In two columns, written large, with a box to write in.
    private static void Sentences(PageBuilder pages, string? name, IReadOnlyList<string> sentences)
    {
        const double Line = 19;
        const double Size = 11;
        foreach (var row in sentences.Chunk(2))
        {
            if (pages.Need(Line))
            {
                pages.NameLine(name);
            }

            foreach (var (sentence, column) in row.Select((s, i) => (s, i)))
            {
                SentenceLine(pages, PageBuilder.Margin + (column * (pages.Width / 2)), pages.Y + (Line / 2), Size, sentence);
            }

            pages.Y += Line;
        }
    }

    /// <summary>A sentence whose places for the unknown are drawn as boxes that a child can write in.</summary>
    public static void SentenceLine(PageBuilder pages, double x, double middle, double size, string sentence)
    {
        foreach (var word in sentence.Split(' '))
        {
            if (word == "□")
            {
                pages.Add(Shape.Box($"box-{x:0.0}-{middle:0.0}", ShapeRole.Cell, x, middle - (size * 0.65), size * 1.3, size * 1.3));
                x += size * 1.75;
            }
            else
            {
                pages.Text(x, middle, size, word);
                x += (word.Length * size * 0.58) + (size * 0.42);
            }
        }
    }

    private static void Strips(PageBuilder pages, SheetRequest request, string? name)
    {
        const double Height = 26;
        foreach (var number in request.Range.Numbers)
        {
            if (pages.Need(Height + 4))
            {
                pages.NameLine(name);
            }

            var (left, top) = (PageBuilder.Margin, pages.Y);
            pages.Fit(Frames.Tens(number, style: request.Approach.Frames), left, top + 2, 42, Height - 4);
            for (var box = 0; box < 5; box++)
            {
                var x = left + 47 + (box * 27);
                pages.Add(Shape.Box($"strip-{number}-{box}", ShapeRole.Cell, x, top, 25, Height));
                pages.Rule(x + 2, top + Height - 5, x + 23);
                if (box < 3)
                {
                    pages.Centred(x + 12.5, top + 12, 19 - (number > 9 ? 3 : 0), $"{number}", box == 0 ? ShapeRole.Numeral : ShapeRole.Trace);
                }
            }

            pages.Y += Height + 4;
        }
    }
}
