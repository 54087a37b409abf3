using Fobble.Core.Cupboard;

namespace Fobble.Data.Model;

/// <summary>What a school does differently with a skill of the map, or a skill of its own.</summary>
public sealed class SkillChangeRow
{
    public int SchoolId { get; set; }

    public required string Skill { get; set; }

    public bool Hidden { get; set; }

    /// <summary>The whole skill as the school has it, in the form of a content file; null where it is only hidden.</summary>
    public string? Instead { get; set; }
}

/// <summary>An activity that a teacher wrote or changed, in the form of a content file.</summary>
public sealed class OwnActivityRow
{
    public int SchoolId { get; set; }

    public required string Activity { get; set; }

    public required string Content { get; set; }
}

/// <summary>How many of a thing the class owns.</summary>
public sealed class StockRow
{
    public int ClassId { get; set; }

    public required string Item { get; set; }

    public int Count { get; set; }

    /// <summary>What it is like, where it is a kind of the class's own; null for a kind that ships.</summary>
    public OwnKind? Own { get; set; }
}

/// <summary>A kind of thing that only this class has.</summary>
public sealed class OwnKind
{
    public required string Name { get; set; }

    public Purpose Purpose { get; set; }

    public ItemShape Shape { get; set; }

    public required string Colour { get; set; }

    public required string Material { get; set; }

    public List<double> Size { get; set; } = [];

    public List<Allergen> Contains { get; set; } = [];

    public List<Hazard> Hazards { get; set; } = [];
}
