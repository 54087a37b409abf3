using System.Text.RegularExpressions;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Core.Stories;

namespace Fobble.Core.Tests.Stories;

/// <summary>
/// Rule R4. Kinds after table 1 of the Common Core State Standards for Mathematics (2010); single numbers are common practice.
/// The properties read every kind in every setting, with every choice of words.
/// </summary>
public partial class StoryTests
{
    private static readonly Person Mina = Person.All.First(p => p.Name == "Mina");
    private static readonly Person Wren = Person.All.First(p => p.Name == "Wren");
    private static readonly Person Otto = Person.All.First(p => p.Name == "Otto");

    public static TheoryData<StoryKind> Kinds => [.. StoryKinds.All];

    private static Story Tell(StoryKind kind, int first, int second, string setting = "wagons", Wording? words = null) =>
        StoryTeller.Tell(kind, StorySetting.Named(setting), new Split(first, second), (Mina, Otto), words ?? Wording.Usual);

    [Fact]
    public void The_published_table_has_three_kinds_of_each_situation_and_comparing_is_told_both_ways()
    {
        StoryKinds.All.Count.ShouldBe(15);
        var perSituation = StoryKinds.All.CountBy(StoryKinds.SituationOf).ToDictionary(p => p.Key, p => p.Value);
        perSituation.ShouldBe(
            new Dictionary<Situation, int>
            {
                [Situation.AddTo] = 3,
                [Situation.TakeFrom] = 3,
                [Situation.Together] = 3,
                [Situation.Compare] = 6,
            }
        );
        StoryKinds.Kindergarten.ShouldBe([StoryKind.AddToResult, StoryKind.TakeFromResult, StoryKind.TogetherTotal, StoryKind.TogetherBoth]);
    }

    [Fact]
    public void There_are_sixteen_settings_in_four_themes()
    {
        StorySetting.Shipped.Count.ShouldBeGreaterThanOrEqualTo(8);
        StorySetting.Shipped.Select(s => s.Theme).Distinct().Count().ShouldBe(4);
    }

    [Theory]
    [InlineData(6, 4, 2)]
    [InlineData(8, 6, 2)]
    [InlineData(7, 5, 2)]
    [InlineData(8, 5, 3)]
    [InlineData(10, 7, 3)]
    [InlineData(10, 3, 7)]
    public void The_known_part_is_circled_the_rest_crossed_out_and_the_rest_is_the_answer(int total, int known, int unknown)
    {
        var story = Tell(StoryKind.TakeFromChange, known, total - known);
        story.AnswerNumber.ShouldBe(unknown);
        story.Sentence.ShouldBe($"{total} − □ = {known}");
        var model = StoryDrawing.Model(story);
        (model.Drawn, model.Circled.Count, model.Crossed.Count).ShouldBe((total, known, unknown));
        PictureChecker.Check(story, model).Agrees.ShouldBeTrue();
        Tell(StoryKind.TogetherAddend, known, unknown).AnswerNumber.ShouldBe(unknown);
    }

    [Theory]
    [InlineData(7, 4, 3)]
    [InlineData(4, 3, 1)]
    [InlineData(12, 6, 6)]
    public void Matching_leaves_the_difference_without_a_partner(int bigger, int smaller, int difference)
    {
        var story = Tell(StoryKind.CompareDifferenceMore, smaller, bigger - smaller);
        story.AnswerNumber.ShouldBe(difference);
        story.Answer.ShouldBe($"Mina has {difference} more {(difference == 1 ? "wagon" : "wagons")} than Otto.");
        StoryDrawing.Model(story).Circled.Count.ShouldBe(difference);
        StoryDrawing.Draw(story, StoryDrawing.Model(story)).CountOf(ShapeRole.Link).ShouldBe(smaller);
    }

    [Fact]
    public void A_change_unknown_story_wrongly_circled_is_caught_and_says_what_to_do()
    {
        var story = Tell(StoryKind.TakeFromChange, 5, 3);
        var off = PictureChecker.Check(story, Marking.Of(8, [1, 2, 3], [4, 5, 6, 7, 8])).Off;
        off.ShouldHaveSingleItem().ShouldBe("Circled are 3, the part that goes. Circle the 5 that stay, and cross out the 3 that go.");
    }

    [Theory]
    [InlineData(StoryKind.TakeFromChange, 7, 5, 2, "8")]
    [InlineData(StoryKind.TakeFromChange, 8, 4, 3, "5 stay; circled are 4")]
    [InlineData(StoryKind.TakeFromChange, 8, 5, 2, "3 go; crossed out are 2")]
    [InlineData(StoryKind.TakeFromChange, 8, 0, 3, "5 stay; circled are 0")]
    [InlineData(StoryKind.TakeFromResult, 8, 0, 5, "Crossed out are 5, the part that stays")]
    [InlineData(StoryKind.AddToChange, 8, 3, 0, "Circle the 5 that the story tells")]
    [InlineData(StoryKind.AddToChange, 8, 5, 1, "nothing is to be crossed out")]
    [InlineData(StoryKind.AddToStart, 8, 4, 0, "The known part is 3; circled are 4")]
    public void What_is_off_is_named(StoryKind kind, int drawn, int circled, int crossed, string says)
    {
        var verdict = PictureChecker.Check(Tell(kind, 5, 3), Marking.Of(drawn, Enumerable.Range(1, circled), Enumerable.Range(drawn - crossed + 1, crossed)));
        verdict.Off.ShouldContain(o => o.Contains(says, StringComparison.Ordinal), string.Join(" ", verdict.Off));
    }

    [Fact]
    public void In_a_comparison_only_those_without_a_partner_are_circled()
    {
        var story = Tell(StoryKind.CompareDifferenceFewer, 4, 3);
        PictureChecker.Check(story, Marking.Of(7, [1, 6, 7], [], 4)).Off.ShouldHaveSingleItem().ShouldContain("has a partner");
        PictureChecker.Check(story, Marking.Of(7, [6, 7], [], 4)).Off.ShouldHaveSingleItem().ShouldBe("3 have no partner; circled are 2.");
        PictureChecker.Check(story, Marking.Of(7, [5, 6, 7], [], 3)).Off.ShouldHaveSingleItem().ShouldBe("3 are drawn in the lower row; the story has 4.");
    }

    [Theory]
    [InlineData(StoryKind.TakeFromResult, 11, "added-instead")]
    [InlineData(StoryKind.AddToResult, 2, "took-instead")]
    [InlineData(StoryKind.TakeFromChange, 5, "gave-known")]
    [InlineData(StoryKind.TakeFromChange, 8, "gave-whole")]
    [InlineData(StoryKind.TakeFromChange, 4, "off-by-one")]
    [InlineData(StoryKind.CompareDifferenceMore, 13, "added-instead")]
    public void A_wrong_answer_points_to_its_slip(StoryKind kind, int answer, string slip) => Tell(kind, 5, 3).SlipBehind(answer)?.Id.ShouldBe(slip);

    [Fact]
    public void A_right_answer_points_to_no_slip_and_both_parts_unknown_has_many_right_ones()
    {
        Tell(StoryKind.TakeFromChange, 5, 3).SlipBehind(3).ShouldBeNull();
        var open = Tell(StoryKind.TogetherBoth, 5, 3);
        Enumerable.Range(0, 9).ShouldAllBe(n => open.IsAnswered(n));
        open.IsAnswered(9).ShouldBeFalse();
    }

    [Fact]
    public void A_person_who_goes_by_they_has_the_verb_that_goes_with_it()
    {
        var story = StoryTeller.Tell(StoryKind.CompareBiggerMore, StorySetting.Named("kites"), new Split(4, 3), (Wren, Otto), Wording.Usual);
        story.Lines.ShouldBe(["Otto has 4 kites.", "Wren has 3 more kites than Otto.", "How many kites does Wren have?"]);
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public void Every_kind_in_every_setting_with_every_word_reads_well(StoryKind kind)
    {
        var read = 0;
        foreach (var setting in StorySetting.Shipped)
        {
            foreach (var words in new[] { Wording.Usual, new Wording(OnesWord.Units, FewerWord.Less, TakeWord.Subtract, SentenceWord.Sum) })
            {
                foreach (
                    var parts in Enumerable
                        .Range(2, 19)
                        .SelectMany(Bonds.Ordered)
                        .Where(s => s.First > 0 && s.Second > 0 && (s.Total <= 10 || s.First % 4 == 1))
                )
                {
                    ReadsWell(StoryTeller.Tell(kind, setting, parts, (read % 2 == 0 ? Wren : Mina, Otto), words), words);
                    read++;
                }
            }
        }

        read.ShouldBeGreaterThan(1000);
    }

    private static void ReadsWell(Story story, Wording words)
    {
        var setting = StorySetting.Named(story.Setting);
        foreach (var line in story.Lines.Append(story.Answer))
        {
            line.ShouldNotMatch(@"[\[\]{}<>|]", line);
            OneOfMany().IsMatch(line).ShouldBeFalse(line);
            Regex.IsMatch(line, $@"\b([02-9]|1\d|20)( more| {words.Fewer})? {setting.One}\b").ShouldBeFalse(line);
            line.ShouldNotMatch(@"\b(they has|does they|do he|do she)\b|(?<!does )\bs?he have\b");
            line.ShouldNotMatch("  |\\.\\.| ,");
            (char.IsUpper(line[0]) || char.IsDigit(line[0])).ShouldBeTrue(line);
        }

        story.Lines[^1].ShouldEndWith("?");
        story.Lines.SkipLast(1).ShouldAllBe(l => l.EndsWith('.'));
        var told = story.Lines.SelectMany(l => Number().Matches(l).Select(m => int.Parse(m.Value, null))).ToList();
        told.Order().ShouldBe(story.Given.Order(), string.Join(" ", story.Lines));
        var says = string.Join(" ", story.Lines);
        says.Contains(words.Less == FewerWord.Fewer ? " less " : " fewer ", StringComparison.Ordinal).ShouldBeFalse(says);
        if (story.AnswerNumber is { } answer)
        {
            story.Answer.ShouldContain($"{answer}");
            story.Solved.ShouldEndWith($"= {answer}");
        }

        PictureChecker.Check(story, StoryDrawing.Model(story)).Off.ShouldBeEmpty();
        var steps = StoryDrawing.Steps(story, words);
        steps.Select(s => s.Says).ShouldContain(s => s.Contains(words.SentenceName) || story.Unknown == BondPlace.BothParts);
        steps[0].Line.ShouldContain("□");
        steps[^1].Says.ShouldBe(story.Answer);
        steps.Select(s => s.Picture.CountOf(ShapeRole.CounterA, ShapeRole.CounterB)).Distinct().ShouldHaveSingleItem();
    }

    [Theory]
    [MemberData(nameof(Kinds))]
    public void Any_other_marking_of_a_story_with_a_known_part_is_caught(StoryKind kind)
    {
        var story = Tell(kind, 5, 3);
        var model = StoryDrawing.Model(story);
        foreach (
            var wrong in new[]
            {
                model with
                {
                    Drawn = model.Drawn + 1,
                },
                model with
                {
                    Below = model.Below + 1,
                },
                model with
                {
                    Circled = model.Circled.Append(4).Append(5).Append(6).ToHashSet(),
                },
            }
        )
        {
            var wronglyMarked = wrong.Circled.Count != model.Circled.Count || wrong.Drawn != model.Drawn || wrong.Below != model.Below;
            var marksCount = story.Unknown is not (BondPlace.Whole or BondPlace.BothParts) || wrong.Circled.Count == model.Circled.Count;
            if (wronglyMarked && marksCount)
            {
                PictureChecker.Check(story, wrong).Agrees.ShouldBeFalse($"{kind}: {wrong.Drawn}/{wrong.Below}, circled {wrong.Circled.Count}");
            }
        }
    }

    /// <summary>Every way to circle and cross six things, for each kind that takes away: 3⁶ markings, and those on which both marks lie.</summary>
    [Theory]
    [InlineData(StoryKind.TakeFromChange)]
    [InlineData(StoryKind.TakeFromResult)]
    [InlineData(StoryKind.TakeFromStart)]
    public void Of_all_markings_of_six_things_only_those_with_the_right_parts_agree(StoryKind kind)
    {
        var story = Tell(kind, 4, 2);
        for (var code = 0; code < 4096; code++)
        {
            bool Has(int thing, int bit) => ((code >> (2 * (thing - 1))) & bit) != 0;
            var circled = Enumerable.Range(1, 6).Where(t => Has(t, 1)).ToList();
            var crossed = Enumerable.Range(1, 6).Where(t => Has(t, 2)).ToList();
            var apart = !circled.Intersect(crossed).Any();
            var stays = circled.Count == 4 || (circled.Count == 0 && kind != StoryKind.TakeFromChange);
            var verdict = PictureChecker.Check(story, Marking.Of(6, circled, crossed));
            verdict.Agrees.ShouldBe(
                apart && stays && crossed.Count == 2,
                $"circled {string.Join(",", circled)}, crossed {string.Join(",", crossed)}: {string.Join(" ", verdict.Off)}"
            );
        }
    }

    /// <summary>Every way to circle six things in two colours: what is circled has to be a part, not as many of anything.</summary>
    [Theory]
    [InlineData(StoryKind.AddToResult)]
    [InlineData(StoryKind.AddToChange)]
    [InlineData(StoryKind.AddToStart)]
    [InlineData(StoryKind.TogetherTotal)]
    [InlineData(StoryKind.TogetherAddend)]
    [InlineData(StoryKind.TogetherBoth)]
    public void Of_all_circles_round_six_things_only_those_round_a_part_agree(StoryKind kind)
    {
        foreach (var story in (Story[])[Tell(kind, 4, 2), Tell(kind, 3, 3)])
        {
            var first = Enumerable.Range(1, story.First).ToHashSet();
            var second = Enumerable.Range(story.First + 1, story.Second).ToHashSet();
            for (var code = 0; code < 64; code++)
            {
                var circled = Enumerable.Range(1, 6).Where(t => ((code >> (t - 1)) & 1) != 0).ToHashSet();
                var agrees = story.Unknown switch
                {
                    BondPlace.Second => circled.SetEquals(first),
                    BondPlace.First => circled.SetEquals(second),
                    BondPlace.Whole => circled.Count == 0 || circled.SetEquals(first) || circled.SetEquals(second),
                    _ => circled.Count < 6,
                };
                PictureChecker
                    .Check(story, Marking.Of(6, circled, []))
                    .Agrees.ShouldBe(agrees, $"{kind} {story.First} and {story.Second}: circled {string.Join(",", circled)}");
            }
        }
    }

    [Theory]
    [InlineData(1UL)]
    [InlineData(20261125UL)]
    public void A_set_tells_no_numbers_twice_gives_no_answer_away_and_is_the_same_for_its_seed(ulong seed)
    {
        var request = new StoryRequest(StoryKinds.All, new NumberRange(5, 10), 15, Wording.Usual, seed);
        var set = StoryMaker.Make(request);
        set.Select(s => (s.Whole, s.First, s.Second)).ShouldBeUnique();
        set.Select(s => s.Kind).ShouldBeUnique();
        set.ShouldAllBe(s => s.AnswerNumber == null || !s.Given.Contains(s.AnswerNumber.Value));
        set.ShouldAllBe(s => s.First >= 2 && s.Second >= 2 && s.Whole >= 5 && s.Whole <= 10);
        set.Select(s => s.Whole).ShouldBeInOrder();
        set.SelectMany(s => s.Lines).ShouldBe(StoryMaker.Make(request).SelectMany(s => s.Lines));
        StoryMaker.Make(request with { Theme = "night-market" }).ShouldAllBe(s => StorySetting.Named(s.Setting).Theme == "night-market");
    }

    [Fact]
    public void Doubles_are_told_when_the_answer_may_be_given()
    {
        var request = new StoryRequest([StoryKind.TakeFromChange], new NumberRange(6, 6), 3, Wording.Usual, 4);
        Should.Throw<RefusedException>(() => StoryMaker.Make(request)).Message.ShouldContain("hold only 2 such stories");
        StoryMaker.Make(request with { AnswerMayBeGiven = true }).ShouldContain(s => s.First == 3 && s.Second == 3);
        Should.Throw<RefusedException>(() => StoryMaker.Make(request with { Theme = "sea" })).Message.ShouldContain("no theme 'sea'");
        Should.Throw<RefusedException>(() => StoryMaker.Make(request with { Kinds = [] })).Message.ShouldContain("at least one kind");
    }

    [GeneratedRegex(@"\b1 (more |fewer |less )?(wagons|tickets|bells|stamps|lanterns|kites|lemons|drums)\b")]
    private static partial Regex OneOfMany();

    [GeneratedRegex(@"\d+")]
    private static partial Regex Number();
}
