using Fobble.Core.Cupboard;
using Fobble.Data.Model;

namespace Fobble.Server.Features.Cupboard;

/// <summary>What a class owns, as it is stored: kinds that ship and kinds of its own, with their counts.</summary>
internal static class StoredStock
{
    public static IReadOnlyList<StockLine> Lines(IEnumerable<StockRow> rows) =>
        [.. rows.Select(r => ItemOf(r) is { } item ? new StockLine(item, r.Count) : null).OfType<StockLine>()];

    public static StockRow RowOf(ClassId classId, StockLine line) =>
        new()
        {
            ClassId = classId.Value,
            Item = line.Item.Id.Value,
            Count = line.Count,
            Own = CupboardCatalogue.Shipped.Find(line.Item.Id) is not null
                ? null
                : new OwnKind
                {
                    Name = line.Item.Name,
                    Purpose = line.Item.Purpose,
                    Shape = line.Item.Shape,
                    Colour = line.Item.Colour,
                    Material = line.Item.Material,
                    Size = [.. line.Item.Size],
                    Contains = [.. line.Item.Contains],
                    Hazards = [.. line.Item.Hazards],
                },
        };

    private static CupboardItem? ItemOf(StockRow row) =>
        CupboardCatalogue.Shipped.Find(new(row.Item))
        ?? (
            row.Own is { } own
                ? new CupboardItem(new(row.Item), own.Name, own.Purpose, own.Size, own.Shape, own.Colour, own.Material, own.Contains, own.Hazards, false, 0)
                {
                    Own = true,
                }
                : null
        );
}
