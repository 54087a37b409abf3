using Fobble.Core.Activities;
using Fobble.Core.Evidence;
using Fobble.Core.MadeUpClass;
using Fobble.Core.Portraits;
using Fobble.Core.Skills;
using static Fobble.Core.Evidence.Support;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Evidence;

/// <summary>Skills judged together, against worked values and against all states of a small map, one by one.</summary>
public class SkillsTogetherTests
{
    // See to three; see to five, which needs it; how many to five; split four, which needs the last two.
    private static readonly int[][] Needs =
    [
        [],
        [0],
        [],
        [1, 2],
    ];
    private static readonly double[] Bases = [0.5, 0.5, 0.5, 0.5];

    [Theory]
    [InlineData(
        new[] { 1, 9.33333, 0.44444, 36 },
        new[] { false, true, true, true },
        new[] { 0.9091, 0.9298, 0.7921, 0.8469 },
        0.6064,
        new[] { 0.9483, 0.9792, 0.8907, 0.9288 }
    )]
    [InlineData(
        new[] { 1, 9.33333, 36, 0.44444 },
        new[] { false, true, true, true },
        new[] { 0.7791, 0.7075, 0.9662, 0.2126 },
        0.3478,
        new[] { 0.8422, 0.7770, 0.9740, 0.2939 }
    )]
    public void Two_runs_come_to_the_worked_values(double[] evidence, bool[] seen, double[] first, double level, double[] second)
    {
        SkillsTogether model = new(Needs, Bases);
        var run = model.Run(evidence, seen, 0);
        Near(run.Held, first, 1e-4);
        run.Level.ShouldBe(level, 1e-4);
        Near(model.Run(evidence, seen, level).Held, second, 1e-4);
    }

    // A tree has no two ways between skills, so that passing messages is exact but for the cap on them, which is lifted here.
    [Fact]
    public void On_a_tree_it_is_what_all_states_come_to() =>
        Gen.Select(Gen.Double[0.2, 5].Array[4], Gen.Double[0.1, 0.9].Array[4])
            .Sample(
                (evidence, bases) =>
                {
                    var held = new SkillsTogether(Needs, bases, new() { MostAMessageSays = 1e6 }).Run(evidence, [true, true, true, true], 0).Held;
                    Near(held, Enumerated(evidence, bases), 1e-9);
                }
            );

    [Fact]
    public void What_builds_on_a_skill_speaks_for_it_and_what_it_needs_against_it()
    {
        SkillsTogether model = new(Needs, Bases);
        IReadOnlyList<double> Held(params double[] evidence) => model.Run(evidence, [.. evidence.Select(e => e != 1)], 0).Held;
        var nothing = Held(1, 1, 1, 1);
        Held(1, 1, 1, 30)[0].ShouldBeGreaterThan(nothing[0]);
        Held(0.05, 1, 1, 1)[3].ShouldBeLessThan(nothing[3]);
    }

    [Fact]
    public void Nothing_seen_says_nothing_about_the_level()
    {
        var model = SkillsTogether.Of(Map, new());
        var n = Map.All.Count;
        model.Judge(Enumerable.Repeat(1.0, n).ToArray(), new bool[n]).Level.ShouldBe(0, 1e-9);
    }

    // However a record contradicts itself, what comes out is a chance.
    [Fact]
    public void Every_record_comes_to_chances() =>
        Gen.Select(Gen.Int[0, Map.All.Count - 1], Gen.Double[-9, 9])
            .Array[0, 300]
            .Sample(draws =>
            {
                var (evidence, seen) = (Enumerable.Repeat(1.0, Map.All.Count).ToArray(), new bool[Map.All.Count]);
                foreach (var (skill, weight) in draws)
                {
                    (evidence[skill], seen[skill]) = (Math.Exp(weight), true);
                }

                var judged = SkillsTogether.Of(Map, new()).Judge(evidence, seen);
                judged.Held.ShouldAllBe(h => h > 0 && h < 1);
                Math.Abs(judged.Level).ShouldBeLessThanOrEqualTo(3);
            });

    [Fact]
    public void A_skill_that_nobody_saw_follows_from_what_builds_on_it_and_says_so()
    {
        Skill five = Map[new("see.to-5")];
        var builds = Map.Skills.First(s => s.Needs.Contains(five.Id) && s.ShownIn.Count > 1);
        var evidence = EvidenceOf(EvidenceSettings.Default, 6, [.. new[] { 0, 2, 4, 5 }.Select(d => Saw(d, Alone, builds.ShownIn[d % 2], skill: builds))]);
        evidence[new(1), builds.Id].Strength.ShouldBe(Strength.Secure);
        evidence.IsInferred(new(1), five.Id).ShouldBeTrue();
        evidence.Judgement(new(1), five.Id).Sentence.ShouldBe($"Not seen yet. It follows from {builds.InSentence}, seen four times alone: a guess to confirm.");
        evidence.IsReady(new(1), five.Id).ShouldBeFalse();
    }

    [Fact]
    public void What_is_seen_without_what_it_needs_is_not_believed_at_once()
    {
        Skill three = Map[new("see.to-3")],
            five = Map[new("see.to-5")];
        Observation[] lucky = [Saw(0, Alone, skill: five), Saw(2, Alone, Representation.Picture, skill: five)];
        Observation[] against = [.. Enumerable.Range(0, 5).Select(d => Saw(d, NotYet, skill: three))];
        double Belief(params Observation[] seen) => EvidenceOf(EvidenceSettings.Default, 6, [.. seen.OrderBy(o => o.At)])[new(1), five.Id].Belief;
        Belief([.. lucky, .. against]).ShouldBeLessThan(Belief(lucky) - 0.03);
    }

    // Grid, family page, groups and plan rest on one judgement: it must not say that a child has something and lacks what that needs. In worlds that forget, too.
    [Theory]
    [InlineData(0, 1)]
    [InlineData(2, 2)]
    [InlineData(4, 3)]
    public void What_a_secure_skill_needs_is_secure_or_likely_and_never_said_to_be_under_way(int world, ulong seed)
    {
        ChildId[] children = [.. Enumerable.Range(1, 16).Select(i => new ChildId(i))];
        var library = ActivityLoader.Shipped(Map);
        var history = MadeUpHistory.Play(
            new(Map, library, Calendar, children, Monday, new(SchoolDay(60).ToDateTime(new(7, 0)), TimeSpan.Zero), 2, seed) { World = MadeUpWorld.All[world] }
        );
        ClassEvidence evidence = new(Map, Calendar, EvidenceSettings.Default, children, history.Observations, SchoolDay(60));
        var pairs = (
            from child in children
            from skill in evidence.SecureSkills(child)
            from need in Map[skill].Needs
            select (child, need, mark: evidence[child, need])
        ).ToList();
        pairs.Count.ShouldBeGreaterThan(100);
        var seen = pairs.Where(p => p.mark.Strength > Strength.NotSeen).ToList();
        var share = seen.Count(p => p.mark.Strength < Strength.Secure) / (double)seen.Count;
        share.ShouldBeLessThanOrEqualTo(0.07);
        pairs.ShouldAllBe(p => p.mark.Strength >= Strength.Secure || evidence.LikelyHas(p.child, p.need));
        pairs.ShouldAllBe(p => !evidence.IsReady(p.child, p.need));
        foreach (var child in children)
        {
            // Every mark can be explained.
            Map.Skills.ShouldAllBe(s => evidence.Judgement(child, s.Id).Sentence.Length > 10);
            new ChildPortrait(evidence, library, child)
                .NextSteps.Select(n => n.Skill)
                .Intersect(evidence.SecureSkills(child).SelectMany(s => Map.AllNeeds(s)))
                .ShouldBeEmpty();
        }
    }

    private static double[] Enumerated(double[] evidence, double[] bases)
    {
        var (held, all) = (new double[4], 0.0);
        for (var state = 0; state < 16; state++)
        {
            bool Has(int s) => ((state >> s) & 1) == 1;
            var weight = 1.0;
            for (var s = 0; s < 4; s++)
            {
                var chance = Needs[s].All(Has) ? Math.Clamp(bases[s], 0.02, 0.98) : 0.02;
                weight *= Has(s) ? chance * evidence[s] : 1 - chance;
            }

            all += weight;
            for (var s = 0; s < 4; s++)
            {
                held[s] += Has(s) ? weight : 0;
            }
        }

        return [.. held.Select(h => h / all)];
    }

    private static void Near(IReadOnlyList<double> values, double[] expected, double off)
    {
        for (var i = 0; i < expected.Length; i++)
        {
            values[i].ShouldBe(expected[i], off);
        }
    }
}
