namespace Fobble.Core.Evidence;

/// <summary>
/// All that was seen of a class and counts. Adding to it makes new lists for the children it is about and leaves the others' the very same, so that whoever has worked
/// something out from one can tell without reading it that nothing has come since.
/// </summary>
public sealed class SeenOfClass
{
    private readonly Dictionary<ChildId, IReadOnlyList<Observation>> _byChild;

    private SeenOfClass(IReadOnlyList<Observation> all, Dictionary<ChildId, IReadOnlyList<Observation>> byChild) => (All, _byChild) = (all, byChild);

    /// <summary>In order of time; what is of the same moment in the order in which it came.</summary>
    public IReadOnlyList<Observation> All { get; }

    /// <param name="observations">In order of time.</param>
    public static SeenOfClass Of(IEnumerable<Observation> observations)
    {
        List<Observation> all = [.. observations];
        return new(all, all.GroupBy(o => o.Child).ToDictionary(g => g.Key, g => (IReadOnlyList<Observation>)[.. g]));
    }

    public IReadOnlyList<Observation> Of(ChildId child) => _byChild.GetValueOrDefault(child, []);

    /// <summary>With what came since, which may be of an earlier time.</summary>
    public SeenOfClass With(IReadOnlyList<Observation> more)
    {
        ArgumentNullException.ThrowIfNull(more);
        if (more.Count == 0)
        {
            return this;
        }

        Dictionary<ChildId, IReadOnlyList<Observation>> byChild = new(_byChild);
        foreach (var own in more.GroupBy(o => o.Child))
        {
            byChild[own.Key] = Joined(Of(own.Key), [.. own.OrderBy(o => o.At)]);
        }

        return new(Joined(All, [.. more.OrderBy(o => o.At)]), byChild);
    }

    /// <summary>Two lists in order of time as one. Mostly the second is of later than all of the first, and nothing has to be put in order.</summary>
    private static IReadOnlyList<Observation> Joined(IReadOnlyList<Observation> one, List<Observation> more) =>
        one.Count == 0 || one[^1].At <= more[0].At
            ? [.. one, .. more]
            // Sorting is stable: of the same moment, what came first stays first.
            : [.. one.Concat(more).OrderBy(o => o.At)];
}
