using Fobble.Core.Numbers;

namespace Fobble.Core.Stories;

/// <summary>What a wrong answer points to.</summary>
public sealed record StorySlip(string Id, string Text);

/// <summary>
/// A story with everything that is known about it (rule R4). The whole is the sum of the two parts; in a comparison the first part is
/// the smaller amount and the second the difference.
/// </summary>
/// <param name="Lines">Sentence by sentence, the question last.</param>
/// <param name="Sentence">With the place of the unknown: <c>8 − □ = 3</c>.</param>
/// <param name="Solved">As it is worked out: <c>8 − 3 = 5</c>.</param>
/// <param name="Answer">In words, a whole sentence.</param>
/// <param name="FirstLetter">What is written on the things of the first part.</param>
public sealed record Story(
    StoryKind Kind,
    string Setting,
    int Whole,
    int First,
    int Second,
    IReadOnlyList<string> Lines,
    string Sentence,
    string Solved,
    string Answer,
    string FirstLetter,
    string SecondLetter
)
{
    public Situation Situation => StoryKinds.SituationOf(Kind);

    public BondPlace Unknown => StoryKinds.UnknownOf(Kind);

    /// <summary>The number that is asked for; null where any two parts of the whole are right.</summary>
    public int? AnswerNumber =>
        Unknown switch
        {
            BondPlace.Whole => Whole,
            BondPlace.First => First,
            BondPlace.Second => Second,
            _ => null,
        };

    /// <summary>The numbers that are told.</summary>
    public IReadOnlyList<int> Given =>
        Unknown switch
        {
            BondPlace.Whole => [First, Second],
            BondPlace.First => [Whole, Second],
            BondPlace.Second => [Whole, First],
            _ => [Whole],
        };

    /// <summary>Whether a number answers the question.</summary>
    public bool IsAnswered(int number) => AnswerNumber is { } right ? number == right : number >= 0 && number <= Whole;

    /// <summary>The slip that a wrong answer points to; null for a right one or one that points to none.</summary>
    public StorySlip? SlipBehind(int wrong)
    {
        if (IsAnswered(wrong) || AnswerNumber is not { } right)
        {
            return null;
        }

        var added = Unknown == BondPlace.Whole;
        return wrong == Given[0] + Given[1] && !added ? new("added-instead", Phrase("Put together instead of taking away."))
            : wrong == Math.Abs(Given[0] - Given[1]) && added ? new("took-instead", Phrase("Took away instead of putting together."))
            : wrong == Whole ? new("gave-whole", Phrase("Gave the whole that the story tells."))
            : Given.Contains(wrong) ? new("gave-known", Phrase("Gave the part that the story tells."))
            : Math.Abs(wrong - right) == 1 ? new("off-by-one", Phrase("One too many or too few: count again, touching each."))
            : null;
    }
}

/// <summary>Which stories are wanted.</summary>
/// <param name="Wholes">Range of the whole.</param>
/// <param name="Theme">Null for both.</param>
/// <param name="AnswerMayBeGiven">Whether the answer may be a number that the story tells (6 − 3).</param>
public sealed record StoryRequest(
    IReadOnlyList<StoryKind> Kinds,
    NumberRange Wholes,
    int Count,
    Wording Words,
    ulong Seed,
    string? Theme = null,
    bool AnswerMayBeGiven = false
);
