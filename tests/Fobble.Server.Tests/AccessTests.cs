using System.Text;
using System.Text.RegularExpressions;
using Fobble.Data.Model;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>Who may see and do what, at every address there is.</summary>
public class AccessTests(School school) : IClassFixture<School>
{
    private const int Rowan = 1;
    private const int Alder = 2;

    /// <summary>Every address below a class, with the values of Alder.</summary>
    private IEnumerable<(HttpMethod Method, string Path, Endpoint Endpoint)> OfAlder() =>
        school
            .Services.GetRequiredService<IEnumerable<EndpointDataSource>>()
            .SelectMany(s => s.Endpoints)
            .OfType<RouteEndpoint>()
            .Where(e => e.RoutePattern.RawText!.StartsWith("/api/classes/", StringComparison.Ordinal))
            .SelectMany(e =>
                e.Metadata.GetMetadata<HttpMethodMetadata>()!.HttpMethods.Select(m => (new HttpMethod(m), Filled(e.RoutePattern.RawText!), (Endpoint)e))
            );

    private static Task<HttpResponseMessage> KnockAsync(Visitor visitor, HttpMethod method, string path) =>
        visitor.SendAsync(method, path, method == HttpMethod.Get || method == HttpMethod.Delete ? null : new StringContent("{}", Encoding.UTF8, TypeOf(path)));

    // Addresses that take a file take no other type.
    private static string TypeOf(string path) =>
        path.Contains("class-list", StringComparison.Ordinal)
        || path.Contains("records/csv", StringComparison.Ordinal)
        || path.Contains("cupboard/file", StringComparison.Ordinal)
            ? "text/csv"
        : path.EndsWith("photo", StringComparison.Ordinal) ? "image/jpeg"
        : path.Contains("map/file", StringComparison.Ordinal) || path.Contains("calendar/closures", StringComparison.Ordinal) ? "application/octet-stream"
        : path.Contains("activities/file", StringComparison.Ordinal) ? "application/yaml"
        : "application/json";

    private static string Filled(string pattern) =>
        Regex
            .Replace(pattern, @"\{(\w+)(:[^}]*)?\}", m => m.Groups[1].Value switch
                {
                    "classId" => $"{Alder}",
                    "day" => "2026-11-25",
                    "skillId" => "see.to-3",
                    "id" => m.Value.Contains("guid", StringComparison.Ordinal) ? Guid.NewGuid().ToString() : "1",
                    _ => "30",
                })
            .TrimEnd('/');

    [Fact]
    public async Task Nobody_reaches_a_class_that_is_not_theirs_by_any_address()
    {
        var ines = await school.ComeInAsAsync("ines");
        var addresses = OfAlder().ToList();
        addresses.Count.ShouldBeGreaterThan(20);
        foreach (var (method, path, _) in addresses)
        {
            (await KnockAsync(ines, method, path)).StatusCode.ShouldBe(HttpStatusCode.Forbidden, $"{method} {path}");
        }
    }

    [Fact]
    public async Task Who_is_not_signed_in_reaches_no_class_at_all()
    {
        var stranger = await school.VisitAsync();
        foreach (var (method, path, _) in OfAlder())
        {
            (await KnockAsync(stranger, method, path)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized, $"{method} {path}");
        }
    }

    // Who sees the class has an address of their own there, and changes nothing of the class with it.
    private const string OnesOwn = "/calendar/address";

    [Fact]
    public void Every_address_that_changes_a_class_asks_for_more_than_seeing_it()
    {
        foreach (var (method, path, endpoint) in OfAlder().Where(a => a.Method != HttpMethod.Get && !a.Path.EndsWith(OnesOwn, StringComparison.Ordinal)))
        {
            var policies = endpoint.Metadata.GetOrderedMetadata<IAuthorizeData>().Select(a => a.Policy).ToList();
            policies.ShouldContain(p => p == "lead the class" || p == "record in the class" || p == "lead the school", $"{method} {path}");
        }
    }

    [Theory]
    [InlineData("tomasz", "/api/classes/1/weeks/2026-12-02/plan", HttpStatusCode.Forbidden)]
    [InlineData("tomasz", "/api/classes/1/class-list", HttpStatusCode.Forbidden)]
    [InlineData("maeve", "/api/classes/1/weeks/2026-12-02/plan", HttpStatusCode.Forbidden)]
    [InlineData("maeve", "/api/classes/1/observations", HttpStatusCode.Forbidden)]
    [InlineData("maeve", "/api/classes/2/weeks/2026-12-02/plan", HttpStatusCode.OK)]
    public async Task Roles_may_do_what_is_theirs(string adult, string path, HttpStatusCode expected) =>
        (await KnockAsync(await school.ComeInAsAsync(adult), HttpMethod.Post, path)).StatusCode.ShouldBe(expected);

    [Fact]
    public async Task A_child_or_session_of_another_class_is_not_found_through_ones_own()
    {
        using var scope = school.Scope();
        var db = school.Db(scope);
        var child = db.Children.First(c => c.ClassId == Alder).Id;
        var session = db.GroupSessions.First(s => s.ClassId == Alder).Id;
        var ines = await school.ComeInAsAsync("ines");
        (await ines.GetAsync($"/api/classes/{Rowan}/children/{child}/skills/see.to-3")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await ines.GetAsync($"/api/classes/{Rowan}/sessions/{session}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await ines.PutAsync($"/api/classes/{Rowan}/attendance/2026-11-25/{child}", new { away = true })).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        db.Absences.Any(a => a.ChildId == child && a.Day == School.Today).ShouldBeFalse();
    }

    [Theory]
    [InlineData("tomasz", "records/csv")]
    [InlineData("maeve", "records/statements")]
    [InlineData("tomasz", "children/1/file")]
    [InlineData("maeve", "children/1/family-page")]
    public async Task What_carries_names_out_of_the_house_is_the_lead_teachers(string adult, string path) =>
        (await (await school.ComeInAsAsync(adult)).GetAsync($"/api/classes/1/{path}")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);

    [Fact]
    public async Task What_changes_something_needs_the_token_of_our_own_page()
    {
        var ines = await school.ComeInAsAsync("ines");
        ines.SendsToken = false;
        var refused = await ines.PostAsync($"/api/classes/{Rowan}/weeks/2026-12-02/plan");
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await Visitor.SaysAsync(refused)).ShouldContain("nothing was changed");
    }

    [Fact]
    public async Task Pages_carry_headers_that_forbid_scripts_from_elsewhere_and_frames()
    {
        var response = await (await school.VisitAsync()).GetAsync("/health");
        var csp = response.Headers.GetValues("Content-Security-Policy").Single();
        csp.ShouldContain("script-src 'self'");
        csp.ShouldNotContain("unsafe");
        csp.ShouldContain("frame-ancestors 'none'");
        response.Headers.GetValues("X-Content-Type-Options").Single().ShouldBe("nosniff");
    }

    [Fact]
    public async Task An_unknown_address_is_a_problem_in_words() =>
        (await Visitor.SaysAsync(await (await school.ComeInAsAsync("ines")).GetAsync("/api/nowhere"))).ShouldBe("There is nothing at this address.");

    [Fact]
    public async Task Health_and_the_OpenAPI_document_are_served()
    {
        var visitor = await school.VisitAsync();
        (await (await visitor.GetAsync("/health")).Content.ReadAsStringAsync()).ShouldContain("Healthy");
        (await (await visitor.GetAsync("/openapi/v1.json")).Content.ReadAsStringAsync()).ShouldContain("/api/classes/{classId}/observations");
    }
}
