using System.Text.RegularExpressions;
using Fobble.Core.Numbers;
using Fobble.Core.Stories;

namespace Fobble.Core.Gates;

/// <summary>
/// Reads a sentence as it is said to a class, and names what a careful reader would strike out: number and verb that do not agree, a small letter at the start,
/// a word that the class did not choose, a digit beside a number word. It knows the things and verbs of our content; of others it says nothing.
/// </summary>
public static partial class ReadingGate
{
    private static readonly (string One, string Many)[] Units =
    [
        ("ten", "tens"),
        ("hundred", "hundreds"),
        ("unit", "units"),
        ("dot", "dots"),
        ("counter", "counters"),
        ("card", "cards"),
        ("finger", "fingers"),
        ("space", "spaces"),
        ("heap", "heaps"),
        ("row", "rows"),
        ("cube", "cubes"),
        ("thing", "things"),
        ("child", "children"),
        ("part", "parts"),
        ("way", "ways"),
        ("step", "steps"),
        ("place", "places"),
        ("frame", "frames"),
    ];

    private static readonly Dictionary<string, string> Verbs = new()
    {
        ["is"] = "are",
        ["was"] = "were",
        ["has"] = "have",
        ["does"] = "do",
        ["goes"] = "go",
        ["comes"] = "come",
        ["hangs"] = "hang",
        ["lies"] = "lie",
        ["stands"] = "stand",
        ["rolls"] = "roll",
        ["waits"] = "wait",
        ["flies"] = "fly",
        ["carries"] = "carry",
        ["falls"] = "fall",
        ["glows"] = "glow",
        ["sits"] = "sit",
        ["stays"] = "stay",
        ["fits"] = "fit",
    };

    private static readonly HashSet<string> VerbsOfMany = [.. Verbs.Values];

    private static readonly Dictionary<string, string> Nouns = StorySetting
        .Shipped.Select(s => (s.One, s.Many))
        .Concat(Units)
        .DistinctBy(n => n.One)
        .ToDictionary();

    private static readonly HashSet<string> NounsOfMany = [.. Nouns.Values];

    /// <param name="words">What the class calls things: other words for the same are faults.</param>
    /// <param name="mixed">Whether a digit may stand beside a number word, because that is the point.</param>
    /// <returns>What is wrong, in words for people who write content; empty for a sound sentence.</returns>
    public static IReadOnlyList<string> Faults(string sentence, Wording words, bool mixed = false)
    {
        ArgumentNullException.ThrowIfNull(sentence);
        ArgumentNullException.ThrowIfNull(words);
        return [.. Start(sentence), .. Agreement(sentence), .. Chosen(sentence, words), .. Skipped(sentence), .. mixed ? [] : Mixed(sentence)];
    }

    private static IEnumerable<string> Start(string sentence)
    {
        if (sentence.Length == 0 || char.IsLower(sentence[0]))
        {
            yield return "begins with a small letter";
        }
    }

    // "Five, ten … ten": there is nothing between.
    private static IEnumerable<string> Skipped(string sentence)
    {
        if (SameOnBothSides().Match(sentence) is { Success: true } match)
        {
            yield return $"'{match.Value}': nothing is left out between the two";
        }
    }

    private static IEnumerable<string> Agreement(string sentence)
    {
        foreach (Match match in Counted().Matches(sentence))
        {
            var (noun, next) = (match.Groups["noun"].Value.ToLowerInvariant(), match.Groups["next"].Value.ToLowerInvariant());
            var said = $"{match.Groups["number"].Value} {match.Groups["more"].Value}{noun} {next}".TrimEnd();
            var one = match.Groups["number"].Value.ToLowerInvariant() is "1" or "one";
            if (one && (NounsOfMany.Contains(noun) || (VerbsOfMany.Contains(noun) && noun != "go") || (Nouns.ContainsKey(noun) && VerbsOfMany.Contains(next))))
            {
                yield return $"'{said}': one of them is told as many";
            }

            // A ten frame is one word: two ten frames. A ten alone is a number, and so are two hundred and twenty one.
            if (
                !one
                && Nouns.ContainsKey(noun)
                && noun is not ("hundred" or "ten")
                && !IsFrame(match.Groups["number"].Value, noun)
                && !NounsOfMany.Contains(next)
            )
            {
                yield return $"'{said}': many are told as one";
            }

            if (!one && ((NounsOfMany.Contains(noun) && Verbs.ContainsKey(next)) || Verbs.ContainsKey(noun) && match.Groups["more"].Success))
            {
                yield return $"'{said}': many with the verb of one";
            }
        }
    }

    // A five frame is one.
    private static bool IsFrame(string number, string noun) => noun == "frame" && number.ToLowerInvariant() is "five" or "ten";

    private static IEnumerable<string> Chosen(string sentence, Wording words)
    {
        var said = sentence.ToLowerInvariant();
        if (Regex.IsMatch(said, words.Ones == OnesWord.Ones ? @"\bunits?\b" : @"\btens and ones\b|\d ones\b"))
        {
            yield return $"the class says {words.OnesName}";
        }

        if (Regex.IsMatch(said, words.Take == TakeWord.TakeAway ? @"\bsubtract\b" : @"\btake away\b"))
        {
            yield return $"the class says {words.TakeAway}";
        }

        if (words.Less == FewerWord.Less && Regex.IsMatch(said, @"\bfewer\b"))
        {
            yield return "the class says less";
        }

        if (words.Sentence != SentenceWord.Equation && Regex.IsMatch(said, @"\bequations?\b"))
        {
            yield return $"the class says {words.SentenceName}";
        }
    }

    private static IEnumerable<string> Mixed(string sentence)
    {
        // Sentence by sentence; of signs and of what is written between them the words are no part.
        foreach (var part in sentence.Split(['.', '?', '!', ';', ':'], StringSplitOptions.RemoveEmptyEntries))
        {
            if (Digits().IsMatch(part) && NumberWord().Match(part) is { Success: true } word)
            {
                yield return $"a digit beside '{word.Value}' in one sentence";
            }
        }
    }

    private const string Word = "two|three|four|five|six|seven|eight|nine|eleven|twelve|thirteen|fourteen|fifteen|sixteen|seventeen|eighteen|nineteen|twenty";

    // What follows is looked at and not used up: in "1 fits one dots" both numbers count something.
    [GeneratedRegex(
        $@"(?<!\band )(?<!\bwhich )(?<!-)(?<![+−=□/] ?)\b(?<number>\d+|one|ten|{Word})(?=\s+(?<more>more\s+|fewer\s+|less\s+)?(?<noun>[a-z]+)(\s+(?<next>[a-z]+))?)",
        RegexOptions.IgnoreCase | RegexOptions.ExplicitCapture
    )]
    private static partial Regex Counted();

    [GeneratedRegex(@"\b(?<side>[\w-]+) … \k<side>\b", RegexOptions.IgnoreCase)]
    private static partial Regex SameOnBothSides();

    [GeneratedRegex(@"\d")]
    private static partial Regex Digits();

    [GeneratedRegex($@"\b({Word}|(twenty|thirty|forty|fifty|sixty|seventy|eighty|ninety)(-\w+)?)\b", RegexOptions.IgnoreCase | RegexOptions.ExplicitCapture)]
    private static partial Regex NumberWord();
}
