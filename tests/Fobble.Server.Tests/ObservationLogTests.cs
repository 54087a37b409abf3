using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Tests;

/// <summary>What is kept in memory always says what the database says.</summary>
public class ObservationLogTests(School school) : IClassFixture<School>
{
    private readonly ObservationLog _log = new();

    [Fact]
    public async Task It_is_the_same_list_until_something_changes()
    {
        using var scope = school.Scope();
        var first = await _log.ReadAsync(school.Db(scope), 1, default);
        first.Count.ShouldBeGreaterThan(500);
        (await _log.ReadAsync(school.Db(scope), 1, default)).ShouldBeSameAs(first);
    }

    [Fact]
    public async Task What_is_added_late_for_an_earlier_moment_finds_its_place()
    {
        using var scope = school.Scope();
        var db = school.Db(scope);
        var before = await _log.ReadAsync(db, 1, default);
        var moment = before[before.Count / 2].At.AddSeconds(1);
        await AddAsync(db, moment);
        var after = await _log.ReadAsync(db, 1, default);
        after.Count.ShouldBe(before.Count + 1);
        after.Zip(after.Skip(1)).ShouldAllBe(pair => pair.First.At <= pair.Second.At);
        after.ShouldBe(await new ObservationLog().ReadAsync(db, 1, default), ignoreOrder: true);
    }

    [Fact]
    public async Task A_withdrawal_takes_it_out_and_another_class_is_not_touched()
    {
        using var scope = school.Scope();
        var db = school.Db(scope);
        var id = await AddAsync(db, DateTimeOffset.UnixEpoch.AddYears(56));
        var before = await _log.ReadAsync(db, 1, default);
        var alder = await _log.ReadAsync(db, 2, default);
        db.Withdrawals.Add(new Withdrawal { ObservationId = id, At = DateTimeOffset.UnixEpoch, AdultId = 1, Why = "Wrong child" });
        await db.SaveChangesAsync();
        (await _log.ReadAsync(db, 1, default)).Count.ShouldBe(before.Count - 1);
        (await _log.ReadAsync(db, 2, default)).ShouldBe(alder);
    }

    [Fact]
    public async Task An_erased_record_is_gone_at_once()
    {
        using var scope = school.Scope();
        var db = school.Db(scope);
        await AddAsync(db, DateTimeOffset.UnixEpoch.AddYears(55));
        var before = await _log.ReadAsync(db, 1, default);
        var child = before[0].Child.Value;
        await db.Withdrawals.Where(w => db.Observations.Any(o => o.Id == w.ObservationId && o.ChildId == child)).ExecuteDeleteAsync();
        await db.Observations.Where(o => o.ChildId == child).ExecuteDeleteAsync();
        (await _log.ReadAsync(db, 1, default)).ShouldAllBe(o => o.Child.Value != child);
    }

    private static async Task<Guid> AddAsync(FobbleDb db, DateTimeOffset at)
    {
        var row = new ObservationRow
        {
            Id = Guid.NewGuid(), ChildId = 5, Skill = "see.to-3", At = at, Day = DateOnly.FromDateTime(at.UtcDateTime), AdultId = 1,
            Setting = Setting.Group, Support = Support.Alone, Representation = Representation.Objects,
        };
        db.Observations.Add(row);
        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();
        return row.Id;
    }
}
