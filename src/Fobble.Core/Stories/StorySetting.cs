using System.Text.RegularExpressions;
using Fobble.Core.Numbers;

namespace Fobble.Core.Stories;

/// <summary>One of two kinds of thing in a setting: "[is|are] open".</summary>
public sealed class KindPhrase
{
    public required string Is { get; init; }

    public required string Letter { get; init; }
}

/// <summary>Letters for what stays, comes and goes.</summary>
public sealed class SettingLetters
{
    public required string There { get; init; }

    public required string Come { get; init; }

    public required string Go { get; init; }
}

/// <summary>Where a story plays and how its sentences are said; authored in Content/settings.yaml.</summary>
public sealed class StorySetting
{
    public required string Id { get; init; }

    public required string Theme { get; init; }

    public required string One { get; init; }

    public required string Many { get; init; }

    public required string There { get; init; }

    public required string Come { get; init; }

    public required string Go { get; init; }

    public required string Now { get; init; }

    public required string AskThere { get; init; }

    public required string AskCome { get; init; }

    public required string AskGo { get; init; }

    public required string AskNow { get; init; }

    public required string WasThere { get; init; }

    public required string Came { get; init; }

    public required string Went { get; init; }

    public required KindPhrase FirstKind { get; init; }

    public required KindPhrase SecondKind { get; init; }

    public required SettingLetters Letters { get; init; }

    public static IReadOnlyList<StorySetting> Shipped { get; } =
    [.. ContentFile.In("Stories/Content").SelectMany(f => ContentFile.Read<List<StorySetting>>(f.Name, f.Text))];

    /// <exception cref="ArgumentException">There is no such setting.</exception>
    public static StorySetting Named(string id) =>
        Shipped.FirstOrDefault(s => s.Id == id) ?? throw new ArgumentException($"There is no story setting '{id}'.", nameof(id));
}

/// <summary>Someone in a story, made up, with the pronoun they go by.</summary>
public sealed record Person(string Name, string Pronoun)
{
    public static IReadOnlyList<Person> All { get; } =
    [
        new("Mina", "she"),
        new("Otto", "he"),
        new("Sunniva", "she"),
        new("Kofi", "he"),
        new("Wren", "they"),
        new("Ilse", "she"),
        new("Tariq", "he"),
        new("Robin", "they"),
        new("Lupe", "she"),
        new("Emeka", "he"),
    ];
}

/// <summary>Fills phrases in: numbers, the form that goes with them, names and pronouns.</summary>
internal static partial class StoryPhrases
{
    /// <param name="number">Null is said as "some".</param>
    public static string Say(string phrase, int? number, Wording words, Person? who = null, Person? other = null)
    {
        var said = Forms().Replace(Phrase(phrase), m => number == 1 ? m.Groups[1].Value : m.Groups[2].Value);
        said = Verbs().Replace(said, m => who?.Pronoun == "they" ? m.Groups[2].Value : m.Groups[1].Value);
        said = said.Replace("{n}", number is { } known ? $"{known}" : "some", StringComparison.Ordinal)
            .Replace("{fewer}", words.Fewer, StringComparison.Ordinal)
            .Replace("{name}", who?.Name, StringComparison.Ordinal)
            .Replace("{other}", other?.Name, StringComparison.Ordinal)
            .Replace("{she}", who?.Pronoun, StringComparison.Ordinal);
        return char.ToUpperInvariant(said[0]) + said[1..];
    }

    [GeneratedRegex(@"\[([^|\]]*)\|([^\]]*)\]")]
    private static partial Regex Forms();

    [GeneratedRegex("<([^|>]*)\\|([^>]*)>")]
    private static partial Regex Verbs();
}
