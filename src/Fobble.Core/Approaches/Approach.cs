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
}
