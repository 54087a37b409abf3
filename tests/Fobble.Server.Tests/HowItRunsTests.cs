using Fobble.Server.Features.WholeSchool;
using Fobble.Server.Hosting;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>Whoever leads the school sees whether the machine is well, and nobody else does.</summary>
public sealed class HowItRunsTests : IDisposable
{
    private const string Running = "/api/school/running";
    private readonly School _school = new();
    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("fobble-running-");

    public void Dispose()
    {
        _school.Dispose();
        _folder.Delete(recursive: true);
    }

    private BackupSettings Backup => _school.Services.GetRequiredService<FobbleSettings>().Backup;

    [Fact]
    public async Task Without_a_place_for_backups_that_is_said_and_none_can_be_taken()
    {
        var head = await _school.ComeInAsAsync("ines");
        var view = await head.ReadAsync<RunningView>(Running);
        (view.BackupsOn, view.LastBackup, view.Faults.Count).ShouldBe((false, null, 0));
        view.FreeGigabytes.ShouldBeGreaterThan(0);
        (await Visitor.SaysAsync(await head.PostAsync($"{Running}/backup"))).ShouldContain("not said yet where backups go");
    }

    [Fact]
    public async Task One_is_taken_by_a_press_and_leaves_a_trace()
    {
        (Backup.Folder, Backup.Passphrase) = (_folder.FullName, "seven lanterns in fog");
        var head = await _school.ComeInAsAsync("ines");
        (await head.PostAsync($"{Running}/backup")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        (await head.ReadAsync<RunningView>(Running)).LastBackup.ShouldNotBeNull();
        Directory.GetFiles(_folder.FullName).ShouldHaveSingleItem();
        (await head.ReadAsync<TracesView>("/api/school/traces")).Newest[0].What.ShouldBe("had a backup taken");
        (await (await _school.ComeInAsAsync("tomasz")).GetAsync(Running)).StatusCode.ShouldBe(HttpStatusCode.Forbidden);
    }

    [Fact]
    public async Task One_that_cannot_be_taken_is_told_with_its_reason()
    {
        var file = Path.Combine(_folder.FullName, "a-file");
        await File.WriteAllTextAsync(file, "");
        (Backup.Folder, Backup.Passphrase) = (file, "seven lanterns in fog");
        var head = await _school.ComeInAsAsync("ines");
        var refused = await head.PostAsync($"{Running}/backup");
        refused.StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await Visitor.SaysAsync(refused)).ShouldContain("could not be taken");
        (await head.ReadAsync<RunningView>(Running)).BackupFault.ShouldNotBeNull();
    }

    [Fact]
    public void Faults_of_the_week_are_the_newest_hundred()
    {
        StandingClock clock = new("2026-11-25T08:00");
        RecentFaults faults = new(clock);
        faults.Add("old");
        clock.Goes("2026-12-01T08:00");
        for (var i = 0; i < 30; i++)
        {
            faults.Add($"{i}");
        }

        faults.OfTheWeek().Select(f => f.Id).ShouldBe([.. Enumerable.Range(0, 30).Reverse().Select(i => $"{i}"), "old"]);
        clock.Goes("2026-12-03T08:00");
        faults.OfTheWeek().Count.ShouldBe(30);
        for (var i = 0; i < 200; i++)
        {
            faults.Add($"more {i}");
        }

        faults.OfTheWeek().Count.ShouldBe(100);
    }
}
