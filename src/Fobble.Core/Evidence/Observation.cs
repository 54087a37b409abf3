using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>How much help it took. The order is from least help to most.</summary>
public enum Support
{
    Alone,
    Prompted,
    Together,
    NotYet,
}

/// <summary>Where it was seen.</summary>
public enum Setting
{
    Carpet,
    Group,
    Choice,
    OneToOne,
    Baseline,
}

/// <summary>What one child was seen to do once (rule R10). Never changed; a wrong one is withdrawn and does not reach this far.</summary>
/// <param name="Day">The school day, in the school's own time zone.</param>
/// <param name="Numbers">The case it was seen with, such as <c>5=2+3</c>.</param>
public sealed record Observation(
    ChildId Child,
    SkillId Skill,
    DateTimeOffset At,
    DateOnly Day,
    Setting Setting,
    Support Support,
    Representation Representation,
    string? Numbers = null,
    string? SlipId = null,
    string? StrategyId = null
)
{
    /// <summary>
    /// The support that counts as evidence: doing it alone by a way that the skill does not ask for (counting all where seeing is
    /// the skill) counts as prompted.
    /// </summary>
    public Support Counted(Skill skill) => Support == Support.Alone && skill.Strategies.Any(s => s.Id == StrategyId && !s.Asked) ? Support.Prompted : Support;
}
