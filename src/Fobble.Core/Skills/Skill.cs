using Fobble.Core.Calendars;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;

namespace Fobble.Core.Skills;

/// <summary>Names a skill for good, such as <c>bond.hidden-5</c>: the strand, a dot, the skill.</summary>
public readonly record struct SkillId(string Value) : IComparable<SkillId>
{
    public int CompareTo(SkillId other) => string.CompareOrdinal(Value, other.Value);

    public override string ToString() => Value;
}

public enum Representation
{
    Objects,
    Fingers,
    Picture,
    Spoken,
    Symbols,
}

/// <summary>A usual slip, and the two numbers mixed up where that is what it is.</summary>
public sealed record Slip(string Id, string Text, Confusion? Confuses);

/// <summary>A way of working it out. One that is not <see cref="Asked"/> for makes "alone" count as "prompted".</summary>
public sealed record Strategy(string Id, string Text, bool Asked);

/// <summary>Something a child can be seen to do, small enough to be taught in two to four focus lessons.</summary>
/// <param name="Short">Two to four words for a column or a bead.</param>
/// <param name="ICan">The sentence shared with children.</param>
/// <param name="Needs">Direct prerequisites.</param>
/// <param name="Range">The numbers its item sets draw from.</param>
/// <param name="Lessons">Focus lessons that it usually takes.</param>
/// <param name="Standards">Codes of published standards that it serves.</param>
public sealed record Skill(
    SkillId Id,
    string Strand,
    string Short,
    string ICan,
    IReadOnlyList<SkillId> Needs,
    Season When,
    IReadOnlyList<Representation> ShownIn,
    NumberRange Range,
    int Lessons,
    IReadOnlyList<string> LookFor,
    IReadOnlyList<Slip> Slips,
    IReadOnlyList<Strategy> Strategies,
    IReadOnlyList<string> Words,
    IReadOnlyList<string> Standards
)
{
    /// <summary>Whether the school leaves it out of its plans; what was seen of it is kept.</summary>
    public bool Hidden { get; init; }

    /// <summary>The same skill in the language of this request, with the class's words put in.</summary>
    /// <param name="own">Written by the school: nothing but the class's words is changed in it.</param>
    public Skill InWords(Wording words, bool own = false)
    {
        ArgumentNullException.ThrowIfNull(words);
        string Said(string text) => words.Say(own ? text : Phrase(text));
        return this with
        {
            Short = Said(Short),
            ICan = Said(ICan),
            LookFor = [.. LookFor.Select(Said)],
            Slips = [.. Slips.Select(s => s with { Text = Said(s.Text) })],
            Strategies = [.. Strategies.Select(s => s with { Text = Said(s.Text) })],
            Words = [.. Words.Select(Said).Distinct()],
        };
    }

    /// <summary>The short name at the beginning of a sentence, in quotation marks.</summary>
    public string AtStart => $"“{Short}”";

    /// <summary>The short name inside a sentence, in quotation marks: ready for “say to ten”.</summary>
    public string InSentence => $"“{char.ToLowerInvariant(Short[0])}{Short[1..]}”";
}

public sealed record Strand(string Id, string Name);
