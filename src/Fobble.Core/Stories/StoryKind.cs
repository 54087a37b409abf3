namespace Fobble.Core.Stories;

/// <summary>
/// The situations for addition and subtraction (Common Core State Standards for Mathematics 2010, table 1): comparing is told with
/// "more" and with "fewer", which makes fifteen.
/// </summary>
public enum StoryKind
{
    AddToResult,
    AddToChange,
    AddToStart,
    TakeFromResult,
    TakeFromChange,
    TakeFromStart,
    TogetherTotal,
    TogetherAddend,
    TogetherBoth,
    CompareDifferenceMore,
    CompareDifferenceFewer,
    CompareBiggerMore,
    CompareBiggerFewer,
    CompareSmallerMore,
    CompareSmallerFewer,
}

public enum Situation
{
    AddTo,
    TakeFrom,
    Together,
    Compare,
}

/// <summary>Places in a bond: the whole and its two parts. In a comparison the whole is the bigger, the parts are the smaller and the difference.</summary>
public enum BondPlace
{
    Whole,
    First,
    Second,

    /// <summary>Both parts are open: there are several right answers.</summary>
    BothParts,
}

/// <summary>What follows from a kind alone.</summary>
public static class StoryKinds
{
    public static IReadOnlyList<StoryKind> All { get; } = Enum.GetValues<StoryKind>();

    /// <summary>Those meant for kindergarten (same source).</summary>
    public static IReadOnlyList<StoryKind> Kindergarten { get; } =
    [StoryKind.AddToResult, StoryKind.TakeFromResult, StoryKind.TogetherTotal, StoryKind.TogetherBoth];

    public static Situation SituationOf(StoryKind kind) =>
        kind switch
        {
            StoryKind.AddToResult or StoryKind.AddToChange or StoryKind.AddToStart => Situation.AddTo,
            StoryKind.TakeFromResult or StoryKind.TakeFromChange or StoryKind.TakeFromStart => Situation.TakeFrom,
            StoryKind.TogetherTotal or StoryKind.TogetherAddend or StoryKind.TogetherBoth => Situation.Together,
            _ => Situation.Compare,
        };

    /// <summary>What is asked for.</summary>
    public static BondPlace UnknownOf(StoryKind kind) =>
        kind switch
        {
            StoryKind.AddToResult or StoryKind.TogetherTotal or StoryKind.TakeFromStart or StoryKind.CompareBiggerMore or StoryKind.CompareBiggerFewer =>
                BondPlace.Whole,
            StoryKind.AddToStart or StoryKind.TakeFromResult or StoryKind.CompareSmallerMore or StoryKind.CompareSmallerFewer => BondPlace.First,
            StoryKind.TogetherBoth => BondPlace.BothParts,
            _ => BondPlace.Second,
        };

    /// <summary>As a teacher would call it.</summary>
    public static string NameOf(StoryKind kind) =>
        kind switch
        {
            StoryKind.AddToResult => Phrase("Add to: how many now?"),
            StoryKind.AddToChange => Phrase("Add to: how many came?"),
            StoryKind.AddToStart => Phrase("Add to: how many at first?"),
            StoryKind.TakeFromResult => Phrase("Take from: how many are left?"),
            StoryKind.TakeFromChange => Phrase("Take from: how many went?"),
            StoryKind.TakeFromStart => Phrase("Take from: how many at first?"),
            StoryKind.TogetherTotal => Phrase("Two parts: how many altogether?"),
            StoryKind.TogetherAddend => Phrase("Two parts: how many in the other?"),
            StoryKind.TogetherBoth => Phrase("Two parts: which could they be?"),
            StoryKind.CompareDifferenceMore => Phrase("Compare: how many more?"),
            StoryKind.CompareDifferenceFewer => Phrase("Compare: how many fewer?"),
            StoryKind.CompareBiggerMore => Phrase("Compare with more: the bigger?"),
            StoryKind.CompareBiggerFewer => Phrase("Compare with fewer: the bigger?"),
            StoryKind.CompareSmallerMore => Phrase("Compare with more: the smaller?"),
            _ => Phrase("Compare with fewer: the smaller?"),
        };
}
