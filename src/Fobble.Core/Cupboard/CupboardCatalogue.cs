namespace Fobble.Core.Cupboard;

/// <summary>The kinds of things that activities ask for and classes own (Cupboard/Content).</summary>
public sealed class CupboardCatalogue
{
    private readonly Dictionary<ItemId, CupboardItem> _items;

    /// <exception cref="RefusedException">An id is there twice.</exception>
    public CupboardCatalogue(IReadOnlyList<CupboardItem> items)
    {
        ArgumentNullException.ThrowIfNull(items);
        if (items.GroupBy(i => i.Id).FirstOrDefault(g => g.Count() > 1) is { } twice)
        {
            throw new RefusedException("item", Phrase($"The item '{twice.Key}' is there twice."));
        }

        Items = items;
        _items = items.ToDictionary(i => i.Id);
    }

    public static CupboardCatalogue Shipped { get; } = Load(ContentFile.In("Cupboard/Content"));

    public IReadOnlyList<CupboardItem> Items { get; }

    /// <exception cref="KeyNotFoundException">There is no such item.</exception>
    public CupboardItem this[ItemId id] => Find(id) ?? throw new KeyNotFoundException($"There is no item '{id}' in the cupboard.");

    public CupboardItem? Find(ItemId id) => _items.GetValueOrDefault(id);

    /// <exception cref="RefusedException">A file can't be read or a field is missing; says which.</exception>
    public static CupboardCatalogue Load(IEnumerable<(string Name, string Text)> files) =>
        new([.. files.SelectMany(f => ContentFile.Read<List<ItemEntry>>(f.Name, f.Text)).Select(ToItem)]);

    private static CupboardItem ToItem(ItemEntry entry)
    {
        var id =
            entry.Id.Length > 0 && entry.Name.Length > 0
                ? entry.Id
                : throw new RefusedException("item", Phrase($"An item of the cupboard lacks id or name: '{entry.Id}{entry.Name}'."));
        return new(
            new(id),
            entry.Name,
            ContentFile.Word<Purpose>(id, entry.Purpose),
            entry.Size,
            ContentFile.Word<ItemShape>(id, entry.Shape),
            entry.Colour,
            entry.Material,
            [.. entry.Contains.Select(a => ContentFile.Word<Allergen>(id, a))],
            [.. entry.Hazards.Select(h => ContentFile.Word<Hazard>(id, h))],
            entry.UsedUp,
            entry.Prepare
        );
    }

#pragma warning disable CA1812 // Made by the YAML reader.
    internal sealed record ItemEntry
    {
        public string Id { get; init; } = "";

        public string Name { get; init; } = "";

        public string Purpose { get; init; } = "";

        public List<double> Size { get; init; } = [];

        public string Shape { get; init; } = "flat";

        public string Colour { get; init; } = "";

        public string Material { get; init; } = "";

        public List<string> Contains { get; init; } = [];

        public List<string> Hazards { get; init; } = [];

        public bool UsedUp { get; init; }

        public int Prepare { get; init; }
    }
#pragma warning restore CA1812
}
