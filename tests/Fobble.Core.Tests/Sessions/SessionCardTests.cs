using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Cupboard;
using Fobble.Core.Evidence;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Core.Sessions;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Sessions;

public class SessionCardTests
{
    private static readonly ActivityLibrary Library = ActivityLoader.Shipped(Map);
    private static readonly ChildId[] Three = [new(1), new(2), new(3)];

    [Fact]
    public void Every_skill_has_a_whole_card_for_a_group_and_for_the_carpet()
    {
        foreach (var skill in Map.Skills)
        {
            foreach (var activity in Library.For(skill.Id, Place.Group).Concat(Library.For(skill.Id, Place.Carpet)))
            {
                var card = SessionCards.Make(skill.Id, activity, Three, Class(), Approach.Usual, ClassCares.None, 7);
                card.Items.Count.ShouldBe(6);
                card.Items.ShouldAllBe(i => i.Ask.Length > 0 && i.Answer.Length > 0);
                card.SetOut.ShouldAllBe(s => s.Amount > 0);
                card.LookFor.ShouldContain(l => l.SlipId == null);
                card.LookFor.ShouldContain(l => l.SlipId != null);
            }
        }
    }

    [Fact]
    public void Amounts_fit_the_children_and_numbers_in_use()
    {
        var card = SessionCards.Make(new("compare.one-more-5"), Library[new("one-more-please")], Three, Class(), Approach.Usual, ClassCares.None, 7);
        card.SetOut[0].Amount.ShouldBe(3 * (4 + 1));
    }

    [Fact]
    public void Small_parts_are_warned_of_where_someone_mouths_and_only_there()
    {
        SessionCard For(ClassCares cares) =>
            SessionCards.Make(new("compare.one-more-5"), Library[new("one-more-please")], Three, Class(), Approach.Usual, cares, 7);
        For(ClassCares.None).Cautions.ShouldBeEmpty();
        For(new(true, new HashSet<Allergen>())).Cautions.Single().Items.ShouldBe(["two-sided counters"]);
    }

    [Fact]
    public void Cases_missed_lately_are_remembered_and_those_of_long_ago_are_marked_so()
    {
        var hidden = Map[new("bond.hidden-5")];
        var history = SessionCards.HistoryOf(
            Three,
            hidden.Id,
            Class(Saw(0, Support.Alone, skill: hidden, numbers: "5=1+4"), Saw(28, Support.NotYet, skill: hidden, numbers: "5=2+3", slip: "gives-seen"))
        );
        history.MissedLately.ShouldBe(["5=2+3"]);
        history.NotSeenForLong.ShouldBe(["5=1+4"]);
    }

    [Fact]
    public void A_sheet_for_no_one_skill_rests_on_a_childs_whole_record_and_on_nobody_elses()
    {
        var (hidden, name) = (Map[new("bond.hidden-5")], Map[new("numeral.name-10")]);
        var evidence = Class(
            Saw(28, Support.NotYet, skill: hidden, numbers: "5=2+3"),
            Saw(29, Support.Together, skill: name, numbers: "numeral:6"),
            Saw(29, Support.Alone, skill: name, numbers: "numeral:4")
        );
        SessionCards.HistoryOf(new ChildId(1), evidence).MissedLately.ShouldBe(["5=2+3", "numeral:6"], ignoreOrder: true);
        SessionCards.HistoryOf(new ChildId(2), evidence).MissedLately.ShouldBeEmpty();
    }

    [Fact]
    public void Frames_on_a_card_are_filled_as_the_class_fills_them()
    {
        var skill = Map.Skills.First(s => Library.For(s.Id, Place.Group).Any(a => a.For(s.Id)!.Items == ItemKind.Frame));
        var activity = Library.For(skill.Id, Place.Group).First(a => a.For(skill.Id)!.Items == ItemKind.Frame);
        double Wide(FrameDirection direction) =>
            SessionCards.Make(skill.Id, activity, Three, Class(), new(new(Direction: direction), Wording.Usual), ClassCares.None, 7).Items[0].Picture!.Width;
        Wide(FrameDirection.Lying).ShouldBeGreaterThan(Wide(FrameDirection.Upright));
    }

    [Fact]
    public void A_mix_up_that_was_seen_becomes_a_distractor()
    {
        var name = Map[new("numeral.name-10")];
        var evidence = Class(Saw(20, Support.Prompted, skill: name, slip: "three-eight"));
        SessionCards.HistoryOf(Three, name.Id, evidence).OwnConfusions.ShouldBe([new(3, 8)]);
        SessionCards
            .Make(name.Id, Library[new("torn-tickets")], Three, evidence, Approach.Usual, ClassCares.None, 3)
            .Items.Where(i => i.Value == 3)
            .ShouldAllBe(i => i.Distractors[0] == 8);
    }

    [Fact]
    public void An_activity_that_does_not_serve_the_skill_is_refused() =>
        Should.Throw<ArgumentException>(() =>
            SessionCards.Make(new("see.to-3"), Library[new("stamp-desk")], Three, Class(), Approach.Usual, ClassCares.None, 1)
        );

    private static ClassEvidence Class(params Observation[] seen) => new(Map, Calendar, EvidenceSettings.Default, Three, seen, SchoolDay(30));
}
