using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Server.Features.Account;
using Fobble.Server.Features.Baseline;
using Fobble.Server.Features.Clipboard;
using Fobble.Server.Features.SetUp;
using Fobble.Server.Features.Sheets;
using Fobble.Server.Features.Trail;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>
/// A school in Sydney, whose server stands anywhere: half past nine in the morning of Thursday there is still Wednesday evening by UTC. (Sydney is 11 hours
/// ahead in November: IANA time zone data base.)
/// </summary>
public sealed class SydneyTests : IDisposable
{
    private const string Class = "/api/classes/1";
    private static readonly DateTimeOffset Nine = new(2026, 11, 25, 22, 0, 0, TimeSpan.Zero);
    private static readonly DateOnly Thursday = new(2026, 11, 26);
    private readonly School _school = School.At("2026-11-25T22:30:00Z");

    public void Dispose() => _school.Dispose();

    [Fact]
    public async Task What_is_seen_at_nine_in_the_morning_is_of_that_morning_on_every_page()
    {
        var ines = await InSydneyAsync();
        (await ines.StateAsync()).SignedIn!.Classes[0].Today.ShouldBe(Thursday);
        NewObservation seen = new(Guid.NewGuid(), 1, "count.say-5", Nine, Setting.Choice, Support.Alone, Representation.Spoken, null, null, null, null, null);
        (await ines.PostAsync($"{Class}/observations", seen)).StatusCode.ShouldBe(HttpStatusCode.NoContent);

        await using (var scope = _school.Services.CreateAsyncScope())
        {
            (await _school.Db(scope).Observations.Where(o => o.Id == seen.Id).Select(o => o.Day).SingleAsync()).ShouldBe(Thursday);
        }

        var trail = await ines.ReadAsync<TrailView>($"{Class}/trail?from=2026-11-26&to=2026-11-26");
        trail.Entries.ShouldContain(e => e.Seen.Id == seen.Id);
        (await ines.ReadAsync<TrailView>($"{Class}/trail?from=2026-11-25&to=2026-11-25")).Entries.ShouldNotContain(e => e.Seen.Id == seen.Id);
        (await ines.ReadAsync<SheetChoices>($"{Class}/sheets/")).Today.ShouldBe(Thursday);
    }

    [Fact]
    public async Task A_check_answered_at_nine_in_the_morning_is_evidence_of_that_day()
    {
        var ines = await InSydneyAsync();
        var check = (await Visitor.ReadAsync<IReadOnlyList<StartedCheck>>(await ines.PostAsync($"{Class}/baseline/", new StartChecks([1], "count"))))[
            0
        ].CheckId;
        var question = (await ines.ReadAsync<CheckView>($"{Class}/baseline/{check}")).Question!;
        NewAnswer answer = new(Guid.NewGuid(), question.Skill, Nine, Support.Alone, question.ShownIn[0], null, null);
        (await ines.PostAsync($"{Class}/baseline/{check}/answers", answer)).IsSuccessStatusCode.ShouldBeTrue();
        await using var scope = _school.Services.CreateAsyncScope();
        (await _school.Db(scope).Observations.Where(o => o.Id == answer.Id).Select(o => o.Day).SingleAsync()).ShouldBe(Thursday);
    }

    /// <summary>Of a day on the other side of a change of clocks the offset is another one than today's.</summary>
    [Fact]
    public async Task A_day_in_winter_begins_by_the_clock_of_that_winter_day()
    {
        var ines = await InSydneyAsync();
        await using var scope = _school.Services.CreateAsyncScope();
        var db = _school.Db(scope);

        // Ten past midnight on 1 July in Sydney is ten hours ahead of UTC; with today's eleven it would be taken for the evening before.
        DateTimeOffset early = new(2026, 6, 30, 14, 10, 0, TimeSpan.Zero);
        var id = Guid.NewGuid();
        db.Observations.Add(
            new()
            {
                Id = id,
                ChildId = 1,
                Skill = "count.say-5",
                At = early,
                Day = SchoolZone.Named("Australia/Sydney")!.DayOf(early),
                AdultId = 1,
                Setting = Setting.Choice,
                Support = Support.Alone,
                Representation = Representation.Spoken,
            }
        );
        await db.SaveChangesAsync();
        (await ines.ReadAsync<TrailView>($"{Class}/trail?from=2026-07-01&to=2026-07-01")).Entries.ShouldContain(e => e.Seen.Id == id);
        (await ines.ReadAsync<TrailView>($"{Class}/trail?from=2026-06-30&to=2026-06-30")).Entries.ShouldNotContain(e => e.Seen.Id == id);
    }

    [Fact]
    public async Task A_zone_that_is_none_is_refused_and_changes_nothing()
    {
        var ines = await InSydneyAsync();
        var refused = await ines.PutAsync($"{Class}/school", new SchoolPlace("Mars/Base", "en-GB"));
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await Visitor.SaysAsync(refused)).ShouldContain("time zone");
        (await ines.StateAsync()).SignedIn!.Classes[0].TimeZone.ShouldBe("Australia/Sydney");
    }

    private async Task<Visitor> InSydneyAsync()
    {
        var ines = await _school.ComeInAsAsync("ines");
        (await ines.PutAsync($"{Class}/school", new SchoolPlace("Australia/Sydney", "en-AU"))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        return ines;
    }
}
