using Fobble.Core.Activities;
using Fobble.Core.ItemSets;
using Fobble.Core.Numbers;

namespace Fobble.Core.Tests.ItemSets;

/// <summary>A case is written and read in one place, so that what an observation keeps is what was asked.</summary>
public class ItemCaseTests
{
    [Fact]
    public void Every_case_of_every_kind_is_read_as_it_was_written()
    {
        var asked = ActivityLoader.AsWritten.SelectMany(a => a.Skills).Select(s => (s.Items, s.Range)).Distinct().ToList();
        asked.Select(a => a.Items).Distinct().Count().ShouldBeGreaterThan(50);
        foreach (var (kind, range) in asked)
        {
            foreach (var item in ItemCases.All(kind, range, 1))
            {
                var read = ItemCase.Read(item.Key);
                read.ShouldBe(item.Case, $"{kind} {item.Key}");
                read!.Form.ShouldBe(item.Case.Form, $"{kind} {item.Key}");
                read.Numbers.ShouldBe(item.Case.Numbers);
                item.Key.Length.ShouldBeLessThanOrEqualTo(40, "as long as an observation keeps");
            }
        }
    }

    /// <summary>The forms that records of earlier years hold: none may change.</summary>
    [Theory]
    [InlineData("5=2+3", CaseForm.Parts, "5 = 2 + 3")]
    [InlineData("9=2+3+4", CaseForm.Parts, "9 = 2 + 3 + 4")]
    [InlineData("family:5=2+3", CaseForm.Parts, "5 = 2 + 3")]
    [InlineData("numeral:6", CaseForm.Number, "6")]
    [InlineData("how-many:6", CaseForm.Number, "6")]
    [InlineData("in-10:30", CaseForm.Number, "30")]
    [InlineData("12", CaseForm.Number, "12")]
    [InlineData("4:7", CaseForm.Pair, "4 and 7")]
    [InlineData("take:5-2", CaseForm.Take, "5 − 2")]
    [InlineData("share:12/3", CaseForm.Share, "12 between 3")]
    [InlineData("sums:5=2+3:6=3+3", CaseForm.Sums, "2 + 3 and 3 + 3")]
    public void What_records_hold_is_read_and_said(string text, CaseForm form, string words)
    {
        var read = ItemCase.Read(text)!;
        (read.Form, read.Text, read.InWords()).ShouldBe((form, text, words));
    }

    [Theory]
    [InlineData("")]
    [InlineData("with the red ones")]
    [InlineData("5=2+4")]
    [InlineData("5=2")]
    [InlineData("numeral:")]
    [InlineData("numeral:6;7")]
    [InlineData("take:5-2-1")]
    [InlineData("Numeral:6")]
    [InlineData("numeral:99999999999")]
    [InlineData(null)]
    public void A_teachers_own_words_and_wrong_sums_are_no_case(string? text) => ItemCase.Read(text).ShouldBeNull();

    [Fact]
    public void A_teachers_own_words_stay_as_they_are() => ItemCase.InWords("with the red ones").ShouldBe("with the red ones");

    [Fact]
    public void Spaces_around_signs_are_a_teachers_way_of_writing_the_same() => ItemCase.Read(" 5 = 2 + 3 ").ShouldBe(ItemCase.Of(new Split(2, 3)));

    [Fact]
    public void Only_a_whole_with_two_parts_is_a_bond()
    {
        ItemCase.Read("5=2+3")!.Bond().ShouldBe(new Split(2, 3));
        ItemCase.Read("9=2+3+4")!.Bond().ShouldBeNull();
        ItemCase.Read("family:5=2+3")!.Bond().ShouldBeNull();
        ItemCase.Read("take:5-2")!.Bond().ShouldBeNull();
    }
}
