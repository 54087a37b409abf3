using System.Globalization;
using Fobble.Core.Mats;
using Fobble.Core.Sheets;
using Fobble.Core.Stories;
using Microsoft.AspNetCore.Http.HttpResults;

namespace Fobble.Server.Features.Mats;

/// <summary>The story mat. A story is named by its kind, numbers, theme and seed, and is told anew each time.</summary>
internal static class StoryMats
{
    public static void MapStories(this IEndpointRouteBuilder mats)
    {
        mats.MapGet("/story/choices", ChoicesAsync);
        mats.MapGet("/story", TellAsync);
        mats.MapGet("/story/check", CheckAsync);
    }

    private static async Task<Ok<StoryChoices>> ChoicesAsync(int classId, ClassFacts facts, CancellationToken stop)
    {
        var usual = SheetOffer.Of(SheetKind.Stories).UsualIn(await facts.ApproachAsync(classId, stop));
        return TypedResults.Ok(new StoryChoices(
            [.. StoryKinds.All.Select(k => new StoryKindView(k, StoryKinds.NameOf(k)))],
            [.. StorySetting.Shipped.Select(s => s.Theme).Distinct().Select(t => new StoryTheme(t, t.Replace('-', ' ')))],
            usual.Low,
            usual.High));
    }

    private static async Task<Results<Ok<StoryMat>, ValidationProblem>> TellAsync(int classId, StoryKind kind, int low, int high, string? theme, long seed, ClassFacts facts, CancellationToken stop)
    {
        var words = (await facts.ApproachAsync(classId, stop)).Words;
        return MatsEndpoints.Refusing("range", () =>
        {
            var story = Make(kind, low, high, theme, seed, words);
            var slips = Enumerable.Range(0, (2 * story.Whole) + 2).Select(n => (n, Slip: story.SlipBehind(n))).Where(s => s.Slip is not null).Select(s => new PossibleSlip(s.n, s.Slip!.Text));
            return new StoryMat(
                kind, StorySetting.Named(story.Setting).Theme, story.Lines, story.Sentence, story.Situation == Situation.Compare, story.Whole, story.First, story.AnswerNumber,
                [.. StoryDrawing.Steps(story, words).Select(s => new MatStep(s.Says, s.Picture, s.Line))], StoryDrawing.Bond(story, filled: false), StoryDrawing.Bond(story, filled: true), [.. slips]);
        });
    }

    private static async Task<Results<Ok<StoryChecked>, ValidationProblem>> CheckAsync(
        int classId, StoryKind kind, int low, int high, string? theme, long seed, int drawn, int below, string? circled, string? crossed, ClassFacts facts, CancellationToken stop)
    {
        var words = (await facts.ApproachAsync(classId, stop)).Words;
        return MatsEndpoints.Refusing("drawing", () =>
        {
            var marking = Marking.Of(drawn, Things(circled), Things(crossed), below);
            if (drawn is < 0 or > Most || below is < 0 or > Most || marking.Circled.Concat(marking.Crossed).Any(i => i < 1 || i > drawn + below))
            {
                throw new ArgumentException($"A drawing holds up to {Most} things, and only what is drawn can be marked.");
            }

            var story = Make(kind, low, high, theme, seed, words);
            var verdict = PictureChecker.Check(story, marking);
            return new StoryChecked(StoryDrawing.Draw(story, marking), verdict.Agrees, verdict.Off);
        });
    }

    private const int Most = 20;

    private static Story Make(StoryKind kind, int low, int high, string? theme, long seed, Core.Numbers.Wording words) =>
        high > Most ? throw new ArgumentException($"Stories go to {Most}.") : StoryMaker.Make(new StoryRequest([kind], MatsEndpoints.RangeOf(low, high), 1, words, (ulong)seed, string.IsNullOrEmpty(theme) ? null : theme))[0];

    private static IEnumerable<int> Things(string? list) =>
        (list ?? "").Split(',', StringSplitOptions.RemoveEmptyEntries).Select(t => int.TryParse(t, NumberStyles.None, CultureInfo.InvariantCulture, out var n) ? n : throw new FormatException($"'{t}' is no thing of the drawing."));
}
