using Fobble.Core.Numbers;
using Fobble.Core.Pictures;

namespace Fobble.Core.Stories;

/// <summary>
/// What is drawn and marked: things are numbered from 1; where two rows are compared, those of the upper row come first.
/// </summary>
/// <param name="Drawn">Things in all, or in the upper row.</param>
/// <param name="Below">Things in the lower row; 0 where there is one set.</param>
public sealed record Marking(int Drawn, int Below, IReadOnlySet<int> Circled, IReadOnlySet<int> Crossed)
{
    public static Marking Of(int drawn, IEnumerable<int> circled, IEnumerable<int> crossed, int below = 0) =>
        new(drawn, below, circled.ToHashSet(), crossed.ToHashSet());
}

/// <summary>One step of drawing a story: what is said, the picture so far, and the line beside it.</summary>
public sealed record StoryStep(string Says, Picture Picture, string Line);

/// <summary>The drawing that belongs to a story, and its model answer step by step.</summary>
public static class StoryDrawing
{
    /// <summary>The drawing with whatever is marked on it; letters once asked for.</summary>
    public static Picture Draw(Story story, Marking marking, bool letters = false)
    {
        ArgumentNullException.ThrowIfNull(story);
        ArgumentNullException.ThrowIfNull(marking);
        if (story.Situation == Situation.Compare)
        {
            return StoryDrawings.TwoRows(
                [.. Enumerable.Range(1, marking.Drawn).Select(i => Thing(i, ShapeRole.CounterA, i == 1 ? story.SecondLetter : null))],
                [
                    .. Enumerable
                        .Range(marking.Drawn + 1, marking.Below)
                        .Select(i => Thing(i, ShapeRole.CounterB, i == marking.Drawn + 1 ? story.FirstLetter : null)),
                ]
            );
        }

        // What goes away is alike until it is crossed out; what joins or is of another kind has the second colour from the start.
        var alike = story.Situation == Situation.TakeFrom;
        return StoryDrawings.OneSet([
            .. Enumerable
                .Range(1, marking.Drawn)
                .Select(i =>
                    Thing(i, alike || i <= story.First ? ShapeRole.CounterA : ShapeRole.CounterB, i <= story.First ? story.FirstLetter : story.SecondLetter)
                ),
        ]);

        DrawnThing Thing(int number, ShapeRole role, string? letter) =>
            new(role, marking.Circled.Contains(number), marking.Crossed.Contains(number), letters ? letter : null);
    }

    /// <summary>The marks of the model answer.</summary>
    public static Marking Model(Story story)
    {
        ArgumentNullException.ThrowIfNull(story);
        IEnumerable<int> First() => Enumerable.Range(1, story.First);
        IEnumerable<int> Second() => Enumerable.Range(story.First + 1, story.Second);
        return story.Situation switch
        {
            Situation.Compare => Marking.Of(story.Whole, Second(), [], story.First),
            Situation.TakeFrom => Marking.Of(story.Whole, story.Kind == StoryKind.TakeFromResult ? [] : First(), Second()),
            _ => Marking.Of(
                story.Whole,
                story.Unknown is BondPlace.Second ? First()
                    : story.Unknown is BondPlace.First ? Second()
                    : [],
                []
            ),
        };
    }

    /// <summary>What the story begins with, unmarked: a part where the whole is asked for, so that counting the drawing is not the answer; the whole otherwise.</summary>
    public static Marking Begun(Story story)
    {
        ArgumentNullException.ThrowIfNull(story);
        return (story.Situation, story.Unknown) switch
        {
            (Situation.Compare, BondPlace.Whole) => Marking.Of(0, [], [], story.First),
            (Situation.Compare, BondPlace.First) => Marking.Of(story.Whole, [], []),
            (Situation.Compare, _) => Marking.Of(story.Whole, [], [], story.First),
            (_, BondPlace.Whole) => Marking.Of(story.First, [], []),
            _ => Marking.Of(story.Whole, [], []),
        };
    }

    /// <summary>What to do with the drawing that the story begins with, without a number that is asked for.</summary>
    public static string Hint(Story story)
    {
        ArgumentNullException.ThrowIfNull(story);
        return (story.Situation, story.Unknown) switch
        {
            (Situation.Compare, BondPlace.Whole) => Phrase("Draw the upper row: as many as below, and then the ones more."),
            (Situation.Compare, BondPlace.First) => Phrase("Draw the lower row: a partner for each, but for those that are missing."),
            (Situation.Compare, _) => Phrase("Join partners with a line. Circle those that have none."),
            (_, BondPlace.BothParts) => Phrase("Circle one part and see what the other is. There are several ways."),
            (Situation.TakeFrom, BondPlace.Whole) => Phrase("Draw those that went as well, and cross them out."),
            (Situation.TakeFrom, BondPlace.First) => Phrase("Cross out those that go."),
            (Situation.TakeFrom, _) => Phrase("Circle those that stay. Cross out the others."),
            (_, BondPlace.Whole) => Phrase("Draw the others as well, in another colour."),
            _ => Phrase("Circle the part that is told. The others are what is asked for."),
        };
    }

    /// <summary>The model answer: draw, circle what is known, cross out, write letters, write the sentence, answer.</summary>
    public static IReadOnlyList<StoryStep> Steps(Story story, Wording words)
    {
        ArgumentNullException.ThrowIfNull(words);
        var model = Model(story);
        List<StoryStep> steps = [];
        var bare = model with { Circled = new HashSet<int>(), Crossed = new HashSet<int>() };
        Add(DrawSays(story), bare);
        var circled = bare with { Circled = model.Circled };
        if (model.Circled.Count > 0)
        {
            Add(
                story.Situation == Situation.Compare
                    ? Phrase($"Circle those without a partner: {model.Circled.Count}.")
                    : Phrase($"Circle the part that is known: {model.Circled.Count}."),
                circled
            );
        }

        if (model.Crossed.Count > 0)
        {
            Add(Phrase($"Cross out those that go: {model.Crossed.Count}."), model);
        }

        Add(Phrase($"Write on it what the parts are: {story.FirstLetter} and {story.SecondLetter}."), model, letters: true);
        steps.Add(
            new(
                story.Unknown == BondPlace.BothParts ? Phrase("One of the ways:") : Phrase($"Write the {words.SentenceName} that was worked out."),
                steps[^1].Picture,
                story.Solved
            )
        );
        steps.Add(new(story.Answer, steps[^1].Picture, story.Solved));
        return steps;

        void Add(string says, Marking marking, bool letters = false) => steps.Add(new(says, Draw(story, marking, letters), story.Sentence));
    }

    /// <summary>The story's bond; the place that is asked for is empty unless it is to be filled.</summary>
    public static Picture Bond(Story story, bool filled)
    {
        ArgumentNullException.ThrowIfNull(story);
        int? Place(BondPlace place, int number) =>
            filled || (story.Unknown != place && (story.Unknown != BondPlace.BothParts || place == BondPlace.Whole)) ? number : null;
        return Things.Bond(Place(BondPlace.Whole, story.Whole), Place(BondPlace.First, story.First), Place(BondPlace.Second, story.Second));
    }

    private static string DrawSays(Story story) =>
        story.Situation switch
        {
            Situation.Compare => Phrase($"Draw {NumberWords.Of(story.Whole)} above and {NumberWords.Of(story.First)} below, partner under partner."),
            Situation.TakeFrom when story.Unknown == BondPlace.Whole => Phrase(
                $"Draw the {NumberWords.Of(story.First)} that are left and the {NumberWords.Of(story.Second)} that went."
            ),
            _ when story.Unknown == BondPlace.Whole => Phrase($"Draw {NumberWords.Of(story.First)} and {NumberWords.Of(story.Second)}."),
            _ => Phrase($"Draw all {NumberWords.Of(story.Whole)}."),
        };
}
