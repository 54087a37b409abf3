namespace Fobble.Data.Model;

/// <summary>A baseline check of one child. Its answers are observations; what was inferred when it ended is kept with it, as the decision it is.</summary>
public sealed class BaselineCheckRow
{
    public int Id { get; set; }

    public int ClassId { get; set; }

    public int ChildId { get; set; }

    public Child? Child { get; set; }

    /// <summary>The strand that is looked at again; null for the whole map.</summary>
    public string? Strand { get; set; }

    public DateTimeOffset StartedAt { get; set; }

    public int StartedBy { get; set; }

    public DateTimeOffset? EndedAt { get; set; }

    /// <summary>Chance by skill of all that was not asked, once ended.</summary>
    public Dictionary<string, double> Inferred { get; set; } = [];

    public List<CheckOverride> Overrides { get; } = [];
}

/// <summary>An adult who knows better than the check: has it, or has it not.</summary>
public sealed class CheckOverride
{
    public int CheckId { get; set; }

    public required string Skill { get; set; }

    public bool Has { get; set; }

    public int AdultId { get; set; }

    public DateTimeOffset At { get; set; }
}
