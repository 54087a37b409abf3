using Fobble.Core.Numbers;

namespace Fobble.Core.Stories;

/// <summary>Tells one story of given numbers in a given setting.</summary>
public static class StoryTeller
{
    /// <param name="parts">First and second part; their total is the whole.</param>
    /// <param name="people">The one who has more, and the one who has less, where the story compares.</param>
    public static Story Tell(StoryKind kind, StorySetting setting, Split parts, (Person Bigger, Person Smaller) people, Wording words)
    {
        ArgumentNullException.ThrowIfNull(setting);
        ArgumentNullException.ThrowIfNull(words);
        ArgumentNullException.ThrowIfNull(people.Bigger);
        ArgumentNullException.ThrowIfNull(people.Smaller);
        var (w, p, q) = (parts.Total, parts.First, parts.Second);
        var (lines, answer) =
            StoryKinds.SituationOf(kind) == Situation.Compare ? Compared(kind, setting, w, p, q, people, words) : Happened(kind, setting, w, p, q, words);
        var (sentence, solved) = Sentences(kind, w, p, q);
        var (first, second) = StoryKinds.SituationOf(kind) switch
        {
            Situation.AddTo => (setting.Letters.There, setting.Letters.Come),
            Situation.TakeFrom => (setting.Letters.There, setting.Letters.Go),
            Situation.Together => (setting.FirstKind.Letter, setting.SecondKind.Letter),
            _ => (people.Smaller.Name[..1], people.Bigger.Name[..1]),
        };
        return new Story(kind, setting.Id, w, p, q, lines, sentence, solved, answer, first, second);
    }

    private static (string Sentence, string Solved) Sentences(StoryKind kind, int w, int p, int q) =>
        kind switch
        {
            StoryKind.AddToChange or StoryKind.TogetherAddend => ($"{p} + □ = {w}", $"{w} − {p} = {q}"),
            StoryKind.AddToStart => ($"□ + {q} = {w}", $"{w} − {q} = {p}"),
            StoryKind.TakeFromResult or StoryKind.CompareSmallerMore or StoryKind.CompareSmallerFewer => ($"{w} − {q} = □", $"{w} − {q} = {p}"),
            StoryKind.TakeFromChange => ($"{w} − □ = {p}", $"{w} − {p} = {q}"),
            StoryKind.TakeFromStart => ($"□ − {q} = {p}", $"{p} + {q} = {w}"),
            StoryKind.TogetherBoth => ($"□ + □ = {w}", $"{p} + {q} = {w}"),
            StoryKind.CompareDifferenceMore or StoryKind.CompareDifferenceFewer => ($"{w} − {p} = □", $"{w} − {p} = {q}"),
            _ => ($"{p} + {q} = □", $"{p} + {q} = {w}"),
        };

    private static (string[] Lines, string Answer) Happened(StoryKind kind, StorySetting s, int w, int p, int q, Wording words)
    {
        string Say(string phrase, int? n) => StoryPhrases.Say(phrase, n, words);
        string IsKind(KindPhrase phrase, int? n) => Say($"{{n}} [{s.One}|{s.Many}] {phrase.Is}.", n);
        string Plural(KindPhrase phrase) => Say($"{phrase.Is}", null).ToLowerInvariant();
        string Rest() => Phrase($"The rest {Plural(s.SecondKind)}.");
        return kind switch
        {
            StoryKind.AddToResult => ([Say(s.There, p), Say(s.Come, q), s.AskNow], Say(s.Now, w)),
            StoryKind.AddToChange => ([Say(s.There, p), Say(s.Come, null), Say(s.Now, w), s.AskCome], Say(s.Came, q)),
            StoryKind.AddToStart => ([Say(s.There, null), Say(s.Come, q), Say(s.Now, w), s.AskThere], Say(s.WasThere, p)),
            StoryKind.TakeFromResult => ([Say(s.There, w), Say(s.Go, q), s.AskNow], Say(s.Now, p)),
            StoryKind.TakeFromChange => ([Say(s.There, w), Say(s.Go, null), Say(s.Now, p), s.AskGo], Say(s.Went, q)),
            StoryKind.TakeFromStart => ([Say(s.There, null), Say(s.Go, q), Say(s.Now, p), s.AskThere], Say(s.WasThere, w)),
            StoryKind.TogetherTotal => (
                [IsKind(s.FirstKind, p), IsKind(s.SecondKind, q), Phrase($"How many {s.Many} are there altogether?")],
                Altogether(s, w)
            ),
            StoryKind.TogetherAddend => (
                [Say(s.There, w), IsKind(s.FirstKind, p), Rest(), Phrase($"How many {s.Many} {Plural(s.SecondKind)}?")],
                IsKind(s.SecondKind, q)
            ),
            _ => (
                [Say(s.There, w), IsKind(s.FirstKind, null), Rest(), Phrase("How many of each could there be?")],
                Phrase($"{IsKind(s.FirstKind, p)} {IsKind(s.SecondKind, q)} Other parts of {w} are right as well.")
            ),
        };
    }

    private static string Altogether(StorySetting s, int w) =>
        w == 1 ? Phrase($"There is 1 {s.One} altogether.") : Phrase($"There are {w} {s.Many} altogether.");

    private static (string[] Lines, string Answer) Compared(
        StoryKind kind,
        StorySetting s,
        int w,
        int p,
        int q,
        (Person Bigger, Person Smaller) people,
        Wording words
    )
    {
        var (big, small) = people;
        string Say(string phrase, int n, Person who, Person? other = null) => StoryPhrases.Say(phrase, n, words, who, other);
        string Has(Person who, int n) => Say($"{{name}} has {{n}} [{s.One}|{s.Many}].", n, who);
        string More(Person who, Person than, int n) => Say($"{{name}} has {{n}} more [{s.One}|{s.Many}] than {{other}}.", n, who, than);
        string Fewer(Person who, Person than, int n) => Say($"{{name}} has {{n}} {{fewer}} [{s.One}|{s.Many}] than {{other}}.", n, who, than);

        // A pronoun only while one person has been named; afterwards it could be either.
        string Then(string sentence, Person who) =>
            string.Concat(StoryPhrases.Say("{she} <has|have>", null, words, who), sentence.AsSpan(who.Name.Length + " has".Length));
        string AskName(Person who) => Phrase($"How many {s.Many} does {who.Name} have?");
        return kind switch
        {
            StoryKind.CompareDifferenceMore => (
                [Has(big, w), Has(small, p), Phrase($"How many more {s.Many} does {big.Name} have than {small.Name}?")],
                More(big, small, q)
            ),
            StoryKind.CompareDifferenceFewer => (
                [Has(big, w), Has(small, p), Phrase($"How many {words.Fewer} {s.Many} does {small.Name} have than {big.Name}?")],
                Fewer(small, big, q)
            ),
            StoryKind.CompareBiggerMore => ([Has(small, p), More(big, small, q), AskName(big)], Has(big, w)),
            StoryKind.CompareBiggerFewer => ([Has(small, p), Then(Fewer(small, big, q), small), AskName(big)], Has(big, w)),
            StoryKind.CompareSmallerMore => ([Has(big, w), Then(More(big, small, q), big), AskName(small)], Has(small, p)),
            _ => ([Has(big, w), Fewer(small, big, q), AskName(small)], Has(small, p)),
        };
    }
}
