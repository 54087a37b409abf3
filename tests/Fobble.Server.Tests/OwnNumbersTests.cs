using Fobble.Core.Approaches;
using Fobble.Server.Features.ClassApproach;

namespace Fobble.Server.Tests;

/// <summary>A class's own numbers: worked out from its record, taken and taken back.</summary>
public sealed class OwnNumbersTests : IDisposable
{
    private const string Numbers = "/api/classes/1/own-numbers";
    private readonly School _school = new();

    public void Dispose() => _school.Dispose();

    [Fact]
    public async Task They_are_taken_only_where_they_foresee_better_and_can_be_taken_back()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var found = await ines.ReadAsync<OwnNumbersView>(Numbers);
        found.InUse.ShouldBeFalse();
        found.Sentences.ShouldNotBeEmpty();
        var answer = await ines.SendAsync(HttpMethod.Put, Numbers);
        answer.StatusCode.ShouldBe(found.Better ? HttpStatusCode.OK : HttpStatusCode.BadRequest);
        (await ines.ReadAsync<OwnNumbersView>(Numbers)).InUse.ShouldBe(found.Better);
        (await ines.SendAsync(HttpMethod.Delete, Numbers)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.ReadAsync<OwnNumbersView>(Numbers)).InUse.ShouldBeFalse();
    }

    [Fact]
    public async Task A_class_with_numbers_of_its_own_is_judged_by_them()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var before = await GridAsync();
        using (var scope = _school.Scope())
        {
            var db = _school.Db(scope);
            var own = db.Classes.Single(c => c.Id == 1);
            (own.OwnGuess, own.OwnSlip, own.OwnLearning) = (0.3, 0.1, 0.06);
            await db.SaveChangesAsync();
        }

        (await GridAsync()).ShouldNotBe(before);
        (await ines.SendAsync(HttpMethod.Delete, Numbers)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await GridAsync()).ShouldBe(before);

        async Task<string> GridAsync() => await (await ines.GetAsync("/api/classes/1/grid")).Content.ReadAsStringAsync();
    }

    [Fact]
    public async Task Only_who_leads_the_class_looks_at_them()
    {
        var tomasz = await _school.ComeInAsAsync("tomasz");
        (await tomasz.GetAsync(Numbers)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task What_an_answer_means_is_said_in_numbers_of_the_core()
    {
        var view = await (await _school.ComeInAsAsync("ines")).ReadAsync<ApproachView>("/api/classes/1/approach");
        view.Means.Single(m => m.Question == "fading" && m.Answer == $"{Fading.Never}").Means.ShouldStartWith("Time alone never");
        view.Means.Count(m => m.Question == "secure").ShouldBe(3);
    }
}
