using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Cupboard;
using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Planning;
using Fobble.Core.Sessions;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Approaches;

/// <summary>Each choice of a class's approach, followed where it matters.</summary>
public class ApproachTests
{
    private static readonly ActivityLibrary Library = ActivityLoader.Shipped(Map);
    private static readonly ChildId[] Children = [.. Enumerable.Range(1, 8).Select(i => new ChildId(i))];

    private static ClassEvidence Class(params IEnumerable<Observation> seen) => new(Map, Calendar, EvidenceSettings.Default, Children, seen, SchoolDay(30));

    private static IEnumerable<Observation> Alone(string skill, params IEnumerable<int> children) =>
        children.SelectMany(child =>
            Enumerable
                .Range(0, 4)
                .Select(day => Saw(20 + day, Support.Alone, Map[new(skill)].ShownIn[day % Map[new(skill)].ShownIn.Count], skill: Map[new(skill)], child: child))
        );

    private static WeekPlan Week(Approach approach, params IEnumerable<Observation> seen) =>
        WeekPlanner.Plan(new WeekRequest(Class(seen), SchoolDay(30), [], Library) { Approach = approach });

    [Fact]
    public void Unit_by_unit_the_plan_stays_with_a_strand_and_in_a_spiral_it_changes()
    {
        // Six weeks, each planned on what was taught in those before.
        int Changes(YearOrder order)
        {
            List<TaughtLesson> taught = [];
            foreach (var week in Enumerable.Range(6, 6))
            {
                taught.AddRange(
                    WeekPlanner
                        .Plan(new WeekRequest(Class(), SchoolDay(5 * week), taught, Library) { Approach = Approach.Usual with { Order = order } })
                        .Days.Select(d => new TaughtLesson(d.Day, d.Focus.Skill))
                );
            }

            var strands = taught.Select(l => Map[l.Skill].Strand).ToList();
            return strands.Zip(strands.Skip(1)).Count(p => p.First != p.Second);
        }

        Changes(YearOrder.UnitByUnit).ShouldBeLessThan(Changes(YearOrder.Spiral));
    }

    [Theory]
    [InlineData("numeral.name-5", SymbolsWhen.AfterObjects, -ApproachWeight.Signs)]
    [InlineData("numeral.name-5", SymbolsWhen.FromTheStart, ApproachWeight.Signs)]
    [InlineData("join.plus-sign", SymbolsWhen.AfterObjects, 0)]
    [InlineData("join.plus-sign", SymbolsWhen.FromTheStart, ApproachWeight.Signs)]
    [InlineData("see.to-3", SymbolsWhen.FromTheStart, 0)]
    public void Skills_in_signs_wait_or_come_sooner(string skill, SymbolsWhen when, int points) =>
        ApproachWeight.Of(Map[new(skill)], null, Approach.Usual with { Symbols = when }).ShouldBe(points);

    [Theory]
    [InlineData("count.say-20", NumberSize.SmallFirst, -ApproachWeight.Large)]
    [InlineData("count.say-20", NumberSize.LargeEarly, ApproachWeight.Large)]
    [InlineData("count.say-10", NumberSize.LargeEarly, 0)]
    public void Large_numbers_wait_or_come_sooner(string skill, NumberSize size, int points) =>
        ApproachWeight.Of(Map[new(skill)], null, Approach.Usual with { Sizes = size }).ShouldBe(points);

    [Fact]
    public void With_numerals_from_the_start_a_new_class_begins_with_them_sooner()
    {
        int First(SymbolsWhen when)
        {
            var days = Week(Approach.Usual with { Symbols = when }).Days.ToList();
            var at = days.FindIndex(d => Map[d.Focus.Skill].Strand == "numeral");
            return at < 0 ? days.Count : at;
        }

        First(SymbolsWhen.FromTheStart).ShouldBeLessThan(First(SymbolsWhen.AfterObjects));
    }

    [Fact]
    public void Where_large_numbers_come_early_the_larger_half_comes_up_about_twice_as_often()
    {
        double LargeShare(NumberSize size) =>
            Enumerable
                .Range(1, 2000)
                .Average(seed =>
                    ItemSetMaker
                        .Make(new(ItemKind.Numeral, new(1, 10), 1, ItemHistory.None, (ulong)seed) { Approach = Approach.Usual with { Sizes = size } })[0]
                        .Value >= 6
                        ? 1.0
                        : 0.0
                );

        // Five of ten at weight 1 and five at weight 2: two thirds, within four standard errors of 2000 draws.
        Math.Abs(LargeShare(NumberSize.LargeEarly) - (2.0 / 3)).ShouldBeLessThan(4 * Math.Sqrt(2.0 / 9 / 2000));
        Math.Abs(LargeShare(NumberSize.SmallFirst) - 0.5).ShouldBeLessThan(4 * Math.Sqrt(0.25 / 2000));
    }

    [Fact]
    public void Sheets_and_stories_go_to_twenty_where_large_numbers_come_early()
    {
        SheetOffer.Of(SheetKind.Stories).UsualIn(Approach.Usual).ShouldBe(new NumberRange(5, 10));
        SheetOffer.Of(SheetKind.Stories).UsualIn(Approach.Usual with { Sizes = NumberSize.LargeEarly }).ShouldBe(new NumberRange(5, 20));
        SheetOffer.Of(SheetKind.Dominoes).UsualIn(Approach.Usual with { Sizes = NumberSize.LargeEarly }).ShouldBe(new NumberRange(0, 6));
    }

    [Theory]
    [InlineData(SheetUse.None, true, null)]
    [InlineData(SheetUse.AsRecord, true, "Afterwards, as a record")]
    [InlineData(SheetUse.AsRecord, false, null)]
    [InlineData(SheetUse.EveryLesson, false, "In this lesson, for every child")]
    public void A_card_names_its_sheet_as_the_class_uses_sheets(SheetUse use, bool group, string? begins)
    {
        var card = Card(Approach.Usual with { Sheets = use }, group);
        if (begins is null)
        {
            card.Sheet.ShouldBeNull();
        }
        else
        {
            card.Sheet!.ShouldStartWith(begins);
        }
    }

    [Fact]
    public void A_card_says_when_signs_come_in()
    {
        Card(Approach.Usual, true).Signs!.ShouldStartWith("Numerals and signs only where it is sure");
        Card(Approach.Usual with { Symbols = SymbolsWhen.FromTheStart }, true).Signs!.ShouldStartWith("Lay numerals and signs beside");
    }

    [Fact]
    public void In_mixed_groups_one_who_has_it_sits_beside_those_who_nearly_do_and_never_two()
    {
        IEnumerable<Observation> Seen() =>
            Alone("see.to-3", 1, 2).Concat(Enumerable.Range(3, 6).Select(c => Saw(28, Support.Prompted, skill: Map[new("see.to-3")], child: c)));
        var same = Form(GroupWay.SameStep);
        var mixed = Form(GroupWay.Mixed);
        foreach (var group in same.Result.Groups.Where(g => g.Skill == new SkillId("see.to-3")))
        {
            group.Children.ShouldNotContain(c => c.Value <= 2);
        }

        mixed.Candidates.Single(c => c.Child == Children[0]).Worths[new("see.to-3")].Shows.ShouldBeTrue();
        mixed.Result.Groups.ShouldContain(g => g.Children.Any(c => c.Value <= 2));
        mixed.Result.Groups.ShouldAllBe(g => g.Children.Count(c => mixed.Candidates.Single(k => k.Child == c).Worths[g.Skill].Shows) <= 1);
        FormedGroup withOne = new(new("see.to-3"), 0, [new(1), new(3), new(4)]);
        Reasons.ForPlaced(new(1), withOne.Skill, mixed.Brief).ShouldStartWith("Has “see to three”, and can show it to those who nearly do");
        Reasons.ForGroup(withOne, mixed.Brief).ShouldStartWith("Two children are ready for “see to three”, and one beside them has it");
        GroupScore
            .Broken(mixed.Problem, [withOne with { Children = [new(1), new(2), new(3)] }], new(c => $"{c}", _ => "it", a => $"{a}", s => $"{s}"))
            .ShouldContain("two who have it in one group; one is enough to show it");

        (GroupingBrief Brief, IReadOnlyList<Candidate> Candidates, GroupingProblem Problem, GroupingResult Result) Form(GroupWay way)
        {
            GroupingBrief brief = new(Class(Seen()), SchoolDay(30), [new("see.to-3")], [], new Dictionary<ChildId, IReadOnlySet<int>>(), new HashSet<ChildId>())
            {
                Way = way,
                Teachable = new HashSet<SkillId> { new("see.to-3") },
            };
            var candidates = Candidates.From(brief);
            GroupingProblem problem = new(candidates, GroupSlot.InARow(2), new GroupRules(), []);
            return (brief, candidates, problem, Grouper.Form(problem));
        }
    }

    [Fact]
    public void What_nothing_serves_is_neither_planned_nor_grouped()
    {
        GroupingBrief brief = new(Class(), SchoolDay(30), [], [], new Dictionary<ChildId, IReadOnlySet<int>>(), new HashSet<ChildId>())
        {
            Teachable = new HashSet<SkillId>(),
        };
        Candidates.From(brief).ShouldAllBe(c => c.Worths.Count == 0);
    }

    [Theory]
    [InlineData(Strictness.Usual, 3, Strength.Secure)]
    [InlineData(Strictness.Strict, 2, Strength.Nearly)]
    [InlineData(Strictness.Light, 2, Strength.Secure)]
    [InlineData(Strictness.Usual, 2, Strength.Nearly)]
    public void What_counts_as_secure_is_the_classs_choice(Strictness strictness, int alone, Strength strength) =>
        Judged(
            EvidenceSettings.Default with
            {
                Strictness = strictness,
            },
            10,
            [.. Enumerable.Range(0, alone).Select(i => Saw(i * 2, Support.Alone, i % 2 == 0 ? Representation.Objects : Representation.Picture))]
        )
            .Strength.ShouldBe(strength);

    private static SessionCard Card(Approach approach, bool group) =>
        SessionCards.Make(
            new("compare.one-more-10"),
            Library[new("one-more-please")],
            group ? [Children[0], Children[1], Children[2]] : [],
            Class(),
            approach,
            ClassCares.None,
            7
        );
}
