namespace Fobble.Core.Evidence;

/// <summary>The status that teachers see, as cells filled in a five-cell frame.</summary>
public enum Strength
{
    NotSeen,
    Tried,
    Prompted,
    Nearly,
    Secure,
    Kept,
}

/// <summary>A condition of a rule: what it asks, whether it holds, and what is still to come if not.</summary>
public sealed record Clause(string Asks, bool Holds, string StillToCome);

/// <summary>What is made of one child's observations of one skill on one day. Computed, never stored.</summary>
/// <param name="Belief">Chance that the child has it, today.</param>
/// <param name="LookAgain">It was there, and should be seen again.</param>
/// <param name="SecureSince">First day on which it was secure; null if it is not now.</param>
/// <param name="LastAlone">Last day on which it was done alone.</param>
/// <param name="Clauses">What "secure" asks, clause by clause.</param>
/// <param name="Doubt">Why to look again; null where there is no need.</param>
/// <param name="Sentence">Why it is so, in words for a teacher.</param>
public sealed record Judgement(
    Strength Strength,
    double Belief,
    bool LookAgain,
    DateOnly? SecureSince,
    DateOnly? LastAlone,
    IReadOnlyList<Clause> Clauses,
    string? Doubt,
    string Sentence
)
{
    public bool Has => Strength >= Strength.Nearly;

    public bool IsSecure => Strength >= Strength.Secure;
}
