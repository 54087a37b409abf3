using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>What is tapped by many at once is kept, each once, before whatever else wants to be written, and what is answered is on the disk.</summary>
public class RecordingLaneTests(School school) : IClassFixture<School>
{
    private static ObservationRow Row(int child, Guid? id = null, int? session = null, string? note = null) =>
        new()
        {
            Id = id ?? Guid.NewGuid(),
            ChildId = child,
            Skill = "see.to-3",
            At = new(2026, 11, 25, 7, 0, 0, 123, TimeSpan.Zero),
            Day = School.Today,
            AdultId = 1,
            Setting = Setting.Group,
            Support = Support.Alone,
            Representation = Representation.Objects,
            Numbers = "see:3",
            Note = note,
            SessionId = session,
        };

    private ObservationWriter Writer() => new(Path.Combine(school.Folder, "fobble.db"));

    [Fact]
    public async Task What_is_written_past_EF_is_read_by_it_as_it_was()
    {
        using var writer = Writer();
        var row = Row(3, note: "“Drei” · ثلاثة");
        writer.Keep([row]).ShouldBe([Kept.New]);
        using var scope = school.Scope();
        var read = await school.Db(scope).Observations.AsNoTracking().SingleAsync(o => o.Id == row.Id);
        read.Sequence.ShouldBeGreaterThan(0);
        row.Sequence = read.Sequence;
        read.ShouldBeEquivalentTo(row);
    }

    [Fact]
    public void Every_column_of_an_observation_is_written_but_its_number()
    {
        using var scope = school.Scope();
        var columns = school.Db(scope).Model.FindEntityType(typeof(ObservationRow))!.GetProperties().Select(p => p.Name);
        ObservationWriter.Columns.ShouldBe(columns.Except([nameof(ObservationRow.Sequence)]), ignoreOrder: true);
    }

    [Fact]
    public void One_that_cannot_be_kept_does_not_keep_the_others_from_it()
    {
        using var writer = Writer();
        var again = Guid.NewGuid();
        writer
            .Keep([Row(1, again), Row(1, again), Row(2, again), Row(999_999), Row(4, session: 999_999), Row(5)])
            .ShouldBe([Kept.New, Kept.Repeated, Kept.Taken, Kept.Gone, Kept.Gone, Kept.New]);
    }

    [Fact]
    public async Task Many_who_tap_at_once_are_kept_each_once_however_often_they_send()
    {
        var lane = school.Services.GetRequiredService<RecordingLane>();
        var ids = Enumerable.Range(0, 400).Select(_ => Guid.NewGuid()).ToList();
        var kept = await Task.WhenAll(
            ids.SelectMany(id => Enumerable.Range(0, 3).Select(_ => id))
                .Select((id, i) => Task.Run(() => lane.KeepAsync(Row(1 + (ids.IndexOf(id) % 20), id), default)))
        );
        kept.Count(k => k == Kept.New).ShouldBe(400);
        kept.Count(k => k == Kept.Repeated).ShouldBe(800);
        using var scope = school.Scope();
        (await school.Db(scope).Observations.CountAsync(o => ids.Contains(o.Id))).ShouldBe(400);
    }

    [Fact]
    public async Task Somebody_who_does_not_wait_has_it_kept_all_the_same()
    {
        var lane = school.Services.GetRequiredService<RecordingLane>();
        using CancellationTokenSource gone = new();
        await gone.CancelAsync();
        var row = Row(6);
        await Should.ThrowAsync<OperationCanceledException>(() => lane.KeepAsync(row, gone.Token));
        (await lane.KeepAsync(Row(6, row.Id), default)).ShouldBe(Kept.Repeated);
    }

    [Fact]
    public async Task A_tap_goes_before_those_who_wait_already_and_whoever_gives_up_is_passed_over()
    {
        WriteQueue queue = new();
        List<string> order = [];
        async Task TakeAsync(string name, Task<IDisposable> turn)
        {
            using (await turn)
            {
                lock (order)
                {
                    order.Add(name);
                }
            }
        }

        var first = await queue.WaitAsync(default);
        using CancellationTokenSource gives = new();
        var (one, gaveUp) = (TakeAsync("one", queue.WaitAsync(default)), TakeAsync("gave up", queue.WaitAsync(gives.Token)));
        var two = TakeAsync("two", queue.WaitAsync(default));
        var tap = TakeAsync("tap", queue.WaitFirstAsync());
        await gives.CancelAsync();
        await Should.ThrowAsync<OperationCanceledException>(() => gaveUp);
        order.ShouldBeEmpty();
        first.Dispose();
        first.Dispose();
        await Task.WhenAll(one, two, tap);
        order.ShouldBe(["tap", "one", "two"]);

        // Nobody has it now.
        (await queue.WaitAsync(default)).Dispose();
    }

    [Fact]
    public async Task Two_never_have_the_turn_at_once_whoever_comes_and_goes()
    {
        WriteQueue queue = new();
        var (inside, most, turns) = (0, 0, 0);
        await Task.WhenAll(
            Enumerable
                .Range(0, 16)
                .Select(w =>
                    Task.Run(async () =>
                    {
                        Random random = new(w);
                        for (var i = 0; i < 300; i++)
                        {
                            using CancellationTokenSource gives = new();
                            if (random.Next(3) == 0)
                            {
                                gives.CancelAfter(TimeSpan.FromTicks(random.Next(3000)));
                            }

                            try
                            {
                                using var turn = await (random.Next(2) == 0 ? queue.WaitAsync(gives.Token) : queue.WaitFirstAsync());
                                most = Math.Max(most, Interlocked.Increment(ref inside));
                                Interlocked.Increment(ref turns);
                                Interlocked.Decrement(ref inside);
                            }
                            catch (OperationCanceledException)
                            {
                                // Gave up.
                            }
                        }
                    })
                )
        );
        most.ShouldBe(1);
        turns.ShouldBeGreaterThan(2000);
        (await queue.WaitAsync(default).WaitAsync(TimeSpan.FromSeconds(5))).Dispose();
    }

    [Fact]
    public async Task While_all_turns_to_read_are_taken_a_tap_is_kept_a_page_waits_and_one_too_many_is_told_so()
    {
        var ines = await school.ComeInAsAsync("ines");
        var turns = school.Services.GetRequiredService<ReadingTurns>();
        List<System.Threading.RateLimiting.RateLimitLease> taken = [];
        for (var i = 0; i < Environment.ProcessorCount; i++)
        {
            taken.Add(await turns.WaitAsync(default));
        }

        var page = ines.GetAsync("/api/classes/1/grid");
        await Board.SeenAsync(ines, 7, "see.to-3", StandingClock.At("2026-11-25T07:00:00"));
        page.IsCompleted.ShouldBeFalse("there is no turn for it yet");

        using CancellationTokenSource gone = new();
        List<Task> waiting = [];
        while (waiting.LastOrDefault() is not { IsCompleted: true })
        {
            waiting.Add(turns.WaitAsync(gone.Token).AsTask());
            waiting.Count.ShouldBeLessThan(1000, "however many wait, there is an end");
        }

        var sentAway = await ines.GetAsync("/api/classes/1/baseline");
        sentAway.StatusCode.ShouldBe(HttpStatusCode.ServiceUnavailable);
        (await Visitor.SaysAsync(sentAway)).ShouldContain("Try again in a moment");

        // Whoever has gone away holds no turn, and the page that waited gets its own.
        await gone.CancelAsync();
        taken.ForEach(t => t.Dispose());
        (await page).StatusCode.ShouldBe(HttpStatusCode.OK);
        (await ines.GetAsync("/api/classes/1/grid")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }
}
