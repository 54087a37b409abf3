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

    // A name, and a box for each turn; or a whole and its parts, found turn by turn.
    private static void Strip(PageBuilder pages, SheetRequest request)
    {
        var splits = request.Variant == SheetVariant.Splits;
        var height = splits ? 54.0 : 40;
        pages.Need(height);
        var top = pages.Y;
        pages.NameLine(null);
        if (splits)
        {
            pages.Text(PageBuilder.Margin + 100, top + 4, 5, $"{request.Range.High} in all", ShapeRole.Note);
        }

        var y = top + 17;
        for (var turn = 0; turn < Turns; turn++)
        {
            if (splits)
            {
                var (column, row) = (turn % 5, turn / 5);
                PracticeSheets.SentenceLine(pages, PageBuilder.Margin + (column * (pages.Width / 5)) + 1, y + 6 + (row * 16), 7, "□ + □");
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
                Shape.TextFrom("says", ShapeRole.Words, 36, 28, 5.5, "I think there are"),
                Shape.Line("guess-line", ShapeRole.Rule, 38, 48, 78, 48),
            ],
            "Guess slip"
        );
}
