using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Data.Model;
using Fobble.Server.Features.ClassGrid;
using Fobble.Server.Features.Clipboard;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Tests;

/// <summary>Observations: never lost, never double, never changed.</summary>
public class ClipboardTests(School school) : IClassFixture<School>
{
    public static readonly DateTimeOffset Now = new(2026, 11, 25, 8, 0, 0, TimeZoneInfo.Local.GetUtcOffset(new DateTime(2026, 11, 25, 8, 0, 0)));

    [Fact]
    public async Task A_repeated_send_is_one_observation()
    {
        var tomasz = await school.ComeInAsAsync("tomasz");
        var tap = Tap(child: 3);
        (await tomasz.PostAsync("/api/classes/1/observations", tap)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await tomasz.PostAsync("/api/classes/1/observations", tap)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        Count(o => o.Id == tap.Id).ShouldBe(1);
    }

    [Fact]
    public async Task Twenty_sends_at_once_are_one_observation()
    {
        var tomasz = await school.ComeInAsAsync("tomasz");
        var tap = Tap(child: 4);
        var answers = await Task.WhenAll(Enumerable.Range(0, 20).Select(_ => tomasz.PostAsync("/api/classes/1/observations", tap)));
        answers.ShouldAllBe(a => a.StatusCode == HttpStatusCode.NoContent);
        Count(o => o.Id == tap.Id).ShouldBe(1);
    }

    [Fact]
    public async Task An_id_that_belongs_to_another_child_is_refused()
    {
        var tomasz = await school.ComeInAsAsync("tomasz");
        var tap = Tap(child: 5);
        await tomasz.PostAsync("/api/classes/1/observations", tap);
        (await tomasz.PostAsync("/api/classes/1/observations", tap with { ChildId = 6 })).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task A_tap_of_one_adult_is_not_taken_in_anothers_name()
    {
        var tomasz = await school.ComeInAsAsync("tomasz");
        var tap = Tap(child: 9);
        tomasz.Headers["X-Tapped-By"] = "1";
        (await tomasz.PostAsync("/api/classes/1/observations", tap)).StatusCode.ShouldBe(HttpStatusCode.Unauthorized);
        Count(o => o.Id == tap.Id).ShouldBe(0);
        tomasz.Headers["X-Tapped-By"] = "2";
        (await tomasz.PostAsync("/api/classes/1/observations", tap)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }

    [Fact]
    public async Task A_withdrawn_observation_stays_on_record_and_no_longer_counts()
    {
        var tomasz = await school.ComeInAsAsync("tomasz");
        var path = "/api/classes/1/children/7/skills/bond.doubles";
        var before = await tomasz.ReadAsync<Cell>(path);
        var tap = Tap(child: 7) with { Skill = "bond.doubles", Strategy = null };
        await tomasz.PostAsync("/api/classes/1/observations", tap);
        (await tomasz.ReadAsync<Cell>(path)).Strength.ShouldBe(3);
        (await tomasz.PostAsync($"/api/classes/1/observations/{tap.Id}/withdraw", new { why = "" })).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        await tomasz.PostAsync($"/api/classes/1/observations/{tap.Id}/withdraw", new { why = "It was Gus" });
        await tomasz.PostAsync($"/api/classes/1/observations/{tap.Id}/withdraw", new { why = "Said twice" });
        var after = await tomasz.ReadAsync<Cell>(path);
        after.Strength.ShouldBe(before.Strength);
        after.Seen.Single(s => s.Id == tap.Id).WithdrawnWhy.ShouldBe("It was Gus");
    }

    [Fact]
    public async Task The_database_itself_refuses_to_change_an_observation()
    {
        var tomasz = await school.ComeInAsAsync("tomasz");
        var tap = Tap(child: 8);
        await tomasz.PostAsync("/api/classes/1/observations", tap);
        using var scope = school.Scope();
        var db = school.Db(scope);
        var fault = await Should.ThrowAsync<SqliteException>(() =>
            db.Observations.Where(o => o.Id == tap.Id).ExecuteUpdateAsync(o => o.SetProperty(x => x.Support, Support.NotYet))
        );
        fault.Message.ShouldContain("never changed");
    }

    public static TheoryData<NewObservation, string> Faulty =>
        new()
        {
            { Tap(child: 30), "childId" },
            { Tap(child: 3) with { Skill = "see.gone" }, "skill" },
            { Tap(child: 3) with { Slip = "invented" }, "slip" },
            { Tap(child: 3) with { Strategy = "invented" }, "strategy" },
            { Tap(child: 3) with { At = Now.AddDays(2) }, "at" },
            { Tap(child: 3) with { Note = new string('x', 501) }, "note" },
            { Tap(child: 3) with { SessionId = 99_999 }, "sessionId" },
            { Tap(child: 3) with { Id = Guid.Empty }, "id" },
        };

    [Theory]
    [MemberData(nameof(Faulty))]
    public async Task A_faulty_observation_is_refused_by_field_and_nothing_is_kept(NewObservation tap, string field)
    {
        var tomasz = await school.ComeInAsAsync("tomasz");
        var before = Count(_ => true);
        var refused = await tomasz.PostAsync("/api/classes/1/observations", tap);
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await refused.Content.ReadAsStringAsync()).ShouldContain($"\"{field}\":[");
        Count(_ => true).ShouldBe(before);
    }

    [Fact]
    public async Task A_body_that_is_no_observation_is_a_problem_and_not_a_crash()
    {
        var tomasz = await school.ComeInAsAsync("tomasz");
        (await tomasz.PostAsync("/api/classes/1/observations", new { support = "Perhaps" })).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
    }

    private int Count(System.Linq.Expressions.Expression<Func<ObservationRow, bool>> which)
    {
        using var scope = school.Scope();
        return school.Db(scope).Observations.Count(which);
    }

    public static NewObservation Tap(int child) =>
        new(Guid.NewGuid(), child, "see.to-3", Now, Setting.Group, Support.Alone, Representation.Objects, "see:3", null, "saw", null, null);
}
