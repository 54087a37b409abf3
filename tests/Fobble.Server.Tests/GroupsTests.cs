using Fobble.Core.Grouping;
using Fobble.Core.People;
using Fobble.Server.Features.Attendance;
using Fobble.Server.Features.Groups;
using Fobble.Server.Features.Sessions;
using Fobble.Server.Features.Today;
using Fobble.Server.Hosting;
using UglyToad.PdfPig;

namespace Fobble.Server.Tests;

/// <summary>The board of a week and what is kept for it, looking back, the day itself.</summary>
public sealed class GroupsTests : IDisposable
{
    private const string Class = "/api/classes/1";
    private const string NextWeek = Class + "/weeks/2026-12-02";
    private readonly School _school = new();

    public void Dispose() => _school.Dispose();

    [Fact]
    public async Task What_a_class_asks_of_its_groups_is_kept_and_followed()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var wishes = await ines.ReadAsync<GroupWishesView>(Class + "/group-wishes");
        wishes.Weights.Count.ShouldBe(8);
        var weights = wishes.Weights.ToDictionary(w => w.Key, w => w.Key == "company" ? 400 : 100);
        (await ines.PutAsync(Class + "/group-wishes", new GroupSettingsChange(2, 4, true, 1, 2, TurnsAWeek.Two, weights))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        var kept = await ines.ReadAsync<GroupWishesView>(Class + "/group-wishes");
        (kept.MinSize, kept.MaxSize, kept.EveryoneOnce, kept.MostNearAdult, kept.MostAtOnce, kept.TurnsAWeek).ShouldBe((2, 4, true, 1, 2, TurnsAWeek.Two));
        kept.Weights.Single(w => w.Key == "company").Percent.ShouldBe(400);
        var groups = (await Board.ProposeAsync(ines, NextWeek)).Groups;
        groups.ShouldAllBe(g => g.Children.Count <= 4 && g.Children.Count(c => kept.NearAdult.Contains(c.Id)) <= 1);
        foreach (
            var wrong in new[]
            {
                new GroupSettingsChange(5, 3, false, null, null, TurnsAWeek.One, weights),
                new(3, 5, false, 0, null, TurnsAWeek.One, weights),
                new(3, 5, false, null, 0, TurnsAWeek.One, weights),
                new(3, 5, false, null, null, TurnsAWeek.One, new Dictionary<string, int> { ["company"] = 70 }),
                new(3, 5, false, null, null, (TurnsAWeek)7, weights),
            }
        )
        {
            (await ines.PutAsync(Class + "/group-wishes", wrong)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        }

        (await ines.ReadAsync<GroupWishesView>(Class + "/group-wishes")).MaxSize.ShouldBe(4);
    }

    [Fact]
    public async Task Pairs_that_are_kept_apart_stay_apart_until_the_day_that_was_said()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var before = await Board.ProposeAsync(ines, NextWeek);
        var (one, other) = (before.Groups[0].Children[0].Id, before.Groups[0].Children[1].Id);
        (await ines.PostAsync(Class + "/pair-wishes", new NewPairWish(one, other, false, null))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.PostAsync(Class + "/pair-wishes", new NewPairWish(one, 30, false, null))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var after = await Board.ProposeAsync(ines, NextWeek);
        after.Groups.ShouldAllBe(g => !(g.Children.Any(c => c.Id == one) && g.Children.Any(c => c.Id == other)));
        var home = after.Groups.ToList().FindIndex(g => g.Children.Any(c => c.Id == other));
        var prices = await Visitor.ReadAsync<IReadOnlyList<PriceView>>(
            await ines.PostAsync(NextWeek + "/groups/prices", new PricesRequest(GroupsAsk.Nothing, Board.Groups(after), one))
        );
        prices.Single(p => p.To == home).Breaks.ShouldContain(b => b.Contains("kept apart"));
        Print(await Board.ProposeAsync(ines, NextWeek, GroupsAsk.Nothing with { LetGo = [$"apart-{Math.Min(one, other)}-{Math.Max(one, other)}"] }))
            .ShouldBe(Print(before));
        (await ines.PostAsync(Class + "/pair-wishes", new NewPairWish(one, other, false, new(2026, 11, 27)))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        Print(await Board.ProposeAsync(ines, NextWeek)).ShouldBe(Print(before));
        (await ines.SendAsync(HttpMethod.Delete, $"{Class}/pair-wishes/{other}/{one}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.ReadAsync<GroupWishesView>(Class + "/group-wishes")).Pairs.ShouldNotContain(p =>
            p.First == Math.Min(one, other) && p.Second == Math.Max(one, other)
        );
    }

    [Fact]
    public async Task Adults_and_times_out_are_kept_to()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var wishes = await ines.ReadAsync<GroupWishesView>(Class + "/group-wishes");
        var (lead, helper) = (wishes.Adults[0], wishes.Adults[1]);
        var child = wishes.Children[0].Id;
        (await ines.PutAsync($"{Class}/adults/{helper.Id}/groups", new AdultGroupsChange([wishes.Strands[0].Id], 2))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await ines.PutAsync($"{Class}/adults/{helper.Id}/groups", new AdultGroupsChange(["Juggling"], null))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.PutAsync($"{Class}/adults/9999/groups", new AdultGroupsChange([], null))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.PostAsync(Class + "/adult-wishes", new NewAdultWish(child, helper.Id, false))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.PostAsync(Class + "/adult-wishes", new NewAdultWish(30, helper.Id, false))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        foreach (var weekday in new[] { DayOfWeek.Monday, DayOfWeek.Tuesday, DayOfWeek.Wednesday })
        {
            (await ines.PostAsync(Class + "/times-out", new NewTimeOut(child, weekday, new(9, 30), new(9, 50)))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        }

        (await ines.PostAsync(Class + "/times-out", new NewTimeOut(child, DayOfWeek.Monday, new(10, 0), new(9, 0)))).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest
        );
        (await ines.PutAsync($"{Class}/children/{child}/near-adult", new NearAdultChange(true))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.PutAsync($"{Class}/children/30/near-adult", new NearAdultChange(true))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var groups = (await Board.ProposeAsync(ines, NextWeek, GroupsAsk.Nothing with { Turns = [child], Part = 2 })).Groups;
        groups.Count(g => g.Slot.Adult == helper.Name).ShouldBeInRange(0, 2);
        var own = groups.Single(g => g.Children.Any(c => c.Id == child));
        own.Slot.Adult.ShouldBe(lead.Name);
        own.Slot.Day.DayOfWeek.ShouldBeOneOf(DayOfWeek.Thursday, DayOfWeek.Friday);
        var stored = await ines.ReadAsync<GroupWishesView>(Class + "/group-wishes");
        stored.NearAdult.ShouldContain(child);
        stored.Adults.Single(a => a.Id == helper.Id).ShouldSatisfyAllConditions(a => a.Strands.ShouldBe([wishes.Strands[0].Id]), a => a.Most.ShouldBe(2));
        foreach (var time in stored.TimesOut.Where(t => t.ChildId == child))
        {
            (await ines.SendAsync(HttpMethod.Delete, $"{Class}/times-out/{time.Id}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        }

        (await ines.SendAsync(HttpMethod.Delete, $"{Class}/adult-wishes/{child}/{helper.Id}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.ReadAsync<GroupWishesView>(Class + "/group-wishes")).ShouldSatisfyAllConditions(
            w => w.TimesOut.ShouldNotContain(t => t.ChildId == child),
            w => w.AdultWishes.ShouldNotContain(a => a.ChildId == child)
        );
    }

    [Fact]
    public async Task Locks_are_kept_and_wishes_that_can_not_hold_together_are_named_and_let_go_of()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var first = await Board.ProposeAsync(ines, NextWeek);
        var (table, other) = (first.Groups[0], first.Groups[1]);
        var seat = new SeatLock(table.Children[0].Id, table.Slot.SlotId, table.Slot.Day);
        var ask = GroupsAsk.Nothing with { Seats = [seat], Aims = [new(other.Skill, other.Slot.SlotId, other.Slot.Day)], Kept = [Board.Of(first.Groups[2])] };
        var again = await Board.ProposeAsync(ines, NextWeek, ask);
        again.Groups.Single(g => g.Slot == table.Slot).Children.ShouldContain(c => c.Id == seat.ChildId);
        again.Groups.Single(g => g.Slot == other.Slot).Skill.ShouldBe(other.Skill);
        again.Groups.Single(g => g.Slot == first.Groups[2].Slot).Children.Select(c => c.Id).ShouldBe(first.Groups[2].Children.Select(c => c.Id));

        var elsewhere = GroupsAsk.Nothing with { Seats = [seat, new(seat.ChildId, other.Slot.SlotId, other.Slot.Day)] };
        var stuck = await Board.ProposeAsync(ines, NextWeek, elsewhere);
        stuck.Groups.ShouldBeEmpty();
        stuck.Conflict.Count.ShouldBe(2);
        stuck.Verdict.ShouldStartWith("Two wishes can’t be kept together");
        stuck.Conflict.ShouldAllBe(w => w.Sentence.Contains("sits at the table of") && w.ChildId == seat.ChildId && w.SlotId != null);
        (await Board.ProposeAsync(ines, NextWeek, elsewhere with { LetGo = [stuck.Conflict[0].Key] })).Groups.ShouldNotBeEmpty();
        (await ines.PostAsync(NextWeek + "/groups/proposal", ask with { Turns = [30] })).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.PostAsync(NextWeek + "/groups/proposal", ask with { Seats = [seat with { SlotId = 9999 }] })).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest
        );
    }

    [Fact]
    public async Task What_if_why_not_other_sets_and_a_longer_search_answer_from_the_same_board()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var first = await Board.ProposeAsync(ines, NextWeek);
        var child = first.Groups[0].Children[0].Id;
        (await Board.ProposeAsync(ines, NextWeek, GroupsAsk.Nothing with { Without = [child] }))
            .Groups.SelectMany(g => g.Children)
            .ShouldNotContain(c => c.Id == child);

        GroupsOnBoard board = new(GroupsAsk.Nothing, Board.Groups(first));
        var others = (await Visitor.ReadAsync<OtherSets>(await ines.PostAsync(NextWeek + "/groups/others", board))).Sets;
        others.Count.ShouldBe(2);
        others.ShouldAllBe(o => o.Score <= first.Score && Print(o) != Print(first));

        foreach (var slot in first.Groups.Skip(1).Select(g => g.Slot))
        {
            var why = await Visitor.ReadAsync<WhyNotView>(
                await ines.PostAsync(NextWeek + "/groups/why-not", new WhyNotRequest(GroupsAsk.Nothing, board.Groups, child, slot.SlotId, slot.Day))
            );
            why.Sentence.Length.ShouldBeGreaterThan(10);
            (why.Instead?.Groups.Single(g => g.Slot == slot).Children.Any(c => c.Id == child) ?? true).ShouldBeTrue();
        }

        var job = await Visitor.ReadAsync<ImproveView>(await ines.PostAsync(NextWeek + "/groups/better", board));
        for (var i = 0; i < 400 && job.State == JobState.Working; i++)
        {
            await Task.Delay(100);
            job = await ines.ReadAsync<ImproveView>($"{Class}/groups/better/{job.Id}");
        }

        job.State.ShouldBe(JobState.Done);
        job.Score.ShouldBeGreaterThanOrEqualTo(first.Score);
        job.Groups!.Verdict.ShouldNotBeEmpty();
        (await ines.SendAsync(HttpMethod.Delete, $"{Class}/groups/better/{Guid.NewGuid()}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Several_weeks_ahead_are_worked_out_and_each_can_be_taken()
    {
        var ines = await _school.ComeInAsAsync("ines");
        (await ines.PostAsync(NextWeek + "/groups/ahead", new AheadRequest(1))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var ahead = await Visitor.ReadAsync<AheadView>(await ines.PostAsync(NextWeek + "/groups/ahead", new AheadRequest(3)));
        for (var i = 0; i < 400 && ahead.State == JobState.Working; i++)
        {
            await Task.Delay(100);
            ahead = await ines.ReadAsync<AheadView>($"{Class}/groups/ahead/{ahead.Id}");
        }

        ahead.State.ShouldBe(JobState.Done);
        ahead
            .Weeks.Select(w => (w.Monday, w.Part))
            .ShouldBe(((DateOnly[])[new(2026, 11, 30), new(2026, 12, 7), new(2026, 12, 14)]).SelectMany(m => ((int?[])[1, 2]).Select(p => (m, p))));
        ahead.Children.Count.ShouldBe(26);
        ahead.Children.Average(c => c.Turns).ShouldBeGreaterThan(2);
        ahead.Sentence!.ShouldStartWith("In three weeks each child has ");
        (await Board.AcceptAsync(ines, Class + "/weeks/2026-12-07", ahead.Weeks[2])).Groups.Count.ShouldBe(ahead.Weeks[2].Groups.Count);
    }

    [Fact]
    public async Task A_child_away_on_the_day_changes_only_what_has_to_be_and_coming_after_all_puts_it_back()
    {
        var ines = await _school.ComeInAsAsync("ines");
        await ines.PutAsync(Class + "/group-wishes", new GroupSettingsChange(3, 4, false, null, null, TurnsAWeek.AsPlacesAllow, new Dictionary<string, int>()));
        var accepted = await Board.AcceptAsync(ines, NextWeek, await Board.ProposeAsync(ines, NextWeek));
        var small = accepted.Groups.First(g => g.Children.Count == 3);
        var child = small.Children[0].Id;
        var attendance = $"{Class}/attendance/{small.Slot.Day:O}/{child}";
        var tomasz = await _school.ComeInAsAsync("tomasz");
        var taken = await Visitor.ReadAsync<AttendanceTaken>(await tomasz.PutAsync(attendance, new { away = true }));
        taken.Changes.ShouldHaveSingleItem().ShouldContain(" is away");
        var after = await ines.ReadAsync<GroupsView>(NextWeek + "/groups");
        var sameDay = accepted.Groups.Where(g => g.Slot.Day == small.Slot.Day && g.SessionId != small.SessionId).ToList();
        sameDay.ShouldAllBe(g => after.Groups.Single(a => a.SessionId == g.SessionId).Children.Count == g.Children.Count);
        var now = after.Groups.Single(g => g.SessionId == small.SessionId);
        now.Children.ShouldContain(c => c.Id == child);
        (await Visitor.ReadAsync<AttendanceTaken>(await tomasz.PutAsync(attendance, new { away = true }))).Changes.ShouldBeEmpty();
        var today = await ines.ReadAsync<TodayView>($"{Class}/days/{small.Slot.Day:O}");
        var shown = today.Groups.Single(g => g.SessionId == small.SessionId);
        shown.Away.Count.ShouldBe(1);
        shown.Joined.Count.ShouldBe(now.Children.Count - 3);
        now.Children.Where(c => small.Children.All(s => s.Id != c.Id)).ShouldAllBe(c => c.Reason.StartsWith("Here because "));

        var back = await Visitor.ReadAsync<AttendanceTaken>(await tomasz.PutAsync(attendance, new { away = false }));
        back.Changes.Count.ShouldBe(shown.Joined.Count);
        Print(await ines.ReadAsync<GroupsView>(NextWeek + "/groups")).ShouldBe(Print(accepted));
    }

    [Fact]
    public async Task Looking_back_tells_strength_before_and_after_turns_and_company()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var after = await ines.ReadAsync<AfterView>(Class + "/groups/after?weeks=3");
        after.Weeks.Count.ShouldBe(3);
        after.Sentence.ShouldContain("aims are");
        var group = after.Weeks[1].Groups[0];
        group.Children.ShouldNotBeEmpty();
        group.Sentence.ShouldNotBeEmpty();
        after.Weeks.SelectMany(w => w.Groups).SelectMany(g => g.Children).ShouldContain(c => c.Reached && c.Before < 4 && c.Now >= 4);

        var company = await ines.ReadAsync<CompanyView>(Class + "/groups/company");
        company.Children.Count.ShouldBe(26);
        company.Children.Sum(c => c.Others).ShouldBe(2 * company.Met.Count);
        company.Children.ShouldAllBe(c => c.Turns > 0 == (c.Last != null) && c.Turns >= c.Aims.Count);
        (await ines.ReadAsync<CompanyView>(Class + "/groups/company?since=2026-11-23"))
            .Children.Sum(c => c.Turns)
            .ShouldBeLessThan(company.Children.Sum(c => c.Turns));

        var file = await (await ines.GetAsync(Class + "/groups/file")).Content.ReadAsStringAsync();
        file.ShouldStartWith("Day,Time,Adult,Aim,Child,Strength before");
        file.Split('\n').Length.ShouldBeGreaterThan(100);
        (await (await _school.ComeInAsAsync("tomasz")).GetAsync(Class + "/groups/file")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task On_paper_children_go_by_first_name_only_and_the_wall_says_no_aim()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var accepted = await Board.AcceptAsync(ines, NextWeek, await Board.ProposeAsync(ines, NextWeek));
        async Task<string> PrintedAsync(string what)
        {
            using var pdf = PdfDocument.Open(await (await ines.GetAsync($"{NextWeek}/groups/{what}")).Content.ReadAsByteArrayAsync());
            return string.Join(" ", pdf.GetPages().SelectMany(p => p.GetWords().Select(w => w.Text)));
        }

        var (wall, cards) = (await PrintedAsync("wall"), await PrintedAsync("cards"));
        var child = ShortNames.Typed(accepted.Groups[0].Children[0].Name);
        wall.ShouldContain(child.Split(' ')[0]);
        wall.ShouldNotContain(child);
        cards.ShouldNotContain(child);
        cards.ShouldContain(accepted.Groups[0].Short);
        accepted.Groups.ShouldAllBe(g => !wall.Contains(g.Short));
    }

    [Fact]
    public async Task What_was_seen_in_a_group_changes_the_next_proposal_and_is_told_in_looking_back()
    {
        var ines = await _school.ComeInAsAsync("ines");
        const string ThisWeek = Class + "/weeks/2026-11-25";
        var accepted = await Board.AcceptAsync(ines, ThisWeek, await Board.ProposeAsync(ines, ThisWeek));
        var group = accepted.Groups.First(g => g.Slot.Day == School.Today && !g.Run);
        using var scope = _school.Scope();
        var soon = _school.Db(scope).GroupSets.Max(c => c.AcceptedAt).AddMilliseconds(1);
        foreach (var child in group.Children)
        {
            await Board.SeenAsync(ines, child.Id, group.Skill, soon, group.SessionId);
        }

        var seen = (await ines.ReadAsync<AfterView>(Class + "/groups/after?weeks=1")).Weeks[0].Groups.Single(g => g.SessionId == group.SessionId);
        seen.Children.ShouldAllBe(c => c.Recorded && c.After >= c.Before);
        var next = await Board.ProposeAsync(ines, NextWeek);
        next.ComparedWith.ShouldBe(new DateOnly(2026, 11, 23));
        next.Changes.Where(c => group.Children.Any(m => m.Id == c.ChildId)).ShouldContain(c => c.Why.Contains("alone today"));
    }

    [Fact]
    public async Task A_week_with_places_for_it_gives_two_turns_the_second_beside_the_first()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var week = await ines.ReadAsync<GroupsView>(NextWeek + "/groups");
        week.Parts.Select(p => (p.Number, p.Open, p.Again)).ShouldBe([(1, true, null), (2, true, null)]);
        var first = await Board.ProposeAsync(ines, NextWeek);
        var second = await Board.ProposeAsync(ines, NextWeek, GroupsAsk.Nothing with { Part = 2, Beside = Board.Groups(first) });
        (first.Part, second.Part).ShouldBe((1, 2));
        second.Verdict.ShouldContain("second turn this week");
        first.Verdict.ShouldNotContain("second turn");
        IReadOnlyList<ChosenGroup> both = [.. Board.Groups(first), .. Board.Groups(second)];
        var turns = both.SelectMany(g => g.Children.Select(c => (c, g.Skill, g.Day))).ToList();
        turns.Select(t => (t.c, t.Skill)).ShouldBeUnique();
        turns.Select(t => (t.c, t.Day)).ShouldBeUnique();
        turns.Select(t => t.c).Distinct().Count().ShouldBe(26);

        // Twice in one part is once too often; beside groups that can't be, nothing is formed.
        var child = first.Groups[0].Children[0].Id;
        var twice = Board.Groups(first).Select((g, i) => i == 1 ? g with { Children = [.. g.Children, child] } : g).ToList();
        (await ines.PostAsync(NextWeek + "/groups/accept", new AcceptRequest(first.Version, twice))).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        foreach (
            var wrong in new[]
            {
                GroupsAsk.Nothing with
                {
                    Part = 3,
                },
                GroupsAsk.Nothing with
                {
                    Part = 2,
                    Beside = [both[0] with { Children = [30] }],
                },
                GroupsAsk.Nothing with
                {
                    Part = 2,
                    Beside = [both[0] with { Skill = "no.such" }],
                },
            }
        )
        {
            (await ines.PostAsync(NextWeek + "/groups/proposal", wrong)).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        }

        var taken = await Visitor.ReadAsync<GroupsView>(await ines.PostAsync(NextWeek + "/groups/accept", new AcceptRequest(first.Version, both)));
        taken.Groups.Count.ShouldBe(both.Count);
        taken.Groups.SelectMany(g => g.Children).ShouldContain(c => c.Reason.Contains("second turn"));

        // Asked again, a part stands beside what is accepted in the other.
        var again = await Board.ProposeAsync(ines, NextWeek, GroupsAsk.Nothing with { Part = 2 });
        Print(again).ShouldBe(Print(second));
    }

    [Fact]
    public async Task A_class_that_wants_one_turn_has_a_week_of_one_part()
    {
        var ines = await _school.ComeInAsAsync("ines");
        await ines.PutAsync(Class + "/group-wishes", new GroupSettingsChange(3, 5, false, null, null, TurnsAWeek.One, new Dictionary<string, int>()));
        (await ines.ReadAsync<GroupsView>(NextWeek + "/groups")).Parts.ShouldHaveSingleItem();
        var proposal = await Board.ProposeAsync(ines, NextWeek);
        proposal.Groups.Select(g => g.Slot.Day).Distinct().Count().ShouldBeGreaterThan(3);
        proposal.Groups.SelectMany(g => g.Children).Select(c => c.Id).ShouldBeUnique();
    }

    [Fact]
    public async Task What_an_adult_takes_in_a_week_is_counted_over_both_parts()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var helper = (await ines.ReadAsync<GroupWishesView>(Class + "/group-wishes")).Adults[1];
        await ines.PutAsync($"{Class}/adults/{helper.Id}/groups", new AdultGroupsChange([], 3));
        var first = await Board.ProposeAsync(ines, NextWeek);
        var second = await Board.ProposeAsync(ines, NextWeek, GroupsAsk.Nothing with { Part = 2, Beside = Board.Groups(first) });
        first.Groups.Concat(second.Groups).Count(g => g.Slot.Adult == helper.Name).ShouldBeLessThanOrEqualTo(3);
    }

    [Fact]
    public async Task In_the_middle_of_the_week_the_second_part_is_worth_asking_for_again()
    {
        var ines = await _school.ComeInAsAsync("ines");
        const string ThisWeek = Class + "/weeks/2026-11-25";
        var second = await Board.ProposeAsync(ines, ThisWeek, GroupsAsk.Nothing with { Part = 2 });
        var accepted = await Board.AcceptAsync(ines, ThisWeek, second);
        accepted.Parts.Select(p => p.Again).ShouldAllBe(a => a == null);
        var child = second.Groups[0].Children[0].Id;
        using var scope = _school.Scope();
        await Board.SeenAsync(ines, child, second.Groups[0].Skill, _school.Db(scope).GroupSets.Max(c => c.AcceptedAt).AddMilliseconds(1));
        var now = await ines.ReadAsync<GroupsView>(ThisWeek + "/groups");
        now.Parts[0].Again.ShouldBeNull();
        now.Parts[1].Again!.ShouldStartWith("One child has been seen since these were accepted");

        // Of the part that is asked again nothing that was held is touched, and nobody works twice on an aim.
        var again = await Board.ProposeAsync(ines, ThisWeek, GroupsAsk.Nothing with { Part = 2 });
        again.Groups.ShouldAllBe(g => g.Slot.Day > School.Today);
        var held = now.Groups.Where(g => g.Run).SelectMany(g => g.Children.Select(c => (c.Id, g.Skill))).ToList();
        again.Groups.SelectMany(g => g.Children.Select(c => (c.Id, g.Skill))).ShouldAllBe(t => !held.Contains(t));
    }

    private static string Print(GroupsView view) =>
        string.Join("; ", view.Groups.Select(g => $"{g.Slot.Day} {g.Slot.SlotId} {g.Skill}: {string.Join(",", g.Children.Select(c => c.Id).Order())}"));
}
