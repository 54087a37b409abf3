namespace Fobble.Core.Cupboard;

/// <summary>Names a kind of thing for good, such as <c>counters-red</c>.</summary>
public readonly record struct ItemId(string Value)
{
    public override string ToString() => Value;
}

/// <summary>What a thing is for; things of one purpose may stand in for each other.</summary>
public enum Purpose
{
    Counting,
    Joining,
    FiveFrame,
    TenFrame,
    BondMat,
    Dice,
    NumeralCards,
    DotCards,
    HalfCards,
    PlaceValueCards,
    Blocks,
    Tins,
    Container,
    Cover,
    Tray,
    Ring,
    Path,
    Line,
    Piece,
    Paper,
    Writing,
    Money,
    Goods,
    Dominoes,
    Sound,
    Scales,
    Slips,
    Jar,
}

public enum ItemShape
{
    Flat,
    Ball,
    Cube,
    Long,
    Uneven,
}

/// <summary>What food or material a child may react to: the fourteen of Regulation (EU) 1169/2011, annex II, with latex and gelatine (common practice).</summary>
public enum Allergen
{
    Gluten,
    Crustaceans,
    Egg,
    Fish,
    Peanut,
    Soya,
    Milk,
    Nuts,
    Celery,
    Mustard,
    Sesame,
    Sulphites,
    Lupin,
    Molluscs,
    Gelatine,
    Latex,
}

/// <summary>What is dangerous about a thing whatever its size.</summary>
public enum Hazard
{
    RawPulses,
    Food,
    Magnet,
    ButtonCell,
    Glass,
    Hot,
    Sharp,
    Trip,
}

/// <summary>A kind of thing that a class may own.</summary>
/// <param name="Name">In the plural, as on a list of what to fetch.</param>
/// <param name="Size">Length, width and height of one, in millimetres and any order; empty where size is of no matter.</param>
/// <param name="UsedUp">Whether it is gone after use, such as paper.</param>
/// <param name="PrepareMinutes">What it takes to get a set ready.</param>
public sealed record CupboardItem(
    ItemId Id,
    string Name,
    Purpose Purpose,
    IReadOnlyList<double> Size,
    ItemShape Shape,
    string Colour,
    string Material,
    IReadOnlyList<Allergen> Contains,
    IReadOnlyList<Hazard> Hazards,
    bool UsedUp,
    int PrepareMinutes
)
{
    /// <summary>Written down by the school: as it is called there.</summary>
    public bool Own { get; init; }

    public string Name
    {
        get => InWords(field);
        init;
    } = Name;

    public string Colour
    {
        get => InWords(field);
        init;
    } = Colour;

    public string Material
    {
        get => InWords(field);
        init;
    } = Material;

    /// <summary>The name inside a sentence.</summary>
    public string InSentence => char.ToLowerInvariant(Name[0]) + Name[1..];

    /// <summary>Whether it looks like another one: same size, shape and colour. Where the point is to see a number, only such may be mixed (common practice).</summary>
    public bool LooksLike(CupboardItem other)
    {
        ArgumentNullException.ThrowIfNull(other);
        return Shape == other.Shape
            && string.Equals(Colour, other.Colour, StringComparison.OrdinalIgnoreCase)
            && Size.Order().SequenceEqual(other.Size.Order());
    }

    private string InWords(string text) => Own || text.Length == 0 ? text : Phrase(text);
}
