using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Grouping;

/// <summary>What is different for one child since the groups before, and why. From and To are the same where the aim stays but something new was seen.</summary>
public sealed record GroupChange(ChildId Child, SkillId? From, SkillId? To, string Why);

/// <summary>Compares new groups with those accepted before, child by child.</summary>
public static class GroupChanges
{
    /// <summary>Children whose aim is another, or who come in or fall out, from one set of groups to another.</summary>
    public static IReadOnlyList<(ChildId Child, SkillId? From, SkillId? To)> Aims(IReadOnlyList<FormedGroup> before, IReadOnlyList<FormedGroup> after)
    {
        static Dictionary<ChildId, SkillId> AimOf(IReadOnlyList<FormedGroup> groups) =>
            groups.SelectMany(g => g.Children.Select(c => (c, g.Skill))).DistinctBy(p => p.c).ToDictionary(p => p.c, p => p.Skill);
        var (from, to) = (AimOf(before), AimOf(after));
        return
        [
            .. from
                .Keys.Union(to.Keys)
                .Order()
                .Select(c => (c, From: from.TryGetValue(c, out var was) ? (SkillId?)was : null, To: to.TryGetValue(c, out var now) ? (SkillId?)now : null))
                .Where(m => m.From != m.To),
        ];
    }

    /// <param name="before">The latest first; of a child's turns the last in which something was seen counts, else the last.</param>
    /// <param name="since">When the groups before were accepted: what was seen later is what can have changed things.</param>
    public static IReadOnlyList<GroupChange> Between(IReadOnlyList<PastGroup> before, DateTimeOffset since, IReadOnlyList<FormedGroup> now, GroupingBrief brief)
    {
        ArgumentNullException.ThrowIfNull(brief);
        return
        [
            .. brief
                .Evidence.Children.Select(child =>
                    (child, from: LastAim(child, before, since, brief), to: now.FirstOrDefault(g => g.Children.Contains(child))?.Skill)
                )
                .Where(c => c.from != c.to || (c.from is { } aim && News(c.child, aim, since, brief).Count > 0))
                .Select(c => new GroupChange(c.child, c.from, c.to, Why(c.child, c.from, c.to, since, brief))),
        ];
    }

    private static SkillId? LastAim(ChildId child, IReadOnlyList<PastGroup> before, DateTimeOffset since, GroupingBrief brief)
    {
        List<SkillId> aims = [.. before.Where(g => g.Children.Contains(child)).Select(g => g.Skill)];
        return aims.Count == 0 ? null : aims.Where(a => News(child, a, since, brief).Count > 0).Append(aims[0]).First();
    }

    private static List<Observation> News(ChildId child, SkillId skill, DateTimeOffset since, GroupingBrief brief) =>
        [.. brief.Evidence.Seen(child, skill).Where(o => o.At > since)];

    private static string Why(ChildId child, SkillId? from, SkillId? to, DateTimeOffset since, GroupingBrief brief)
    {
        var evidence = brief.Evidence;
        if (from is not { } old)
        {
            return Phrase("Was in no group last time. ") + Reasons.ForChild(child, to!.Value, brief);
        }

        var skill = evidence.Map[old];
        var news = News(child, old, since, brief);
        var told = news.Count == 0 ? "" : Phrase($"Since then {skill.InSentence} {Reasons.Lately(skill, news, evidence.Today)}: ");
        var mark = evidence[child, old];
        var status = mark.Strength switch
        {
            >= Strength.Secure => Phrase("it is secure now."),
            Strength.Nearly => Phrase("it is nearly there."),
            Strength.Prompted => Phrase("it comes with a prompt."),
            _ => Phrase("it needs more time."),
        };
        var then =
            from == to ? Phrase("It stays the next step that gains most.")
            : to is { } next ? Reasons.ForChild(child, next, brief)
            : Phrase("Had a turn; children who wait longer go first.");
        return news.Count == 0 ? Phrase($"Nothing new on {skill.InSentence}. {then}") : $"{told}{status} {then}";
    }
}
