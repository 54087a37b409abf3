using Fobble.Core.Numbers;
using Fobble.Core.Pictures;

namespace Fobble.Core.Mats;

/// <summary>A number in its kinds: blocks, cards, the expanded sentence, and what is read off it (rule R5).</summary>
public sealed record NumberInKinds(int Number, Picture Blocks, Picture CardsApart, Picture CardsTogether, string Sentence, IReadOnlyList<string> Readings);

/// <summary>Blocks and layered cards to 999, and working with them kind by kind.</summary>
public static class PlaceValueMat
{
    /// <summary>A number as somebody asked for it.</summary>
    /// <exception cref="RefusedException">It is none that blocks and cards show.</exception>
    public static int Asked(int number) =>
        number is >= 0 and <= NumberRange.Largest
            ? number
            : throw new RefusedException("number", Phrase($"Numbers go from 0 to {NumberRange.Largest}, not {number}."));

    public static NumberInKinds Show(int number, Wording words)
    {
        ArgumentNullException.ThrowIfNull(words);
        var value = PlaceValue.Of(number);
        List<string> readings = [InKinds(value, words), HeapsOfTen.Of(number).ToString()];
        readings.AddRange(number % 10 == 0 ? [] : [Phrase($"nearest ten: {Rounding.ToTen(number)}")]);
        readings.AddRange(number >= 10 ? [Phrase($"ten {words.Fewer}: {number - 10}")] : []);
        readings.AddRange(number <= 989 ? [Phrase($"ten more: {number + 10}")] : []);
        return new(
            number,
            PlaceValues.Blocks(value),
            PlaceValues.Cards(number, apart: true),
            PlaceValues.Cards(number, apart: false),
            value.ExpandedSentence(),
            readings
        );
    }

    /// <summary>a + b or a − b with blocks, the ones first, every exchange said.</summary>
    /// <exception cref="RefusedException">The result is not from 0 to 999.</exception>
    public static IReadOnlyList<MatStep> Work(int a, Operation operation, int b, Wording words)
    {
        ArgumentNullException.ThrowIfNull(words);
        if (a is < 0 or > 999 || b is < 0 or > 999 || (operation == Operation.Add ? a + b > 999 : b > a))
        {
            throw new RefusedException(
                "number",
                operation == Operation.Add ? Phrase($"{a} + {b} is more than 999.") : Phrase($"{b} cannot be taken from {a}.")
            );
        }

        var (lying, other) = (PlaceValue.Of(a), PlaceValue.Of(b));
        var add = operation == Operation.Add;
        var sentence = $"{a} {(add ? "+" : "−")} {b}";
        List<MatStep> steps =
        [
            new(
                add
                    ? Phrase($"{InKinds(lying, words)}; put to it {InKinds(other, words)}.")
                    : $"{InKinds(lying, words)}; {words.TakeAway} {InKinds(other, words)}.",
                add ? PlaceValues.Blocks(Plus(lying, other), lying) : PlaceValues.Blocks(lying),
                $"{sentence} = □"
            ),
        ];
        foreach (var step in add ? KindByKind.Add(a, b) : KindByKind.TakeAway(a, b))
        {
            var rest = add ? new PlaceValue(step.Kind < NumberKind.Hundreds ? other.Hundreds : 0, step.Kind < NumberKind.Tens ? other.Tens : 0, 0) : default;
            steps.Add(new(Says(step, lying, words, add), PlaceValues.Blocks(Plus(step.After, rest), add ? step.After : null), $"{sentence} = □"));
            lying = step.After;
        }

        steps.Add(new($"{InKinds(lying, words)}: {NumberWords.Of(lying.Number)}.", PlaceValues.Blocks(lying), $"{sentence} = {lying.Number}"));
        return steps;
    }

    private static string Says(KindStep step, PlaceValue before, Wording words, bool add)
    {
        var name = NameOf(step.Kind, words);
        return step.Move switch
        {
            KindMove.Gather => Phrase($"Ten {name} are exchanged for one {(step.Kind == NumberKind.Ones ? "ten" : "hundred")}."),
            KindMove.Break => Phrase($"One {(step.Kind == NumberKind.Tens ? "ten" : "hundred")} is exchanged for ten {NameOf(step.Kind - 1, words)}."),
            _ when add => Phrase($"{Capital(name)}: {before[step.Kind]} and {step.After[step.Kind] - before[step.Kind]} are {step.After[step.Kind]}."),
            _ => Phrase($"{Capital(name)}: {before[step.Kind]} {words.TakeAway} {before[step.Kind] - step.After[step.Kind]} leaves {step.After[step.Kind]}."),
        };
    }

    private static string InKinds(PlaceValue value, Wording words)
    {
        var parts = new[] { NumberKind.Hundreds, NumberKind.Tens, NumberKind.Ones }
            .Where(k => value[k] > 0)
            .Select(k => $"{value[k]} {(value[k] > 1 ? NameOf(k, words) : k == NumberKind.Ones ? words.OneName : k == NumberKind.Tens ? "ten" : "hundred")}")
            .ToList();
        return parts.Count == 0 ? $"0 {words.OnesName}"
            : parts.Count == 1 ? parts[0]
            : Phrase($"{string.Join(", ", parts.SkipLast(1))} and {parts[^1]}");
    }

    private static string NameOf(NumberKind kind, Wording words) =>
        kind switch
        {
            NumberKind.Ones => words.OnesName,
            NumberKind.Tens => Phrase("tens"),
            _ => Phrase("hundreds"),
        };

    private static string Capital(string word) => char.ToUpperInvariant(word[0]) + word[1..];

    private static PlaceValue Plus(PlaceValue a, PlaceValue b) => new(a.Hundreds + b.Hundreds, a.Tens + b.Tens, a.Ones + b.Ones);
}
