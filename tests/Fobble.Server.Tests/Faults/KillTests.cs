using System.Collections.Concurrent;
using System.Diagnostics;
using System.Globalization;
using Fobble.Data.Backups;
using Fobble.Data.Keeping;
using Microsoft.Data.Sqlite;

namespace Fobble.Server.Tests.Faults;

/// <summary>
/// The server is killed, as by a power cut, while adults tap, lists come in, weeks are planned and groups accepted; and begun again on what is on the disk. FOBBLE_KILLS says how often:
/// a few times in the suite, hundreds by <c>./fobble soak</c>.
/// </summary>
public sealed class KillTests : IDisposable
{
    private const string Class = "/api/classes/1";
    private const string Passphrase = "seven lanterns in fog";
    private static readonly int Kills = int.Parse(Environment.GetEnvironmentVariable("FOBBLE_KILLS") ?? "4", CultureInfo.InvariantCulture);

    private readonly DirectoryInfo _root = Directory.CreateTempSubdirectory("fobble-kills-");
    private readonly ConcurrentDictionary<Guid, bool> _taps = new();
    private readonly ConcurrentDictionary<string, bool> _lists = new();
    private readonly ConcurrentQueue<string> _groups = new();
    private readonly List<double> _readyAfter = [];

    private string Folder => Path.Combine(_root.FullName, "data");

    private string Database => Path.Combine(Folder, DataFolder.DatabaseFile);

    public KillTests()
    {
        Directory.CreateDirectory(Folder);
        using School filled = new();
        File.Copy(Path.Combine(filled.Folder, DataFolder.DatabaseFile), Database);
    }

    public void Dispose() => _root.Delete(recursive: true);

    private async Task<ServerProcess> StartAsync()
    {
        var server = ServerProcess.Begin(Folder, new Dictionary<string, string> { ["Fobble__Demo"] = "true", ["Fobble__Now"] = "2026-11-25T08:00:00" });
        _readyAfter.Add((await server.UntilReadyAsync()).TotalSeconds);
        return server;
    }

    private static object Tap(Guid id, int child) => Board.Tap(id, child, "see.to-3", StandingClock.At("2026-11-25T07:00:00"));

    // Until the server is gone.
    private static async Task UntilKilledAsync(Func<int, Task> work)
    {
        try
        {
            for (var i = 0; ; i++)
            {
                await work(i);
            }
        }
        catch (Exception gone) when (gone is HttpRequestException or IOException or TaskCanceledException) { }
    }

    private async Task TapAsync(Visitor adult, Random random)
    {
        var id = Guid.NewGuid();
        _taps[id] = false;
        (await adult.PostAsync($"{Class}/observations", Tap(id, random.Next(1, 20)))).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        _taps[id] = true;
    }

    private async Task ListAsync(Visitor adult)
    {
        var family = "Z" + Guid.NewGuid().ToString("N")[..8];
        _lists[family] = false;
        var answer = await adult.PostCsvAsync("/api/classes/2/class-list", $"Given name,Family name\nAda,{family}\nBo,{family}\n");
        answer.StatusCode.ShouldBe(HttpStatusCode.OK, await answer.Content.ReadAsStringAsync());
        _lists[family] = true;
    }

    private async Task GroupAsync(Visitor adult, int turn)
    {
        var week = $"{Class}/weeks/{new DateOnly(2026, 11, 30).AddDays(7 * (turn % 2)):O}";
        await adult.PostAsync($"{week}/plan");
        await Board.AcceptAsync(adult, week, await Board.ProposeAsync(adult, week));
        _groups.Enqueue(week);
    }

    [Fact]
    public async Task Nothing_that_was_answered_is_lost_and_nothing_is_there_twice_or_half()
    {
        Random random = new(20);
        for (var kill = 0; kill < Kills; kill++)
        {
            using var server = await StartAsync();
            var (ines, maeve) = (await server.ComeInAsAsync("ines"), await server.ComeInAsAsync("maeve"));

            // What was in flight at the last kill is sent again, as a tablet does.
            foreach (var id in _taps.Where(t => !t.Value).Select(t => t.Key))
            {
                (await ines.PostAsync($"{Class}/observations", Tap(id, 3))).StatusCode.ShouldBeOneOf(HttpStatusCode.NoContent, HttpStatusCode.Conflict);
                _taps[id] = true;
            }

            // The first groups of a server take seconds; every second time they have been formed once, and are formed again and again until the kill.
            if (kill % 2 == 1)
            {
                await GroupAsync(ines, 0);
            }

            List<Task> work =
            [
                .. Enumerable.Range(0, 3).Select(w => UntilKilledAsync(_ => TapAsync(ines, new Random((100 * kill) + w)))),
                UntilKilledAsync(_ => ListAsync(maeve)),
                UntilKilledAsync(i => GroupAsync(ines, i)),
            ];
            await Task.Delay(random.Next(300, 3000));
            server.Kill();
            await Task.WhenAll(work);
            await LookAsync($"kill {kill}");
        }

        using var last = await StartAsync();
        var again = await last.ComeInAsAsync("ines");
        foreach (var week in _groups.Distinct())
        {
            (await again.GetAsync($"{week}/groups")).StatusCode.ShouldBe(HttpStatusCode.OK);
        }

        TestContext.Current.TestOutputHelper?.WriteLine(
            $"{Kills} kills, {_taps.Count(t => t.Value)} taps answered, {_lists.Count(l => l.Value)} lists, {_groups.Count} sets of groups; ready again after {_readyAfter.Average():0.0} s, at most {_readyAfter.Max():0.0} s"
        );
        _taps.Count(t => t.Value).ShouldBeGreaterThan(0);
    }

    private async Task LookAsync(string when)
    {
        await using SqliteConnection connection = new($"Data Source={Database};Pooling=False");
        await connection.OpenAsync();
        async Task<List<string>> AskAsync(string question)
        {
            await using var command = connection.CreateCommand();
            command.CommandText = question;
            await using var reader = await command.ExecuteReaderAsync();
            List<string> rows = [];
            while (await reader.ReadAsync())
            {
                rows.Add(reader.GetValue(0).ToString()!);
            }

            return rows;
        }

        (await AskAsync("PRAGMA integrity_check")).ShouldBe(["ok"], when);
        (await AskAsync("PRAGMA foreign_key_check")).ShouldBeEmpty(when);
        var kept = (await AskAsync("SELECT Id FROM Observations")).Select(Guid.Parse).ToList();
        kept.Count.ShouldBe(kept.Distinct().Count(), when);
        _taps.Where(t => t.Value).Select(t => t.Key).Except(kept).ShouldBeEmpty(when);
        var families = (await AskAsync("SELECT FamilyName FROM Children WHERE FamilyName LIKE 'Z%'")).CountBy(f => f).ToDictionary();
        foreach (var (family, answered) in _lists)
        {
            families.GetValueOrDefault(family).ShouldBeOneOf(answered ? [2] : [0, 2]);
        }

        // Of a set of groups there is all or nothing: every one has its groups, and every group its children.
        (await AskAsync("SELECT Id FROM GroupCycles c WHERE NOT EXISTS (SELECT 1 FROM GroupSessions s WHERE s.CycleId = c.Id)")).ShouldBeEmpty(when);
        (await AskAsync("SELECT Id FROM GroupSessions s WHERE NOT EXISTS (SELECT 1 FROM GroupMembers m WHERE m.SessionId = s.Id)")).ShouldBeEmpty(when);

        // A number that is counted is that of the last row: what rests on it is not read again otherwise.
        (
            await AskAsync(
                "SELECT v.ClassId FROM ClassVersions v WHERE v.LastSeen < (SELECT MAX(o.Sequence) FROM Observations o JOIN Children c ON c.Id = o.ChildId WHERE c.ClassId = v.ClassId)"
            )
        ).ShouldBeEmpty(when);
    }

    [Fact]
    public async Task A_backup_that_is_killed_leaves_no_file_that_is_none()
    {
        Random random = new(21);
        var backups = Path.Combine(_root.FullName, "backups");
        Dictionary<string, string> settings = new() { ["Fobble__Backup__Folder"] = backups, ["Fobble__Backup__Passphrase"] = Passphrase };
        for (var kill = 0; kill < Kills; kill++)
        {
            using var command = ServerProcess.Begin(Folder, settings, "backup");
            await Task.Delay(random.Next(300, 2200));
            command.Kill();
        }

        // They are of one moment to the second: those that were done stand under their names, and are whole.
        using var done = ServerProcess.Begin(Folder, settings, "backup");
        (await done.ExitCodeAsync()).ShouldBe(0, done.Said);
        foreach (var (file, i) in Directory.GetFiles(backups, $"*{BackupFile.Ending}").Select((f, i) => (f, i)))
        {
            BackupFile.PutBack(file, Path.Combine(_root.FullName, $"back-{i}"), Passphrase).Rows["Children"].ShouldBeGreaterThan(20);
        }
    }

    [Fact]
    public async Task An_update_that_is_killed_anywhere_is_done_at_the_next_start_and_keeps_every_row()
    {
        File.Delete(Database);
        OldSchool.Make(Database, "20261127011658_Groups", observations: 60_000);
        var rows = Snapshot.Take(Database, Path.Combine(_root.FullName, "before.db")).Rows;
        Random random = new(22);
        for (var kill = 0; kill < Kills; kill++)
        {
            using var server = ServerProcess.Begin(Folder);
            await Task.Delay(random.Next(300, 1600));
            server.Kill();
        }

        using var last = await ServerProcess.ReadyAsync(Folder);
        await last.EndAsync();
        Schema.Of(Database).Age.ShouldBe(SchemaAge.OfNow);
        var after = Snapshot.Take(Database, Path.Combine(_root.FullName, "after.db")).Rows;
        foreach (var (table, count) in rows.Where(r => !r.Key.StartsWith("__", StringComparison.Ordinal)))
        {
            after[table].ShouldBe(count, table);
        }
    }
}
