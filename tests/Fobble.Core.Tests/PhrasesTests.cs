using System.Globalization;
using Fobble.Core.Numbers;

namespace Fobble.Core.Tests;

public sealed class PhrasesTests : IDisposable
{
    private readonly CultureInfo _before = CultureInfo.CurrentUICulture;

    public void Dispose() => CultureInfo.CurrentUICulture = _before;

    [Fact]
    public void A_sentence_is_its_own_English()
    {
        Assert.Equal("Ana B. is ready for count on", Sentence("Ana B.", "count on"));
        Assert.Equal("Nothing stands in the way.", Phrase("Nothing stands in the way."));
    }

    [Fact]
    public void Another_language_may_change_the_order_and_keeps_what_it_does_not_have()
    {
        Speak("qaa", new() { ["{0} is ready for {1}"] = "{1}: {0}", ["are"] = "zijn" });

        var are = Words.Capital("are").ToLowerInvariant();
        Assert.Equal("count on: Ana B.", Sentence("Ana B.", "count on"));
        Assert.Equal("Not in it.", Phrase("Not in it."));
        Assert.Equal("Both zijn here", Phrase($"Both {are} here"));
    }

    [Fact]
    public void A_piece_of_a_sentence_keeps_the_room_around_it()
    {
        Speak("qab", new() { ["Since then {0}."] = "Sinds {0}." });

        Assert.Equal(" Sinds Monday. ", Phrase($" Since then {Words.Weekday(new(2026, 11, 23))}. "));
    }

    // What is filled in is a name, or a text of the school: a name that looks like a place to fill in, or like a word that is spelled otherwise, stays as it is.
    [Fact]
    public void What_is_filled_in_is_not_looked_into()
    {
        Speak("en-QM", new() { ["colour"] = "color", ["maths"] = "math" });

        Assert.Equal("{1} is ready for Maths Colour", Sentence("{1}", "Maths Colour"));
        Assert.Equal("Color and math, colourful", Phrase("Colour and maths, colourful"));
        Assert.Equal("The color of {0}. and 7", Phrase($"The colour of {Words.Stopped("{0}")} and {7}"));
    }

    [Fact]
    public void The_trial_brackets_and_lengthens()
    {
        CultureInfo.CurrentUICulture = CultureInfo.GetCultureInfo(Phrases.Trial);

        Assert.Matches("^⟦Ana B. is ready for count on ~+( ~+)*⟧$", Sentence("Ana B.", "count on"));
    }

    [Theory]
    [InlineData("", "25 November")]
    [InlineData("en-GB", "25 November")]
    [InlineData("en-US", "November 25")]
    public void A_day_is_said_in_the_order_of_the_country(string culture, string said)
    {
        CultureInfo.CurrentUICulture = CultureInfo.GetCultureInfo(culture);

        Assert.Equal(said, Words.Date(new(2026, 11, 25)));
    }

    [Fact]
    public void A_number_over_a_hundred_takes_an_and_where_the_language_has_one()
    {
        Assert.Equal("one hundred and one", NumberWords.Of(101));

        Speak("qac", new() { ["{0} hundred and {1}"] = "{0} hundred {1}" });
        Assert.Equal("one hundred one", NumberWords.Of(101));
        Assert.Equal("one hundred", NumberWords.Of(100));
        Assert.Equal("ninety-nine", NumberWords.Of(99));
    }

    [Fact]
    public async Task Two_who_ask_at_once_each_hear_their_own()
    {
        Learn("qad", new Dictionary<string, string> { ["Look again"] = "one" });
        Learn("qae", new Dictionary<string, string> { ["Look again"] = "two" });

        var said = await Task.WhenAll(
            Enumerable
                .Range(0, 200)
                .Select(i =>
                    Task.Run(async () =>
                    {
                        CultureInfo.CurrentUICulture = new(i % 2 == 0 ? "qad" : "qae");
                        await Task.Yield();
                        return Phrase("Look again");
                    })
                )
        );

        Assert.All(said.Index(), s => Assert.Equal(s.Index % 2 == 0 ? "one" : "two", s.Item));
    }

    private static string Sentence(string name, string skill) => Phrase($"{name} is ready for {skill}");

    private static void Speak(string tag, Dictionary<string, string> texts)
    {
        Learn(tag, texts);
        CultureInfo.CurrentUICulture = new(tag);
    }
}
