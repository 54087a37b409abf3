using Fobble.Core.Numbers;
using Fobble.Core.Pictures;

namespace Fobble.Core.Mats;

public enum MatDeed
{
    /// <summary>Lays one more counter.</summary>
    Put,

    /// <summary>Takes a counter off the mat.</summary>
    Remove,
    Move,

    /// <summary>Turns a counter over to its other colour.</summary>
    Turn,
    Cross,
    Circle,
    Cover,
    Shake,

    /// <summary>Lays a number of counters out anew, the first part in one colour and the second in the other.</summary>
    Deal,
    Clear,
}

/// <summary>Something done by hand on a mat.</summary>
/// <param name="Counter">Which counter, by its number.</param>
/// <param name="Zone">Which zone, from 0.</param>
/// <param name="Place">Which cell of it, from 0; null for the next free one.</param>
/// <param name="Second">Whether the second colour is laid.</param>
/// <param name="First">Deal: how many of the first colour (into the first zone or the first part).</param>
/// <param name="More">Deal: how many of the second colour.</param>
/// <param name="Seed">Shake: what decides how things fall.</param>
public sealed record MatAction(
    MatDeed Deed,
    int? Counter = null,
    int? Zone = null,
    int? Place = null,
    bool Second = false,
    int First = 0,
    int More = 0,
    ulong Seed = 0
);

/// <summary>A state after something was done, or the reason why it cannot be.</summary>
public sealed record MatOutcome(MatState State, string? Refused);

/// <summary>Carries out what is done by hand. What cannot be done changes nothing.</summary>
public static class MatDeeds
{
    public static MatOutcome Do(MatState state, MatAction action)
    {
        ArgumentNullException.ThrowIfNull(state);
        ArgumentNullException.ThrowIfNull(action);
        try
        {
            return new(Carry(state, action), null);
        }
        catch (RefusedException refused)
        {
            return new(state, refused.Message);
        }
    }

    private static MatState Carry(MatState state, MatAction action) =>
        action.Deed switch
        {
            MatDeed.Put => Lay(state, new MatCounter(NextId(state), action.Second), action.Zone, action.Place),
            MatDeed.Remove => Without(state, Find(state, action.Counter)),
            MatDeed.Move => Lay(Without(state, Find(state, action.Counter)), Find(state, action.Counter), action.Zone, action.Place),
            MatDeed.Turn => Change(state, action.Counter, c => c with { Second = !c.Second }),
            MatDeed.Cross => Change(state, action.Counter, c => c with { Mark = c.Mark == CounterMark.Crossed ? CounterMark.None : CounterMark.Crossed }),
            MatDeed.Circle => Change(state, action.Counter, c => c with { Mark = c.Mark == CounterMark.Circled ? CounterMark.None : CounterMark.Circled }),
            MatDeed.Cover => Zone(state, ZoneOf(state, action.Zone), z => z with { Covered = !z.Covered }),
            MatDeed.Shake => Shake(state, new SeededRandom(action.Seed)),
            MatDeed.Deal => Deal(state.Kind, action.First, action.More, action.Seed),
            _ => MatState.Empty(state.Kind),
        };

    private static MatState Deal(MatKind kind, int first, int more, ulong seed)
    {
        if (first < 0 || more < 0)
        {
            throw new RefusedException("deed", Phrase("Fewer than none cannot be laid out."));
        }

        var state = MatState.Empty(kind);
        var heap = kind == MatKind.Heap ? new SeededRandom(seed).Shuffled(Enumerable.Range(0, MatKinds.MostInAll)) : [];
        for (var i = 0; i < first + more; i++)
        {
            // A second part has a zone of its own where the mat has one for it: the other frame, part, row or side of the ring.
            var second = i >= first;
            var zone = kind switch
            {
                MatKind.Bond => second ? 2 : 1,
                MatKind.TwoRows or MatKind.Ring or MatKind.Tray => second ? 1 : 0,
                MatKind.TwoTenFrames when first <= 10 && more is > 0 and <= 10 => second ? 1 : 0,
                MatKind.TwoTenFrames => i / 10,
                _ => 0,
            };
            state =
                zone < state.Zones.Count
                    ? Lay(state, new MatCounter(i + 1, second), zone, i < heap.Count ? heap[i] : null)
                    : throw new RefusedException("deed", Phrase($"This mat holds no {first + more}."));
        }

        return state;
    }

    private static MatState Shake(MatState state, SeededRandom random)
    {
        if (state.Count == 0)
        {
            throw new RefusedException("deed", Phrase("There is nothing to shake yet."));
        }

        if (!MatKinds.ShakesIntoZones(state.Kind))
        {
            var places = state.Kind == MatKind.Heap ? Scattered(state, random) : state.Zones;
            return state with
            {
                Zones = [.. places.Select(z => z with { Places = [.. z.Places.Select(c => c is null ? null : c with { Second = random.Chance(0.5) })] })],
            };
        }

        var zones = state.Zones.Select(_ => new List<MatCounter?>()).ToList();
        foreach (var counter in state.Counters.OrderBy(c => c.Id))
        {
            // A full well passes on what falls into it.
            var open = zones.Where((z, i) => z.Count < MatKinds.ZonesOf(state.Kind)[i].Places).ToList();
            open[random.Next(open.Count)].Add(counter);
        }

        return state with
        {
            Zones = [.. zones.Select((z, i) => state.Zones[i] with { Places = z })],
        };
    }

    private static IReadOnlyList<ZoneState> Scattered(MatState state, SeededRandom random)
    {
        var places = new MatCounter?[MatKinds.MostInAll];
        foreach (var (counter, place) in state.Counters.Zip(random.Shuffled(Enumerable.Range(0, MatKinds.MostInAll))))
        {
            places[place] = counter;
        }

        return [state.Zones[0] with { Places = places }];
    }

    private static MatState Lay(MatState state, MatCounter counter, int? zone, int? place)
    {
        var known = MatKinds.ZonesOf(state.Kind);
        var index = zone is null ? Enumerable.Range(0, known.Count).FirstOrDefault(i => state.Zones[i].Count < known[i].Places, 0) : ZoneOf(state, zone);
        var here = state.Zones[index];
        if (here.Count >= known[index].Places || state.Count >= MatKinds.MostInAll)
        {
            throw new RefusedException("deed", Phrase($"The {known[index].Name} is full."));
        }

        if (!known[index].Fixed)
        {
            return Zone(state, index, z => z with { Places = [.. z.Places, counter] });
        }

        var at = place ?? Enumerable.Range(0, known[index].Places).First(i => here.Places[i] is null);
        return at < 0 || at >= known[index].Places || here.Places[at] is not null
            ? throw new RefusedException("deed", Phrase("There is a counter already."))
            : Zone(state, index, z => z with { Places = [.. z.Places.Select((c, i) => i == at ? counter : c)] });
    }

    private static MatState Without(MatState state, MatCounter counter) =>
        state with
        {
            Zones =
            [
                .. state.Zones.Select(
                    (z, i) =>
                        z with
                        {
                            Places = MatKinds.ZonesOf(state.Kind)[i].Fixed
                                ? [.. z.Places.Select(c => c == counter ? null : c)]
                                : [.. z.Places.Where(c => c != counter)],
                        }
                ),
            ],
        };

    private static MatState Change(MatState state, int? id, Func<MatCounter, MatCounter> change)
    {
        var counter = Find(state, id);
        return state with { Zones = [.. state.Zones.Select(z => z with { Places = [.. z.Places.Select(c => c == counter ? change(counter) : c)] })] };
    }

    private static MatState Zone(MatState state, int index, Func<ZoneState, ZoneState> change) =>
        state with
        {
            Zones = [.. state.Zones.Select((z, i) => i == index ? change(z) : z)],
        };

    private static MatCounter Find(MatState state, int? id) =>
        state.Counters.FirstOrDefault(c => c.Id == id) ?? throw new RefusedException("deed", Phrase("That counter is not on the mat."));

    private static int ZoneOf(MatState state, int? zone) =>
        zone is { } index && index >= 0 && index < state.Zones.Count ? index : throw new RefusedException("deed", Phrase("This mat has no such place."));

    // The lowest number that is free, so that addresses stay short.
    private static int NextId(MatState state)
    {
        var used = state.Counters.Select(c => c.Id).ToHashSet();
        return Enumerable.Range(1, MatKinds.MostInAll + 1).First(n => !used.Contains(n));
    }
}
