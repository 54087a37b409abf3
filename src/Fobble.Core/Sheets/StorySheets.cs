using Fobble.Core.Pictures;
using Fobble.Core.Stories;

namespace Fobble.Core.Sheets;

/// <summary>Story pages: two stories to a page, each told, drawn and written.</summary>
internal static class StorySheets
{
    private const int ToAPage = 2;
    private const double Drawing = 46;

    public static void Fill(PageBuilder pages, SheetRequest request)
    {
        List<AnswerKey.Of> answers = [];
        foreach (var (child, seed) in PracticeSheets.Children(request))
        {
            var stories = StoryMaker.Make(
                new StoryRequest(request.Stories ?? StoryKinds.All, request.Range, request.Count, request.Approach.Words, seed, request.Theme)
            );
            foreach (var page in stories.Chunk(ToAPage))
            {
                pages.NewPage();
                pages.NameLine(child?.Name);
                var height = (pages.Floor - pages.Y) / ToAPage;
                foreach (var story in page)
                {
                    var top = pages.Y;
                    Tell(pages, request, story);
                    pages.Y = top + height;
                }
            }

            answers.Add(new(child?.Name, [.. stories.Select(s => $"{s.Solved}. {s.Answer}")]));
        }

        AnswerKey.Fill(pages, answers);
    }

    private static void Tell(PageBuilder pages, SheetRequest request, Story story)
    {
        foreach (var line in story.Lines)
        {
            pages.Paragraph(6.4, line);
        }

        pages.Y += 3;
        var frame = Shape.Box($"space-{pages.Y:0}", ShapeRole.Cell, PageBuilder.Margin, pages.Y, pages.Width, Drawing);
        pages.Add(frame);
        if (request.Variant != SheetVariant.Alone)
        {
            // What the story begins with is there; together, it also says what comes next. The rest is the child's: counting what is printed is never the answer.
            pages.Fit(StoryDrawing.Draw(story, StoryDrawing.Begun(story)), PageBuilder.Margin + 4, pages.Y + 4, pages.Width - 8, Drawing - 12, 15);
            if (request.Variant == SheetVariant.Together)
            {
                pages.Text(PageBuilder.Margin + 3, pages.Y + Drawing - 4, 4.2, StoryDrawing.Hint(story), ShapeRole.Note);
            }
        }
        else
        {
            pages.Text(PageBuilder.Margin + 3, pages.Y + 4, 4, "Draw", ShapeRole.Note);
        }

        pages.Y += Drawing + 11;
        if (request.Variant == SheetVariant.Alone)
        {
            pages.Rule(PageBuilder.Margin, pages.Y + 4, PageBuilder.Margin + 90);
        }
        else
        {
            PracticeSheets.SentenceLine(pages, PageBuilder.Margin, pages.Y, 10, story.Sentence);
        }

        pages.Text(PageBuilder.Margin + 100, pages.Y, 5, "Answer", ShapeRole.Note);
        pages.Rule(PageBuilder.Margin + 120, pages.Y + 4, pages.Right);
    }
}
