using Fobble.Core.Activities;
using Fobble.Server.Features.Account;
using Fobble.Server.Features.Activities;
using Fobble.Server.Features.SetUp;

namespace Fobble.Server.Tests;

/// <summary>The application speaks as where the school is; who moves hears it from the next request on.</summary>
public sealed class LanguageTests : IDisposable
{
    private readonly School _school = School.Empty();

    public void Dispose() => _school.Dispose();

    [Fact]
    public async Task A_school_that_moves_is_spelled_as_there_and_back_again()
    {
        var lead = await BeginAsync();
        (await SpokenAsync(lead)).ShouldBe("en-GB");
        var before = await TextsAsync(lead);
        before.ShouldContain("colour");

        await MoveAsync(lead, "en-US");
        (await SpokenAsync(lead)).ShouldBe("en-US");
        var there = await TextsAsync(lead);
        there.ShouldNotContain("colour");
        there.ShouldContain("color");

        await MoveAsync(lead, "en-IE");
        (await TextsAsync(lead)).ShouldBe(before, "nothing of the other language is kept");
    }

    [Theory]
    [InlineData("en-GB", "Only nought and twenty hang there.")]
    [InlineData("en-NZ", "Only nought and twenty hang there.")]
    [InlineData("en-US", "Only zero and twenty hang there.")]
    [InlineData("en-CA", "Only zero and twenty hang there.")]
    public async Task None_of_something_is_called_as_where_the_school_is(string locale, string harder)
    {
        var lead = await BeginAsync();
        await MoveAsync(lead, locale);
        (await lead.ReadAsync<ActivityView>("/api/classes/1/activities/washing-on-the-line")).Harder.ShouldBe(harder);
    }

    [Fact]
    public async Task What_the_school_has_written_is_left_as_it_is()
    {
        var lead = await BeginAsync();
        var written = await lead.ReadAsync<ActivityEntry>("/api/classes/1/activities/shake-and-spill/written");
        (
            await lead.PutAsync("/api/classes/1/activities/own-spill", written with { Id = "own-spill", Name = "Colours we spill" })
        ).IsSuccessStatusCode.ShouldBeTrue();
        await MoveAsync(lead, "en-US");
        var own = await lead.ReadAsync<ActivityView>("/api/classes/1/activities/own-spill");
        own.Name.ShouldBe("Colours we spill");
        string.Join(' ', own.Steps).ShouldContain("colour");
    }

    // One after the other in no order: each answer is of one language, that of the moment in which it was asked.
    [Fact]
    public async Task Those_who_ask_while_it_moves_hear_one_language_each()
    {
        var lead = await BeginAsync();
        var asked = Enumerable.Range(0, 24).Select(_ => TextsAsync(lead)).ToList();
        await MoveAsync(lead, "en-US");
        asked.AddRange(Enumerable.Range(0, 24).Select(_ => TextsAsync(lead)));
        foreach (var texts in await Task.WhenAll(asked))
        {
            (texts.Contains("colour", StringComparison.Ordinal) && texts.Contains("color ", StringComparison.Ordinal)).ShouldBeFalse();
        }
    }

    private static async Task<string> SpokenAsync(Visitor lead) => (await lead.ReadAsync<AccountState>("/api/account")).Language;

    private static async Task MoveAsync(Visitor lead, string locale) =>
        (await lead.PutAsync("/api/classes/1/school", new SchoolPlace("Europe/London", locale))).StatusCode.ShouldBe(HttpStatusCode.NoContent);

    private static async Task<string> TextsAsync(Visitor lead)
    {
        var activity = await lead.ReadAsync<ActivityView>("/api/classes/1/activities/shake-and-spill");
        return string.Join(' ', activity.Steps);
    }

    private async Task<Visitor> BeginAsync()
    {
        var lead = await _school.VisitAsync();
        (await lead.PostAsync("/api/account/first-start", FirstHourTests.Lead)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await lead.StateAsync();
        await lead.PostCsvAsync("/api/classes/1/class-list", "First name,Last name,Born\nAna,Silva,2022-01-05\nBo,Lund,2022-03-05\n");
        return lead;
    }
}
