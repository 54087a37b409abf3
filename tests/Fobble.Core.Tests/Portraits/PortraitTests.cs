using Fobble.Core.Activities;
using Fobble.Core.Evidence;
using Fobble.Core.Portraits;
using Fobble.Core.Skills;
using static Fobble.Core.Evidence.Support;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Portraits;

public class PortraitTests
{
    private static readonly ChildId Child = new(1);
    private static readonly ActivityLibrary Library = ActivityLoader.Shipped(Map);
    private static readonly Skill Hidden = Map[new("bond.hidden-5")];

    [Fact]
    public void Next_steps_are_ready_ones_begun_first_each_with_something_to_do()
    {
        var portrait = Of(10, Saw(1, Alone, skill: OneWay), Saw(2, Prompted, skill: Map[new("count.say-10")]));
        var steps = portrait.NextSteps;
        steps.Take(2).Select(s => s.Skill).ShouldBe([OneWay.Id, new("count.say-10")]);
        steps.Skip(2).Select(s => s.Opens).ShouldBe(steps.Skip(2).Select(s => s.Opens).OrderDescending(), "what most later skills wait for comes first");
        steps.ShouldAllBe(s => s.Activity != null && s.Activity.For(s.Skill) != null && s.Because.StartsWith("Ready"));
    }

    [Fact]
    public void Due_are_marks_in_doubt_then_next_steps_each_once()
    {
        var portrait = Of(60, Saw(0, Alone), Saw(1, Alone, Representation.Picture), Saw(3, Alone), Saw(2, Prompted, skill: Map[new("count.say-5")]));
        var due = portrait.Due(4);
        due[0].ShouldBe(new(TwoWays.Id, "look again"));
        due.ShouldContain(new DueSkill(OneWay.Id, "under way"));
        due.Select(d => d.Skill).ShouldBeUnique();
        due.Count.ShouldBe(4);
    }

    [Fact]
    public void Representations_count_what_was_alone_and_what_was_seen()
    {
        var shown = Of(10, Saw(1, Alone), Saw(2, Alone, strategy: "counted-all"), Saw(3, NotYet, Representation.Picture))
            .Shown.ToDictionary(s => s.Representation);
        shown[Representation.Objects].Seen.ShouldBe(2);
        shown[Representation.Picture].ShouldBe(new(Representation.Picture, 0, 1));
        shown[Representation.Symbols].Seen.ShouldBe(0);
    }

    [Fact]
    public void A_slip_recurs_when_it_came_twice_of_late()
    {
        var slip = Hidden.Slips[0].Id;
        Of(50, Saw(44, NotYet, skill: Hidden, slip: slip)).Slips.ShouldBeEmpty();
        var twice = Of(50, Saw(20, NotYet, skill: Hidden, slip: slip), Saw(44, Prompted, skill: Hidden, slip: slip)).Slips.Single();
        (twice.Times, twice.Last, twice.Slip.Id).ShouldBe((2, SchoolDay(44), slip));
        Of(100, Saw(20, NotYet, skill: Hidden, slip: slip), Saw(44, Prompted, skill: Hidden, slip: slip)).Slips.ShouldBeEmpty();
    }

    [Fact]
    public void A_bond_is_known_as_it_was_when_last_asked_whichever_part_was_named_first()
    {
        var bonds = Of(
            10,
            Saw(1, NotYet, skill: Hidden, numbers: "5=2+3"),
            Saw(2, Alone, skill: Hidden, numbers: "5=3+2"),
            Saw(3, Together, skill: Hidden, numbers: "4=1+3"),
            Saw(4, Alone, numbers: "numeral:6")
        ).Bonds;
        bonds.ShouldBe([new(4, 1, false, SchoolDay(3)), new(5, 2, true, SchoolDay(2))]);
        bonds[1].Other.ShouldBe(3);
    }

    [Fact]
    public void The_string_of_the_year_has_a_bead_for_each_week_with_school()
    {
        var weeks = Of(11, Saw(0, Alone), Saw(1, Alone, Representation.Picture), Saw(3, Alone), Saw(6, Alone)).WeeksFrom(Monday);
        weeks.Select(w => (w.Monday, w.Seen, w.Secured.Count)).ShouldBe([(Monday, 3, 1), (Monday.AddDays(7), 1, 0), (Monday.AddDays(14), 0, 0)]);
        Of(3).WeeksFrom(Monday.AddDays(-21)).Count.ShouldBe(1, "before the term there was no school");
    }

    [Fact]
    public void Strands_tell_secure_skills_from_those_under_way()
    {
        var strand = Of(10, Saw(0, Alone), Saw(1, Alone, Representation.Picture), Saw(3, Alone), Saw(4, NotYet, skill: Map[new("see.to-5")]))
            .ByStrand.Single(s => s.Strand.Id == "see");
        strand.Secure.ShouldBe([TwoWays.Id]);
        strand.Begun.ShouldBe([new("see.to-5")]);
    }

    [Fact]
    public void The_board_of_slips_says_who_shows_which_and_what_helps()
    {
        var naming = Map[new("numeral.name-10")];
        var mixed = naming.Slips.First(s => s.Confuses is not null);
        Observation[] seen =
        [
            Saw(1, NotYet, skill: naming, slip: mixed.Id, child: 1),
            Saw(2, NotYet, skill: naming, slip: mixed.Id, child: 1),
            Saw(2, NotYet, skill: naming, slip: mixed.Id, child: 2),
            Saw(2, NotYet, skill: Hidden, slip: Hidden.Slips[0].Id, child: 3),
        ];
        var board = SlipTally.Of(Class(5, seen), Library, 40);
        board.Select(b => b.Skill).ShouldBe([naming.Id, Hidden.Id]);
        board[0].Children.ShouldBe([new(new(1), 2, SchoolDay(2)), new(new(2), 1, SchoolDay(2))]);
        board[0]
            .Helps[0]
            .ShouldBe(
                $"Lay {mixed.Confuses!.Value.One} and {mixed.Confuses.Value.Other} beside each other: what is the same, what is different? Then sort a few of each."
            );
        board[0].Helps.ShouldContain(h => h.StartsWith("First make"));
        board[1].Helps[^1].ShouldContain("the easier way:");
        SlipTally.Of(Class(80, seen), Library, 40).ShouldBeEmpty();
    }

    [Fact]
    public void Who_is_secure_since_has_outgrown_a_slip()
    {
        var slip = TwoWays.Slips[0].Id;
        SlipTally
            .Of(Class(9, Saw(0, NotYet, slip: slip), Saw(1, Alone), Saw(2, Alone, Representation.Picture), Saw(4, Alone), Saw(5, Alone)), Library, 40)
            .ShouldBeEmpty();
    }

    [Fact]
    public void Look_again_lists_every_mark_in_doubt_the_most_doubtful_first()
    {
        var evidence = Class(
            60,
            Saw(0, Alone),
            Saw(1, Alone, Representation.Picture),
            Saw(3, Alone),
            Saw(0, Alone, child: 2),
            Saw(1, Alone, child: 2, shown: Representation.Picture),
            Saw(40, Alone, child: 2),
            Saw(45, NotYet, child: 2)
        );
        var due = evidence.LookAgain;
        due.Count.ShouldBe(2);
        evidence[due[0].Child, due[0].Skill].Belief.ShouldBeLessThanOrEqualTo(evidence[due[1].Child, due[1].Skill].Belief);
    }

    private static ChildPortrait Of(int today, params Observation[] seen) => new(Class(today, seen), Library, Child);

    private static ClassEvidence Class(int today, params Observation[] seen) =>
        new(Map, Calendar, EvidenceSettings.Default, [new(1), new(2), new(3)], seen.OrderBy(o => o.At), SchoolDay(today));
}
