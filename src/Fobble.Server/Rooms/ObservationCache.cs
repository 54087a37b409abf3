using System.Collections.Concurrent;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Rooms;

/// <summary>
/// A class's observations as the core reads them, kept in memory between requests. Rows are only ever added, so what is here stays true and only the tail has
/// to be read; anything else raises the record's number, and all of it is read again. Number, tail and last row are of the same snapshot.
/// </summary>
internal sealed class ObservationCache
{
    /// <summary>Classes kept at a time; a school has fewer.</summary>
    private const int MostClasses = 200;

    private readonly ConcurrentDictionary<ClassId, Kept> _classes = new();

    /// <summary>All that count at the room's moment, none withdrawn, in order of time.</summary>
    public async Task<IReadOnlyList<Observation>> OfAsync(ClassRoom room, CancellationToken stop)
    {
        var (record, last) = (room.Versions.Record, room.Versions.LastSeen);
        if (_classes.TryGetValue(room.Id, out var kept) && kept.Record == record && kept.Last == last)
        {
            return kept.Observations;
        }

        var grows = kept is not null && kept.Record == record && kept.Last < last;
        var tail = await BetweenAsync(room, grows ? kept!.Last : 0, last, stop);

        // Sorting is stable: what was sent later for an earlier moment finds its place.
        IReadOnlyList<Observation> all = [.. (grows ? kept!.Observations.Concat(tail) : tail).OrderBy(o => o.At)];
        if (_classes.Count >= MostClasses)
        {
            _classes.Clear();
        }

        // A request with an older snapshot may come after one with a newer: what is newer stays.
        _classes.AddOrUpdate(room.Id, new Kept(record, last, all), (_, there) =>
            there.Record > record || (there.Record == record && there.Last > last) ? there : new Kept(record, last, all)
        );
        return all;
    }

    private static async Task<List<Observation>> BetweenAsync(ClassRoom room, long after, long last, CancellationToken stop) =>
        await room.Seen()
            .Where(o => o.Sequence > after && o.Sequence <= last && o.Withdrawal == null)
            .OrderBy(o => o.Sequence)
            .Select(o => new Observation(
                new ChildId(o.ChildId),
                new SkillId(o.Skill),
                o.At,
                o.Day,
                o.Setting,
                o.Support,
                o.Representation,
                o.Numbers,
                o.Slip,
                o.Strategy
            ))
            .ToListAsync(stop);

    /// <param name="Record">The record's number when it was read.</param>
    /// <param name="Last">Sequence of the last row that was read.</param>
    private sealed record Kept(long Record, long Last, IReadOnlyList<Observation> Observations);
}
