using System.Text;
using System.Text.RegularExpressions;
using Fobble.Server.Features.SetUp;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>What no school can mean is refused in a sentence at every address, and never a fault.</summary>
public class BadInputTests(School school) : IClassFixture<School>
{
    [Theory]
    [InlineData("0001-01-01")]
    [InlineData("1999-12-31")]
    [InlineData("2101-01-01")]
    [InlineData("9999-12-31")]
    public async Task A_day_out_of_our_time_is_refused_at_every_address_that_takes_one(string day)
    {
        var ines = await school.ComeInAsAsync("ines");
        var addresses = school
            .Services.GetRequiredService<IEnumerable<EndpointDataSource>>()
            .SelectMany(s => s.Endpoints)
            .OfType<RouteEndpoint>()
            .Where(e =>
                e.RoutePattern.RawText!.StartsWith("/api/classes/", StringComparison.Ordinal)
                && e.RoutePattern.RawText.Contains("{day}", StringComparison.Ordinal)
            )
            .SelectMany(e =>
                e.Metadata.GetMetadata<HttpMethodMetadata>()!
                    .HttpMethods.Select(m =>
                        (
                            Method: new HttpMethod(m),
                            Path: Regex.Replace(e.RoutePattern.RawText!.Replace("{day}", day, StringComparison.Ordinal), @"\{\w+(:[^}]*)?\}", "1").TrimEnd('/')
                        )
                    )
            )
            .ToList();
        addresses.Count.ShouldBeGreaterThan(15);
        foreach (var (method, path) in addresses)
        {
            var answer = await ines.SendAsync(method, path, method == HttpMethod.Get ? null : new StringContent("{}", Encoding.UTF8, "application/json"));
            answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest, $"{method} {path}");
        }

        foreach (var asked in new[] { $"trail?from={day}", $"records/csv?from={day}", $"records/csv?to={day}" })
        {
            (await ines.GetAsync($"/api/classes/1/{asked}")).StatusCode.ShouldBe(HttpStatusCode.BadRequest, asked);
        }
    }

    [Fact]
    public async Task Terms_and_closures_of_another_age_are_refused_at_their_field()
    {
        var ines = await school.ComeInAsAsync("ines");
        var terms = (await ines.ReadAsync<TimetableView>("/api/classes/1/timetable")).Terms;
        foreach (var wrong in new[] { new DateOnly(1, 1, 1), new DateOnly(9999, 12, 31) })
        {
            var refused = await ines.PutAsync("/api/classes/1/terms", new[] { terms[0] with { First = wrong, Last = wrong }, terms[1], terms[2] });
            refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
            (await refused.Content.ReadAsStringAsync()).ShouldContain("0.first");
            (
                await ines.PostAsync("/api/classes/1/closures", new NewClosure("Ice", wrong, wrong, Core.Calendars.ClosureKind.Closed, null, null, false))
            ).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        }

        (await ines.ReadAsync<TimetableView>("/api/classes/1/timetable")).Terms.ShouldBe(terms);
    }

    [Theory]
    [InlineData("PUT", "/api/classes/1/terms", "[null]")]
    [InlineData("POST", "/api/classes/1/observations", "[null]")]
    [InlineData("PUT", "/api/classes/1/first-hour/timetable", """{"holidays": [null]}""")]
    [InlineData("POST", "/api/classes/1/map/skills", """{"needs": ["count.say-5", null]}""")]
    public async Task A_list_that_holds_nothing_is_refused(string method, string path, string body)
    {
        var ines = await school.ComeInAsAsync("ines");
        var answer = await ines.SendAsync(new HttpMethod(method), path, new StringContent(body, Encoding.UTF8, "application/json"));
        answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await Visitor.SaysAsync(answer)).ShouldContain("holds nothing");
    }

    [Fact]
    public async Task No_answer_about_children_is_kept_by_a_browser()
    {
        var ines = await school.ComeInAsAsync("ines");
        foreach (
            var path in new[] { "/api/account", "/api/classes/1/children", "/api/classes/1/children/1/family-page", "/api/classes/77/children", "/api/nothing" }
        )
        {
            (await ines.GetAsync(path)).Headers.CacheControl!.NoStore.ShouldBeTrue(path);
        }
    }
}
