using Fobble.Core.People;
using Fobble.Server.Hosting;

namespace Fobble.Server.Tests;

/// <summary>Work that keeps cores busy: never more at once than there are cores, the classes in turn, and nothing for whoever has gone away.</summary>
public sealed class SolvingTests
{
    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    [Fact]
    public async Task Who_asks_once_is_answered_after_one_of_those_who_asked_fifty_times()
    {
        Solving solving = new(cores: 1);
        using ManualResetEventSlim go = new();
        List<int> order = [];
        Task<int> Ask(int classId) =>
            solving.RunAsync(
                new(classId),
                _ =>
                {
                    order.Add(classId);
                    return classId;
                },
                Stop
            );
        var first = solving.RunAsync(
            new(9),
            stop =>
            {
                go.Wait(stop);
                return 0;
            },
            Stop
        );
        List<Task<int>> asked = [.. Enumerable.Range(0, 50).Select(_ => Ask(1)), Ask(2), Ask(3), Ask(2)];
        solving.Waiting.ShouldBe(53);
        go.Set();
        await first;
        await Task.WhenAll(asked);
        order.Take(6).ShouldBe([1, 2, 3, 1, 2, 1]);
        order.Count.ShouldBe(53);
        solving.Waiting.ShouldBe(0);
    }

    [Fact]
    public async Task Never_more_at_once_than_cores_nobody_forgotten_and_no_core_lost_whoever_goes_away_or_fails()
    {
        const int Cores = 3;
        Solving solving = new(Cores);
        var (at, most, worked, gone, failed) = (0, 0, 0, 0, 0);
        async Task AskAsync(int i)
        {
            Random random = new(i);
            using CancellationTokenSource patience = new();
            if (random.Next(3) == 0)
            {
                patience.CancelAfter(random.Next(60));
            }

            try
            {
                await solving.RunAsync(
                    new(random.Next(5)),
                    _ =>
                    {
                        var now = Interlocked.Increment(ref at);
                        InterlockedMax(ref most, now);
                        Thread.Sleep(random.Next(3));
                        Interlocked.Decrement(ref at);
                        return random.Next(10) == 0 ? throw new FormatException("as a test has it") : 0;
                    },
                    patience.Token
                );
                Interlocked.Increment(ref worked);
            }
            catch (OperationCanceledException)
            {
                Interlocked.Increment(ref gone);
            }
            catch (FormatException)
            {
                Interlocked.Increment(ref failed);
            }
        }

        await Task.WhenAll(Enumerable.Range(0, 600).Select(i => Task.Run(() => AskAsync(i), Stop)));
        (worked + gone + failed).ShouldBe(600);
        worked.ShouldBeGreaterThan(300);
        gone.ShouldBeGreaterThan(10);
        failed.ShouldBeGreaterThan(10);
        most.ShouldBe(Cores);

        // All of them are free again: three that wait for each other come together.
        using Barrier together = new(Cores);
        await Task.WhenAll(
            Enumerable.Range(0, Cores).Select(i => solving.RunAsync(new(i), stop => together.SignalAndWait(TimeSpan.FromSeconds(10), stop), Stop))
        );
        solving.Waiting.ShouldBe(0);
    }

    /// <summary>However many of whichever classes come and are taken: a class that waits has its turn before any other has two.</summary>
    [Fact]
    public void Between_two_turns_of_a_class_each_other_that_waited_has_had_one()
    {
        for (var seed = 1; seed <= 300; seed++)
        {
            Random random = new(seed);
            TurnsOfClasses<(int Class, int Number)> turns = new();
            List<(int Class, int Number)> waiting = [];
            var since = new Dictionary<int, HashSet<int>>();
            for (var step = 0; step < 200; step++)
            {
                if (random.Next(2) == 0)
                {
                    (int Class, int Number) one = (random.Next(6), step);
                    turns.Add(new(one.Class), one);
                    waiting.Add(one);
                    continue;
                }

                var there = turns.TryTake(out var next);
                there.ShouldBe(waiting.Count > 0);
                if (!there)
                {
                    continue;
                }

                next.ShouldBe(waiting.First(w => w.Class == next.Class), "of a class what came first");
                waiting.Remove(next);
                if (since.TryGetValue(next.Class, out var hadNone))
                {
                    hadNone.ShouldBeEmpty($"seed {seed}, step {step}");
                }

                foreach (var others in since.Values)
                {
                    others.Remove(next.Class);
                }

                since[next.Class] = [.. waiting.Select(w => w.Class).Where(c => c != next.Class)];
            }

            turns.Waiting.Order().ShouldBe(waiting.Order());
        }
    }

    private static void InterlockedMax(ref int most, int value)
    {
        for (var was = most; value > was; was = most)
        {
            if (Interlocked.CompareExchange(ref most, value, was) == was)
            {
                return;
            }
        }
    }
}
