using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>Puts a judgement into sentences that a teacher understands, from the same clauses and numbers that decided it.</summary>
internal sealed class Explanation(
    ClassEvidence evidence,
    ChildRecord record,
    ChildId child,
    Skill skill,
    Mark mark,
    Standing? standing,
    IReadOnlyList<Clause> clauses
)
{
    private const int Recent = 8;

    /// <summary>A style so far below the usual is worth telling: the child mostly waits for a nod.</summary>
    private const double Waits = 0.62;

    /// <summary>Whether a child of this style mostly waits for a nod.</summary>
    internal static bool WaitsForANod(double style) => style < Waits;

    /// <summary>A level so far from the usual, in logits, is worth telling.</summary>
    private const double Ahead = 0.8;

    private int Place => evidence.Map.IndexOf(skill.Id);

    /// <summary>Why it is so, and what counted most.</summary>
    public string Sentence() => string.Join(' ', ((string[])[OfStrength(), OfStyle(), OfOthers(), OfTime()]).Where(s => s.Length > 0));

    /// <summary>Why a mark is in doubt, without the rest.</summary>
    public string Doubt()
    {
        var last = standing!.LastAlone is { } day ? Phrase($"last alone {Ago(day)}") : Phrase("not alone of late");
        return mark.Doubt == Evidence.Doubt.MayHaveFaded
            ? Phrase($"{last}, and nothing that builds on it since.")
            : Phrase($"never quite sure ({Words.Percent(mark.Belief)}), {last}.");
    }

    // However long the list for the week is, a mark that may have faded says so.
    private string OfTime() =>
        mark.LookAgain ? Phrase($"Look again: {Doubt()}")
        : mark.Doubt == Evidence.Doubt.MayHaveFaded ? Phrase($"It may have faded: {Doubt()}")
        : "";

    private string OfStrength()
    {
        var missing = clauses.Where(c => !c.Holds).Select(c => c.StillToCome).ToList();
        return mark.Strength switch
        {
            Strength.NotSeen => evidence.InferenceOf(child, skill.Id) is { } check && evidence.LikelyHas(child, skill.Id) == check.Likely
                ? check.Sentence
                : Phrase("Not seen yet."),
            Strength.Tried => Phrase("Tried: so far only together with an adult, or not yet."),
            Strength.Prompted => Phrase($"With a prompt in the last three; not alone of late.{StillToCome(missing)}"),
            Strength.Nearly => Phrase($"Nearly: {Lately()}.{StillToCome(missing)}"),
            Strength.Secure => Phrase($"Secure since {Words.Date(standing!.FirstSecure!.Value)}: {Lately()}{BorneOut()}."),
            _ => Phrase($"Kept: secure since {Words.Date(standing!.FirstSecure!.Value)}, and alone again on {Words.Date(standing.LastAlone!.Value)}."),
        };
    }

    private string Lately()
    {
        var latest = standing!.Seen.TakeLast(Recent).Select(o => o.Counted(skill)).ToList();
        var (alone, prompted) = (latest.Count(s => s == Support.Alone), latest.Count(s => s == Support.Prompted));
        List<string> how =
        [
            .. alone > 0 || prompted == 0 ? [Phrase($"alone {Words.Times(alone)}")] : Array.Empty<string>(),
            .. prompted > 0 && mark.Strength >= Strength.Secure ? [Phrase($"{Words.Times(prompted)} with a prompt")] : Array.Empty<string>(),
        ];
        return Phrase($"{Words.List(how)} of the last {Words.Number(latest.Count)}");
    }

    // Where that alone would not be enough, what builds on it bears it out.
    private string BorneOut()
    {
        if (!record.IsBorne(Place) || new StrengthRule(evidence.Settings).Clauses(skill, standing!.Seen, mark.Belief).All(c => c.Holds))
        {
            return "";
        }

        // Near or far: the first in teaching order that is secure itself.
        return
            evidence.Map.All.FirstOrDefault(s => evidence[child, s.Id].Strength >= Strength.Secure && evidence.Map.AllNeeds(s.Id).Contains(skill.Id))
                is { } builds
            ? Phrase($", and {builds.InSentence}, which builds on it, is secure")
            : "";
    }

    private static string StillToCome(List<string> missing) => missing.Count == 0 ? "" : Phrase($" For secure: {string.Join("; ", missing)}.");

    private string OfStyle() =>
        WaitsForANod(record.Style) && standing?.Seen.Any(o => o.Counted(skill) == Support.Prompted) == true
            ? Phrase("Mostly waits for a nod, so a “with a prompt” counts for more.")
            : "";

    // Belief is what it needs, times what was seen of it, times what builds on it: whichever of the others says most is named, if it says much.
    private string OfOthers()
    {
        var own = Math.Log(standing?.Own.Ratio ?? 1);
        var told = Math.Log(record.All.Told[Place]) - own;
        var before = Math.Log(record.All.Before[Place] / (1 - record.All.Before[Place]));
        var follows = evidence.LikelyHas(child, skill.Id) || told > Math.Max(Math.Log(2), own);
        if (mark.Strength < Strength.Secure && follows && Strongest() is { } strongest)
        {
            return Phrase(
                $"It follows from {strongest.Skill.InSentence}, {HowSeen(strongest.Standing, strongest.Skill)}{(mark.Strength == Strength.NotSeen ? ": a guess to confirm" : "")}."
            );
        }

        if (mark.Strength < Strength.Secure && before < -Math.Max(Math.Log(4), Math.Abs(own)) && LeastNeed() is { } need)
        {
            return Phrase($"Not likely while {need.InSentence} is not there.");
        }

        return mark.Strength == Strength.NotSeen && Math.Abs(record.All.Shift) > Ahead
            ? Phrase($"Is usually a step {(record.All.Shift > 0 ? "ahead" : "behind")}.")
            : "";
    }

    private (Skill Skill, Standing Standing)? Strongest()
    {
        (Skill Skill, Standing Standing)? best = null;
        foreach (var other in evidence.Map.All.Where(o => evidence.Map.AllNeeds(o.Id).Contains(skill.Id)))
        {
            if (record[evidence.Map.IndexOf(other.Id)] is { } seen && seen.Own.Ratio > (best?.Standing.Own.Ratio ?? 1))
            {
                best = (other, seen);
            }
        }

        return best;
    }

    private Skill? LeastNeed() =>
        skill
            .Needs.Where(n => record[evidence.Map.IndexOf(n)] is not null && record.All.Held[evidence.Map.IndexOf(n)] < 0.5)
            .Select(n => evidence.Map[n])
            .MinBy(n => record.All.Held[evidence.Map.IndexOf(n.Id)]);

    private static string HowSeen(Standing seen, Skill of) =>
        seen.Seen.Count(o => o.Counted(of) == Support.Alone) is > 0 and var alone ? Phrase($"seen {Words.Times(alone)} alone") : Phrase("seen with a prompt");

    private string Ago(DateOnly day)
    {
        var days = evidence.Calendar.SchoolDaysBetween(day, evidence.Today);
        return days == 0 ? Phrase("today") : Phrase($"{Words.Count(days, "school day", "school days")} ago");
    }
}
