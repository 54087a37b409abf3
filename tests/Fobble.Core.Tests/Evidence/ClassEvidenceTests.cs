using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;
using static Fobble.Core.Evidence.Support;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Evidence;

public class ClassEvidenceTests
{
    private static readonly ChildId Child = new(1);

    [Fact]
    public void Skills_that_need_nothing_are_ready_from_the_start()
    {
        var evidence = Of([]);
        Map.Skills.Where(s => evidence.IsReady(Child, s.Id)).ShouldBe(Map.Skills.Where(s => s.Needs.Count == 0));
    }

    [Fact]
    public void Ready_needs_every_prerequisite_and_not_the_skill_itself()
    {
        Skill sayTen = Map[new("count.say-10")],
            touchTen = Map[new("count.touch-10")];
        var some = Of([Saw(0, Alone, skill: sayTen)]);
        some.IsReady(Child, touchTen.Id).ShouldBeFalse();
        some.ReadyBecause(Child, touchTen.Id).ShouldBe("Not ready yet: needs “touch each to five” first.");
        var all = Of([Saw(0, Alone, skill: sayTen), Saw(0, Alone, skill: Map[new("count.touch-5")])]);
        all.IsReady(Child, touchTen.Id).ShouldBeTrue();
        all.ReadyBecause(Child, touchTen.Id).ShouldBe("Ready: has “touch each to five” and “say to ten”.");
    }

    [Fact]
    public void Ready_skills_are_the_outer_fringe_of_a_down_closed_set() =>
        Gen.ULong.Sample(seed =>
        {
            // Doignon and Falmagne 1999: adding any one of them leaves the set down-closed, and nothing else can be added.
            var random = new SeededRandom(seed);
            HashSet<SkillId> held = [];
            foreach (var skill in Map.Skills.Where(s => s.Needs.All(held.Contains) && random.Chance(0.7)))
            {
                held.Add(skill.Id);
            }

            var evidence = Of(held.SelectMany(id => Secure(Map[id])));
            foreach (var skill in Map.Skills)
            {
                evidence.IsReady(Child, skill.Id).ShouldBe(!held.Contains(skill.Id) && skill.Needs.All(held.Contains));
            }
        });

    [Fact]
    public void Observations_of_other_classes_and_of_skills_gone_from_the_map_are_left_aside() =>
        Of([Saw(0, Alone, child: 99), Saw(0, Alone) with { Skill = new("see.gone") }]).Row(Child).ShouldAllBe(m => m.Strength == Strength.NotSeen);

    [Fact]
    public void The_list_to_look_at_again_has_each_child_once_with_what_is_most_in_doubt()
    {
        // Two skills of one child in doubt, one more than the other; what was seen of the other child is too fresh.
        Skill say = Map[new("count.say-5")],
            see = Map[new("see.to-3")];
        var evidence = Of([
            Saw(0, Alone, skill: say),
            Saw(0, NotYet, skill: see),
            Saw(0, Alone, skill: see),
            Saw(1, NotYet, skill: say),
            Saw(1, NotYet, skill: see),
            Saw(3, Alone, skill: say, child: 2),
            Saw(4, NotYet, skill: say, child: 2),
        ]);
        evidence.DueForAnotherLook(5).Select(l => (l.Child, l.Skill)).ShouldBe([(Child, see.Id)]);
        evidence.DueForAnotherLook(0).ShouldBeEmpty();
    }

    private static IEnumerable<Observation> Secure(Skill skill) =>
        new[] { 0, 1, 3 }
            .Select(day => Saw(day, Alone, skill.ShownIn[day % skill.ShownIn.Count], skill: skill))
            .Append(Saw(4, Alone, skill.ShownIn[^1], skill: skill))
            .Append(Saw(4, Alone, skill.ShownIn[0], skill: skill));

    private static ClassEvidence Of(IEnumerable<Observation> seen) =>
        new(Map, Calendar, EvidenceSettings.Default, [Child, new(2)], seen.OrderBy(o => o.At), SchoolDay(5));
}
