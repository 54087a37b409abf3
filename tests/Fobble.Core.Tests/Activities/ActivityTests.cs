using System.Text.RegularExpressions;
using Fobble.Core.Activities;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;

namespace Fobble.Core.Tests.Activities;

public class ActivityTests
{
    private static readonly SkillMap Map = SkillMapLoader.Shipped();
    private static readonly ActivityLibrary Library = ActivityLoader.Shipped(Map);

    [Fact]
    public void There_are_enough_of_each_kind()
    {
        Library.Activities.Count.ShouldBeGreaterThanOrEqualTo(14);
        Library.Activities.Count(a => a.Places.Contains(Place.Transition)).ShouldBeGreaterThanOrEqualTo(2);
        Library.Activities.Count(a => a.Places.Contains(Place.Choice)).ShouldBeGreaterThanOrEqualTo(3);
    }

    [Theory]
    [InlineData("torn-tickets", 1)]
    [InlineData("under-the-lid", 10)]
    [InlineData("three-wells", 11)]
    [InlineData("inside-the-ring", 12)]
    [InlineData("numbered-tins", 17)]
    [InlineData("one-more-please", 4)]
    [InlineData("load-the-wagon", 20)]
    public void The_named_ones_cover_their_part_of_the_job(string id, int part) => Library[new(id)].Parts.ShouldContain(part);

    [Fact]
    public void Every_skill_has_something_for_the_carpet_and_for_a_group() =>
        Map.Skills.ShouldAllBe(s => Library.For(s.Id, Place.Carpet).Count > 0 && Library.For(s.Id, Place.Group).Count > 0);

    [Fact]
    public void Where_the_point_is_to_see_the_adult_says_no_counting_word()
    {
        var counting = new Regex($@"\b(count|how many|{string.Join('|', Enumerable.Range(2, 19).Select(NumberWords.Of))})\b", RegexOptions.IgnoreCase);
        var quiet = Library.Activities.Where(a => a.Quiet).ToList();
        quiet.ShouldNotBeEmpty();
        quiet.SelectMany(a => a.Say).Where(line => counting.IsMatch(line)).ShouldBeEmpty();
    }

    [Theory]
    [InlineData("n * (n + 1) / 2", 10, 4, 55)]
    [InlineData("n * (n + 1) / 2", 5, 4, 15)]
    [InlineData("children * n", 10, 3, 30)]
    [InlineData("pairs", 1, 5, 3)]
    [InlineData("children / 2", 1, 5, 3)]
    public void Amounts_follow_their_formula(string formula, int n, int children, int expected) => new Amount(formula).For(n, children).ShouldBe(expected);

    [Theory]
    [InlineData("n +")]
    [InlineData("tins")]
    [InlineData("n - 5")]
    public void A_formula_that_comes_to_nothing_is_refused(string formula) => Should.Throw<FormatException>(() => new Amount(formula));

    [Fact]
    public void Numbered_tins_to_ten_need_fifty_five_things()
    {
        // n(n+1)/2, as for any arithmetic series.
        var tins = Library[new("numbered-tins")];
        tins.Materials.Single(m => m.Item.StartsWith("things", StringComparison.Ordinal)).Amount.For(10, 4).ShouldBe(Enumerable.Range(1, 10).Sum());
    }

    [Fact]
    public void A_skill_without_an_activity_is_named() =>
        Should.Throw<FormatException>(() => new ActivityLibrary(Map, [.. Library.Activities.Where(a => a.Id.Value != "which-wagon")])).Message.ShouldContain("compare.numerals-10 has no activity for Group");

    [Fact]
    public void Every_risk_has_a_caution() => Enum.GetValues<Risk>().Select(Cautions.For).ShouldAllBe(c => c.Length > 20);
}
