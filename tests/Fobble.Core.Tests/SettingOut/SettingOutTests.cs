using CsCheck;
using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Cupboard;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.SettingOut;
using Fobble.Core.Sheets;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.SettingOut;

/// <summary>Rule R14 over a day: what is out at one moment, what is short then, what has to be printed.</summary>
public class SettingOutTests
{
    private static readonly ActivityLibrary Library = ActivityLoader.Shipped(Map);
    private static readonly DateOnly Day = SchoolDay(10);

    private static Use At(
        string activity,
        int hour,
        int minute,
        int children = 4,
        int high = 5,
        int minutes = 15,
        bool lesson = false,
        params string[] names
    ) =>
        new(
            Day,
            new(hour, minute),
            minutes,
            "Table",
            "Small group",
            Library[new(activity)],
            Library[new(activity)].Skills[0] with
            {
                Range = new(1, high),
            },
            children,
            1,
            names,
            lesson
        );

    private static SetOutPlan Plan(IReadOnlyList<Use> uses, IReadOnlyList<StockLine>? stock = null, ClassCares? cares = null, Approach? approach = null) =>
        SettingOutRules.Plan(uses, stock ?? [], cares ?? ClassCares.None, approach ?? Approach.Usual with { Sheets = SheetUse.None });

    private static StockLine Own(string item, int count) => new(CupboardCatalogue.Shipped[new(item)], count);

    [Fact]
    public void What_is_needed_one_after_the_other_is_fetched_once_and_at_the_same_time_twice()
    {
        int AtOnce(params Use[] uses) => Plan(uses).Lines.Single(l => l.Item.Id.Value == "counters-blue").AtOnce;
        AtOnce(At("under-the-lid", 9, 0), At("under-the-lid", 10, 0)).ShouldBe(5);
        AtOnce(At("under-the-lid", 9, 0), At("under-the-lid", 9, 10)).ShouldBe(10);
        AtOnce(At("under-the-lid", 9, 0), At("under-the-lid", 9, 15)).ShouldBe(5);
    }

    [Fact]
    public void Two_groups_clash_where_the_cupboard_has_enough_for_one_only()
    {
        Core.Skills.SkillId[] skills = [new("a"), new("b")];
        IReadOnlySet<(Core.Skills.SkillId, Core.Skills.SkillId)> With(int counters) =>
            Core.SettingOut.AtOnce.Clashes(
                [.. skills.Select(s => (s, At("under-the-lid", 9, 0)))],
                [.. Library[new("under-the-lid")].Materials.Select(m => new StockLine(m.Item, m.Item.Id.Value == "counters-blue" ? counters : 50))]
            );
        With(10).ShouldBeEmpty();
        With(9).ShouldBe([(skills[0], skills[0]), (skills[0], skills[1]), (skills[1], skills[1])], ignoreOrder: true);

        // Short for one group already: that is no question of the time.
        With(3).ShouldBeEmpty();
    }

    /// <summary>Against the plain definition: all that both ask for, met from one cupboard, for each two by itself.</summary>
    [Fact]
    public void Which_groups_clash_is_what_setting_out_both_says() =>
        Gen.Select(
                Gen.Int[0, 4].Select(n => n * 7).Array[CupboardCatalogue.Shipped.Items.Count],
                Gen.Select(Gen.Int[0, Library.Activities.Count - 1], Gen.Int[1, 8]).Array[1, 14]
            )
            .Sample(
                (counts, chosen) =>
                {
                    List<StockLine> stock = [.. CupboardCatalogue.Shipped.Items.Select((item, i) => new StockLine(item, counts[i]))];
                    var groups = chosen
                        .Select(
                            (c, i) =>
                                (
                                    Skill: new Core.Skills.SkillId($"skill-{i:00}"),
                                    Use: At(Library.Activities[c.Item1].Id.Value, 9, 0) with
                                    {
                                        Children = c.Item2,
                                    }
                                )
                        )
                        .ToList();
                    bool Enough(params Use[] uses)
                    {
                        Supply supply = new(stock);
                        return uses.SelectMany(u => u.Activity.Materials.Where(m => m.Print is null && !m.Item.UsedUp).Select(m => (m, Amount: u.AmountOf(m))))
                            .GroupBy(p => p.m.Item.Id)
                            .All(g => supply.Meet(new(g.First().m.Item, g.Sum(p => p.Amount), g.Any(p => p.m.Alike))).StillShort == 0);
                    }

                    var expected =
                        from a in groups
                        from b in groups
                        where string.CompareOrdinal(a.Skill.Value, b.Skill.Value) <= 0 && Enough(a.Use) && Enough(b.Use) && !Enough(a.Use, b.Use)
                        select (a.Skill, b.Skill);
                    Core.SettingOut.AtOnce.Clashes(groups, stock).ShouldBe(expected, ignoreOrder: true);
                },
                iter: 300
            );

    [Fact]
    public void What_is_used_up_adds_up_over_the_day()
    {
        var plan = Plan([At("three-ways-to-count", 9, 0), At("three-ways-to-count", 11, 0, children: 3)]);
        plan.Lines.Single(l => l.Item.Id.Value == "paper").AtOnce.ShouldBe(7);
        plan.Lines.Single(l => l.Item.Id.Value == "pencils").AtOnce.ShouldBe(4);
    }

    [Fact]
    public void The_worst_moment_says_what_is_short_and_what_stands_in()
    {
        var plan = Plan(
            [At("under-the-lid", 9, 0), At("under-the-lid", 9, 10)],
            [Own("counters-blue", 6), Own("stones", 20), Own("cloths", 1), Own("lids", 1)]
        );
        plan.Lines.Single(l => l.Item.Id.Value == "counters-blue").Supplied.InWords().ShouldBe("Short by 4. Add 4 smooth stones instead.");
        plan.Lines.Single(l => l.Item.Id.Value == "cloths").Supplied.InWords().ShouldBe("Short by 1. Add 1 large lids instead.");
        plan.Together.Single().Select(u => u.Start).ShouldBe([new(9, 0), new(9, 10)]);
    }

    [Fact]
    public void Numbered_tins_to_ten_take_fifty_five_counters() =>
        Plan([At("numbered-tins", 9, 0, high: 10)]).Lines.Single(l => l.Item.Purpose == Purpose.Counting).AtOnce.ShouldBe(55);

    [Fact]
    public void Cautions_are_those_of_the_class_and_of_what_stands_in_as_well()
    {
        IReadOnlyList<Use> uses = [At("under-the-lid", 9, 0)];
        Plan(uses, [Own("counters-blue", 20)]).Cautions.ShouldBeEmpty();
        ClassCares wheat = new(false, new HashSet<Allergen> { Allergen.Gluten });
        Plan(uses, [Own("counters-blue", 20)], wheat).Cautions.ShouldBeEmpty();
        Plan(uses, [Own("pasta-shells", 20)], wheat).Cautions.ShouldContain(c => c.Name == "Wheat and gluten");
    }

    [Fact]
    public void Frames_that_are_short_are_printed_and_those_that_are_owned_are_not()
    {
        IReadOnlyList<Use> uses = [At("load-the-wagon", 9, 0, high: 10)];
        var print = Plan(uses).Prints.Single();
        (print.Sheet, print.Copies).ShouldBe((new SheetChoice(SheetKind.TenFrames, SheetVariant.Blank), 4));
        Plan(uses, [Own("ten-frames", 4)]).Prints.ShouldBeEmpty();
    }

    [Theory]
    [InlineData(SheetUse.None, 0)]
    [InlineData(SheetUse.AsRecord, 1)]
    [InlineData(SheetUse.EveryLesson, 2)]
    public void Sheets_are_in_the_pack_as_the_class_uses_them(SheetUse use, int sheets) =>
        Plan(
            [At("under-the-lid", 9, 0, lesson: true), At("under-the-lid", 9, 30, lesson: true, names: ["Amara N.", "Bo T.", "Chen L."])],
            [Own("counters-blue", 50), Own("cloths", 5)],
            approach: Approach.Usual with
            {
                Sheets = use,
            }
        )
            .Prints.Count(p => p.EachChild)
            .ShouldBe(sheets);

    [Fact]
    public void Cards_that_are_wanted_twice_with_the_same_numbers_are_printed_once()
    {
        // Torn tickets are what the game is played with, and the sheet of the lesson as well.
        Use tickets = At("torn-tickets", 9, 0, lesson: true, names: ["Amara N.", "Bo T."]);
        Plan([tickets, tickets with { Start = new(10, 0) }], approach: Approach.Usual).Prints.Count(p => p.Sheet.Kind == SheetKind.HalfCards).ShouldBe(1);
    }

    [Fact]
    public void Blank_frames_are_the_same_whatever_numbers_are_laid_on_them()
    {
        var print = Plan([At("load-the-wagon", 9, 0, children: 3, high: 5), At("load-the-wagon", 10, 0, children: 5, high: 10)]).Prints.Single();
        print.Copies.ShouldBe(5);
    }

    [Fact]
    public void The_pack_holds_every_page_and_each_childs_own()
    {
        var plan = Plan(
            [At("load-the-wagon", 9, 0, high: 10), At("under-the-lid", 9, 30, lesson: true, names: ["Amara N.", "Bo T."])],
            [Own("counters-blue", 50), Own("cloths", 5)],
            approach: Approach.Usual
        );
        var pack = Pack.Make(plan, "Pack", PaperSize.A4, Approach.Usual, name => new(name, ItemHistory.None), 7, Day);
        pack.Pages.Count.ShouldBe(
            plan.Prints.Sum(p => SheetMaker.Make(Pack.RequestFor(p, PaperSize.A4, Approach.Usual, name => new(name, ItemHistory.None), 7, Day)).Pages.Count)
        );
        pack.Pages.Count.ShouldBeGreaterThanOrEqualTo(3);
    }

    [Fact]
    public void Whatever_an_activity_prints_can_be_made_for_any_of_its_skills_and_any_number_of_children()
    {
        foreach (var activity in Library.Activities)
        {
            foreach (var skill in activity.Skills)
            {
                foreach (var children in (int[])[1, 4, 30])
                {
                    Use use = new(Day, new(9, 0), 10, "Table", "Small group", activity, skill, children, 1, ["Amara N."], true);
                    foreach (
                        var sheet in activity.Materials.Select(m => m.Print).OfType<SheetChoice>().Select(s => (s, false)).Append((activity.SheetPrint, true))
                    )
                    {
                        SheetMaker
                            .Make(
                                Pack.RequestFor(
                                    new(sheet.Item1, use, children, sheet.Item2),
                                    PaperSize.A4,
                                    Approach.Usual,
                                    name => new(name, ItemHistory.None),
                                    1,
                                    Day
                                )
                            )
                            .Pages.Count.ShouldBeGreaterThan(0, $"{activity.Id} {skill.Skill}");
                    }
                }
            }
        }
    }
}
