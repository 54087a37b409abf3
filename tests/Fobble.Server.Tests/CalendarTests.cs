using System.Text;
using Fobble.Core.Calendars;
using Fobble.Core.Planning;
using Fobble.Server.Features.Calendar;
using Fobble.Server.Features.SetUp;
using Fobble.Server.Features.Week;
using Ical.Net.CalendarComponents;

namespace Fobble.Server.Tests;

/// <summary>Closures in, lessons out, odd days and adults' hours.</summary>
public sealed class CalendarTests : IDisposable
{
    private readonly School _school = new();

    public void Dispose() => _school.Dispose();

    private static Task<HttpResponseMessage> SendAsync(Visitor visitor, string address, string file) =>
        visitor.SendAsync(HttpMethod.Post, $"/api/classes/1/calendar/{address}", new StringContent(file, Encoding.UTF8, "application/octet-stream"));

    private static async Task<Dictionary<string, CalendarEvent>> HandOutAsync(Visitor visitor) =>
        Ical
            .Net.Calendar.Load(await (await visitor.PostAsync("/api/classes/1/calendar/lessons")).Content.ReadAsStringAsync())!
            .Events.ToDictionary(e => e.Uid!);

    [Fact]
    public async Task Closures_are_looked_at_and_taken_whole_or_not_at_all()
    {
        var ines = await _school.ComeInAsAsync("ines");
        const string File = "Name,First,Last\nMarket fair,2026-12-18,2026-12-18\nLamp week,2027-02-15,2027-02-19\n";
        var preview = await Visitor.ReadAsync<ClosuresPreview>(await SendAsync(ines, "closures/preview", File));
        (preview.New, preview.CanBeTaken).ShouldBe((1, true));
        preview.Closures.Select(c => c.Known).ShouldBe([true, false]);
        (await SendAsync(ines, "closures", File + "Broken,never,\n")).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.ReadAsync<TimetableView>("/api/classes/1/timetable")).Closures.ShouldNotContain(c => c.Name == "Lamp week");
        (await SendAsync(ines, "closures", File)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await ines.ReadAsync<TimetableView>("/api/classes/1/timetable")).Closures.Count(c => c.Name == "Lamp week").ShouldBe(1);
        (await SendAsync(ines, "closures", File)).StatusCode.ShouldBe(HttpStatusCode.BadRequest, "nothing in it is new");
        (await SendAsync(ines, "closures/preview", "Name,First\n" + new string('x', 2_100_000))).StatusCode.ShouldBe(HttpStatusCode.RequestEntityTooLarge);
    }

    [Fact]
    public async Task An_address_opens_the_lessons_until_it_is_renewed_withdrawn_or_its_adult_has_gone()
    {
        const string Own = "/api/classes/1/calendar/address";
        var (ines, tomasz, program) = (await _school.ComeInAsAsync("ines"), await _school.ComeInAsAsync("tomasz"), _school.CreateClient());
        async Task<string> MakeAsync(Visitor visitor) => (await Visitor.ReadAsync<NewCalendarAddress>(await visitor.PostAsync(Own))).Address;
        async Task<HttpStatusCode> AskAsync(string address) => (await program.GetAsync(new Uri(address, UriKind.Relative))).StatusCode;

        (await tomasz.ReadAsync<CalendarAddressView>(Own)).Made.ShouldBeNull();
        var (first, other) = (await MakeAsync(tomasz), await MakeAsync(ines));
        first.ShouldNotBe(other);
        (await tomasz.ReadAsync<CalendarAddressView>(Own)).Made.ShouldNotBeNull();

        // A program that brings nothing along but the address gets what the file holds.
        var lessons = await program.GetAsync(new Uri(first, UriKind.Relative));
        lessons.Content.Headers.ContentType!.MediaType.ShouldBe("text/calendar");
        lessons.Headers.CacheControl!.NoStore.ShouldBeTrue();
        Ical.Net.Calendar.Load(await lessons.Content.ReadAsStringAsync())!
            .Events.Select(e => e.Uid)
            .ShouldBe((await HandOutAsync(ines)).Keys, ignoreOrder: true);
        (await AskAsync(first.Replace(".ics", "x.ics", StringComparison.Ordinal))).ShouldBe(HttpStatusCode.NotFound);
        (await AskAsync("/api/calendar/x.ics")).ShouldBe(HttpStatusCode.NotFound);
        using (var scope = _school.Scope())
        {
            // Neither the key nor a part of it is kept.
            var kept = _school.Db(scope).CalendarAddresses.Select(a => a.KeyHash).ToList();
            kept.Count.ShouldBe(2);
            kept.ShouldAllBe(hash => !first.Contains(hash, StringComparison.OrdinalIgnoreCase));
        }

        var second = await MakeAsync(tomasz);
        (await AskAsync(first)).ShouldBe(HttpStatusCode.NotFound, "it was made anew");
        (await AskAsync(second)).ShouldBe(HttpStatusCode.OK);
        await ines.SendAsync(HttpMethod.Delete, Own);
        (await AskAsync(other)).ShouldBe(HttpStatusCode.NotFound, "it was withdrawn");
        (await AskAsync(second)).ShouldBe(HttpStatusCode.OK, "another's is not");
        using (var scope = _school.Scope())
        {
            var db = _school.Db(scope);
            var held = db.Memberships.Single(m => m.ClassId == 1 && m.Adult!.FullName.StartsWith("Tomasz"));
            (held.From, held.Until) = (School.Today.AddDays(-9), School.Today.AddDays(-1));
            await db.SaveChangesAsync();
        }

        (await AskAsync(second)).ShouldBe(HttpStatusCode.NotFound, "its adult has nothing to do with the class any more");
    }

    [Fact]
    public async Task A_lesson_keeps_its_id_counts_its_changes_and_is_cancelled_once_it_is_off()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var first = await HandOutAsync(ines);
        first.Count.ShouldBeGreaterThan(50);
        first.Values.ShouldAllBe(e => e.Sequence == 0 && e.Status == "CONFIRMED");
        first.Values.ShouldAllBe(e => !e.Summary!.Contains("Amara", StringComparison.Ordinal), "no child is named");
        (await HandOutAsync(ines)).Values.ShouldAllBe(e => e.Sequence == 0, "nothing has changed");

        // Two lessons change places, and a day is lost.
        var plan = await ines.ReadAsync<Features.Planning.PlanView>("/api/classes/1/plan");
        var lesson = plan.Lessons.Where(l => l.Day > new DateOnly(2026, 12, 7)).First(l => l.Place == 0);
        var other = (
            await ines.ReadAsync<IReadOnlyList<Features.Planning.DayPriceView>>($"/api/classes/1/plan/lessons/{lesson.Skill}/{lesson.Number}/days")
        ).First(p => p.Refused is null && p.With is not null && p.Day > lesson.Day);
        await ines.PostAsync("/api/classes/1/plan/moves", new Features.Planning.MoveLesson(1, lesson.Skill, lesson.Number, other.Day, true));
        var lost = plan.Lessons.Where(l => l.Day > new DateOnly(2027, 3, 8)).First(l => l.Place == 0).Day;
        await ines.PostAsync("/api/classes/1/closures", new NewClosure("Storm", lost, lost, ClosureKind.Closed, null, null, false));
        var second = await HandOutAsync(ines);
        CalendarEvent On(Dictionary<string, CalendarEvent> events, DateOnly day) =>
            events.Values.First(e => e.Start!.Value.Date == day.ToDateTime(default).Date && (e.Summary ?? "").StartsWith("Carpet", StringComparison.Ordinal));
        On(second, lesson.Day)
            .ShouldSatisfyAllConditions(
                e => e.Uid.ShouldBe(On(first, lesson.Day).Uid),
                e => e.Sequence.ShouldBe(1),
                e => e.Summary.ShouldBe($"Carpet: {other.With}")
            );
        On(second, other.Day).Summary.ShouldBe($"Carpet: {lesson.Short}");
        var off = On(second, lost);
        (off.Uid, off.Sequence, off.Status).ShouldBe((On(first, lost).Uid, 1, "CANCELLED"));
        (await HandOutAsync(ines))[off.Uid!].Sequence.ShouldBe(1, "it is off only once");
        second.Keys.ShouldBe(first.Keys, ignoreOrder: true);
    }

    [Fact]
    public async Task On_a_half_day_lessons_that_do_not_fit_are_not_held_and_a_trip_is_of_one_class_only()
    {
        var ines = await _school.ComeInAsAsync("ines");
        DateOnly friday = new(2026, 12, 11);
        (await ines.PostAsync("/api/classes/1/closures", new NewClosure("Fair", friday, friday, ClosureKind.HalfDay, null, null, false))).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest
        );
        (
            await ines.PostAsync("/api/classes/1/closures", new NewClosure("Fair", friday, friday, ClosureKind.HalfDay, null, new(9, 50), false))
        ).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var half = (await ines.ReadAsync<WeekView>("/api/classes/1/weeks/2026-12-09")).Days[4];
        half.Slots.ShouldHaveSingleItem().Kind.ShouldBe(SlotKind.Carpet);
        half.Closed.ShouldBe("Fair");
        var maeve = await _school.ComeInAsAsync("maeve");
        (await maeve.ReadAsync<WeekView>("/api/classes/2/weeks/2026-12-09")).Days[4].Closed.ShouldBe("Fair");
        (await maeve.ReadAsync<WeekView>("/api/classes/2/weeks/2026-12-02")).Days[2].Closed.ShouldBeNull("the trip is Rowan’s");
        var trip = (await ines.ReadAsync<TimetableView>("/api/classes/1/timetable")).Closures.First(c => c.OfClass);
        await maeve.SendAsync(HttpMethod.Delete, $"/api/classes/2/closures/{trip.Id}");
        (await ines.ReadAsync<TimetableView>("/api/classes/1/timetable")).Closures.ShouldContain(c => c.Id == trip.Id);
    }

    [Fact]
    public async Task Where_an_adult_has_hours_groups_are_put_nowhere_else()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var tomasz = (await ines.ReadAsync<TimetableView>("/api/classes/1/timetable")).Adults.First(a => a.FullName == "Tomasz Birk").Id;
        (await ines.PostAsync("/api/classes/1/hours", new NewHours(tomasz, DayOfWeek.Monday, new(13, 0), new(12, 0)))).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest
        );
        (await ines.PostAsync("/api/classes/1/hours", new NewHours(999, DayOfWeek.Monday, new(13, 0), new(14, 0)))).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest
        );
        (await ines.PostAsync("/api/classes/1/hours", new NewHours(tomasz, DayOfWeek.Monday, new(13, 0), new(14, 0)))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        (await ines.PostAsync("/api/classes/1/slots", new NewSlot(SlotKind.Group, DayOfWeek.Monday, new(13, 50), 15, tomasz, "Table"))).StatusCode.ShouldBe(
            HttpStatusCode.BadRequest
        );
        (await ines.PostAsync("/api/classes/1/slots", new NewSlot(SlotKind.Group, DayOfWeek.Monday, new(13, 40), 15, tomasz, "Table"))).StatusCode.ShouldBe(
            HttpStatusCode.NoContent
        );
        var hours = (await ines.ReadAsync<TimetableView>("/api/classes/1/timetable")).Hours.ShouldHaveSingleItem();
        hours.Used.ShouldBe(15);
        (await ines.SendAsync(HttpMethod.Delete, $"/api/classes/1/hours/{hours.Id}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
    }
}
