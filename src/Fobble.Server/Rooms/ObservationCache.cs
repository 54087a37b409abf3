using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Caching.Memory;

namespace Fobble.Server.Rooms;

/// <summary>
/// A class's observations as the core reads them, and what they were judged to say, kept in memory between requests. Rows are only ever added, so what is here stays true and only the
/// tail has to be read; anything else raises the record's number, and all of it is read again. Number, tail and last row are of the same snapshot. However many classes there are, only
/// as much is kept as memory is given: those that nobody has asked for the longest go.
/// </summary>
internal sealed class ObservationCache : IDisposable
{
    /// <summary>What an observation takes with what is worked out from it: measured, `district` in bench/RESULTS.md.</summary>
    private const int BytesEach = 280;

    /// <summary>A quarter of the machine at the most, and a gigabyte.</summary>
    private static readonly long Most = Math.Min(GC.GetGCMemoryInfo().TotalAvailableMemoryBytes / 4, 1_000_000_000) / BytesEach;

    // A class takes something however little was seen of it.
    private const int LeastSize = 1000;

    private readonly MemoryCache _classes = new(new MemoryCacheOptions { SizeLimit = Most, CompactionPercentage = 0.1 });

    /// <summary>All that count at the room's moment, none withdrawn.</summary>
    public async Task<SeenOfClass> OfAsync(ClassRoom room, CancellationToken stop) => (await KeptAsync(room, stop)).Seen;

    /// <summary>What the class's evidence says on a day, worked out once for whoever asks until something it rests on changes.</summary>
    /// <param name="restsOn">All that it rests on besides the observations; compared by value.</param>
    /// <param name="judge">Works it out, with what was read of single children before.</param>
    public async Task<ClassEvidence> JudgedAsync(
        ClassRoom room,
        object restsOn,
        Func<SeenOfClass, RecordMemory, Task<ClassEvidence>> judge,
        CancellationToken stop
    )
    {
        var kept = await KeptAsync(room, stop);
        if (kept.Judged is { } judged && judged.RestsOn.Equals(restsOn))
        {
            return judged.Evidence;
        }

        // One at a time of a class: the others find what the first has worked out.
        await kept.Records.Turn.WaitAsync(stop);
        try
        {
            if (kept.Judged is { } meanwhile && meanwhile.RestsOn.Equals(restsOn))
            {
                return meanwhile.Evidence;
            }

            var evidence = await judge(kept.Seen, kept.Records.Memory);
            kept.Judged = new(restsOn, evidence);
            return evidence;
        }
        finally
        {
            kept.Records.Turn.Release();
        }
    }

    public void Dispose() => _classes.Dispose();

    private async Task<Kept> KeptAsync(ClassRoom room, CancellationToken stop)
    {
        var (record, last) = (room.Versions.Record, room.Versions.LastSeen);
        var there = _classes.Get<Kept>(room.Id);
        if (there is not null && there.Record == record && there.Last == last)
        {
            return there;
        }

        var grows = there is not null && there.Record == record && there.Last < last;
        var tail = await BetweenAsync(room, grows ? there!.Last : 0, last, stop);
        Kept now = new(record, last, grows ? there!.Seen.With(tail) : SeenOfClass.Of(tail.OrderBy(o => o.At)), there?.Records ?? new());

        // A request with an older snapshot may come after one with a newer: what is newer stays.
        if (_classes.Get<Kept>(room.Id) is not { } newest || newest.Record < record || (newest.Record == record && newest.Last < last))
        {
            _classes.Set(room.Id, now, new MemoryCacheEntryOptions { Size = LeastSize + now.Seen.All.Count });
        }

        return now;
    }

    private static async Task<List<Observation>> BetweenAsync(ClassRoom room, long after, long last, CancellationToken stop)
    {
        List<Observation> between = [];
        Dictionary<string, string> words = [];
        await foreach (
            var o in room.Seen()
                .Where(o => o.Sequence > after && o.Sequence <= last && o.Withdrawal == null)
                .OrderBy(o => o.Sequence)
                .Select(o => new
                {
                    o.ChildId,
                    o.Skill,
                    o.At,
                    o.Day,
                    o.Setting,
                    o.Support,
                    o.Representation,
                    o.Numbers,
                    o.Slip,
                    o.Strategy,
                })
                .AsAsyncEnumerable()
                .WithCancellation(stop)
        )
        {
            between.Add(
                new(
                    new ChildId(o.ChildId),
                    new SkillId(Once(o.Skill)!),
                    o.At,
                    o.Day,
                    o.Setting,
                    o.Support,
                    o.Representation,
                    Once(o.Numbers),
                    Once(o.Slip),
                    Once(o.Strategy)
                )
            );
        }

        return between;

        // Few words stand in many rows, and each row comes with words of its own: half of what a record takes in memory.
        string? Once(string? word)
        {
            if (word is null)
            {
                return null;
            }

            if (words.TryGetValue(word, out var there))
            {
                return there;
            }

            return words[word] = word;
        }
    }

    /// <param name="Record">The record's number when it was read.</param>
    /// <param name="Last">Sequence of the last row that was read.</param>
    private sealed record Kept(long Record, long Last, SeenOfClass Seen, Records Records)
    {
        private volatile Judged? _judged;

        public Judged? Judged
        {
            get => _judged;
            set => _judged = value;
        }
    }

    private sealed record Judged(object RestsOn, ClassEvidence Evidence);

    /// <summary>What was read of single children: it goes on from one state of the class to the next.</summary>
    private sealed class Records
    {
        public RecordMemory Memory { get; } = new();

        public SemaphoreSlim Turn { get; } = new(1, 1);
    }
}
