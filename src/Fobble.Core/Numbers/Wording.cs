namespace Fobble.Core.Numbers;

public enum OnesWord
{
    Ones,
    Units,
}

public enum FewerWord
{
    Fewer,
    Less,
}

public enum TakeWord
{
    TakeAway,
    Subtract,
}

public enum YearWord
{
    Kindergarten,
    Reception,
}

public enum SentenceWord
{
    NumberSentence,
    Equation,
    Sum,
}

/// <summary>The words a class has chosen where schools differ.</summary>
public sealed record Wording(
    OnesWord Ones = OnesWord.Ones,
    FewerWord Less = FewerWord.Fewer,
    TakeWord Take = TakeWord.TakeAway,
    SentenceWord Sentence = SentenceWord.NumberSentence,
    YearWord Year = YearWord.Kindergarten
)
{
    public static Wording Usual { get; } = new();

    public string OnesName => Ones == OnesWord.Ones ? Phrase("ones") : Phrase("units");

    public string OneName => Ones == OnesWord.Ones ? Phrase("one") : Phrase("unit");

    public string Fewer => Less == FewerWord.Fewer ? Phrase("fewer") : Phrase("less");

    /// <summary>As an order: "take away three", "subtract three".</summary>
    public string TakeAway => Take == TakeWord.TakeAway ? Phrase("take away") : Phrase("subtract");

    public string SentenceName =>
        Sentence switch
        {
            SentenceWord.Equation => Phrase("equation"),
            SentenceWord.Sum => Phrase("sum"),
            _ => Phrase("number sentence"),
        };

    /// <summary>What a new class says where its school stands, until it says otherwise: the first year is reception in England and in Australia's south, kindergarten elsewhere (common practice).</summary>
    /// <param name="locale">As a BCP 47 tag.</param>
    public static Wording UsualIn(string locale) => Usual with { Year = locale is "en-GB" or "en-AU" or "en-ZA" ? YearWord.Reception : YearWord.Kindergarten };

    public string YearName => Year == YearWord.Kindergarten ? Phrase("kindergarten") : Phrase("reception");

    /// <summary>
    /// A text of the content with the class's words put in: <c>{fewer}</c>, <c>{takeAway}</c>, <c>{ones}</c>, <c>{one}</c>,
    /// <c>{sentence}</c>, <c>{year}</c>; with a capital letter where the text begins with one.
    /// </summary>
    public string Say(string text)
    {
        ArgumentNullException.ThrowIfNull(text);
        if (!text.Contains('{', StringComparison.Ordinal))
        {
            return text;
        }

        var said = text.Replace("{fewer}", Fewer, StringComparison.Ordinal)
            .Replace("{takeAway}", TakeAway, StringComparison.Ordinal)
            .Replace("{ones}", OnesName, StringComparison.Ordinal)
            .Replace("{one}", OneName, StringComparison.Ordinal)
            .Replace("a {sentence}", Sentence == SentenceWord.Equation ? "an equation" : $"a {SentenceName}", StringComparison.Ordinal)
            .Replace("{sentence}", SentenceName, StringComparison.Ordinal)
            .Replace("{year}", YearName, StringComparison.Ordinal);
        return text[0] == '{' && text.Contains(' ', StringComparison.Ordinal) ? char.ToUpperInvariant(said[0]) + said[1..] : said;
    }
}
