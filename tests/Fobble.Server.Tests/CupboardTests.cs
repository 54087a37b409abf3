using System.Text;
using Fobble.Core.Cupboard;
using Fobble.Server.Features.Cupboard;
using Fobble.Server.Features.Sessions;
using Fobble.Server.Features.Today;
using UglyToad.PdfPig;

namespace Fobble.Server.Tests;

/// <summary>What the class owns, what has to be set out, and cautions for the class that needs them only.</summary>
public class CupboardTests(School school) : IClassFixture<School>
{
    private const string Rowan = "/api/classes/1";

    private static IEnumerable<CupboardThing> Things(CupboardView cupboard) => cupboard.Shelves.SelectMany(s => s.Things);

    [Fact]
    public async Task Counts_are_kept_and_only_by_who_leads()
    {
        var ines = await school.ComeInAsAsync("ines");
        (await ines.PutAsync($"{Rowan}/cupboard/things/drum", new StockCount(3))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        Things(await ines.ReadAsync<CupboardView>($"{Rowan}/cupboard")).Single(t => t.Id == "drum").Count.ShouldBe(3);
        (await ines.PutAsync($"{Rowan}/cupboard/things/bell", new StockCount(-1))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.PutAsync($"{Rowan}/cupboard/things/gong", new StockCount(1))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await (await school.ComeInAsAsync("tomasz")).PutAsync($"{Rowan}/cupboard/things/bell", new StockCount(9))).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );
    }

    [Fact]
    public async Task A_kind_of_ones_own_brings_its_own_cautions_and_can_be_taken_out()
    {
        var ines = await school.ComeInAsAsync("ines");
        NewKind seeds = new("Melon seeds", Purpose.Counting, ItemShape.Uneven, "brown", "plant", 12, 8, 5, [Allergen.Nuts], [], 40);
        (await ines.PostAsync($"{Rowan}/cupboard/things", seeds)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        Things(await ines.ReadAsync<CupboardView>($"{Rowan}/cupboard")).Single(t => t.Id == "melon-seeds").Risks.ShouldBe(["Small part", "Nuts"]);
        (await Visitor.SaysAsync(await ines.PostAsync($"{Rowan}/cupboard/things", seeds))).ShouldContain("in the cupboard already");
        (await Visitor.SaysAsync(await ines.PostAsync($"{Rowan}/cupboard/things", seeds with { Name = "Large seeds", Length = 9999 }))).ShouldContain(
            "is no number from"
        );
        (await ines.SendAsync(HttpMethod.Delete, $"{Rowan}/cupboard/things/melon-seeds")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        Things(await ines.ReadAsync<CupboardView>($"{Rowan}/cupboard")).ShouldNotContain(t => t.Id == "melon-seeds");
    }

    [Fact]
    public async Task A_file_of_counts_goes_out_and_comes_in_and_a_fault_changes_nothing()
    {
        var ines = await school.ComeInAsAsync("ines");
        var csv = await (await ines.GetAsync($"{Rowan}/cupboard/file")).Content.ReadAsStringAsync();
        csv.ShouldContain("wooden-lemons,Wooden lemons,Counting,18");
        var more = csv.Replace("Wooden lemons,Counting,18", "Wooden lemons,Counting,20", StringComparison.Ordinal);
        (await Visitor.ReadAsync<StockPreview>(await ines.PostCsvAsync($"{Rowan}/cupboard/file/preview", more))).New.ShouldBe(1);
        (await ines.PostCsvAsync($"{Rowan}/cupboard/file", more)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await ines.PostCsvAsync($"{Rowan}/cupboard/file", "Item,Count\nbell,5\ndrum,many")).StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var things = Things(await ines.ReadAsync<CupboardView>($"{Rowan}/cupboard")).ToList();
        (things.Single(t => t.Id == "wooden-lemons").Count, things.Single(t => t.Id == "bell").Count).ShouldBe((20, 1));
    }

    [Fact]
    public async Task Small_parts_and_allergies_are_warned_of_in_the_class_that_needs_it_and_only_there()
    {
        // Rowan has a child who mouths, and wheat and nuts on its list; Alder has neither.
        var (ines, maeve) = (await school.ComeInAsAsync("ines"), await school.ComeInAsAsync("maeve"));
        (await ines.ReadAsync<CupboardView>($"{Rowan}/cupboard"))
            .Cautions.Select(c => c.Name)
            .ShouldBe(["Small part", "Small ball", "Wheat and gluten", "Food", "Button cell", "On the floor"], ignoreOrder: true);
        (await maeve.ReadAsync<CupboardView>("/api/classes/2/cupboard"))
            .Cautions.Select(c => c.Name)
            .ShouldBe(["Food", "Button cell", "On the floor"], ignoreOrder: true);

        async Task<bool> WarnsAsync(Visitor who, int classId)
        {
            var days = new[] { "2026-11-23", "2026-11-24", "2026-11-25", "2026-11-26", "2026-11-27" };
            var found = false;
            foreach (var day in days)
            {
                var card = await who.ReadAsync<Card>($"/api/classes/{classId}/days/{day}/carpet");
                var today = await who.ReadAsync<TodayView>($"/api/classes/{classId}/days/{day}");
                var setOut = await who.ReadAsync<SetOutView>($"/api/classes/{classId}/days/{day}/set-out");
                found |= card.Cautions.Concat(today.Cautions).Concat(setOut.Cautions).Any(c => c.Name == "Small part");
            }

            return found;
        }

        (await WarnsAsync(ines, 1)).ShouldBeTrue();
        (await WarnsAsync(maeve, 2)).ShouldBeFalse();
        (await maeve.PatchAsync("/api/classes/2/cares", new CaresView(true, [Allergen.Egg]))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await WarnsAsync(maeve, 2)).ShouldBeTrue();
        await maeve.PatchAsync("/api/classes/2/cares", new CaresView(false, []));
    }

    [Fact]
    public async Task A_days_list_says_what_where_how_many_and_what_is_short()
    {
        var ines = await school.ComeInAsAsync("ines");
        var list = await ines.ReadAsync<SetOutView>($"{Rowan}/days/2026-11-25/set-out");
        list.Things.ShouldNotBeEmpty();
        list.Things.ShouldAllBe(t => t.AtOnce > 0 && t.Shares.Count > 0 && t.Shares.All(s => s.Day == School.Today));
        list.PrepareMinutes.ShouldBeGreaterThan(0);
        var week = await ines.ReadAsync<SetOutView>($"{Rowan}/weeks/2026-11-25/set-out");
        week.Things.ShouldContain(t => t.Short != null);
        week.Things.Count.ShouldBeGreaterThanOrEqualTo(list.Things.Count);
        (week.From, week.To).ShouldBe((new DateOnly(2026, 11, 23), new DateOnly(2026, 11, 27)));
        (list.NextSchoolDay, week.NextSchoolDay).ShouldBe((null, null));
        (await ines.ReadAsync<SetOutView>($"{Rowan}/days/2026-11-29/set-out")).NextSchoolDay.ShouldBe(new DateOnly(2026, 11, 30));
        (await ines.ReadAsync<TodayView>($"{Rowan}/days/2026-11-25")).SetOut.Sum(s => s.Amount).ShouldBe(list.Things.Sum(t => t.Shares.Sum(s => s.Amount)));
    }

    [Fact]
    public async Task The_pack_is_one_pdf_with_as_many_pages_as_the_list_says()
    {
        var ines = await school.ComeInAsAsync("ines");
        var week = await ines.ReadAsync<SetOutView>($"{Rowan}/weeks/2026-11-25/set-out");
        week.Pages.ShouldBe(week.Prints.Sum(p => p.Pages));
        var pdf = await ines.GetAsync($"{Rowan}/weeks/2026-11-25/pack");
        pdf.Content.Headers.ContentType!.MediaType.ShouldBe("application/pdf");
        using var read = PdfDocument.Open(await pdf.Content.ReadAsByteArrayAsync());
        read.NumberOfPages.ShouldBe(week.Pages);
        (await ines.GetAsync($"{Rowan}/days/2027-01-04/pack")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }
}
