using Fobble.Core.Activities;
using Fobble.Core.Skills;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Activities;

/// <summary>A teacher's question and its answers.</summary>
public class ActivitySearchTests
{
    private static readonly ActivityLibrary Library = ActivityLoader.Shipped(Map);
    private static readonly ActivityQuestion Any = new(null, null, null, null, null, null, false, false, null);

    private static IReadOnlyList<ActivityFound> Ask(
        ActivityQuestion question,
        Func<ActivityFound, bool>? owned = null,
        Func<ActivityFound, bool>? prints = null
    ) => ActivitySearch.Answers(Library, Map, question, owned ?? (_ => true), prints ?? (_ => false));

    [Fact]
    public void Ten_minutes_four_children_no_printing_hidden_part_to_seven_without_ten_frames()
    {
        var found = Ask(Any with { Text = "hidden part to 7", Minutes = 10, Children = 4, NothingToPrint = true, Without = new("ten-frames") }, prints: f =>
            f.Activity.Materials.Any(m => m.Print is not null)
        );
        found.Select(f => f.Activity.Id.Value).ShouldContain("under-the-lid");
        found.ShouldAllBe(f =>
            f.Skill.Range.Contains(7)
            && f.Activity.GroupSize.Contains(4)
            && f.Activity.MinutesFor(4) <= 10
            && f.Activity.Materials.All(m => m.Item.Id.Value != "ten-frames" && m.Print == null)
        );
        found.Select(f => Map[f.Skill.Skill].Strand).Distinct().ShouldBe(["bond"]);
    }

    // Every name is found first by its own words, whatever else holds the same letters.
    [Fact]
    public void Who_asks_by_name_gets_it_first()
    {
        foreach (var activity in Library.Activities)
        {
            // A name that holds a number asks for that number too, so it may be answered with nothing; "up" is a word of questions, so another may be as near.
            var found = Ask(Any with { Text = activity.Name });
            found.Take(2).Select(f => f.Activity.Name).DefaultIfEmpty(activity.Name).ShouldContain(activity.Name);
        }
    }

    [Fact]
    public void An_empty_question_finds_everything() => Ask(Any).Count.ShouldBe(Library.Activities.Count);

    [Fact]
    public void Each_filter_only_takes_away_and_what_is_left_fits() =>
        Gen.Select(Gen.Int[1, 30], Gen.Int[1, 30], Gen.Enum<Place>(), Gen.Int[1, 20])
            .Sample(
                (minutes, children, place, part) =>
                {
                    var found = Ask(Any with { Minutes = minutes, Children = children, Place = place, Part = part });
                    found.ShouldAllBe(f =>
                        f.Activity.MinutesFor(children) <= minutes
                        && f.Activity.GroupSize.Contains(children)
                        && f.Activity.Places.Contains(place)
                        && f.Activity.Parts.Contains(part)
                    );
                    found.Count.ShouldBe(
                        Library.Activities.Count(a =>
                            a.MinutesFor(children) <= minutes && a.GroupSize.Contains(children) && a.Places.Contains(place) && a.Parts.Contains(part)
                        )
                    );
                }
            );

    [Fact]
    public void A_skill_that_was_asked_for_is_the_one_answered_with()
    {
        SkillId teens = new("place.teen-frames");
        var found = Ask(Any with { Skill = teens });
        found.Count.ShouldBeGreaterThan(1);
        found.ShouldAllBe(f => f.Skill.Skill == teens);
    }

    [Fact]
    public void Words_that_stand_nowhere_find_nothing() => Ask(Any with { Text = "trombone" }).ShouldBeEmpty();

    [Fact]
    public void What_is_not_owned_is_left_out_when_asked() =>
        Ask(Any with { OnlyOwned = true }, owned: f => f.Activity.Id.Value == "handful").Single().Activity.Name.ShouldBe("Handful");
}
