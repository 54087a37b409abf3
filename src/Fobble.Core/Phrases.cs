using System.Collections.Concurrent;
using System.Globalization;
using System.Runtime.CompilerServices;
using System.Text;
using System.Text.RegularExpressions;

namespace Fobble.Core;

/// <summary>
/// Every sentence of Core, formats and server is said through here, with its English as its key: <c>Phrase($"{name} is ready for {skill}")</c> is looked for as <c>{0} is ready for {1}</c>.
/// The language is the one of the request (<see cref="CultureInfo.CurrentUICulture"/>); what it does not have stays English, and English itself needs no file.
/// </summary>
public static class Phrases
{
    /// <summary>No language: every sentence bracketed and longer, to see what has not passed here and what is cut off (CLDR's tag for that).</summary>
    public const string Trial = "en-XA";

    private static readonly ConcurrentDictionary<string, Language> Languages = new() { [Trial] = new TrialLanguage() };

    /// <summary>Has a language ready, by its BCP 47 tag.</summary>
    /// <param name="tag">As a culture is called, "en-US".</param>
    /// <param name="texts">English to the other language; numbered places in braces may change their order.</param>
    public static void Learn(string tag, IReadOnlyDictionary<string, string> texts) => Languages[tag] = new Language(tag, texts);

    /// <summary>The sentence in the language of this request.</summary>
    public static string Phrase(string text) => Current is { } language ? language.Say(text, []) : text;

    /// <inheritdoc cref="Phrase(string)"/>
    public static string Phrase(PhraseHandler phrase) => phrase.InWords();

    /// <summary>Marks a text that is said only where it is shown, since it is older than any request: <c>Phrase(kind.Name)</c>.</summary>
    public static string Later(string text) => text;

    /// <summary>Whether the language of this request is the English that stands in the code.</summary>
    public static bool AsWritten => Current is null;

    internal static Language? Current => Languages.GetValueOrDefault(CultureInfo.CurrentUICulture.Name);
}

/// <summary>What one language has for English sentences. One that is English elsewhere needs only the words that are spelled or said otherwise there: they are put in wherever a sentence is not given whole.</summary>
internal partial class Language(string tag, IReadOnlyDictionary<string, string> texts)
{
    private readonly Dictionary<string, string>? _spelled = tag.StartsWith("en-", StringComparison.Ordinal)
        ? texts.Where(t => Single().Replace(t.Key, "").Length == 0).ToDictionary(t => t.Key, t => t.Value, StringComparer.OrdinalIgnoreCase)
        : null;

    /// <param name="template">The English, with <c>{0}</c>, <c>{1}</c> … where something is filled in.</param>
    /// <param name="parts">What is filled in; a word of our own among it ("is", "are") is looked for as well.</param>
    public virtual string Say(string template, IReadOnlyList<string> parts)
    {
        // A piece of a sentence keeps the room before and after it.
        var bare = template.Trim();
        if (bare.Length == 0)
            return Filled(template, parts);
        var at = template.IndexOf(bare, StringComparison.Ordinal);
        var said = texts.GetValueOrDefault(bare) ?? Spelled(bare);
        return template[..at] + Filled(said, [.. parts.Select(p => texts.GetValueOrDefault(p) ?? p)]) + template[(at + bare.Length)..];
    }

    private string Spelled(string english) =>
        _spelled is null
            ? english
            : Single()
                .Replace(english, m => _spelled.TryGetValue(m.Value, out var word)
                        ? char.IsUpper(m.Value[0])
                            ? char.ToUpperInvariant(word[0]) + word[1..]
                            : word
                        : m.Value);

    [GeneratedRegex(@"(?<![{\p{L}])\p{L}+(?![}\p{L}])")]
    private static partial Regex Single();

    protected static string Filled(string template, IReadOnlyList<string> parts) =>
        parts.Count == 0
            ? template
            : Places.Of().Replace(template, m => int.Parse(m.ValueSpan[1..^1], CultureInfo.InvariantCulture) is var i && i < parts.Count ? parts[i] : m.Value);
}

internal sealed class TrialLanguage() : Language(Phrases.Trial, new Dictionary<string, string>())
{
    private const int LongestWord = 10;

    public override string Say(string template, IReadOnlyList<string> parts)
    {
        var letters = Places.Of().Replace(template, "").Length;
        return $"⟦{Filled(template, parts)} {string.Join(' ', new string('~', Math.Max(1, (letters + 1) / 2)).Chunk(LongestWord).Select(c => new string(c)))}⟧";
    }
}

internal static partial class Places
{
    [GeneratedRegex(@"\{\d+\}")]
    public static partial Regex Of();
}

/// <summary>Takes an interpolated sentence apart into what is ours and what is filled in; in English it is only written down.</summary>
[InterpolatedStringHandler]
public ref struct PhraseHandler
{
    private readonly Language? _language;
    private readonly StringBuilder? _template;
    private readonly List<string>? _parts;
    private DefaultInterpolatedStringHandler _english;

    public PhraseHandler(int literalLength, int formattedCount)
    {
        _language = Phrases.Current;
        if (_language is null)
        {
            _english = new(literalLength, formattedCount);
            return;
        }
        _template = new(literalLength + (formattedCount * 3));
        _parts = new(formattedCount);
    }

    public void AppendLiteral(string text)
    {
        if (_template is null)
            _english.AppendLiteral(text);
        else
            _template.Append(text);
    }

    public void AppendFormatted<T>(T value, string? format = null)
    {
        if (_template is null)
            _english.AppendFormatted(value, format);
        else
            Fill(value is IFormattable number ? number.ToString(format, null) : value?.ToString() ?? "");
    }

    public void AppendFormatted(ReadOnlySpan<char> value)
    {
        if (_template is null)
            _english.AppendFormatted(value);
        else
            Fill(value.ToString());
    }

    internal string InWords() => _language is null ? _english.ToStringAndClear() : _language.Say(_template!.ToString(), _parts!);

    private readonly void Fill(string part)
    {
        _template!.Append(CultureInfo.InvariantCulture, $"{{{_parts!.Count}}}");
        _parts.Add(part);
    }
}
