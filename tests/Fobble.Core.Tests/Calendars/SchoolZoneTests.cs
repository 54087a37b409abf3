using Fobble.Core.Calendars;

namespace Fobble.Core.Tests.Calendars;

/// <summary>Zones and their changes of clocks are those of the IANA time zone data base, as the machine has it.</summary>
public class SchoolZoneTests
{
    private static readonly SchoolZone Sydney = SchoolZone.Named("Australia/Sydney")!;
    private static readonly SchoolZone London = SchoolZone.Named("Europe/London")!;

    private static readonly string[] Zones =
    [
        "Australia/Sydney",
        "Europe/London",
        "Pacific/Auckland",
        "America/Denver",
        "Asia/Kolkata",
        "Pacific/Apia",
        "America/St_Johns",
    ];

    // From fifty years of instants, to the minute, in zones with and without summer time, on both sides of the date line.
    private static readonly Gen<(SchoolZone Zone, DateTimeOffset At)> Any = Gen.Select(
        Gen.Int[0, 6].Select(i => SchoolZone.Named(Zones[i])!),
        Gen.Int[0, 50 * 365 * 24 * 60].Select(m => new DateTimeOffset(1990, 1, 1, 0, 0, 0, TimeSpan.Zero).AddMinutes(m))
    );

    [Fact]
    public void An_instant_lies_within_its_day() =>
        Any.Sample(
            (zone, at) =>
            {
                var day = zone.DayOf(at);
                at.ShouldBeGreaterThanOrEqualTo(zone.StartOf(day));
                at.ShouldBeLessThan(zone.StartOf(day.AddDays(1)));
            }
        );

    [Fact]
    public void A_time_on_a_day_is_an_instant_of_that_day() =>
        Any.Sample(
            (zone, at) =>
            {
                var local = zone.LocalOf(at);
                var back = zone.At(zone.DayOf(at), TimeOnly.FromDateTime(local.DateTime));
                zone.DayOf(back).ShouldBe(zone.DayOf(at));
                (at - back).Duration().ShouldBeLessThanOrEqualTo(TimeSpan.FromHours(1), "what comes twice is taken the first time");
            }
        );

    [Fact]
    public void Nine_in_the_morning_in_Sydney_is_that_morning_there_and_the_evening_before_in_London()
    {
        DateTimeOffset nine = new(2026, 11, 24, 22, 0, 0, TimeSpan.Zero);
        Sydney.DayOf(nine).ShouldBe(new DateOnly(2026, 11, 25));
        London.DayOf(nine).ShouldBe(new DateOnly(2026, 11, 24));
        Sydney.At(new(2026, 11, 25), new(9, 0)).ShouldBe(nine);
    }

    [Fact]
    public void The_offset_is_that_of_the_day_and_not_of_today()
    {
        London.At(new(2026, 7, 1), new(9, 0)).Offset.ShouldBe(TimeSpan.FromHours(1));
        London.At(new(2026, 12, 1), new(9, 0)).Offset.ShouldBe(TimeSpan.Zero);
    }

    /// <summary>In London clocks go from 1:00 to 2:00 on 29 March 2026, and from 2:00 back to 1:00 on 25 October 2026 (IANA).</summary>
    [Fact]
    public void What_a_change_of_clocks_leaves_out_is_an_hour_later_and_what_comes_twice_is_the_first()
    {
        London.At(new(2026, 3, 29), new(1, 30)).ShouldBe(new DateTimeOffset(2026, 3, 29, 1, 30, 0, TimeSpan.Zero));
        London.At(new(2026, 10, 25), new(1, 30)).ShouldBe(new DateTimeOffset(2026, 10, 25, 0, 30, 0, TimeSpan.Zero));
    }

    [Fact]
    public void A_zone_goes_by_the_name_that_browsers_know_and_an_unknown_one_is_none()
    {
        Sydney.Id.ShouldBe("Australia/Sydney");
        SchoolZone.Named("Nowhere/Atall").ShouldBeNull();
        SchoolZone.Named("").ShouldBeNull();
    }
}
