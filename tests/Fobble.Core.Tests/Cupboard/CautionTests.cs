using Fobble.Core.Cupboard;

namespace Fobble.Core.Tests.Cupboard;

/// <summary>Rule R14: limits of 16 CFR 1501.4 and 1500.18(a)(17); allergens of Regulation (EU) 1169/2011, annex II.</summary>
public class CautionTests
{
    private static readonly IReadOnlySet<Allergen> NoAllergies = new HashSet<Allergen>();

    internal static CupboardItem Thing(
        double[] size,
        ItemShape shape = ItemShape.Flat,
        string id = "thing",
        Purpose purpose = Purpose.Counting,
        string colour = "blue"
    ) => new(new(id), id, purpose, size, shape, colour, "wood", [], [], false, 0);

    [Theory]
    [InlineData(ItemShape.Flat, 31.7, 31.7, 4, true)]
    [InlineData(ItemShape.Flat, 31.8, 31.8, 4, false)]
    [InlineData(ItemShape.Ball, 31.7, 31.7, 31.7, true)]
    [InlineData(ItemShape.Ball, 31.8, 31.8, 31.8, false)]
    [InlineData(ItemShape.Cube, 20, 20, 20, true)] // corner to corner 28.3
    [InlineData(ItemShape.Cube, 23, 23, 23, false)] // corner to corner 32.5
    [InlineData(ItemShape.Long, 57.1, 20, 20, true)]
    [InlineData(ItemShape.Long, 57.2, 20, 20, false)]
    public void What_fits_the_cylinder_is_a_small_part(ItemShape shape, double a, double b, double c, bool small) =>
        Cautions.IsSmallPart(Thing([a, b, c], shape)).ShouldBe(small);

    [Theory]
    [InlineData(44.3, true)]
    [InlineData(44.4, false)]
    public void A_ball_below_the_limit_is_a_small_ball(double across, bool small) =>
        Cautions.IsSmallBall(Thing([across, across, across], ItemShape.Ball)).ShouldBe(small);

    [Fact]
    public void A_larger_thing_is_never_a_small_part_where_a_smaller_one_is_not() =>
        Gen.Select(Gen.Double[1, 80], Gen.Double[1, 80], Gen.Double[1, 80], Gen.Enum<ItemShape>(), Gen.Double[1, 3])
            .Sample(
                (a, b, c, shape, factor) =>
                {
                    if (Cautions.IsSmallPart(Thing([a * factor, b * factor, c * factor], shape)))
                    {
                        Cautions.IsSmallPart(Thing([a, b, c], shape)).ShouldBeTrue();
                    }
                }
            );

    [Fact]
    public void Allergies_are_warned_of_by_the_classs_list_and_only_then()
    {
        var pasta = CupboardCatalogue.Shipped[new("pasta-shells")];
        var wheat = new ClassCares(false, new HashSet<Allergen> { Allergen.Gluten });
        Cautions.For([pasta], wheat).ShouldContain(c => c.Text.Contains("wheat", StringComparison.Ordinal) && c.Items.Contains("pasta shells"));
        Cautions.For([pasta], new(true, NoAllergies)).ShouldNotContain(c => c.Text.Contains("wheat", StringComparison.Ordinal));
        Cautions.For([CupboardCatalogue.Shipped[new("bell")]], wheat).ShouldBeEmpty();
    }

    [Fact]
    public void What_is_dangerous_for_anyone_is_always_said() =>
        Cautions
            .For(CupboardCatalogue.Shipped.Items, ClassCares.None)
            .Count.ShouldBe(CupboardCatalogue.Shipped.Items.SelectMany(i => i.Hazards).Distinct().Count());

    [Fact]
    public void Every_hazard_has_words_and_small_balls_are_not_named_twice()
    {
        foreach (var hazard in Enum.GetValues<Hazard>())
        {
            Cautions.For([Thing([]) with { Hazards = [hazard] }], ClassCares.None).Single().Text.Length.ShouldBeGreaterThan(15);
        }

        Cautions.For([Thing([20, 20, 20], ItemShape.Ball)], new(true, NoAllergies)).Single().Text.ShouldContain("Small balls");
    }
}
