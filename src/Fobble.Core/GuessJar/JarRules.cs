namespace Fobble.Core.GuessJar;

/// <summary>What a guess jar may be filled with, guessed and counted.</summary>
public static class JarRules
{
    /// <summary>As many things as can be counted with a class at one sitting (common practice).</summary>
    public const int MostThings = 300;

    /// <summary>A guess above this is taken for a slip of the finger.</summary>
    public const int LargestGuess = 999;
    private const int LongestName = 60;
    private const double LargestJarMl = 20_000;
    private const double LargestThingMm = 200;

    /// <summary>How many things a jar holds that are poured in; at least one.</summary>
    public static int Holds(double jarMl, ThingShape shape, double acrossMm, double thickMm)
    {
        var thing = JarFill.VolumeOf(shape, acrossMm, thickMm);
        return thing >= jarMl ? 1 : Math.Max(1, JarFill.Of(jarMl, thing, shape).From);
    }

    /// <exception cref="RefusedException">A jar can't be filled like that.</exception>
    public static void CheckFilling(string jar, string things, double jarMl, double acrossMm, double thickMm, int amount)
    {
        Refusals refusals = new();
        refusals.Check("jar", jar.Trim().Length is > 0 and <= LongestName, Phrase($"Name the jar, in up to {LongestName} letters."));
        refusals.Check("things", things.Trim().Length is > 0 and <= LongestName, Phrase($"Name the things, in up to {LongestName} letters."));
        refusals.Check("jarMl", jarMl is > 0 and <= LargestJarMl, Phrase("A jar holds up to 20,000 millilitres."));
        refusals.Check("acrossMm", acrossMm is > 0 and <= LargestThingMm, Phrase("Things are up to 200 millimetres across."));
        refusals.Check("thickMm", thickMm is > 0 and <= LargestThingMm, Phrase("Things are up to 200 millimetres thick."));
        refusals.Check("amount", amount is > 0 and <= MostThings, Phrase($"Fill it with 1 to {MostThings} things."));
        refusals.ThrowIfAny();
    }

    /// <exception cref="RefusedException">That is no guess; none is fine.</exception>
    public static void CheckGuess(int? guess) =>
        RefusedException.Unless(guess is null or (>= 1 and <= LargestGuess), "guess", Phrase($"A guess is a number from 1 to {LargestGuess}."));

    /// <exception cref="RefusedException">So many were not in it.</exception>
    public static void CheckCount(int counted) =>
        RefusedException.Unless(counted is >= 1 and <= MostThings, "counted", Phrase($"Count 1 to {MostThings} things."));
}
