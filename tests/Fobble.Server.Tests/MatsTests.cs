using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.ItemSets;
using Fobble.Core.Mats;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Core.Sessions;
using Fobble.Core.Strategies;
using Fobble.Server.Features.ClassApproach;
using Fobble.Server.Features.Mats;
using Fobble.Server.Features.Sessions;

namespace Fobble.Server.Tests;

/// <summary>Mats keep nothing: everything follows from the address, and what cannot be is refused with a reason.</summary>
public class MatsTests(School school) : IClassFixture<School>
{
    private const string Mats = "/api/classes/1/mats";

    [Fact]
    public async Task Every_mat_on_the_shelf_has_a_picture_and_every_kind_is_there()
    {
        var shelf = await (await school.ComeInAsAsync("ines")).ReadAsync<List<MatOnOffer>>(Mats);
        shelf.Where(m => m.Kind is not null).Select(m => m.Kind!.Value).Order().ShouldBe(MatKinds.All);
        shelf.Select(m => m.Desk).Distinct().ShouldBe(["sums", "story", "counters", "look", "path", "kinds", "dice", "shakes", "jar"], ignoreOrder: true);
        shelf.ShouldAllBe(m => m.Picture.Shapes.Count > 0 && m.For.Length > 0);
    }

    [Fact]
    public async Task Counters_are_laid_moved_and_refused_and_the_address_says_it_all()
    {
        var ines = await school.ComeInAsAsync("ines");
        var dealt = await ines.ReadAsync<CounterMat>($"{Mats}/counters/TwoTenFrames?deed=Deal&first=8&more=5");
        dealt.View.Sentence.ShouldBe("8 + 5 = 13");
        var moved = await ines.ReadAsync<CounterMat>($"{Mats}/counters/TwoTenFrames?state={dealt.State}&deed=Move&counter=13&zone=0&place=8");
        moved.Counters.Count(c => c.Zone == 0).ShouldBe(9);
        var again = await ines.ReadAsync<CounterMat>($"{Mats}/counters/TwoTenFrames?state={moved.State}");
        again.State.ShouldBe(moved.State);
        var refused = await ines.ReadAsync<CounterMat>($"{Mats}/counters/TwoTenFrames?state={moved.State}&deed=Move&counter=13&zone=0&place=0");
        refused.Refused.ShouldBe("There is a counter already.");
        refused.State.ShouldBe(moved.State);
        var covered = await ines.ReadAsync<CounterMat>($"{Mats}/counters/Bond?state=.a1.b2&deed=Cover&zone=2");
        covered.Counters.ShouldHaveSingleItem();
        covered.Covered.ShouldBe([false, false, true]);
    }

    [Theory]
    [InlineData("counters/TenFrame?state=nonsense", "nothing that can lie")]
    [InlineData("sums?a=3&operation=TakeAway&b=5", "Take away from 0 to 3")]
    [InlineData("sums?a=100&operation=Add&b=5", "0 to 99")]
    [InlineData("look?layout=Dice&number=11", "from 1 to 10, not 11")]
    [InlineData("path?low=0&high=10&start=8&hops=5", "+5 from 8 leaves the path")]
    [InlineData("path?low=0&high=10&start=8&hops=x", "'x' is no number")]
    [InlineData("kinds?number=600&other=400", "600 + 400 is more than 999")]
    [InlineData("kinds?number=1000", "0 to 999, not 1000")]
    [InlineData("story?kind=AddToResult&low=2&high=3&seed=1", "without telling the same numbers twice")]
    [InlineData("story?kind=AddToResult&low=5&high=10&seed=1&theme=sea", "no theme 'sea'")]
    [InlineData("story?kind=AddToResult&low=5&high=40&seed=1", "Stories go to 20")]
    [InlineData("story/check?kind=TakeFromChange&low=5&high=10&seed=1&drawn=3&below=0&circled=9", "only what is drawn can be marked")]
    [InlineData("dice?dice=1-6;six&operation=Add&low=0&high=10&target=20&exact=false&players=2", "'six' is no die")]
    [InlineData("dice?dice=1-6&operation=Add&low=0&high=10&target=200&exact=false&players=2", "1 to 100 places")]
    [InlineData("shakes?things=40", "1 to 12 things")]
    [InlineData("jar?jarMl=10&shape=Ball&across=90&low=10&high=100&countedNineties=false", "does not fit into that jar")]
    public async Task What_cannot_be_is_refused_with_a_reason(string path, string says)
    {
        var refused = await (await school.ComeInAsAsync("ines")).GetAsync($"{Mats}/{path}");
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest, path);
        (await Visitor.SaysAsync(refused)).ShouldContain(says);
        (await Visitor.SaysAsync(refused)).ShouldNotContain("Parameter");
    }

    [Fact]
    public async Task A_sum_is_worked_by_every_way_and_one_is_taken_by_what_the_child_can_do()
    {
        var ines = await school.ComeInAsAsync("ines");
        var anyone = await ines.ReadAsync<SumMat>($"{Mats}/sums?a=9&operation=Add&b=5");
        anyone.Strategies.Select(s => s.Kind).ShouldContain(StrategyKind.MakeTen);
        anyone.Strategies.Single(s => s.Kind == StrategyKind.MakeTen).Steps[^1].Line.ShouldBe("14");
        using var scope = school.Scope();
        var child = school.Db(scope).Children.First(c => c.ClassId == 1);
        var forChild = await ines.ReadAsync<SumMat>($"{Mats}/sums?a=9&operation=Add&b=5&childId={child.Id}");
        forChild.Reason.ShouldContain(child.GivenName);
        var other = school.Db(scope).Children.First(c => c.ClassId == 2).Id;
        (await ines.GetAsync($"{Mats}/sums?a=9&operation=Add&b=5&childId={other}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Stories_can_be_chosen_from_every_kind_and_theme()
    {
        var choices = await (await school.ComeInAsAsync("ines")).ReadAsync<StoryChoices>($"{Mats}/story/choices");
        choices.Kinds.Count.ShouldBe(15);
        choices.Kinds.Select(k => k.Name).ShouldBeUnique();
        choices.Themes.Select(t => t.Name).ShouldBe(["hill railway", "night market", "every day", "outside"], ignoreOrder: true);
    }

    [Fact]
    public async Task A_story_is_the_same_for_its_address_and_a_wrongly_circled_drawing_of_it_is_caught()
    {
        var ines = await school.ComeInAsAsync("ines");
        const string Which = "kind=TakeFromChange&low=8&high=8&seed=5";
        var story = await ines.ReadAsync<StoryMat>($"{Mats}/story?{Which}");
        (await ines.ReadAsync<StoryMat>($"{Mats}/story?{Which}")).Lines.ShouldBe(story.Lines);
        var (stay, go) = (story.First, story.Whole - story.First);
        string Marks(int from, int count) => string.Join(',', Enumerable.Range(from, count));
        var wrong = await ines.ReadAsync<StoryChecked>($"{Mats}/story/check?{Which}&drawn=8&below=0&circled={Marks(1, go)}&crossed={Marks(go + 1, stay)}");
        wrong.Agrees.ShouldBeFalse();
        wrong.Off.ShouldHaveSingleItem().ShouldContain($"Circle the {stay} that stay");
        var right = await ines.ReadAsync<StoryChecked>($"{Mats}/story/check?{Which}&drawn=8&below=0&circled={Marks(1, stay)}&crossed={Marks(stay + 1, go)}");
        right.Agrees.ShouldBeTrue();
        right.Picture.CountOf(ShapeRole.Loop).ShouldBe(stay);
        story.Answer.ShouldBe(go);
        story.Slips.ShouldContain(s => s.Answer == stay && s.PointsTo.Contains("part that the story tells"));
    }

    [Fact]
    public async Task Desks_reckon_for_the_adult()
    {
        var ines = await school.ComeInAsAsync("ines");
        var dice = await ines.ReadAsync<DiceMat>($"{Mats}/dice?dice=1-6;1-6&operation=TakeAway&low=0&high=10&target=20&exact=false&players=4&seed=3");
        dice.Warnings.ShouldHaveSingleItem().ShouldStartWith("Can fall below zero: 15 of 36");
        dice.Results.Sum(r => r.Share).ShouldBe(1, 1e-9);
        dice.ThrownSays.ShouldMatch(@"^\d − \d = -?\d$");
        dice.Turns!.Eighty.ShouldBeGreaterThan((int)dice.Turns.Turns / 2);
        var ring = await ines.ReadAsync<ShakesMat>($"{Mats}/shakes?things=10");
        ring.Splits.Single(s => s.Split == "5 + 5").Share.ShouldBe(252.0 / 1024, 1e-12);
        ring.ToSeeAll.ShouldContain("more than a session holds");
        var jar = await ines.ReadAsync<JarMat>($"{Mats}/jar?jarMl=1000&shape=Ball&across=20&last=40&low=10&high=100&countedNineties=false&count=47");
        jar.HeapsInWords.ShouldBe("47: 4 heaps of ten and 7");
        jar.Next.Amount.ShouldBe(45);
        jar.Caution!.ShouldContain("keep the lid on");
        (await ines.ReadAsync<JarMat>($"{Mats}/jar?jarMl=5000&shape=Ball&across=60&low=10&high=100&countedNineties=false")).Caution.ShouldBeNull();
        (await ines.ReadAsync<JarMat>($"{Mats}/jar?jarMl=100&shape=Ball&across=8&last=98&low=10&high=300&countedNineties=false")).Next.Amount.ShouldBe(98);
    }

    [Fact]
    public async Task The_classs_approach_turns_frames_and_words_on_every_mat_and_only_its_lead_may_change_it()
    {
        using var own = new School();
        var ines = await own.ComeInAsAsync("ines");
        var pairs = new ApproachChoice(
            FrameFill.ByPairs,
            FrameDirection.Upright,
            OnesWord.Units,
            FewerWord.Less,
            TakeWord.Subtract,
            SentenceWord.Equation,
            YearWord.Reception,
            SymbolsWhen.FromTheStart,
            NumberSize.LargeEarly,
            YearOrder.UnitByUnit,
            SheetUse.None,
            GroupWay.Mixed,
            Strictness.Light,
            Fading.Sooner,
            SecondLookTime.Much
        );
        (await ines.PatchAsync("/api/classes/1/approach", pairs)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.ReadAsync<ApproachView>("/api/classes/1/approach")).Choice.ShouldBe(pairs);
        var frame = (await ines.ReadAsync<CounterMat>($"{Mats}/counters/TenFrame?deed=Deal&first=6")).View.Picture;
        frame.Height.ShouldBeGreaterThan(frame.Width);
        var kinds = await ines.ReadAsync<KindsMat>($"{Mats}/kinds?number=42");
        (kinds.Name, kinds.Number.Readings[0]).ShouldBe(("Hundreds, tens and units", "4 tens and 2 units"));
        (await ines.ReadAsync<StoryMat>($"{Mats}/story?kind=CompareDifferenceFewer&low=8&high=8&seed=1")).Lines[^1].ShouldContain("How many less");
        (await ines.ReadAsync<StoryMat>($"{Mats}/story?kind=AddToResult&low=8&high=8&seed=1")).Steps.ShouldContain(s =>
            s.Says == "Write the equation that was worked out."
        );
        (await (await own.ComeInAsAsync("tomasz")).PatchAsync("/api/classes/1/approach", pairs)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await ines.PatchAsync("/api/classes/1/approach", new { frameFill = "BySevens" })).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.ReadAsync<ApproachView>("/api/classes/1/approach")).Choice.ShouldBe(pairs);
    }

    [Fact]
    public async Task Choices_made_at_the_same_time_are_all_kept()
    {
        using var own = new School();
        var ines = await own.ComeInAsAsync("ines");
        object[] asked = [new { fewerWord = "Less" }, new { symbols = "FromTheStart" }, new { takeWord = "Subtract" }, new { onesWord = "Units" }];
        await Task.WhenAll(asked.Select(a => ines.PatchAsync("/api/classes/1/approach", a)));
        var kept = (await ines.ReadAsync<ApproachView>("/api/classes/1/approach")).Choice;
        (kept.FewerWord, kept.Symbols, kept.TakeWord, kept.OnesWord).ShouldBe((FewerWord.Less, SymbolsWhen.FromTheStart, TakeWord.Subtract, OnesWord.Units));
    }

    public static TheoryData<ItemKind> ItemKinds => [.. Enum.GetValues<ItemKind>()];

    [Theory]
    [MemberData(nameof(ItemKinds))]
    public async Task Every_item_that_has_a_mat_opens_it_at_an_address_that_is_understood(ItemKind kind)
    {
        var ines = await school.ComeInAsAsync("ines");
        var range =
            kind <= ItemKind.MissingAddend
                ? kind is ItemKind.SayOn
                    ? new(2, 7)
                    : new NumberRange(1, 6)
                : ActivityLoader.AsWritten.SelectMany(a => a.Skills).First(s => s.Items == kind).Range;
        foreach (var item in ItemCases.All(kind, range, 1).DistinctBy(i => i.Value).Take(7))
        {
            if (MatOpenings.For(kind, item) is { } address)
            {
                var asked = address
                    .Replace("sums?", address.Contains("op=", StringComparison.Ordinal) ? "sums?" : "sums?operation=Add&", StringComparison.Ordinal)
                    .Replace("&op=", "&operation=", StringComparison.Ordinal);
                (await ines.GetAsync($"{Mats}/{asked}")).StatusCode.ShouldBe(HttpStatusCode.OK, $"{item.Key}: {address}");
            }
            else
            {
                (
                    kind
                    is ItemKind.Give
                        or ItemKind.CompareNumerals
                        or ItemKind.MissingTin
                        or ItemKind.SwappedTins
                        or ItemKind.ShareEqually
                        or ItemKind.CompareSums
                        or ItemKind.ThreeAddends
                        or ItemKind.TrueOrFalse
                        or ItemKind.StoryThree
                ).ShouldBeTrue($"{kind} {item.Key}");
            }
        }
    }

    [Fact]
    public async Task The_mat_of_a_story_tells_the_story_of_its_card()
    {
        var ines = await school.ComeInAsAsync("ines");
        foreach (
            var kind in Enum.GetValues<ItemKind>()
                .Where(k => k is >= ItemKind.StoryTotal && $"{k}".StartsWith("Story", StringComparison.Ordinal) && k != ItemKind.StoryThree)
        )
        {
            foreach (var item in ItemCases.All(kind, new(3, 9), 1).Take(12))
            {
                var mat = await ines.ReadAsync<StoryMat>($"{Mats}/{MatOpenings.For(kind, item)}");
                mat.Answer.ShouldBe(item.Value, $"{item.Ask} {string.Join(' ', mat.Lines)}");
                item.Ask.ToLowerInvariant().ShouldContain(MatOpenings.For(kind, item)!.Split("of=")[1].Split('&')[0][..^1]);
            }
        }

        (await ines.GetAsync($"{Mats}/story?kind=AddToResult&of=ships&low=5&high=5&first=2&seed=1")).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.GetAsync($"{Mats}/story?kind=AddToResult&of=kites&low=5&high=5&first=9&seed=1")).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }

    [Theory]
    [InlineData(ItemKind.HiddenPart, "5=2+3", "counters/Bond?state=.a1a2.b3b4b5!")]
    [InlineData(ItemKind.CompareSets, "4:2", "counters/TwoRows?state=a1a2a3a4.b5b6")]
    [InlineData(ItemKind.Spaces, "spaces:4", "counters/FiveFrame?state=a1a2a3a4_")]
    [InlineData(ItemKind.OneFewer, "fewer:4", "path?low=0&high=10&start=4&hops=-1")]
    [InlineData(ItemKind.TakingAway, "take:5-3", "sums?a=5&op=TakeAway&b=3")]
    public void A_mat_is_laid_with_the_numbers_of_its_item(ItemKind kind, string key, string address) =>
        MatOpenings.For(kind, ItemCases.All(kind, new(1, 5), 1).First(i => i.Key == key)).ShouldBe(address);

    [Fact]
    public async Task A_session_card_opens_its_mats_ready_laid()
    {
        var ines = await school.ComeInAsAsync("ines");
        var opened = 0;
        foreach (var day in new[] { "2026-11-23", "2026-11-24", "2026-11-25", "2026-11-26", "2026-11-27" })
        {
            var card = await ines.ReadAsync<Card>($"/api/classes/1/days/{day}/carpet");
            card.Mats.Count.ShouldBe(card.Items.Count);
            foreach (var mat in card.Mats.OfType<string>())
            {
                var asked = mat.StartsWith("sums", StringComparison.Ordinal) ? mat.Replace("sums?", "sums?operation=Add&", StringComparison.Ordinal) : mat;
                (await ines.GetAsync($"{Mats}/{asked}")).StatusCode.ShouldBe(HttpStatusCode.OK, mat);
                opened++;
            }
        }

        opened.ShouldBeGreaterThan(5);
    }
}
