using Fobble.Core.Numbers;
using Fobble.Core.Pictures;

namespace Fobble.Core.Approaches;

/// <summary>When numerals and signs come in.</summary>
public enum SymbolsWhen
{
    AfterObjects,
    FromTheStart,
}

public enum NumberSize
{
    SmallFirst,
    LargeEarly,
}

public enum YearOrder
{
    Spiral,
    UnitByUnit,
}

public enum SheetUse
{
    AsRecord,
    EveryLesson,
    None,
}

public enum GroupWay
{
    SameStep,
    Mixed,
}

/// <summary>What counts as secure; the numbers are in rule R10's settings.</summary>
public enum Strictness
{
    Usual,
    Strict,
    Light,
}

/// <summary>How soon a skill that nobody has seen for long is said to be in doubt.</summary>
public enum Fading
{
    Usual,
    Sooner,
    Later,
    Never,
}

/// <summary>How much of a week goes into looking again.</summary>
public enum SecondLookTime
{
    Usual,
    Little,
    Much,
}

/// <summary>Chances that a class's children and adults are judged by, where the record shows them to be others than is usual.</summary>
/// <param name="Guess">To be seen alone without having the skill, 0 to 1.</param>
/// <param name="Slip">To need help, or not to show it, though the skill is there.</param>
/// <param name="Learning">To learn a skill in one lesson or group in which the child is watched.</param>
public sealed record OwnNumbers(double Guess, double Slip, double Learning);

/// <summary>How a class does things where practitioners disagree; plans, groups, item sets, pictures, stories, prompts and sheets follow it.</summary>
public sealed record Approach(FrameStyle Frames, Wording Words)
{
    public static Approach Usual { get; } = new(FrameStyle.Usual, Wording.Usual);

    public SymbolsWhen Symbols { get; init; }

    public NumberSize Sizes { get; init; }

    public YearOrder Order { get; init; }

    public SheetUse Sheets { get; init; }

    public GroupWay Groups { get; init; }

    public Strictness Secure { get; init; }

    public Fading Fading { get; init; }

    public SecondLookTime Looks { get; init; }

    /// <summary>Null where the class is judged by the usual numbers.</summary>
    public OwnNumbers? Numbers { get; init; }
}
