using Fobble.Core.Cupboard;
using Fobble.Data;
using Fobble.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Cupboard;

/// <summary>What a class owns: kinds that ship and kinds of its own, with their counts.</summary>
internal sealed class CupboardReader(FobbleDb db)
{
    public async Task<IReadOnlyList<StockLine>> StockAsync(int classId, CancellationToken stop)
    {
        var rows = await db.Stock.AsNoTracking().Where(s => s.ClassId == classId).OrderBy(s => s.Item).ToListAsync(stop);
        return [.. rows.Select(r => ItemOf(r) is { } item ? new StockLine(item, r.Count) : null).OfType<StockLine>()];
    }

    public static StockRow RowOf(int classId, StockLine line) => new()
    {
        ClassId = classId,
        Item = line.Item.Id.Value,
        Count = line.Count,
        Own = CupboardCatalogue.Shipped.Find(line.Item.Id) is not null ? null : new OwnKind
        {
            Name = line.Item.Name, Purpose = line.Item.Purpose, Shape = line.Item.Shape, Colour = line.Item.Colour, Material = line.Item.Material,
            Size = [.. line.Item.Size], Contains = [.. line.Item.Contains], Hazards = [.. line.Item.Hazards],
        },
    };

    private static CupboardItem? ItemOf(StockRow row) => CupboardCatalogue.Shipped.Find(new(row.Item))
        ?? (row.Own is { } own ? new CupboardItem(new(row.Item), own.Name, own.Purpose, own.Size, own.Shape, own.Colour, own.Material, own.Contains, own.Hazards, false, 0) : null);
}
