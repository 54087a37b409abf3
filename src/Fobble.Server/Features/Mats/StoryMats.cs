using System.Globalization;
using Fobble.Core.Mats;
using Fobble.Core.Numbers;
using Fobble.Core.Sheets;
using Fobble.Core.Stories;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fobble.Server.Features.Mats;

/// <summary>The story mat. A story is named by its kind, numbers, theme and seed, and is told anew each time.</summary>
internal static class StoryMats
{
    public static void MapStories(this IEndpointRouteBuilder mats)
    {
        mats.MapGet("/story/choices", Choices);
        mats.MapGet("/story", Tell);
        mats.MapGet("/story/check", Check);
    }

    private static Ok<StoryChoices> Choices(ClassRoom room)
    {
        var usual = SheetOffer.Of(SheetKind.Stories).UsualIn(room.Approach);
        return TypedResults.Ok(
            new StoryChoices(
                [.. StoryKinds.All.Select(k => new StoryKindView(k, StoryKinds.NameOf(k)))],
                [.. StorySetting.Shipped.Select(s => s.Theme).Distinct().Select(t => new StoryTheme(t, t.Replace('-', ' ')))],
                usual.Low,
                usual.High
            )
        );
    }

    private static Ok<StoryMat> Tell(ClassRoom room, StoryKind kind, int low, int high, string? theme, long seed, string? of, int? first)
    {
        var words = room.Approach.Words;
        var story = Make(kind, low, high, theme, seed, of, first, words);
        var slips = Enumerable
            .Range(0, (2 * story.Whole) + 2)
            .Select(n => (n, Slip: story.SlipBehind(n)))
            .Where(s => s.Slip is not null)
            .Select(s => new PossibleSlip(s.n, s.Slip!.Text));
        return TypedResults.Ok(
            new StoryMat(
                kind,
                StorySetting.Named(story.Setting).Theme,
                story.Lines,
                story.Sentence,
                story.Situation == Situation.Compare,
                story.Whole,
                story.First,
                story.AnswerNumber,
                [.. StoryDrawing.Steps(story, words).Select(s => new MatStep(s.Says, s.Picture, s.Line))],
                StoryDrawing.Bond(story, filled: false),
                StoryDrawing.Bond(story, filled: true),
                [.. slips]
            )
        );
    }

    private static Ok<StoryChecked> Check(
        ClassRoom room,
        StoryKind kind,
        int low,
        int high,
        string? theme,
        long seed,
        string? of,
        int? first,
        int drawn,
        int below,
        string? circled,
        string? crossed
    )
    {
        var marking = Marking.Of(drawn, Things(circled), Things(crossed), below);
        RefusedException.Unless(
            drawn is >= 0 and <= Most && below is >= 0 and <= Most && marking.Circled.Concat(marking.Crossed).All(i => i >= 1 && i <= drawn + below),
            "drawing",
            Phrase($"A drawing holds up to {Most} things, and only what is drawn can be marked.")
        );
        var story = Make(kind, low, high, theme, seed, of, first, room.Approach.Words);
        var verdict = PictureChecker.Check(story, marking);
        return TypedResults.Ok(new StoryChecked(StoryDrawing.Draw(story, marking), verdict.Agrees, verdict.Off));
    }

    private const int Most = 20;

    // By chance within a range; or, of these things and with this first part, the one story that a card tells.
    private static Story Make(StoryKind kind, int low, int high, string? theme, long seed, string? of, int? first, Wording words)
    {
        RefusedException.Unless(high <= Most, "range", Phrase($"Stories go to {Most}."));
        return of is not null && first is { } part
            ? StoryMaker.Told(kind, of, new(part, low - part), words, (ulong)seed)
            : StoryMaker.Make(new StoryRequest([kind], NumberRange.Asked(low, high), 1, words, (ulong)seed, string.IsNullOrEmpty(theme) ? null : theme))[0];
    }

    private static IEnumerable<int> Things(string? list) =>
        (list ?? "")
            .Split(',', StringSplitOptions.RemoveEmptyEntries)
            .Select(t =>
                int.TryParse(t, NumberStyles.None, CultureInfo.InvariantCulture, out var n)
                    ? n
                    : throw new RefusedException("drawing", Phrase($"'{t}' is no thing of the drawing."))
            );
}
