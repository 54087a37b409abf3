using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;

namespace Fobble.Core.Activities;

public readonly record struct ActivityId(string Value)
{
    public override string ToString() => Value;
}

/// <summary>When in the day an activity is for; many serve in more than one place.</summary>
public enum Place
{
    Carpet,
    Group,
    Choice,
    Transition,
}

/// <summary>How an activity is set for one skill: what is asked, with which numbers.</summary>
public sealed record ActivitySkill(SkillId Skill, ItemKind Items, NumberRange Range);

/// <summary>Something to fetch, its amount as a formula, and what makes it risky.</summary>
public sealed record Material(string Item, Amount Amount, IReadOnlyList<Risk> Risks);

/// <summary>Something to do with children, complete: an adult who has never seen it can run it from this.</summary>
/// <param name="Parts">The parts of the job that it covers.</param>
/// <param name="Minutes">How long it takes in a small group.</param>
/// <param name="Quiet">True where the point is to see: the adult says no counting word.</param>
public sealed record Activity(
    ActivityId Id,
    string Name,
    IReadOnlyList<int> Parts,
    string Purpose,
    IReadOnlyList<Place> Places,
    NumberRange GroupSize,
    int Minutes,
    bool Quiet,
    IReadOnlyList<ActivitySkill> Skills,
    IReadOnlyList<Material> Materials,
    IReadOnlyList<string> Prepare,
    IReadOnlyList<string> Steps,
    IReadOnlyList<string> Say,
    IReadOnlyList<string> LookFor,
    string Easier,
    string Harder,
    string Sheet)
{
    public ActivitySkill? For(SkillId skill) => Skills.FirstOrDefault(s => s.Skill == skill);
}
