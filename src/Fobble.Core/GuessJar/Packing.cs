namespace Fobble.Core.GuessJar;

public enum ThingShape
{
    Ball,

    /// <summary>Flat and rounded, like a lens or a button.</summary>
    Disc,
    Cube,

    /// <summary>Of several shapes, or none of the others.</summary>
    Mixed,
}

/// <summary>The share of a jar's room that things take up: poured in loosely, and shaken down.</summary>
public readonly record struct PackingShare(double Poured, double Shaken)
{
    /// <summary>
    /// Balls: 0.60 poured and 0.6366 shaken (Scott and Kilgour 1969). Discs shaped like lenses: 0.68 shaken (Donev and others 2004). Cubes, tumbled:
    /// 0.57 (from memory). Where only one figure is known the other lies as far from it as for balls.
    /// </summary>
    public static PackingShare Of(ThingShape shape) =>
        shape switch
        {
            ThingShape.Ball => new(0.60, 0.6366),
            ThingShape.Disc => new(0.64, 0.68),
            ThingShape.Cube => new(0.53, 0.57),
            _ => new(0.53, 0.68),
        };
}

/// <summary>How many things a jar holds: from, to, and the most likely.</summary>
public readonly record struct Holds(int From, int Likely, int To);

/// <summary>A full jar that was counted, against what was expected of it before any correction.</summary>
public sealed record CountedFill(double Expected, int Counted);

/// <summary>Things in a jar (rule R8). Volumes in millilitres (cubic centimetres).</summary>
public static class JarFill
{
    /// <summary>Packing share × jar's volume ÷ a thing's volume, less for large things near a wall, times what the class's own counts of that jar say.</summary>
    /// <exception cref="ArgumentOutOfRangeException">A volume is not above 0, or the jar is smaller than a thing.</exception>
    public static Holds Of(double jarMl, double thingMl, ThingShape shape, IReadOnlyList<CountedFill>? counted = null)
    {
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(jarMl);
        ArgumentOutOfRangeException.ThrowIfNegativeOrZero(thingMl);
        ArgumentOutOfRangeException.ThrowIfLessThan(jarMl, thingMl);
        var share = PackingShare.Of(shape);
        var room = jarMl / thingMl * NearWalls(jarMl, thingMl) * Correction(counted ?? []);
        return new((int)(room * share.Poured), Rounded(room * (share.Poured + share.Shaken) / 2), (int)Math.Ceiling(room * share.Shaken));
    }

    /// <summary>
    /// The share of the things that are held although walls are near, 0 to 1: the voids of balls in a cylinder (Dixon 1988, from memory) against those far from
    /// any wall. The jar is taken to be as wide as it is high, a thing to be as wide as a ball of its volume.
    /// </summary>
    public static double NearWalls(double jarMl, double thingMl)
    {
        var ratio = Math.Min(1, Math.Cbrt(6 * thingMl / Math.PI) / Math.Cbrt(4 * jarMl / Math.PI));
        var voids = ratio switch
        {
            <= 0.5 => 0.4 + (0.05 * ratio) + (0.412 * ratio * ratio),
            <= 0.536 => 0.528 + (2.464 * (ratio - 0.5)),
            _ => 1 - (0.667 * ratio * ratio * ratio / Math.Sqrt((2 * ratio) - 1)),
        };
        return Math.Min(1, (1 - voids) / (1 - 0.4));
    }

    /// <summary>The middle of counted ÷ expected, as a factor; 1 where nothing was counted.</summary>
    public static double Correction(IReadOnlyList<CountedFill> counted)
    {
        ArgumentNullException.ThrowIfNull(counted);
        return counted.Count == 0 ? 1 : Math.Exp(counted.Average(c => Math.Log(c.Counted / c.Expected)));
    }

    /// <summary>Volume of a ball, disc (an ellipsoid) or cube from its measures in millimetres.</summary>
    /// <param name="across">Diameter, or the cube's side.</param>
    /// <param name="thick">Thickness of a disc; not used for others.</param>
    public static double VolumeOf(ThingShape shape, double across, double thick)
    {
        var millimetres = shape switch
        {
            ThingShape.Ball => Math.PI / 6 * across * across * across,
            ThingShape.Disc => Math.PI / 6 * across * across * thick,
            _ => across * across * across,
        };
        return millimetres / 1000;
    }

    private static int Rounded(double number) => (int)Math.Round(number, MidpointRounding.AwayFromZero);
}
