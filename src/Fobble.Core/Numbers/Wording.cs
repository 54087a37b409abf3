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

public enum SentenceWord
{
    NumberSentence,
    Equation,
    Sum,
}

/// <summary>The words a class has chosen where schools differ.</summary>
public sealed record Wording(
    OnesWord Ones = OnesWord.Ones, FewerWord Less = FewerWord.Fewer, TakeWord Take = TakeWord.TakeAway, SentenceWord Sentence = SentenceWord.NumberSentence)
{
    public static Wording Usual { get; } = new();

    public string OnesName => Ones == OnesWord.Ones ? "ones" : "units";

    public string OneName => Ones == OnesWord.Ones ? "one" : "unit";

    public string Fewer => Less == FewerWord.Fewer ? "fewer" : "less";

    /// <summary>As an order: "take away three", "subtract three".</summary>
    public string TakeAway => Take == TakeWord.TakeAway ? "take away" : "subtract";

    public string SentenceName => Sentence switch
    {
        SentenceWord.Equation => "equation",
        SentenceWord.Sum => "sum",
        _ => "number sentence",
    };
}
