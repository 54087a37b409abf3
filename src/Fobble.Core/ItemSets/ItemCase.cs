using System.Globalization;
using System.Text.RegularExpressions;
using Fobble.Core.Numbers;

namespace Fobble.Core.ItemSets;

/// <summary>How the numbers of a case belong together.</summary>
public enum CaseForm
{
    /// <summary>One number: <c>numeral:6</c>, or <c>12</c> as somebody noted it.</summary>
    Number,

    /// <summary>Two numbers, to be compared: <c>4:7</c>.</summary>
    Pair,

    /// <summary>A whole and its parts: <c>5=2+3</c>, <c>family:5=2+3</c>, <c>9=2+3+4</c>.</summary>
    Parts,

    /// <summary>A number and what is taken from it: <c>take:5-2</c>.</summary>
    Take,

    /// <summary>A number and between how many it is shared: <c>share:12/3</c>.</summary>
    Share,

    /// <summary>Two wholes with their parts, to be compared: <c>sums:5=2+3:6=3+3</c>.</summary>
    Sums,
}

/// <summary>
/// What is asked in an item, the same in every set. It is kept as text with an observation ("numbers used"): <see cref="Text"/> writes it,
/// <see cref="Read"/> is the only place that reads it.
/// </summary>
/// <param name="Name">What is done with the numbers (<c>numeral</c>, <c>take</c>, <c>family</c>); empty where the form says it all.</param>
/// <param name="Numbers">In the order of the text: for parts the whole first.</param>
public sealed partial record ItemCase(string Name, CaseForm Form, IReadOnlyList<int> Numbers)
{
    /// <summary>The name of a case that asks whether a sentence is true.</summary>
    public const string Truth = "true";

    /// <summary>As an observation keeps it.</summary>
    public string Text => Name.Length == 0 ? Body() : $"{Name}:{Body()}";

    /// <summary>The whole and its two parts, where that is all that is asked.</summary>
    public Split? Bond() => Form == CaseForm.Parts && Name.Length == 0 && Numbers.Count == 3 ? new Split(Numbers[1], Numbers[2]) : null;

    public static ItemCase Of(string name, int number) => new(name, CaseForm.Number, [number]);

    public static ItemCase Pair(int one, int other) => new("", CaseForm.Pair, [one, other]);

    public static ItemCase Of(Split split) => Of("", split);

    public static ItemCase Of(string name, Split split) => new(name, CaseForm.Parts, [split.Total, split.First, split.Second]);

    /// <summary>A whole that is the sum of its parts.</summary>
    public static ItemCase Of(IReadOnlyList<int> parts) => new("", CaseForm.Parts, [parts.Sum(), .. parts]);

    public static ItemCase Take(int from, int taken) => new("take", CaseForm.Take, [from, taken]);

    public static ItemCase Share(int number, int between) => new("share", CaseForm.Share, [number, between]);

    public static ItemCase Of(Split one, Split other) => new("sums", CaseForm.Sums, [one.Total, one.First, one.Second, other.Total, other.First, other.Second]);

    /// <summary>Reads what <see cref="Text"/> wrote; null for anything else, such as a teacher's own words, and for parts that do not make their whole.</summary>
    public static ItemCase? Read(string? text)
    {
        if (text is null || Grammar().Match(Spaces().Replace(text.Trim(), "$1")) is not { Success: true } match)
        {
            return null;
        }

        var numbers = new List<int>();
        foreach (Capture digits in match.Groups["n"].Captures)
        {
            if (!int.TryParse(digits.Value, NumberStyles.None, CultureInfo.InvariantCulture, out var number))
            {
                return null;
            }

            numbers.Add(number);
        }

        var form = Enum.GetValues<CaseForm>().First(f => match.Groups[f.ToString()].Success);
        ItemCase read = new(match.Groups["name"].Value, form, numbers);
        return read.Adds() ? read : null;
    }

    /// <summary>The largest number that was handled, of a case or of a teacher's own words; null where there is none.</summary>
    public static int? LargestIn(string? text) =>
        Digits().Matches(text ?? "").Select(m => int.TryParse(m.Value, NumberStyles.None, CultureInfo.InvariantCulture, out var n) ? n : (int?)null).Max();

    /// <summary>What was asked as a teacher would say it: 5 = 2 + 3, 5 − 2, 6, 4 and 7. A teacher's own words stay as they are.</summary>
    public static string InWords(string text) => Read(text)?.InWords() ?? text;

    /// <summary>As a teacher would say it.</summary>
    public string InWords() =>
        Form switch
        {
            CaseForm.Number => $"{Numbers[0]}",
            CaseForm.Pair => Phrase($"{Numbers[0]} and {Numbers[1]}"),
            CaseForm.Take => $"{Numbers[0]} − {Numbers[1]}",
            CaseForm.Share => Phrase($"{Numbers[0]} between {Numbers[1]}"),
            CaseForm.Sums => Phrase($"{Numbers[1]} + {Numbers[2]} and {Numbers[4]} + {Numbers[5]}"),
            _ => $"{Numbers[0]} = {string.Join(" + ", Numbers.Skip(1))}",
        };

    public bool Equals(ItemCase? other) => other is not null && Text == other.Text;

    public override int GetHashCode() => Text.GetHashCode(StringComparison.Ordinal);

    public override string ToString() => Text;

    private string Body() =>
        Form switch
        {
            CaseForm.Number => $"{Numbers[0]}",
            CaseForm.Pair => $"{Numbers[0]}:{Numbers[1]}",
            CaseForm.Take => $"{Numbers[0]}-{Numbers[1]}",
            CaseForm.Share => $"{Numbers[0]}/{Numbers[1]}",
            CaseForm.Sums => $"{Parts(0, 3)}:{Parts(3, 3)}",
            _ => Parts(0, Numbers.Count),
        };

    private string Parts(int first, int count) => $"{Numbers[first]}={string.Join('+', Numbers.Skip(first + 1).Take(count - 1))}";

    private bool Adds() =>
        Form switch
        {
            CaseForm.Parts => Numbers.Skip(1).Sum() == Numbers[0],
            CaseForm.Sums => Numbers[1] + Numbers[2] == Numbers[0] && Numbers[4] + Numbers[5] == Numbers[3],
            _ => true,
        };

    [GeneratedRegex("[0-9]+")]
    private static partial Regex Digits();

    // A teacher may have written 5 = 2 + 3.
    [GeneratedRegex(@"\s*([=+:/-])\s*")]
    private static partial Regex Spaces();

    [GeneratedRegex(
        """
            ^((?<name>[a-z][a-z0-9-]*):)?(
                (?<Sums>(?<n>\d+)=(?<n>\d+)\+(?<n>\d+):(?<n>\d+)=(?<n>\d+)\+(?<n>\d+))
              | (?<Parts>(?<n>\d+)=(?<n>\d+)(\+(?<n>\d+))+)
              | (?<Pair>(?<n>\d+):(?<n>\d+))
              | (?<Take>(?<n>\d+)-(?<n>\d+))
              | (?<Share>(?<n>\d+)/(?<n>\d+))
              | (?<Number>(?<n>\d+))
            )\z
            """,
        RegexOptions.ExplicitCapture | RegexOptions.IgnorePatternWhitespace
    )]
    private static partial Regex Grammar();
}
