using Fobble.Core.Approaches;
using Fobble.Core.Numbers;

namespace Fobble.Core.Sheets;

/// <summary>Things to print.</summary>
public enum SheetKind
{
    TenFrames,
    HalfCards,
    TinLabels,
    NumeralCards,
    Dominoes,
    GlanceCards,
    Bonds,
    PlaceValueCards,
    NumberPath,
    Sentences,
    Stories,
    PracticeStrips,
    RecordingStrips,
    Shares,
    GuessSlips,
}

/// <summary>Ways in which a kind of sheet can be had.</summary>
public enum SheetVariant
{
    Filled,
    Blank,
    DoubleFilled,
    DoubleBlank,
    Whole,
    WithGaps,
    OnePartMissing,
    Adding,
    TakingAway,
    MissingAddend,
    TrueOrFalse,
    Dots,
    Dice,
    Fingers,
    Evenly,
    OneOver,
    Together,
    HalfGiven,
    Alone,
    Turns,
    Splits,
    Ways,
}

public static class SheetVariants
{
    /// <summary>The variant in a teacher's words, as it follows the name of the sheet: "Ten frames, double, filled".</summary>
    public static string Name(this SheetVariant variant) =>
        variant switch
        {
            SheetVariant.Filled => Phrase("filled"),
            SheetVariant.Blank => Phrase("blank"),
            SheetVariant.DoubleFilled => Phrase("double, filled"),
            SheetVariant.DoubleBlank => Phrase("double, blank"),
            SheetVariant.Whole => Phrase("complete"),
            SheetVariant.WithGaps => Phrase("with gaps"),
            SheetVariant.OnePartMissing => Phrase("one part missing"),
            SheetVariant.Adding => Phrase("adding"),
            SheetVariant.TakingAway => Phrase("taking away"),
            SheetVariant.MissingAddend => Phrase("missing number"),
            SheetVariant.TrueOrFalse => Phrase("true or not"),
            SheetVariant.Dots => Phrase("dots"),
            SheetVariant.Dice => Phrase("dice"),
            SheetVariant.Fingers => Phrase("fingers"),
            SheetVariant.Evenly => Phrase("without a rest"),
            SheetVariant.OneOver => Phrase("with one over"),
            SheetVariant.Together => Phrase("together"),
            SheetVariant.HalfGiven => Phrase("half given"),
            SheetVariant.Alone => Phrase("alone"),
            SheetVariant.Turns => Phrase("a box a turn"),
            SheetVariant.Splits => Phrase("two parts a turn"),
            SheetVariant.Ways => Phrase("ways to tick"),
            _ => throw new ArgumentOutOfRangeException(nameof(variant)),
        };
}

/// <summary>What can be chosen for a kind of sheet.</summary>
/// <param name="Purpose">For whom and what, in a teacher's words.</param>
/// <param name="Widest">Numbers it can use at all.</param>
/// <param name="Usual">Numbers it uses unless others are chosen.</param>
/// <param name="Count">How many items, strips or slips unless another number is chosen; 0 where the numbers decide.</param>
/// <param name="EachChild">Whether each child gets a page of their own, with their own numbers.</param>
public sealed record SheetOffer(
    SheetKind Kind,
    string Name,
    string Purpose,
    IReadOnlyList<SheetVariant> Variants,
    NumberRange Widest,
    NumberRange Usual,
    int Count,
    int MostCount,
    bool EachChild
)
{
    public string Name
    {
        get => Phrase(field);
    } = Name;

    public string Purpose
    {
        get => Phrase(field);
    } = Purpose;

    public static IReadOnlyList<SheetOffer> All { get; } =
    [
        new(
            SheetKind.TenFrames,
            Later("Ten frames"),
            Later("To lay counters on, or to flash."),
            [SheetVariant.Filled, SheetVariant.Blank, SheetVariant.DoubleFilled, SheetVariant.DoubleBlank],
            new(0, 20),
            new(0, 10),
            4,
            24,
            false
        ),
        new(
            SheetKind.HalfCards,
            Later("Torn tickets"),
            Later("A numeral on one half, that many dots on the other; only those that belong together fit."),
            [SheetVariant.Whole],
            new(0, 20),
            new(1, 10),
            0,
            0,
            false
        ),
        new(SheetKind.TinLabels, Later("Tin labels"), Later("Numeral and dots for a row of tins."), [SheetVariant.Whole], new(0, 20), new(0, 10), 0, 0, false),
        new(
            SheetKind.NumeralCards,
            Later("Numeral cards"),
            Later("To order, hide, swap and match."),
            [SheetVariant.Whole],
            new(0, 100),
            new(0, 20),
            0,
            0,
            false
        ),
        new(SheetKind.Dominoes, Later("Dominoes"), Later("Every pair of faces once."), [SheetVariant.Whole], new(0, 6), new(0, 6), 0, 0, false),
        new(
            SheetKind.GlanceCards,
            Later("Cards for a glance"),
            Later("To hold up for a moment, match, or turn over in pairs."),
            [SheetVariant.Dots, SheetVariant.Dice, SheetVariant.Fingers],
            new(1, 10),
            new(1, 6),
            0,
            0,
            false
        ),
        new(
            SheetKind.Bonds,
            Later("Bond diagrams"),
            Later("A whole and its two parts."),
            [SheetVariant.OnePartMissing, SheetVariant.Blank],
            new(1, 20),
            new(2, 10),
            9,
            18,
            true
        ),
        new(
            SheetKind.PlaceValueCards,
            Later("Place-value cards"),
            Later("Layered cards that slide over each other."),
            [SheetVariant.Whole],
            new(1, 999),
            new(1, 99),
            0,
            0,
            false
        ),
        new(
            SheetKind.NumberPath,
            Later("Number path"),
            Later("Stones to walk on, to cut out and join."),
            [SheetVariant.Whole, SheetVariant.WithGaps],
            new(0, 120),
            new(1, 20),
            0,
            0,
            false
        ),
        new(
            SheetKind.Sentences,
            Later("Sentences to finish"),
            Later("Adding, taking away, the missing number, or true or not."),
            [SheetVariant.Adding, SheetVariant.TakingAway, SheetVariant.MissingAddend, SheetVariant.TrueOrFalse],
            new(0, 20),
            new(2, 10),
            12,
            24,
            true
        ),
        new(
            SheetKind.Stories,
            Later("Story pages"),
            Later("Told, drawn, written: together, half given, or alone."),
            [SheetVariant.Together, SheetVariant.HalfGiven, SheetVariant.Alone],
            new(4, 20),
            new(5, 10),
            4,
            8,
            true
        ),
        new(
            SheetKind.PracticeStrips,
            Later("Practice strips"),
            Later("A numeral to trace and write, with its dots."),
            [SheetVariant.Whole],
            new(0, 20),
            new(0, 9),
            0,
            0,
            true
        ),
        new(
            SheetKind.RecordingStrips,
            Later("Recording strips"),
            Later("One a player, for the turns of a game."),
            [SheetVariant.Turns, SheetVariant.Splits, SheetVariant.Ways],
            new(2, 20),
            new(5, 5),
            4,
            12,
            false
        ),
        new(
            SheetKind.Shares,
            Later("Fair shares"),
            Later("Things to share between plates, with a pencil."),
            [SheetVariant.Evenly, SheetVariant.OneOver],
            new(4, 20),
            new(4, 10),
            4,
            8,
            true
        ),
        new(
            SheetKind.GuessSlips,
            Later("Guess slips"),
            Later("For the jar: a name and a guess."),
            [SheetVariant.Whole],
            new(0, 999),
            new(0, 999),
            8,
            40,
            false
        ),
    ];

    /// <summary>Whether its numbers can be chosen: a guess slip is blank.</summary>
    public bool HasNumbers => Kind != SheetKind.GuessSlips;

    /// <summary>Whether frames stand on it, filled by fives or by pairs.</summary>
    public bool HasFrames => Kind is SheetKind.TenFrames or SheetKind.PracticeStrips;

    /// <summary>Whether it tells stories, which have a theme.</summary>
    public bool HasStories => Kind == SheetKind.Stories;

    /// <summary>The name with the class's word for 3 + 4 = 7.</summary>
    public string NameIn(Wording words)
    {
        ArgumentNullException.ThrowIfNull(words);
        var word = words.SentenceName;
        return Kind == SheetKind.Sentences ? Phrase($"{char.ToUpperInvariant(word[0])}{word[1..]}s to finish") : Name;
    }

    /// <summary>Numbers it uses unless others are chosen: to twenty where the class has large numbers early, and the kind goes so far.</summary>
    public NumberRange UsualIn(Approach approach)
    {
        ArgumentNullException.ThrowIfNull(approach);
        return approach.Sizes == NumberSize.LargeEarly && Usual.High is >= 9 and < 20 ? new(Usual.Low, Math.Min(20, Widest.High)) : Usual;
    }

    public static SheetOffer Of(SheetKind kind) => All.First(o => o.Kind == kind);
}
