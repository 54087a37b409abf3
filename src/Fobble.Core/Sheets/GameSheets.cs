using Fobble.Core.Pictures;

namespace Fobble.Core.Sheets;

/// <summary>Strips and slips: one a player or guesser, to be cut apart.</summary>
internal static class GameSheets
{
    private const int Turns = 10;

    public static void Fill(PageBuilder pages, SheetRequest request)
    {
        pages.NewPage();
        if (request.Kind == SheetKind.GuessSlips)
        {
            pages.CardGrid([.. Enumerable.Repeat(Slip(), request.Count)], 2, 62);
            return;
        }

        for (var strip = 0; strip < request.Count; strip++)
        {
            Strip(pages, request);
        }
    }

    // A name, and a box for each turn; or a whole and its parts, found turn by turn or ticked in a list.
    private static void Strip(PageBuilder pages, SheetRequest request)
    {
        var splits = request.Variant is SheetVariant.Splits or SheetVariant.Ways;
        // A whole has one way more than it has things: none and all is one too.
        var ways = request.Range.High + 1;
        var columns = ways > 10 ? 6 : 5;
        var height = splits ? 22 + (16.0 * ((ways + columns - 1) / columns)) : 40;
        pages.Need(height);
        var top = pages.Y;
        pages.NameLine(null);
        if (splits)
        {
            pages.Text(PageBuilder.Margin + 100, top + 4, 5, Phrase($"{request.Range.High} in all"), ShapeRole.Note);
        }

        var y = top + 17;
        for (var turn = 0; turn < (splits ? ways : Turns); turn++)
        {
            if (splits)
            {
                var (x, line) = (PageBuilder.Margin + (turn % columns * (pages.Width / columns)) + 1, y + 6 + (turn / columns * 16));
                if (request.Variant == SheetVariant.Splits)
                {
                    PracticeSheets.SentenceLine(pages, x, line, 7, "□ + □");
                }
                else
                {
                    pages.Add(Shape.Box($"way-{top:0}-{turn}", ShapeRole.Cell, x, line - 4, 7, 7));
                    pages.Text(x + 9, line, 6, $"{turn} + {request.Range.High - turn}", ShapeRole.Words);
                }
            }
            else
            {
                pages.Add(
                    Shape.Box($"turn-{top:0}-{turn}", ShapeRole.Cell, PageBuilder.Margin + (turn * (pages.Width / Turns)), y, (pages.Width / Turns) - 2, 16)
                );
            }
        }

        pages.Y = top + height;
        pages.Cut(PageBuilder.Margin - 4, pages.Y - 2, pages.Right + 4, pages.Y - 2);
        pages.Y += 3;
    }

    // In units of millimetres already: a jar's outline to guess into, the name line and the line for the guess.
    private static Picture Slip() =>
        new(
            82,
            54,
            [
                Shape.TextFrom("name", ShapeRole.Note, 0, 5, 5, "Name"),
                Shape.Line("name-line", ShapeRole.Rule, 15, 8, 82, 8),
                Shape.Box("jar-lid", ShapeRole.Link, 6, 16, 20, 5),
                Shape.Box("jar", ShapeRole.Cell, 3, 21, 26, 32),
                Shape.TextFrom("says", ShapeRole.Words, 36, 28, 5.5, Phrase("I think there are")),
                Shape.Line("guess-line", ShapeRole.Rule, 38, 48, 78, 48),
            ],
            Phrase("Guess slip")
        );
}
