using Fobble.Core.Approaches;
using Fobble.Core.Numbers;

namespace Fobble.Core.ItemSets;

/// <summary>
/// Chooses the exact numbers for a group (rule R9): every case as far as the count allows, those missed lately three times and those
/// not met for long twice as likely, easy ones first, no case twice in a row and no order that gives the answers away.
/// </summary>
public static class ItemSetMaker
{
    private const int MissedWeight = 3;
    private const int NotSeenWeight = 2;
    private const int LargeWeight = 2;
    private const int MuchWeight = 1000;
    private const int Orders = 40;

    /// <summary>Exactly <see cref="ItemRequest.Count"/> items; the same request always gives the same set.</summary>
    /// <exception cref="RefusedException">The range holds no case of the kind, or the count is below one.</exception>
    public static IReadOnlyList<Item> Make(ItemRequest request)
    {
        ArgumentNullException.ThrowIfNull(request);
        ArgumentOutOfRangeException.ThrowIfLessThan(request.Count, 1);
        var all = ItemCases.All(request.Kind, request.Range, request.Seed, request.Approach);
        var cases = request.Zero ? all : ItemCases.WithoutZero(all);
        if (cases.Count == 0)
        {
            throw new RefusedException("range", Phrase($"The numbers {request.Range} hold no case of {request.Kind}."));
        }

        var random = new SeededRandom(request.Seed);
        var chosen = Choose(cases, request, random);
        return [.. Order(chosen, random).Select(item => WithDistractors(item, request))];
    }

    // In rounds: each draws every case once, the first one only as many as are over, so that there is always a way to
    // keep a case from meeting itself where two rounds join.
    private static List<IReadOnlyList<Item>> Choose(IReadOnlyList<Item> cases, ItemRequest request, SeededRandom random)
    {
        // Where large numbers come early, the larger half is drawn first and so more often.
        var large = request.Approach.Sizes == NumberSize.LargeEarly ? cases.Select(c => c.Difficulty).Order().ElementAt(cases.Count / 2) : int.MaxValue;
        List<IReadOnlyList<Item>> rounds = [];
        for (var open = request.Count; open > 0; open -= rounds[^1].Count)
        {
            List<Item> left = [.. cases];
            List<Item> round = [];
            var size = open % cases.Count == 0 ? cases.Count : open % cases.Count;
            while (round.Count < size)
            {
                var index = random.PickWeighted([
                    .. left.Select(item => WeightOf(item, request.History) * (item.Difficulty >= large ? LargeWeight : 1) * Balance(item, round)),
                ]);
                round.Add(left[index]);
                left.RemoveAt(index);
            }

            rounds.Add(round);
        }

        return rounds;
    }

    // Of sentences that are true or not, neither is to be had by always saying the same.
    private static int Balance(Item item, IReadOnlyList<Item> drawn) =>
        item.Case.Name == ItemCase.Truth && drawn.Count(d => (d.Answer == "true") == (item.Answer == "true")) * 2 <= drawn.Count ? MuchWeight : 1;

    private static int WeightOf(Item item, ItemHistory history) =>
        (history.MissedLately.Contains(item.Key) ? MissedWeight : 1) * (history.NotSeenForLong.Contains(item.Key) ? NotSeenWeight : 1);

    // Easy first by thirds of a round; inside a third the order is free, so the least telling of a number of shuffles is kept.
    private static IReadOnlyList<Item> Order(List<IReadOnlyList<Item>> rounds, SeededRandom random) =>
        Enumerable
            .Range(0, Orders)
            .Select(_ =>
                (IReadOnlyList<Item>)
                    [.. rounds.SelectMany(round => round.OrderBy(i => i.Difficulty).Chunk(Math.Max(2, (round.Count + 2) / 3)).SelectMany(random.Shuffled))]
            )
            .MinBy(Faults)!;

    /// <summary>How far an order gives itself away: a case or answer next to itself, or three answers in equal steps.</summary>
    internal static int Faults(IReadOnlyList<Item> items)
    {
        var faults = 0;
        for (var i = 1; i < items.Count; i++)
        {
            faults +=
                items[i].Key == items[i - 1].Key ? 100
                : items[i].Value == items[i - 1].Value ? 3
                : 0;
            faults += i > 1 && items[i].Value - items[i - 1].Value == items[i - 1].Value - items[i - 2].Value ? 2 : 0;
        }

        return faults;
    }

    private static Item WithDistractors(Item item, ItemRequest request)
    {
        if (request.Kind is not (ItemKind.Numeral or ItemKind.TornTicket or ItemKind.MissingTin))
        {
            return item;
        }

        // Of two digits also beyond the range: thirty is offered to children on the teens, since that is what they say.
        var own = request.History.OwnConfusions.Select(c => c.PartnerOf(item.Value)).OfType<int>();
        var known = Confusion.TakenFor(item.Value).Where(n => n > 10 || request.Range.Contains(n));
        // Two are always offered, also beside one, which has nothing below it.
        int[] neighbours = [item.Value + 1, item.Value - 1, item.Value + 2];
        return item with { Distractors = [.. own.Concat(known).Concat(neighbours).Where(n => n > 0 && n != item.Value).Distinct().Take(2)] };
    }
}
