using Fobble.Core.Numbers;
using Fobble.Core.Pictures;

namespace Fobble.Core.Sheets;

/// <summary>Cards to cut out: frames, tickets, labels, numerals, dominoes, cards for a glance, place-value cards, and the path.</summary>
internal static class CardSheets
{
    private const int StonesInStrip = 10;

    public static void Fill(PageBuilder pages, SheetRequest request)
    {
        var numbers = request.Range.Numbers.ToList();
        switch (request.Kind)
        {
            case SheetKind.TenFrames:
                TenFrames(pages, request);
                break;
            case SheetKind.HalfCards:
                pages.CardGrid([.. numbers.Select(n => HalfCards.Ticket(n))], 2, 38, 5);
                break;
            case SheetKind.TinLabels:
                pages.CardGrid([.. numbers.Select(Things.TinLabel)], 2, 34, 3);
                break;
            case SheetKind.NumeralCards:
                pages.CardGrid([.. numbers.Select(Things.NumeralCard)], 4, 56);
                break;
            case SheetKind.Dominoes:
                pages.CardGrid([.. numbers.SelectMany(a => numbers.Where(b => b >= a).Select(b => Patterns.Domino(a, b)))], 3, 36);
                break;
            case SheetKind.GlanceCards:
                pages.CardGrid([.. numbers.Select(n => Glance(n, request))], 3, 52);
                break;
            case SheetKind.PlaceValueCards:
                PlaceValueCards(pages, request.Range);
                break;
            default:
                Path(pages, request);
                break;
        }
    }

    private static Picture Glance(int number, SheetRequest request) =>
        request.Variant switch
        {
            SheetVariant.Dice => Patterns.Dice(number),
            SheetVariant.Fingers => Hands.Show(Hands.Ways(number)[0]),
            _ => Patterns.Scattered(number, request.Seed + (ulong)number),
        };

    private static void TenFrames(PageBuilder pages, SheetRequest request)
    {
        var frames =
            request.Variant is SheetVariant.DoubleBlank or SheetVariant.DoubleFilled || (request.Variant == SheetVariant.Filled && request.Range.High > 10)
                ? 2
                : 1;
        var style = request.Approach.Frames;
        List<Picture> pictures = request.Variant is SheetVariant.Blank or SheetVariant.DoubleBlank
            ? [.. Enumerable.Repeat(Frames.Tens(0, frames, style), request.Count)]
            : [.. request.Range.Numbers.Select(n => Frames.Tens(n, frames, style))];

        // Blank frames are laid on with real counters of 25 mm; filled ones are shown or sorted and may be smaller.
        var lying = style.Direction == FrameDirection.Lying;
        var (columns, height) = (request.Variant, frames, lying) switch
        {
            (SheetVariant.Blank, _, true) => (1, 74.0),
            (SheetVariant.DoubleBlank, _, true) => (1, 130.0),
            (SheetVariant.Blank, _, false) => (2, 130.0),
            (SheetVariant.DoubleBlank, _, false) => (1, 140.0),
            (_, 1, true) => (2, 44.0),
            (_, 2, true) => (2, 84.0),
            (_, 1, false) => (3, 110.0),
            _ => (2, 100.0),
        };
        pages.CardGrid(pictures, columns, height);
    }

    // One card for each value of each kind, as wide as its digits, so that they slide over each other.
    private static void PlaceValueCards(PageBuilder pages, NumberRange range)
    {
        foreach (var kind in new[] { NumberKind.Hundreds, NumberKind.Tens, NumberKind.Ones })
        {
            var worth = PlaceValue.Worth(kind);
            var cards = Enumerable
                .Range(1, 9)
                .Select(n => n * worth)
                .Where(n => n <= range.High && (worth > 1 || n >= range.Low))
                .Select(n => PlaceValues.Cards(n, apart: true))
                .ToList();
            if (cards.Count > 0)
            {
                pages.CardGrid(
                    cards,
                    kind == NumberKind.Hundreds ? 3
                        : kind == NumberKind.Tens ? 4
                        : 5,
                    34,
                    3
                );
                pages.Y += 3;
            }
        }
    }

    private static void Path(PageBuilder pages, SheetRequest request)
    {
        var random = new SeededRandom(request.Seed);
        foreach (var strip in request.Range.Numbers.Chunk(StonesInStrip))
        {
            // Three stones in ten lose their numeral, never the first of a strip.
            HashSet<int> gaps = request.Variant == SheetVariant.WithGaps ? [.. random.Shuffled(strip.Skip(1)).Take(Math.Max(1, strip.Length * 3 / 10))] : [];
            var stones = NumberPath.StonesOnly(new NumberRange(strip[0], strip[^1]), gaps);
            var unit = pages.Width / StonesInStrip;
            pages.Need((stones.Height * unit) + 8);
            pages.Cut(PageBuilder.Margin, pages.Y, pages.Right, pages.Y);
            pages.Place(stones, PageBuilder.Margin, pages.Y + 4, unit);
            pages.Y += (stones.Height * unit) + 8;
            pages.Cut(PageBuilder.Margin, pages.Y, pages.Right, pages.Y);
        }

        if (request.Variant == SheetVariant.WithGaps)
        {
            pages.NewPage(isKey: true);
            pages.Paragraph(6, Phrase("Every stone carries the number that comes after the one on its left."));
        }
    }
}
