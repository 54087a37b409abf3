using Fobble.Data.Model;
using Fobble.Server.Features.Account;
using Fobble.Server.Features.SetUp;
using Fobble.Server.Features.WholeSchool;
using Fobble.Server.Mail;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>What is the school's is changed by whoever leads the school; classes come and go, and an archive is read only.</summary>
public sealed class WholeSchoolTests : IDisposable
{
    private readonly School _school = School.Empty();

    public void Dispose() => _school.Dispose();

    [Fact]
    public async Task The_lead_of_a_class_changes_the_class_and_not_the_school()
    {
        var head = await _school.BeginAsync();
        await _school.JoinAsync(head, Joining.Adult("Bertil Osei", ClassRole.LeadTeacher));
        var bertil = await _school.SignInAsync(Joining.Adult("Bertil Osei", ClassRole.Assistant));
        var state = (await bertil.StateAsync()).SignedIn!;
        (state.Leads is not null, state.Classes[0].LeadsSchool).ShouldBe((false, false));
        var table = await bertil.ReadAsync<TimetableView>("/api/classes/1/timetable");
        table.SchoolLeads.ShouldBe(["Rosalind Achterberg"]);

        NewClosure trip = new("Trip", new(2026, 12, 3), new(2026, 12, 3), Core.Calendars.ClosureKind.NoLessons, null, null, OfClass: true);
        (await bertil.PostAsync("/api/classes/1/closures", trip)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await bertil.PostAsync("/api/classes/1/closures", trip with { OfClass = false })).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await head.PostAsync("/api/classes/1/closures", trip with { Name = "Snow", OfClass = false })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        foreach (var closure in (await bertil.ReadAsync<TimetableView>("/api/classes/1/timetable")).Closures)
        {
            (await bertil.SendAsync(HttpMethod.Delete, $"/api/classes/1/closures/{closure.Id}")).StatusCode.ShouldBe(
                closure.OfClass ? HttpStatusCode.NoContent : HttpStatusCode.Forbidden
            );
        }

        (await bertil.ReadAsync<TimetableView>("/api/classes/1/timetable")).Closures.ShouldHaveSingleItem().Name.ShouldBe("Snow");
        (await bertil.PutAsync("/api/classes/1/terms", table.Terms)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await bertil.PutAsync("/api/classes/1/school", new SchoolPlace("Europe/Lisbon", "en-IE"))).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await bertil.PostAsync("/api/classes/1/map/skills", new { })).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await bertil.GetAsync("/api/school")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await head.PutAsync("/api/classes/1/terms", table.Terms)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task A_class_is_made_like_another_renamed_and_led_by_somebody_else()
    {
        var head = await _school.BeginAsync();
        await _school.JoinAsync(head, Joining.Adult("Bertil Osei", ClassRole.Assistant));
        var slot = (await head.ReadAsync<TimetableView>("/api/classes/1/timetable")).Slots.First(s => s.Kind == Core.Planning.SlotKind.Choice);
        await head.SendAsync(HttpMethod.Delete, $"/api/classes/1/slots/{slot.Id}");
        foreach (
            var (wrong, field) in new[]
            {
                (new NewClass(" ", 2, null), "name"),
                (new NewClass("willow", 2, null), "name"),
                (new NewClass("Hazel", 77, null), "leadId"),
                (new NewClass("Hazel", 2, 9), "like"),
                (new NewClass(new string('x', 61), 2, null), "name"),
            }
        )
        {
            var refused = await head.PostAsync("/api/school/classes", wrong);
            refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
            (await refused.Content.ReadAsStringAsync()).ShouldContain($"\"{field}\"");
        }

        (await head.ReadAsync<SchoolView>("/api/school")).Classes.Count.ShouldBe(1, "a refused change changes nothing");
        (await Visitor.ReadAsync<int>(await head.PostAsync("/api/school/classes", new NewClass(" Hazel ", 2, 1)))).ShouldBe(2);
        (await head.PutAsync("/api/school/classes/2", new ClassName("Willow"))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await head.PutAsync("/api/school/classes/2", new ClassName("Juniper"))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var school = await head.ReadAsync<SchoolView>("/api/school");
        school.Classes.Select(c => c.Name).ShouldBe(["Juniper", "Willow"]);
        school.Classes[0].Adults.ShouldHaveSingleItem().Lessons.ShouldBe(19);

        // Who leads the school and does not belong to the class arranges it, and sees no child of it.
        (await head.GetAsync("/api/classes/2/children")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await head.PostAsync("/api/school/classes/2/adults", new NewAdult("", "rosalind@kettle-lane.example", ClassRole.MathsLead))).StatusCode.ShouldBe(
            HttpStatusCode.OK
        );
        var bertil = await _school.SignInAsync(Joining.Adult("Bertil Osei", ClassRole.Assistant));
        var table = await bertil.ReadAsync<TimetableView>("/api/classes/2/timetable");
        table.Slots.Count.ShouldBe(19);
        table.Slots.ShouldAllBe(s => s.AdultId == 2);
        (await bertil.PutAsync("/api/school/classes/2", new ClassName("Mine"))).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task An_archive_is_read_and_not_written_until_it_is_taught_again()
    {
        var head = await _school.BeginAsync();
        await head.PostCsvAsync("/api/classes/1/class-list", "Name\nAda Okafor\n");
        (await head.PutAsync("/api/school/classes/1/archive", new Archive(true))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await head.StateAsync()).SignedIn!.Classes.ShouldHaveSingleItem().Archived.ShouldBeTrue();
        (await head.GetAsync("/api/classes/1/children/1")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await head.GetAsync("/api/classes/1/children/1/family-page")).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await head.PostCsvAsync("/api/classes/1/class-list", "Name\nBo Lund\n")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await head.PutAsync("/api/classes/1/children/1/name", new Core.People.Naming("Ada", "Okafor", null, "B"))).StatusCode.ShouldBe(
            HttpStatusCode.Forbidden
        );
        (await head.PostAsync("/api/classes/1/observations", new { })).StatusCode.ShouldBe(HttpStatusCode.Forbidden);

        // Another one has its name in the meantime.
        await head.PostAsync("/api/school/classes", new NewClass("Willow", 1, 1));
        (await head.PutAsync("/api/school/classes/1/archive", new Archive(false))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        await head.PutAsync("/api/school/classes/1", new ClassName("Willow of before"));
        (await head.PutAsync("/api/school/classes/1/archive", new Archive(false))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await head.PutAsync("/api/classes/1/children/1/name", new Core.People.Naming("Ada", "Okafor", null, "B"))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
    }

    [Fact]
    public async Task An_invitation_holds_for_three_days_and_no_longer()
    {
        new InvitationTokens.Options().TokenLifespan.ShouldBe(TimeSpan.FromDays(3));
        using var school = School.Empty(otherwise: services => services.Configure<InvitationTokens.Options>(o => o.TokenLifespan = TimeSpan.Zero));
        var head = await school.BeginAsync();
        var invitation = await Visitor.ReadAsync<Invitation>(
            await head.PostAsync("/api/school/classes/1/adults", Joining.Adult("Bertil Osei", ClassRole.Assistant))
        );
        (
            await (await school.VisitAsync()).PostAsync("/api/account/new-password", Joining.Chosen(invitation.Address!, "seven lanterns in fog"))
        ).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await head.ReadAsync<SchoolView>("/api/school")).Adults.Single(a => a.FullName == "Bertil Osei").Invited.ShouldBeTrue();
    }

    [Fact]
    public async Task A_lost_password_is_got_back_by_whoever_leads_the_school()
    {
        var head = await _school.BeginAsync();
        await _school.JoinAsync(head, Joining.Adult("Bertil Osei", ClassRole.Assistant));
        var bertil = await _school.SignInAsync(Joining.Adult("Bertil Osei", ClassRole.Assistant));
        (await bertil.PostAsync("/api/school/adults/1/password-link", new { })).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await head.PostAsync("/api/school/adults/77/password-link", new { })).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var link = await Visitor.ReadAsync<PasswordLink>(await head.PostAsync("/api/school/adults/2/password-link", new { }));
        var chosen = Joining.Chosen(link.Address, "seven lanterns in fog");
        var stranger = await _school.VisitAsync();
        (await stranger.PostAsync("/api/account/new-password", chosen)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await stranger.PostAsync("/api/account/new-password", chosen)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await bertil.GetAsync("/api/classes/1/timetable")).StatusCode.ShouldBe(HttpStatusCode.Unauthorized, "signed out everywhere");
    }
}
