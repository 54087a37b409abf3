using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Server.Features.Account;
using Fobble.Server.Features.Attendance;
using Fobble.Server.Features.Baseline;
using Fobble.Server.Features.ClassList;
using Fobble.Server.Features.Clipboard;
using Fobble.Server.Features.Groups;
using Fobble.Server.Features.GuessJar;
using Fobble.Server.Features.Planning;
using Fobble.Server.Features.Week;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Tests;

/// <summary>What happens when two adults, or twenty, do the same thing at the same moment: nothing is torn, doubled or silently dropped, and nobody meets a fault.</summary>
public sealed class AtOnceTests : IDisposable
{
    private const string Class = "/api/classes/1";
    private readonly School _school = new();

    public void Dispose() => _school.Dispose();

    [Fact]
    public async Task Children_marked_away_at_once_are_all_away_and_the_groups_know_each()
    {
        var ines = await _school.ComeInAsAsync("ines");
        await Board.AcceptAsync(ines, $"{Class}/weeks/2026-11-25", await Board.ProposeAsync(ines, $"{Class}/weeks/2026-11-25"));
        var groups = await ines.ReadAsync<GroupsView>($"{Class}/weeks/2026-11-25/groups");
        var children = groups.Groups.Where(g => g.Slot.Day == School.Today && !g.Run).SelectMany(g => g.Children).Select(c => c.Id).Take(4).ToList();
        children.Count.ShouldBeGreaterThan(1);
        var answers = await AllAsync(children, c => ines.PutAsync($"{Class}/attendance/{School.Today:O}/{c}", new Attendance(true)));
        answers.ShouldAllBe(s => s == HttpStatusCode.OK);
        (await CountAsync(db => db.Absences.CountAsync(a => a.Day == School.Today && children.Contains(a.ChildId)))).ShouldBe(children.Count);

        // Back again, all at once: everybody is where they were.
        (await AllAsync(children, c => ines.PutAsync($"{Class}/attendance/{School.Today:O}/{c}", new Attendance(false)))).ShouldAllBe(s =>
            s == HttpStatusCode.OK
        );
        var after = await ines.ReadAsync<GroupsView>($"{Class}/weeks/2026-11-25/groups");
        foreach (var (one, other) in groups.Groups.Zip(after.Groups))
        {
            other.Children.Select(c => c.Id).ShouldBe(one.Children.Select(c => c.Id), ignoreOrder: true);
        }
    }

    [Fact]
    public async Task The_same_wish_said_many_times_at_once_is_one_wish()
    {
        var ines = await _school.ComeInAsAsync("ines");
        (await ManyAsync(() => ines.PostAsync($"{Class}/pair-wishes", new NewPairWish(1, 2, false, null)))).ShouldAllBe(s => s == HttpStatusCode.NoContent);
        (await ManyAsync(() => ines.PostAsync($"{Class}/adult-wishes", new NewAdultWish(5, 1, true)))).ShouldAllBe(s => s == HttpStatusCode.NoContent);
        (await CountAsync(db => db.PairWishes.CountAsync(w => w.FirstId == 1 && w.SecondId == 2))).ShouldBe(1);
        (await CountAsync(db => db.AdultWishes.CountAsync(w => w.ChildId == 5 && w.AdultId == 1))).ShouldBe(1);
    }

    [Fact]
    public async Task A_guess_said_many_times_at_once_is_one_guess_and_a_jar_is_filled_once()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var jar = (await ines.ReadAsync<JarPage>($"{Class}/jar/")).Open!;
        (await ManyAsync(() => ines.PutAsync($"{Class}/jar/{jar.Id}/guesses/20", new GuessSaid(31)))).ShouldAllBe(s => s == HttpStatusCode.NoContent);
        (await CountAsync(db => db.JarGuesses.CountAsync(g => g.RoundId == jar.Id && g.ChildId == 20))).ShouldBe(1);
        (await ines.PostAsync($"{Class}/jar/{jar.Id}/open", new JarCount(37))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var fillings = await ManyAsync(() => ines.PostAsync($"{Class}/jar/", new JarFilling("jar", 1000, "beads", Core.GuessJar.ThingShape.Ball, 20, 20, 30)));
        fillings.Count(s => s == HttpStatusCode.NoContent).ShouldBe(1);
        fillings.ShouldAllBe(s => s == HttpStatusCode.NoContent || s == HttpStatusCode.BadRequest);
        (await CountAsync(db => db.JarRounds.CountAsync(r => r.ClassId == 1 && r.Counted == null))).ShouldBe(1);
    }

    [Fact]
    public async Task An_observation_withdrawn_many_times_at_once_is_withdrawn_once()
    {
        var ines = await _school.ComeInAsAsync("ines");
        NewObservation seen = new(
            Guid.NewGuid(),
            1,
            "count.say-5",
            ClipboardTests.Now.AddMinutes(-10),
            Setting.Choice,
            Support.Alone,
            Representation.Spoken,
            null,
            null,
            null,
            null,
            null
        );
        (await ines.PostAsync($"{Class}/observations", seen)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ManyAsync(() => ines.PostAsync($"{Class}/observations/{seen.Id}/withdraw", new WithdrawalReason("Wrong child")))).ShouldAllBe(s =>
            s == HttpStatusCode.NoContent
        );
        (await CountAsync(db => db.Withdrawals.CountAsync(w => w.ObservationId == seen.Id))).ShouldBe(1);
    }

    [Fact]
    public async Task Two_adults_who_begin_a_check_for_one_child_begin_the_same_check()
    {
        var (ines, tomasz) = (await _school.ComeInAsAsync("ines"), await _school.ComeInAsAsync("tomasz"));
        var both = await Task.WhenAll(
            Enumerable
                .Range(0, 8)
                .Select(i =>
                    Task.Run(async () =>
                        (
                            await Visitor.ReadAsync<IReadOnlyList<StartedCheck>>(
                                await (i % 2 == 0 ? ines : tomasz).PostAsync($"{Class}/baseline/", new StartChecks([25], null))
                            )
                        )[0].CheckId
                    )
                )
        );
        both.Distinct().Count().ShouldBe(1);
        (await CountAsync(db => db.BaselineChecks.CountAsync(c => c.ChildId == 25 && c.EndedAt == null))).ShouldBe(1);
    }

    [Fact]
    public async Task A_class_list_sent_many_times_at_once_adds_its_children_once()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var before = await CountAsync(db => db.Children.CountAsync(c => c.ClassId == 1));
        var answers = await ManyAsync(() => ines.PostCsvAsync($"{Class}/class-list", "Given name,Family name\nSalome,Testgood\nRufus,Testgood\n"));
        answers.ShouldAllBe(s => s == HttpStatusCode.OK);
        (await CountAsync(db => db.Children.CountAsync(c => c.ClassId == 1))).ShouldBe(before + 2);
    }

    [Fact]
    public async Task Of_many_first_starts_at_once_one_is_the_first()
    {
        using var empty = School.Empty();
        var visitors = await Task.WhenAll(Enumerable.Range(0, 6).Select(_ => empty.VisitAsync()));
        var answers = await AllAsync([.. visitors.Select((v, i) => (v, i))], p =>
            p.v.PostAsync(
                "/api/account/first-start",
                new FirstStart(
                    School.FirstCode,
                    "Rosalind Achterberg",
                    $"rosalind{p.i}@kettle-lane.example",
                    "nine wagons uphill",
                    "Kettle Lane School",
                    "Willow",
                    "Europe/London"
                )
            )
        );
        answers.Count(s => s == HttpStatusCode.NoContent).ShouldBe(1);
        answers.ShouldAllBe(s => s == HttpStatusCode.NoContent || s == HttpStatusCode.Conflict);
        using var scope = empty.Scope();
        (await empty.Db(scope).Schools.CountAsync()).ShouldBe(1);
        (await empty.Db(scope).Users.CountAsync()).ShouldBe(1);
    }

    [Fact]
    public async Task Two_who_change_the_plan_hear_of_each_other_and_neither_change_is_dropped()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var plan = await ines.ReadAsync<PlanView>($"{Class}/plan");
        var open = plan.Lessons.Where(l => !l.Past).Skip(4).Take(6).ToList();
        var answers = await AllAsync(open, l =>
            ines.PutAsync($"{Class}/plan/lessons", new ChangeLesson(plan.Version!.Version, l.Skill, l.Number, true, "Mine"))
        );
        answers.Count(s => s == HttpStatusCode.NoContent).ShouldBe(1);
        answers.ShouldAllBe(s => s == HttpStatusCode.NoContent || s == HttpStatusCode.Conflict);

        // Told what has changed, each offers its own again on top of it: all are there in the end.
        foreach (var lesson in open)
        {
            var refused = await ines.PutAsync($"{Class}/plan/lessons", new ChangeLesson(plan.Version!.Version, lesson.Skill, lesson.Number, true, "Mine"));
            refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
            var text = await refused.Content.ReadAsStringAsync();
            text.ShouldContain("urn:fobble:changed");
            text.ShouldContain("pinned");
            var now = (await ines.ReadAsync<PlanView>($"{Class}/plan")).Version!.Version;
            (await ines.PutAsync($"{Class}/plan/lessons", new ChangeLesson(now, lesson.Skill, lesson.Number, true, "Mine"))).StatusCode.ShouldBe(
                HttpStatusCode.NoContent
            );
        }

        (await ines.ReadAsync<PlanView>($"{Class}/plan")).Lessons.Count(l => l.Note == "Mine").ShouldBe(open.Count);
    }

    [Fact]
    public async Task A_move_a_pin_an_undo_and_a_revision_made_from_an_old_plan_are_refused_and_change_nothing()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var plan = await ines.ReadAsync<PlanView>($"{Class}/plan");
        var lesson = plan.Lessons.Where(l => !l.Past).Skip(4).First();
        (await ines.PutAsync($"{Class}/plan/lessons", new ChangeLesson(1, lesson.Skill, lesson.Number, false, "A note"))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        HttpResponseMessage[] stale =
        [
            await ines.PostAsync($"{Class}/plan/moves", new MoveLesson(1, lesson.Skill, lesson.Number, lesson.Day.AddDays(1), true)),
            await ines.PostAsync($"{Class}/plan/undo", new UndoPlan(1)),
            await ines.PostAsync($"{Class}/plan/revision/accept", new AcceptRevision(1, new([lesson.Day], "Snow", [], [], RevisionAim.MoveLeast))),
        ];
        stale.ShouldAllBe(r => r.StatusCode == HttpStatusCode.Conflict);
        var after = await ines.ReadAsync<PlanView>($"{Class}/plan");
        after.Version!.Version.ShouldBe(2);
        after.Weeks.SelectMany(w => w.Days).First(d => d.Day == lesson.Day).Different.ShouldNotBe("Snow");
    }

    [Fact]
    public async Task Groups_accepted_from_an_old_look_are_refused_and_say_whose_are_there()
    {
        var ines = await _school.ComeInAsAsync("ines");
        const string Week = $"{Class}/weeks/2026-12-02";
        var proposal = await Board.ProposeAsync(ines, Week);
        await Board.AcceptAsync(ines, Week, proposal);
        var refused = await ines.PostAsync(Week + "/groups/accept", Board.Chosen(proposal));
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await refused.Content.ReadAsStringAsync()).ShouldContain("Ines Okonjo");
        (await CountAsync(db => db.GroupSets.CountAsync(c => c.ClassId == 1 && c.Monday == new DateOnly(2026, 11, 30)))).ShouldBe(1);
        await Board.AcceptAsync(ines, Week, await ines.ReadAsync<GroupsView>(Week + "/groups"));
    }

    [Fact]
    public async Task An_activity_swapped_from_an_old_look_is_refused()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var day = (await ines.ReadAsync<WeekView>($"{Class}/weeks/2026-11-25")).Days.Last(d => d.Transition is not null && d.Day >= School.Today);
        var others = await ines.ReadAsync<IReadOnlyList<Alternative>>($"{Class}/days/{day.Day:O}/alternatives?place=Transition");
        var (first, second) = (others.Where(o => !o.Chosen).First().Activity, others.Where(o => !o.Chosen).Last().Activity);
        first.ShouldNotBe(second);
        (
            await ines.PutAsync($"{Class}/days/{day.Day:O}/activity", new SwapActivity(Core.Activities.Place.Transition, null, day.Transition!.Id, first.Id))
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var refused = await ines.PutAsync(
            $"{Class}/days/{day.Day:O}/activity",
            new SwapActivity(Core.Activities.Place.Transition, null, day.Transition.Id, second.Id)
        );
        refused.StatusCode.ShouldBe(HttpStatusCode.Conflict);
        (await refused.Content.ReadAsStringAsync()).ShouldContain(first.Name);
        (await ines.ReadAsync<WeekView>($"{Class}/weeks/2026-11-25")).Days.First(d => d.Day == day.Day).Transition!.Id.ShouldBe(first.Id);
    }

    [Fact]
    public async Task A_week_planned_while_taps_come_in_and_groups_are_accepted_meets_no_fault()
    {
        var (ines, tomasz) = (await _school.ComeInAsAsync("ines"), await _school.ComeInAsAsync("tomasz"));
        var taps = Enumerable
            .Range(0, 20)
            .Select(i => new NewObservation(
                Guid.NewGuid(),
                1 + i,
                "count.say-5",
                ClipboardTests.Now.AddMinutes(-20).AddSeconds(i),
                Setting.Choice,
                Support.Alone,
                Representation.Spoken,
                null,
                null,
                null,
                null,
                null
            ))
            .ToList();
        var recording = AllAsync(taps, t => tomasz.PostAsync($"{Class}/observations", t));
        var planning = AllAsync([1, 2, 3], _ => ines.PostAsync($"{Class}/weeks/2026-11-25/plan"));
        (await recording).ShouldAllBe(s => s == HttpStatusCode.NoContent);
        (await planning).ShouldAllBe(s => s == HttpStatusCode.OK);
        var ids = taps.ConvertAll(t => t.Id);
        (await CountAsync(db => db.Observations.CountAsync(o => ids.Contains(o.Id)))).ShouldBe(taps.Count);
        (await CountAsync(db => db.PlannedDays.GroupBy(d => new { d.ClassId, d.Day }).CountAsync(g => g.Count() > 1))).ShouldBe(0);
    }

    private static Task<HttpStatusCode[]> ManyAsync(Func<Task<HttpResponseMessage>> send) => AllAsync([.. Enumerable.Range(0, 12)], _ => send());

    private static Task<HttpStatusCode[]> AllAsync<T>(IReadOnlyList<T> of, Func<T, Task<HttpResponseMessage>> send) =>
        Task.WhenAll(of.Select(one => Task.Run(async () => (await send(one)).StatusCode)));

    private async Task<int> CountAsync(Func<Data.FobbleDb, Task<int>> count)
    {
        using var scope = _school.Scope();
        return await count(_school.Db(scope));
    }
}
