using Fobble.Core.Chance;
using Fobble.Core.GuessJar;
using Fobble.Core.Mats;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Core.Stories;
using Fobble.Core.Strategies;

namespace Fobble.Server.Features.Mats;

/// <summary>A mat on the shelf, with a small picture of it.</summary>
/// <param name="Desk">Which page opens it: counters, sums, look, path, kinds, story, dice, shakes or jar.</param>
/// <param name="Kind">Which of the mats for counters; null for other desks.</param>
public sealed record MatOnOffer(string Desk, MatKind? Kind, string Name, string For, Picture Picture);

/// <param name="State">As it stands in an address.</param>
/// <param name="Refused">Why what was asked cannot be done; null where it was.</param>
/// <param name="SignsFirst">Whether the class has signs beside the things from the start.</param>
public sealed record CounterMat(
    MatKind Kind,
    string Name,
    string State,
    string? Refused,
    IReadOnlyList<MatCounterView> Counters,
    IReadOnlyList<bool> Covered,
    MatView View,
    bool SignsFirst
);

/// <param name="Key">Of its shape in the picture.</param>
public sealed record MatCounterView(int Id, string Key, int Zone, int? Place, string Says);

public sealed record SumMat(int A, Operation Operation, int B, IReadOnlyList<WorkedSum> Strategies, StrategyKind Recommended, string Reason);

public sealed record WorkedSum(StrategyKind Kind, string Name, string Fits, int MentalSteps, IReadOnlyList<MatStep> Steps, IReadOnlyList<string> Family);

public sealed record WalkMat(IReadOnlyList<MatStep> Steps);

/// <param name="Steps">Working with a second number; empty where none was given.</param>
public sealed record KindsMat(string Name, NumberInKinds Number, IReadOnlyList<MatStep> Steps);

/// <param name="Lines">Sentence by sentence.</param>
/// <param name="Steps">The model answer.</param>
/// <param name="Answer">The number asked for; null where several are right.</param>
public sealed record StoryMat(
    StoryKind Kind,
    string Theme,
    IReadOnlyList<string> Lines,
    string Sentence,
    bool TwoRows,
    int Whole,
    int First,
    int? Answer,
    IReadOnlyList<MatStep> Steps,
    Picture Bond,
    Picture BondFilled,
    IReadOnlyList<PossibleSlip> Slips
);

/// <summary>What stories can be chosen from.</summary>
/// <param name="Low">Numbers to tell with unless others are chosen, as the class has them.</param>
public sealed record StoryChoices(IReadOnlyList<StoryKindView> Kinds, IReadOnlyList<StoryTheme> Themes, int Low, int High);

public sealed record StoryKindView(StoryKind Kind, string Name);

public sealed record StoryTheme(string Theme, string Name);

public sealed record PossibleSlip(int Answer, string PointsTo);

public sealed record StoryChecked(Picture Picture, bool Agrees, IReadOnlyList<string> Off);

public sealed record DiceMat(
    IReadOnlyList<string> Dice,
    long All,
    double Mean,
    IReadOnlyList<ThrownResult> Results,
    IReadOnlyList<ThrownFact> Facts,
    IReadOnlyList<string> Warnings,
    string Length,
    GameLength? Turns,
    Picture Thrown,
    string ThrownSays
);

public sealed record ShakesMat(IReadOnlyList<SplitShare> Splits, string ToSeeAll, Picture Picture);

public sealed record SplitShare(string Split, double Share, double ShakesToSee);

/// <param name="Heaps">The count, or else the likely number, laid out in heaps of ten.</param>
/// <param name="Caution">Null where the things are too large for it.</param>
public sealed record JarMat(Holds Holds, string HoldsInWords, NextAmount Next, string? Caution, Picture Heaps, string HeapsInWords);
