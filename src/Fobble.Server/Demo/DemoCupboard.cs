using Fobble.Core.Cupboard;
using Fobble.Data.Model;
using Fobble.Server.Features.Cupboard;

namespace Fobble.Server.Demo;

/// <summary>What the demo's classes own: enough for most of a week, short of a few things.</summary>
internal static class DemoCupboard
{
    private static readonly (string Item, int Count)[] Owned =
    [
        ("counters-marigold", 40),
        ("counters-blue", 36),
        ("counters-two-sided", 60),
        ("linking-cubes", 100),
        ("buttons", 70),
        ("large-buttons", 24),
        ("stones", 30),
        ("pasta-shells", 60),
        ("conkers", 25),
        ("ten-bundles", 120),
        ("rubber-bands", 30),
        ("five-frames", 6),
        ("ten-frames", 5),
        ("egg-boxes", 3),
        ("bond-mats", 4),
        ("dice-dots", 6),
        ("dice-dots-3", 2),
        ("dice-0-5", 4),
        ("dice-5-10", 2),
        ("dice-0-9", 2),
        ("dice-plus-minus", 2),
        ("numeral-cards", 60),
        ("sign-cards", 12),
        ("dot-cards", 20),
        ("numbered-tins", 7),
        ("tubs", 4),
        ("bags", 6),
        ("boxes", 5),
        ("baskets", 6),
        ("cloths", 4),
        ("lids", 2),
        ("well-trays", 3),
        ("sand-trays", 3),
        ("rope-rings", 3),
        ("hoops", 2),
        ("floor-mats", 12),
        ("path-boards", 3),
        ("clothes-line", 1),
        ("playing-pieces", 12),
        ("paper", 300),
        ("pencils", 30),
        ("pencils-two-colours", 12),
        ("wipe-boards", 8),
        ("play-coins", 80),
        ("market-goods", 14),
        ("dominoes", 28),
        ("bell", 1),
        ("drum", 1),
        ("balance", 1),
        ("height-blocks", 20),
        ("tealights-electric", 4),
        ("plastic-jar", 2),
    ];

    public static IEnumerable<StockRow> For(int classId) =>
        [
            .. Owned.Select(o => new StockRow
            {
                ClassId = classId,
                Item = o.Item,
                Count = o.Count,
            }),
            StoredStock.RowOf(
                new(classId),
                new(new(new("wooden-lemons"), "Wooden lemons", Purpose.Counting, [55, 40, 40], ItemShape.Uneven, "yellow", "wood", [], [], false, 0), 18)
            ),
        ];
}
