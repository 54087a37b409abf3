using System.Collections.Concurrent;
using Fobble.Core.Skills;

namespace Fobble.Core.Evidence;

/// <summary>
/// Children's records as they were read last. A record that nothing was added to, and nothing taken from, need not be read again, and one to which a day was added only from that day
/// on; for asking from many threads.
/// </summary>
public sealed class RecordMemory
{
    private const int MostChildren = 2000;

    private readonly ConcurrentDictionary<ChildId, Kept> _kept = new();

    /// <summary>The record of these observations, read again only if they are not the very ones of last time, read in the same way.</summary>
    /// <param name="way">By what they are read: map, calendar, settings, what was said in a check. Compared by value.</param>
    internal ChildRecord Of(ChildId child, object way, IReadOnlyList<Observation> observations, Func<ChildRecord> read)
    {
        ChildRecord? record = null;
        if (_kept.TryGetValue(child, out var kept) && kept.Way.Equals(way))
        {
            if (Same(kept.Observations, observations))
            {
                return kept.Record;
            }

            record = kept.Record.GoneOn(kept.Observations, observations);
        }

        if (_kept.Count >= MostChildren)
        {
            _kept.Clear();
        }

        record ??= read();
        _kept[child] = new(way, observations, record);
        return record;
    }

    /// <summary>What of a record is in doubt on a day, worked out once a day for as long as the record is the same.</summary>
    internal IReadOnlyList<SecondLook> LooksOf(ChildId child, ChildRecord record, DateOnly day, Func<IReadOnlyList<SecondLook>> read)
    {
        if (!_kept.TryGetValue(child, out var kept) || !ReferenceEquals(kept.Record, record))
        {
            return read();
        }

        if (kept.Looks is not { } looks || looks.Day != day)
        {
            kept.Looks = looks = new(day, read());
        }

        return looks.Of;
    }

    private static bool Same(IReadOnlyList<Observation> one, IReadOnlyList<Observation> other)
    {
        if (ReferenceEquals(one, other))
        {
            return true;
        }

        if (one.Count != other.Count)
        {
            return false;
        }

        for (var i = one.Count - 1; i >= 0; i--)
        {
            if (!ReferenceEquals(one[i], other[i]))
            {
                return false;
            }
        }

        return true;
    }

    private sealed record Kept(object Way, IReadOnlyList<Observation> Observations, ChildRecord Record)
    {
        private volatile Looks? _looks;

        public Looks? Looks
        {
            get => _looks;
            set => _looks = value;
        }
    }

    private sealed record Looks(DateOnly Day, IReadOnlyList<SecondLook> Of);
}
