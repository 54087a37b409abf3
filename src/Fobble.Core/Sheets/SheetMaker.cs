using System.Globalization;

namespace Fobble.Core.Sheets;

/// <summary>Makes what is printed. The same request gives the same pages.</summary>
public static class SheetMaker
{
    /// <exception cref="RefusedException">The numbers, the count or the variant do not suit the kind; the message says what would.</exception>
    public static Sheet Make(SheetRequest request)
    {
        ArgumentNullException.ThrowIfNull(request);
        var offer = SheetOffer.Of(request.Kind);
        Check(request, offer);
        var name = offer.NameIn(request.Approach.Words);
        PageBuilder pages = new(Paper.Of(request.Paper));
        switch (request.Kind)
        {
            case SheetKind.Bonds or SheetKind.Sentences or SheetKind.PracticeStrips or SheetKind.Shares:
                PracticeSheets.Fill(pages, request);
                break;
            case SheetKind.Stories:
                StorySheets.Fill(pages, request);
                break;
            case SheetKind.RecordingStrips or SheetKind.GuessSlips:
                GameSheets.Fill(pages, request);
                break;
            default:
                CardSheets.Fill(pages, request);
                break;
        }

        var numbers = offer.Kind == SheetKind.GuessSlips ? "" : Phrase($" · numbers {request.Range}");
        var footer = Phrase($"{name}{numbers} · seed {request.Seed} · {Words.Date(request.Made)} {request.Made.Year}");
        return new Sheet(name, Paper.Of(request.Paper), request.Made, pages.Finished(footer, name));
    }

    private static void Check(SheetRequest request, SheetOffer offer)
    {
        if (!offer.Variants.Contains(request.Variant))
        {
            throw new RefusedException(
                "sheet",
                Phrase($"{offer.Name} are not to be had as '{request.Variant.Name()}': choose {string.Join("; ", offer.Variants.Select(v => v.Name()))}.")
            );
        }

        if (request.Range.Low < offer.Widest.Low || request.Range.High > offer.Widest.High)
        {
            throw new RefusedException("sheet", Phrase($"{offer.Name} go from {offer.Widest.Low} to {offer.Widest.High}, not {request.Range}."));
        }

        if (offer.MostCount > 0 && (request.Count < 1 || request.Count > offer.MostCount))
        {
            throw new RefusedException("sheet", Phrase($"{offer.Name}: choose 1 to {offer.MostCount}, not {request.Count}."));
        }
    }
}
