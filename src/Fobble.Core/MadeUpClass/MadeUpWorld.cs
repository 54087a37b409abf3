using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;

namespace Fobble.Core.MadeUpClass;

/// <summary>
/// How made-up children and adults really are (rule R15). A judgement that is tuned to one such world proves little: figures are given on several, some of which
/// nothing was fitted to. All numbers are invented; none is a finding about children.
/// </summary>
/// <param name="Name">As it stands beside a figure.</param>
public sealed record MadeUpWorld(string Name)
{
    /// <summary>Calendar days after which half of the skills that were not used are gone; each use on a later day makes the next span longer. Null: nothing is forgotten.</summary>
    public double? HalfLife { get; init; }

    /// <summary>By how much each spaced use lengthens the half-life, up to four times.</summary>
    public double LongerWithUse { get; init; } = 1.5;

    /// <summary>Share of newly learned skills that are held by half at first: they show every other time, until they are taught once more.</summary>
    public double HalfHeld { get; init; }

    /// <summary>Spread between children of how often a skill that is held does not show, around a tenth.</summary>
    public double LapseSpread { get; init; }

    /// <summary>Spread between skills of how readily they show, in logits.</summary>
    public double EaseSpread { get; init; }

    /// <summary>Share of what a child needed a nod for that the adult of the small groups writes down as alone; below zero, share of the alone that is written as prompted.</summary>
    public double Lenience { get; init; }

    /// <summary>Whether choice time and the check at the beginning are led by what children hold, which no adult can see.</summary>
    public bool SeesTheTruth { get; init; }

    /// <summary>Share of the map's links that do not hold for a child.</summary>
    public double UntrueLinks { get; init; }

    /// <summary>The world of the demo: nothing is forgotten, and choice time shows what is there.</summary>
    public static MadeUpWorld Usual { get; } = new("as the demo is made") { SeesTheTruth = true };

    /// <summary>Those that figures about judgement are given on.</summary>
    public static IReadOnlyList<MadeUpWorld> All { get; } =
    [
        Usual,
        new("nothing forgotten, nobody sees the truth"),
        new("half forgotten in 90 days") { HalfLife = 90 },
        new("half forgotten in 60 days, a tenth of the links untrue") { HalfLife = 60, UntrueLinks = 0.1 },
        new("half forgotten in 30 days") { HalfLife = 30 },
        new("held by half, lenient and uneven")
        {
            HalfLife = 90,
            HalfHeld = 0.4,
            LapseSpread = 0.08,
            EaseSpread = 0.6,
            Lenience = 0.25,
        },
        new("strict adults")
        {
            HalfLife = 60,
            HalfHeld = 0.2,
            LapseSpread = 0.05,
            EaseSpread = 0.4,
            Lenience = -0.25,
        },
    ];

    /// <summary>How readily a skill shows in this world, in logits: the same for every child.</summary>
    internal double EaseOf(SkillId skill) => EaseSpread == 0 ? 0 : EaseSpread * new SeededRandom(SeededRandom.SeedOf($"ease|{skill}")).NextNormal();

    /// <summary>What the adult writes down for what was shown.</summary>
    internal Support Written(Support shown, Setting setting, SeededRandom random) =>
        Lenience == 0 || setting is not (Setting.Group or Setting.Choice) ? shown
        : Lenience > 0 && shown == Support.Prompted && random.Chance(Lenience) ? Support.Alone
        : Lenience < 0 && shown == Support.Alone && random.Chance(-Lenience) ? Support.Prompted
        : shown;
}
