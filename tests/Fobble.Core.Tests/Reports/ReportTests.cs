using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Portraits;
using Fobble.Core.Reports;
using Fobble.Core.Sessions;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;
using static Fobble.Core.Evidence.Support;
using static Fobble.Core.Tests.Evidence.Record;

namespace Fobble.Core.Tests.Reports;

public class ReportTests
{
    private static readonly ActivityLibrary Library = ActivityLoader.Shipped(Map);

    [Fact]
    public void Every_skill_has_one_thing_to_try_at_home() => Map.Skills.ShouldAllBe(s => HomeTips.For(s.Id, Wording.Usual) != null);

    [Fact]
    public void Tips_speak_the_classs_words_and_name_no_material_of_a_school()
    {
        var tips = Map.Skills.Select(s => HomeTips.For(s.Id, Wording.Usual)!).Distinct().ToList();
        tips.ShouldAllBe(t => !t.Contains('{') && t.EndsWith('.') || t.EndsWith('?'));
        foreach (var word in new[] { "counter", "linking", "ten frame", "card" })
        {
            tips.ShouldAllBe(t => !t.Contains(word, StringComparison.OrdinalIgnoreCase));
        }
    }

    [Fact]
    public void The_family_reads_what_is_new_what_is_there_and_what_comes_next_in_plain_words()
    {
        var page = Family(since: 20, [.. SecureOn(0, OneWay), .. SecureOn(21, TwoWays)]);
        page.New.ShouldBe([TwoWays.ICan]);
        page.Can.Single().Can.ShouldBe([OneWay.ICan]);
        page.Working.Count.ShouldBe(4);
        page.Working.ShouldAllBe(w => w.StartsWith("to "));
        page.Home.Count.ShouldBeInRange(1, 3);
    }

    [Fact]
    public void What_was_learned_is_seen_in_a_picture_that_stays_clear_of_the_words()
    {
        var told = Map.Skills.Where(s => SkillPicture.Of(s.Id, Library, Approach.Usual) is not null).ToList();
        told.Count.ShouldBeGreaterThan(Map.Skills.Count / 2);
        foreach (var size in Enum.GetValues<PaperSize>())
        {
            foreach (var skill in told)
            {
                var page = Family(since: 20, SecureOn(21, skill));
                page.Learned.ShouldNotBeNull();
                var paper = Paper.Of(size);
                var shapes = page.ToSheet(size).Pages[0].Picture.Shapes;
                shapes.ShouldAllBe(s => s.X <= paper.Width && s.Y <= paper.Height);
            }
        }

        Family(since: 0, []).Learned.ShouldBeNull();
    }

    [Fact]
    public void No_word_on_the_page_compares_ranks_or_names_a_difficulty()
    {
        var page = Family(since: 0, [.. SecureOn(0, OneWay), Saw(9, NotYet, slip: TwoWays.Slips[0].Id)]);
        var words = string.Join(' ', page.ToSheet(PaperSize.A4).Pages.SelectMany(p => p.Picture.Shapes).Select(s => s.Text ?? ""));
        foreach (var forbidden in new[] { "other children", "average", "behind", "strength", "secure", "belief", "%", "level", "slip", "expected", "below" })
        {
            words.ShouldNotContain(forbidden, Case.Insensitive);
        }

        words.ShouldContain("For the family of Kofi M.");
    }

    [Fact]
    public void A_child_of_whom_nothing_is_known_yet_has_a_kind_page()
    {
        var page = Family(since: 0, []);
        var words = string.Join(' ', page.ToSheet(PaperSize.A4).Pages.SelectMany(p => p.Picture.Shapes).Select(s => s.Text ?? ""));
        words.ShouldContain("We have just begun to watch and note.");
    }

    [Fact]
    public void Photos_keep_within_their_page_and_follow_the_text()
    {
        var sheet = Family(since: 0, [.. SecureOn(0, OneWay)]).ToSheet(PaperSize.A4, [.. Enumerable.Repeat(new ReportPhoto([1], "a drawing"), 7)]);
        sheet.Pages.Sum(p => p.Photos.Count).ShouldBe(7);
        foreach (var photo in sheet.Pages.SelectMany(p => p.Photos))
        {
            (photo.X + photo.Width).ShouldBeLessThanOrEqualTo(210 - 14 + 0.01);
            (photo.Y + photo.Height).ShouldBeLessThanOrEqualTo(297 - 9);
        }
    }

    [Fact]
    public void I_can_becomes_an_aim()
    {
        FamilyPage.Aim("I can count back from ten.").ShouldBe("to count back from ten");
        FamilyPage.Aim("I know doubles to double five.").ShouldBe("to know doubles to double five");
    }

    [Fact]
    public void The_summary_of_a_class_names_no_child_and_says_what_most_can_and_what_has_begun()
    {
        List<Observation> seen = [];
        for (var child = 1; child <= 10; child++)
        {
            seen.AddRange(SecureOn(0, OneWay, child));
            seen.AddRange(child <= 5 ? SecureOn(5, Map[new("count.say-10")], child) : [Saw(6, Prompted, skill: Map[new("count.touch-5")], child: child)]);
        }

        ClassEvidence evidence = new(
            Map,
            Calendar,
            EvidenceSettings.Default,
            [.. Enumerable.Range(1, 10).Select(i => new ChildId(i))],
            seen.OrderBy(o => o.At),
            SchoolDay(12)
        );
        var summary = ClassSummary.Of("Rowan", evidence, SchoolDay(4));
        summary.Opening.ShouldStartWith("Ten children. Since 11 September five skills have become secure, all children together");
        var counting = summary.Strands.Single(s => s.Strand == "Counting").Sentences;
        counting.ShouldBe([
            "Nearly all can do this: say the numbers to five in order.",
            "Five of ten can do this: say the numbers to ten in order.",
            "Just begun: touch and count five things.",
        ]);
        summary.ToSheet(PaperSize.Letter).Pages.Count.ShouldBeGreaterThanOrEqualTo(1);
    }

    private static FamilyPage Family(int since, IReadOnlyList<Observation> seen)
    {
        ClassEvidence evidence = new(Map, Calendar, EvidenceSettings.Default, [new(1)], seen.OrderBy(o => o.At), SchoolDay(30));
        return FamilyPage.Of("Kofi M.", "Rowan", evidence, new ChildPortrait(evidence, Library, new(1)), new(1), SchoolDay(since), Wording.Usual, s =>
            SkillPicture.Of(s, Library, Approach.Usual)
        );
    }

    private static Observation[] SecureOn(int day, Skill skill, int child = 1) =>
        [.. Enumerable.Range(0, 4).Select(i => Saw(day + i, Alone, skill.ShownIn[i % skill.ShownIn.Count], skill: skill, child: child))];
}
