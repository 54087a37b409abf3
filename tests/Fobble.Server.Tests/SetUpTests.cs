using Fobble.Data.Keeping;
using Fobble.Data.Model;
using Fobble.Server.Features.Account;
using Fobble.Server.Features.Groups;
using Fobble.Server.Features.Sessions;
using Fobble.Server.Features.SetUp;
using Fobble.Server.Features.Week;
using Fobble.Server.Features.WholeSchool;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Tests;

/// <summary>A school from nothing: what it starts with, and what its lead can change.</summary>
public sealed class SetUpTests : IDisposable
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
    public async Task A_new_class_has_terms_and_a_timetable_but_nothing_to_plan_for()
    {
        var lead = await BeginAsync();
        var table = await lead.ReadAsync<TimetableView>("/api/classes/1/timetable");
        table.Terms.Select(t => t.Name).ShouldBe(["Autumn", "Spring", "Summer"]);
        table.Terms.ShouldContain(t => t.First <= School.Today && School.Today <= t.Last);
        table.Slots.Count.ShouldBe(20);
        var refused = await lead.PostAsync("/api/classes/1/weeks/2026-12-02/plan");
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await Visitor.SaysAsync(refused)).ShouldContain("import the class list first");
    }

    [Fact]
    public async Task With_children_the_first_week_begins_with_what_needs_nothing()
    {
        var lead = await BeginAsync();
        await lead.PostCsvAsync("/api/classes/1/class-list", "Name\n" + string.Join('\n', Enumerable.Range(1, 9).Select(i => $"Child{i} Made-up")));
        var week = await Visitor.ReadAsync<WeekView>(await lead.PostAsync("/api/classes/1/weeks/2026-12-02/plan"));
        week.Days[0].Focus!.Reason.ShouldStartWith("New this week: 9 of 9 are ready for it and nobody has it yet.");
        var card = await lead.ReadAsync<Card>("/api/classes/1/days/2026-11-30/carpet");
        card.Children.Count.ShouldBe(9);
        card.SessionId.ShouldBeNull();
        (await lead.GetAsync("/api/classes/1/days/2026-12-19/carpet")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task An_assistant_who_is_added_can_sign_in_see_and_record_but_not_set_up()
    {
        var lead = await BeginAsync();
        var assistant = Joining.Adult("Bertil Osei", ClassRole.Assistant);
        (await lead.PostAsync("/api/school/classes/1/adults", assistant with { Email = "nonsense" })).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        await _school.JoinAsync(lead, assistant);
        (await lead.PostAsync("/api/school/classes/1/adults", assistant)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var bertil = await _school.SignInAsync(assistant);
        (await bertil.StateAsync()).SignedIn!.Classes.ShouldHaveSingleItem().Role.ShouldBe(ClassRole.Assistant);
        (await bertil.ReadAsync<TimetableView>("/api/classes/1/timetable")).Adults.Select(a => a.FullName).ShouldBe(["Rosalind Achterberg", "Bertil Osei"]);
        (await bertil.PostAsync("/api/school/classes/1/adults", assistant)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task A_class_keeps_a_lead_and_who_is_taken_out_sees_it_no_more_at_once()
    {
        const string Adults = "/api/school/classes/1/adults";
        var lead = await BeginAsync();
        var adult = Joining.Adult("Bertil Osei", ClassRole.Assistant);
        await _school.JoinAsync(lead, adult);
        var (me, he) = (1, 2);
        (await lead.PutAsync($"{Adults}/{me}", new NewRole(ClassRole.Assistant))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await lead.SendAsync(HttpMethod.Delete, $"{Adults}/{me}?takesOver={he}")).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await lead.PutAsync($"{Adults}/77", new NewRole(ClassRole.Assistant))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await lead.PutAsync($"{Adults}/{he}", new { role = 9 })).StatusCode.ShouldBe(HttpStatusCode.BadRequest);

        // With another lead, the first may go, once somebody takes the lessons.
        (await lead.PutAsync($"{Adults}/{he}", new NewRole(ClassRole.LeadTeacher))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await lead.PostAsync("/api/classes/1/hours", new NewHours(me, DayOfWeek.Monday, new(9, 0), new(11, 0)))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        foreach (var nobody in new[] { "", "?takesOver=1", "?takesOver=77" })
        {
            (await lead.SendAsync(HttpMethod.Delete, $"{Adults}/{me}{nobody}")).StatusCode.ShouldBe(HttpStatusCode.BadRequest, nobody);
        }

        (await lead.GetAsync("/api/classes/1/timetable")).StatusCode.ShouldBe(HttpStatusCode.OK, "a refused change changes nothing");
        (await lead.PutAsync($"/api/school/leads/{me}", new LeadsSchool(false))).StatusCode.ShouldBe(HttpStatusCode.BadRequest, "nobody else leads the school");
        (await lead.PutAsync($"/api/school/leads/{he}", new LeadsSchool(true))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await lead.PutAsync($"/api/school/leads/{me}", new LeadsSchool(false))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await lead.SendAsync(HttpMethod.Delete, $"{Adults}/{me}?takesOver={he}")).StatusCode.ShouldBe(HttpStatusCode.Forbidden, "she leads the class only");
        var head = await _school.SignInAsync(adult);
        (await head.SendAsync(HttpMethod.Delete, $"{Adults}/{me}?takesOver={he}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await lead.GetAsync("/api/classes/1/timetable")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await lead.StateAsync()).SignedIn!.Classes.ShouldBeEmpty();
        var bertil = await _school.SignInAsync(adult);
        var table = await bertil.ReadAsync<TimetableView>("/api/classes/1/timetable");
        table.Adults.ShouldHaveSingleItem().Role.ShouldBe(ClassRole.LeadTeacher);
        table.Slots.ShouldNotBeEmpty();
        table.Slots.ShouldAllBe(s => s.AdultId == he);
        table.Hours.ShouldBeEmpty();

        // Back again: the account is there, and its password is not looked at.
        var again = new NewAdult("", "ROSALIND@kettle-lane.example", ClassRole.MathsLead);
        (await bertil.PostAsync(Adults, again)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await bertil.PostAsync(Adults, again)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await lead.StateAsync()).SignedIn!.Classes.ShouldHaveSingleItem().Role.ShouldBe(ClassRole.MathsLead);
        (await lead.SendAsync(HttpMethod.Delete, $"{Adults}/{he}")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task A_lesson_that_is_taken_out_is_gone_from_the_weeks_to_come()
    {
        var lead = await BeginAsync();
        foreach (var slot in (await lead.ReadAsync<TimetableView>("/api/classes/1/timetable")).Slots.Where(s => s.Kind == Core.Planning.SlotKind.Group))
        {
            (await lead.SendAsync(HttpMethod.Delete, $"/api/classes/1/slots/{slot.Id}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        }

        (await lead.ReadAsync<TimetableView>("/api/classes/1/timetable")).Slots.ShouldAllBe(s => s.Kind != Core.Planning.SlotKind.Group);
        var refused = await lead.PostAsync("/api/classes/1/weeks/2026-12-02/groups/proposal", GroupsAsk.Nothing);
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await Visitor.SaysAsync(refused)).ShouldContain("no free place");
    }

    [Fact]
    public async Task Terms_are_replaced_as_a_whole_and_a_refused_change_keeps_the_old_ones()
    {
        var lead = await BeginAsync();
        TermView[] overlapping =
        [
            new("A", Core.Calendars.Season.Autumn, new(2026, 9, 1), new(2026, 12, 1)),
            new("B", Core.Calendars.Season.Spring, new(2026, 12, 1), new(2027, 3, 1)),
        ];
        (await lead.PutAsync("/api/classes/1/terms", overlapping)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await lead.PutAsync("/api/classes/1/terms", Array.Empty<TermView>())).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await lead.ReadAsync<TimetableView>("/api/classes/1/timetable")).Terms.Count.ShouldBe(3);
        (await lead.PutAsync("/api/classes/1/terms", overlapping[..1])).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await lead.ReadAsync<TimetableView>("/api/classes/1/timetable")).Terms.ShouldHaveSingleItem().Name.ShouldBe("A");
    }

    [Fact]
    public async Task A_restart_finds_the_database_as_it_was()
    {
        await BeginAsync();
        using var scope = _school.Scope();
        var file = _school.Db(scope).Database.GetDbConnection().DataSource;
        Schema.Of(file).ShouldBe(new(SchemaAge.OfNow, Filled: true));
        Schema.Of(file + ".none").ShouldBe(new(SchemaAge.None, Filled: false));
    }

    private async Task<Visitor> BeginAsync()
    {
        var lead = await _school.VisitAsync();
        (await lead.PostAsync("/api/account/first-start", Lead)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await lead.StateAsync();
        return lead;
    }
}
