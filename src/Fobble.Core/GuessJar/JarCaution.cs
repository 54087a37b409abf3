namespace Fobble.Core.GuessJar;

/// <summary>The usual caution with what is put into a jar.</summary>
public static class JarCaution
{
    /// <summary>Balls that fit a circle of 44.4 mm count as small (16 CFR 1500.18(a)(17), from memory), other things of that size are taken to be.</summary>
    public const double SmallMm = 44.4;

    public static string Standing =>
        Phrase(
            "Small things can be swallowed or pushed into an ear: keep the lid on among children who mouth, mind allergies, and follow your school's own rules and those responsible for safety there."
        );

    /// <returns>Null where the things are too large for it.</returns>
    public static string? For(double acrossMm) => acrossMm <= SmallMm ? Standing : null;
}
