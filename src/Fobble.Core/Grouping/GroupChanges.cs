using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Grouping;

/// <summary>What is different for one child since the groups before, and why.</summary>
public sealed record GroupChange(ChildId Child, SkillId? From, SkillId? To, string Why);

/// <summary>Compares new groups with those accepted before, child by child.</summary>
public static class GroupChanges
{
    /// <param name="since">When the groups before were accepted: what was seen later is what can have changed things.</param>
    public static IReadOnlyList<GroupChange> Between(
        IReadOnlyList<PastGroup> before, DateTimeOffset since, IReadOnlyList<FormedGroup> now, GroupingBrief brief)
    {
        ArgumentNullException.ThrowIfNull(brief);
        return
        [
            .. brief.Evidence.Children
                .Select(child => (child, from: before.FirstOrDefault(g => g.Children.Contains(child))?.Skill, to: now.FirstOrDefault(g => g.Children.Contains(child))?.Skill))
                .Where(c => c.from != c.to)
                .Select(c => new GroupChange(c.child, c.from, c.to, Why(c.child, c.from, c.to, since, brief))),
        ];
    }

    private static string Why(ChildId child, SkillId? from, SkillId? to, DateTimeOffset since, GroupingBrief brief)
    {
        var evidence = brief.Evidence;
        if (from is not { } old)
        {
            return "Was in no group last time. " + Reasons.ForChild(child, to!.Value, brief);
        }

        var skill = evidence.Map[old];
        var news = evidence.Seen(child, old).Where(o => o.At > since).ToList();
        var told = news.Count == 0 ? "" : $"Since then {skill.InSentence} {Reasons.Lately(skill, news, evidence.Today)}: ";
        var mark = evidence[child, old];
        var status = mark.Strength switch
        {
            >= Strength.Secure => "it is secure now.",
            Strength.Nearly => "it is nearly there.",
            Strength.Prompted => "it comes with a prompt.",
            _ => "it needs more time.",
        };
        var then = to is { } next ? Reasons.ForChild(child, next, brief) : "Had a turn; children who wait longer go first.";
        return news.Count == 0 ? $"Nothing new on {skill.InSentence}. {then}" : $"{told}{status} {then}";
    }
}
