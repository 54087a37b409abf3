using Fobble.Core.Activities;
using Fobble.Core.Calendars;
using Fobble.Core.Grouping;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Server.Features.Groups;
using Fobble.Server.Features.Planning;
using Fobble.Server.Features.SetUp;
using Fobble.Server.Features.Today;
using Fobble.Server.Features.Week;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Mvc;

namespace Fobble.Server.Tests;

/// <summary>The plan of the year on the real application: made, moved, revised, undone; weeks and days follow, and a refused change changes nothing.</summary>
public sealed class PlanningTests : IDisposable
{
    private const string Plan = "/api/classes/1/plan";
    private readonly School _school = new();

    public void Dispose() => _school.Dispose();

    private static async Task<DraftView> WorkOutAsync(Visitor visitor, PlanAsk ask, string plan = Plan)
    {
        var draft = await Visitor.ReadAsync<DraftView>(await visitor.PostAsync($"{plan}/drafts", ask));
        for (var i = 0; i < 300 && draft.State == JobState.Working; i++)
        {
            await Task.Delay(100);
            draft = await visitor.ReadAsync<DraftView>($"{plan}/drafts/{draft.Id}");
        }

        return draft;
    }

    // The day of the class's trip: one for which a lesson was planned.
    private static async Task<DateOnly> TripAsync(Visitor visitor) =>
        (await visitor.ReadAsync<TimetableView>("/api/classes/1/timetable")).Closures.First(c => c.OfClass).First;

    private static async Task<string> RefusalAsync(HttpResponseMessage response, HttpStatusCode status)
    {
        response.StatusCode.ShouldBe(status);
        return (await response.Content.ReadFromJsonAsync<ProblemDetails>(School.Json))!.Detail!;
    }

    [Fact]
    public async Task From_a_scope_that_does_not_fit_over_a_way_out_to_a_plan_that_today_follows()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var scope = await ines.ReadAsync<ScopeChoices>($"{Plan}/scope");
        scope.Seasons[^1].Skills.ShouldBe(SkillMapLoader.AsWritten().Skills.Count);
        var full = await WorkOutAsync(ines, scope.Usual with { Dropped = [] });
        full.State.ShouldBe(JobState.Done);
        full.Plan.ShouldBeNull();
        full.Fit!.Over.ShouldBeGreaterThan(50);
        full.Ways.ShouldContain(w => w.Kind == "drop" && w.Fits && w.Dropped.Count > 20);
        (await RefusalAsync(await ines.PostAsync($"{Plan}/drafts/{full.Id}/accept", new AcceptDraft(full.Version)), HttpStatusCode.Conflict)).ShouldContain(
            "not ready"
        );

        var way = full.Ways.First(w => w.Kind == "one-more");
        var fits = await WorkOutAsync(ines, way.Ask);
        fits.Fit!.Over.ShouldBe(0);
        fits.Plan!.Unplaced.ShouldBeEmpty();
        var again = await WorkOutAsync(ines, way.Ask);
        again.Plan!.Lessons.ShouldBe(fits.Plan.Lessons, "the same settings and seed give the same plan");

        (await ines.PostAsync($"{Plan}/drafts/{fits.Id}/accept", new AcceptDraft(fits.Version))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.PostAsync($"{Plan}/drafts/{fits.Id}/accept", new AcceptDraft(fits.Version))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var plan = await ines.ReadAsync<PlanView>(Plan);
        plan.Version!.Version.ShouldBe(2);
        plan.Lessons.Where(l => !l.Past).Select(l => (l.Skill, l.Number, l.Day)).ShouldBe(fits.Plan.Lessons.Select(l => (l.Skill, l.Number, l.Day)));
        plan.Lessons.ShouldContain(l => l.Given);

        // The days that were worked out follow, the second lesson of a day among them.
        var week = await ines.ReadAsync<WeekView>("/api/classes/1/weeks/2026-11-25");
        foreach (var day in week.Days.Where(d => d.Day >= School.Today))
        {
            plan.Lessons.Where(l => l.Day == day.Day)
                .OrderBy(l => l.Place)
                .Select(l => l.Skill)
                .ShouldBe(
                    day.Focus!.Stage == LessonStage.Check && plan.Lessons.All(l => l.Day != day.Day)
                        ? []
                        : day.More.Select(m => m.Skill).Prepend(day.Focus.Skill)
                );
        }

        var tuesday = plan.Lessons.Where(l => !l.Past).GroupBy(l => l.Day).First(d => d.Count() == 2).Key;
        await ines.PostAsync($"/api/classes/1/weeks/{tuesday:O}/plan");
        var busy = await ines.ReadAsync<TodayView>($"/api/classes/1/days/{tuesday:O}");
        busy.More.ShouldHaveSingleItem().Skill.ShouldBe(plan.Lessons.First(l => l.Day == tuesday && l.Place == 1).Skill);
        (await ines.ReadAsync<Features.Sessions.Card>($"/api/classes/1/days/{tuesday:O}/carpet?lesson=1")).Skill.Id.ShouldBe(busy.More[0].Skill);
        (await ines.SendAsync(HttpMethod.Get, $"/api/classes/1/days/{tuesday:O}/carpet?lesson=2")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task What_a_planned_class_is_offered_anew_fits_the_days_that_are_left()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var before = await ines.ReadAsync<ScopeChoices>($"{Plan}/scope");
        await ines.PostAsync(
            "/api/classes/1/closures",
            new NewClosure("Flood", new DateOnly(2027, 3, 1), new DateOnly(2027, 5, 28), ClosureKind.Closed, null, null, OfClass: true)
        );
        var scope = await ines.ReadAsync<ScopeChoices>($"{Plan}/scope");
        scope.Usual.Dropped.Count.ShouldBeGreaterThan(before.Usual.Dropped.Count + 5);
        scope.Offered!.ShouldContain("for another year, unless you take them in.");
        (await Visitor.ReadAsync<FitView>(await ines.PostAsync($"{Plan}/fit", scope.Usual))).ShouldSatisfyAllConditions(
            f => f.Over.ShouldBe(0),
            f => f.ReviewsOver.ShouldBe(0)
        );
        (await Visitor.ReadAsync<FitView>(await ines.PostAsync($"{Plan}/fit", before.Usual))).Over.ShouldBeGreaterThan(0);
    }

    [Fact]
    public async Task A_draft_can_be_cancelled_belongs_to_its_class_and_refuses_what_makes_no_sense()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var usual = (await ines.ReadAsync<ScopeChoices>($"{Plan}/scope")).Usual;
        var slow = await Visitor.ReadAsync<DraftView>(await ines.PostAsync($"{Plan}/drafts", usual with { Thorough = true }));
        slow.State.ShouldBe(JobState.Working);
        (await ines.SendAsync(HttpMethod.Delete, $"{Plan}/drafts/{slow.Id}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        for (var i = 0; i < 100 && slow.State == JobState.Working; i++)
        {
            await Task.Delay(50);
            slow = await ines.ReadAsync<DraftView>($"{Plan}/drafts/{slow.Id}");
        }

        slow.State.ShouldBe(JobState.Cancelled);
        var maeve = await _school.ComeInAsAsync("maeve");
        (await maeve.SendAsync(HttpMethod.Get, $"/api/classes/2/plan/drafts/{slow.Id}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await ines.PostAsync($"{Plan}/drafts", usual with { BufferOneIn = 2 })).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.PostAsync($"{Plan}/drafts", usual with { Rounds = 4 })).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (
            await RefusalAsync(await ines.PostAsync($"{Plan}/drafts", usual with { Source = ScopeSource.Own, Skills = [] }), HttpStatusCode.BadRequest)
        ).ShouldContain("take at least one skill");
        (await ines.PostAsync($"{Plan}/drafts", usual with { Source = ScopeSource.Before, PlanId = 999 })).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.ReadAsync<PlanView>(Plan)).Version!.Version.ShouldBe(1);
    }

    [Fact]
    public async Task Standards_own_choices_and_a_colleagues_plan_are_scopes_too()
    {
        var maeve = await _school.ComeInAsAsync("maeve");
        var scope = await maeve.ReadAsync<ScopeChoices>("/api/classes/2/plan/scope");
        (await maeve.ReadAsync<PlanView>("/api/classes/2/plan")).ShouldSatisfyAllConditions(
            p => p.Version.ShouldBeNull(),
            p => p.Lessons.ShouldNotBeEmpty("what was taught is there")
        );
        var own = await WorkOutAsync(maeve, scope.Usual with { Source = ScopeSource.Own, Skills = ["place.ten-is-one"], Dropped = [] }, "/api/classes/2/plan");
        own.Plan!.Lessons.ShouldContain(l => l.Skill == "place.ten-is-one");
        own.Plan.Lessons.Select(l => l.Skill).Distinct().Count().ShouldBeGreaterThan(1, "what it needs comes before it");
        var rowan = scope.Plans.ShouldHaveSingleItem();
        rowan.Class.ShouldBe("Rowan");
        var copied = await WorkOutAsync(maeve, scope.Usual with { Source = ScopeSource.Before, PlanId = rowan.Id, Dropped = [] }, "/api/classes/2/plan");
        var fitted = copied.Plan is null ? await WorkOutAsync(maeve, copied.Ways[0].Ask, "/api/classes/2/plan") : copied;
        (await maeve.PostAsync($"/api/classes/2/plan/drafts/{fitted.Id}/accept", new AcceptDraft(fitted.Version))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await maeve.ReadAsync<PlanView>("/api/classes/2/plan")).Version!.What.ShouldStartWith("Planned from 25 November");

        // Rowan's lead does not see Alder's plan.
        var ines = await _school.ComeInAsAsync("ines");
        (await ines.ReadAsync<ScopeChoices>($"{Plan}/scope")).Plans.ShouldBeEmpty();
        (await ines.ReadAsync<IReadOnlyList<ClassCoverage>>($"{Plan}/coverage")).ShouldHaveSingleItem().Class.ShouldBe("Rowan");
        var both = await maeve.ReadAsync<IReadOnlyList<ClassCoverage>>("/api/classes/2/plan/coverage");
        both.Select(c => c.Class).ShouldBe(["Alder", "Rowan"]);
        both[1].Frameworks.ShouldAllBe(f => f.Standards.Count > 0);
        both[1].Pace!.ShouldContain("the plan of 2 November");
        both.ShouldAllBe(c => c.Whole.Taught > 0 && c.Whole.Observed > 0.05);

        // Beside each other: what is next, who had turns, and no child by name.
        var next = (await ines.ReadAsync<PlanView>(Plan)).Lessons.Where(l => !l.Past).OrderBy(l => l.Day).Select(l => l.Day).Take(3);
        both[1].Next.Select(n => n.Day).ShouldBe(next);
        var company = await ines.ReadAsync<CompanyView>("/api/classes/1/groups/company");
        var turns = company.Children.Select(c => c.Turns).ToList();
        both[1].Turns.ShouldBe(Company.TurnsInWords(turns, company.From));
        turns.ShouldContain(t => t > 0);
        var said = await (await maeve.GetAsync("/api/classes/2/plan/coverage")).Content.ReadAsStringAsync();
        using var inside = _school.Scope();
        foreach (var child in _school.Db(inside).Children)
        {
            said.ShouldNotContain($"{child.GivenName} ");
        }
    }

    [Fact]
    public async Task A_lesson_is_moved_by_hand_with_its_price_and_undone()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var before = await ines.ReadAsync<PlanView>(Plan);
        var day = await TripAsync(ines);
        var lesson = before.Lessons.Where(l => !l.Past).Skip(6).First(l => l.Of > 1 && l.Day != day);
        var prices = await ines.ReadAsync<IReadOnlyList<DayPriceView>>($"{Plan}/lessons/{lesson.Skill}/{lesson.Number}/days");
        var trip = prices.First(p => p.Day == day);
        trip.Refused.ShouldBe("Hill railway trip: there is no lesson that day.");
        (
            await RefusalAsync(await ines.PostAsync($"{Plan}/moves", new MoveLesson(1, lesson.Skill, lesson.Number, trip.Day, true)), HttpStatusCode.BadRequest)
        ).ShouldBe(trip.Refused);
        (
            await RefusalAsync(
                await ines.PostAsync($"{Plan}/moves", new MoveLesson(1, lesson.Skill, lesson.Number, new(2026, 11, 2), true)),
                HttpStatusCode.BadRequest
            )
        ).ShouldContain("past");
        var advised = prices.First(p => p.Refused is null && p.Advice.Count > 0);
        (
            await RefusalAsync(
                await ines.PostAsync($"{Plan}/moves", new MoveLesson(1, lesson.Skill, lesson.Number, advised.Day, false)),
                HttpStatusCode.BadRequest
            )
        ).ShouldContain(advised.Advice[0]);
        (await ines.PostAsync($"{Plan}/moves", new MoveLesson(1, "no.such", 1, advised.Day, false))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await ines.ReadAsync<PlanView>(Plan)).Version!.Version.ShouldBe(1, "what was refused changed nothing");

        (await ines.PostAsync($"{Plan}/moves", new MoveLesson(1, lesson.Skill, lesson.Number, advised.Day, true))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        var moved = await ines.ReadAsync<PlanView>(Plan);
        moved.Lessons.ShouldContain(l => l.Skill == lesson.Skill && l.Day == advised.Day);
        moved.Version!.What.ShouldContain("by hand");
        (await ines.PostAsync($"{Plan}/undo", new UndoPlan(2))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var undone = await ines.ReadAsync<PlanView>(Plan);
        undone.Lessons.ShouldBe(before.Lessons);
        (undone.Version!.Version, undone.CanUndo).ShouldBe((3, false));
        (await ines.PostAsync($"{Plan}/undo", new UndoPlan(3))).StatusCode.ShouldBe(HttpStatusCode.Conflict);
    }

    [Fact]
    public async Task Notes_and_pins_stay_with_their_lesson_when_the_plan_is_made_anew()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var lesson = (await ines.ReadAsync<PlanView>(Plan)).Lessons.Where(l => !l.Past).Skip(8).First();
        (await ines.PutAsync($"{Plan}/lessons", new ChangeLesson(1, lesson.Skill, lesson.Number, true, null))).StatusCode.ShouldBe(HttpStatusCode.NoContent);

        // Who keeps a note leaves the pin, which may be somebody else's, as it is.
        (await ines.PutAsync($"{Plan}/lessons", new ChangeLesson(2, lesson.Skill, lesson.Number, null, "Bring the lanterns."))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await ines.PutAsync($"{Plan}/lessons", new ChangeLesson(3, lesson.Skill, lesson.Number, true, new string('x', 301)))).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest
        );
        var usual = (await ines.ReadAsync<ScopeChoices>($"{Plan}/scope")).Usual;
        var draft = await WorkOutAsync(ines, usual with { Seed = 9 });
        draft = draft.Plan is null ? await WorkOutAsync(ines, draft.Ways[0].Ask) : draft;
        (await ines.PostAsync($"{Plan}/drafts/{draft.Id}/accept", new AcceptDraft(draft.Version))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.ReadAsync<PlanView>(Plan))
            .Lessons.First(l => l.Day == lesson.Day && l.Skill == lesson.Skill)
            .ShouldSatisfyAllConditions(l => l.Pinned.ShouldBeTrue(), l => l.Note.ShouldBe("Bring the lanterns."));
        await ines.PostAsync($"/api/classes/1/weeks/{lesson.Day:O}/plan");
        (await ines.ReadAsync<TodayView>($"/api/classes/1/days/{lesson.Day:O}")).Notes.ShouldBe(["Bring the lanterns."]);
    }

    [Fact]
    public async Task Lost_days_are_revised_taken_and_followed_or_refused_when_the_plan_has_changed()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var before = await ines.ReadAsync<PlanView>(Plan);
        before.Suggestions.ShouldContain(s => s.Kind == SuggestionKind.LostDays && s.Sentence.Contains("Hill railway trip", StringComparison.Ordinal));
        (await ines.ReadAsync<TodayView>($"/api/classes/1/days/{await TripAsync(ines):O}")).Lost!.ShouldStartWith(
            "Planned for this day, and without a place now (Hill railway trip): “"
        );
        (await ines.ReadAsync<TodayView>("/api/classes/1/days/2026-11-25")).Lost.ShouldBeNull();
        var trip = await TripAsync(ines);
        var days = Enumerable.Range(7, 4).Select(d => new DateOnly(2026, 12, d)).ToList();
        RevisePlan snow = new(days, "Snow", [], [], RevisionAim.MoveLeast);
        var seen = await Visitor.ReadAsync<RevisionView>(await ines.PostAsync($"{Plan}/revision", snow));
        seen.Moves.ShouldAllBe(m => m.Why.Length > 0);
        seen.After.ShouldAllBe(l => !days.Contains(l.Day));
        (await ines.ReadAsync<PlanView>(Plan)).Version!.Version.ShouldBe(1, "looking changes nothing");

        // One of the moves is not wanted: it is held, and the rest is worked out around it.
        var held = seen.Moves.First(m => m.Was is { } was && !days.Contains(was) && was != trip);
        var around = snow with { Held = [new(held.Skill, held.Number)] };
        var second = await Visitor.ReadAsync<RevisionView>(await ines.PostAsync($"{Plan}/revision", around));
        second.Moves.ShouldNotContain(m => m.Skill == held.Skill && m.Was == held.Was);
        second.After.ShouldContain(l => l.Skill == held.Skill && l.Day == held.Was);

        (await ines.PostAsync($"{Plan}/revision", snow with { Why = "" })).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.PostAsync($"{Plan}/revision", snow with { LostDays = [new(2020, 1, 1)] })).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await RefusalAsync(await ines.PostAsync($"{Plan}/revision/accept", new AcceptRevision(7, around)), HttpStatusCode.Conflict)).ShouldContain(
            "The plan has changed"
        );
        (await ines.PostAsync($"{Plan}/revision/accept", new AcceptRevision(second.Version, around))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var after = await ines.ReadAsync<PlanView>(Plan);
        after.Lessons.Where(l => !l.Past).Select(l => (l.Skill, l.Day)).ShouldBe(second.After.Select(l => (l.Skill, l.Day)));
        after.Lessons.Where(l => l.Past).ShouldBe(before.Lessons.Where(l => l.Past));
        after.Reviews.ShouldAllBe(r => !days.Contains(r.Day));
        after.Suggestions.ShouldNotContain(s => s.Kind == SuggestionKind.LostDays);
        after.Weeks.SelectMany(w => w.Days).Where(d => days.Contains(d.Day)).ShouldAllBe(d => d.Different == "Snow" && d.Places == 0 && d.School);
        (await ines.ReadAsync<TodayView>("/api/classes/1/days/2026-12-08")).ShouldSatisfyAllConditions(
            t => t.Carpet.ShouldBeNull(),
            t => t.Different.ShouldBe("Snow"),
            t => t.Lost.ShouldBeNull("a place was found for what was planned")
        );
        (await ines.ReadAsync<TimetableView>("/api/classes/1/timetable")).Closures.Count(c => c.Name == "Snow" && c.OfClass).ShouldBe(4);
    }

    [Fact]
    public async Task A_day_that_was_lost_and_already_worked_out_is_not_taught_and_comes_again()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var week = await ines.ReadAsync<WeekView>("/api/classes/1/weeks/2026-11-25");
        var tuesday = week.Days[1];
        RevisePlan lost = new([tuesday.Day], "Fire drill", [], [], RevisionAim.MoveLeast);
        var seen = await Visitor.ReadAsync<RevisionView>(await ines.PostAsync($"{Plan}/revision", lost));
        seen.Moves.ShouldContain(m => m.Skill == tuesday.Focus!.Skill && m.Was == null && m.Is >= School.Today);
        (await ines.PostAsync($"{Plan}/revision/accept", new AcceptRevision(seen.Version, lost))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var plan = await ines.ReadAsync<PlanView>(Plan);
        plan.Lessons.ShouldContain(l => l.Skill == tuesday.Focus!.Skill && l.Day >= School.Today);
        plan.Lessons.ShouldNotContain(l => l.Given && l.Day == tuesday.Day);
    }

    [Fact]
    public async Task An_activity_is_swapped_from_ranked_alternatives_and_stays_pinned()
    {
        var ines = await _school.ComeInAsAsync("ines");
        WeekDay? found = null;
        IReadOnlyList<Alternative> others = [];
        var monday = new DateOnly(2026, 11, 23);
        List<WeekDay> days = [];
        for (var week = monday; week <= monday.AddDays(21); week = week.AddDays(7))
        {
            days.AddRange((await Visitor.ReadAsync<WeekView>(await ines.PostAsync($"/api/classes/1/weeks/{week:O}/plan"))).Days);
        }

        foreach (var day in days.Where(d => d.Day >= School.Today && d.Focus is not null))
        {
            others = await ines.ReadAsync<IReadOnlyList<Alternative>>($"/api/classes/1/days/{day.Day:O}/alternatives?place=Carpet&skill={day.Focus!.Skill}");
            if (others.Count > 1)
            {
                (found, monday) = (day, day.Day.AddDays(1 - (int)day.Day.DayOfWeek));
                break;
            }
        }

        var (date, focus) = (found!.Day, found.Focus!);
        var at = (int)date.DayOfWeek - 1;
        var address = $"/api/classes/1/days/{date:O}";
        others.ShouldAllBe(o => o.Reason.Length > 10);
        others.Count(o => o.Chosen).ShouldBe(1);
        var other = others.First(o => !o.Chosen).Activity;
        (await ines.PutAsync($"{address}/activity", new SwapActivity(Place.Carpet, focus.Skill, focus.Activity.Id, other.Id))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await ines.PutAsync($"{address}/activity", new SwapActivity(Place.Carpet, focus.Skill, other.Id, "no-such"))).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest
        );
        (await ines.PutAsync($"{address}/activity", new SwapActivity(Place.Carpet, "see.to-3x", other.Id, other.Id))).StatusCode.ShouldBe(
            HttpStatusCode.NotFound
        );
        (await ines.PutAsync("/api/classes/1/days/2026-11-23/activity", new SwapActivity(Place.Transition, null, "", null))).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest
        );
        var again = await Visitor.ReadAsync<WeekView>(await ines.PostAsync($"/api/classes/1/weeks/{monday:O}/plan"));
        again.Days[at].Focus!.ShouldSatisfyAllConditions(f => f.Activity.Id.ShouldBe(other.Id), f => f.Pinned.ShouldBeTrue());
        foreach (var place in new[] { Place.Choice, Place.Transition })
        {
            var ranked = await ines.ReadAsync<IReadOnlyList<Alternative>>($"{address}/alternatives?place={place}");
            (
                await ines.PutAsync($"{address}/activity", new SwapActivity(place, null, ranked.First(r => r.Chosen).Activity.Id, ranked[^1].Activity.Id))
            ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        }

        (await ines.ReadAsync<WeekView>($"/api/classes/1/weeks/{monday:O}"))
            .Days[at]
            .ShouldSatisfyAllConditions(d => d.ChoicePinned.ShouldBeTrue(), d => d.TransitionPinned.ShouldBeTrue(), d => d.Minutes!.ShouldContain("minutes"));
        var chosen = (await ines.ReadAsync<WeekView>($"/api/classes/1/weeks/{monday:O}")).Days[at].Choice!.Id;
        (await ines.PutAsync($"{address}/activity", new SwapActivity(Place.Choice, null, chosen, null))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.ReadAsync<WeekView>($"/api/classes/1/weeks/{monday:O}")).Days[at].ChoicePinned.ShouldBeFalse();
    }

    [Theory]
    [InlineData("/api/classes/1/days/2026-11-26/page")]
    [InlineData("/api/classes/1/weeks/2026-11-25/page")]
    [InlineData("/api/classes/1/plan/term/2026-11-25/page")]
    [InlineData("/api/classes/2/plan/term/2027-03-01/page")]
    public async Task Day_week_and_term_come_as_pages(string address)
    {
        var maeve = await _school.ComeInAsAsync("maeve");
        var page = await maeve.SendAsync(HttpMethod.Get, address);
        page.Content.Headers.ContentType!.MediaType.ShouldBe("application/pdf");
        (await page.Content.ReadAsByteArrayAsync())[..4].ShouldBe("%PDF"u8.ToArray());
    }
}
