using System.Collections.Concurrent;
using System.IO.Compression;
using System.Security.Claims;
using System.Text.RegularExpressions;
using Fobble.Server.Features.ClassGrid;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>A page that many ask for at once is worked out once; nobody is shown less than what was kept when they asked, and nobody waits for one who has gone.</summary>
public class AskedTogetherTests(School school) : IClassFixture<School>
{
    private sealed record Said(int Number);

    [Fact]
    public async Task All_who_ask_while_it_waits_share_one_answer_and_who_asks_once_it_has_begun_gets_another()
    {
        AskedTogether together = new();
        TaskCompletionSource turn = new();
        TaskCompletionSource rest = new();
        var times = 0;
        async ValueTask<Said> WorkOut(Action begin)
        {
            await turn.Task;
            begin();
            Said said = new(Interlocked.Increment(ref times));
            await rest.Task;
            return said;
        }

        List<Task<Said>> early = [.. Enumerable.Range(0, 5).Select(_ => together.AskAsync("page", WorkOut, default).AsTask())];
        var other = together.AskAsync("another page", begin => ValueTask.FromResult(new Said(-1)), default);
        (await other).Number.ShouldBe(-1);
        turn.SetResult();
        await WaitUntil(() => times == 1);
        var late = together.AskAsync("page", WorkOut, default).AsTask();
        rest.SetResult();
        (await Task.WhenAll(early)).ShouldAllBe(s => s.Number == 1);
        (await late).Number.ShouldBe(2);
    }

    [Fact]
    public async Task The_others_are_answered_where_the_first_has_gone_away_or_failed()
    {
        AskedTogether together = new();
        TaskCompletionSource turn = new();
        async ValueTask<Said> Fails(Action begin)
        {
            await turn.Task;
            throw new OperationCanceledException();
        }

        var first = together.AskAsync("page", Fails, default).AsTask();
        List<Task<Said>> others =
        [
            .. Enumerable.Range(0, 4).Select(i => together.AskAsync("page", begin => ValueTask.FromResult(new Said(i)), default).AsTask()),
        ];
        others.ShouldAllBe(o => !o.IsCompleted, "they wait for the first");
        turn.SetResult();
        await Should.ThrowAsync<OperationCanceledException>(first);
        await Task.WhenAll(others).WaitAsync(TimeSpan.FromSeconds(10));
    }

    [Fact]
    public async Task Whoever_gives_up_waiting_is_let_go_and_the_one_who_works_is_not_disturbed()
    {
        AskedTogether together = new();
        TaskCompletionSource turn = new();
        var first = together.AskAsync(
            "page",
            async begin =>
            {
                await turn.Task;
                return new Said(1);
            },
            default
        );
        using CancellationTokenSource gone = new();
        var second = together.AskAsync("page", _ => ValueTask.FromResult(new Said(2)), gone.Token).AsTask();
        await gone.CancelAsync();
        await Should.ThrowAsync<OperationCanceledException>(second);
        turn.SetResult();
        (await first).Number.ShouldBe(1);
    }

    /// <summary>Whatever the order: an answer is never older than the question. Some askers give up, some answers fail.</summary>
    [Fact]
    public async Task Nobody_is_shown_less_than_what_was_kept_when_they_asked()
    {
        AskedTogether together = new();
        var kept = 0;
        var workedOut = 0;
        ConcurrentBag<string> wrong = [];
        await Task.WhenAll(
            Enumerable
                .Range(0, 24)
                .Select(asker =>
                    Task.Run(async () =>
                    {
                        Random random = new(asker);
                        for (var i = 0; i < 400; i++)
                        {
                            if (random.Next(3) == 0)
                            {
                                Interlocked.Increment(ref kept);
                            }

                            var before = Volatile.Read(ref kept);
                            using CancellationTokenSource gone = new(random.Next(8) == 0 ? TimeSpan.FromMilliseconds(1) : Timeout.InfiniteTimeSpan);
                            try
                            {
                                var said = await together.AskAsync(
                                    $"page {random.Next(2)}",
                                    async begin =>
                                    {
                                        await Task.Yield();
                                        begin();
                                        var read = Volatile.Read(ref kept);
                                        await Task.Delay(random.Next(2));
                                        Interlocked.Increment(ref workedOut);
                                        return random.Next(10) == 0 ? throw new TimeoutException() : new Said(read);
                                    },
                                    gone.Token
                                );
                                if (said.Number < before)
                                {
                                    wrong.Add($"{said.Number} was shown where {before} were kept");
                                }
                            }
                            catch (Exception fault) when (fault is OperationCanceledException or TimeoutException)
                            {
                                // Gone, or told so.
                            }
                        }
                    })
                )
        );
        wrong.ShouldBeEmpty();
        workedOut.ShouldBeLessThan(24 * 400);
    }

    [Fact]
    public async Task Each_tablet_sees_its_own_tap_in_the_page_it_asks_for_next_however_many_ask()
    {
        string[] adults = ["ines", "tomasz"];
        var tablets = await Task.WhenAll(Enumerable.Range(0, 6).Select(i => school.ComeInAsAsync(adults[i % 2])));
        await Task.WhenAll(
            tablets.Select(
                (tablet, i) =>
                    Task.Run(async () =>
                    {
                        var child = 10 + i;
                        for (var round = 0; round < 6; round++)
                        {
                            var before = await StrengthAsync(tablet, child);
                            await Board.SeenAsync(tablet, child, "see.to-3", StandingClock.At("2026-11-25T07:00:00").AddSeconds(round * 10 + i));
                            var cell = await tablet.ReadAsync<Cell>($"/api/classes/1/children/{child}/skills/see.to-3");
                            (await StrengthAsync(tablet, child)).ShouldBe(cell.Strength, $"child {child}, {before} before");
                        }
                    })
            )
        );
    }

    [Fact]
    public async Task What_is_said_to_be_the_same_for_all_is_the_same_and_rests_on_nobody_who_asks()
    {
        var same = school
            .Services.GetRequiredService<EndpointDataSource>()
            .Endpoints.OfType<RouteEndpoint>()
            .Where(e => e.Metadata.GetMetadata<SameForAll>() is not null)
            .ToList();
        same.Count.ShouldBeGreaterThan(3);
        foreach (var endpoint in same)
        {
            // What one adult looks at may have to be written down: for all of them, and not for the first only.
            endpoint.Metadata.GetMetadata<LeavesTrace>().ShouldBeNull(endpoint.RoutePattern.RawText);
            var handler = endpoint.Metadata.OfType<System.Reflection.MethodInfo>().Single();
            handler
                .GetParameters()
                .ShouldNotContain(p => p.ParameterType == typeof(HttpContext) || p.ParameterType == typeof(ClaimsPrincipal), endpoint.RoutePattern.RawText);
        }

        var paths = same.Select(e => Regex.Replace(e.RoutePattern.RawText!, @"\{(\w+)[^}]*\}", m => m.Groups[1].Value == "day" ? "2026-11-25" : "1"));
        string[] adults = ["ines", "tomasz", "maeve"];
        List<Visitor> visitors = [.. await Task.WhenAll(adults.Select(school.ComeInAsAsync))];
        foreach (var path in paths)
        {
            var said = await Task.WhenAll(visitors.Select(v => TextAsync(v, path)));
            said.Distinct().ShouldHaveSingleItem();
            said[0].Length.ShouldBeGreaterThan(500, path);

            // Packed as each takes it, and the same in the end.
            foreach (var encoding in (string[])["gzip", "br", "br;q=0, gzip", "gzip, deflate, br"])
            {
                visitors[0].Headers["Accept-Encoding"] = encoding;
                var answer = await visitors[0].GetAsync(path);
                answer.Content.Headers.ContentType!.ToString().ShouldBe("application/json; charset=utf-8");
                answer.Headers.Vary.ShouldContain("Accept-Encoding");
                await using var body = await answer.Content.ReadAsStreamAsync(TestContext.Current.CancellationToken);
                await using Stream open = answer.Content.Headers.ContentEncoding.Single() switch
                {
                    "br" => new BrotliStream(body, CompressionMode.Decompress),
                    _ => new GZipStream(body, CompressionMode.Decompress),
                };
                (await new StreamReader(open).ReadToEndAsync(TestContext.Current.CancellationToken)).ShouldBe(said[0], encoding);
            }

            visitors[0].Headers.Clear();
        }
    }

    private static async Task<int> StrengthAsync(Visitor tablet, int child)
    {
        var grid = await tablet.ReadAsync<Grid>("/api/classes/1/grid");
        var at = grid.Skills.ToList().FindIndex(s => s.Id == "see.to-3");
        return grid.Children.Single(c => c.Id == child).Marks[at].Strength;
    }

    private static async Task<string> TextAsync(Visitor visitor, string path) => await (await visitor.GetAsync(path)).Content.ReadAsStringAsync();

    private static async Task WaitUntil(Func<bool> holds)
    {
        while (!holds())
        {
            await Task.Delay(5);
        }
    }
}
