using Fobble.Data.Model;
using Fobble.Server.Features.ClassGrid;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Tests.Faults;

/// <summary>A machine's clock leaps, for an hour or for years, and is right again later: pages are read meanwhile, and nothing that was kept is touched by it.</summary>
public class ClockTests
{
    private const string Now = "2026-11-25T08:00:00";
    private const string Class = "/api/classes/1";

    // An hour and weeks back, a battery that is empty; new year, both changes of clocks in London (last Sundays of March and October), the end of a leap February, a July between two years,
    // the second after the last that 32 bits can count (2038-01-19 03:14:07 UTC).
    public static TheoryData<string> Leaps =>
        new(
            "2026-11-25T07:00:00",
            "2026-10-20T08:00:00",
            "2001-01-01T00:00:00",
            "2026-12-31T23:59:59",
            "2027-01-01T00:00:00",
            "2027-03-28T01:30:00",
            "2027-10-31T01:30:00",
            "2028-02-29T12:00:00",
            "2027-07-31T12:00:00",
            "2038-01-19T03:14:08"
        );

    [Theory]
    [MemberData(nameof(Leaps))]
    public async Task A_clock_that_leaps_keeps_nobody_from_a_page_and_nothing_is_changed_by_it(string leap)
    {
        StandingClock clock = new(Now);
        using var school = School.By(clock);
        var ines = await school.ComeInAsAsync("ines");
        var before = await ines.ReadAsync<Grid>($"{Class}/grid");
        var rows = await RowsAsync(school);

        clock.Goes(leap);
        var then = await school.ComeInAsAsync("ines");
        Dictionary<string, string> parts = new()
        {
            ["classId"] = "1",
            ["day"] = "2026-11-25",
            ["childId"] = "1",
            ["skill"] = "see.to-3",
            ["skillId"] = "see.to-3",
        };
        List<string> faults = [];
        foreach (var address in Addresses.Of(school, parts).Where(a => a.Method == HttpMethod.Get && a.Path.StartsWith(Class, StringComparison.Ordinal)))
        {
            var answer = await then.GetAsync(address.Path);
            if (answer.StatusCode >= HttpStatusCode.InternalServerError)
            {
                faults.Add($"{address.Path}: {await Visitor.SaysAsync(answer)}");
            }
        }

        faults.ShouldBeEmpty();

        // The tablet's clock is right: a server that is behind does not believe it, and says so; it is sent again.
        var tap = Board.Tap(Guid.NewGuid(), 2, "see.to-3", StandingClock.At(Now).AddMinutes(-1));
        var kept = await then.PostAsync($"{Class}/observations", tap);
        kept.StatusCode.ShouldBe(
            StandingClock.At(leap) < StandingClock.At(Now).AddMinutes(-11) ? HttpStatusCode.BadRequest : HttpStatusCode.NoContent,
            await kept.Content.ReadAsStringAsync()
        );

        clock.Goes("2026-11-25T08:01:00");
        ines = await school.ComeInAsAsync("ines");
        (await ines.PostAsync($"{Class}/observations", tap)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await RowsAsync(school)).ShouldBe(rows with { Observations = rows.Observations + 1 });
        var after = await ines.ReadAsync<Grid>($"{Class}/grid");
        foreach (var (was, now) in before.Children.Zip(after.Children).Where(c => c.First.Id != 2))
        {
            now.Marks.ShouldBe(was.Marks, $"child {was.Id}");
        }
    }

    private static async Task<Rows> RowsAsync(School school)
    {
        using var scope = school.Scope();
        var db = school.Db(scope);
        return new(
            await db.Observations.CountAsync(),
            await db.Children.CountAsync(c => c.LeftOn == null),
            await db.Set<YearPlanRow>().CountAsync(),
            await db.GroupSessions.CountAsync(),
            await db.PlannedDays.CountAsync(),
            await db.Memberships.CountAsync(),
            await db.Classes.CountAsync(c => c.ArchivedOn == null)
        );
    }

    private sealed record Rows(int Observations, int Children, int Plans, int Sessions, int Days, int Members, int Classes);
}
