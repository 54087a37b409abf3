using Fobble.Data.Model;
using Fobble.Server.Features.Account;
using Fobble.Server.Features.WholeSchool;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Routing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

public sealed class TracesTests : IDisposable
{
    private readonly School _school = School.Empty();

    public void Dispose() => _school.Dispose();

    private static async Task<List<string>> SaidAsync(Visitor head, string query = "") =>
        [.. (await head.ReadAsync<TracesView>($"/api/school/traces{query}")).Newest.Select(t => $"{t.Who} {t.What}")];

    [Fact]
    public async Task Who_signed_in_took_something_out_or_changed_what_counts_is_seen_by_the_schools_lead_without_a_childs_name()
    {
        var head = await _school.BeginAsync();
        await head.PostCsvAsync("/api/classes/1/class-list", "Name\nAda Okafor\n");
        await _school.JoinAsync(head, Joining.Adult("Bertil Osei", ClassRole.LeadTeacher));
        var bertil = await _school.SignInAsync(Joining.Adult("Bertil Osei", ClassRole.LeadTeacher));
        await bertil.GetAsync("/api/classes/1/children/1/family-page");
        await bertil.PutAsync("/api/classes/1/children/1/name", new Core.People.Naming("Adaeze", "Okafor", null, null));
        await bertil.GetAsync("/api/classes/1/children/1/file");
        var stranger = await _school.VisitAsync();
        await stranger.PostAsync("/api/account/sign-in", new SignIn("bertil@kettle-lane.example", "wrong"));
        await stranger.PostAsync("/api/account/sign-in", new SignIn("nobody@kettle-lane.example", "wrong"));

        // Refused: no trace says that it was done.
        (await bertil.PutAsync("/api/classes/1/terms", Array.Empty<object>())).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await bertil.GetAsync("/api/classes/1/children/77/family-page")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await head.PutAsync("/api/school/leads/1", new LeadsSchool(false))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);

        (await SaidAsync(head)).ShouldBe([
            "somebody tried to sign in, and was refused",
            "Bertil Osei tried to sign in, and was refused",
            "Bertil Osei took out the file of child 1 of Willow",
            "Bertil Osei changed the name or the day of birth of child 1 of Willow",
            "Bertil Osei printed the family page of child 1 of Willow",
            "Bertil Osei signed in",
            "Bertil Osei chose a password by a link",
            "Rosalind Achterberg added Bertil Osei to Willow, or gave them other days",
            "Rosalind Achterberg brought a class list into Willow",
        ]);
        (await SaidAsync(head, "?find=FAMILY")).ShouldHaveSingleItem();
        (await bertil.GetAsync("/api/school/traces")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);

        var file = await (await head.GetAsync("/api/school/traces/file")).Content.ReadAsStringAsync();
        file.ShouldContain("printed the family page of child 1 of Willow");
        file.ShouldNotContain("Ada");
        (await SaidAsync(head))[0].ShouldBe("Rosalind Achterberg took out these traces as a file");
    }

    [Fact]
    public async Task Pages_of_traces_hold_each_once_and_those_past_their_time_go()
    {
        var head = await _school.BeginAsync();
        var now = _school.Services.GetRequiredService<TimeProvider>().GetUtcNow();
        using (var scope = _school.Scope())
        {
            var db = _school.Db(scope);
            db.Traces.AddRange(
                Enumerable
                    .Range(0, 250)
                    .Select(i => new TraceRow
                    {
                        At = now - Traces.Kept + TimeSpan.FromMinutes(i < 10 ? -60 : 60),
                        Kind = TraceKind.SignedIn,
                        SchoolId = 1,
                        Who = $"Adult {i}",
                    })
            );
            await db.SaveChangesAsync(TestContext.Current.CancellationToken);
        }

        await (await _school.VisitAsync()).PostAsync("/api/account/sign-in", new SignIn("rosalind@kettle-lane.example", Joining.Password));
        List<int> seen = [];
        for (int? before = null; ; before = seen[^1])
        {
            var page = await head.ReadAsync<TracesView>($"/api/school/traces?before={before}");
            seen.AddRange(page.Newest.Select(t => t.Id));
            if (!page.More)
            {
                break;
            }
        }

        seen.Count.ShouldBe(241, "ten were older than a year");
        seen.Distinct().Count().ShouldBe(seen.Count);
    }

    // So that a new address which hands out a file or changes what is the school's is not forgotten.
    [Fact]
    public void Every_address_that_only_the_schools_lead_changes_leaves_a_trace()
    {
        _ = _school.Services;
        string[] previews = ["preview"];
        var silent = _school
            .Services.GetRequiredService<EndpointDataSource>()
            .Endpoints.OfType<RouteEndpoint>()
            .Where(e =>
                e.Metadata.GetOrderedMetadata<Microsoft.AspNetCore.Authorization.IAuthorizeData>().Any(a => a.Policy == Policies.LeadSchool)
                && e.Metadata.GetMetadata<IHttpMethodMetadata>() is { } verbs
                && !verbs.HttpMethods.Contains("GET")
                && e.Metadata.GetMetadata<LeavesTrace>() is null
                && !previews.Any(p => e.RoutePattern.RawText!.EndsWith(p, StringComparison.Ordinal))
            )
            .Select(e => e.RoutePattern.RawText);
        silent.ShouldBeEmpty();
    }
}
