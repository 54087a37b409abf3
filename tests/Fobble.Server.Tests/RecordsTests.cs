using System.Text;
using System.Text.Json;
using Fobble.Core.Evidence;
using Fobble.Core.People;
using Fobble.Server.Features.Agreement;
using Fobble.Server.Features.ChildPage;
using Fobble.Server.Features.ClassGrid;
using Fobble.Server.Features.Live;
using Fobble.Server.Features.Records;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;
using UglyToad.PdfPig;

namespace Fobble.Server.Tests;

/// <summary>The record out and in, on paper, between two adults.</summary>
public class RecordsTests(School school) : IClassFixture<School>
{
    private static async Task<string> LongListAsync(Visitor ines, int lines)
    {
        var names = (await ines.ReadAsync<Grid>("/api/classes/1/grid")).Children.Select(c => c.Name).ToList();
        var day = new DateOnly(2026, 9, 1);
        return "Child,Skill,Day,Support,Note\r\n"
            + string.Concat(Enumerable.Range(0, lines).Select(i => $"{names[i % names.Count]},see.to-3,{day.AddDays(i % 80):O},Alone,number {i}\r\n"));
    }

    private static async Task<int> CountAsync(School school)
    {
        using var scope = school.Scope();
        return await school.Db(scope).Observations.CountAsync();
    }

    [Fact]
    public async Task Observations_go_out_as_csv_and_come_back_as_nothing_new()
    {
        var ines = await school.ComeInAsAsync("ines");
        var csv = await (await ines.GetAsync("/api/classes/1/records/csv")).Content.ReadAsStringAsync();
        csv.ShouldStartWith("Id,Child,Skill,");
        var preview = await Visitor.ReadAsync<RecordsPreview>(await ines.PostCsvAsync("/api/classes/1/records/csv/preview", csv));
        preview.New.ShouldBe(0);
        preview.Known.ShouldBe(csv.Split("\r\n").Length - 2);
        preview.CanBeTaken.ShouldBeTrue();
    }

    [Fact]
    public async Task A_file_with_one_fault_changes_nothing_and_a_good_one_is_taken_once()
    {
        var ines = await school.ComeInAsAsync("ines");
        var name = (await ines.ReadAsync<Grid>("/api/classes/1/grid")).Children[0];
        var good =
            $"Child,Skill,Day,Support,Seen by,Note\r\n{name.Name},strategy.choose,2026-11-20,Alone,Old spreadsheet,\"said why, twice\"\r\n{name.Name},Choose a way,23.11.2026,not yet,,\r\n";
        var bad = good + $"{name.Name},strategy.choose,2026-12-24,Alone,,\r\nNobody,strategy.choose,2026-11-20,Perhaps,,\r\n";
        var refused = await ines.PostCsvAsync("/api/classes/1/records/csv", bad);
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        var faults = (await refused.Content.ReadFromJsonAsync<RecordsPreview>(School.Json))!.Faults;
        faults.Select(f => (f.Row, f.Column)).ShouldBe([(4, "Day"), (5, "Child"), (5, "Support")]);
        Seen(name.Id, "strategy.choose").ShouldBe(0);
        (await Visitor.ReadAsync<RecordsPreview>(await ines.PostCsvAsync("/api/classes/1/records/csv", good))).New.ShouldBe(2);
        (await Visitor.ReadAsync<RecordsPreview>(await ines.PostCsvAsync("/api/classes/1/records/csv", good))).ShouldSatisfyAllConditions(
            p => p.New.ShouldBe(0),
            p => p.Known.ShouldBe(2)
        );
        Seen(name.Id, "strategy.choose").ShouldBe(2);
        var cell = await ines.ReadAsync<Cell>($"/api/classes/1/children/{name.Id}/skills/strategy.choose");
        cell.Seen.Select(s => (s.By, s.Note)).ShouldBe([("Ines Okonjo", null), ("Old spreadsheet", "said why, twice")]);
    }

    [Fact]
    public async Task Of_a_long_list_that_is_on_its_way_in_whoever_sent_it_can_ask_how_far_it_is_and_nobody_else()
    {
        using School own = new();
        var (ines, maeve) = (await own.ComeInAsAsync("ines"), await own.ComeInAsAsync("maeve"));
        var long_ = await LongListAsync(ines, 12_000);
        var id = Guid.NewGuid();
        (await ines.GetAsync($"/api/classes/1/records/imports/{id}")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var taking = Task.Run(() => ines.PostCsvAsync($"/api/classes/1/records/csv?import={id}", long_));
        List<double> shares = [];
        while (!taking.IsCompleted)
        {
            var answer = await ines.GetAsync($"/api/classes/1/records/imports/{id}");
            if (answer.StatusCode == HttpStatusCode.OK)
            {
                shares.Add((await Visitor.ReadAsync<ImportShare>(answer)).Share);
                (await maeve.GetAsync($"/api/classes/1/records/imports/{id}")).StatusCode.ShouldNotBe(HttpStatusCode.OK);
            }
        }

        (await Visitor.ReadAsync<RecordsPreview>(await taking)).New.ShouldBe(12_000);
        shares.Zip(shares.Skip(1)).ShouldAllBe(p => p.First <= p.Second, "it never goes back");
        shares.ShouldAllBe(s => s >= 0 && s <= 1);
        shares.Distinct().Count().ShouldBeGreaterThan(2);
        (await ines.GetAsync($"/api/classes/1/records/imports/{id}")).StatusCode.ShouldBe(HttpStatusCode.NotFound, "it is in");
    }

    /// <summary>At any moment of it: while it is read, looked for or kept.</summary>
    [Fact]
    public async Task Of_a_list_that_nobody_waits_for_any_more_all_is_kept_or_nothing_and_the_next_one_is_taken()
    {
        using School own = new();
        var ines = await own.ComeInAsAsync("ines");
        var list = await LongListAsync(ines, 6_000);
        var before = await CountAsync(own);
        Random random = new(20);
        var given = 0;
        for (var i = 0; i < 8; i++)
        {
            using CancellationTokenSource patience = new(random.Next(5, 1200));
            try
            {
                using StringContent body = new(list, Encoding.UTF8, "text/csv");
                (await ines.SendAsync(HttpMethod.Post, "/api/classes/1/records/csv", body, patience.Token)).StatusCode.ShouldBe(HttpStatusCode.OK);
            }
            catch (OperationCanceledException)
            {
                given++;
            }

            (await CountAsync(own) - before).ShouldBeOneOf(0, 6_000);
        }

        given.ShouldBeGreaterThan(0);
        (await ines.PostCsvAsync("/api/classes/1/records/csv", list)).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await CountAsync(own) - before).ShouldBe(6_000);
    }

    [Fact]
    public async Task Statements_are_a_line_of_json_each_under_a_pseudonym_and_withdrawn_ones_are_voided()
    {
        var ines = await school.ComeInAsAsync("ines");
        var tap = ClipboardTests.Tap(child: 14);
        await ines.PostAsync("/api/classes/1/observations", tap);
        await ines.PostAsync($"/api/classes/1/observations/{tap.Id}/withdraw", new { why = "Wrong child" });
        var lines = (await (await ines.GetAsync("/api/classes/1/records/statements?from=2026-11-25")).Content.ReadAsStringAsync())
            .Split('\n', StringSplitOptions.RemoveEmptyEntries)
            .Select(l => JsonDocument.Parse(l).RootElement)
            .ToList();
        var at = lines.FindIndex(l => l.TryGetProperty("id", out var id) && id.GetString() == $"{tap.Id}");
        lines[at].GetProperty("actor").GetProperty("account").GetProperty("name").GetString().ShouldBe("child-14");
        lines[at].GetProperty("result").GetProperty("success").GetBoolean().ShouldBeTrue();
        lines[at + 1].GetProperty("verb").GetProperty("id").GetString().ShouldEndWith("/voided");
        lines[at + 1].GetProperty("object").GetProperty("id").GetString().ShouldBe($"{tap.Id}");
    }

    [Fact]
    public async Task A_child_is_handed_on_with_its_whole_record_and_taking_it_twice_doubles_nothing()
    {
        var (ines, maeve) = (await school.ComeInAsAsync("ines"), await school.ComeInAsAsync("maeve"));
        var tap = ClipboardTests.Tap(child: 15);
        await ines.PostAsync("/api/classes/1/observations", tap);
        await ines.PostAsync($"/api/classes/1/observations/{tap.Id}/withdraw", new { why = "Wrong child" });
        var before = await ines.ReadAsync<ChildView>("/api/classes/1/children/15");
        var file = await (await ines.GetAsync("/api/classes/1/children/15/file")).Content.ReadAsStringAsync();
        var preview = await Visitor.ReadAsync<ChildFilePreview>(await PostJsonAsync(maeve, "/api/classes/2/child-file/preview", file));
        preview.ShouldSatisfyAllConditions(
            p => p.CanBeTaken.ShouldBeTrue(),
            p => p.New.ShouldBe(before.SeenInAll),
            p => p.JoinsChildId.ShouldBeNull(),
            p => p.FromSchool.ShouldBe("Lantern Hill School")
        );
        var there = (await Visitor.ReadAsync<TakenChild>(await PostJsonAsync(maeve, "/api/classes/2/child-file", file))).ChildId;
        (await Visitor.ReadAsync<TakenChild>(await PostJsonAsync(maeve, "/api/classes/2/child-file", file))).ChildId.ShouldBe(there);
        var after = await maeve.ReadAsync<ChildView>($"/api/classes/2/children/{there}");
        after.SeenInAll.ShouldBe(before.SeenInAll);
        after
            .Strands.SelectMany(s => s.Skills)
            .Select(s => (s.Id, s.Strength))
            .ShouldBe(before.Strands.SelectMany(s => s.Skills).Select(s => (s.Id, s.Strength)));
        after.Seen.Single(s => s.WithdrawnWhy is not null).WithdrawnWhy.ShouldBe("Wrong child (Ines Okonjo)");
        after.Seen.ShouldAllBe(s => s.BroughtBy == "Maeve Castellane");
    }

    [Theory]
    [InlineData("{}", "no child’s file")]
    [InlineData("not json", "damaged")]
    [InlineData(
        "{\"format\":\"fobble-child\",\"version\":2,\"made\":\"2026-11-25\",\"from\":{\"school\":\"a\",\"class\":\"b\"},\"child\":{\"givenName\":\"A\",\"familyName\":\"B\"},\"skills\":[],\"observations\":[],\"checks\":[]}",
        "version 2"
    )]
    [InlineData(
        "{\"format\":\"fobble-child\",\"version\":1,\"made\":\"2026-11-25\",\"from\":{\"school\":\"a\",\"class\":\"b\"},\"child\":{\"givenName\":\" \",\"familyName\":\"B\"},\"skills\":[],\"observations\":[],\"checks\":[]}",
        "name is missing"
    )]
    public async Task A_damaged_childs_file_is_refused_with_a_reason_and_adds_nobody(string file, string reason)
    {
        var maeve = await school.ComeInAsAsync("maeve");
        using var scope = school.Scope();
        var before = school.Db(scope).Children.Count();
        var refused = await PostJsonAsync(maeve, "/api/classes/2/child-file", file);
        refused.StatusCode.ShouldBe(HttpStatusCode.UnprocessableEntity);
        (await refused.Content.ReadFromJsonAsync<ChildFilePreview>(School.Json))!.Faults.Single().ShouldContain(reason);
        school.Db(scope).Children.Count().ShouldBe(before);
    }

    [Fact]
    public async Task The_family_page_and_the_summary_are_pdfs_of_their_words()
    {
        var ines = await school.ComeInAsAsync("ines");
        var name = (await ines.ReadAsync<ChildView>("/api/classes/1/children/2")).Name;
        var page = await WordsAsync(await ines.GetAsync("/api/classes/1/children/2/family-page?paper=Letter"));
        page.ShouldContain(ShortNames.Typed(name));
        page.ShouldContain("To try at home");
        var summary = await WordsAsync(await ines.GetAsync("/api/classes/1/summary"));
        summary.ShouldContain("Rowan, Lantern Hill School");
        summary.ShouldNotContain(name);
        (await ines.GetAsync("/api/classes/1/children/30/family-page")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Two_adults_codes_of_one_session_are_compared()
    {
        var (ines, tomasz) = (await school.ComeInAsAsync("ines"), await school.ComeInAsAsync("tomasz"));
        using var scope = school.Scope();
        var session = school
            .Db(scope)
            .GroupSessions.Where(s => s.ClassId == 1 && s.Day == School.Today)
            .Select(s => new
            {
                s.Id,
                s.Skill,
                Children = s.Members.Select(m => m.ChildId).ToList(),
            })
            .First();
        foreach (var (child, i) in session.Children.Select((c, i) => (c, i)))
        {
            await ines.PostAsync(
                "/api/classes/1/observations",
                ClipboardTests.Tap(child) with
                {
                    Skill = session.Skill,
                    SessionId = session.Id,
                    Strategy = null,
                }
            );
            await tomasz.PostAsync(
                "/api/classes/1/observations",
                ClipboardTests.Tap(child) with
                {
                    Skill = session.Skill,
                    SessionId = session.Id,
                    Strategy = null,
                    Support = i == 0 ? Support.NotYet : Support.Alone,
                }
            );
        }

        (await ines.ReadAsync<List<CodedSession>>("/api/classes/1/agreement")).ShouldContain(s => s.SessionId == session.Id);
        var result = await ines.ReadAsync<AgreementView>($"/api/classes/1/agreement/{session.Id}");
        result.Pairs.ShouldBe(session.Children.Count);
        result.Percent!.Value.ShouldBe((session.Children.Count - 1.0) / session.Children.Count, 1e-9);
        result.Apart.Single().ShouldSatisfyAllConditions(m => m.First.ShouldBe(Support.Alone), m => m.Second.ShouldBe(Support.NotYet));
        (await ines.GetAsync("/api/classes/1/agreement/99999")).StatusCode.ShouldBe(HttpStatusCode.NotFound);
    }

    [Fact]
    public async Task Whoever_watches_the_class_hears_of_a_tap_and_whoever_does_not_belong_cannot_watch()
    {
        var tomasz = await school.ComeInAsAsync("tomasz");
        await using var watching = await school.ConnectAsync((await school.ComeInAsAsync("ines")).Cookies);
        TaskCompletionSource<JustSeen> heard = new(),
            other = new();
        TaskCompletionSource<Guid> gone = new();
        watching.On<JustSeen>("seen", seen => heard.TrySetResult(seen));
        watching.On<Guid>("withdrawn", id => gone.TrySetResult(id));
        await watching.InvokeAsync("Watch", 1);
        (await Should.ThrowAsync<Exception>(() => watching.InvokeAsync("Watch", 2))).Message.ShouldContain("This class is not yours");
        var tap = ClipboardTests.Tap(child: 16);
        await tomasz.PostAsync("/api/classes/1/observations", tap);
        (await heard.Task.WaitAsync(TimeSpan.FromSeconds(10))).ShouldSatisfyAllConditions(s => s.Id.ShouldBe(tap.Id), s => s.By.ShouldBe("Tomasz Birk"));
        await tomasz.PostAsync($"/api/classes/1/observations/{tap.Id}/withdraw", new { why = "Wrong child" });
        (await gone.Task.WaitAsync(TimeSpan.FromSeconds(10))).ShouldBe(tap.Id);
    }

    [Fact]
    public async Task A_tap_that_waits_is_heard_by_the_others_at_once_in_ones_own_name_and_records_nothing()
    {
        await using var tapping = await school.ConnectAsync((await school.ComeInAsAsync("tomasz")).Cookies);
        await using var watching = await school.ConnectAsync((await school.ComeInAsAsync("ines")).Cookies);
        await using var looking = await school.ConnectAsync((await school.ComeInAsAsync("maeve")).Cookies);
        TaskCompletionSource<JustSeen> heard = new();
        TaskCompletionSource<Guid> gone = new();
        watching.On<JustSeen>("seen", seen => heard.TrySetResult(seen));
        watching.On<Guid>("withdrawn", id => gone.TrySetResult(id));
        foreach (var connection in new[] { tapping, watching, looking })
        {
            await connection.InvokeAsync("Watch", 1);
        }

        JustSeen tap = new(Guid.NewGuid(), 17, "see.to-3", Support.Together, null, null, 1, "Someone else");
        await tapping.InvokeAsync("Tapped", 1, tap);
        (await heard.Task.WaitAsync(TimeSpan.FromSeconds(10))).ShouldBe(tap with { AdultId = 2, By = "Tomasz Birk" });
        await tapping.InvokeAsync("Undone", 1, tap.Id);
        (await gone.Task.WaitAsync(TimeSpan.FromSeconds(10))).ShouldBe(tap.Id);
        (await Should.ThrowAsync<Exception>(() => looking.InvokeAsync("Tapped", 1, tap))).Message.ShouldContain("not yours to record in");
        (await Should.ThrowAsync<Exception>(() => tapping.InvokeAsync("Tapped", 2, tap))).Message.ShouldContain("not yours to record in");
        using var scope = school.Scope();
        school.Db(scope).Observations.Any(o => o.Id == tap.Id).ShouldBeFalse();

        // A child of another class, texts that nobody taps, a support there is not, and what is recorded already: nobody hears of it.
        var recorded = school.Db(scope).Observations.First(o => o.Child!.ClassId == 1).Id;
        foreach (
            var wrong in new[]
            {
                tap with
                {
                    ChildId = 40,
                },
                tap with
                {
                    Skill = new string('x', 20_000),
                },
                tap with
                {
                    Numbers = new string('9', 81),
                },
                tap with
                {
                    Support = (Support)9,
                },
                tap with
                {
                    Id = recorded,
                },
            }
        )
        {
            (await Should.ThrowAsync<Exception>(() => tapping.InvokeAsync("Tapped", 1, wrong))).Message.ShouldContain("be recorded here");
        }

        TaskCompletionSource<Guid> next = new();
        watching.On<Guid>("withdrawn", id => next.TrySetResult(id));
        await tapping.InvokeAsync("Undone", 1, recorded);
        await tapping.InvokeAsync("Undone", 1, tap.Id);
        (await next.Task.WaitAsync(TimeSpan.FromSeconds(10))).ShouldBe(tap.Id, "what is recorded is not taken back by saying so");
    }

    private int Seen(int child, string skill)
    {
        using var scope = school.Scope();
        return school.Db(scope).Observations.Count(o => o.ChildId == child && o.Skill == skill);
    }

    private static Task<HttpResponseMessage> PostJsonAsync(Visitor visitor, string path, string json) =>
        visitor.SendAsync(HttpMethod.Post, path, new StringContent(json, Encoding.UTF8, "application/json"));

    private static async Task<string> WordsAsync(HttpResponseMessage response)
    {
        response.Content.Headers.ContentType!.MediaType.ShouldBe("application/pdf");
        using var pdf = PdfDocument.Open(await response.Content.ReadAsByteArrayAsync());
        return string.Join(' ', pdf.GetPages().SelectMany(p => p.GetWords()).Select(w => w.Text));
    }
}
