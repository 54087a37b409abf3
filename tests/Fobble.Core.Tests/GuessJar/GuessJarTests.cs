using Fobble.Core.GuessJar;
using Fobble.Core.Numbers;

namespace Fobble.Core.Tests.GuessJar;

/// <summary>Rule R8. Packing shares are published; how amounts grow and when a jar rests is common practice.</summary>
public class GuessJarTests
{
    private static readonly NumberRange Wide = new(10, 300);

    [Fact]
    public void Shaken_balls_take_up_the_published_share()
    {
        // Scott and Kilgour 1969: 0.6366 ± 0.0004, far from any wall: balls of a millimetre in a litre.
        var thing = JarFill.VolumeOf(ThingShape.Ball, 1, 1);
        var holds = JarFill.Of(1000, thing, ThingShape.Ball);
        (holds.From * thing / 1000).ShouldBe(0.60, 0.001);
        (holds.To * thing / 1000).ShouldBe(0.6366, 0.001);
        holds.Likely.ShouldBeInRange(holds.From, holds.To);
    }

    [Fact]
    public void Large_things_near_a_wall_pack_worse_and_the_next_amount_fits_the_jar()
    {
        // Dixon 1988: voids of 0.528 where a ball is half as wide as the cylinder, 0.403 where it is a twentieth.
        JarFill.NearWalls(Cylinder(2), JarFill.VolumeOf(ThingShape.Ball, 10, 10)).ShouldBe((1 - 0.528) / 0.6, 1e-3);
        JarFill.NearWalls(Cylinder(20), JarFill.VolumeOf(ThingShape.Ball, 10, 10)).ShouldBe((1 - 0.4035) / 0.6, 1e-3);

        var holds = JarFill.Of(500, JarFill.VolumeOf(ThingShape.Ball, 45, 45), ThingShape.Ball);
        holds.Likely.ShouldBeInRange(4, 5);
        var next = NextAmount.After(null, Wide, tiny: false, countedNineties: false, holds.From);
        next.Amount.ShouldBe(holds.From);
        next.Reason.ShouldContain("a larger jar or smaller things");

        // In millilitres, of a cylinder as wide as so many balls of 10 mm, and as high.
        static double Cylinder(double balls) => Math.PI / 4 * Math.Pow(balls, 3);
    }

    [Fact]
    public void Packing_grows_with_room() =>
        Gen.Select(Gen.Double[5, 30], Gen.Double[500, 5000])
            .Sample(
                (across, jar) =>
                {
                    var thing = JarFill.VolumeOf(ThingShape.Ball, across, across);
                    JarFill.NearWalls(jar, thing).ShouldBeInRange(0.4, 1);
                    JarFill.NearWalls(jar * 1.5, thing).ShouldBeGreaterThanOrEqualTo(JarFill.NearWalls(jar, thing));
                }
            );

    [Fact]
    public void Discs_pack_closer_than_balls_and_cubes_looser()
    {
        // Donev and others 2004: 0.68 for lens-shaped discs; cubes 0.57 (from memory).
        PackingShare.Of(ThingShape.Disc).Shaken.ShouldBe(0.68);
        PackingShare.Of(ThingShape.Cube).Shaken.ShouldBe(0.57);
        Enum.GetValues<ThingShape>().ShouldAllBe(s => PackingShare.Of(s).Poured < PackingShare.Of(s).Shaken);
    }

    [Fact]
    public void A_jars_own_counts_correct_what_it_is_said_to_hold()
    {
        JarFill.Correction([new(100, 80), new(100, 125)]).ShouldBe(1, 1e-12);
        JarFill.Of(500, 2, ThingShape.Cube, [new(137.5 * JarFill.NearWalls(500, 2), 120)]).Likely.ShouldBe(120);
        JarFill.Of(500, 2, ThingShape.Cube, [new(137, 120)]).To.ShouldBeLessThan(JarFill.Of(500, 2, ThingShape.Cube).To);
    }

    [Theory]
    [InlineData(ThingShape.Ball, 20, 0, 4.18879)]
    [InlineData(ThingShape.Cube, 20, 0, 8)]
    [InlineData(ThingShape.Disc, 14, 7, 0.71838)]
    public void Volumes_follow_from_what_can_be_measured(ThingShape shape, double across, double thick, double millilitres) =>
        JarFill.VolumeOf(shape, across, thick).ShouldBe(millilitres, 1e-4);

    [Fact]
    public void An_amount_grows_by_a_tenth_or_five_whichever_is_more_and_stays_in_range() =>
        Gen.Select(Gen.Int[10, 300], Gen.Bool, Gen.Bool)
            .Sample(
                (last, tiny, counted) =>
                {
                    var next = NextAmount.After(last, Wide, tiny, counted);
                    next.Amount.ShouldBeInRange(Wide.Low, Wide.High);
                    if (!tiny || counted || last < 90)
                    {
                        (next.Amount - last).ShouldBeLessThanOrEqualTo(Math.Max(5, last / 10));
                    }

                    (tiny && !counted && last < 100).ShouldBe(tiny && !counted && last < 100 && next.Amount < 100);
                    next.Reason.ShouldStartWith($"{next.Amount}");
                }
            );

    [Theory]
    [InlineData(20, false, false, 25)]
    [InlineData(80, false, false, 88)]
    [InlineData(98, true, false, 98)]
    [InlineData(98, true, true, 107)]
    [InlineData(98, false, false, 107)]
    [InlineData(295, false, true, 300)]
    public void The_next_amount_is_the_one_of_common_practice(int last, bool tiny, bool counted, int next) =>
        NextAmount.After(last, Wide, tiny, counted).Amount.ShouldBe(next);

    [Fact]
    public void The_first_jar_begins_where_the_range_does() => NextAmount.After(null, Wide, true, false).Amount.ShouldBe(10);

    [Fact]
    public void Three_weeks_of_fewer_guesses_propose_a_rest()
    {
        JarRest
            .Proposal([20, 24, 22, 19, 12])
            .ShouldBe("Fewer children guessed for three weeks running. Put the jar away for about four weeks; it comes back as news.");
        JarRest.Proposal([24, 22, 19, 20]).ShouldBeNull();
        JarRest.Proposal([]).ShouldBeNull();
    }

    [Fact]
    public void The_nearest_are_named_all_of_them_in_a_tie()
    {
        Guesses.Nearest(30, [("Wren", 25), ("Kofi", 35), ("Ilse", 50)]).ShouldBe(["Wren", "Kofi"]);
        Guesses.Nearest(30, [("Wren", 25), ("Kofi", 31)]).ShouldBe(["Kofi"]);
        Guesses.Nearest<string>(30, []).ShouldBeEmpty();
    }

    [Fact]
    public void An_error_has_a_direction_and_a_size()
    {
        new GuessError(15, 20).Signed.ShouldBe(-0.25);
        new GuessError(25, 20).Signed.ShouldBe(0.25);
        new GuessError(15, 20).Absolute.ShouldBe(0.25);
    }

    [Fact]
    public void A_trend_needs_three_guesses_and_is_the_slope_of_how_far_off_they_were()
    {
        GuessError[] closer = [new(10, 20), new(28, 20), new(17, 20), new(21, 20)];
        Guesses.Trend(closer)!.Value.ShouldBe(-0.16, 1e-9);
        Guesses.TrendInWords(closer).ShouldBe("Guesses come closer from jar to jar.");
        Guesses.TrendInWords([.. closer.Reverse()]).ShouldBe("Guesses go further off from jar to jar.");
        Guesses.TrendInWords([new(10, 20), new(30, 20), new(10, 20)]).ShouldBe("Guesses stay about as close.");
        Guesses.Trend([.. closer.Take(2)]).ShouldBeNull();
    }

    [Theory]
    [InlineData(0, 1)]
    [InlineData(100, 0)]
    [InlineData(1, 2)]
    public void Volumes_that_cannot_be_are_refused(double jar, double thing) =>
        Should.Throw<ArgumentOutOfRangeException>(() => JarFill.Of(jar, thing, ThingShape.Ball));
}
