using System.Collections.Concurrent;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Data;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features;

/// <summary>
/// A class's observations as the core reads them, kept in memory between requests. Rows are only ever added, so what is here stays
/// true and only the tail has to be read; a withdrawal, an erased child or anything else that does not fit has all of it read again.
/// The database is asked each time: another process may have written.
/// </summary>
internal sealed class ObservationLog
{
    private readonly ConcurrentDictionary<int, Kept> _classes = new();

    /// <summary>All that count, none withdrawn, in order of time.</summary>
    public async Task<IReadOnlyList<Observation>> ReadAsync(FobbleDb db, int classId, CancellationToken stop)
    {
        var state = await db.Database.SqlQuery<State>($"""
            SELECT COUNT(*) AS Rows, COALESCE(MAX(o.rowid), 0) AS LastRow, (SELECT COUNT(*) FROM Withdrawals) AS Withdrawn
            FROM Observations o JOIN Children c ON c.Id = o.ChildId WHERE c.ClassId = {classId}
            """).SingleAsync(stop);
        if (_classes.TryGetValue(classId, out var kept) && kept.State == state)
        {
            return kept.Observations;
        }

        var grows = kept is not null && kept.State.Withdrawn == state.Withdrawn && state.LastRow > kept.State.LastRow;
        var tail = await AfterAsync(db, classId, grows ? kept!.State.LastRow : 0, stop);
        if (grows && tail.Count != state.Rows - kept!.State.Rows)
        {
            (grows, tail) = (false, await AfterAsync(db, classId, 0, stop));
        }

        // Sorting is stable: what was sent later for an earlier moment finds its place.
        IReadOnlyList<Observation> all = [.. (grows ? kept!.Observations.Concat(tail) : tail).OrderBy(o => o.At)];
        _classes[classId] = new Kept(state, all);
        return all;
    }

    private static async Task<List<Observation>> AfterAsync(FobbleDb db, int classId, long row, CancellationToken stop) =>
        await db.Observations.FromSql($"SELECT * FROM Observations WHERE rowid > {row}").AsNoTracking()
            .Where(o => o.Child!.ClassId == classId && o.Withdrawal == null)
            .Select(o => new Observation(new ChildId(o.ChildId), new SkillId(o.Skill), o.At, o.Day, o.Setting, o.Support, o.Representation, o.Numbers, o.Slip, o.Strategy))
            .ToListAsync(stop);

    /// <summary>What tells whether anything has changed. A record, since EF makes it.</summary>
    private sealed record State(long Rows, long LastRow, long Withdrawn);

    private sealed record Kept(State State, IReadOnlyList<Observation> Observations);
}
