using Fobble.Core.Numbers;

namespace Fobble.Core.Tests.Numbers;

/// <summary>The class's words in the texts of the content.</summary>
public class WordingTests
{
    private static readonly Wording British = new(OnesWord.Units, FewerWord.Less, TakeWord.Subtract, SentenceWord.Equation, YearWord.Reception);

    [Theory]
    [InlineData("Which has {fewer}?", "Which has fewer?", "Which has less?")]
    [InlineData("{ones} to {ones}", "Ones to ones", "Units to units")]
    [InlineData("{takeAway}", "take away", "subtract")]
    [InlineData("Write a {sentence}.", "Write a number sentence.", "Write an equation.")]
    [InlineData("The {sentence} agrees.", "The number sentence agrees.", "The equation agrees.")]
    [InlineData("one {one}, this {year}", "one one, this kindergarten", "one unit, this reception")]
    [InlineData("Nothing to fill in", "Nothing to fill in", "Nothing to fill in")]
    public void Open_places_are_filled_with_the_words_of_the_class(string text, string usual, string british)
    {
        Wording.Usual.Say(text).ShouldBe(usual);
        British.Say(text).ShouldBe(british);
    }

    [Fact]
    public void A_sum_is_a_sum() => new Wording(Sentence: SentenceWord.Sum).Say("Finish a {sentence}").ShouldBe("Finish a sum");
}
