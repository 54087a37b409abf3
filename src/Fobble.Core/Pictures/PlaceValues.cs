using Fobble.Core.Numbers;

namespace Fobble.Core.Pictures;

/// <summary>Base-ten blocks and layered cards (rule R5).</summary>
public static class PlaceValues
{
    private const double One = 0.4;
    private const double Gap = 0.16;
    private const int OnesInColumn = 10;

    /// <summary>
    /// Blocks of a number, hundreds left, then tens, then ones; a kind may hold more than nine while an exchange is due.
    /// The blocks from <paramref name="joined"/> on (of each kind) have the second colour: what was put to it.
    /// </summary>
    public static Picture Blocks(PlaceValue value, PlaceValue? joined = null)
    {
        List<Shape> shapes = [];
        var x = 0.1;
        foreach (var kind in new[] { NumberKind.Hundreds, NumberKind.Tens, NumberKind.Ones })
        {
            for (var i = 0; i < value[kind]; i++)
            {
                var role = joined is { } first && i >= first[kind] ? ShapeRole.CounterB : ShapeRole.CounterA;
                var key = $"{kind}-{i + 1}";
                switch (kind)
                {
                    case NumberKind.Hundreds:
                        shapes.AddRange(Grid(key, role, x + (i / 2 * ((10 * One) + 0.3)), 0.1 + (i % 2 * ((10 * One) + 0.3)), 10, 10));
                        break;
                    case NumberKind.Tens:
                        shapes.AddRange(Grid(key, role, x + (i * (One + Gap)), 0.1, 1, 10));
                        break;
                    default:
                        shapes.AddRange(Grid(key, role, x + (i / OnesInColumn * (One + Gap)), 0.1 + ((9 - (i % OnesInColumn)) * One), 1, 1));
                        break;
                }
            }

            x += kind switch
            {
                NumberKind.Hundreds => (value.Hundreds + 1) / 2 * ((10 * One) + 0.3),
                NumberKind.Tens => value.Tens * (One + Gap) + (value.Tens > 0 ? 0.3 : 0),
                _ => (value.Ones + OnesInColumn - 1) / OnesInColumn * (One + Gap),
            };
        }

        var height = value.Hundreds > 1 ? (20 * One) + 0.5 : (10 * One) + 0.2;
        return new Picture(Math.Max(2, x + 0.1), height, shapes, Phrase($"Blocks: {value.Hundreds} hundreds, {value.Tens} tens, {value.Ones} ones"));
    }

    /// <summary>The layered cards of a number: apart, each kind on its own card, or slid over each other so that they show the numeral.</summary>
    public static Picture Cards(int number, bool apart)
    {
        var parts = PlaceValue.Of(number).Expanded();
        List<Shape> shapes = [];
        const double Digit = 1.3;
        var widest = $"{parts[0]}".Length * Digit;
        for (var i = 0; i < parts.Count; i++)
        {
            var text = $"{parts[i]}";
            var width = text.Length * Digit;
            var (left, top) = apart ? (0.1 + (widest - width), 0.1 + (i * 2.3)) : (0.1 + (widest - width), 0.1);
            shapes.Add(Shape.Box($"card-{width / Digit:0}", ShapeRole.Card, left, top, width, 2.1));

            if (apart && Things.ReadsTurned(parts[i]))
            {
                shapes.Add(Shape.Line($"card-{width / Digit:0}-foot", ShapeRole.Rule, left + 0.3, top + 1.9, left + width - 0.3, top + 1.9));
            }

            // Slid together, a card covers the zeros of the one below it: only its first digit stays in sight.
            for (var digit = 0; digit < text.Length; digit++)
            {
                if (apart || digit == 0 || text.Length - digit > (i + 1 < parts.Count ? $"{parts[i + 1]}".Length : 0))
                {
                    shapes.Add(
                        Shape.Label(
                            $"card-{width / Digit:0}-digit-{digit + 1}",
                            ShapeRole.Numeral,
                            left + (Digit * (digit + 0.5)),
                            top + 1.05,
                            1.5,
                            text[digit].ToString()
                        )
                    );
                }
            }
        }

        return new Picture(
            widest + 0.2,
            apart ? (parts.Count * 2.3) : 2.3,
            shapes,
            apart ? Phrase($"Cards {string.Join(", ", parts)}") : Phrase($"Cards slid together to {number}")
        );
    }

    // A block with the lines that show what it is made of: ten by ten, one by ten, or one.
    private static IEnumerable<Shape> Grid(string key, ShapeRole role, double x, double y, int columns, int rows)
    {
        yield return Shape.Box(key, role, x, y, columns * One, rows * One);
        for (var i = 1; i < rows; i++)
        {
            yield return Shape.Line($"{key}-row-{i}", ShapeRole.Block, x, y + (i * One), x + (columns * One), y + (i * One));
        }

        for (var i = 1; i < columns; i++)
        {
            yield return Shape.Line($"{key}-column-{i}", ShapeRole.Block, x + (i * One), y, x + (i * One), y + (rows * One));
        }
    }
}
