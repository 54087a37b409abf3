using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;

namespace Fobble.Core.Tests.Skills;

/// <summary>What a school does differently lies over what ships, and can be taken back.</summary>
public class SchoolMapTests
{
    private static readonly SkillMap Shipped = SkillMapLoader.AsWritten();
    private static readonly SkillId Hidden5 = new("bond.hidden-5");
    private static readonly SkillId All5 = new("bond.all-5");
    private static readonly SkillId Recall5 = new("bond.recall-5");

    [Fact]
    public void Without_changes_it_is_the_map_that_ships() =>
        new SchoolMap(Shipped, []).Map.Skills.Select(s => s.Id).ShouldBe(Shipped.Skills.Select(s => s.Id));

    [Fact]
    public void What_needs_a_hidden_skill_needs_that_ones_prerequisites_instead()
    {
        SchoolMap school = new(Shipped, [new(Hidden5, true, null)]);
        school.Map.Skills.ShouldNotContain(s => s.Id == Hidden5);
        school.Map[Recall5].Needs.ShouldBe([All5]);
        school.Map.Opens(All5).ShouldContain(Recall5);
        school.Map[Hidden5].Short.ShouldBe("Hidden part to five");
        school.Written.Single(s => s.Id == Recall5).Needs.ShouldBe([Hidden5]);
    }

    [Fact]
    public void Hiding_any_skills_leaves_a_sound_map_that_can_be_judged_with() =>
        Gen.Int[0, Shipped.Skills.Count - 1]
            .Array[0, 25]
            .Sample(picks =>
            {
                SchoolMap school = new(Shipped, [.. picks.Distinct().Select(i => new SkillChange(Shipped.Skills[i].Id, true, null))]);
                school.Map.Skills.Count.ShouldBe(Shipped.Skills.Count - picks.Distinct().Count());
                school.Map.Skills.ShouldAllBe(s => s.Needs.All(n => !school.Map[n].Hidden));
                ClassEvidence evidence = new(
                    school.Map,
                    Tests.Evidence.Record.Calendar,
                    EvidenceSettings.Default,
                    [new(1)],
                    [],
                    Tests.Evidence.Record.SchoolDay(3)
                );
                school.Map.All.ShouldAllBe(s => evidence[new(1), s.Id].Strength == Strength.NotSeen);
            });

    [Fact]
    public void A_season_words_and_a_skill_of_its_own_are_the_schools()
    {
        var mine = Shipped[All5] with { Id = new("own.lemons"), Short = "Lemons", Needs = [Hidden5], When = Season.Summer };
        SchoolMap school = new(
            Shipped,
            [
                new(Hidden5, false, Shipped[Hidden5] with { When = Season.Summer, Words = ["peep"] }),
                new(Recall5, false, Shipped[Recall5] with { When = Season.Summer }),
                new(mine.Id, false, mine),
            ]
        );
        school.Map[Hidden5].Words.ShouldBe(["peep"]);
        school.Map.Opens(Hidden5).ShouldContain(mine.Id);
        (school.IsOwn(mine.Id), school.IsOwn(Hidden5), school.IsChanged(Hidden5), school.IsChanged(All5)).ShouldBe((true, false, true, false));
    }

    [Fact]
    public void A_circle_is_refused_and_told_by_the_way_it_would_close()
    {
        SchoolMap school = new(Shipped, []);
        school
            .CircleIf(All5, Recall5)
            .ShouldBe(
                "“all ways to make five” can't need “know bonds of five”: that one needs “hidden part to five”, which needs “all ways to make five”. It would be a circle."
            );
        school.CircleIf(All5, All5).ShouldBe("“all ways to make five” can't need itself.");
        school.CircleIf(Recall5, All5).ShouldBeNull();
        Should
            .Throw<InvalidSkillMapException>(() => new SchoolMap(Shipped, [new(All5, false, Shipped[All5] with { Needs = [Recall5] })]))
            .Message.ShouldContain("circle");
    }

    [Fact]
    public void The_changes_between_what_ships_and_what_is_wanted_make_just_that()
    {
        IReadOnlyList<Skill> wanted =
        [
            .. Shipped
                .Skills.Where(s => s.Id != Recall5)
                .Select(s =>
                    s.Id == Hidden5 ? s with { Words = ["peep"] }
                    : s.Id == new SkillId("count.to-120") ? s with { Hidden = true }
                    : s
                ),
            Shipped[All5] with
            {
                Id = new("own.lemons"),
                Short = "Lemons",
            },
        ];
        var changes = SchoolMap.Between(Shipped, wanted);
        changes.Count.ShouldBe(4);
        var written = new SchoolMap(Shipped, changes).Written;
        written.Where(s => !s.Hidden).Select(SkillMapLoader.WriteOne).Order().ShouldBe(wanted.Where(s => !s.Hidden).Select(SkillMapLoader.WriteOne).Order());
        written.Where(s => s.Hidden).Select(s => s.Id).ShouldBe([Recall5, new("count.to-120")], ignoreOrder: true);
        SchoolMap.Between(Shipped, Shipped.Skills).ShouldBeEmpty();
    }

    [Fact]
    public void A_skill_written_out_is_read_back_unchanged()
    {
        foreach (var skill in Shipped.Skills)
        {
            SkillMapLoader.WriteOne(SkillMapLoader.ReadOne(SkillMapLoader.WriteOne(skill))).ShouldBe(SkillMapLoader.WriteOne(skill));
            SkillMapLoader.ReadOne(SkillMapLoader.WriteOne(skill)).Strategies.ShouldBe(skill.Strategies);
        }
    }
}
