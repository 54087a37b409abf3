using Fobble.Core.Approaches;
using Fobble.Core.Calendars;

namespace Fobble.Core.Evidence;

/// <summary>Chance of an outcome if the child has the skill, and if not.</summary>
public readonly record struct Likelihood(double IfHas, double IfNot);

/// <summary>
/// All numbers of rule R10 in one place. Where no source is named they come from the rule's own measurements; what they are worth stands in
/// <c>./fobble bench worlds judgement</c>.
/// </summary>
public sealed record EvidenceSettings
{
    public static EvidenceSettings Default { get; } = new();

    /// <summary>As a class judges by its own choice.</summary>
    public static EvidenceSettings Of(Approach approach)
    {
        ArgumentNullException.ThrowIfNull(approach);
        var chosen = Default with { Strictness = approach.Secure, SecondLook = SecondLookSettings.Of(approach.Fading, approach.Looks) };
        return approach.Numbers is { } own ? chosen.By(own) : chosen;
    }

    /// <summary>The chances that a class may have of its own.</summary>
    public OwnNumbers Numbers => new(Alone.IfNot, WithHelp.IfHas + NotYet.IfHas, LearnTaught);

    /// <summary>The same with these chances; how what is left of each is shared out stays as it is.</summary>
    public EvidenceSettings By(OwnNumbers own)
    {
        ArgumentNullException.ThrowIfNull(own);
        var (has, slips, lacks) = ((1 - own.Slip) / (1 - Numbers.Slip), own.Slip / Numbers.Slip, (1 - own.Guess) / (1 - Numbers.Guess));
        return this with
        {
            Alone = new(Alone.IfHas * has, own.Guess),
            Prompted = new(Prompted.IfHas * has, Prompted.IfNot * lacks),
            WithHelp = new(WithHelp.IfHas * slips, WithHelp.IfNot * lacks),
            NotYet = new(NotYet.IfHas * slips, NotYet.IfNot * lacks),
            LearnTaught = own.Learning,
            LearnChoice = LearnChoice * own.Learning / LearnTaught,
        };
    }

    /// <summary>Belief before anything was seen, and the level to which it fades.</summary>
    public double Prior { get; init; } = 0.20;

    /// <summary>Chance to be seen alone of a child who has the skill, and of one who has not; the other three likewise.</summary>
    public Likelihood Alone { get; init; } = new(0.72, 0.10);

    public Likelihood Prompted { get; init; } = new(0.18, 0.25);

    public Likelihood WithHelp { get; init; } = new(0.06, 0.30);

    public Likelihood NotYet { get; init; } = new(0.04, 0.35);

    /// <summary>Chance of learning while being taught and watched.</summary>
    public double LearnTaught { get; init; } = 0.06;

    /// <summary>Chance of learning while choosing freely.</summary>
    public double LearnChoice { get; init; } = 0.02;

    /// <summary>So many observations of what a child has weigh as much as what is known of children's style beforehand.</summary>
    public double StyleWeight { get; init; } = 8;

    /// <summary>How much of what children have they usually show without a nod, 0 to 1.</summary>
    public double UsualStyle => Alone.IfHas / (Alone.IfHas + Prompted.IfHas);

    public TogetherSettings Together { get; init; } = new();

    /// <summary>Calendar days in which half of what lies above the prior fades, before any spaced success; doubles with each.</summary>
    public double FadeHalfLife { get; init; } = 30;

    /// <summary>Successes on different days beyond which fading slows no further.</summary>
    public int MostSpacedSuccesses { get; init; } = 4;

    public SecondLookSettings SecondLook { get; init; } = new();

    /// <summary>School days after first becoming secure before "alone" shows that it is kept.</summary>
    public int KeptAfter { get; init; } = 15;

    public Strictness Strictness { get; init; } = Strictness.Usual;

    public SecureRule Secure => SecureRule.Of(Strictness);

    /// <summary>Belief from which a skill that nobody has seen is taken to be there until it is: a guess to confirm.</summary>
    public double LikelyFrom { get; init; } = 0.85;

    /// <summary>What an outcome says of a child that shows so much of what it has without a nod.</summary>
    /// <param name="style">0 to 1; at <see cref="UsualStyle"/> it is what stands above.</param>
    public Likelihood For(Support support, double style)
    {
        // What is shown with a nod by one is shown without by another: together they say the same.
        var shown = Alone.IfHas + Prompted.IfHas;
        var byLuck = Alone.IfNot * style / UsualStyle;
        var rest = (1 - byLuck) / (1 - Alone.IfNot);
        return support switch
        {
            Support.Alone => new(shown * style, byLuck),
            Support.Prompted => new(shown * (1 - style), Prompted.IfNot * rest),
            Support.Together => new(WithHelp.IfHas, WithHelp.IfNot * rest),
            _ => new(NotYet.IfHas, NotYet.IfNot * rest),
        };
    }

    public double LearningIn(Setting setting) =>
        setting switch
        {
            Setting.Choice => LearnChoice,
            Setting.Baseline => 0,
            _ => LearnTaught,
        };
}

/// <summary>
/// Of the last eight: this many alone, and right, alone or prompted, on this many school days and in this many ways; with at least this belief, by everything that
/// was seen of the child.
/// </summary>
public sealed record SecureRule(int Alone, int Days, int Representations, double Belief)
{
    public static SecureRule Of(Strictness strictness) =>
        strictness switch
        {
            Strictness.Strict => new(Alone: 3, Days: 3, Representations: 2, Belief: 0.98),
            Strictness.Light => new(Alone: 1, Days: 2, Representations: 1, Belief: 0.85),
            _ => new(Alone: 1, Days: 2, Representations: 2, Belief: 0.97),
        };

    /// <summary>What it asks, as a class that chooses reads it.</summary>
    public string Sentence =>
        Phrase($"Right on {Words.Number(Days)} days and in {(Representations == 1 ? "any way" : $"{Words.Number(Representations)} ways")}, ")
        + Phrase($"alone at least {Words.Times(Alone)}, and everything seen of the child makes it {Words.Percent(Belief)} sure.");
}

/// <summary>How much a skill says about what it needs and what builds on it.</summary>
public sealed record TogetherSettings
{
    /// <summary>Chance to hold a skill without all it needs.</summary>
    public double Without { get; init; } = 0.02;

    /// <summary>No skill says more than so many to one about what it needs.</summary>
    public double MostAMessageSays { get; init; } = 10;

    /// <summary>Spread of children's levels, in logits.</summary>
    public double LevelSpread { get; init; } = 0.7;

    /// <summary>
    /// Share of a child's level that is used: what it has learned while it was watched is in there too, and is not evidence for the rest. Of 1 and 0.75 the
    /// second is as good in all seven worlds and the better calibrated (<c>bench worlds</c>).
    /// </summary>
    public double LevelWeight { get; init; } = 0.75;

    /// <summary>Chance to hold a skill of a season once all it needs is held, for a child at the usual level.</summary>
    public static double Expected(Season season) =>
        season switch
        {
            Season.Autumn => 0.5,
            Season.Spring => 0.2,
            _ => 0.1,
        };
}

/// <summary>What is worth a second look, and how much of it fits a week.</summary>
public sealed record SecondLookSettings
{
    private static readonly SecondLookSettings Usual = new();

    /// <summary>As a class chooses.</summary>
    public static SecondLookSettings Of(Fading fading, SecondLookTime looks) =>
        Usual with
        {
            HalfLife = fading switch
            {
                Fading.Sooner => Usual.HalfLife / 2,
                Fading.Later => Usual.HalfLife * 2,
                Fading.Never => double.PositiveInfinity,
                _ => Usual.HalfLife,
            },
            Minutes = looks switch
            {
                SecondLookTime.Little => Usual.Minutes / 2,
                SecondLookTime.Much => Usual.Minutes * 2,
                _ => Usual.Minutes,
            },
        };

    /// <summary>When a skill is said to be in doubt, as a class that chooses reads it.</summary>
    public string FadingSentence =>
        double.IsPositiveInfinity(HalfLife)
            ? Phrase("Time alone never puts a mark in doubt.")
            : Phrase(
                $"Of skills done alone once, half are taken to be gone after {HalfLife:0} days in which neither they nor anything that builds on them was seen; what was done alone on more days lasts longer."
            );

    /// <summary>How long the lists of a week are, as a class that chooses reads it.</summary>
    public string MinutesSentence => Phrase($"Each of the two lists is what fits into {Minutes:0} minutes a week.");

    /// <summary>Days in which half of what is secure is lost while neither it nor anything that builds on it is seen, with one success; longer with each that is spaced.</summary>
    public double HalfLife { get; init; } = 60;

    /// <summary>By this much with each spaced success (Cepeda et al. 2006: spaced practice lasts; the number is ours).</summary>
    public double LongerEach { get; init; } = 1.5;

    /// <summary>Chance to find something out below which nobody need look.</summary>
    public double LeastChance { get; init; } = 0.12;

    /// <summary>Belief below which a skill that was done alone of late was never quite sure.</summary>
    public double SureFrom { get; init; } = 0.8;

    /// <summary>School days since it was last seen, before which nobody need look again.</summary>
    public int NotBefore { get; init; } = 4;

    /// <summary>Minutes a week that go into each of the two lists: setting.</summary>
    public double Minutes { get; init; } = 12;

    /// <summary>Minutes to set a skill out for children who are seen at once, and for each of them: setting.</summary>
    public double MinutesASkill { get; init; } = 2;

    public double MinutesAChild { get; init; } = 1;

    /// <summary>Children who are seen at once.</summary>
    public int MostAtOnce { get; init; } = 5;
}
