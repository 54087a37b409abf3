using Fobble.Core.Approaches;
using Fobble.Core.Numbers;
using Fobble.Core.Pictures;

namespace Fobble.Core.ItemSets;

/// <summary>
/// One question with its answer.
/// </summary>
/// <param name="Case">What is asked, the same in every set.</param>
/// <param name="Ask">What the adult puts out or says.</param>
/// <param name="Answer">What counts as right.</param>
/// <param name="Value">The answer as a number, for keeping the order unpredictable.</param>
/// <param name="Difficulty">Larger is harder, within one kind only.</param>
/// <param name="Picture">What it looks like, if it has a look.</param>
public sealed record Item(ItemCase Case, string Ask, string Answer, int Value, int Difficulty, Picture? Picture)
{
    /// <summary>The case as an observation keeps it: <c>5=2+3</c>, <c>numeral:6</c>.</summary>
    public string Key => Case.Text;

    /// <summary>Whether zero is one of its numbers or its answer: nothing for children to whom zero is not a number yet.</summary>
    public bool HasZero => Case.Numbers.Contains(0) || Answer.Split(' ', ',', ';') is var said && (said[0] is "0" or "zero");

    /// <summary>Wrong ones to offer on purpose, the most tempting first; empty where nothing is offered.</summary>
    public IReadOnlyList<int> Distractors { get; init; } = [];
}

/// <summary>What the children's record says about cases: keys missed lately, keys not met for long, and numbers they mix up.</summary>
public sealed record ItemHistory(IReadOnlySet<string> MissedLately, IReadOnlySet<string> NotSeenForLong, IReadOnlyList<Confusion> OwnConfusions)
{
    public static ItemHistory None { get; } = new(new HashSet<string>(), new HashSet<string>(), []);
}

/// <summary>Two numbers that are taken for each other, in either direction.</summary>
public readonly record struct Confusion(int One, int Other)
{
    public int? PartnerOf(int number) =>
        number == One ? Other
        : number == Other ? One
        : null;

    /// <summary>Numerals that look alike (common practice).</summary>
    private static readonly IReadOnlyList<Confusion> Alike = [new(6, 9), new(2, 5), new(3, 8), new(1, 7)];

    /// <summary>
    /// What a number is taken for, the likeliest first (common practice): thirteen for thirty, since they sound alike; 28 for 82, its digits the other way
    /// round; 6 for 9, since they look alike.
    /// </summary>
    public static IEnumerable<int> TakenFor(int number)
    {
        var (tens, ones) = (number / 10, number % 10);
        if (number is > 12 and < 20)
        {
            yield return ones * 10;
        }

        if (number is >= 30 and < 100 && ones == 0)
        {
            yield return 10 + tens;
        }

        if (number is > 10 and < 100 && ones > 0 && tens != ones)
        {
            yield return (ones * 10) + tens;
        }

        foreach (var partner in Alike.Select(c => c.PartnerOf(number)).OfType<int>())
        {
            yield return partner;
        }
    }
}

/// <summary>Which set is wanted: its kind, the numbers it may use, how many items, the children's history and the seed.</summary>
public sealed record ItemRequest(ItemKind Kind, NumberRange Range, int Count, ItemHistory History, ulong Seed)
{
    /// <summary>Whether the children know zero as a number; where they do not, no item has it that could do without.</summary>
    public bool Zero { get; init; } = true;

    /// <summary>How the class fills its frames and what it calls things.</summary>
    public Approach Approach { get; init; } = Approach.Usual;
}
