using Fobble.Data.Model;
using Fobble.Server.Features.Account;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Identity;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>What ends a session ends it on the server, for whoever has its cookie; a lost password is got back, and nobody finds out or tries on.</summary>
public sealed class SignedInTests : IDisposable
{
    private const string Password = "nine wagons uphill";
    private const string Other = "seven lanterns in fog";
    private const string Email = "rosalind@kettle-lane.example";
    private const string Class = "/api/classes/1/children";
    private readonly School _school = School.Empty();

    public void Dispose() => _school.Dispose();

    private async Task<Visitor> SignInAsync(string password = Password, string email = Email)
    {
        var visitor = await _school.VisitAsync();
        visitor.Headers["User-Agent"] = "Mozilla/5.0 (iPad; CPU OS 17_5 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/17.5 Safari/604.1";
        (await visitor.PostAsync("/api/account/sign-in", new SignIn(email, password))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await visitor.StateAsync();
        return visitor;
    }

    // Somebody else's browser with a cookie that was copied.
    private async Task<HttpStatusCode> WithCopiedAsync(string cookies)
    {
        using var client = _school.Server.CreateClient();
        using HttpRequestMessage request = new(HttpMethod.Get, Class);
        request.Headers.Add("Cookie", cookies);
        return (await client.SendAsync(request)).StatusCode;
    }

    private static Task ClosedAsync(HubConnection connection)
    {
        TaskCompletionSource closed = new();
        connection.Closed += _ =>
        {
            closed.TrySetResult();
            return Task.CompletedTask;
        };
        return closed.Task;
    }

    [Fact]
    public async Task A_cookie_copied_before_signing_out_opens_nothing_after_and_what_listened_is_closed()
    {
        var lead = await _school.BeginAsync();
        var copied = lead.Cookies;
        (await WithCopiedAsync(copied)).ShouldBe(HttpStatusCode.OK);
        await using var listening = await _school.ListenAsync(copied);
        var closed = ClosedAsync(listening);
        (await lead.PostAsync("/api/account/sign-out")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await WithCopiedAsync(copied)).ShouldBe(HttpStatusCode.Unauthorized);
        await closed.WaitAsync(TimeSpan.FromSeconds(20));
        await Should.ThrowAsync<Exception>(() => _school.ListenAsync(copied));
    }

    [Fact]
    public async Task An_adult_sees_the_devices_and_ends_one_or_all_others_but_nobody_elses()
    {
        var lead = await _school.BeginAsync();
        var (tablet, phone) = (await SignInAsync(), await SignInAsync());
        var devices = await lead.ReadAsync<List<DeviceView>>("/api/account/devices");
        devices.Count.ShouldBe(3);
        devices.Count(d => d.What == "Safari, iPad").ShouldBe(2);
        devices.Single(d => d.Here).What.ShouldBe("");

        await _school.JoinAsync(lead, Joining.Adult("Bo Lund", ClassRole.Assistant), password: Other);
        var other = await SignInAsync(Other, "bo@kettle-lane.example");
        (await other.ReadAsync<List<DeviceView>>("/api/account/devices")).ShouldHaveSingleItem();
        (await other.SendAsync(HttpMethod.Delete, $"/api/account/devices/{devices[0].Id}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await tablet.GetAsync(Class)).StatusCode.ShouldBe(HttpStatusCode.OK);

        var here = (await tablet.ReadAsync<List<DeviceView>>("/api/account/devices")).Single(d => d.Here);
        (await lead.SendAsync(HttpMethod.Delete, $"/api/account/devices/{here.Id}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await tablet.GetAsync(Class)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await phone.GetAsync(Class)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await lead.SendAsync(HttpMethod.Delete, "/api/account/devices")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await phone.GetAsync(Class)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await lead.GetAsync(Class)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await other.GetAsync(Class)).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task A_new_password_is_refused_where_it_should_be_and_ends_all_other_devices()
    {
        var lead = await _school.BeginAsync();
        var tablet = await SignInAsync();
        (await FieldOfAsync(await lead.PutAsync("/api/account/password", new ChangePassword("wrong", Other)))).ShouldBe("current");
        foreach (var weak in new[] { "short", "password1234", "rosalindachterberg", "qwertyuiop", "abcdefghij", new string('x', 201) })
        {
            (await FieldOfAsync(await lead.PutAsync("/api/account/password", new ChangePassword(Password, weak)))).ShouldBe("next", weak);
        }

        (await tablet.GetAsync(Class)).StatusCode.ShouldBe(HttpStatusCode.OK, "a refused change changes nothing");
        (await lead.PutAsync("/api/account/password", new ChangePassword(Password, Other))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await tablet.GetAsync(Class)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await lead.GetAsync(Class)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await (await _school.VisitAsync()).PostAsync("/api/account/sign-in", new SignIn(Email, Password))).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        await SignInAsync(Other);
    }

    [Fact]
    public async Task A_lost_password_is_got_back_by_a_link_of_the_servers_own_machine_that_holds_once()
    {
        var lead = await _school.BeginAsync();
        using StringWriter said = new();
        (await LostPassword.TellAsync(_school.Services, "nobody@kettle-lane.example", said)).ShouldBe(1);
        (await LostPassword.TellAsync(_school.Services, Email, said)).ShouldBe(0);
        var link = said.ToString().Split('\n', StringSplitOptions.TrimEntries).Single(l => l.StartsWith("/new-password#", StringComparison.Ordinal));
        var parts = link["/new-password#".Length..].Split('.', 2);
        NewPassword asked = new(int.Parse(parts[0], System.Globalization.CultureInfo.InvariantCulture), Uri.UnescapeDataString(parts[1]), Other);

        var stranger = await _school.VisitAsync();
        (await FieldOfAsync(await stranger.PostAsync("/api/account/new-password", asked with { Token = asked.Token[..^6] }))).ShouldBe("");
        (await FieldOfAsync(await stranger.PostAsync("/api/account/new-password", asked with { AdultId = 77 }))).ShouldBe("");
        (await FieldOfAsync(await stranger.PostAsync("/api/account/new-password", asked with { Password = "password1234" }))).ShouldBe("password");
        (await stranger.PostAsync("/api/account/new-password", asked)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await lead.GetAsync(Class)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized, "whoever had the old one is out");
        await SignInAsync(Other);
        (await FieldOfAsync(await stranger.PostAsync("/api/account/new-password", asked with { Password = Password }))).ShouldBe("");
    }

    [Fact]
    public async Task Ten_tries_from_one_place_lock_nobody_out_elsewhere_and_are_answered_like_any_other()
    {
        await _school.BeginAsync();
        var visitor = await _school.VisitAsync();
        System.Collections.Concurrent.ConcurrentBag<(HttpStatusCode, string)> answers = [];
        async Task TryAsync(string email, string password)
        {
            var answer = await visitor.PostAsync("/api/account/sign-in", new SignIn(email, password));
            answers.Add((answer.StatusCode, await Visitor.SaysAsync(answer)));
        }

        // At once, and in a case of its own each: neither is a way past the count.
        await Task.WhenAll(Enumerable.Range(0, 10).Select(i => TryAsync(i % 2 == 0 ? Email : Email.ToUpperInvariant(), "wrong")));

        await TryAsync(Email, Password);
        await TryAsync("nobody@kettle-lane.example", Password);
        answers.Distinct().ShouldHaveSingleItem().Item1.ShouldBe(HttpStatusCode.Unauthorized);
        using var scope = _school.Scope();
        var adult = await scope.ServiceProvider.GetRequiredService<UserManager<Adult>>().FindByEmailAsync(Email);
        adult!.LockoutEnd.ShouldBeNull();
        var tries = scope.ServiceProvider.GetRequiredService<Security.SignInTries>();
        Microsoft.AspNetCore.Http.DefaultHttpContext elsewhere = new();
        elsewhere.Connection.RemoteIpAddress = System.Net.IPAddress.Parse("192.0.2.7");
        (await tries.GoTogetherAsync(elsewhere, Email, adult, Password)).ShouldBeTrue("the teacher at another place comes in");
    }

    [Fact]
    public async Task What_nobody_has_used_for_half_a_day_is_over_and_what_is_used_goes_on()
    {
        await _school.BeginAsync();
        using var scope = _school.Scope();
        var db = _school.Db(scope);
        var row = db.SignedIn.Single();
        (row.Until - row.Since).ShouldBe(TimeSpan.FromHours(12), TimeSpan.FromMinutes(1));
        row.Until = row.Since;
        await db.SaveChangesAsync();
        (await (await _school.VisitAsync()).StateAsync()).SignedIn.ShouldBeNull();
        await SignInAsync();
        db.SignedIn.Count().ShouldBe(1, "what is over is taken out");
    }

    [Fact]
    public async Task Paths_are_guarded_as_they_are_routed()
    {
        var lead = await _school.BeginAsync();
        lead.SendsToken = false;
        foreach (var path in new[] { "/api/account/devices", "/Api/account/devices", "/API/Account/Devices" })
        {
            (await lead.SendAsync(HttpMethod.Delete, path)).StatusCode.ShouldBe(HttpStatusCode.BadRequest, path);
        }
    }

    private static async Task<string> FieldOfAsync(HttpResponseMessage refused)
    {
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest, await refused.Content.ReadAsStringAsync());
        using var problem = System.Text.Json.JsonDocument.Parse(await refused.Content.ReadAsStringAsync());
        return problem.RootElement.GetProperty("errors").EnumerateObject().Single().Name;
    }
}
