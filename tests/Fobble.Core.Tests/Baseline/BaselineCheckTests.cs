using Fobble.Core.Activities;
using Fobble.Core.Baseline;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.MadeUpClass;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;
using static Fobble.Core.Evidence.Support;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Baseline;

public class BaselineCheckTests
{
    private static readonly BaselineSettings Usual = BaselineSettings.Default;

    [Fact]
    public void Chances_agree_with_exact_enumeration_on_small_maps()
    {
        // Typical, random and contradictory answers: particles that are only reweighted were off by up to 0.76 on these.
        var worst = 0.0;
        foreach (var seed in Enumerable.Range(1, Cases.Of(5)))
        {
            SeededRandom random = new((ulong)seed);
            var map = Small(random, 12);
            ExactBaseline exact = new(map, Usual);
            BaselineCheck check = new(map);
            var level = 1 + random.Next(8);
            foreach (
                var answers in (List<IReadOnlyList<BaselineAnswer>>)
                    [
                        [],
                        [.. map.Skills.Select(s => new BaselineAnswer(s.Id, (int)s.When * 2 < level ? Support.Alone : Support.NotYet)).Take(6)],
                        [
                            .. random
                                .Shuffled(map.Skills)
                                .Take(8)
                                .Select(s => new BaselineAnswer(
                                    s.Id,
                                    random.Chance(0.5) ? Support.Alone
                                        : random.Chance(0.5) ? Support.Prompted
                                        : Support.NotYet
                                )),
                        ],
                        [.. map.Skills.Select((s, i) => new BaselineAnswer(s.Id, i < 6 ? Support.NotYet : Support.Alone))],
                    ]
            )
            {
                var truth = exact.After(answers, Usual);
                var state = check.After(answers);
                worst = Math.Max(worst, map.Skills.Select((s, i) => Math.Abs(state[s.Id].Chance - truth[i])).Max());
            }
        }

        worst.ShouldBeLessThan(0.06);
    }

    // The number of order ideals of all subsets of n things is the n-th Dedekind number (Dedekind 1897): 3, 6, 20, 168 for n = 1 to 4.
    [Theory]
    [InlineData(1, 3)]
    [InlineData(2, 6)]
    [InlineData(3, 20)]
    [InlineData(4, 168)]
    public void Down_closed_sets_of_a_lattice_of_subsets_are_as_many_as_Dedekind_counted(int things, int expected)
    {
        var subsets = Enumerable.Range(0, 1 << things).ToList();
        Skill Of(int set) =>
            Map.Skills[0] with
            {
                Id = new($"s.{set}"),
                Strand = "see",
                Needs = [.. Enumerable.Range(0, things).Where(t => (set >> t & 1) == 1).Select(t => new SkillId($"s.{set & ~(1 << t)}"))],
            };
        ExactBaseline.DownClosed(new SkillMap(Map.Strands, [.. subsets.Select(Of)])).Count().ShouldBe(expected);
    }

    [Fact]
    public void What_it_expects_to_have_placed_rightly_it_has_when_children_are_as_it_expects()
    {
        SeededRandom random = new(5);
        var map = Small(random, 24);
        BaselineCheck check = new(map, Usual with { Particles = 600 });
        var prior = new BaselineCheck(map, Usual with { Particles = 600, Seed = 99 });
        var (expected, right, of) = (0.0, 0, 0);
        foreach (var child in DrawnFromPrior(map, 100, random))
        {
            List<BaselineAnswer> answers = [];
            for (var state = check.After([]); answers.Count < 6; state = check.After(answers))
            {
                var has = random.Chance(child.Contains(state.Next!.Value) ? 1 - Usual.Slip : Usual.Guess);
                answers.Add(new(state.Next.Value, has ? Support.Alone : Support.NotYet));
            }

            var end = prior.After(answers);
            expected += end.Sure * map.Skills.Count;
            right += end.Skills.Count(s => s.Held == child.Contains(s.Skill));
            of += map.Skills.Count;
        }

        (expected / of).ShouldBe((double)right / of, 0.025);
    }

    [Fact]
    public void The_same_answers_give_the_same_state_on_every_run()
    {
        BaselineAnswer[] answers = [new(new("count.say-5"), Support.Alone), new(new("bond.all-5"), Support.NotYet)];
        var (one, other) = (new BaselineCheck(Map).After(answers), new BaselineCheck(Map).After(answers));
        one.Skills.ShouldBe(other.Skills);
        one.Next.ShouldBe(other.Next);
    }

    [Fact]
    public void What_is_held_is_down_closed_and_a_right_answer_raises_it_and_all_it_needs()
    {
        BaselineCheck check = new(Map);
        var before = check.After([]);
        var after = check.After([new(new("bond.recall-5"), Support.Alone)]);
        after.Skills.Where(s => s.Held).ShouldAllBe(s => Map[s.Skill].Needs.All(n => after[n].Held));
        Map.AllNeeds(new("bond.recall-5")).ShouldAllBe(n => after[n].Chance > before[n].Chance);
        check.After([new(new("bond.recall-5"), Support.NotYet)])[new("bond.recall-5")].Chance.ShouldBeLessThan(before[new("bond.recall-5")].Chance);
    }

    [Fact]
    public void A_check_starts_from_what_was_seen_in_the_weeks_before_and_needs_fewer_questions()
    {
        var history = MadeUpHistory.Play(
            new(
                Map,
                ActivityLoader.Shipped(Map),
                Calendar,
                [.. Enumerable.Range(1, 10).Select(i => new ChildId(i))],
                Monday,
                new(Monday.AddDays(56).ToDateTime(new(16, 0)), default),
                2,
                5
            )
        );
        ClassEvidence evidence = new(
            Map,
            Calendar,
            EvidenceSettings.Default,
            [.. Enumerable.Range(1, 10).Select(i => new ChildId(i))],
            history.Observations,
            Monday.AddDays(56)
        );
        var known = RecordedSkill.Of(evidence, new(1));
        known.Select(k => k.Skill).ShouldBe(Map.Skills.Select(s => s.Id).Where(s => evidence.Seen(new(1), s).Count > 0));
        BaselineCheck check = new(Map, Usual with { Particles = 800 });
        check.After([], known).Sure.ShouldBeGreaterThan(check.After([]).Sure);
        int Asked(IReadOnlyList<RecordedSkill> from)
        {
            List<BaselineAnswer> answers = [];
            for (var state = check.After(answers, from); state.Next is { } next; state = check.After(answers, from))
            {
                answers.Add(new(next, history.Holds[new(1)].Contains(next) ? Support.Alone : Support.NotYet));
            }

            return answers.Count;
        }

        Asked(known).ShouldBeLessThan(Asked([]));

        // Of no skill does the record say more than an answer would.
        SkillId some = new("count.touch-5");
        check.After([], [new(some, 1e9)])[some].Chance.ShouldBe(check.After([new(some, Support.Alone)])[some].Chance, 0.02);
    }

    [Fact]
    public void What_is_older_than_the_weeks_before_a_check_is_asked_for_anew()
    {
        var seen = Saw(0, Support.Alone, skill: Map[new("count.say-5")]);
        IReadOnlyList<RecordedSkill> On(int day) => RecordedSkill.Of(EvidenceOf(EvidenceSettings.Default, day, seen), new(1));
        On(5 * RecordedSkill.Weeks).ShouldHaveSingleItem().Ratio.ShouldBeGreaterThan(1);
        On((5 * RecordedSkill.Weeks) + 1).ShouldBeEmpty();
        RecordedSkill.InWords(On(3)).ShouldBe("starts from what was seen of one skill in the last eight weeks");
        RecordedSkill.InWords([]).ShouldBeNull();
    }

    [Fact]
    public void With_help_tells_half_as_much_as_not_yet()
    {
        BaselineCheck check = new(Map);
        double After(Support support) => check.After([new(new("count.touch-5"), support)])[new("count.touch-5")].Chance;
        After(Support.NotYet).ShouldBeLessThan(After(Support.Together));
        After(Support.Prompted).ShouldBe(After(Support.Together));
        After(Support.Together).ShouldBeLessThan(After(Support.Alone));
    }

    [Fact]
    public void Stops_between_six_and_thirty_questions_and_asks_nothing_twice()
    {
        BaselineCheck check = new(Map, Usual with { Particles = 400 });
        SeededRandom random = new(3);
        foreach (var share in new[] { 0.0, 1, 0.5 })
        {
            List<BaselineAnswer> answers = [];
            var state = check.After(answers);
            while (state.Next is { } next)
            {
                answers.ShouldNotContain(a => a.Skill == next);
                answers.Add(new(next, random.Chance(share) ? Support.Alone : Support.NotYet));
                state = check.After(answers);
            }

            answers.Count.ShouldBeInRange(6, 30);
            (state.Sure >= Usual.SureEnough || answers.Count == 30).ShouldBeTrue();
        }
    }

    [Fact]
    public void A_check_of_one_strand_asks_in_that_strand_only_and_counts_what_is_on_record()
    {
        BaselineCheck check = new(Map, Usual with { Particles = 400 }, "bond");
        var state = check.After([], [.. Map.Skills.Where(s => s.Strand != "bond" && s.When <= Season.Spring).Select(s => new RecordedSkill(s.Id, 10))]);
        Map[state.Next!.Value].Strand.ShouldBe("bond");
        state[new("bond.split-4")].Chance.ShouldBeGreaterThan(check.After([])[new("bond.split-4")].Chance);
        Should.Throw<ArgumentException>(() => new BaselineCheck(Map, strand: "none"));
    }

    [Fact]
    public void Between_questions_as_good_the_one_with_the_things_at_hand_is_asked()
    {
        // Two strands alike: after a question in one of them, things decide.
        var twins = new[] { "see", "count" }
            .SelectMany(strand =>
                Enumerable.Range(0, 3).Select(i => Map.Skills[0] with { Id = new($"{strand}.{i}"), Strand = strand, Needs = [], When = Season.Summer })
            )
            .ToList();
        BaselineCheck check = new(new SkillMap(Map.Strands, twins));
        BaselineAnswer[] first = [new(new("see.0"), Support.Alone)];
        Dictionary<SkillId, string> things = twins.ToDictionary(s => s.Id, s => s.Id.Value is "see.0" or "count.2" or "see.2" ? "counters" : s.Id.Value);
        check.After(first, materials: things).Next!.Value.Value.ShouldEndWith(".2");
    }

    [Fact]
    public void What_an_adult_knows_better_lies_over_it_and_stays_down_closed()
    {
        var state = new BaselineCheck(Map).After([]);
        var with = state.With(new Dictionary<SkillId, bool> { [new("bond.recall-5")] = true, [new("count.say-20")] = false }).ToDictionary(s => s.Skill);
        with[new("bond.recall-5")].Held.ShouldBeTrue();
        Map.AllNeeds(new("bond.recall-5")).ShouldAllBe(n => with[n].Chance == 1);
        with.Values.Where(s => Map.AllNeeds(s.Skill).Contains(new("count.say-20"))).ShouldAllBe(s => !s.Held);
    }

    [Fact]
    public void Likely_next_is_what_lacks_nothing_before_it()
    {
        var inferred = new BaselineCheck(Map).After([]).Skills;
        var held = inferred.Where(i => i.Held).Select(i => i.Skill).ToHashSet();
        var next = BaselineState.LikelyNext(Map, inferred);
        next.ShouldNotBeEmpty();
        next.ShouldAllBe(s => !held.Contains(s) && Map[s].Needs.All(held.Contains));
    }

    [Fact]
    public void What_was_done_alone_speaks_for_a_skill_and_what_was_tried_in_vain_against_it()
    {
        var known = RecordedSkill
            .Of(
                new ClassEvidence(
                    Map,
                    Calendar,
                    EvidenceSettings.Default,
                    [new(1)],
                    [Saw(0, Alone), Saw(1, Alone, Representation.Picture), Saw(3, Alone), Saw(3, NotYet, skill: Map[new("count.say-20")])],
                    SchoolDay(4)
                ),
                new(1)
            )
            .ToDictionary(k => k.Skill, k => k.Ratio);
        known.Count.ShouldBe(2);
        known[TwoWays.Id].ShouldBeGreaterThan(10);
        known[new("count.say-20")].ShouldBeLessThan(1);
    }

    [Fact]
    public void An_older_child_is_expected_further_on()
    {
        BaselineSettings.ShiftFor(null, Monday).ShouldBe(0);
        BaselineSettings.ShiftFor(Monday.AddYears(-6), Monday).ShouldBe(1.2, 0.02);
        BaselineSettings.ShiftFor(Monday.AddYears(-12), Monday).ShouldBe(2);
        BaselineCheck check = new(Map);
        check.After([], shift: 1.2).Skills.Sum(s => s.Chance).ShouldBeGreaterThan(check.After([], shift: -1.2).Skills.Sum(s => s.Chance));
    }

    [Fact]
    public void Says_how_far_and_how_sure_without_boasting()
    {
        var state = new BaselineCheck(Map).After([
            .. Map.Skills.Where(s => s.When <= Season.Spring).Select(s => new BaselineAnswer(s.Id, Support.Alone)).Take(30),
        ]);
        state.Done.ShouldBeTrue();
        state.Next.ShouldBeNull();
        state.SureInWords.ShouldMatch(@"^about (\d\d) % sure$");
        int.Parse(state.SureInWords[6..8], System.Globalization.CultureInfo.InvariantCulture).ShouldBeLessThanOrEqualTo(94);
        state.Reach.Count.ShouldBe(8);
        state.Reach.First(r => r.Strand == "count").Sentence.ShouldMatch("^Likely up to “.+”: .+ of .+ skills[.]$");
    }

    // Some skills of the real map with their strands, and what they need among themselves.
    private static SkillMap Small(SeededRandom random, int count)
    {
        var chosen = random.Shuffled(Map.Skills.Where(s => s.Strand is "count" or "bond" or "compare")).Take(count).Select(s => s.Id).ToHashSet();
        return new(Map.Strands, [.. Map.Skills.Where(s => chosen.Contains(s.Id)).Select(s => s with { Needs = [.. s.Needs.Where(chosen.Contains)] })]);
    }

    private static IEnumerable<HashSet<SkillId>> DrawnFromPrior(SkillMap map, int children, SeededRandom random)
    {
        var levels = BaselineSettings.LevelsOf(map);
        for (var c = 0; c < children; c++)
        {
            var theta = Usual.Level + (Usual.LevelSpread * random.NextNormal());
            var strands = map.Strands.ToDictionary(s => s.Id, _ => theta + (Usual.StrandSpread * random.NextNormal()));
            HashSet<SkillId> held = [];
            foreach (var (skill, i) in map.Skills.Select((s, i) => (s, i)))
            {
                if (skill.Needs.All(held.Contains) && random.Chance(1 / (1 + Math.Exp(-(strands[skill.Strand] - levels[i]) / Usual.Softness))))
                {
                    held.Add(skill.Id);
                }
            }

            yield return held;
        }
    }
}
