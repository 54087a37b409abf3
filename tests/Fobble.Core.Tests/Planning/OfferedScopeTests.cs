using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Core.Standards;
using static Fobble.Core.Tests.Evidence.Record;
using static Fobble.Core.Tests.Planning.PlanWorld;

namespace Fobble.Core.Tests.Planning;

/// <summary>What a class without a plan is offered fits, wherever the school stands, whenever it begins, and however few its lessons are.</summary>
public class OfferedScopeTests
{
    public static TheoryData<string, string> Beginnings =>
        [
            .. SchoolLocale.All.SelectMany(locale =>
                new[] { "2026-09-09", "2026-11-27", "2027-01-04", "2027-03-02", "2027-05-20" }
                    .Select(day => (locale, day))
                    .Select(p => new TheoryDataRow<string, string>(p.locale, p.day))
            ),
        ];

    [Theory]
    [MemberData(nameof(Beginnings))]
    public void It_fits_on_any_day_of_the_year_at_any_age(string locale, string day)
    {
        var today = DateOnly.Parse(day, null);
        SchoolCalendar calendar = new(UsualYear.Terms(locale, today), UsualYear.Closures(locale, today));
        var from = calendar.OnOrAfter(today)!.Value;
        foreach (var age in new double?[] { null, 4.4, 5.6 })
        {
            foreach (var lessons in new[] { 1, 5 })
            {
                var asked = AskedFor.Of(Map, locale, age);
                var request = Request(calendar, from, lessons);
                var offered = OfferedScope.Of(PlanAsk.Usual, request, asked);
                var kept = request with { Skills = offered.Ask.SkillsOn(Map, []), Settings = offered.Ask.SettingsFor(Approach.Usual) };
                var fit = Fit.Of(YearScope.Of(kept).Problem);
                if (offered.Sentence.Contains("too short for a whole skill", StringComparison.Ordinal))
                {
                    fit.Room.ShouldBeLessThan(4);
                    continue;
                }

                fit.Fits.ShouldBeTrue($"{fit.Sentence} {offered.Sentence}");
                kept.Skills.Overlaps(offered.Waiting).ShouldBeFalse();

                // What the standards ask for waits only where nothing else is left.
                if (asked is not null && offered.Waiting.Any(asked.Skills.Contains))
                {
                    kept.Skills.Except(asked.Skills).Sum(s => Map[s].Lessons).ShouldBeLessThan(4, offered.Sentence);
                    offered.Sentence.ShouldContain("not all of it has room");
                }

                // No more than must: whatever waits and could be begun would not fit as well.
                foreach (var next in offered.Waiting.Where(s => Map.AllNeeds(s).All(kept.Skills.Contains)))
                {
                    Fit.Of(YearScope.Of(kept with { Skills = kept.Skills.Append(next).ToHashSet() }).Problem).Over.ShouldBeGreaterThan(0, $"{next}");
                }
            }
        }
    }

    [Fact]
    public void Where_there_is_room_for_all_nothing_waits()
    {
        var year = Year();
        var request = Request(year, Begins, 5) with { Skills = UpTo(Season.Autumn) };
        var offered = OfferedScope.Of(PlanAsk.Usual with { UpTo = Season.Autumn }, request, null);
        offered.Waiting.ShouldBeEmpty();
        offered.Ask.Dropped.ShouldBeEmpty();
        offered.Sentence.ShouldContain("in the order in which they build on each other");
    }

    [Theory]
    [InlineData("en-GB", 4.5, "the early learning goals ask for")]
    [InlineData("en-GB", 5.2, "the curriculum of year 1 asks for")]
    [InlineData("en-US", 5.2, "the standards of grade 1 ask for")]
    [InlineData("en-US", null, "the standards of kindergarten ask for")]
    public void Standards_are_those_of_the_place_and_the_age(string locale, double? age, string name)
    {
        var asked = AskedFor.Of(Map, locale, age)!;
        asked.Name.ShouldBe(name);
        asked.Skills.ShouldNotBeEmpty();
        asked.Skills.ShouldAllBe(s => Map.AllNeeds(s).All(asked.Skills.Contains));
    }

    [Fact]
    public void The_age_of_a_class_is_that_of_its_middle_child()
    {
        AskedFor.AgeOf([null, null], new(2026, 9, 1)).ShouldBeNull();
        AskedFor.AgeOf([new(2021, 9, 1), null, new(2022, 3, 1), new(2022, 8, 31)], new(2026, 9, 1))!.Value.ShouldBe(4.5, 0.01);
    }

    [Fact]
    public void Where_no_standards_are_shipped_none_are_claimed() => AskedFor.Of(Map, "en-NZ", 5).ShouldBeNull();

    private static YearRequest Request(SchoolCalendar calendar, DateOnly from, int lessonsAWeek) =>
        new(
            new ClassEvidence(Map, calendar, EvidenceSettings.Default, Ten, [], from),
            new(calendar, [.. EveryMorning.Where(s => s.Kind != SlotKind.Carpet || (int)s.Weekday <= lessonsAWeek)]),
            from,
            calendar.YearEnds(from),
            [],
            PlanAsk.Usual.SkillsOn(Map, []),
            Approach.Usual,
            PlanAsk.Usual.SettingsFor(Approach.Usual)
        )
        {
            Served = Library.ServedIn(Core.Activities.Place.Carpet),
        };
}
