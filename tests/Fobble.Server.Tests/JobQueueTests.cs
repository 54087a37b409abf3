using System.Collections.Concurrent;
using Fobble.Core.People;
using Fobble.Server.Hosting;
using Microsoft.Extensions.Logging.Abstractions;

namespace Fobble.Server.Tests;

/// <summary>Work in the background: one at a time, few that wait, nobody's ended by somebody else, and all of it over when the server is.</summary>
public sealed class JobQueueTests : IAsyncLifetime
{
    private static readonly ClassId Class = new(1);
    private static readonly AdultId Ines = new(1),
        Rowan = new(2);
    private readonly JobQueue _jobs = new(TimeProvider.System, NullLogger<JobQueue>.Instance);

    public async ValueTask InitializeAsync() => await _jobs.StartAsync(default);

    public async ValueTask DisposeAsync()
    {
        await _jobs.StopAsync(default);
        _jobs.Dispose();
    }

    [Fact]
    public async Task Two_adults_who_ask_at_once_both_get_an_answer()
    {
        using ManualResetEventSlim go = new();
        var first = _jobs.Begin(new Ask(Ines, go.Wait));
        var second = _jobs.Begin(new Ask(Rowan, go.Wait));
        go.Set();
        await EndAsync(first, second);
        first.State.ShouldBe(JobState.Done);
        second.State.ShouldBe(JobState.Done);
    }

    [Fact]
    public async Task A_new_question_of_the_same_adult_ends_the_old_one_however_many_come_at_once()
    {
        var asked = new Ask[8];
        Parallel.For(0, asked.Length, i => asked[i] = _jobs.Begin(new Ask(Ines, stop => stop.WaitHandle.WaitOne())));
        var last = _jobs.Begin(new Ask(Ines, _ => { }));
        await EndAsync([.. asked, last]);
        asked.ShouldAllBe(a => a.State == JobState.Cancelled);
        last.State.ShouldBe(JobState.Done);
    }

    [Fact]
    public async Task A_fault_ends_its_own_job_only()
    {
        var bad = _jobs.Begin(new Ask(Ines, _ => throw new InvalidOperationException("as a test has it")));
        var good = _jobs.Begin(new Ask(Rowan, _ => { }));
        await EndAsync(bad, good);
        bad.State.ShouldBe(JobState.Failed);
        good.State.ShouldBe(JobState.Done);

        // The same adult asks again at once, and gets an answer.
        var again = _jobs.Begin(new Ask(Ines, _ => { }));
        await EndAsync(again);
        again.State.ShouldBe(JobState.Done);
    }

    [Fact]
    public async Task Who_comes_when_too_many_wait_is_told_so_and_ends_nobody()
    {
        using ManualResetEventSlim go = new();
        List<Ask> waiting = [BusyUntil(go)];
        Should
            .Throw<RefusedException>(() =>
            {
                for (var adult = 2; adult < 100; adult++)
                {
                    waiting.Add(_jobs.Begin(new Ask(new(adult), go.Wait, adult)));
                }
            })
            .Message.ShouldContain("Try again");
        waiting.Count.ShouldBe(21, "twenty that wait, and what is worked at");
        Should.Throw<RefusedException>(() => _jobs.Begin(new Ask(waiting[^1].AdultId, go.Wait, waiting[^1].ClassId.Value)));
        waiting[^1].State.ShouldBe(JobState.Working, "a refused question does not end the one before it");
        go.Set();
        await EndAsync([.. waiting]);
        waiting.ShouldAllBe(w => w.State == JobState.Done);
    }

    [Fact]
    public async Task A_class_that_asks_for_much_takes_no_turn_and_no_place_from_another()
    {
        using ManualResetEventSlim go = new();
        ConcurrentQueue<string> done = new();
        List<Ask> asked = [BusyUntil(go)];
        Should
            .Throw<RefusedException>(() =>
            {
                for (var adult = 2; adult < 100; adult++)
                {
                    var name = $"1.{adult}";
                    asked.Add(_jobs.Begin(new Ask(new(adult), _ => done.Enqueue(name))));
                }
            })
            .Message.ShouldContain("Try again");
        asked.Count.ShouldBe(9, "eight of a class wait");
        asked.Add(_jobs.Begin(new Ask(Ines, _ => done.Enqueue("2"), 2)));
        asked.Add(_jobs.Begin(new Ask(Ines, _ => done.Enqueue("3"), 3)));

        // What is given up makes room again.
        _jobs.Forget(asked[8]);
        asked.Add(_jobs.Begin(new Ask(new(100), _ => done.Enqueue("1.100"))));
        go.Set();
        await EndAsync([.. asked]);
        done.ShouldBe(["1.2", "2", "3", "1.3", "1.4", "1.5", "1.6", "1.7", "1.8", "1.100"]);
    }

    [Fact]
    public async Task What_is_let_go_of_is_not_found_again_and_ends()
    {
        var ask = _jobs.Begin(new Ask(Ines, stop => stop.WaitHandle.WaitOne()));
        _jobs.Find<Ask>(Class, ask.Id).ShouldBe(ask);
        _jobs.Find<Ask>(new(2), ask.Id).ShouldBeNull("another class's");
        _jobs.Forget(ask);
        _jobs.Find<Ask>(Class, ask.Id).ShouldBeNull();
        await EndAsync(ask);
        ask.State.ShouldBe(JobState.Cancelled);
    }

    [Fact]
    public async Task All_of_it_ends_with_the_server()
    {
        var ask = _jobs.Begin(new Ask(Ines, stop => stop.WaitHandle.WaitOne()));
        var waits = _jobs.Begin(new Ask(Rowan, _ => { }));
        await _jobs.StopAsync(new CancellationTokenSource(TimeSpan.FromSeconds(5)).Token);
        await EndAsync(ask, waits);
        ask.State.ShouldBe(JobState.Cancelled);
        waits.State.ShouldNotBe(JobState.Working, "its turn does not come any more");
    }

    /// <summary>A job that is worked at. It takes no place among those that wait; so it has to have begun before the others come.</summary>
    private Ask BusyUntil(ManualResetEventSlim go)
    {
        using ManualResetEventSlim begun = new();
        var busy = _jobs.Begin(new Ask(Ines, stop =>
            {
                begun.Set();
                go.Wait(stop);
            }));
        begun.Wait(TestContext.Current.CancellationToken);
        return busy;
    }

    private static async Task EndAsync(params Ask[] asked)
    {
        for (var tries = 0; tries < 1000 && asked.Any(a => a.State == JobState.Working); tries++)
        {
            await Task.Delay(10);
        }
    }

    private sealed class Ask(AdultId adult, Action<CancellationToken> work, int classId = 1) : Job(new(classId), adult, DateTimeOffset.UtcNow)
    {
        protected override void Run(CancellationToken stop)
        {
            work(stop);
            stop.ThrowIfCancellationRequested();
        }
    }
}
