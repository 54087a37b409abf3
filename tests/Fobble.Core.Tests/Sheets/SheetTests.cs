using Fobble.Core.Approaches;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Core.Sheets;
using Fobble.Core.Stories;

namespace Fobble.Core.Tests.Sheets;

public class SheetTests
{
    private static readonly DateOnly Made = new(2026, 11, 25);
    private static readonly SheetChild[] Two = [new("Nils K", ItemHistory.None), new("Amara T", ItemHistory.None)];

    public static TheoryData<SheetKind, SheetVariant, PaperSize> Everything =>
        [.. SheetOffer.All.SelectMany(o => o.Variants.SelectMany(v => Enum.GetValues<PaperSize>().Select(p => (o.Kind, v, p))))];

    [Fact]
    public void Every_kind_is_on_offer() => SheetOffer.All.Select(o => o.Kind).ShouldBe(Enum.GetValues<SheetKind>());

    [Fact]
    public void Every_variant_is_on_offer_and_has_a_name_of_its_own()
    {
        var all = Enum.GetValues<SheetVariant>();
        SheetOffer.All.SelectMany(o => o.Variants).Distinct().Order().ShouldBe(all);
        all.Select(v => v.Name()).ShouldBeUnique();
    }

    [Theory]
    [MemberData(nameof(Everything))]
    public void Every_sheet_stays_on_its_paper_says_how_to_make_it_again_and_is_the_same_for_its_seed(SheetKind kind, SheetVariant variant, PaperSize paper)
    {
        var sheet = Make(kind, variant, paper);
        sheet.Pages.ShouldNotBeEmpty();
        foreach (var (page, number) in sheet.Pages.Select((p, i) => (p.Picture, i + 1)))
        {
            (page.Width, page.Height).ShouldBe((sheet.Paper.Width, sheet.Paper.Height));
            page.Shapes.Select(s => s.Key).ShouldBeUnique($"{kind} {variant}");
            page.Shapes.ShouldAllBe(s => StaysOn(page, s));
            var footer = page.Shapes.Single(s => s.Key == "footer").Text!;
            footer.ShouldContain("seed 48213");
            footer.ShouldContain("25 November 2026");
            footer.ShouldEndWith($"page {number} of {sheet.Pages.Count}");
            page.Shapes.Where(s => s.Key != "footer").Max(s => s.Y).ShouldBeLessThan(page.Height - 12);
        }

        // Shapes hold lists of points, so they are compared as they are written.
        string Written(Sheet s) => string.Join('\n', s.Pages.SelectMany(p => p.Picture.Shapes).Select(x => $"{x.Key} {x.X} {x.Y} {x.Text}"));
        Written(Make(kind, variant, paper)).ShouldBe(Written(sheet));
    }

    [Theory]
    [InlineData(SheetKind.Sentences, SheetVariant.Adding)]
    [InlineData(SheetKind.Sentences, SheetVariant.TakingAway)]
    [InlineData(SheetKind.Bonds, SheetVariant.OnePartMissing)]
    [InlineData(SheetKind.Stories, SheetVariant.Alone)]
    public void Answers_stand_on_a_page_of_their_own_at_the_end_and_nowhere_else(SheetKind kind, SheetVariant variant)
    {
        var sheet = Make(kind, variant, PaperSize.A4);
        sheet.Pages.Select(p => p.IsKey).ShouldBeInOrder();
        sheet.Pages[^1].IsKey.ShouldBeTrue();
        TextOf(sheet.Pages[^1]).ShouldContain("Nils K");
        sheet.Pages.Where(p => !p.IsKey).ShouldAllBe(p => p.Picture.Shapes.First(s => s.Kind == ShapeKind.Text).Text == "Name");
    }

    [Fact]
    public void Answers_are_right_and_finish_the_sentences_that_are_asked()
    {
        var sheet = Make(SheetKind.Sentences, SheetVariant.TakingAway, PaperSize.A4, children: []);
        var key = TextOf(sheet.Pages[^1]).Replace('\u00A0', ' ');
        var answers = System.Text.RegularExpressions.Regex.Matches(key, @"\d+\) (\d+) − (\d+) = (\d+)").ToList();
        answers.Count.ShouldBe(12);
        answers.ShouldAllBe(a => int.Parse(a.Groups[1].Value, null) - int.Parse(a.Groups[2].Value, null) == int.Parse(a.Groups[3].Value, null));
        sheet.Pages[0].Picture.CountOf(ShapeRole.Cell).ShouldBe(12);
    }

    [Fact]
    public void Each_child_has_numbers_of_their_own_and_what_was_missed_comes_more_often()
    {
        string Asked(SheetPage page) => string.Concat(page.Picture.Shapes.Where(s => s.Role == ShapeRole.Words).Skip(1).Select(s => s.Text));
        var sheet = Make(SheetKind.Sentences, SheetVariant.Adding, PaperSize.A4);
        Asked(sheet.Pages[0]).ShouldNotBe(Asked(sheet.Pages[1]));

        var missed = new ItemHistory(new HashSet<string> { "9=4+5" }, new HashSet<string>(), []);
        var met = Enumerable
            .Range(1, 200)
            .Count(seed =>
                TextOf(
                        SheetMaker
                            .Make(
                                Request(SheetKind.Sentences, SheetVariant.Adding, PaperSize.A4, [new("Nils K", missed)]) with
                                {
                                    Seed = (uint)seed,
                                    Count = 6,
                                }
                            )
                            .Pages[^1]
                    )
                    .Contains("4\u00A0+\u00A05\u00A0=\u00A09", StringComparison.Ordinal)
            );
        var plain = Enumerable
            .Range(1, 200)
            .Count(seed =>
                TextOf(
                        SheetMaker.Make(Request(SheetKind.Sentences, SheetVariant.Adding, PaperSize.A4, [Two[0]]) with { Seed = (uint)seed, Count = 6 }).Pages[
                            ^1
                        ]
                    )
                    .Contains("4\u00A0+\u00A05\u00A0=\u00A09", StringComparison.Ordinal)
            );
        met.ShouldBeGreaterThan(plain + 10);
    }

    [Fact]
    public void Story_pages_give_less_from_together_to_alone()
    {
        int Count(SheetVariant v, params ShapeRole[] roles) => Make(SheetKind.Stories, v, PaperSize.A4).Pages.Sum(p => p.Picture.CountOf(roles));
        int Things(SheetVariant v) => Count(v, ShapeRole.CounterA, ShapeRole.CounterB);
        Count(SheetVariant.Together, ShapeRole.Note).ShouldBeGreaterThan(Count(SheetVariant.HalfGiven, ShapeRole.Note));
        Things(SheetVariant.Together).ShouldBe(Things(SheetVariant.HalfGiven));
        Things(SheetVariant.HalfGiven).ShouldBeGreaterThan(0);
        Things(SheetVariant.Alone).ShouldBe(0);
    }

    [Fact]
    public void Counting_what_is_printed_of_a_story_is_never_its_answer()
    {
        foreach (var kind in StoryKinds.All)
        {
            foreach (var story in StoryMaker.Make(new StoryRequest([kind], new(5, 10), 8, Wording.Usual, 48213, null)))
            {
                var begun = StoryDrawing.Begun(story);
                begun.Circled.Concat(begun.Crossed).ShouldBeEmpty();
                ((int?)(begun.Drawn + begun.Below)).ShouldNotBe(story.AnswerNumber, $"{kind}: {string.Join(" ", story.Lines)}");
                StoryDrawing.Hint(story).ShouldNotContain(c => char.IsDigit(c));
            }
        }
    }

    [Fact]
    public void Place_value_cards_are_one_size_so_that_they_slide_over_each_other()
    {
        var cards = Make(SheetKind.PlaceValueCards, SheetVariant.Whole, PaperSize.A4, new NumberRange(1, 999))
            .Pages.SelectMany(p => p.Picture.Shapes)
            .Where(s => s.Role == ShapeRole.Card)
            .ToList();
        cards.Count.ShouldBe(27);
        cards.Select(c => Math.Round(c.Height, 6)).Distinct().ShouldHaveSingleItem();
        cards.Select(c => Math.Round(c.Width / cards[^1].Width, 6)).Distinct().Order().ShouldBe([1, 2, 3]);
    }

    [Fact]
    public void Frames_follow_the_classs_way_of_filling_them()
    {
        var pairs = Make(SheetKind.TenFrames, SheetVariant.Filled, PaperSize.A4, new NumberRange(6, 6), approach: new(new(FrameFill.ByPairs), Wording.Usual));
        var counters = pairs.Pages[0].Picture.Shapes.Where(s => s.Role == ShapeRole.CounterA).ToList();
        counters.GroupBy(c => Math.Round(c.Y, 3)).Select(g => g.Count()).ShouldBe([3, 3]);
    }

    [Theory]
    [InlineData(SentenceWord.NumberSentence, "Number sentences to finish")]
    [InlineData(SentenceWord.Equation, "Equations to finish")]
    [InlineData(SentenceWord.Sum, "Sums to finish")]
    public void A_sheet_is_called_by_the_classs_word(SentenceWord word, string title) =>
        Make(SheetKind.Sentences, SheetVariant.Adding, PaperSize.A4, approach: new(FrameStyle.Usual, new(Sentence: word))).Title.ShouldBe(title);

    [Fact]
    public void Cards_that_are_other_numbers_upside_down_have_a_line_below()
    {
        // Worked out by hand: of two digits both are 1, 6, 8 or 9, and the two are not a pair that turns into itself (11, 69, 88, 96).
        Enumerable.Range(0, 101).Where(Things.ReadsTurned).ShouldBe([6, 9, 16, 18, 19, 61, 66, 68, 81, 86, 89, 91, 98, 99]);
        var cards = Make(SheetKind.NumeralCards, SheetVariant.Whole, PaperSize.A4, new NumberRange(0, 20)).Pages.SelectMany(p => p.Picture.Shapes);
        cards.Count(s => s.Role == ShapeRole.Rule).ShouldBe(5);
    }

    [Fact]
    public void Shares_with_one_over_have_one_over_and_those_without_a_rest_have_none()
    {
        foreach (var (variant, over) in new[] { (SheetVariant.Evenly, 0), (SheetVariant.OneOver, 1) })
        {
            var sheet = Make(SheetKind.Shares, variant, PaperSize.A4, children: []);
            var key = TextOf(sheet.Pages[^1]).Replace('\u00A0', ' ');
            var shares = System.Text.RegularExpressions.Regex.Matches(key, @"(\d+) between (\d+):").ToList();
            shares.Count.ShouldBe(4);
            shares.ShouldAllBe(m => int.Parse(m.Groups[1].Value, null) % int.Parse(m.Groups[2].Value, null) == over);
            var plates = sheet.Pages.Sum(p => p.Picture.Shapes.Count(s => s.Key.Contains("plate", StringComparison.Ordinal)));
            plates.ShouldBe(shares.Sum(m => int.Parse(m.Groups[2].Value, null)));
        }
    }

    [Theory]
    [InlineData(SheetVariant.Dots)]
    [InlineData(SheetVariant.Dice)]
    [InlineData(SheetVariant.Fingers)]
    public void Cards_for_a_glance_show_each_number_once(SheetVariant variant)
    {
        var sheet = Make(SheetKind.GlanceCards, variant, PaperSize.A4, new NumberRange(1, 10));
        var shapes = sheet.Pages.SelectMany(p => p.Picture.Shapes).ToList();
        shapes.Count(s => s.Role is ShapeRole.CounterA or ShapeRole.CounterB or ShapeRole.Pip).ShouldBe(variant == SheetVariant.Fingers ? 0 : 55);
    }

    [Fact]
    public void A_numeral_to_trace_has_a_dot_for_each_digit_where_the_pen_starts()
    {
        var shapes = Make(SheetKind.PracticeStrips, SheetVariant.Whole, PaperSize.A4, new NumberRange(0, 20), [Two[0]])
            .Pages.SelectMany(p => p.Picture.Shapes)
            .ToList();
        shapes.Count(s => s.Key.StartsWith("start-", StringComparison.Ordinal)).ShouldBe(2 * (10 + (11 * 2)));
    }

    [Fact]
    public void Dominoes_are_every_pair_of_faces_once() =>
        Make(SheetKind.Dominoes, SheetVariant.Whole, PaperSize.A4)
            .Pages.Sum(p => p.Picture.Shapes.Count(s => s.Key.EndsWith("-tile", StringComparison.Ordinal)))
            .ShouldBe(28);

    [Theory]
    [InlineData(SheetKind.Stories, SheetVariant.Filled, 5, 10, 4, "not to be had as 'filled': choose together; half given; alone")]
    [InlineData(SheetKind.Dominoes, SheetVariant.Whole, 0, 7, 1, "go from 0 to 6, not 0-7")]
    [InlineData(SheetKind.Sentences, SheetVariant.Adding, 2, 10, 0, "choose 1 to 24, not 0")]
    [InlineData(SheetKind.Stories, SheetVariant.Alone, 4, 4, 4, "hold only 0 such stories")]
    public void What_cannot_be_printed_is_refused_with_what_can(SheetKind kind, SheetVariant variant, int low, int high, int count, string says) =>
        Should
            .Throw<RefusedException>(() => SheetMaker.Make(Request(kind, variant, PaperSize.A4) with { Range = new(low, high), Count = count }))
            .Message.ShouldContain(says);

    private static Sheet Make(
        SheetKind kind,
        SheetVariant variant,
        PaperSize paper,
        NumberRange? range = null,
        SheetChild[]? children = null,
        Approach? approach = null
    )
    {
        var request = Request(kind, variant, paper, children);
        return SheetMaker.Make(request with { Range = range ?? request.Range, Approach = approach ?? request.Approach });
    }

    private static SheetRequest Request(SheetKind kind, SheetVariant variant, PaperSize paper, SheetChild[]? children = null)
    {
        var offer = SheetOffer.Of(kind);
        return new(kind, variant, paper, offer.Usual, Math.Max(1, offer.Count), children ?? (offer.EachChild ? Two : []), Approach.Usual, 48213, Made);
    }

    private static bool StaysOn(Picture page, Shape s)
    {
        const double Edge = 5;
        var (width, height) = s.Kind is ShapeKind.Circle or ShapeKind.Text ? (0, 0) : (s.Width, s.Height);
        return s.X >= Edge && s.X + width <= page.Width - Edge && s.Y >= Edge && s.Y + height <= page.Height - Edge;
    }

    private static string TextOf(SheetPage page) => string.Join(' ', page.Picture.Shapes.Where(s => s.Kind == ShapeKind.Text).Select(s => s.Text));
}
