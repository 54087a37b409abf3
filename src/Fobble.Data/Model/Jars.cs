using Fobble.Core.GuessJar;

namespace Fobble.Data.Model;

/// <summary>A jar filled for the class to guess at, and what was counted when it was opened.</summary>
public sealed class JarRoundRow
{
    public int Id { get; set; }

    public int ClassId { get; set; }

    public required string Jar { get; set; }

    public double JarMl { get; set; }

    public required string Things { get; set; }

    public ThingShape Shape { get; set; }

    public double AcrossMm { get; set; }

    public double ThickMm { get; set; }

    public int Amount { get; set; }

    public DateOnly Filled { get; set; }

    public DateOnly? Opened { get; set; }

    public int? Counted { get; set; }

    public List<JarGuessRow> Guesses { get; } = [];
}

public sealed class JarGuessRow
{
    public int RoundId { get; set; }

    public int ChildId { get; set; }

    public Child? Child { get; set; }

    public int Guess { get; set; }
}
