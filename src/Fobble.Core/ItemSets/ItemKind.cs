namespace Fobble.Core.ItemSets;

/// <summary>What an adult puts in front of children; each kind has its own set of cases in <see cref="ItemCases"/>.</summary>
public enum ItemKind
{
    SayTo,
    SayOn,
    SayBack,
    HowMany,
    Give,
    Numeral,
    TornTicket,
    WriteNumeral,
    SeeDice,
    SeeScattered,
    ShowFingers,
    Frame,
    Spaces,
    HiddenPart,
    BondPart,
    Doubles,
    Wells,
    Ring,
    OneMore,
    OneFewer,
    CompareSets,
    CompareNumerals,
    MissingTin,
    SwappedTins,
    Guess,
    Adding,
    TakingAway,
    MissingAddend,
}
