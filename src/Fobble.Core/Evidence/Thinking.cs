using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>How something is judged, in a teacher's words.</summary>
/// <param name="Title">The word that stands on the screen.</param>
/// <param name="Says">What it means and how it comes about, a paragraph each.</param>
/// <param name="Numbers">The numbers that enter it, with what each is for.</param>
/// <param name="Example">From the class at hand; null while it has none.</param>
public sealed record Thought(string Title, IReadOnlyList<string> Says, IReadOnlyList<ThoughtNumber> Numbers, ThoughtExample? Example);

/// <param name="Value">As it is written on a page.</param>
public sealed record ThoughtNumber(string Value, string For);

/// <param name="Sentence">What Fobble says of this child and skill today.</param>
public sealed record ThoughtExample(ChildId Child, SkillId Skill, string Sentence);

/// <summary>How Fobble comes to its judgements of a class: every number that enters one, and an example of each from the class itself.</summary>
public static class Thinking
{
    public static IReadOnlyList<Thought> Of(ClassEvidence evidence)
    {
        ArgumentNullException.ThrowIfNull(evidence);
        var settings = evidence.Settings;
        var (secure, together, look) = (settings.Secure, settings.Together, settings.SecondLook);
        return
        [
            new(
                Phrase("Strength"),
                [
                    Phrase(
                        "Five cells: not seen, tried, prompted, nearly, secure; a line under it once it is kept. The first four say what was seen of late, nothing more."
                    ),
                    Phrase(
                        "Beside it Fobble works out how sure it is that the child has the skill, from everything seen of it: alone speaks for it, together and not yet against it, a prompt a little either way."
                    ),
                ],
                [
                    Chance(settings.Prior, Phrase("that a skill nobody has looked at is there")),
                    Chance(settings.Alone.IfHas, Phrase("that a child who has it shows it alone")),
                    Chance(settings.Alone.IfNot, Phrase("that one who has not yet does it alone all the same, by luck")),
                    Chance(settings.Prompted.IfHas, Phrase("that a child who has it needs a prompt")),
                    Chance(settings.Prompted.IfNot, Phrase("that one who has not yet manages with a prompt")),
                    Chance(settings.WithHelp.IfHas, Phrase("that a child who has it does it only together with an adult")),
                    Chance(settings.WithHelp.IfNot, Phrase("that one who has not yet does it together with an adult")),
                    Chance(settings.NotYet.IfHas, Phrase("that a child who has it does not show it")),
                    Chance(settings.NotYet.IfNot, Phrase("that one who has not yet does not")),
                    Chance(settings.LearnTaught, Phrase("to learn it in one lesson or group in which the child is watched")),
                    Chance(settings.LearnChoice, Phrase("to learn it while choosing freely")),
                    new(
                        Phrase($"{settings.FadeHalfLife:0} days"),
                        Phrase(
                            $"in which half of what was seen counts no longer; twice as long with each day on which it was done alone, up to {Words.Times(settings.MostSpacedSuccesses)}"
                        )
                    ),
                ],
                Example(evidence, (child, skill) => evidence[child, skill].Strength == Strength.Nearly)
            ),
            new(
                Phrase("Secure and kept"),
                [
                    Phrase($"{secure.Sentence} The last time must not have been a “not yet”. It does not fall again because time has passed."),
                    Phrase("What builds on a skill counts for it: whoever splits four has seen to four. Kept means alone once more, long after."),
                ],
                [
                    new(Phrase($"{settings.KeptAfter} school days"), Phrase("after it became secure, being alone again shows that it is kept")),
                    new(Words.Percent(secure.Belief), Phrase("sure, by everything seen of the child, before it is called secure")),
                ],
                Example(evidence, (child, skill) => evidence[child, skill].Strength == Strength.Secure)
            ),
            new(
                Phrase("Taken to be there"),
                [
                    Phrase(
                        "A child’s skills are judged together: what was seen of one speaks for what it needs and against what needs it. So some marks follow from others, and are drawn with a broken outline until somebody has looked."
                    ),
                ],
                [
                    Chance(settings.LikelyFrom, Phrase("sure, and an unseen skill is taken to be there until it is looked at")),
                    Chance(together.Without, Phrase("that a child has a skill without all that it needs")),
                    new(Phrase($"{together.MostAMessageSays:0} to 1"), Phrase("is the most that one skill says about another")),
                    new($"{together.LevelSpread:0.0#}", Phrase("is how far children’s levels lie apart, in logits")),
                    new($"{together.LevelWeight:0.0#}", Phrase("of a child’s level is used: what was learned while it was watched is in there too")),
                ],
                Example(evidence, evidence.IsInferred)
            ),
            new(
                Phrase("A nod"),
                [
                    Phrase(
                        "Some children have a thing and still wait for a nod. Fobble learns from all of a child’s skills how much of what it has it shows alone; where that is little, a prompt counts for more."
                    ),
                ],
                [
                    Chance(settings.UsualStyle, Phrase("of what children have they usually show without a nod")),
                    new(Phrase($"{settings.StyleWeight:0} observations"), Phrase("of a child weigh as much as what is known of children beforehand")),
                ],
                Example(evidence, (child, skill) => Explanation.WaitsForANod(evidence.StyleOf(child)) && evidence[child, skill].Strength >= Strength.Prompted)
            ),
            new(
                Phrase("Ready"),
                [
                    Phrase(
                        "A skill is ready for a child when all it needs is nearly there or more, and the skill itself is not yet secure. Groups and “next” are made of what is ready."
                    ),
                ],
                [],
                Example(evidence, (child, skill) =>
                    evidence[child, skill].Strength == Strength.NotSeen && evidence.IsReady(child, skill) && evidence.Map[skill].Needs.Count > 0
                )
            ),
            new(
                Phrase("Look again"),
                [
                    Phrase(
                        "Two short lists a week, each as long as its minutes: what was never quite sure, and what may have faded because neither it nor anything that builds on it was seen for long. Only these are hatched on the grid."
                    ),
                ],
                [
                    new(
                        double.IsPositiveInfinity(look.HalfLife) ? Phrase("never") : Phrase($"{look.HalfLife:0} days"),
                        Phrase("and half of what was done alone once is taken to be gone, unseen")
                    ),
                    new($"{look.LongerEach:0.0#} ×", Phrase("as long with each further day on which it was done alone")),
                    new(Words.Percent(look.SureFrom), Phrase("sure or less, and what was done alone of late was never quite sure")),
                    new(Phrase($"{look.NotBefore} school days"), Phrase("since it was last seen, before which nobody need look again")),
                    Chance(look.LeastChance, Phrase("to find something out, below which nobody need look")),
                    new(
                        Phrase($"{look.Minutes:0} minutes"),
                        Phrase(
                            $"a week for each list: {look.MinutesASkill:0} to set a skill out, {look.MinutesAChild:0} a child, up to {look.MostAtOnce} at once"
                        )
                    ),
                ],
                evidence.LookAgain is [var due, ..] ? new(due.Child, due.Skill, evidence.Judgement(due.Child, due.Skill).Sentence) : null
            ),
        ];
    }

    private static ThoughtNumber Chance(double share, string what) => new(Words.Percent(share), what);

    // The one with most to read about: the child and skill that were seen most often.
    private static ThoughtExample? Example(ClassEvidence evidence, Func<ChildId, SkillId, bool> holds)
    {
        var best = evidence
            .Children.SelectMany(c => evidence.Map.Skills.Select(s => (Child: c, Skill: s.Id)))
            .Where(p => holds(p.Child, p.Skill))
            .Cast<(ChildId Child, SkillId Skill)?>()
            .MaxBy(p => evidence.Seen(p!.Value.Child, p.Value.Skill).Count);
        return best is { } found ? new(found.Child, found.Skill, SentenceOf(evidence, found.Child, found.Skill)) : null;
    }

    // Of what is ready it is said why; of all else, what is judged.
    private static string SentenceOf(ClassEvidence evidence, ChildId child, SkillId skill) =>
        evidence[child, skill].Strength == Strength.NotSeen && evidence.IsReady(child, skill)
            ? evidence.ReadyBecause(child, skill)
            : evidence.Judgement(child, skill).Sentence;
}
