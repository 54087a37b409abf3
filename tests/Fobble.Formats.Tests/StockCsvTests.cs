using System.Text;
using Fobble.Core.Cupboard;
using Fobble.Formats.Cupboards;

namespace Fobble.Formats.Tests;

/// <summary>The cupboard as CSV (RFC 4180) and back.</summary>
public class StockCsvTests
{
    private static readonly CupboardItem Lemons = new(
        new("lemons"),
        "Lemons, \"wooden\"",
        Purpose.Counting,
        [55, 40.5, 40],
        ItemShape.Uneven,
        "yellow",
        "wood",
        [Allergen.Nuts, Allergen.Latex],
        [Hazard.Trip],
        false,
        0
    );

    private static StockReading Read(string csv) => StockCsv.Read(Encoding.UTF8.GetBytes(csv));

    [Fact]
    public void Everything_is_read_back()
    {
        List<StockLine> stock = [.. CupboardCatalogue.Shipped.Items.Select((item, i) => new StockLine(item, i)), new(Lemons, 18)];
        var reading = Read(StockCsv.Write(stock));
        reading.Faults.ShouldBeEmpty();
        reading.Lines.Select(l => (l.Item.Id, l.Count)).ShouldBe(stock.Select(l => (l.Item.Id, l.Count)));
        var own = reading.Lines[^1].Item;
        (own.Name, own.Purpose, own.Shape, own.Colour, own.Material).ShouldBe((Lemons.Name, Lemons.Purpose, Lemons.Shape, Lemons.Colour, Lemons.Material));
        own.Size.ShouldBe(Lemons.Size);
        own.Contains.ShouldBe(Lemons.Contains);
        own.Hazards.ShouldBe(Lemons.Hazards);
    }

    [Fact]
    public void A_kind_that_ships_needs_its_name_and_count_only_and_a_semicolon_will_do() =>
        Read("item;count\r\nbell;2\r\ndrum;0").Lines.Select(l => (l.Item.Name, l.Count)).ShouldBe([("Bell", 2), ("Drum", 0)]);

    [Theory]
    [InlineData("Item,Count\nbell,many", 2, "Count", "“many” is no number")]
    [InlineData("Item,Count\nbell,-1", 2, "Count", "“-1” is no number")]
    [InlineData("Item,Count\nbell,1.5", 2, "Count", "“1.5” is no number")]
    [InlineData("Item,Count\nbell,1\nbell,2", 3, "Item", "in the file already")]
    [InlineData("Item,Count\ngong,1", 2, "Name", "kind of your own")]
    [InlineData("Item,Name,Purpose,Count\ngong,Gong,Noise,1", 2, "Purpose", "“Noise” is none of")]
    [InlineData("Item,Name,Purpose,Count\ngong,Gong,7,1", 2, "Purpose", "“7” is none of")]
    [InlineData("Item,Name,Purpose,Count,Contains\ngong,Gong,Sound,1,Gluten; Dust", 2, "Contains", "“Dust” is none of")]
    [InlineData("Item,Name,Purpose,Count,Length mm\ngong,Gong,Sound,1,long", 2, "Length mm", "“long” is no number")]
    [InlineData("Thing,Count\nbell,1", 1, null, "no column “Item”")]
    [InlineData("", 1, null, "empty")]
    public void A_fault_names_line_column_and_reason(string csv, int row, string? column, string reason)
    {
        var reading = Read(csv);
        var fault = reading.Faults.First(f => f.Reason.Contains(reason, StringComparison.Ordinal));
        (fault.Row, fault.Column).ShouldBe((row, column));
    }
}
