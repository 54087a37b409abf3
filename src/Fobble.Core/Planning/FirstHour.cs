namespace Fobble.Core.Planning;

/// <summary>What a new class goes through, from its list to the first session card.</summary>
public enum FirstStep
{
    ClassList,
    Approach,
    Timetable,
    Known,
    Plan,
    Groups,
    Card,
}

public enum StepState
{
    Open,
    Done,

    /// <summary>Left for later.</summary>
    Later,
}

/// <summary>What there is of a class by now.</summary>
/// <param name="Observations">How many children something was seen of.</param>
/// <param name="Settled">Steps that an adult has said to be done.</param>
/// <param name="Later">Steps that an adult has left for later.</param>
public sealed record FirstHourFacts(int Children, int Observations, bool Plan, int Groups, IReadOnlySet<FirstStep> Settled, IReadOnlySet<FirstStep> Later);

/// <param name="Title">What is to be done.</param>
/// <param name="Why">What for, in a sentence.</param>
/// <param name="Minutes">How long it usually takes.</param>
/// <param name="Now">What there is of it, once it is done; else empty.</param>
public sealed record FirstHourStep(FirstStep Step, StepState State, string Title, string Why, int Minutes, string Now);

/// <summary>The first hour with a class, worked out from what there is of it. Once it is over it does not come back.</summary>
public static class FirstHour
{
    public static IReadOnlyList<FirstHourStep> Steps(FirstHourFacts facts)
    {
        ArgumentNullException.ThrowIfNull(facts);
        var children = Words.Count(facts.Children, "child", "children");
        return
        [
            Step(
                FirstStep.ClassList,
                Phrase("The class list"),
                Phrase("All that follows is about these children: their names, and how old they are."),
                1,
                facts.Children > 0,
                $"{Words.Capital(children)}."
            ),
            Step(
                FirstStep.Approach,
                Phrase("How this class works"),
                Phrase("Three things on which good teachers differ; plan, groups and sheets follow you."),
                1,
                false,
                Phrase("As you said; the rest as is usual.")
            ),
            Step(
                FirstStep.Timetable,
                Phrase("Timetable and holidays"),
                Phrase("So that nothing is planned for a day without school, nor groups for a time without an adult."),
                2,
                false,
                Phrase("In the calendar.")
            ),
            Step(
                FirstStep.Known,
                Phrase("What they know already"),
                Phrase("The more is known, the fewer lessons go to what they have. Beginning as new is fine: it shows within weeks."),
                1,
                facts.Observations > 0,
                facts.Observations > 0
                    ? Phrase($"Something is known of {Words.Count(facts.Observations, "child", "children")}.")
                    : Phrase("Begun as new: what they know shows as you record.")
            ),
            Step(
                FirstStep.Plan,
                Phrase("A plan that fits"),
                Phrase("Which skill on which day, in an order in which each builds on what came before."),
                2,
                facts.Plan,
                Phrase("In force. It follows the class as you record.")
            ),
            Step(
                FirstStep.Groups,
                Phrase("The first groups"),
                Phrase("Who to take together, on what, and why: each child with a reason."),
                2,
                facts.Groups > 0,
                Phrase($"{Words.Capital(Words.Count(facts.Groups, "group", "groups"))} to come.")
            ),
            Step(
                FirstStep.Card,
                Phrase("The first session card"),
                Phrase("What to lay out, what to say, and four large places to tap what you see."),
                1,
                false,
                "Opened."
            ),
        ];

        FirstHourStep Step(FirstStep step, string title, string why, int minutes, bool there, string now) =>
            new(
                step,
                there || facts.Settled.Contains(step) ? StepState.Done
                    : facts.Later.Contains(step) ? StepState.Later
                    : StepState.Open,
                title,
                why,
                minutes,
                there || facts.Settled.Contains(step) ? now : ""
            );
    }
}
