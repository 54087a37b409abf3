using Fobble.Core.Approaches;

namespace Fobble.Core.Evidence;

/// <summary>Chance of an outcome if the child has the skill, and if not.</summary>
public readonly record struct Likelihood(double IfHas, double IfNot);

/// <summary>All numbers of rule R10 in one place.</summary>
public sealed record EvidenceSettings
{
    public static EvidenceSettings Default { get; } = new();

    /// <summary>Belief before anything was seen, and the level to which it fades.</summary>
    public double Prior { get; init; } = 0.20;

    /// <summary>Chance to be seen alone of a child who has the skill, and of one who has not; the other three likewise.</summary>
    public Likelihood Alone { get; init; } = new(0.72, 0.10);

    public Likelihood Prompted { get; init; } = new(0.18, 0.25);

    public Likelihood Together { get; init; } = new(0.06, 0.30);

    public Likelihood NotYet { get; init; } = new(0.04, 0.35);

    /// <summary>Chance of learning while being taught and watched.</summary>
    public double LearnTaught { get; init; } = 0.10;

    /// <summary>Chance of learning while choosing freely.</summary>
    public double LearnChoice { get; init; } = 0.03;

    /// <summary>Calendar days in which half of what lies above the prior fades, before any spaced success; doubles with each.</summary>
    public double FadeHalfLife { get; init; } = 30;

    /// <summary>Successes on different days beyond which fading slows no further.</summary>
    public int MostSpacedSuccesses { get; init; } = 4;

    /// <summary>School days after the last "alone" at which to look again, by number of spaced successes 1 to 4.</summary>
    public IReadOnlyList<int> LookAgainAfter { get; init; } = [3, 10, 30, 60];

    /// <summary>Belief below which a skill once secure is to be looked at again.</summary>
    public double LookAgainBelow { get; init; } = 0.75;

    /// <summary>School days after first becoming secure before "alone" shows that it is kept.</summary>
    public int KeptAfter { get; init; } = 15;

    public Strictness Strictness { get; init; } = Strictness.Usual;

    public SecureRule Secure =>
        Strictness switch
        {
            Strictness.Strict => new(Alone: 4, Days: 3, Representations: 2, Belief: 0.90),
            Strictness.Light => new(Alone: 2, Days: 2, Representations: 1, Belief: 0.80),
            _ => new(Alone: 3, Days: 2, Representations: 2, Belief: 0.85),
        };

    public Likelihood For(Support support) =>
        support switch
        {
            Support.Alone => Alone,
            Support.Prompted => Prompted,
            Support.Together => Together,
            _ => NotYet,
        };

    public double LearningIn(Setting setting) =>
        setting switch
        {
            Setting.Choice => LearnChoice,
            Setting.Baseline => 0,
            _ => LearnTaught,
        };
}

/// <summary>Of the last five: this many alone, on this many school days, in this many representations, with at least this belief.</summary>
public sealed record SecureRule(int Alone, int Days, int Representations, double Belief);
