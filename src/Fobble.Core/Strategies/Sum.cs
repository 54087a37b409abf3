using Fobble.Core.Approaches;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;
using Fobble.Core.Skills;
using static Fobble.Core.Numbers.NumberWords;

namespace Fobble.Core.Strategies;

/// <summary>A sum or difference to be worked, with what all strategies share: frames, paths, and how a worked strategy is put together.</summary>
internal sealed record Sum(int A, Operation Operation, int B, Approach Approach)
{
    private const int OnFrames = 20;

    public int Result => Operation == Operation.Add ? A + B : A - B;

    public int Larger => Math.Max(A, B);

    public int Smaller => Math.Min(A, B);

    /// <summary>Whether all of it can lie on two ten frames.</summary>
    public bool Lies => Math.Max(Larger, Result) <= OnFrames;

    public string Take => char.ToUpperInvariant(Approach.Words.TakeAway[0]) + Approach.Words.TakeAway[1..];

    public FrameTable Table(int frames = 2) => new(Approach.Frames, frames);

    public Workings Begin(string says, Picture picture) => new Workings(A, Operation, B).Then(new Thought.Begin(), says, picture);

    /// <summary>The path with the hops so far: stones where they fit in a row, else an open line.</summary>
    public Picture Path(int start, IReadOnlyList<Hop> hops)
    {
        var here = hops.Count == 0 ? start : hops[^1].To;
        return Lies ? NumberPath.Stones(new NumberRange(0, Math.Max(Larger, Result) <= 10 ? 10 : OnFrames), here, hops) : NumberPath.OpenLine(start, hops);
    }

    public WorkedStrategy Worked(
        StrategyKind kind,
        string fits,
        Workings workings,
        FactKinds facts,
        IReadOnlyList<string> needs,
        IEnumerable<NumberSentence>? more = null
    )
    {
        var own =
            Operation == Operation.Add
                ? FactFamily.Of(new Split(A, B)).Additions
                : [new NumberSentence(A, Operation.TakeAway, B), .. FactFamily.Of(new Split(Result, B)).Additions];
        return new(
            kind,
            NameOf(kind),
            fits,
            workings.Steps,
            workings.Steps.Sum(s => s.Thought.Cost),
            facts,
            [.. own.Concat(more ?? []).Distinct()],
            [.. needs.Select(id => new SkillId(id))]
        );
    }

    public static NumberSentence Plus(int left, int right) => new(left, Operation.Add, right);

    public static NumberSentence Minus(int left, int right) => new(left, Operation.TakeAway, right);

    private string NameOf(StrategyKind kind) =>
        (kind, Operation) switch
        {
            (StrategyKind.ZeroFact, Operation.Add) => Phrase("Nothing put to it"),
            (StrategyKind.ZeroFact, _) => B == 0 ? Phrase("Nothing taken away") : Phrase("All taken away"),
            (StrategyKind.CountAll, Operation.Add) => Phrase("Count all"),
            (StrategyKind.CountAll, _) => Phrase("Cross out and count what is left"),
            (StrategyKind.CountOnFromFirst, _) => Phrase("Count on from the first"),
            (StrategyKind.CountOnFromLarger, _) => Phrase("Count on from the larger"),
            (StrategyKind.CountBack, _) => Phrase("Count back"),
            (StrategyKind.CountUp, _) => Phrase("Count up to it"),
            (StrategyKind.CompareByMatching, _) => Phrase("Match and see what is over"),
            (StrategyKind.Doubles, Operation.Add) => Phrase("A double"),
            (StrategyKind.Doubles, _) => Phrase("Half of a double"),
            (StrategyKind.NearDoubles, _) => Phrase("Nearly a double"),
            (StrategyKind.DoubleBetween, _) => Phrase("The double between"),
            (StrategyKind.FiveAsAnchor, _) => Phrase("Fives first"),
            (StrategyKind.KnownByHeart, _) => Phrase("Known by heart"),
            (StrategyKind.BondOfTen, _) => Phrase("Bond of ten"),
            (StrategyKind.TenAndSome, _) => Phrase("Ten and some"),
            (StrategyKind.PlusNine, _) => Phrase("Plus nine: ten, less one"),
            (StrategyKind.MinusNine, _) => Phrase("Minus nine: ten, and one back"),
            (StrategyKind.MakeTen, _) => Lies ? Phrase("Make ten") : Phrase("Make the next ten"),
            (StrategyKind.SplitTeen, _) => Phrase("Split the teen number"),
            (StrategyKind.TakeFromTen, _) => Phrase("Take from the ten"),
            (StrategyKind.BackThroughTen, _) => Phrase("Back through ten"),
            (StrategyKind.ThinkAddition, _) => Phrase("Think of the addition"),
            (StrategyKind.JumpInTens, _) => Phrase("Jump in tens"),
            _ => Phrase("Kind by kind"),
        };

    /// <summary>Kinds of a number in words: <c>two tens and three ones</c>.</summary>
    public string InKinds(PlaceValue value)
    {
        string?[] parts =
        [
            value.Hundreds > 0 ? Phrase($"{Of(value.Hundreds)} hundred{(value.Hundreds > 1 ? "s" : "")}") : null,
            value.Tens > 0 ? Phrase($"{Of(value.Tens)} ten{(value.Tens > 1 ? "s" : "")}") : null,
            value.Ones > 0 ? $"{Of(value.Ones)} {(value.Ones > 1 ? Approach.Words.OnesName : Approach.Words.OneName)}" : null,
        ];
        return string.Join(" and ", parts.OfType<string>().DefaultIfEmpty("nothing"));
    }
}
