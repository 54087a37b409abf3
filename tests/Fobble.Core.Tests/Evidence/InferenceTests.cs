using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using static Fobble.Core.Evidence.Support;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Evidence;

public class InferenceTests
{
    private static readonly ChildId Child = new(1);
    private static readonly SkillId Five = new("count.say-5"),
        Ten = new("count.say-10"),
        Twenty = new("count.say-20");

    [Fact]
    public void What_is_likely_there_counts_as_there_until_it_is_seen_and_is_said_to_be_a_guess()
    {
        var evidence = Of([], (Five, 0.97), (Ten, 0.9), (Twenty, 0.3));
        evidence.LikelyHas(Child, Ten).ShouldBeTrue();
        evidence.IsReady(Child, Ten).ShouldBeFalse();
        evidence.IsReady(Child, Twenty).ShouldBeTrue();
        evidence.IsReadyByGuess(Child, Twenty).ShouldBeTrue();
        evidence[Child, Ten].Strength.ShouldBe(Strength.NotSeen);
        evidence.ReadyBecause(Child, Twenty).ShouldBe("Ready, as a guess to confirm: “say to ten” is inferred and not seen yet.");
        evidence.ReadyBecause(Child, Ten).ShouldBe("Has it already, as far as can be told: see it once to be sure.");
        evidence.Judgement(Child, Five).Sentence.ShouldBe("Not seen yet. The check of 8 September takes it to be there (about 94 % sure).");
        evidence.Judgement(Child, Twenty).Sentence.ShouldBe("Not seen yet. The check of 8 September could not take it to be there.");
    }

    [Fact]
    public void One_observation_outweighs_any_inference()
    {
        var evidence = Of([Saw(2, NotYet, skill: Map[Ten])], (Five, 0.97), (Ten, 0.97));
        evidence.InferenceOf(Child, Ten).ShouldBeNull();
        evidence.IsReady(Child, Twenty).ShouldBeFalse();
        evidence.ReadyBecause(Child, Twenty).ShouldContain("Not ready yet");
        evidence.IsReady(Child, Ten).ShouldBeTrue();
    }

    [Fact]
    public void A_class_falls_apart_into_has_ready_likely_and_not_yet()
    {
        ClassEvidence evidence = new(
            Map,
            Calendar,
            EvidenceSettings.Default,
            [new(1), new(2), new(3), new(4)],
            [
                Saw(0, Alone, skill: Map[Five], child: 2),
                .. Enumerable.Range(0, 4).Select(d => Saw(d, Alone, skill: Map[Ten], shown: Map[Ten].ShownIn[d % Map[Ten].ShownIn.Count], child: 3)),
            ],
            SchoolDay(5),
            new Dictionary<ChildId, Inference> { [new(1)] = new(SchoolDay(1), new Dictionary<SkillId, double> { [Ten] = 0.9 }) }
        );
        var overview = evidence.OverviewOf(Ten);
        (overview.Has.Single(), overview.Likely.Single(), overview.Ready.Single(), overview.NotYet.Single()).ShouldBe((new(3), new(1), new(2), new(4)));
    }

    [Fact]
    public void Without_a_check_nothing_changes()
    {
        var evidence = Of([]);
        evidence.InferenceOf(Child, Five).ShouldBeNull();
        evidence.IsReadyByGuess(Child, Five).ShouldBeFalse();
    }

    [Fact]
    public void The_history_of_a_strength_is_its_steps_by_day()
    {
        Observation[] seen =
        [
            Saw(0, NotYet),
            Saw(1, Prompted),
            Saw(2, Alone),
            Saw(3, Alone, Representation.Picture),
            Saw(4, Alone),
            Saw(5, Alone),
            Saw(25, Alone),
            Saw(26, NotYet),
        ];
        var steps = EvidenceOf(EvidenceSettings.Default, 41, seen).StepsOf(Child, TwoWays.Id);
        steps.Select(s => s.Strength).ShouldBe([Strength.Tried, Strength.Prompted, Strength.Nearly, Strength.Secure, Strength.Kept, Strength.Nearly]);
        steps.Select(s => s.Day).ShouldBe([SchoolDay(0), SchoolDay(1), SchoolDay(2), SchoolDay(4), SchoolDay(25), SchoolDay(26)]);
        Judged(25, seen[..7]).SecureSince.ShouldBe(SchoolDay(4));
    }

    [Fact]
    public void The_last_step_is_the_judgement_of_the_day() =>
        Gen.Select(Gen.Int[0, 40], Gen.Int[0, 3], Gen.Int[0, 1])
            .Array[1, 12]
            .Sample(draws =>
            {
                Observation[] seen =
                [
                    .. draws.OrderBy(d => d.Item1).Select(d => Saw(d.Item1, (Support)d.Item2, d.Item3 == 0 ? Representation.Objects : Representation.Picture)),
                ];
                EvidenceOf(EvidenceSettings.Default, 41, seen).StepsOf(Child, TwoWays.Id)[^1].Strength.ShouldBe(Judged(41, seen).Strength);
            });

    private static ClassEvidence Of(IEnumerable<Observation> seen, params (SkillId Skill, double Chance)[] inferred) =>
        new(
            Map,
            Calendar,
            EvidenceSettings.Default,
            [Child],
            seen,
            SchoolDay(5),
            inferred.Length == 0 ? null : new Dictionary<ChildId, Inference> { [Child] = new(SchoolDay(1), inferred.ToDictionary(p => p.Skill, p => p.Chance)) }
        );
}
