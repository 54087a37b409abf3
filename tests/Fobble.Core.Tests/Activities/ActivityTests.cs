using System.Text.RegularExpressions;
using Fobble.Core.Activities;
using Fobble.Core.Chance;
using Fobble.Core.Cupboard;
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
        Library.Activities.Count.ShouldBeGreaterThanOrEqualTo(70);
        foreach (var part in Enumerable.Range(1, 20))
        {
            Library.Activities.Count(a => a.Parts.Contains(part)).ShouldBeGreaterThanOrEqualTo(3, $"part {part}");
        }

        foreach (var strand in Map.Strands)
        {
            foreach (var place in Enum.GetValues<Place>())
            {
                Library
                    .Activities.Count(a => a.Places.Contains(place) && a.Skills.Any(s => Map[s.Skill].Strand == strand.Id))
                    .ShouldBeGreaterThan(0, $"{strand.Id} at {place}");
            }
        }

        Library.Activities.Select(a => a.Name).ShouldBeUnique();
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
    public void Every_skill_has_two_activities_at_least() =>
        Map.Skills.Where(s => Library.Activities.Count(a => a.For(s.Id) is not null) < 2).Select(s => s.Id.Value).ShouldBeEmpty();

    [Fact]
    public void Every_formula_comes_to_something_for_one_to_thirty_children()
    {
        foreach (var (activity, material) in Library.Activities.SelectMany(a => a.Materials.Select(m => (a, m))))
        {
            foreach (var high in activity.Skills.Select(s => s.Range.High).Distinct())
            {
                foreach (var children in Enumerable.Range(1, 30))
                {
                    material.Amount.For(high, children).ShouldBeInRange(1, 9999, $"{activity.Id}: {material.Item.Id} for {children}");
                }
            }
        }
    }

    [Fact]
    public void Every_prompt_is_in_the_classs_words() =>
        ActivityLoader
            .AsWritten.Select(a => a.InWords(new(OnesWord.Units, FewerWord.Less, TakeWord.Subtract, SentenceWord.Sum, YearWord.Reception)))
            .SelectMany(a => a.Say.Concat(a.Steps).Concat(a.LookFor).Concat(a.Prepare).Concat([a.Name, a.Purpose, a.Easier, a.Harder, a.Sheet]))
            .Where(text => text.Contains('{'))
            .ShouldBeEmpty();

    [Fact]
    public void A_games_minutes_follow_its_dice()
    {
        var track = Library[new("count-on-track")];
        track.Minutes.ShouldBe(track.MinutesFor(track.GroupSize.High));

        // One die that always shows one, to a target of six, one player: six turns of twenty seconds.
        new Game([Die.Parse("1")], DiceOperation.Add, 6, false).MinutesFor(1).ShouldBe(2);
        Library.Activities.Where(a => a.Game is not null).ShouldAllBe(a => a.Minutes >= 3 && a.Minutes <= 35);
    }

    [Fact]
    public void An_activity_handed_on_as_a_file_comes_back_unchanged()
    {
        var file = ActivityLoader.Write(ActivityLoader.AsWritten);
        var back = ActivityLoader.Read(Map, [("handed-on.yaml", file)]);
        ActivityLoader.Write(back).ShouldBe(file);
        back.Select(a => (a.Id, a.Name, a.Minutes)).ShouldBe(ActivityLoader.AsWritten.Select(a => (a.Id, a.Name, a.Minutes)));
    }

    [Theory]
    [InlineData("item: bell", "item: gong", "no item 'gong'")]
    [InlineData("amount: 1", "amount: x", "can't be worked out")]
    [InlineData("print: number-path/with-gaps", "print: number-path/alone", "not to be had")]
    [InlineData("mat: path", "mat: ''", "mat is missing")]
    [InlineData("id: count.say-5", "id: count.say-6", "count.say-6, which does not exist")]
    [InlineData("groupSize: 2-6", "groupSize: many", "no range of numbers")]
    [InlineData("- 4", "- 44", "1 to 20")]
    public void A_fault_in_a_file_names_the_activity_and_the_field(string right, string wrong, string message)
    {
        var file = ActivityLoader.Write([Library[new("along-the-line")]]);
        file.ShouldContain(right);
        Should
            .Throw<RefusedException>(() => ActivityLoader.Read(Map, [("mine.yaml", file.Replace(right, wrong, StringComparison.Ordinal))]))
            .Message.ShouldContain(message);
    }

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
    public void A_formula_that_comes_to_nothing_is_refused(string formula) => Should.Throw<RefusedException>(() => new Amount(formula));

    [Fact]
    public void Numbered_tins_to_ten_need_fifty_five_things()
    {
        // n(n+1)/2, as for any arithmetic series.
        var tins = Library[new("numbered-tins")];
        tins.Materials.Single(m => m.Item.Purpose == Purpose.Counting).Amount.For(10, 4).ShouldBe(Enumerable.Range(1, 10).Sum());
    }

    [Fact]
    public void A_skill_without_an_activity_is_named() =>
        new ActivityLibrary(Map, [.. Library.Activities.Where(a => a.For(new("join.three-addends")) is null)]).Unserved.ShouldBe([
            "join.three-addends has no activity for Carpet",
            "join.three-addends has no activity for Group",
        ]);
}
