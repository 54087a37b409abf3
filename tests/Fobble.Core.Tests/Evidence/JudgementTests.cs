using Fobble.Core.Approaches;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using static Fobble.Core.Evidence.Support;
using static Fobble.Core.Skills.Representation;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Evidence;

/// <summary>Rule R10, strength and look again, clause by clause.</summary>
public class JudgementTests
{
    private static readonly Observation[] JustSecure = [Saw(0, Alone), Saw(1, Alone, Picture), Saw(3, Alone)];

    [Fact]
    public void What_is_secure_by_what_builds_on_it_says_so()
    {
        var ten = Map[new("count.say-10")];
        ten.Needs.ShouldContain(OneWay.Id);
        var evidence = EvidenceOf(
            new() { Strictness = Strictness.Light },
            9,
            Saw(0, Prompted, skill: OneWay),
            Saw(1, Alone, skill: ten),
            Saw(3, Alone, skill: ten),
            Saw(5, Alone, skill: ten),
            Saw(8, Alone, skill: ten)
        );
        var judged = evidence.Judgement(new(1), OneWay.Id);
        judged.Strength.ShouldBe(Strength.Secure);
        judged.Sentence.ShouldContain("once with a prompt of the last one, and “say to ten”, which builds on it, is secure.");
        judged.Sentence.ShouldNotContain("zero times");
        evidence.Judgement(new(1), ten.Id).Sentence.ShouldNotContain("builds on it, is secure");
    }

    [Theory]
    [InlineData(Strictness.Usual, "Right on two days and in two ways, alone at least once, and everything seen of the child makes it 97 % sure.")]
    [InlineData(Strictness.Strict, "Right on three days and in two ways, alone at least three times, and everything seen of the child makes it 98 % sure.")]
    [InlineData(Strictness.Light, "Right on two days and in any way, alone at least once, and everything seen of the child makes it 85 % sure.")]
    public void What_secure_asks_is_said_by_the_rule_itself(Strictness strictness, string sentence) => SecureRule.Of(strictness).Sentence.ShouldBe(sentence);

    [Fact]
    public void Nothing_seen_is_strength_nought()
    {
        var nothing = Judged(3);
        nothing.Strength.ShouldBe(Strength.NotSeen);
        nothing.Sentence.ShouldBe("Not seen yet.");
        nothing.LookAgain.ShouldBeFalse();
    }

    [Theory]
    [InlineData(Strength.Tried, NotYet, Together)]
    [InlineData(Strength.Prompted, NotYet, Prompted)]
    [InlineData(Strength.Nearly, Alone, NotYet)]
    [InlineData(Strength.Prompted, Alone, Prompted, Together, NotYet)]
    [InlineData(Strength.Tried, Alone, Prompted, Together, NotYet, NotYet)]
    public void The_last_three_decide_below_secure(Strength expected, params Support[] results) =>
        Judged(9, [.. results.Select((r, i) => Saw(i, r))]).Strength.ShouldBe(expected);

    [Fact]
    public void Three_alone_on_two_days_in_two_ways_is_secure()
    {
        var judgement = Judged(3, JustSecure);
        judgement.Strength.ShouldBe(Strength.Secure);
        judgement.SecureSince.ShouldBe(SchoolDay(3));
        judgement.Clauses.ShouldAllBe(c => c.Holds);
        judgement.Sentence.ShouldBe("Secure since 10 September: alone three times of the last three.");
    }

    [Fact]
    public void One_day_is_not_enough_and_the_sentence_says_what_is_missing()
    {
        var judgement = Judged(0, Saw(0, Alone), Saw(0, Alone, Picture), Saw(0, Alone));
        judgement.Strength.ShouldBe(Strength.Nearly);
        judgement.Sentence.ShouldContain("on one more school day");
    }

    [Fact]
    public void One_representation_is_not_enough_where_the_skill_lists_two()
    {
        Judged(3, Saw(0, Alone), Saw(1, Alone), Saw(3, Alone)).Sentence.ShouldContain("shown in one more way, such as with a drawing");
        Judged(3, Saw(0, Alone, Spoken, skill: OneWay), Saw(1, Alone, Spoken, skill: OneWay), Saw(3, Alone, Spoken, skill: OneWay))
            .Strength.ShouldBe(Strength.Secure);
    }

    [Fact]
    public void A_last_not_yet_takes_secure_away_until_the_next_success()
    {
        var judgement = Judged(4, [.. JustSecure, Saw(4, NotYet)]);
        judgement.Strength.ShouldBe(Strength.Nearly);
        judgement.SecureSince.ShouldBeNull();
        judgement.Sentence.ShouldContain("once again after the last “not yet”");
    }

    [Fact]
    public void Alone_again_fifteen_school_days_later_is_kept()
    {
        Judged(18, [.. JustSecure, Saw(17, Alone)]).Strength.ShouldBe(Strength.Secure);
        var kept = Judged(18, [.. JustSecure, Saw(18, Alone)]);
        kept.Strength.ShouldBe(Strength.Kept);
        kept.Sentence.ShouldBe("Kept: secure since 10 September, and alone again on 1 October.");
    }

    [Fact]
    public void Time_alone_never_lowers_strength_but_asks_to_look_again()
    {
        Judged(13, JustSecure).LookAgain.ShouldBeFalse();
        var later = Judged(33, JustSecure);
        later.Strength.ShouldBe(Strength.Secure);
        later.LookAgain.ShouldBeTrue();
        later.Sentence.ShouldEndWith("Look again: last alone 30 school days ago, and nothing that builds on it since.");
    }

    // More than fits the week: what is not on the list says so all the same.
    [Fact]
    public void A_mark_that_may_have_faded_says_so_whether_or_not_it_is_on_the_list()
    {
        var evidence = EvidenceOf(
            EvidenceSettings.Default,
            60,
            [
                .. Map
                    .Skills.Take(14)
                    .SelectMany(s => new[] { 0, 1, 3, 5 }.Select((d, i) => Saw(d, Alone, s.ShownIn[i % s.ShownIn.Count], skill: s)))
                    .OrderBy(o => o.At),
            ]
        );
        evidence.AllInDoubt.Count.ShouldBeGreaterThan(evidence.LookAgain.Count);
        foreach (var look in evidence.AllInDoubt.Where(l => l.Doubt == Doubt.MayHaveFaded))
        {
            var listed = evidence[look.Child, look.Skill].LookAgain;
            evidence.Judgement(look.Child, look.Skill).Sentence.ShouldContain(listed ? "Look again: last alone" : "It may have faded: last alone");
        }
    }

    [Fact]
    public void What_is_not_sure_is_looked_at_again_after_three_school_days_and_not_on_the_same_day()
    {
        Judged(0, Saw(0, Alone)).LookAgain.ShouldBeFalse();
        Judged(3, Saw(0, Alone)).LookAgain.ShouldBeFalse();
        Judged(4, Saw(0, Alone)).LookAgain.ShouldBeTrue();
    }

    [Fact]
    public void Lost_belief_asks_to_look_again()
    {
        var judgement = Judged(8, [.. JustSecure[..2], Saw(2, NotYet), Saw(3, NotYet)]);
        judgement.Strength.ShouldBe(Strength.Nearly);
        judgement.LookAgain.ShouldBeTrue();
        judgement.Doubt.ShouldNotBeNull().ShouldStartWith("never quite sure");
    }

    [Fact]
    public void The_light_rule_is_met_earlier_and_the_strict_one_later()
    {
        Observation[] two = [Saw(0, Alone), Saw(2, Alone)];
        Judged(new() { Strictness = Strictness.Light }, 2, two).Strength.ShouldBe(Strength.Secure);
        Judged(2, two).Strength.ShouldBe(Strength.Nearly);
        Judged(new() { Strictness = Strictness.Strict }, 3, JustSecure).Strength.ShouldBe(Strength.Nearly);
        Judged(new() { Strictness = Strictness.Strict }, 5, [.. JustSecure, Saw(5, Alone)]).Strength.ShouldBe(Strength.Secure);
        Judged(new() { Strictness = Strictness.Strict }, 6, Saw(0, Alone), Saw(2, Prompted), Saw(4, Alone, Picture), Saw(6, Prompted, Picture))
            .Strength.ShouldBe(Strength.Nearly);
    }

    [Fact]
    public void Secure_holds_just_when_every_clause_holds() =>
        RandomRecord.Sample(seen =>
        {
            var judgement = Judged(30, seen);
            judgement.IsSecure.ShouldBe(judgement.Clauses.All(c => c.Holds));
            judgement.Sentence.ShouldNotBeNullOrWhiteSpace();
        });

    private static readonly Gen<Observation[]> RandomRecord = Gen.Select(Gen.Int[0, 25], Gen.Enum<Support>(), Gen.OneOf(Gen.Const(Objects), Gen.Const(Picture)))
        .Array[1, 12]
        .Select(all => all.OrderBy(r => r.Item1).Select(r => Saw(r.Item1, r.Item2, r.Item3)).ToArray());
}
