using System.Globalization;

namespace Fobble.Core.Tests;

public class WordsTests
{
    [Theory]
    [InlineData("en-GB", "9:40", "13:15", "0:05")]
    [InlineData("en-IE", "9:40", "13:15", "0:05")]
    [InlineData("en-US", "9:40 AM", "1:15 PM", "12:05 AM")]
    [InlineData("en-AU", "9:40 am", "1:15 pm", "12:05 am")]
    public void A_time_is_told_by_the_clock_of_the_country(string locale, string morning, string afternoon, string night)
    {
        var before = CultureInfo.CurrentUICulture;
        try
        {
            CultureInfo.CurrentUICulture = CultureInfo.GetCultureInfo(locale);
            new[] { Words.Clock(new(9, 40)), Words.Clock(new(13, 15)), Words.Clock(new(0, 5)) }
                .Select(t => t.Replace('\u00A0', ' '))
                .ShouldBe([morning, afternoon, night]);
        }
        finally
        {
            CultureInfo.CurrentUICulture = before;
        }
    }
}
