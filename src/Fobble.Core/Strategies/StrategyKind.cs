namespace Fobble.Core.Strategies;

/// <summary>Ways of working out a sum or difference that children are taught, the most basic first.</summary>
public enum StrategyKind
{
    ZeroFact,
    CountAll,
    CountOnFromFirst,
    CountOnFromLarger,
    CountBack,
    CountUp,
    CompareByMatching,
    Doubles,
    BondOfTen,
    TenAndSome,
    KnownByHeart,
    NearDoubles,
    DoubleBetween,
    PlusNine,
    MinusNine,
    MakeTen,
    FiveAsAnchor,
    SplitTeen,
    TakeFromTen,
    BackThroughTen,
    ThinkAddition,
    JumpInTens,
    KindByKind,
}

/// <summary>Facts that a strategy may lean on.</summary>
[Flags]
public enum FactKinds
{
    None = 0,

    /// <summary>Nothing put to or taken from a number, or a number taken from itself.</summary>
    Zero = 1,

    /// <summary>One more or one fewer.</summary>
    OneMore = 2,

    /// <summary>Sums up to ten, and the differences that belong to them.</summary>
    WithinTen = 4,

    /// <summary>Two parts of ten, also where they fill a later ten: 7 + 3, 27 + 3.</summary>
    BondOfTen = 8,
    Double = 16,

    /// <summary>Tens and a single digit, put together or taken apart: 10 + 4, 14 − 4, 40 + 7.</summary>
    TenAndSome = 32,

    /// <summary>Whole tens or hundreds among themselves and beside smaller kinds: 40 + 30, 100 + 65.</summary>
    WholeTens = 64,

    /// <summary>Sums of two single digits, and the differences that belong to them.</summary>
    SingleDigits = 128,

    /// <summary>A single digit put to tens and some, or taken from them, without passing a ten: 66 + 3, 58 − 3.</summary>
    OnTens = 256,
}
