using System.Text;
using Fobble.Core.Activities;
using Fobble.Server.Features.Activities;
using Fobble.Server.Features.ClassApproach;
using Fobble.Server.Features.Cupboard;
using Fobble.Server.Features.Week;

namespace Fobble.Server.Tests;

/// <summary>The library over the wire: questions, activities of one's own, and the way into the plan.</summary>
public class ActivitiesTests(School school) : IClassFixture<School>
{
    private const string Library = "/api/classes/1/activities";

    [Fact]
    public async Task A_question_is_answered_from_the_cupboard_of_the_class()
    {
        var ines = await school.ComeInAsAsync("ines");
        var all = await ines.ReadAsync<LibraryView>(Library);
        all.Found.Count.ShouldBe(all.All);
        var found = (
            await ines.ReadAsync<LibraryView>(
                $"{Library}?text=hidden%20part%20to%207&minutes=10&children=4&nothingToPrint=true&onlyOwned=true&without=ten-frames"
            )
        ).Found;
        found.Select(f => f.Id).ShouldContain("under-the-lid");
        found.ShouldAllBe(f => f.Minutes <= 10 && f.Least <= 4 && f.Most >= 4 && !f.Prints && f.Short == null);

        // Without cloths and lids nothing covers the part.
        await ines.PutAsync("/api/classes/1/cupboard/things/cloths", new StockCount(0));
        await ines.PutAsync("/api/classes/1/cupboard/things/lids", new StockCount(0));
        (await ines.ReadAsync<LibraryView>($"{Library}?text=hidden%20part%20to%207&onlyOwned=true")).Found.ShouldNotContain(f => f.Id == "under-the-lid");
        (await ines.ReadAsync<LibraryView>($"{Library}?text=hidden%20part%20to%207"))
            .Found.Single(f => f.Id == "under-the-lid")
            .Short.ShouldBe("1 cloths short");
        await ines.PutAsync("/api/classes/1/cupboard/things/cloths", new StockCount(4));
    }

    [Fact]
    public async Task Every_activity_has_its_page_and_its_mat_and_sheet_are_there()
    {
        var ines = await school.ComeInAsAsync("ines");
        HashSet<string> mats =
        [
            "sums",
            "story",
            "look",
            "path",
            "kinds",
            "dice",
            "shakes",
            "jar",
            .. Enum.GetNames<Fobble.Core.Mats.MatKind>().Select(k => $"counters/{k}"),
        ];
        foreach (var activity in ActivityLoader.AsWritten)
        {
            var page = await ines.ReadAsync<ActivityView>($"{Library}/{activity.Id}?children=5");
            page.Sample.Count.ShouldBe(6, activity.Id.Value);
            page.Children.ShouldBe(5);
            mats.ShouldContain(page.Mat, activity.Id.Value);
            (
                await ines.GetAsync(
                    $"/api/classes/1/sheets/made?kind={page.Print.Kind}&variant={page.Print.Variant}&low={page.Print.Low}&high={page.Print.High}&seed=1"
                )
            ).StatusCode.ShouldBe(HttpStatusCode.OK, activity.Id.Value);
        }

        (await ines.GetAsync($"{Library}/gone")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task An_activity_is_changed_handed_on_and_taken_back()
    {
        var ines = await school.ComeInAsAsync("ines");
        var written = await ines.ReadAsync<ActivityEntry>($"{Library}/handful/written");
        (await ines.PutAsync($"{Library}/handful", written with { Name = "Handful of bells", Minutes = 9 })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var page = await ines.ReadAsync<ActivityView>($"{Library}/handful");
        (page.Name, page.Minutes, page.Own).ShouldBe(("Handful of bells", 9, true));
        var file = await (await ines.GetAsync($"{Library}/handful/file")).Content.ReadAsByteArrayAsync();
        (await ines.SendAsync(HttpMethod.Delete, $"{Library}/handful")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.ReadAsync<ActivityView>($"{Library}/handful")).Name.ShouldBe("Handful");
        var taken = await Visitor.ReadAsync<ActivitiesTaken>(await SendAsync(ines, file));
        taken.Names.ShouldBe(["Handful of bells"]);
        (await ines.ReadAsync<ActivityView>($"{Library}/handful")).Name.ShouldBe("Handful of bells");
        (await (await school.ComeInAsAsync("tomasz")).PutAsync($"{Library}/handful", written)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task A_changed_activity_still_speaks_each_classs_words()
    {
        var (ines, maeve) = (await school.ComeInAsAsync("ines"), await school.ComeInAsAsync("maeve"));
        var approach = (await maeve.ReadAsync<ApproachView>("/api/classes/2/approach")).Choice;
        await maeve.PatchAsync("/api/classes/2/approach", approach with { FewerWord = Fobble.Core.Numbers.FewerWord.Less });
        var written = await maeve.ReadAsync<ActivityEntry>("/api/classes/2/activities/next-door/written");
        written.Say.ShouldContain("One {fewer} than … is …");
        await maeve.PutAsync("/api/classes/2/activities/next-door", written with { Minutes = 2 });
        (await ines.ReadAsync<ActivityView>($"{Library}/next-door")).Say.ShouldContain("One fewer than … is …");
        var other = await maeve.ReadAsync<ActivityView>("/api/classes/2/activities/next-door");
        other.Say.ShouldContain("One less than … is …");
        (other.Minutes, other.Own).ShouldBe((2, true));
    }

    [Fact]
    public async Task What_is_wrong_with_an_activity_is_said_and_nothing_is_taken()
    {
        var ines = await school.ComeInAsAsync("ines");
        var written = await ines.ReadAsync<ActivityEntry>($"{Library}/handful/written");
        (await Visitor.SaysAsync(await ines.PutAsync($"{Library}/own-mine", written with { Steps = [] }))).ShouldContain("steps is missing");
        (await Visitor.SaysAsync(await ines.PutAsync($"{Library}/own-mine", written with { GroupSize = "some" }))).ShouldContain("no range of numbers");
        var file = ActivityLoader.Write([.. ActivityLoader.AsWritten.Take(2)]).Replace("item: counters-two-sided", "item: gongs", StringComparison.Ordinal);
        var refused = await SendAsync(ines, Encoding.UTF8.GetBytes(file));
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await Visitor.SaysAsync(refused)).ShouldContain("no item 'gongs'");
        (await SendAsync(ines, [0xFF, 0xFE, 0x7B])).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.ReadAsync<LibraryView>(Library)).Found.ShouldNotContain(f => f.Id == "own-mine");
    }

    [Fact]
    public async Task An_activity_of_ones_own_serves_and_stays_while_the_plan_speaks_of_it()
    {
        var ines = await school.ComeInAsAsync("ines");
        var written = await ines.ReadAsync<ActivityEntry>($"{Library}/under-the-lid/written");
        (
            await ines.PutAsync(
                $"{Library}/own-under-the-hat",
                written with
                {
                    Name = "Under the hat",
                    Skills = [new ActivitySkillEntry { Id = "bond.hidden-10" }, new ActivitySkillEntry { Id = "numeral.name-5" }],
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.ReadAsync<ActivityView>($"{Library}/own-under-the-hat"))
            .Skills.Select(s => (s.Id, $"{s.Items}", s.Numbers))
            .ShouldBe([("bond.hidden-10", "HiddenPart", "6-10"), ("numeral.name-5", "TornTicket", "1-5")]);
        (
            await ines.PutAsync("/api/classes/1/days/2026-11-26/plan/activity", new PutIntoPlan("own-under-the-hat", "bond.hidden-10", Place.Carpet))
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await Visitor.SaysAsync(await ines.SendAsync(HttpMethod.Delete, $"{Library}/own-under-the-hat"))).ShouldContain("so it stays");
    }

    [Fact]
    public async Task What_is_put_into_the_plan_is_there_and_on_the_list_of_what_to_set_out()
    {
        var ines = await school.ComeInAsAsync("ines");
        const string Day = "/api/classes/1/days/2026-11-25";
        foreach (
            var (activity, skill, place) in new[]
            {
                ("under-the-lid", "bond.all-7", Place.Carpet),
                ("shake-and-spill", "bond.all-7", Place.Choice),
                ("partner-numbers", "bond.recall-5", Place.Transition),
                ("frame-flash", "see.five-frame", Place.Starter),
            }
        )
        {
            (await ines.PutAsync($"{Day}/plan/activity", new PutIntoPlan(activity, skill, place))).StatusCode.ShouldBe(HttpStatusCode.NoContent, activity);
        }

        var day = (await ines.ReadAsync<WeekView>("/api/classes/1/weeks/2026-11-25")).Days.Single(d => d.Day == School.Today);
        (day.Focus!.Activity.Name, day.Focus.Skill, day.Focus.Reason).ShouldBe(("Under the lid", "bond.all-7", "Chosen by hand."));
        (day.Choice!.Name, day.Transition!.Name).ShouldBe(("Shake and spill", "Partner numbers"));
        day.Starters.ShouldContain(s => s.Activity.Name == "Frame flash");
        (await ines.ReadAsync<SetOutView>($"{Day}/set-out")).Things.SelectMany(t => t.Shares).Select(s => s.Activity).ShouldContain("Under the lid");

        (await Visitor.SaysAsync(await ines.PutAsync($"{Day}/plan/activity", new PutIntoPlan("under-the-lid", "bond.all-7", Place.Transition)))).ShouldContain(
            "not made for that"
        );
        (await ines.PutAsync($"{Day}/plan/activity", new PutIntoPlan("under-the-lid", "count.say-5", Place.Carpet))).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        (await ines.PutAsync("/api/classes/1/days/2026-11-24/plan/activity", new PutIntoPlan("under-the-lid", "bond.all-7", Place.Carpet))).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest
        );
        (await ines.PutAsync("/api/classes/1/days/2026-12-09/plan/activity", new PutIntoPlan("under-the-lid", "bond.all-7", Place.Carpet))).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
    }

    private static Task<HttpResponseMessage> SendAsync(Visitor ines, byte[] file) =>
        ines.SendAsync(HttpMethod.Post, $"{Library}/file", new ByteArrayContent(file) { Headers = { { "Content-Type", "application/yaml" } } });
}
