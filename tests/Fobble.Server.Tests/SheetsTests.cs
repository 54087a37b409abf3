using System.Text;
using Fobble.Core.Sheets;
using Fobble.Server.Features;
using Fobble.Server.Features.Sheets;

namespace Fobble.Server.Tests;

/// <summary>Sheets follow from their address: the same one gives the same pages, for the children of one's own class only.</summary>
public class SheetsTests(School school) : IClassFixture<School>
{
    private const string Sheets = "/api/classes/1/sheets";
    private const string Sums = "kind=Sentences&variant=Adding&low=2&high=10&count=12&seed=7";

    [Fact]
    public async Task The_shelf_offers_every_kind_with_its_choices()
    {
        var shelf = await (await school.ComeInAsAsync("tomasz")).ReadAsync<SheetChoices>(Sheets);
        shelf.Offers.Select(o => o.Kind).ShouldBe(Enum.GetValues<SheetKind>());
        shelf.Children.Count.ShouldBe(26);
        shelf.Today.ShouldBe(School.Today);
        (await (await school.ComeInAsAsync("tomasz")).ReadAsync<List<ChildName>>("/api/classes/1/children")).ShouldBe(shelf.Children);
        shelf.Groups.ShouldNotBeEmpty();
        shelf.Groups.ShouldAllBe(g => g.Day >= new DateOnly(2026, 11, 23) && g.Children.All(id => shelf.Children.Any(c => c.Id == id)));
    }

    [Fact]
    public async Task Every_kind_in_every_variant_can_be_printed()
    {
        var ines = await school.ComeInAsAsync("ines");
        foreach (var offer in (await ines.ReadAsync<SheetChoices>(Sheets)).Offers)
        {
            foreach (var (variant, _) in offer.Variants)
            {
                var way = $"kind={offer.Kind}&variant={variant}&low={offer.Low}&high={offer.High}&seed=3";
                var made = await ines.ReadAsync<SheetMade>($"{Sheets}/made?{way}");
                var pdf = await ines.GetAsync($"{Sheets}/pdf?{way}");
                pdf.Content.Headers.ContentType!.MediaType.ShouldBe("application/pdf");
                Encoding.ASCII.GetString(await pdf.Content.ReadAsByteArrayAsync(), 0, 5).ShouldBe("%PDF-");
                (await ines.GetAsync($"{Sheets}/pages/{made.Pages}/svg?{way}")).Content.Headers.ContentType!.MediaType.ShouldBe("image/svg+xml");
                (await ines.GetAsync($"{Sheets}/pages/{made.Pages + 1}/svg?{way}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
            }
        }
    }

    [Fact]
    public async Task A_group_gets_a_page_each_with_names_and_the_same_sheet_can_be_made_again()
    {
        var ines = await school.ComeInAsAsync("ines");
        var three = string.Join(',', (await ines.ReadAsync<SheetChoices>(Sheets)).Children.Take(3).Select(c => c.Id));
        var way = $"{Sums}&children={three}&on=2026-11-20";
        var made = await ines.ReadAsync<SheetMade>($"{Sheets}/made?{way}");
        made.Pages.ShouldBe(4);
        made.KeyPages.ShouldBe([4]);
        var first = await (await ines.GetAsync($"{Sheets}/pdf?{way}")).Content.ReadAsByteArrayAsync();
        (await (await ines.GetAsync($"{Sheets}/pdf?{way}")).Content.ReadAsByteArrayAsync()).ShouldBe(first);
        var response = await ines.GetAsync($"{Sheets}/pdf?{way}");
        response.Content.Headers.ContentDisposition!.FileName.ShouldBe("number-sentences-to-finish-7.pdf");
    }

    [Fact]
    public async Task A_child_of_another_class_is_not_printed_for()
    {
        using var scope = school.Scope();
        var other = school.Db(scope).Children.First(c => c.ClassId == 2).Id;
        await RefusedAsync($"{Sums}&children={other}", "not in this class");
    }

    [Theory]
    [InlineData("kind=Dominoes&variant=Whole&low=0&high=9&seed=1", "Dominoes go from 0 to 6, not 0-9.")]
    [InlineData("kind=Sentences&variant=Together&low=2&high=10&seed=1", "not to be had as 'together'")]
    [InlineData("kind=Sentences&variant=Adding&low=9&high=2&seed=1", "no range of numbers")]
    [InlineData("kind=Sentences&variant=Adding&low=2&high=10&count=99&seed=1", "choose 1 to 24, not 99")]
    [InlineData("kind=Stories&variant=Alone&low=5&high=10&seed=1&theme=sea", "no theme 'sea'")]
    [InlineData("kind=Sentences&variant=Adding&low=2&high=10&seed=1&on=2027-01-01", "still to come")]
    public async Task What_cannot_be_printed_is_refused_with_a_reason(string way, string says) => await RefusedAsync(way, says);

    private async Task RefusedAsync(string way, string says)
    {
        var ines = await school.ComeInAsAsync("ines");
        foreach (var address in new[] { "made", "pdf", "pages/1/svg" })
        {
            var refused = await ines.GetAsync($"{Sheets}/{address}?{way}");
            refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest, address);
            (await Visitor.SaysAsync(refused)).ShouldContain(says);
        }
    }
}
