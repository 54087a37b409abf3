namespace Fobble.Core.People;

/// <summary>Where a child goes when its class ends: to one of the new classes, by its place in their list, or away from the school.</summary>
public readonly record struct Going(int Child, int? To);

/// <summary>A school goes into a new year: every child of the classes that end has one place, and nobody else has.</summary>
public static class GoingUp
{
    /// <param name="children">Of the classes that end: number and name.</param>
    /// <param name="places">As somebody has decided.</param>
    /// <param name="classes">How many new ones there are.</param>
    /// <exception cref="RefusedException">A child would be lost, or go to two classes, or somebody is named who is in none of these.</exception>
    public static void Check(IReadOnlyDictionary<int, string> children, IReadOnlyList<Going> places, int classes)
    {
        ArgumentNullException.ThrowIfNull(children);
        ArgumentNullException.ThrowIfNull(places);
        Refusals refusals = new();
        foreach (var (child, times) in places.CountBy(p => p.Child))
        {
            refusals.Check(
                "places",
                children.ContainsKey(child),
                Phrase("A child is named who is in none of the classes that end: look again, somebody has moved it.")
            );
            refusals.Check("places", times == 1, Phrase($"{children.GetValueOrDefault(child, "?")} would go to two places."));
        }

        var placed = places.Select(p => p.Child).ToHashSet();
        foreach (var (child, name) in children.Where(c => !placed.Contains(c.Key)))
        {
            refusals.Check("places", false, Phrase($"{name} has no place in the new year yet."));
        }

        refusals.Check("places", places.All(p => p.To is null || (p.To >= 0 && p.To < classes)), Phrase("There is no such new class."));
        refusals.ThrowIfAny();
    }
}
