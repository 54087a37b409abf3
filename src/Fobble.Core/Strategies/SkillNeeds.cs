using Fobble.Core.Numbers;

namespace Fobble.Core.Strategies;

/// <summary>The skills that strategies ask for, by how far the numbers reach: what is secure to ten says nothing about forty.</summary>
internal static class SkillNeeds
{
    /// <summary>Saying on from a number, up to a last one.</summary>
    public static IReadOnlyList<string> CountingOn(int last) =>
        [
            last <= 10 ? "count.from-any-10"
            : last <= 20 ? "count.from-any-20"
            : "count.from-any-100",
        ];

    /// <summary>The double of a number.</summary>
    public static string Double(int number) => number <= 5 ? "bond.doubles" : "bond.doubles-20";

    /// <summary>Seeing a number as tens and what is beside them.</summary>
    public static string TensAndSome(int number) => number <= 20 ? "place.teen-frames" : "place.tens-ones";

    /// <summary>Nothing beside a number.</summary>
    public static IReadOnlyList<string> Zero(int number) => number <= 20 ? ["bond.zero-part"] : ["bond.zero-part", "numeral.name-100"];

    /// <summary>Knowing by heart, where the whole is up to ten.</summary>
    public static string Fluent(Operation operation, int whole) => $"{(operation == Operation.Add ? "join" : "take")}.fluent-{(whole <= 5 ? 5 : 10)}";
}
