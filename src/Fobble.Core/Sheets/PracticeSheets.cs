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
                case SheetKind.Shares:
                    var shares = Shared(request, child, seed);
                    Plates(pages, child?.Name, shares);
                    answers.Add(new(child?.Name, [.. shares.Select(s => $"{s.Case.InWords()}: {s.Answer}")]));
                    break;
                case SheetKind.Sentences when request.Variant == SheetVariant.TrueOrFalse:
                    var claims = Items(request, ItemKind.TrueOrFalse, child, seed);
                    Sentences(pages, child?.Name, [.. claims.Select(Claim)], "true", "not");
                    answers.Add(new(child?.Name, [.. claims.Select(c => $"{Claim(c)}: {c.Answer}")]));
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

    // What the item asks about, without the question.
    private static string Claim(Item item) => item.Ask[..item.Ask.IndexOf(':', StringComparison.Ordinal)];

    private static IReadOnlyList<Item> Shared(SheetRequest request, SheetChild? child, ulong seed)
    {
        var over = request.Variant == SheetVariant.OneOver ? 1 : 0;
        var cases = ItemCases
            .All(ItemKind.ShareEqually, request.Range, seed, request.Approach)
            .Where(i => i.Case.Numbers[0] % i.Case.Numbers[1] == over)
            .ToList();
        RefusedException.Unless(cases.Count > 0, "sheet", Phrase($"No number of {request.Range} can be shared {request.Variant.Name()}."));
        var drawn = new SeededRandom(seed).Shuffled(cases);
        return [.. Enumerable.Range(0, request.Count).Select(i => drawn[i % drawn.Count])];
    }

    // The things above, a plate for each share below, and two boxes to write in.
    private static void Plates(PageBuilder pages, string? name, IReadOnlyList<Item> shares)
    {
        const double Height = 56;
        const double Plate = 26;
        foreach (var (number, between) in shares.Select(s => (s.Case.Numbers[0], s.Case.Numbers[1])))
        {
            if (pages.Need(Height))
            {
                pages.NameLine(name);
            }

            pages.Fit(Patterns.Row(number), PageBuilder.Margin, pages.Y, pages.Width, 14, 9);
            for (var plate = 0; plate < between; plate++)
            {
                pages.Add(
                    Shape.Circle(
                        $"plate-{pages.Y:0}-{pages.Pages}-{plate}",
                        ShapeRole.Ring,
                        PageBuilder.Margin + (Plate / 2) + (plate * (Plate + 4)),
                        pages.Y + 16 + (Plate / 2),
                        Plate
                    )
                );
            }

            SentenceLine(pages, PageBuilder.Margin, pages.Y + 48, 6, Phrase("each □ over □"));
            pages.Y += Height;
        }
    }

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

    // In two columns, written large, with a box to write in, or with words to ring.
    private static void Sentences(PageBuilder pages, string? name, IReadOnlyList<string> sentences, params IReadOnlyList<string> toRing)
    {
        const double Line = 19;
        var size = toRing.Count == 0 ? 11.0 : 8.5;
        foreach (var row in sentences.Chunk(2))
        {
            if (pages.Need(Line))
            {
                pages.NameLine(name);
            }

            foreach (var (sentence, column) in row.Select((s, i) => (s, i)))
            {
                var (left, middle) = (PageBuilder.Margin + (column * (pages.Width / 2)), pages.Y + (Line / 2));
                SentenceLine(pages, left, middle, size, sentence);
                foreach (var (word, place) in toRing.Select((w, i) => (w, i)))
                {
                    pages.Text(left + 56 + (place * 17), middle, 5.5, word, ShapeRole.Note);
                }
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

    // A numeral to look at, two to trace with a dot where the pen starts, and two places to write it.
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
                    var size = number > 9 ? 16.0 : 19.0;
                    pages.Centred(x + 12.5, top + 12, size, $"{number}", box == 0 ? ShapeRole.Numeral : ShapeRole.Trace);
                    foreach (var (dot, digit) in StartingDots.Of(number, size).Select((d, i) => (d, i)).Where(_ => box > 0))
                    {
                        pages.Add(Shape.Circle($"start-{number}-{box}-{digit}", ShapeRole.Pip, x + 12.5 + dot.Right, top + 12 + dot.Down, 1.6));
                    }
                }
            }

            pages.Y += Height + 4;
        }
    }
}
