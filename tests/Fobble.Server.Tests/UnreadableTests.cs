using System.Text;
using Microsoft.AspNetCore.Http;

namespace Fobble.Server.Tests;

/// <summary>What cannot be read at all is refused with its field and a sentence, and changes nothing.</summary>
public class UnreadableTests(School school) : IClassFixture<School>
{
    private const string Approach = "/api/classes/1/approach";

    [Theory]
    [InlineData("kind=Heap&variant=Adding&low=2&high=10&seed=1", "kind", "“Heap” is not something that “kind” can be.")]
    [InlineData("kind=999&variant=Adding&low=2&high=10&seed=1", "kind", "“999” is not something that “kind” can be.")]
    [InlineData("kind=Sentences&variant=Adding&low=two&high=10&seed=1", "low", "“two” is not something that “low” can be.")]
    [InlineData("kind=Sentences&variant=Adding&high=10&seed=1", "low", "“low” is missing.")]
    public async Task An_address_is_refused_with_its_field(string asked, string field, string sentence) =>
        (await ProblemOf(await (await school.ComeInAsAsync("ines")).GetAsync($"/api/classes/1/sheets/made?{asked}"))).ShouldBe((field, sentence));

    [Fact]
    public async Task Where_nothing_says_which_field_it_was_there_is_a_sentence_all_the_same()
    {
        const string Asked = "kind=Sentences&variant=Adding&low=2&high=10&seed=1&on=yesterday";
        var answer = await (await school.ComeInAsAsync("ines")).GetAsync($"/api/classes/1/sheets/made?{Asked}");
        answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await answer.Content.ReadFromJsonAsync<HttpValidationProblemDetails>())!.Detail!.ShouldStartWith("What was sent cannot be read");
    }

    [Theory]
    [InlineData("""{"symbols": 3}""")]
    [InlineData("""{"symbols": "Nev""")]
    [InlineData("[]")]
    [InlineData("")]
    public async Task A_body_is_refused_in_a_sentence_and_changes_nothing(string body)
    {
        var ines = await school.ComeInAsAsync("ines");
        var before = await (await ines.GetAsync(Approach)).Content.ReadAsStringAsync();
        var (field, sentence) = await ProblemOf(await ines.SendAsync(HttpMethod.Patch, Approach, new StringContent(body, Encoding.UTF8, "application/json")));
        field.ShouldNotBeEmpty();
        sentence.ShouldEndWith(".");
        (await (await ines.GetAsync(Approach)).Content.ReadAsStringAsync()).ShouldBe(before);
    }

    private static async Task<(string Field, string Sentence)> ProblemOf(HttpResponseMessage answer)
    {
        answer.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        var problem = (await answer.Content.ReadFromJsonAsync<HttpValidationProblemDetails>())!;
        var (field, sentences) = problem.Errors.ShouldHaveSingleItem();
        problem.Detail.ShouldBe(sentences.ShouldHaveSingleItem());
        return (field, sentences[0]);
    }
}
