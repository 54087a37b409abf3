using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Grouping;

/// <summary>Says why a group is formed and why a child is in it, from the same numbers that decided.</summary>
public static class Reasons
{
    /// <summary>A sentence for one child in a group on a skill.</summary>
    public static string ForChild(ChildId child, SkillId skillId, GroupingBrief brief)
    {
        ArgumentNullException.ThrowIfNull(brief);
        var evidence = brief.Evidence;
        var skill = evidence.Map[skillId];
        var mark = evidence[child, skillId];
        var lately = Lately(skill, evidence.Seen(child, skillId), evidence.Today);
        var why = mark switch
        {
            _ when Shows(child, skillId, brief) => Phrase($"Has {skill.InSentence}, and can show it to those who nearly do"),
            { Doubt: Doubt.MayHaveFaded } => Phrase($"Had {skill.InSentence}; time to look again, {lately}"),
            { Strength: Strength.NotSeen } => skill.Needs.Count == 0
                ? Phrase($"Not seen on {skill.InSentence} yet; it needs nothing before it")
                : Phrase($"Not seen on {skill.InSentence} yet; has {Words.List([.. skill.Needs.Select(n => evidence.Map[n].InSentence)])}"),
            { Strength: Strength.Nearly } => Phrase($"Nearly has {skill.InSentence}: {lately}"),
            _ => $"“{skill.Short}” {lately}",
        };
        var turn = Candidates.DaysSinceGroup(child, brief) switch
        {
            _ when brief.TurnsBeside(child) is [var other, ..] => Phrase($"; a second turn beside that of {Words.Weekday(other)}"),
            null => Phrase("; has not been in a group yet"),
            >= 3 and var days => Phrase($"; last in a group {Words.Count(days, "school day", "school days")} before"),
            _ => "",
        };
        return why + turn + ".";
    }

    /// <summary>A sentence for a child who is in a group, by the proposal or by hand: one put where it is no next step says so.</summary>
    public static string ForPlaced(ChildId child, SkillId skill, GroupingBrief brief)
    {
        ArgumentNullException.ThrowIfNull(brief);
        return brief.Evidence.IsReady(child, skill) || brief.Evidence[child, skill].Doubt == Doubt.MayHaveFaded || Shows(child, skill, brief)
            ? ForChild(child, skill, brief)
            : Phrase($"Put here by hand. {brief.Evidence.ReadyBecause(child, skill)}");
    }

    private static bool Shows(ChildId child, SkillId skill, GroupingBrief brief) =>
        brief.Way == Approaches.GroupWay.Mixed && Candidates.Has(child, skill, brief.Evidence);

    /// <summary>How good a result is, without more certainty than it has.</summary>
    public static string ForResult(GroupingResult result)
    {
        ArgumentNullException.ThrowIfNull(result);
        return result.Conflict.Count > 0
                ? Phrase(
                    $"{(result.Conflict.Count == 1 ? "One wish can’t be kept" : $"{Words.Capital(Words.Number(result.Conflict.Count))} wishes can’t be kept together")}: let go of {(result.Conflict.Count == 1 ? "it" : "any one of them")}, and groups can be formed."
                )
            : result.Groups.Count == 0
                ? (
                    result.ProvenBest
                        ? Phrase("No group can be formed with these wishes: too few children are ready for the same skill.")
                        : Phrase("No groups that keep all wishes were found in the time allowed: let go of some, or take some pegs out.")
                )
            : result.ProvenBest ? Phrase("No better set of groups exists for these aims.")
            : Phrase(
                $"The best found so far, and at most {Words.Percent((result.Bound - result.Score) / (double)Math.Max(1, result.Bound))} short of any other."
            );
    }

    /// <summary>What further turns in the week are worth; empty where there are none.</summary>
    public static string ForFurtherTurns(GroupingResult result, IReadOnlyList<Candidate> candidates)
    {
        ArgumentNullException.ThrowIfNull(result);
        var placed = result
            .Groups.SelectMany(g => g.Children.Select(c => (candidate: candidates.FirstOrDefault(x => x.Child == c), g.Skill)))
            .Where(p => p.candidate is not null)
            .ToList();
        var further = placed.Where(p => p.candidate!.Elsewhere.Count > 0).ToList();
        var only = placed.Count - further.Count;
        return further.Count == 0
            ? ""
            : Phrase(
                $"For {Words.Count(further.Count, "child", "children")} it is a second turn this week, on another aim, together worth {further.Sum(p => p.candidate!.Worths.GetValueOrDefault(p.Skill)?.Total ?? 0)} points"
            ) + (only > 0 ? Phrase($"; {Words.Count(only, "child has its", "children have their")} only turn here.") : ".");
    }

    // How many are new to it and how many come back to it, as one would say it of none, of two and of all.
    private static string Readiness(Skill skill, int ready, int again, bool everyone) =>
        (ready, again) switch
        {
            (0, 1) => Phrase($"Nobody is new to {skill.InSentence}: one child is to look at it again"),
            (0, _) => Phrase($"Nobody is new to {skill.InSentence}: {Words.Number(again)} children are to look at it again"),
            (2, 0) when everyone => Phrase($"Both are ready for {skill.InSentence} and not secure yet"),
            (_, 0) when everyone => Phrase($"All {Words.Number(ready)} are ready for {skill.InSentence} and not secure yet"),
            _ => Phrase($"{Words.Capital(Words.Count(ready, "child is", "children are"))} ready for {skill.InSentence}")
                + (again > 0 ? Phrase($", {Words.Number(again)} to look at again") : ""),
        };

    /// <summary>A sentence for the group as a whole.</summary>
    public static string ForGroup(FormedGroup group, GroupingBrief brief)
    {
        ArgumentNullException.ThrowIfNull(group);
        var evidence = brief.Evidence;
        var skill = evidence.Map[group.Skill];
        var waiting = Candidates.Waiting(group.Skill, brief);
        var shows = group.Children.Count(c => Shows(c, group.Skill, brief));
        var again = group.Children.Count(c => !evidence.IsReady(c, group.Skill)) - shows;
        List<string> parts =
        [
            Readiness(skill, group.Children.Count - again - shows, again, shows == 0) + (shows > 0 ? Phrase(", and one beside them has it") : ""),
        ];
        if (brief.Focus.Contains(group.Skill))
        {
            parts.Add(Phrase("it is a focus of the week"));
        }
        else if (Candidates.ServesFocus(group.Skill, brief))
        {
            parts.Add(Phrase("a focus of the week needs it"));
        }

        if (waiting > 0)
        {
            parts.Add(
                Phrase($"{(waiting == 5 ? "five skills or more wait" : waiting == 1 ? "one skill waits" : $"{Words.Number(waiting)} skills wait")} for it")
            );
        }

        return Words.List(parts) + ".";
    }

    /// <summary>Why a child was left out of all groups.</summary>
    public static string ForUnplaced(ChildId child, GroupingBrief brief, IReadOnlyList<Candidate> candidates)
    {
        if (candidates.FirstOrDefault(c => c.Child == child) is not { } candidate)
        {
            return Phrase("Has had a turn in this week's groups already.");
        }

        if (candidate.Worths.Count == 0)
        {
            return Phrase("Nothing is open just now: secure in all that is ready, and nothing to look at again.");
        }

        if (candidate.Elsewhere is [var other, ..])
        {
            return Phrase($"Has a turn on {Words.Weekday(other)}; the places here go to who has none, or gains more by a second.");
        }

        return Candidates.DaysSinceGroup(child, brief) is { } days
            ? Phrase($"Was in a group {Words.Count(days, "school day", "school days")} before; the places go to children who wait longer or gain more.")
            : Phrase("No group on a skill that fits has a place; comes first next time.");
    }

    /// <summary>Recent results in words: "with a prompt on Monday and Wednesday".</summary>
    internal static string Lately(Skill skill, IReadOnlyList<Observation> seen, DateOnly today)
    {
        var recent = seen.TakeLast(3).ToList();
        return recent.Count == 0
            ? Phrase("not seen yet")
            : Words.List([
                .. recent
                    .Select(o => (Support: o.Counted(skill), o.Day))
                    .Distinct()
                    .GroupBy(o => o.Support)
                    .Select(g => $"{EvidenceWords.Of(g.Key)} {Words.List([.. g.Select(o => DayInWords(o.Day, today)).Distinct()])}"),
            ]);
    }

    private static string DayInWords(DateOnly day, DateOnly today) =>
        (today.DayNumber - day.DayNumber) switch
        {
            0 => Phrase("today"),
            1 => Phrase("yesterday"),
            < 7 => Phrase($"on {Words.Weekday(day)}"),
            _ => Phrase($"on {Words.Date(day)}"),
        };
}
