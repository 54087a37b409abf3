using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using static Fobble.Core.Evidence.Support;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Evidence;

/// <summary>A child that waits for a nod is judged by what it has, not by how it shows it.</summary>
public class StyleTests
{
    private static readonly ChildId Child = new(1);
    private static readonly EvidenceSettings Usual = EvidenceSettings.Default;

    // Twelve skills, each seen three times in that way.
    private static Observation[] Shown(Support support) =>
        [
            .. Map
                .Skills.Take(12)
                .SelectMany((s, i) => Enumerable.Range(0, 3).Select(n => Saw((i / 4) + (3 * n), support, s.ShownIn[n % s.ShownIn.Count], skill: s)))
                .OrderBy(o => o.At),
        ];

    [Fact]
    public void It_begins_as_usual_and_follows_what_is_seen()
    {
        EvidenceOf(Usual, 9).StyleOf(Child).ShouldBe(0.8, 1e-9);
        EvidenceOf(Usual, 9, Shown(Alone)).StyleOf(Child).ShouldBeGreaterThan(0.85);
        EvidenceOf(Usual, 9, Shown(Prompted)).StyleOf(Child).ShouldBeLessThan(0.7);
    }

    [Fact]
    public void With_a_prompt_counts_for_more_with_a_child_that_mostly_waits_for_a_nod()
    {
        double Ratio(double style)
        {
            BeliefModel own = new(Usual, Calendar);
            own.See(Saw(10, Prompted), TwoWays, style);
            return own.Ratio;
        }

        Ratio(0.4).ShouldBeGreaterThan(2 * Ratio(0.9));
    }

    [Fact]
    public void What_is_shown_with_a_nod_by_one_is_shown_without_by_another() =>
        Gen.Double[0.1, 0.95]
            .Sample(style =>
            {
                var all = Enum.GetValues<Support>().Select(s => Usual.For(s, style)).ToList();
                all.Sum(l => l.IfHas).ShouldBe(1, 1e-9);
                all.Sum(l => l.IfNot).ShouldBe(1, 1e-9);
            });

    [Fact]
    public void A_shy_child_becomes_secure_with_one_alone_among_many_prompts_and_the_sentence_says_why()
    {
        var skill = Map.Skills[2];
        Observation[] seen =
        [
            .. Shown(Prompted).Where(o => o.Skill != skill.Id),
            .. new[] { 9, 11, 13, 16 }.Select((d, i) => Saw(d, i == 1 ? Alone : Prompted, skill.ShownIn[i % skill.ShownIn.Count], skill: skill)),
        ];
        var judged = EvidenceOf(Usual, 17, [.. seen.OrderBy(o => o.At)]).Judgement(Child, skill.Id);
        judged.Strength.ShouldBe(Strength.Secure);
        judged.Sentence.ShouldContain("three times with a prompt");
    }

    [Fact]
    public void A_record_that_has_not_changed_is_not_read_again_and_one_that_has_is()
    {
        RecordMemory memory = new();
        var seen = Shown(Alone);
        ClassEvidence Of(IEnumerable<Observation> all, EvidenceSettings settings) => new(Map, Calendar, settings, [Child], all, SchoolDay(9), memory: memory);
        var first = Of(seen, Usual);
        var skill = seen[0].Skill;
        Of(seen, Usual).Seen(Child, skill).ShouldBeSameAs(first.Seen(Child, skill));
        Of(seen[1..], Usual).Seen(Child, skill).Count.ShouldBe(2);
        Of(seen.Append(Saw(9, NotYet, skill: Map[skill])), Usual)[Child, skill].Belief.ShouldBeLessThan(first[Child, skill].Belief);
        Of(seen, Usual with { Strictness = Core.Approaches.Strictness.Strict }).Seen(Child, skill).ShouldNotBeSameAs(first.Seen(Child, skill));
    }
}
