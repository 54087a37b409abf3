using System.Text;
using Fobble.Core.Calendars;
using Fobble.Core.Skills;
using Fobble.Server.Features.ClassGrid;
using Fobble.Server.Features.SkillMaps;

namespace Fobble.Server.Tests;

/// <summary>A school's own map: shown with the class's strengths, changed by its lead teachers, taken from and written to files.</summary>
public class SkillMapsTests(School school) : IClassFixture<School>
{
    private const string Map = "/api/classes/1/map";

    private static MapWritten Of(MapSkillView skill) => skill.Written;

    [Fact]
    public async Task The_map_shows_the_class_and_a_child()
    {
        var ines = await school.ComeInAsAsync("ines");
        var map = await ines.ReadAsync<MapView>(Map);
        map.Strands.Count.ShouldBe(8);
        map.Skills.Count.ShouldBeGreaterThanOrEqualTo(130);
        map.Skills.ShouldContain(s => s.Has > 0 && s.InWords.Contains("have it", StringComparison.Ordinal));
        var child = map.Children[2];
        var grid = await ines.ReadAsync<Grid>("/api/classes/1/grid");
        var row = grid.Children.Single(c => c.Id == child.Id);
        var ofChild = await ines.ReadAsync<MapView>($"{Map}?childId={child.Id}");
        ofChild.Skills.Where(s => !s.Hidden).ShouldAllBe(s => s.Strength == row.Marks[grid.Skills.ToList().FindIndex(g => g.Id == s.Id)].Strength);
        var other = (await (await school.ComeInAsAsync("maeve")).ReadAsync<MapView>("/api/classes/2/map")).Children[0].Id;
        (await ines.GetAsync($"{Map}?childId={other}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task A_skill_tells_what_it_needs_opens_serves_and_who_is_ready()
    {
        var skill = await (await school.ComeInAsAsync("tomasz")).ReadAsync<MapSkillView>($"{Map}/skills/count.how-many-5");
        skill.Needs.Select(n => n.Id).ShouldBe(["count.touch-5"]);
        skill.Opens.Select(n => n.Id).ShouldContain("count.give-5");
        skill.Activities.Count.ShouldBeGreaterThanOrEqualTo(2);
        skill.Standards.ShouldContain(s => s.Code == "K.CC.B.4b" && s.Text.Length > 10);
        skill.Ready.Count.ShouldBeLessThanOrEqualTo(skill.Children);
    }

    [Fact]
    public async Task A_hidden_skill_leaves_the_plans_and_comes_back_with_what_was_seen_of_it()
    {
        var ines = await school.ComeInAsAsync("ines");
        var before = await ines.ReadAsync<MapSkillView>($"{Map}/skills/see.to-3");
        before.Has.ShouldBeGreaterThan(0);
        (await ines.PutAsync($"{Map}/skills/see.to-3", Of(before) with { Hidden = true })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.ReadAsync<Grid>("/api/classes/1/grid")).Skills.ShouldNotContain(s => s.Id == "see.to-3");
        (await ines.ReadAsync<MapSkillView>($"{Map}/skills/see.to-5")).Needs.ShouldBeEmpty();

        // Weeks, cards and clipboards of the past still speak of it.
        (await ines.GetAsync("/api/classes/1/weeks/2026-10-05")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await ines.GetAsync("/api/classes/1/days/2026-10-05/carpet")).StatusCode.ShouldBe(HttpStatusCode.OK);

        // The other class of the school has the same map.
        (await (await school.ComeInAsAsync("maeve")).ReadAsync<MapView>("/api/classes/2/map")).Skills.Single(s => s.Id == "see.to-3").Hidden.ShouldBeTrue();
        (await ines.SendAsync(HttpMethod.Delete, $"{Map}/skills/see.to-3/change")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.ReadAsync<MapSkillView>($"{Map}/skills/see.to-3")).Has.ShouldBe(before.Has);
    }

    [Fact]
    public async Task Season_words_and_links_can_be_changed_and_a_circle_is_refused_with_its_way()
    {
        var ines = await school.ComeInAsAsync("ines");
        var skill = await ines.ReadAsync<MapSkillView>($"{Map}/skills/bond.hidden-5");
        (
            await ines.PutAsync($"{Map}/skills/bond.hidden-5", Of(skill) with { When = Season.Summer, Words = ["peep", " lid "], Needs = ["bond.split-4"] })
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.ReadAsync<MapSkillView>($"{Map}/skills/bond.hidden-5")).When.ShouldBe(Season.Summer);
        (
            await ines.PutAsync(
                $"{Map}/skills/bond.recall-5",
                Of(await ines.ReadAsync<MapSkillView>($"{Map}/skills/bond.recall-5")) with
                {
                    Words = ["peep", " lid "],
                    Needs = ["bond.all-5"],
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var changed = await ines.ReadAsync<MapSkillView>($"{Map}/skills/bond.recall-5");
        (changed.Changed, changed.Words, changed.Needs.Single().Id).ShouldBe((true, ["peep", "lid"], "bond.all-5"), Comparer);
        var all = await ines.ReadAsync<MapSkillView>($"{Map}/skills/bond.all-5");
        var circle = await ines.PutAsync($"{Map}/skills/bond.all-5", Of(all) with { Needs = ["bond.recall-5"] });
        circle.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await Visitor.SaysAsync(circle)).ShouldContain("It would be a circle");
        (await ines.ReadAsync<MapSkillView>($"{Map}/skills/bond.all-5")).Needs.Select(n => n.Id).ShouldBe(all.Needs.Select(n => n.Id));
        (await (await school.ComeInAsAsync("tomasz")).PutAsync($"{Map}/skills/bond.all-5", Of(all))).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    private static readonly IEqualityComparer<(bool, IReadOnlyList<string>, string)> Comparer = EqualityComparer<(bool, IReadOnlyList<string>, string)>.Create(
        (a, b) => a.Item1 == b.Item1 && a.Item2.SequenceEqual(b.Item2) && a.Item3 == b.Item3
    );

    [Fact]
    public async Task A_skill_of_theschools_own_is_added_recorded_and_kept_while_records_speak_of_it()
    {
        var ines = await school.ComeInAsAsync("ines");
        NewMapSkill lemons = new(
            "count",
            "Count lemons",
            "I can count lemons.",
            ["count.how-many-5"],
            Season.Autumn,
            1,
            8,
            [Representation.Objects],
            "Touches each",
            "Squeezes one",
            "Touched each",
            ["lemon"]
        );
        var added = await Visitor.ReadAsync<MapSkillAdded>(await ines.PostAsync($"{Map}/skills", lemons));
        added.Id.ShouldBe("own.count-lemons");
        (await ines.ReadAsync<Grid>("/api/classes/1/grid")).Skills.ShouldContain(s => s.Id == added.Id);
        (await Visitor.SaysAsync(await ines.PostAsync($"{Map}/skills", lemons with { ICan = "Counts lemons" }))).ShouldContain("should begin with 'I can'");
        (await Visitor.SaysAsync(await ines.PostAsync($"{Map}/skills", lemons with { Needs = ["count.gone"] }))).ShouldContain(
            "There is no skill 'count.gone'"
        );
        (await Visitor.SaysAsync(await ines.PostAsync($"{Map}/skills", lemons with { Low = 9 }))).ShouldContain("the smaller first");

        // No activity serves it: it is neither planned nor grouped, and nothing falls over.
        (await ines.PostAsync("/api/classes/1/weeks/2026-12-02/plan")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await ines.PostAsync("/api/classes/1/weeks/2026-12-02/groups/proposal", Fobble.Server.Features.Groups.GroupsAsk.Nothing)).StatusCode.ShouldBeOneOf(
            HttpStatusCode.OK,
            HttpStatusCode.BadRequest
        );
        (await ines.SendAsync(HttpMethod.Delete, $"{Map}/skills/{added.Id}/change")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.GetAsync($"{Map}/skills/{added.Id}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Theory]
    [InlineData("case")]
    [InlineData("csv")]
    public async Task A_map_written_to_a_file_and_taken_again_is_the_same_map(string form)
    {
        var ines = await school.ComeInAsAsync("ines");
        var skill = await ines.ReadAsync<MapSkillView>($"{Map}/skills/bond.diagram");
        await ines.PutAsync($"{Map}/skills/bond.diagram", Of(skill) with { When = Season.Summer, Hidden = true });
        var file = await (await ines.GetAsync($"{Map}/file/{form}")).Content.ReadAsByteArrayAsync();
        await ines.SendAsync(HttpMethod.Delete, $"{Map}/skills/bond.diagram/change");
        (await PreviewAsync(ines, file)).Hidden.ShouldBe([skill.Short]);
        (await SendFileAsync(ines, file, "")).StatusCode.ShouldBe(HttpStatusCode.OK);
        var back = await ines.ReadAsync<MapSkillView>($"{Map}/skills/bond.diagram");
        (back.Hidden, back.When).ShouldBe((true, Season.Summer));
        var again = await PreviewAsync(ines, file);
        (again.New.Count, again.Changed.Count, again.Hidden.Count, again.CanBeTaken).ShouldBe((0, 0, 0, true));
    }

    [Fact]
    public async Task A_file_that_would_make_a_circle_changes_nothing()
    {
        var ines = await school.ComeInAsAsync("ines");
        var csv = await (await ines.GetAsync($"{Map}/file/csv")).Content.ReadAsStringAsync();
        var wrong = csv.Replace(",count.say-5,Autumn", ",count.back-10,Autumn", StringComparison.Ordinal);
        wrong.ShouldNotBe(csv);
        var preview = await PreviewAsync(ines, Encoding.UTF8.GetBytes(wrong));
        preview.CanBeTaken.ShouldBeFalse();
        preview.Faults.ShouldContain(f => f.Reason.Contains("circle", StringComparison.Ordinal));
        (await SendFileAsync(ines, Encoding.UTF8.GetBytes(wrong), "")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await PreviewAsync(ines, Encoding.UTF8.GetBytes(csv))).Changed.ShouldBeEmpty();
    }

    private static async Task<MapFilePreview> PreviewAsync(Visitor ines, byte[] file) =>
        await Visitor.ReadAsync<MapFilePreview>(await SendFileAsync(ines, file, "/preview"));

    private static Task<HttpResponseMessage> SendFileAsync(Visitor ines, byte[] file, string end) =>
        ines.SendAsync(HttpMethod.Post, $"{Map}/file{end}", new ByteArrayContent(file) { Headers = { { "Content-Type", "application/octet-stream" } } });
}
