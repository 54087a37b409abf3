namespace Fobble.Core.Activities;

/// <summary>What can hurt someone. Limits are published; the advice always defers to local rules.</summary>
public enum Risk
{
    SmallParts,
    SmallBalls,
    RawPulses,
    Food,
    Trip,
}

public static class Cautions
{
    /// <summary>Closes every list of cautions.</summary>
    public const string Standing = "Follow your setting's risk assessment and local rules.";

    /// <summary>The usual caution, for the adult who sets the thing out.</summary>
    public static string For(Risk risk) => risk switch
    {
        Risk.SmallParts => "Small parts: not within reach of anyone who puts things in their mouth; count them out and back in. (Parts that fit a 31.7 mm cylinder, 16 CFR 1501.4.)",
        Risk.SmallBalls => "Small balls: use ones of 44.5 mm or more where anyone mouths things. (16 CFR 1500.18(a)(17).)",
        Risk.RawPulses => "Raw dried pulses, red kidney beans above all, make people ill if eaten: use counters instead where anyone might.",
        Risk.Food => "Food: check the class's allergy list first; counters do as well.",
        Risk.Trip => "Keep the way clear: nothing left on the floor where children walk.",
        _ => throw new ArgumentOutOfRangeException(nameof(risk), risk, null),
    };
}
