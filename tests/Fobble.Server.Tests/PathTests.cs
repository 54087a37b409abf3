using Fobble.Core.Planning;
using Fobble.Server.Features.ClassGrid;
using Fobble.Server.Features.ClassList;
using Fobble.Server.Features.Groups;
using Fobble.Server.Features.Sessions;
using Fobble.Server.Features.SetUp;
using Fobble.Server.Features.Today;
using Fobble.Server.Features.Week;

namespace Fobble.Server.Tests;

/// <summary>Class list, week, groups and Today, each address of the path with what goes wrong on it.</summary>
public sealed class PathTests : IDisposable
{
    private const string NextWeek = "/api/classes/1/weeks/2026-12-02";
    private readonly School _school = new();

    public void Dispose() => _school.Dispose();

    [Fact]
    public async Task A_class_list_is_previewed_and_taken_whole_or_not_at_all()
    {
        var ines = await _school.ComeInAsAsync("ines");
        const string Good = "Name,Born\nAmara Nwosu,\nNew Child,2021-10-01\n";
        var preview = await Visitor.ReadAsync<ClassListPreview>(await ines.PostCsvAsync("/api/classes/1/class-list/preview", Good));
        preview.New.ShouldBe(1);
        preview.Children.Select(c => c.Already).ShouldBe([true, false]);
        Children().ShouldBe(26);

        var refused = await ines.PostCsvAsync("/api/classes/1/class-list", Good + ",\nThird Child,not a date\n");
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        Children().ShouldBe(26);

        (await Visitor.ReadAsync<ClassListTaken>(await ines.PostCsvAsync("/api/classes/1/class-list", Good))).ShouldBe(new(1, 1));
        (await Visitor.ReadAsync<ClassListTaken>(await ines.PostCsvAsync("/api/classes/1/class-list", Good))).ShouldBe(new(0, 2));
        Children().ShouldBe(27);
        (await ines.PostCsvAsync("/api/classes/1/class-list/preview", new string('x', 1_100_000))).StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
    }

    [Fact]
    public async Task A_week_is_planned_grouped_accepted_and_seen_on_the_day()
    {
        var ines = await _school.ComeInAsAsync("ines");
        (await ines.ReadAsync<WeekView>(NextWeek)).Planned.ShouldBeFalse();
        var week = await Visitor.ReadAsync<WeekView>(await ines.PostAsync(NextWeek + "/plan"));
        week.Days.Where(d => d.Closed != "Hill railway trip").ShouldAllBe(d => d.State == DayState.Planned && d.Focus!.Reason.Length > 0);

        var proposal = await Board.ProposeAsync(ines, NextWeek);
        proposal.Groups.Count.ShouldBeGreaterThan(3);
        proposal.Changes.ShouldNotBeEmpty();
        proposal.Groups.SelectMany(g => g.Children).ShouldAllBe(c => c.Reason.Length > 10);
        var accepted = await Visitor.ReadAsync<GroupsView>(await ines.PostAsync(NextWeek + "/groups/accept", Board.Chosen(proposal)));
        accepted.Accepted.ShouldBeTrue();
        accepted.Groups.Count.ShouldBe(proposal.Groups.Count);

        var group = accepted.Groups[0];
        var card = await ines.ReadAsync<Card>($"/api/classes/1/sessions/{group.SessionId}");
        card.Items.Count.ShouldBeGreaterThanOrEqualTo(6);
        card.Children.Select(c => c.Id).Order().ShouldBe(group.Children.Select(c => c.Id).Order());
        (await ines.ReadAsync<Card>($"/api/classes/1/sessions/{group.SessionId}")).Items.Select(i => i.Key).ShouldBe(card.Items.Select(i => i.Key));
        var day = await ines.ReadAsync<TodayView>($"/api/classes/1/days/{group.Slot.Day:O}");
        day.Groups.ShouldContain(g => g.SessionId == group.SessionId && g.Children.Count == group.Children.Count);
        day.SetOut.ShouldNotBeEmpty();
    }

    [Fact]
    public async Task A_held_session_is_kept_and_its_children_are_not_placed_again()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var accepted = await Visitor.ReadAsync<GroupsView>(
            await ines.PostAsync(NextWeek + "/groups/accept", Board.Chosen(await Board.ProposeAsync(ines, NextWeek)))
        );
        var held = accepted.Groups[0];
        var child = held.Children[0].Id;
        (
            await ines.PostAsync(
                "/api/classes/1/observations",
                new
                {
                    id = Guid.NewGuid(),
                    childId = child,
                    skill = held.Skill,
                    at = ClipboardTests.Now,
                    setting = "Group",
                    support = "Alone",
                    representation = "Objects",
                    numbers = (string?)null,
                    slip = (string?)null,
                    strategy = (string?)null,
                    note = (string?)null,
                    sessionId = held.SessionId,
                }
            )
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);

        var again = await Board.ProposeAsync(ines, NextWeek);
        again.Groups.Single(g => g.Run).SessionId.ShouldBe(held.SessionId);
        again.Groups.Where(g => !g.Run).SelectMany(g => g.Children).Select(c => c.Id).ShouldNotContain(child);

        // Asked for once more, the child is passed over: nothing is impossible because of it.
        (await Board.ProposeAsync(ines, NextWeek, GroupsAsk.Nothing with { Turns = [child], Work = [new(child, held.Skill)] })).Conflict.ShouldBeEmpty();
        var twice = Board.Chosen(again);
        twice = twice with { Groups = [.. twice.Groups.Select((g, i) => i == 0 ? g with { Children = [.. g.Children, child] } : g)] };
        (await ines.PostAsync(NextWeek + "/groups/accept", twice)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var kept = await Visitor.ReadAsync<GroupsView>(await ines.PostAsync(NextWeek + "/groups/accept", Board.Chosen(again)));
        kept.Groups.Single(g => g.Run).SessionId.ShouldBe(held.SessionId);
    }

    [Fact]
    public async Task Impossible_groups_are_refused_and_change_nothing()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var chosen = Board.Chosen(await Board.ProposeAsync(ines, NextWeek));
        var first = chosen.Groups[0];
        foreach (
            var wrong in new[]
            {
                first with
                {
                    Skill = "see.gone",
                },
                first with
                {
                    SlotId = 9999,
                },
                first with
                {
                    Children = [30, 31, 32],
                },
                first with
                {
                    Children = [.. chosen.Groups[1].Children],
                },
            }
        )
        {
            (await ines.PostAsync(NextWeek + "/groups/accept", chosen with { Groups = [wrong, .. chosen.Groups.Skip(1)] })).StatusCode.ShouldBe(
                HttpStatusCode.BadRequest
            );
        }

        (await ines.ReadAsync<GroupsView>(NextWeek + "/groups")).Accepted.ShouldBeFalse();
    }

    [Fact]
    public async Task A_child_who_is_away_all_week_is_in_no_group()
    {
        var ines = await _school.ComeInAsAsync("ines");
        foreach (var day in Enumerable.Range(30, 5).Select(i => new DateOnly(2026, 11, 1).AddDays(i - 1)))
        {
            (await ines.PutAsync($"/api/classes/1/attendance/{day:O}/3", new { away = true })).StatusCode.ShouldBe(HttpStatusCode.OK);
        }

        (await Board.ProposeAsync(ines, NextWeek)).Groups.SelectMany(g => g.Children).Select(c => c.Id).ShouldNotContain(3);
        (await ines.ReadAsync<TodayView>("/api/classes/1/days/2026-11-30")).Children.Single(c => c.Id == 3).Away.ShouldBeTrue();
        await ines.PutAsync("/api/classes/1/attendance/2026-11-30/3", new { away = false });
        (await ines.ReadAsync<TodayView>("/api/classes/1/days/2026-11-30")).Children.Single(c => c.Id == 3).Away.ShouldBeFalse();
    }

    [Fact]
    public async Task A_closed_day_is_not_planned_and_Today_points_to_the_next_one()
    {
        var ines = await _school.ComeInAsAsync("ines");
        (
            await ines.PostAsync("/api/classes/1/closures", new NewClosure("Snow", new(2026, 12, 1), new(2026, 12, 1), default, null, null, false))
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (
            await ines.PostAsync("/api/classes/1/closures", new NewClosure("Backwards", new(2026, 12, 3), new(2026, 12, 1), default, null, null, false))
        ).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var week = await Visitor.ReadAsync<WeekView>(await ines.PostAsync(NextWeek + "/plan"));
        week.Days[1].ShouldSatisfyAllConditions(d => d.State.ShouldBe(DayState.Closed), d => d.Closed.ShouldBe("Snow"), d => d.Focus.ShouldBeNull());
        var day = await ines.ReadAsync<TodayView>("/api/classes/1/days/2026-12-01");
        day.IsSchoolDay.ShouldBeFalse();
        day.NextSchoolDay.ShouldBe(new DateOnly(2026, 12, 2));
        (await ines.PostAsync("/api/classes/1/weeks/2026-08-10/plan")).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task Days_that_are_past_are_never_planned_again()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var before = await ines.ReadAsync<WeekView>("/api/classes/1/weeks/2026-11-25");
        var after = await Visitor.ReadAsync<WeekView>(await ines.PostAsync("/api/classes/1/weeks/2026-11-25/plan"));
        after.Days.Take(2).Select(d => d.Focus).ShouldBe(before.Days.Take(2).Select(d => d.Focus));
        after.Days[2].State.ShouldBe(DayState.Planned);
    }

    [Fact]
    public async Task The_timetable_refuses_what_can_not_be()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var table = await ines.ReadAsync<TimetableView>("/api/classes/1/timetable");
        var me = table.Adults[0].Id;
        async Task<HttpStatusCode> Add(NewSlot slot) => (await ines.PostAsync("/api/classes/1/slots", slot)).StatusCode;
        var good = new NewSlot(Core.Planning.SlotKind.Group, DayOfWeek.Monday, new(11, 0), 15, me, "Den");
        (await Add(good with { Start = new(9, 45) })).ShouldBe(HttpStatusCode.BadRequest);
        (await Add(good with { AdultId = 9999 })).ShouldBe(HttpStatusCode.BadRequest);
        (await Add(good with { Weekday = DayOfWeek.Sunday })).ShouldBe(HttpStatusCode.BadRequest);
        (await Add(good)).ShouldBe(HttpStatusCode.NoContent);
        (
            await ines.PutAsync("/api/classes/1/terms", new[] { new TermView("A", Core.Calendars.Season.Autumn, new(2026, 9, 1), new(2026, 8, 1)) })
        ).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.ReadAsync<TimetableView>("/api/classes/1/timetable")).Slots.Count.ShouldBe(table.Slots.Count + 1);
    }

    [Fact]
    public async Task The_grid_has_every_child_and_skill_and_the_cell_explains_itself()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var grid = await ines.ReadAsync<Grid>("/api/classes/1/grid");
        grid.Children.Count.ShouldBe(26);
        grid.Children.ShouldAllBe(c => c.Marks.Count == grid.Skills.Count);
        grid.Children.SelectMany(c => c.Marks).Select(m => m.Strength).Distinct().Order().ShouldBe([0, 1, 2, 3, 4, 5]);
        var skill = grid.Skills.Select((s, i) => (s, i)).First(p => grid.Children[0].Marks[p.i].Strength >= 4).s;
        var cell = await ines.ReadAsync<Cell>($"/api/classes/1/children/{grid.Children[0].Id}/skills/{skill.Id}");
        cell.Sentence.ShouldMatch("^(Secure|Kept)");
        cell.Clauses.ShouldAllBe(c => c.Holds);
    }

    private int Children()
    {
        using var scope = _school.Scope();
        return _school.Db(scope).Children.Count(c => c.ClassId == 1);
    }
}
