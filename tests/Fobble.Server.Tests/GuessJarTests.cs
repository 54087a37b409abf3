using Fobble.Core.GuessJar;
using Fobble.Server.Features.GuessJar;
using Fobble.Server.Features.Today;

namespace Fobble.Server.Tests;

/// <summary>The weekly jar over the wire: filled, guessed at, opened, put away.</summary>
public sealed class GuessJarTests : IDisposable
{
    private const string Jar = "/api/classes/1/jar";
    private static readonly JarFilling Beads = new("tall jar", 1000, "wooden beads", ThingShape.Ball, 20, 20, 42);
    private readonly School _school = new();

    public void Dispose() => _school.Dispose();

    [Fact]
    public async Task A_jar_is_guessed_at_opened_and_counted_and_the_nearest_are_named()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var page = await ines.ReadAsync<JarPage>(Jar);
        var (round, children) = (page.Open!, page.Children);
        page.Days.Count.ShouldBe(5);
        children.ShouldAllBe(c => c.Errors.Count == 5);
        (await ines.ReadAsync<TodayView>("/api/classes/1/days/2026-11-25")).Jar.ShouldBe("8 of 26 have guessed how many wooden beads are in the tall jar.");

        var (near, far) = (children[^1], children[^2]);
        await GuessAsync(ines, round.Id, far.Id, 90);
        await GuessAsync(ines, round.Id, near.Id, 50);
        await GuessAsync(ines, round.Id, near.Id, 41);
        (await ines.PostAsync($"{Jar}/{round.Id}/open", new JarCount(41))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        var opened = await ines.ReadAsync<JarPage>(Jar);
        opened.Open.ShouldBeNull();
        opened.Last!.Nearest.ShouldContain(near.Name);
        opened.Last.HeapsInWords.ShouldBe("4 heaps of ten and 1");
        opened.Children.Single(c => c.Id == near.Id).Errors[^1].ShouldBe(0);
        opened.Proposal.Amount.ShouldBe(46);
        (await Visitor.SaysAsync(await ines.PutAsync($"{Jar}/{round.Id}/guesses/{near.Id}", new GuessSaid(3)))).ShouldContain("its guesses stay as they are");
        (await Visitor.SaysAsync(await ines.PostAsync($"{Jar}/{round.Id}/open", new JarCount(44)))).ShouldContain("opened already");
        (await ines.PostAsync(Jar, Beads)).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.ReadAsync<JarPage>(Jar)).Open!.Amount.ShouldBe(42);
    }

    [Fact]
    public async Task What_cannot_be_is_refused_and_changes_nothing()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var page = await ines.ReadAsync<JarPage>(Jar);
        var (round, child) = (page.Open!.Id, page.Children[0].Id);
        (await Visitor.SaysAsync(await ines.PostAsync(Jar, Beads))).ShouldContain("stands out already");
        (await Visitor.SaysAsync(await ines.PutAsync($"{Jar}/{round}/guesses/{child}", new GuessSaid(0)))).ShouldContain("from 1 to 999");
        (await Visitor.SaysAsync(await ines.PostAsync($"{Jar}/{round}/open", new JarCount(0)))).ShouldContain("Count 1 to 300");
        using var scope = _school.Scope();
        var other = _school.Db(scope).Children.First(c => c.ClassId == 2).Id;
        (await ines.PutAsync($"{Jar}/{round}/guesses/{other}", new GuessSaid(5))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var alders = _school.Db(scope).JarRounds.First(r => r.ClassId == 2).Id;
        (await ines.PutAsync($"{Jar}/{alders}/guesses/{child}", new GuessSaid(5))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await ines.PostAsync($"{Jar}/{alders}/open", new JarCount(5))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        var after = await ines.ReadAsync<JarPage>(Jar);
        after.Open!.Guesses.ShouldBe(page.Open.Guesses);
    }

    [Fact]
    public async Task A_guess_can_be_taken_back()
    {
        var tomasz = await _school.ComeInAsAsync("tomasz");
        var round = (await tomasz.ReadAsync<JarPage>(Jar)).Open!;
        await GuessAsync(tomasz, round.Id, round.Guesses[0].ChildId, null);
        (await tomasz.ReadAsync<JarPage>(Jar)).Open!.Guesses.Count.ShouldBe(round.Guesses.Count - 1);
    }

    [Fact]
    public async Task The_jar_rests_for_four_weeks_and_comes_back_by_the_leads_word_only()
    {
        var (ines, tomasz) = (await _school.ComeInAsAsync("ines"), await _school.ComeInAsAsync("tomasz"));
        var round = (await ines.ReadAsync<JarPage>(Jar)).Open!.Id;
        await ines.PostAsync($"{Jar}/{round}/open", new JarCount(37));
        (await tomasz.PostAsync($"{Jar}/rest")).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
        (await ines.PostAsync($"{Jar}/rest")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.ReadAsync<JarPage>(Jar)).RestsUntil.ShouldBe(School.Today.AddDays(28));
        (await ines.ReadAsync<TodayView>("/api/classes/1/days/2026-11-25")).Jar.ShouldBe("The jar rests until about 23 December.");
        (await ines.SendAsync(HttpMethod.Delete, $"{Jar}/rest")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await ines.ReadAsync<JarPage>(Jar)).RestsUntil.ShouldBeNull();
    }

    private static async Task GuessAsync(Visitor adult, int round, int child, int? guess) =>
        (await adult.PutAsync($"{Jar}/{round}/guesses/{child}", new GuessSaid(guess))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
}
