using Fobble.Data.Model;
using Fobble.Server.Features.Account;
using Fobble.Server.Features.Groups;
using Fobble.Server.Features.Planning;
using Fobble.Server.Features.Today;
using Fobble.Server.Features.WholeSchool;
using Microsoft.AspNetCore.SignalR;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>Somebody stands in for some days, by the school's clock: Wednesday 25 November 2026, eight in the morning.</summary>
public sealed class CoverTests : IDisposable
{
    private const string Adults = "/api/school/classes/1/adults";
    private const string Class = "/api/classes/1/timetable";
    private static readonly NewAdult Nilufar = new("Nilufar Aziz", "nilufar@kettle-lane.example", ClassRole.Cover);
    private readonly School _school = School.Empty();

    public void Dispose() => _school.Dispose();

    [Theory]
    [InlineData(0, 0, true)]
    [InlineData(0, 9, true)]
    [InlineData(-3, 0, true)]
    [InlineData(1, 9, false)]
    public async Task Cover_sees_and_records_on_its_days_only(int first, int last, bool comesIn)
    {
        var head = await _school.BeginAsync();
        await head.PostCsvAsync("/api/classes/1/class-list", "Name\nAda Okafor\n");
        await _school.JoinAsync(head, Nilufar with { From = School.Today.AddDays(first), Until = School.Today.AddDays(last) });
        var cover = await _school.SignInAsync(Nilufar);
        (await cover.StateAsync()).SignedIn!.Classes.Count.ShouldBe(comesIn ? 1 : 0);
        (await cover.GetAsync(Class)).StatusCode.ShouldBe(comesIn ? HttpStatusCode.OK : HttpStatusCode.Forbidden);
        (await cover.PutAsync($"/api/classes/1/attendance/{School.Today:yyyy-MM-dd}/1", new { away = true })).StatusCode.ShouldBe(
            comesIn ? HttpStatusCode.OK : HttpStatusCode.Forbidden
        );
        (await cover.PatchAsync("/api/classes/1/approach", new { })).StatusCode.ShouldBe(HttpStatusCode.Forbidden, "it does not lead");
    }

    [Fact]
    public async Task A_cover_that_is_over_is_over()
    {
        var head = await _school.BeginAsync();
        await _school.JoinAsync(head, Nilufar with { From = School.Today, Until = School.Today });
        var cover = await _school.SignInAsync(Nilufar);
        (await cover.GetAsync(Class)).StatusCode.ShouldBe(HttpStatusCode.OK);

        // The night goes by.
        using (var scope = _school.Scope())
        {
            await _school
                .Db(scope)
                .Memberships.Where(m => m.Role == ClassRole.Cover)
                .ExecuteUpdateAsync(m => m.SetProperty(x => x.From, School.Today.AddDays(-1)).SetProperty(x => x.Until, School.Today.AddDays(-1)));
        }

        (await cover.GetAsync(Class)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await cover.StateAsync()).SignedIn!.Classes.ShouldBeEmpty();

        // Added again, she has other days; nobody else is given days.
        await head.PostAsync(Adults, Nilufar with { From = School.Today, Until = School.Today.AddDays(4) });
        (await cover.GetAsync(Class)).StatusCode.ShouldBe(HttpStatusCode.OK);
        var held = (await head.ReadAsync<SchoolView>("/api/school")).Classes[0].Adults.Single(a => a.Role == ClassRole.Cover);
        (held.From, held.Until).ShouldBe((School.Today, School.Today.AddDays(4)));
        (await head.PutAsync($"{Adults}/1", new NewRole(ClassRole.Cover))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await head.PutAsync($"{Adults}/{held.Id}", new NewRole(ClassRole.Assistant))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        held = (await head.ReadAsync<SchoolView>("/api/school")).Classes[0].Adults.Single(a => a.Id == held.Id);
        (held.From, held.Until).ShouldBe((null, null), "she belongs to the class now");
    }

    [Fact]
    public async Task A_page_left_open_closes_with_the_last_day_and_another_does_not_open()
    {
        // A clock that goes when it is told to: a busy machine does not reach midnight too soon.
        StandingClock clock = new("2026-11-25T23:50:00");
        using var school = School.Empty(otherwise: services => services.AddSingleton<TimeProvider>(clock));
        var head = await school.BeginAsync();
        await school.JoinAsync(head, Nilufar with { From = School.Today, Until = School.Today });
        var cover = await school.SignInAsync(Nilufar);
        clock.Goes("2026-11-25T23:59:59.500");
        var (stays, closes) = (await school.ListenAsync(head.Cookies), await school.ListenAsync(cover.Cookies));
        TaskCompletionSource closed = new();
        closes.Closed += _ =>
        {
            closed.TrySetResult();
            return Task.CompletedTask;
        };
        await closed.Task.WaitAsync(TimeSpan.FromSeconds(60));
        stays.State.ShouldBe(HubConnectionState.Connected, "who belongs to the class goes on");
        clock.Goes("2026-11-26T00:00:00");
        (await cover.GetAsync(Class)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        await Should.ThrowAsync<HubException>(() => school.ListenAsync(cover.Cookies));
        await stays.DisposeAsync();
    }

    [Theory]
    [InlineData(0, true)]
    [InlineData(-1, false)]
    public async Task Plans_of_a_class_are_seen_from_another_while_cover_lasts(int last, bool seen)
    {
        using var demo = new School();
        using (var scope = demo.Scope())
        {
            var db = demo.Db(scope);
            var maeve = await db.Memberships.SingleAsync(m => m.ClassId == 1 && m.Adult!.FullName.StartsWith("Maeve"));
            (maeve.Role, maeve.From, maeve.Until) = (ClassRole.Cover, School.Today.AddDays(-5), School.Today.AddDays(last));
            await db.SaveChangesAsync();
        }

        var visitor = await demo.ComeInAsAsync("maeve");
        (await visitor.ReadAsync<ScopeChoices>("/api/classes/2/plan/scope")).Plans.Select(p => p.Class).ShouldBe(seen ? ["Rowan"] : []);
        (await visitor.ReadAsync<IReadOnlyList<ClassCoverage>>("/api/classes/2/plan/coverage")).Select(c => c.Class).Contains("Rowan").ShouldBe(seen);
    }

    // Ines leads Rowan, and is away on Wednesday and Thursday: groups of these days are Nilufar's, whatever page or paper names them.
    [Fact]
    public async Task Who_stands_in_takes_the_lessons_of_these_days_and_of_no_other()
    {
        using var demo = new School();
        var ines = await demo.ComeInAsAsync("ines");
        const string Week = "/api/classes/1/weeks/2026-11-23";
        var standsIn = Nilufar with { From = School.Today, Until = School.Today.AddDays(1), InPlaceOf = 1 };
        (await ines.PostAsync(Adults, standsIn)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await ines.ReadAsync<SchoolView>("/api/school"))
            .Classes.Single(c => c.Id == 1)
            .Adults.Single(a => a.Role == ClassRole.Cover)
            .InPlaceOf.ShouldBe("Ines Okonjo");

        // A child that is only to be with Ines is not with Nilufar, and one only with Nilufar is with her.
        var nilufar = (await ines.ReadAsync<SchoolView>("/api/school")).Adults.Single(a => a.FullName == Nilufar.FullName).Id;
        (await ines.PostAsync("/api/classes/1/adult-wishes", new NewAdultWish(3, 1, true))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.PostAsync("/api/classes/1/adult-wishes", new NewAdultWish(4, nilufar, true))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var view = await Board.AcceptAsync(ines, Week, await Board.ProposeAsync(ines, Week));
        static string Of(GroupView group) => group.Slot.Day.DayOfWeek is DayOfWeek.Wednesday or DayOfWeek.Thursday ? "Nilufar Aziz" : "Ines Okonjo";
        view.Groups.Where(g => !g.Run).Select(g => g.Slot.Adult).ShouldContain("Nilufar Aziz");
        view.Groups.Where(g => g.Slot.Adult != "Tomasz Birk")
            .Select(g => g.Slot.Adult)
            .ShouldBe(view.Groups.Where(g => g.Slot.Adult != "Tomasz Birk").Select(Of));
        view.Groups.Where(g => !g.Run && g.Children.Any(c => c.Id == 3)).ShouldAllBe(g => g.Slot.Adult == "Ines Okonjo");
        view.Groups.Where(g => !g.Run && g.Children.Any(c => c.Id == 4)).ShouldAllBe(g => g.Slot.Adult == "Nilufar Aziz");

        foreach (var day in new[] { School.Today, School.Today.AddDays(1), School.Today.AddDays(2) })
        {
            var groups = view.Groups.Where(g => g.Slot.Day == day).ToDictionary(g => g.SessionId!.Value, g => g.Slot.Adult);
            (await ines.ReadAsync<TodayView>($"/api/classes/1/days/{day:yyyy-MM-dd}"))
                .Groups.ToDictionary(g => g.SessionId, g => g.Adult)
                .ShouldBe(groups, ignoreOrder: true);
        }

        var card = view.Groups.First(g => g.Slot.Adult == "Nilufar Aziz");
        (await (await ines.GetAsync($"/api/classes/1/sessions/{card.SessionId}")).Content.ReadAsStringAsync()).ShouldContain("Nilufar Aziz");

        // Ines is taken out of the class: what was hers is Tomasz's, and nobody stands in for her.
        await ines.PutAsync($"{Adults}/2", new NewRole(ClassRole.LeadTeacher));
        (await ines.SendAsync(HttpMethod.Delete, $"{Adults}/1?takesOver=2")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.ReadAsync<SchoolView>("/api/school")).Classes.Single(c => c.Id == 1).Adults.Single(a => a.Role == ClassRole.Cover).InPlaceOf.ShouldBeNull();
    }

    [Theory]
    [InlineData(99)]
    [InlineData(3)]
    public async Task Nobody_stands_in_for_a_stranger(int who)
    {
        var head = await _school.BeginAsync();
        var refused = await head.PostAsync(Adults, Nilufar with { From = School.Today, Until = School.Today, InPlaceOf = who });
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await refused.Content.ReadAsStringAsync()).ShouldContain("\"inPlaceOf\"");
        (await head.ReadAsync<SchoolView>("/api/school")).Adults.ShouldHaveSingleItem();
    }

    [Theory]
    [InlineData(null, "2026-11-27", "from")]
    [InlineData("2026-11-25", null, "until")]
    [InlineData("2026-11-26", "2026-11-25", "until")]
    [InlineData("2026-11-20", "2026-11-24", "until")]
    [InlineData("2026-11-25", "2027-11-26", "until")]
    [InlineData("0001-01-01", "2026-11-27", "from")]
    [InlineData("2026-11-25", "9999-12-31", "until")]
    public async Task Days_that_make_no_sense_are_refused_and_nobody_is_made(string? from, string? until, string field)
    {
        var head = await _school.BeginAsync();
        var refused = await head.PostAsync(
            Adults,
            new
            {
                Nilufar.FullName,
                Nilufar.Email,
                Nilufar.Role,
                from,
                until,
            }
        );
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await refused.Content.ReadAsStringAsync()).ShouldContain($"\"{field}\"");
        (await head.ReadAsync<SchoolView>("/api/school")).Adults.ShouldHaveSingleItem();
    }
}
