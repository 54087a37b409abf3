using System.Text;
using System.Text.RegularExpressions;
using Fobble.Core.Pictures;

namespace Fobble.Core.Mats;

/// <summary>A counter on a mat. Its number stays with it wherever it is moved.</summary>
public sealed record MatCounter(int Id, bool Second = false, CounterMark Mark = CounterMark.None);

/// <summary>What lies in a zone, place by place; a place of a loose zone is never empty.</summary>
public sealed record ZoneState(IReadOnlyList<MatCounter?> Places, bool Covered = false)
{
    public IEnumerable<MatCounter> Counters => Places.OfType<MatCounter>();

    public int Count => Counters.Count();
}

/// <summary>
/// Everything that lies on a mat. Written as text that can stand in an address: zones between dots, a counter as its colour (a or b), its
/// number and its mark (x crossed out, o circled), <c>_</c> for an empty cell, <c>!</c> at the end of a zone that is covered.
/// </summary>
public sealed partial record MatState(MatKind Kind, IReadOnlyList<ZoneState> Zones)
{
    public IEnumerable<MatCounter> Counters => Zones.SelectMany(z => z.Counters);

    public int Count => Zones.Sum(z => z.Count);

    public static MatState Empty(MatKind kind) => new(kind, [.. MatKinds.ZonesOf(kind).Select(z => new ZoneState(z.Fixed ? new MatCounter?[z.Places] : []))]);

    /// <exception cref="RefusedException">The text is no state of this kind of mat.</exception>
    public static MatState Parse(MatKind kind, string? text)
    {
        if (string.IsNullOrEmpty(text))
        {
            return Empty(kind);
        }

        var zones = MatKinds.ZonesOf(kind);
        var parts = text.Split('.');
        if (parts.Length != zones.Count)
        {
            throw new RefusedException("state", Phrase($"'{text}' is no state of this mat: it has {zones.Count} zones."));
        }

        MatState state = new(kind, [.. parts.Zip(zones, (part, zone) => ReadZone(part, zone))]);
        return state.Counters.Select(c => c.Id).Distinct().Count() == state.Count && state.Count <= MatKinds.MostInAll
            ? state
            : throw new RefusedException("state", Phrase($"'{text}' is no state of this mat: a counter lies in two places, or there are too many."));
    }

    public override string ToString() => string.Join('.', Zones.Select(Write));

    private static string Write(ZoneState zone)
    {
        StringBuilder text = new();
        foreach (var place in zone.Places)
        {
            text.Append(
                place is null
                    ? "_"
                    : $"{(place.Second ? 'b' : 'a')}{place.Id}{(place.Mark switch { CounterMark.Crossed => "x", CounterMark.Circled => "o", _ => "" })}"
            );
        }

        return text.Append(zone.Covered ? "!" : "").ToString();
    }

    private static ZoneState ReadZone(string text, MatZone zone)
    {
        var read = Zone().Match(text);
        List<MatCounter?> places =
        [
            .. Place()
                .Matches(text)
                .Select(m =>
                    m.Value == "_"
                        ? null
                        : new MatCounter(
                            int.Parse(m.Groups["id"].Value, null),
                            m.Value[0] == 'b',
                            m.Value[^1] switch
                            {
                                'x' => CounterMark.Crossed,
                                'o' => CounterMark.Circled,
                                _ => CounterMark.None,
                            }
                        )
                ),
        ];
        return read.Success && (zone.Fixed ? places.Count == zone.Places : places.Count <= zone.Places && !places.Contains(null))
            ? new(places, text.EndsWith('!'))
            : throw new RefusedException("state", Phrase($"'{text}' is nothing that can lie in the {zone.Name}."));
    }

    [GeneratedRegex("^(_|[ab][0-9]{1,3}[xo]?)*!?$")]
    private static partial Regex Zone();

    [GeneratedRegex("_|[ab](?<id>[0-9]{1,3})[xo]?")]
    private static partial Regex Place();
}
