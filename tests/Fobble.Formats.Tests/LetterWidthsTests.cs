using Fobble.Core.Sheets;
using Fobble.Formats.Print;

namespace Fobble.Formats.Tests;

public class LetterWidthsTests
{
    [Theory]
    [InlineData("Anton  ·  Jonas  ·  Sorcha  ·  Vera")]
    [InlineData("09:40 Ines Okonjo, Window table: “Touch each to ten” with Edie M., Farah J. and Kofi M. – 39 yellow counters…")]
    [InlineData("WILLOW, MAMMOTH & Wyvern @ 100 % (a + b = c; d < e > f) [x] {y} ~ z?")]
    [InlineData("Zoë Ångström, Łukasz Żółć, Nguyễn Thị Hường, Şeyma Ğ., Ýmir, ßæœ")]
    [InlineData("Ганна Шевченко Щедрий Ζωή Παππά")]
    [InlineData("مريم الخطيب 山田太郎 김민준 ශ්‍රී පෙරේරා กานต์ ศรีสุข श्रीदेवी வாணிஸ்ரீ")]
    public void A_line_is_never_wider_on_paper_than_it_is_said_to_be(string line) =>
        TextRun.Of(line).Sum(r => r.WidthAt(1)).ShouldBeLessThanOrEqualTo((float)LetterWidths.Of(line) + 0.01f);

    [Fact]
    public void Nor_much_narrower_where_the_letters_are_ours()
    {
        const string Line = "To give just as many as you ask for, up to ten.";
        (TextRun.Of(Line).Sum(r => r.WidthAt(1)) / LetterWidths.Of(Line)).ShouldBeGreaterThan(0.97);
    }
}
