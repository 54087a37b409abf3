using Fobble.Data.Backups;
using Fobble.Server.Demo;
using Fobble.Server.Features.ChildPage;
using Fobble.Server.Hosting;
using Fobble.Server.Mail;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>A school that is used is backed up, put back elsewhere, and the same school.</summary>
public sealed class BackupTests : IDisposable
{
    private const string Passphrase = "seven lanterns in fog";
    private const string Class = "/api/classes/1";
    private readonly School _school = new();
    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("fobble-backup-");

    private static CancellationToken Stop => TestContext.Current.CancellationToken;

    public BackupTests()
    {
        var settings = _school.Services.GetRequiredService<FobbleSettings>();
        settings.Backup.Folder = Path.Combine(_folder.FullName, "backups");
        settings.Backup.Passphrase = Passphrase;
    }

    // Some time before eight in the morning, wherever the tests run.
    private static DateTimeOffset Before(TimeSpan eight)
    {
        var local = School.Today.ToDateTime(new(8, 0)) - eight;
        return new DateTimeOffset(local, TimeZoneInfo.Local.GetUtcOffset(local)).ToUniversalTime();
    }

    public void Dispose()
    {
        _school.Dispose();
        _folder.Delete(recursive: true);
    }

    private Backups Backups => _school.Services.GetRequiredService<Backups>();

    private async Task<School> PutBackAsync(string file)
    {
        // By the command, on a server whose data folder is empty.
        var into = Path.Combine(_folder.FullName, Guid.NewGuid().ToString("N"));
        ServiceCollection services = new();
        FobbleSettings settings = new() { Data = into };
        settings.Backup.Passphrase = Passphrase;
        services.AddSingleton(settings);
        await using var provider = services.BuildServiceProvider();
        StringWriter said = new();
        (await BackupCommands.PutBackAsync(provider, file, said)).ShouldBe(0, said.ToString());
        return School.On(into);
    }

    private static async Task<string> WholeAsync(Visitor visitor, string page)
    {
        var answer = await visitor.GetAsync(page);
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, page);
        return await answer.Content.ReadAsStringAsync(Stop);
    }

    [Fact]
    public async Task A_school_that_is_put_back_judges_as_the_one_that_was_backed_up()
    {
        var ines = await _school.ComeInAsAsync("ines");
        await Board.SeenAsync(ines, 3, "count.touch-5", Before(TimeSpan.FromMinutes(10)));
        // A maths lead sees both classes.
        var maeve = await _school.ComeInAsAsync("maeve");
        var file = await Backups.TakeAsync(Stop);
        string[] pages =
        [
            $"{Class}/grid",
            "/api/classes/2/grid",
            $"{Class}/look-again",
            $"{Class}/children/3",
            $"{Class}/plan",
            $"{Class}/weeks/2026-11-23/groups",
        ];
        Dictionary<string, string> before = [];
        foreach (var page in pages)
        {
            before[page] = await WholeAsync(maeve, page);
        }

        await Board.SeenAsync(ines, 4, "count.touch-5", Before(TimeSpan.FromMinutes(5)));
        using var back = await PutBackAsync(file);
        var there = await back.ComeInAsAsync("maeve");
        foreach (var page in pages)
        {
            (await WholeAsync(there, page)).ShouldBe(before[page], page);
        }

        // It goes on from there.
        await Board.SeenAsync(await back.ComeInAsAsync("ines"), 4, "count.touch-5", Before(TimeSpan.FromMinutes(4)));
    }

    private async Task<(int Ended, string Said)> DrillAsync()
    {
        StringWriter said = new();
        return (await BackupCommands.DrillAsync(_school.Services, said), said.ToString());
    }

    [Fact]
    public async Task A_drill_puts_the_newest_back_and_compares_what_has_not_changed_since()
    {
        var ines = await _school.ComeInAsAsync("ines");
        (await DrillAsync()).ShouldSatisfyAllConditions(d => d.Ended.ShouldBe(1), d => d.Said.ShouldContain("no backup yet"));
        await Backups.TakeAsync(Stop);
        (await DrillAsync()).ShouldSatisfyAllConditions(d => d.Ended.ShouldBe(0, d.Said), d => d.Said.ShouldContain("2 of 2 classes have not changed"));
        await Board.SeenAsync(ines, 3, "count.touch-5", Before(TimeSpan.FromMinutes(10)));
        (await DrillAsync()).Said.ShouldContain("1 of 2 classes have not changed");
        Directory.Exists(Path.Combine(_school.Folder, "drill")).ShouldBeFalse("no second school is left lying about");
    }

    [Fact]
    public async Task A_drill_finds_a_school_that_is_not_the_one_that_was_backed_up()
    {
        await Backups.TakeAsync(Stop);
        using (var scope = _school.Scope())
        {
            // As a disk might: past every rule and every number that is counted.
            var db = _school.Db(scope).Database;
            foreach (
                var trigger in await db.SqlQueryRaw<string>("SELECT name AS Value FROM sqlite_master WHERE type = 'trigger' AND tbl_name = 'Observations'")
                    .ToListAsync(Stop)
            )
            {
#pragma warning disable EF1002 // SQLite's own names.
                await db.ExecuteSqlRawAsync($"DROP TRIGGER \"{trigger}\"", Stop);
#pragma warning restore EF1002
            }

            await db.ExecuteSqlRawAsync("UPDATE Observations SET Support = 3 - Support WHERE ChildId = 1", Stop);
        }

        (await DrillAsync()).ShouldSatisfyAllConditions(d => d.Ended.ShouldBe(1), d => d.Said.ShouldContain("Class 1 is judged otherwise"));
    }

    [Fact]
    public async Task Whoever_leads_the_school_is_told_by_mail_that_backups_fail_and_once_a_day()
    {
        // The other disk is not there: something else stands in its place.
        var settings = _school.Services.GetRequiredService<FobbleSettings>();
        settings.Backup.Folder = Path.Combine(_folder.FullName, "a-file");
        await File.WriteAllTextAsync(settings.Backup.Folder, "", Stop);
        await Backups.LookAsync(Stop);
        await Backups.LookAsync(Stop);
        Backups.State.Fault.ShouldNotBeNull();
        await _school.Services.GetRequiredService<MailQueue>().SendDueAsync(_school.Services.GetRequiredService<TimeProvider>().GetUtcNow(), Stop);
        var told = _school.Services.GetRequiredService<PostOffice>().Letters.ShouldHaveSingleItem();
        told.Subject.ShouldContain("no backup is taken");
        told.Text.ShouldContain("there is none yet");

        var visitor = await _school.VisitAsync();
        var health = await visitor.GetAsync("/health");
        health.StatusCode.ShouldBe(HttpStatusCode.OK, "the school goes on");
        (await health.Content.ReadAsStringAsync(Stop)).ShouldContain("\"backup\":\"Degraded\"");
        (await visitor.GetAsync("/health/ready")).StatusCode.ShouldBe(HttpStatusCode.OK);
    }

    [Fact]
    public async Task Who_was_erased_since_is_erased_again()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var file = await Backups.TakeAsync(Stop);
        (await ines.PostAsync($"{Class}/children/1/erase", new EraseChild("Amara Nwosu"))).StatusCode.ShouldBe(HttpStatusCode.OK);
        await Backups.TakeAsync(Stop);
        using var back = await PutBackAsync(file);
        using var scope = back.Scope();
        (await back.Db(scope).Children.AnyAsync(c => c.Id == 1, Stop)).ShouldBeFalse();
        (await back.Db(scope).Children.CountAsync(Stop)).ShouldBe(49);
    }

    [Fact]
    public async Task One_is_taken_when_something_has_changed_and_only_then()
    {
        var ines = await _school.ComeInAsAsync("ines");
        int Taken() =>
            Directory.Exists(Path.Combine(_folder.FullName, "backups")) ? Directory.GetFiles(Path.Combine(_folder.FullName, "backups"), "*.fobble").Length : 0;
        await Backups.TakeIfChangedAsync(Stop);
        Taken().ShouldBe(1);
        await Task.Delay(1100, Stop);
        await Backups.TakeIfChangedAsync(Stop);
        Taken().ShouldBe(1, "nothing has changed");
        await Board.SeenAsync(ines, 3, "count.touch-5", Before(TimeSpan.FromMinutes(10)));
        await Backups.TakeIfChangedAsync(Stop);
        Taken().ShouldBe(2);
        Backups.State.Fault.ShouldBeNull();
        Backups.State.At.ShouldNotBeNull();
    }

    [Fact]
    public async Task Nobody_who_records_waits_for_a_backup_and_nothing_of_theirs_is_lost()
    {
        var ines = await _school.ComeInAsAsync("ines");
        var begins = Before(TimeSpan.FromHours(1));
        var taking = Backups.TakeAsync(Stop);
        var told = 0;
        while (!taking.IsCompleted || told < 5)
        {
            await Board.SeenAsync(ines, 5 + (told % 10), "count.touch-5", begins.AddSeconds(told));
            told++;
        }

        var file = await taking;
        using var scope = _school.Scope();
        var until = begins.AddSeconds(told);
        (await _school.Db(scope).Observations.CountAsync(o => o.At >= begins && o.At < until, Stop)).ShouldBeGreaterThanOrEqualTo(told);
        BackupFile.PutBack(file, Path.Combine(_folder.FullName, "looked-at"), Passphrase).Rows["Children"].ShouldBe(50);
    }

    [Fact]
    public async Task A_backup_that_fails_says_why_and_the_next_one_does_not()
    {
        var settings = _school.Services.GetRequiredService<FobbleSettings>();
        var folder = settings.Backup.Folder!;
        await File.WriteAllTextAsync(folder, "in the way", Stop);
        await Should.ThrowAsync<IOException>(() => Backups.TakeAsync(Stop));
        Backups.State.Fault.ShouldNotBeNullOrEmpty();
        File.Delete(folder);
        await Backups.TakeAsync(Stop);
        Backups.State.Fault.ShouldBeNull();
    }

    [Theory]
    [InlineData("short", 5, "other", "too short")]
    [InlineData(Passphrase, 0, "other", "EveryMinutes")]
    [InlineData(Passphrase, 5, "data", "another folder")]
    [InlineData(Passphrase, 5, ".", "another folder")]
    public void Settings_that_make_no_sense_are_told_at_the_start(string passphrase, int minutes, string folder, string says)
    {
        var data = Path.Combine(_folder.FullName, "data");
        BackupSettings settings = new()
        {
            Folder = Path.GetFullPath(Path.Combine(_folder.FullName, folder)),
            Passphrase = passphrase,
            EveryMinutes = minutes,
        };
        Should.Throw<WrongSettingException>(() => settings.Check(data)).Message.ShouldContain(says);
        new BackupSettings().Check(data);
    }

    [Fact]
    public async Task The_command_says_what_is_missing()
    {
        _school.Services.GetRequiredService<FobbleSettings>().Backup.Folder = null;
        StringWriter said = new();
        (await BackupCommands.TakeAsync(_school.Services, said)).ShouldBe(1);
        said.ToString().ShouldContain("Fobble__Backup__Folder");
    }
}
