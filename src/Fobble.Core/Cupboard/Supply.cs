namespace Fobble.Core.Cupboard;

/// <summary>How many of a kind the class owns.</summary>
public sealed record StockLine(CupboardItem Item, int Count);

/// <summary>What an activity asks for. <see cref="Alike"/> where the point is to see: all have to look the same.</summary>
public sealed record Need(CupboardItem Item, int Amount, bool Alike);

/// <summary>Something else taken from the cupboard.</summary>
public sealed record StandIn(CupboardItem Item, int Amount);

/// <summary>How a need is met.</summary>
/// <param name="Own">How many of the thing itself are there for it.</param>
/// <param name="ShortBy">How many are missing before anything stands in.</param>
/// <param name="StandIns">What may stand in, the most plentiful first.</param>
/// <param name="StillShort">What is missing even then.</param>
public sealed record Supplied(Need Need, int Own, int ShortBy, IReadOnlyList<StandIn> StandIns, int StillShort)
{
    /// <summary>Null where nothing is short; otherwise what is missing and what to take, in a sentence.</summary>
    public string? InWords()
    {
        if (ShortBy == 0)
        {
            return null;
        }

        var taken =
            StandIns.Count == 0
                ? ""
                : Phrase(
                    $" {(Own == 0 || StandIns.Sum(s => s.Amount) == Need.Amount ? "Take" : "Add")} {string.Join(" and ", StandIns.Select(s => $"{s.Amount} {s.Item.InSentence}"))} instead."
                );
        var missing =
            StillShort == 0 ? ""
            : StandIns.Count == 0 ? Phrase(" Nothing in the cupboard stands in.")
            : Phrase($" Still {StillShort} short.");
        return Phrase($"Short by {ShortBy}.{taken}{missing}");
    }
}

/// <summary>Meets needs from what is owned (rule R14). Needs met by one supply are out at the same moment: what one takes the next can't.</summary>
public sealed class Supply
{
    private readonly Dictionary<ItemId, int> _owned;
    private readonly IReadOnlyList<CupboardItem> _kinds;
    private readonly Dictionary<ItemId, int> _taken = [];

    public Supply(IReadOnlyList<StockLine> stock)
    {
        ArgumentNullException.ThrowIfNull(stock);
        _owned = stock.GroupBy(s => s.Item.Id).ToDictionary(g => g.Key, g => g.Sum(s => s.Count));
        _kinds = [.. stock.Select(s => s.Item).DistinctBy(i => i.Id)];
    }

    private Supply(Supply other) => (_owned, _kinds) = (other._owned, other._kinds);

    /// <summary>The same cupboard with everything put back.</summary>
    public Supply Afresh() => new(this);

    public Supplied Meet(Need need)
    {
        ArgumentNullException.ThrowIfNull(need);
        var own = Math.Min(need.Amount, Left(need.Item));
        var shortBy = need.Amount - own;
        if (shortBy == 0)
        {
            Take(need.Item, own);
            return new(need, own, 0, [], 0);
        }

        var others = _kinds
            .Where(k => k.Purpose == need.Item.Purpose && k.Id != need.Item.Id && Left(k) > 0)
            .OrderByDescending(Left)
            .ThenBy(k => k.Id.Value, StringComparer.Ordinal)
            .ToList();

        // Where all have to look alike, a whole set of something else is better than a mixture.
        if (need.Alike && !others.Any(o => o.LooksLike(need.Item)) && others.FirstOrDefault(o => Left(o) >= need.Amount) is { } whole)
        {
            Take(whole, need.Amount);
            return new(need, own, shortBy, [new(whole, need.Amount)], 0);
        }

        Take(need.Item, own);
        List<StandIn> standIns = [];
        var open = shortBy;
        foreach (var other in others.Where(o => !need.Alike || o.LooksLike(need.Item)))
        {
            var amount = Math.Min(open, Left(other));
            if (amount > 0)
            {
                standIns.Add(new(other, amount));
                Take(other, amount);
                open -= amount;
            }
        }

        return new(need, own, shortBy, standIns, open);
    }

    private int Left(CupboardItem item) => _owned.GetValueOrDefault(item.Id) - _taken.GetValueOrDefault(item.Id);

    private void Take(CupboardItem item, int amount) => _taken[item.Id] = _taken.GetValueOrDefault(item.Id) + amount;
}
