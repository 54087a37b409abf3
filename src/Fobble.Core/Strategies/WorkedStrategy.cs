using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Core.Skills;

namespace Fobble.Core.Strategies;

/// <summary>A step of working out: what is thought, what is said, what it looks like, and the line as it then stands.</summary>
/// <param name="Thought">As data, so that it can be carried out and checked.</param>
/// <param name="Says">What the adult or child says.</param>
/// <param name="Picture">The things after the step; keys are stable along the chain, so that a counter can be seen moving.</param>
/// <param name="Line">What is still to be joined: <c>8 + 2 + 5</c>; a single number at the end.</param>
public sealed record StrategyStep(Thought Thought, string Says, Picture Picture, string Line);

/// <summary>A strategy worked for one sum.</summary>
/// <param name="Fits">Why it fits these numbers.</param>
/// <param name="MentalSteps">Facts, splits and number words that it takes.</param>
/// <param name="FactsUsed">Kinds of fact that it leans on and a child has to have.</param>
/// <param name="Family">Sentences that can be read off in the end, none twice.</param>
/// <param name="Needs">Skills that a child has to be secure in.</param>
public sealed record WorkedStrategy(
    StrategyKind Kind,
    string Name,
    string Fits,
    IReadOnlyList<StrategyStep> Steps,
    int MentalSteps,
    FactKinds FactsUsed,
    IReadOnlyList<NumberSentence> Family,
    IReadOnlyList<SkillId> Needs
)
{
    public int Answer => int.Parse(Steps[^1].Line, System.Globalization.CultureInfo.InvariantCulture);
}

/// <summary>The strategy to work with, and the sentence that says why.</summary>
public sealed record Recommendation(StrategyKind Kind, string Reason);
