using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>What is kept in memory always says what the database says, whatever is written between two reads.</summary>
public sealed class ObservationCacheTests(School school) : IClassFixture<School>, IDisposable
{
    private readonly ObservationCache _cache = new();

    public void Dispose() => _cache.Dispose();

    [Fact]
    public async Task It_is_the_same_list_until_something_changes()
    {
        await using var scope = school.Services.CreateAsyncScope();
        var first = await ReadAsync(scope, 1);
        first.Count.ShouldBeGreaterThan(500);
        (await ReadAsync(scope, 1)).ShouldBeSameAs(first);
    }

    [Fact]
    public async Task What_is_added_late_for_an_earlier_moment_finds_its_place()
    {
        await using var scope = school.Services.CreateAsyncScope();
        var before = await ReadAsync(scope, 1);
        await AddAsync(school.Db(scope), before[before.Count / 2].At.AddSeconds(1));
        var after = await ReadAsync(scope, 1);
        after.Count.ShouldBe(before.Count + 1);
        after.Zip(after.Skip(1)).ShouldAllBe(pair => pair.First.At <= pair.Second.At);
        after.ShouldBe(await ReadAsync(scope, 1, new ObservationCache()), ignoreOrder: true);
    }

    [Fact]
    public async Task A_withdrawal_takes_it_out_and_another_class_is_not_touched()
    {
        await using var scope = school.Services.CreateAsyncScope();
        var db = school.Db(scope);
        var id = await AddAsync(db, DateTimeOffset.UnixEpoch.AddYears(56));
        var before = await ReadAsync(scope, 1);
        var alder = await ReadAsync(scope, 2);
        db.Withdrawals.Add(
            new Withdrawal
            {
                ObservationId = id,
                At = DateTimeOffset.UnixEpoch,
                AdultId = 1,
                Why = "Wrong child",
            }
        );
        await db.SaveChangesAsync();
        (await ReadAsync(scope, 1)).Count.ShouldBe(before.Count - 1);
        (await ReadAsync(scope, 2)).ShouldBeSameAs(alder);
    }

    [Fact]
    public async Task An_erased_record_is_gone_at_once_also_when_its_last_row_gives_way_to_another()
    {
        await using var scope = school.Services.CreateAsyncScope();
        var db = school.Db(scope);
        var gone = await AddAsync(db, DateTimeOffset.UnixEpoch.AddYears(55));
        var before = await ReadAsync(scope, 1);
        var last = await db.Observations.MaxAsync(o => o.Sequence);
        await db.Observations.Where(o => o.Id == gone).ExecuteDeleteAsync();
        var other = await AddAsync(db, DateTimeOffset.UnixEpoch.AddYears(54));
        var after = await ReadAsync(scope, 1);
        after.Count.ShouldBe(before.Count);
        after.ShouldContain(o => o.At == DateTimeOffset.UnixEpoch.AddYears(54));
        after.ShouldNotContain(o => o.At == DateTimeOffset.UnixEpoch.AddYears(55));

        // Its number is not given again.
        (await db.Observations.Where(o => o.Id == other).Select(o => o.Sequence).SingleAsync()).ShouldBe(last + 1);
    }

    [Fact]
    public async Task What_is_written_while_a_room_is_open_belongs_to_the_next_and_is_counted_once()
    {
        await using var scope = school.Services.CreateAsyncScope();
        var room = await EnterAsync(scope, 1);
        var before = (await _cache.OfAsync(room, default)).All;
        var again = await EnterAsync(scope, 1);
        await AddAsync(school.Db(scope), DateTimeOffset.UnixEpoch.AddYears(53));

        // The open room is of the moment before, however late it reads.
        (await new ObservationCache().OfAsync(again, default)).All.Count.ShouldBe(before.Count);
        (await ReadAsync(scope, 1)).Count.ShouldBe(before.Count + 1);
        (await ReadAsync(scope, 1)).Count.ShouldBe(before.Count + 1);
    }

    [Fact]
    public async Task While_some_write_and_others_read_every_list_is_that_of_one_moment()
    {
        var (start, writers) = (0, 4);
        await using (var scope = school.Services.CreateAsyncScope())
        {
            start = (await ReadAsync(scope, 1)).Count;
        }

        using CancellationTokenSource done = new();
        var reading = Enumerable
            .Range(0, 4)
            .Select(_ =>
                Task.Run(async () =>
                {
                    var least = start;
                    while (!done.IsCancellationRequested)
                    {
                        await using var scope = school.Services.CreateAsyncScope();
                        var room = await EnterAsync(scope, 1);
                        var list = (await _cache.OfAsync(room, default)).All;
                        list.Count.ShouldBe(await room.Db.Observations.CountAsync(o => o.Child!.ClassId == 1 && o.Withdrawal == null));
                        list.Count.ShouldBeGreaterThanOrEqualTo(least);
                        least = list.Count;
                    }
                })
            )
            .ToList();
        await Task.WhenAll(
            Enumerable
                .Range(0, writers)
                .Select(w =>
                    Task.Run(async () =>
                    {
                        for (var i = 0; i < 15; i++)
                        {
                            await using var scope = school.Services.CreateAsyncScope();
                            await AddAsync(school.Db(scope), DateTimeOffset.UnixEpoch.AddYears(40).AddMinutes((100 * w) + i));
                        }
                    })
                )
        );
        await done.CancelAsync();
        await Task.WhenAll(reading);
        await using var last = school.Services.CreateAsyncScope();
        (await ReadAsync(last, 1)).Count.ShouldBe(start + (writers * 15));
    }

    [Fact]
    public async Task What_was_judged_once_is_what_would_be_judged_now_whatever_has_changed()
    {
        var ines = await school.ComeInAsAsync("ines");
        async Task<ClassEvidence> JudgedAsync(ObservationCache cache)
        {
            await using var scope = school.Services.CreateAsyncScope();
            await using var room = ActivatorUtilities.CreateInstance<ClassRoom>(scope.ServiceProvider, cache);
            await room.EnterAsync(new(1), default);
            return await room.EvidenceAsync(default);
        }

        async Task AsAnewAsync(string after)
        {
            using ObservationCache anew = new();
            var (kept, fresh) = (await JudgedAsync(_cache), await JudgedAsync(anew));
            kept.Children.ShouldBe(fresh.Children, after);
            foreach (var child in fresh.Children)
            {
                kept.Row(child).ShouldBe(fresh.Row(child), after);
                fresh.Map.Skills.ShouldAllBe(
                    s => kept.IsReady(child, s.Id) == fresh.IsReady(child, s.Id) && kept.LikelyHas(child, s.Id) == fresh.LikelyHas(child, s.Id),
                    after
                );
            }

            kept.LookAgain.ShouldBe(fresh.LookAgain, after);
            (await JudgedAsync(_cache)).ShouldBeSameAs(kept, "nothing has changed since");
        }

        await AsAnewAsync("nothing");
        var morning = StandingClock.At("2026-11-25T07:00:00");
        await Board.SeenAsync(ines, 2, "count.touch-5", morning);
        await AsAnewAsync("a tap");
        await Board.SeenAsync(ines, 2, "see.to-5", morning.AddDays(-9));
        await AsAnewAsync("a tap of an earlier day");
        Guid id;
        await using (var scope = school.Services.CreateAsyncScope())
        {
            id = await AddAsync(school.Db(scope), morning);
        }

        await AsAnewAsync("a row by another way");
        (await ines.PostAsync($"/api/classes/1/observations/{id}/withdraw", new { why = "Wrong child" })).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await AsAnewAsync("a withdrawal");
        var choice = (await ines.ReadAsync<Server.Features.ClassApproach.ApproachView>("/api/classes/1/approach")).Choice;
        var other = choice with { OnesWord = choice.OnesWord == Core.Numbers.OnesWord.Ones ? Core.Numbers.OnesWord.Units : Core.Numbers.OnesWord.Ones };
        (await ines.PatchAsync("/api/classes/1/approach", other)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await AsAnewAsync("another way of the class");
        (await ines.PatchAsync("/api/classes/1/approach", choice)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await using (var scope = school.Services.CreateAsyncScope())
        {
            var db = school.Db(scope);
            var term = await db.Terms.OrderBy(t => t.First).FirstAsync();
            term.First = term.First.AddDays(2);
            await db.SaveChangesAsync();
        }

        await AsAnewAsync("a term that begins later");
        await ines.PostCsvAsync("/api/classes/1/class-list", "Name\nTamsin Orr\n");
        await AsAnewAsync("a child that came");
    }

    private static Task<ClassRoom> EnterAsync(AsyncServiceScope scope, int classId) =>
        scope.ServiceProvider.GetRequiredService<ClassRooms>().OpenAsync(new(classId), default);

    private async Task<IReadOnlyList<Observation>> ReadAsync(AsyncServiceScope scope, int classId, ObservationCache? cache = null)
    {
        await using var room = await EnterAsync(scope, classId);
        return (await (cache ?? _cache).OfAsync(room, default)).All;
    }

    private static async Task<Guid> AddAsync(FobbleDb db, DateTimeOffset at)
    {
        var row = new ObservationRow
        {
            Id = Guid.NewGuid(),
            ChildId = 5,
            Skill = "see.to-3",
            At = at,
            Day = DateOnly.FromDateTime(at.UtcDateTime),
            AdultId = 1,
            Setting = Setting.Group,
            Support = Support.Alone,
            Representation = Representation.Objects,
        };
        db.Observations.Add(row);
        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
        return row.Id;
    }
}
