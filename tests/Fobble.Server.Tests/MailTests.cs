using System.Text.RegularExpressions;
using Fobble.Data.Model;
using Fobble.Server.Demo;
using Fobble.Server.Features.Account;
using Fobble.Server.Features.WholeSchool;
using Fobble.Server.Hosting;
using Fobble.Server.Mail;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>By SMTP to the demo's own post office.</summary>
public sealed partial class MailTests : IDisposable
{
    private const string Adults = "/api/school/classes/1/adults";
    private static readonly NewAdult Bertil = new("Bertil Osei", "bertil@lantern-hill.example", ClassRole.Assistant);
    private readonly School _school = new();

    public void Dispose() => _school.Dispose();

    private PostOffice Office => _school.Services.GetRequiredService<PostOffice>();

    private MailQueue Queue => _school.Services.GetRequiredService<MailQueue>();

    private DateTimeOffset Now => _school.Services.GetRequiredService<TimeProvider>().GetUtcNow();

    [GeneratedRegex(@"/new-password#\S+")]
    private static partial Regex Link { get; }

    private async Task<Letter> NewestAsync(int letters)
    {
        for (var tries = 0; tries < 200 && Office.Letters.Count < letters; tries++)
        {
            await Task.Delay(50, TestContext.Current.CancellationToken);
        }

        Office.Letters.Count.ShouldBe(letters);
        return Office.Letters[0];
    }

    private async Task<List<MailRow>> WaitingAsync()
    {
        using var scope = _school.Scope();
        return await _school.Db(scope).Mails.AsNoTracking().ToListAsync();
    }

    [Fact]
    public async Task Who_is_invited_chooses_a_password_once_and_comes_in()
    {
        var head = await _school.ComeInAsAsync("ines");
        var invitation = await Visitor.ReadAsync<Invitation>(await head.PostAsync(Adults, Bertil));
        (invitation.Mailed, invitation.Address).ShouldBe((true, null), "the link goes to the adult and to nobody else");
        var letter = await NewestAsync(1);
        letter.To.ShouldBe("\"Bertil Osei\" <bertil@lantern-hill.example>");
        letter.Text.ShouldContain("Ines Okonjo");
        letter.Text.ShouldContain("Lantern Hill");
        (await head.ReadAsync<SchoolView>("/api/school")).Adults.Single(a => a.Email == Bertil.Email).Invited.ShouldBeTrue();

        var stranger = await _school.VisitAsync();
        var asked = Joining.Chosen(Link.Match(letter.Text).Value, "seven lanterns in fog");
        (await stranger.PostAsync("/api/account/sign-in", new SignIn(Bertil.Email, ""))).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        (await stranger.PostAsync("/api/account/new-password", asked with { Token = asked.Token[..^4] + "AAAA" })).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest
        );
        (await stranger.PostAsync("/api/account/new-password", asked with { AdultId = 1 })).StatusCode.ShouldBe(HttpStatusCode.BadRequest, "another's");
        (await stranger.PostAsync("/api/account/new-password", asked)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await stranger.PostAsync("/api/account/new-password", asked with { Password = "eight kettles at noon" })).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest,
            "it opens once"
        );
        var bertil = await _school.SignInAsync(Bertil, "seven lanterns in fog");
        (await bertil.StateAsync()).SignedIn!.Classes.ShouldHaveSingleItem().Role.ShouldBe(ClassRole.Assistant);
        (await head.ReadAsync<SchoolView>("/api/school")).Adults.Single(a => a.Email == Bertil.Email).Invited.ShouldBeFalse();

        // Who has come in is not invited again, and who belongs to another class gets no mail for it.
        (await head.PostAsync($"/api/school/adults/{asked.AdultId}/invitation", new { })).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await Visitor.ReadAsync<Invitation>(await head.PostAsync("/api/school/classes/2/adults", Bertil))).Mailed.ShouldBeFalse();
        (await WaitingAsync()).ShouldBeEmpty();
    }

    [Fact]
    public async Task Who_was_taken_out_before_coming_in_is_invited_anew()
    {
        var head = await _school.ComeInAsAsync("ines");
        await head.PostAsync(Adults, Bertil);
        await NewestAsync(1);
        var id = (await head.ReadAsync<SchoolView>("/api/school")).Adults.Single(a => a.Email == Bertil.Email).Id;
        (await head.SendAsync(HttpMethod.Delete, $"{Adults}/{id}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await Visitor.ReadAsync<Invitation>(await head.PostAsync(Adults, Bertil))).Mailed.ShouldBeTrue();
        await NewestAsync(2);
    }

    [Fact]
    public async Task A_lost_password_is_got_back_by_mail_and_nobody_is_told_who_has_an_account()
    {
        var stranger = await _school.VisitAsync();
        foreach (var email in new[] { "ines@lantern-hill.example", "nobody@lantern-hill.example" })
        {
            (await stranger.PostAsync("/api/account/lost-password", new AskForPassword(email))).StatusCode.ShouldBe(HttpStatusCode.NoContent, email);
        }

        (await stranger.PostAsync("/api/account/lost-password", new AskForPassword("nonsense"))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var letter = await NewestAsync(1);
        await Queue.SendDueAsync(Now, CancellationToken.None);
        (await WaitingAsync()).ShouldBeEmpty();
        Office.Letters.ShouldHaveSingleItem("nobody gets none");
        var before = await _school.ComeInAsAsync("ines");
        var asked = Joining.Chosen(Link.Match(letter.Text).Value, "seven lanterns in fog");
        (await stranger.PostAsync("/api/account/new-password", asked)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await stranger.PostAsync("/api/account/new-password", asked)).StatusCode.ShouldBe(HttpStatusCode.BadRequest, "it opens once");
        (await before.GetAsync("/api/classes/1/timetable")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized, "all devices are signed out");
        var told = await NewestAsync(2);
        (told.To, told.Text.Contains("If it was not you", StringComparison.Ordinal), Link.IsMatch(told.Text)).ShouldBe((letter.To, true, false));
    }

    [Fact]
    public async Task Where_a_mail_leads_is_not_for_a_request_to_say()
    {
        var stranger = await _school.VisitAsync();
        stranger.Headers["Host"] = "elsewhere.example";
        stranger.Headers["X-Forwarded-Host"] = "elsewhere.example";
        await stranger.PostAsync("/api/account/lost-password", new AskForPassword("ines@lantern-hill.example"));
        (await NewestAsync(1)).Text.ShouldNotContain("elsewhere");
    }

    [Fact]
    public async Task Mail_for_one_address_goes_some_times_an_hour_and_no_more()
    {
        var stranger = await _school.VisitAsync();
        for (var i = 0; i < 8; i++)
        {
            (await stranger.PostAsync("/api/account/lost-password", new AskForPassword("ines@lantern-hill.example"))).StatusCode.ShouldBe(
                HttpStatusCode.NoContent
            );
            await Queue.SendDueAsync(Now, CancellationToken.None);
        }

        Office.Letters.Count.ShouldBeInRange(1, 3);
    }

    [Fact]
    public async Task What_does_not_go_is_kept_tried_again_and_given_up_after_two_days_where_the_lead_sees_it()
    {
        Office.Takes = false;
        var head = await _school.ComeInAsAsync("ines");
        await head.PostAsync(Adults, Bertil);
        for (var tries = 0; tries < 200 && (await WaitingAsync()).ShouldHaveSingleItem().Tries == 0; tries++)
        {
            await Task.Delay(50, TestContext.Current.CancellationToken);
        }

        var kept = (await WaitingAsync()).ShouldHaveSingleItem();
        kept.Fault.ShouldNotBeNullOrEmpty();
        kept.Due!.Value.ShouldBeGreaterThan(Now);
        (await head.ReadAsync<SchoolView>("/api/school")).Adults.Single(a => a.Email == Bertil.Email).MailFault.ShouldBe(kept.Fault);
        await Queue.SendDueAsync(Now, CancellationToken.None);
        (await WaitingAsync()).ShouldHaveSingleItem().Tries.ShouldBe(1, "not before its time");

        // Two days on, hour by hour.
        var begun = Now;
        for (var hour = 1; hour <= 60; hour++)
        {
            await Queue.SendDueAsync(begun.AddHours(hour), CancellationToken.None);
        }

        (await WaitingAsync()).ShouldHaveSingleItem().Due.ShouldBeNull("given up");

        // Asked again, once the server takes mail, it goes.
        Office.Takes = true;
        var invited = (await head.ReadAsync<SchoolView>("/api/school")).Adults.Single(a => a.Email == Bertil.Email);
        await head.PostAsync($"/api/school/adults/{invited.Id}/invitation", new { });
        await NewestAsync(1);
        await Queue.SendDueAsync(Now, CancellationToken.None);
        (await WaitingAsync()).ShouldBeEmpty();
    }

    [Fact]
    public async Task A_mail_that_waited_when_the_server_ended_goes_once_it_is_back()
    {
        Office.Takes = false;
        var head = await _school.ComeInAsAsync("ines");
        await head.PostAsync(Adults, Bertil);
        await Queue.StopAsync(CancellationToken.None);
        Office.Takes = true;

        // What a server that begins anew has: the database, and a queue that knows nothing.
        using var again = ActivatorUtilities.CreateInstance<MailQueue>(_school.Services);
        await again.SendDueAsync(Now.AddHours(1), CancellationToken.None);
        (await WaitingAsync()).ShouldBeEmpty();
        Office.Letters.ShouldHaveSingleItem();
    }

    [Fact]
    public async Task No_mail_names_a_child()
    {
        var head = await _school.ComeInAsAsync("ines");
        await head.PostAsync(Adults, Bertil);
        await (await _school.VisitAsync()).PostAsync("/api/account/lost-password", new AskForPassword("ines@lantern-hill.example"));
        await NewestAsync(2);
        using var scope = _school.Scope();
        var names = await _school.Db(scope).Children.Select(c => c.GivenName).ToListAsync();
        foreach (var letter in Office.Letters)
        {
            var words = Regex.Split(Link.Replace(letter.Subject + " " + letter.Text, ""), @"\W+");
            names.Intersect(words).ShouldBeEmpty();
        }
    }

    [Fact]
    public async Task Outside_the_demo_there_is_no_post_to_read_and_without_mail_none_to_ask_for()
    {
        using var empty = School.Empty();
        var stranger = await empty.VisitAsync();
        (await stranger.StateAsync()).Mail.ShouldBeFalse();
        (await stranger.GetAsync("/api/post")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await stranger.PostAsync("/api/account/lost-password", new AskForPassword("ines@lantern-hill.example"))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Theory]
    [InlineData(null, "https://fobble.kettle-lane.example")]
    [InlineData("fobble@kettle-lane.example", null)]
    public void Mail_that_is_half_set_is_refused_at_the_start(string? from, string? address) =>
        Should.Throw<WrongSettingException>(() => new MailSettings { Host = "mail.kettle-lane.example", From = from }.Check(address));
}
