namespace Fobble.Core.Cupboard;

/// <summary>What a class's adults have to keep in mind when they set things out. Kept for the class as a whole: no child is named.</summary>
/// <param name="Mouths">Someone in the class puts things in their mouth.</param>
public sealed record ClassCares(bool Mouths, IReadOnlySet<Allergen> Allergies)
{
    public static ClassCares None { get; } = new(false, new HashSet<Allergen>());
}

/// <summary>A caution beside what causes it.</summary>
/// <param name="Name">The risk in a word or two.</param>
/// <param name="Items">The things that bring the risk, as they are called on the list.</param>
public sealed record Caution(string Name, string Text, IReadOnlyList<string> Items);

/// <summary>The usual cautions, worked out from what things are like (rule R14). Limits are published; the advice always defers to local rules.</summary>
public static class Cautions
{
    /// <summary>Closes every list of cautions.</summary>
    public static string Standing => Phrase("Follow your setting's risk assessment and local rules.");

    /// <summary>Diameter and greatest depth of the small-parts cylinder, millimetres (16 CFR 1501.4).</summary>
    public const double CylinderAcross = 31.7;
    public const double CylinderDeep = 57.1;

    /// <summary>A ball this wide or wider is not a small ball, millimetres (16 CFR 1500.18(a)(17): 1.75 inches).</summary>
    public const double SmallBallAcross = 44.4;

    /// <summary>All cautions that these things call for in this class, one for each reason. Empty where there is nothing to say.</summary>
    public static IReadOnlyList<Caution> For(IEnumerable<CupboardItem> items, ClassCares cares)
    {
        ArgumentNullException.ThrowIfNull(cares);
        var all = items.DistinctBy(i => i.Id).ToList();
        List<Caution> cautions = [];
        void Add(string name, string text, Func<CupboardItem, bool> brings)
        {
            var which = all.Where(brings).Select(i => i.InSentence).ToList();
            if (which.Count > 0)
            {
                cautions.Add(new(name, text, which));
            }
        }

        if (cares.Mouths)
        {
            Add(
                Phrase("Small part"),
                Phrase("Small parts, and someone here puts things in their mouth: count them out and back in, never leave them lying."),
                i => IsSmallPart(i) && !IsSmallBall(i)
            );
            Add(Phrase("Small ball"), Phrase("Small balls, and someone here puts things in their mouth: use balls of 45 mm or more."), IsSmallBall);
        }

        foreach (var allergen in cares.Allergies.Order())
        {
            Add(
                char.ToUpperInvariant(NameOf(allergen)[0]) + NameOf(allergen)[1..],
                Phrase($"Someone in this class has to keep away from {NameOf(allergen)}: use something else."),
                i => i.Contains.Contains(allergen)
            );
        }

        foreach (var hazard in Enum.GetValues<Hazard>())
        {
            Add(NameOf(hazard), TextOf(hazard), i => i.Hazards.Contains(hazard));
        }

        return cautions;
    }

    /// <summary>Whether one fits the small-parts cylinder in some position, at its greatest depth.</summary>
    public static bool IsSmallPart(CupboardItem item)
    {
        ArgumentNullException.ThrowIfNull(item);
        if (item.Size.Count == 0)
        {
            return false;
        }

        // Lengthwise down the cylinder: what has to pass is the cross-section of the two smaller sides, corner to corner where it has corners.
        // A flat round thing goes in lying, so its width is what counts.
        var sides = item.Size.Order().ToList();
        var across = item.Shape switch
        {
            ItemShape.Ball => sides[^1],
            ItemShape.Flat => sides[^1],
            ItemShape.Cube or ItemShape.Uneven => Math.Sqrt((sides[0] * sides[0]) + (sides[^2] * sides[^2])),
            _ => sides[^2],
        };
        return across <= CylinderAcross && sides[^1] <= CylinderDeep;
    }

    /// <summary>A ball narrower than <see cref="SmallBallAcross"/>, whether or not it fits into the cylinder.</summary>
    public static bool IsSmallBall(CupboardItem item)
    {
        ArgumentNullException.ThrowIfNull(item);
        return item.Shape == ItemShape.Ball && item.Size.Count > 0 && item.Size.Max() < SmallBallAcross;
    }

    public static string NameOf(Allergen allergen) =>
        allergen switch
        {
            Allergen.Gluten => Phrase("wheat and gluten"),
            Allergen.Molluscs => Phrase("molluscs and shells"),
            _ => Phrase($"{allergen}".ToLowerInvariant()),
        };

    private static string NameOf(Hazard hazard) =>
        hazard switch
        {
            Hazard.RawPulses => Phrase("Raw pulses"),
            Hazard.ButtonCell => Phrase("Button cell"),
            Hazard.Trip => Phrase("On the floor"),
            _ => Phrase($"{hazard}"),
        };

    private static string TextOf(Hazard hazard) =>
        hazard switch
        {
            Hazard.RawPulses => Phrase("Raw dried pulses, red kidney beans above all, make people ill if eaten: nobody tastes, all are counted back in."),
            Hazard.Food => Phrase("Food as counters: hands washed, nothing eaten that was handled, and the allergy list read again on the day."),
            Hazard.Magnet => Phrase("Magnets: one that is swallowed is an emergency. Only whole ones, counted back in."),
            Hazard.ButtonCell => Phrase("Button cells: the flap screwed shut; one that is swallowed is an emergency."),
            Hazard.Glass => Phrase("Glass: an adult carries and opens it."),
            Hazard.Hot => Phrase("Hot: adults only."),
            Hazard.Sharp => Phrase("Blades and laminators: adults only, put away before the children come."),
            _ => Phrase("On the floor: keep the way clear, nobody runs."),
        };
}
