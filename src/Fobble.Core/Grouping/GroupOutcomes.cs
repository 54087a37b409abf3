using Fobble.Core.Evidence;

namespace Fobble.Core.Grouping;

/// <summary>What a group did for one of its children.</summary>
/// <param name="Before">Strength in the group's aim before the day it met.</param>
/// <param name="After">Strength at the end of that day.</param>
/// <param name="Now">Strength today: what came of it later, in groups or elsewhere.</param>
/// <param name="Recorded">Something was recorded in the group.</param>
public sealed record ChildOutcome(ChildId Child, Strength Before, Strength After, Strength Now, bool Recorded)
{
    /// <summary>The aim is reached: secure now, and it was not before.</summary>
    public bool Reached => Before < Strength.Secure && Now >= Strength.Secure;

    /// <summary>Not secure yet: the aim is carried over.</summary>
    public bool CarriedOver => Now < Strength.Secure;
}

/// <summary>What came of a group that met.</summary>
public sealed record GroupOutcome(PastGroup Group, IReadOnlyList<ChildOutcome> Children, string Sentence);

/// <summary>Looks back at groups: strength before and after, aims reached, aims carried over.</summary>
public static class GroupOutcomes
{
    public static GroupOutcome Of(PastGroup group, ClassEvidence evidence, GroupNames names)
    {
        ArgumentNullException.ThrowIfNull(group);
        ArgumentNullException.ThrowIfNull(evidence);
        ArgumentNullException.ThrowIfNull(names);
        List<ChildOutcome> children =
        [
            .. group
                .Children.Where(evidence.Children.Contains)
                .Select(child =>
                {
                    var steps = evidence.StepsOf(child, group.Skill);
                    Strength Until(DateOnly day) => steps.LastOrDefault(s => s.Day <= day)?.Strength ?? Strength.NotSeen;
                    return new ChildOutcome(
                        child,
                        Until(group.Day.AddDays(-1)),
                        Until(group.Day),
                        evidence[child, group.Skill].Strength,
                        evidence.Seen(child, group.Skill).Any(o => o.Day == group.Day && o.Setting == Setting.Group)
                    );
                }),
        ];
        return new(group, children, InWords(children, names));
    }

    private static string InWords(List<ChildOutcome> children, GroupNames names)
    {
        if (children.All(c => !c.Recorded))
        {
            return Phrase("Nothing was recorded in this group.");
        }

        string Named(IEnumerable<ChildOutcome> some) => Words.List([.. some.Select(c => names.Child(c.Child))]);
        List<string> parts = [];
        var reached = children.Where(c => c.Reached).ToList();
        var stronger = children.Where(c => !c.Reached && c.After > c.Before && c.CarriedOver).ToList();
        var weaker = children.Where(c => c.After < c.Before).ToList();
        var open = children.Where(c => c.CarriedOver).ToList();
        parts.AddRange(reached.Count > 0 ? [Phrase($"{Named(reached)} {(reached.Count == 1 ? "is" : "are")} secure now")] : []);
        parts.AddRange(stronger.Count > 0 ? [Phrase($"{Named(stronger)} got further that day")] : []);
        parts.AddRange(weaker.Count > 0 ? [Phrase($"{Named(weaker)} had it less firmly than before")] : []);
        var carried =
            open.Count == 0 ? Phrase(" Nobody has to go on with it.")
            : open.Count == children.Count ? Phrase(" It is carried over for all.")
            : " " + Words.Stopped(Phrase($"Carried over: {Named(open)}"));
        return (parts.Count == 0 ? Phrase("No strength has changed.") : Words.Stopped(Words.Capital(Words.List(parts)))) + carried;
    }
}
