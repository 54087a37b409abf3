using Fobble.Core.Sheets;
using Fobble.Server.Features.Account;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using UglyToad.PdfPig;

namespace Fobble.Server.Tests;

public sealed class AccountTests : IDisposable
{
    private static readonly FirstStart Lead = new(
        School.FirstCode,
        "Rosalind Achterberg",
        "rosalind@kettle-lane.example",
        "nine wagons uphill",
        "Kettle Lane School",
        "Willow",
        null
    );
    private readonly School _school = School.Empty();

    public void Dispose() => _school.Dispose();

    [Fact]
    public async Task The_first_start_makes_the_leads_account_once()
    {
        var visitor = await _school.VisitAsync();
        (await visitor.StateAsync()).ShouldSatisfyAllConditions(s => s.FirstStart.ShouldBeTrue(), s => s.DemoAdults.ShouldBeEmpty());
        (await visitor.PostAsync("/api/account/first-start", Lead)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var state = await visitor.StateAsync();
        state.FirstStart.ShouldBeFalse();
        state.SignedIn!.Classes.ShouldHaveSingleItem().Name.ShouldBe("Willow");
        (await (await _school.VisitAsync()).PostAsync("/api/account/first-start", Lead with { Email = "other@kettle-lane.example" })).StatusCode.ShouldBe(
            HttpStatusCode.Conflict
        );
    }

    [Fact]
    public async Task The_first_account_is_for_whoever_can_read_what_the_server_wrote()
    {
        var stranger = await _school.VisitAsync();
        foreach (var guess in new[] { "", "green", "green lanterns", "0000-0000-0000" })
        {
            var refused = await stranger.PostAsync("/api/account/first-start", Lead with { Code = guess });
            refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest, guess);
            (await refused.Content.ReadAsStringAsync()).ShouldContain("\"code\"");
        }

        (await stranger.StateAsync()).FirstStart.ShouldBeTrue();
        (await stranger.PostAsync("/api/account/first-start", Lead with { Code = "Green-Lantern " })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public void A_code_is_thrown_and_written_where_none_is_set()
    {
        StringWriter[] said = [new(), new()];
        foreach (var writer in said)
        {
            FirstCode code = new(new FobbleSettings());
            code.Tell(writer);
            var told = writer.ToString().Trim().Split(' ')[^1];
            told.Length.ShouldBe(14);
            (code.Is(told), code.Is(told[..^1])).ShouldBe((true, false));
        }

        said[0].ToString().ShouldNotBe(said[1].ToString());
    }

    [Theory]
    [InlineData("en-US", "en-US", 612, 792)]
    [InlineData("en-ie", "en-IE", 595, 842)]
    [InlineData("de-DE", "en-GB", 595, 842)]
    [InlineData(null, "en-GB", 595, 842)]
    public async Task A_school_writes_days_and_has_paper_as_where_it_is(string? asked, string locale, double width, double height)
    {
        var visitor = await _school.VisitAsync();
        (await visitor.PostAsync("/api/account/first-start", Lead with { Locale = asked })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var own = (await visitor.StateAsync()).SignedIn!.Classes.ShouldHaveSingleItem();
        (own.Locale, own.Paper).ShouldBe((locale, width > 600 ? PaperSize.Letter : PaperSize.A4));

        // Points of paper: A4 is 210 × 297 mm (ISO 216), Letter 8.5 × 11 inches.
        using var pdf = PdfDocument.Open(await (await visitor.GetAsync($"/api/classes/{own.Id}/summary")).Content.ReadAsByteArrayAsync());
        (pdf.GetPage(1).Width, pdf.GetPage(1).Height).ShouldBe((width, height));
    }

    [Theory]
    [InlineData("", "r@kettle.example", "nine wagons uphill", "fullName")]
    [InlineData("R", "nonsense", "nine wagons uphill", "email")]
    [InlineData("R", "r@kettle.example", "short", "password")]
    public async Task A_refused_first_start_names_the_field_and_leaves_nothing_behind(string name, string email, string password, string field)
    {
        var visitor = await _school.VisitAsync();
        var refused = await visitor.PostAsync("/api/account/first-start", Lead with { FullName = name, Email = email, Password = password });
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await refused.Content.ReadAsStringAsync()).ShouldContain($"\"{field}\"");
        using var scope = _school.Scope();
        _school.Db(scope).Users.ShouldBeEmpty();
        _school.Db(scope).Schools.ShouldBeEmpty();
    }

    [Fact]
    public async Task Signing_in_and_out_works_and_an_unknown_address_is_answered_like_a_wrong_password()
    {
        await (await _school.VisitAsync()).PostAsync("/api/account/first-start", Lead);
        var visitor = await _school.VisitAsync();
        var unknown = await visitor.PostAsync("/api/account/sign-in", new SignIn("nobody@kettle-lane.example", Lead.Password));
        var wrong = await visitor.PostAsync("/api/account/sign-in", new SignIn(Lead.Email, "wrong"));
        (await Visitor.SaysAsync(unknown)).ShouldBe(await Visitor.SaysAsync(wrong));
        (await visitor.PostAsync("/api/account/sign-in", new SignIn(Lead.Email, Lead.Password))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await visitor.StateAsync()).SignedIn!.FullName.ShouldBe(Lead.FullName);
        (await visitor.PostAsync("/api/account/sign-out")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await visitor.StateAsync()).SignedIn.ShouldBeNull();
    }

    [Fact]
    public async Task Outside_the_demo_its_adults_do_not_exist() =>
        (await (await _school.VisitAsync()).PostAsync("/api/account/demo/ines")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
}
