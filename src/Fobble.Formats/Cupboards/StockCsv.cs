using System.Globalization;
using Fobble.Core.Cupboard;
using Fobble.Formats.Csv;

namespace Fobble.Formats.Cupboards;

/// <summary>What a file of stock says. It can be taken only when it has no fault.</summary>
public sealed record StockReading(IReadOnlyList<StockLine> Lines, IReadOnlyList<FileFault> Faults, IReadOnlyList<string> Notes);

/// <summary>The cupboard as CSV: a line a kind of thing, to be counted with the file printed out and sent back.</summary>
public static class StockCsv
{
    public const int MostOfAKind = 5000;
    private const string List = "; ";
    private static readonly string[] Headings =
    [
        "Item",
        "Name",
        "Purpose",
        "Count",
        "Length mm",
        "Width mm",
        "Height mm",
        "Shape",
        "Colour",
        "Material",
        "Contains",
        "Dangers",
    ];

    public static string Write(IEnumerable<StockLine> stock) => CsvTable.Write([Headings, .. stock.Select(RowOf)]);

    /// <summary>Reads it back. A kind that ships needs its item and count only; others need name and purpose as well.</summary>
    public static StockReading Read(byte[] file)
    {
        var table = CsvTable.Read(file);
        if (table.Rows.Count == 0)
        {
            return new([], table.Faults.Count > 0 ? table.Faults : [new(1, null, Phrase("The file is empty."))], table.Notes);
        }

        if (table.Lacks("Item", "Count") is { Count: > 0 } lacks)
        {
            return new(
                [],
                [.. table.Faults, new(table.Rows[0].Line, null, Phrase($"There is no column {string.Join(" and no column ", lacks.Select(h => $"“{h}”"))}."))],
                table.Notes
            );
        }

        List<StockLine> lines = [];
        HashSet<ItemId> named = [];
        foreach (var row in table.Lines())
        {
            var before = table.Faults.Count;
            var item = ItemOf(table, row);
            var count = Number(table, row, "Count", 0, MostOfAKind);
            if (item is not null && !named.Add(item.Id))
            {
                table.Faults.Add(new(row.Line, "Item", Phrase($"“{table.Field(row, "Item")}” is in the file already.")));
            }

            if (table.Faults.Count == before)
            {
                lines.Add(new(item!, (int)count!.Value));
            }
        }

        return new(lines, table.Faults, table.Notes);
    }

    private static string[] RowOf(StockLine line)
    {
        var item = line.Item;
        string Side(int i) => i < item.Size.Count ? item.Size[i].ToString(CultureInfo.InvariantCulture) : "";
        return
        [
            item.Id.Value,
            item.Name,
            $"{item.Purpose}",
            line.Count.ToString(CultureInfo.InvariantCulture),
            Side(0),
            Side(1),
            Side(2),
            $"{item.Shape}",
            item.Colour,
            item.Material,
            string.Join(List, item.Contains),
            string.Join(List, item.Hazards),
        ];
    }

    private static CupboardItem? ItemOf(CsvTable table, (int Line, IReadOnlyList<string> Fields) row)
    {
        var id = table.Field(row, "Item").Trim();
        if (CupboardCatalogue.Shipped.Find(new(id)) is { } known)
        {
            return known;
        }

        if (id.Length is 0 or > 60)
        {
            table.Faults.Add(
                new(row.Line, "Item", id.Length == 0 ? Phrase("The item is missing.") : Phrase("The item’s short name has more than 60 letters."))
            );
            return null;
        }

        var name = table.Field(row, "Name");
        if (name.Length is 0 or > 80)
        {
            table.Faults.Add(
                new(
                    row.Line,
                    "Name",
                    name.Length == 0 ? Phrase($"“{id}” is a kind of your own; give it a name.") : Phrase("The name has more than 80 letters.")
                )
            );
        }

        var sides = ((string[])["Length mm", "Width mm", "Height mm"])
            .Where(h => table.Field(row, h).Length > 0)
            .Select(h => Number(table, row, h, 0.1, 5000))
            .OfType<double>()
            .ToList();
        var purpose = table.Word<Purpose>(row, "Purpose", table.Field(row, "Purpose"));
        var shape = table.Field(row, "Shape") is { Length: > 0 } text ? table.Word<ItemShape>(row, "Shape", text) : ItemShape.Uneven;
        return new(
            new(id),
            name,
            purpose ?? default,
            sides,
            shape ?? default,
            table.Field(row, "Colour"),
            table.Field(row, "Material"),
            Words<Allergen>(table, row, "Contains"),
            Words<Hazard>(table, row, "Dangers"),
            false,
            0
        );
    }

    private static double? Number(CsvTable table, (int Line, IReadOnlyList<string> Fields) row, string heading, double least, double most)
    {
        var text = table.Field(row, heading).Replace(',', '.');
        if (
            double.TryParse(text, NumberStyles.AllowDecimalPoint, CultureInfo.InvariantCulture, out var number)
            && number >= least
            && number <= most
            && (heading != "Count" || number == Math.Floor(number))
        )
        {
            return number;
        }

        table.Faults.Add(
            new(
                row.Line,
                heading,
                Phrase($"“{text}” is no number from {least.ToString(CultureInfo.InvariantCulture)} to {most.ToString(CultureInfo.InvariantCulture)}.")
            )
        );
        return null;
    }

    private static List<T> Words<T>(CsvTable table, (int Line, IReadOnlyList<string> Fields) row, string heading)
        where T : struct, Enum =>
        [
            .. table
                .Field(row, heading)
                .Split(';', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries)
                .Select(w => table.Word<T>(row, heading, w))
                .OfType<T>(),
        ];
}
