using System.Diagnostics;
using System.Globalization;
using Fobble.Data.Keeping;
using Microsoft.Data.Sqlite;

namespace Fobble.Server.Tests.Faults;

/// <summary>The disk fills up under a server at work; then there is room again. Nothing that was answered is lost, and nobody has to begin it anew.</summary>
public sealed class DiskTests : IDisposable
{
    private const string Class = "/api/classes/1";
    private readonly DirectoryInfo _root = Directory.CreateTempSubdirectory("fobble-disk-");
    private readonly List<Guid> _answered = [];
    private bool _mounted;

    private string Folder => Path.Combine(_root.FullName, "data");

    private string Database => Path.Combine(Folder, DataFolder.DatabaseFile);

    public void Dispose()
    {
        if (_mounted)
        {
            Run("umount", "-l", Folder);
        }

        _root.Delete(recursive: true);
    }

    // What a process may write at the most, lowered to what its files have already: an error for each write beyond, as the system gives it.
    [Fact]
    public async Task It_fills_up_and_there_is_room_again()
    {
        Fill();
        using var server = await StartAsync();
        var ines = await server.ComeInAsAsync("ines");
        await WorksAsync(ines);
        Run("prlimit", $"--pid={server.Id}", "--fsize=4096:").ShouldBeTrue();
        await CanKeepNothingAsync(ines);
        Run("prlimit", $"--pid={server.Id}", "--fsize=unlimited:").ShouldBeTrue();
        await WorksAsync(ines);
        await NothingIsLostAsync(server);
    }

    [Fact]
    public async Task A_real_disk_fills_up()
    {
        Mount();
        using var server = await StartAsync();
        var ines = await server.ComeInAsAsync("ines");
        await WorksAsync(ines);
        var big = Path.Combine(Folder, "something-else");
        await using (FileStream all = new(big, FileMode.Create, FileAccess.Write, FileShare.None, bufferSize: 0))
        {
            Should.Throw<IOException>(() =>
            {
                while (true)
                {
                    all.Write(new byte[4096]);
                }
            });
        }

        await CanKeepNothingAsync(ines);
        File.Delete(big);
        await WorksAsync(ines);
        await NothingIsLostAsync(server);
    }

    private void Fill()
    {
        Directory.CreateDirectory(Folder);
        using School filled = new();
        File.Copy(Path.Combine(filled.Folder, DataFolder.DatabaseFile), Database);
    }

    private void Mount()
    {
        Directory.CreateDirectory(Folder);
        _mounted = Run("mount", "-t", "tmpfs", "-o", "size=64m,mode=0700", "tmpfs", Folder);
        Assert.SkipUnless(_mounted, "disks can't be mounted here");
        Fill();
    }

    internal static bool Run(string program, params string[] with)
    {
        using var run = Process.Start(new ProcessStartInfo(program, with) { RedirectStandardError = true })!;
        run.WaitForExit();
        return run.ExitCode == 0;
    }

    private Task<ServerProcess> StartAsync() =>
        ServerProcess.ReadyAsync(Folder, new Dictionary<string, string> { ["Fobble__Demo"] = "true", ["Fobble__Now"] = "2026-11-25T08:00:00" });

    private async Task WorksAsync(Visitor ines)
    {
        for (var i = 0; i < 10; i++)
        {
            var id = Guid.NewGuid();
            var answer = await ines.PostAsync($"{Class}/observations", Tap(id, i));
            answer.StatusCode.ShouldBe(HttpStatusCode.NoContent, await answer.Content.ReadAsStringAsync());
            _answered.Add(id);
        }

        (await ines.PostAsync($"{Class}/weeks/2026-12-07/plan")).IsSuccessStatusCode.ShouldBeTrue();
    }

    private async Task CanKeepNothingAsync(Visitor ines)
    {
        for (var i = 0; i < 10; i++)
        {
            var answer = await ines.PostAsync($"{Class}/observations", Tap(Guid.NewGuid(), i));
            answer.StatusCode.ShouldBe(HttpStatusCode.ServiceUnavailable, await answer.Content.ReadAsStringAsync());
            (await Visitor.SaysAsync(answer)).ShouldContain("disk");
        }

        var decided = await ines.PutAsync($"{Class}/children/3/photos-allowed", new { allowed = true });
        decided.StatusCode.ShouldBe(HttpStatusCode.ServiceUnavailable, await decided.Content.ReadAsStringAsync());
        foreach (var page in new[] { "grid", "days/2026-11-25", "children" })
        {
            var read = await ines.GetAsync($"{Class}/{page}");
            read.StatusCode.ShouldBe(HttpStatusCode.OK, $"{page}: {await read.Content.ReadAsStringAsync()}");
        }
    }

    private async Task NothingIsLostAsync(ServerProcess server)
    {
        (await server.EndAsync()).ShouldBeLessThan(TimeSpan.FromSeconds(10));
        using SqliteConnection connection = new($"Data Source={Database};Pooling=False");
        connection.Open();
        using var check = connection.CreateCommand();
        check.CommandText = "PRAGMA integrity_check";
        check.ExecuteScalar().ShouldBe("ok");
        using var find = connection.CreateCommand();
        find.CommandText = "SELECT count(*) FROM Observations WHERE Id = $Id";
        var id = find.Parameters.Add("$Id", SqliteType.Text);
        foreach (var answered in _answered)
        {
            id.Value = answered;
            find.ExecuteScalar().ShouldBe(1L);
        }
    }

    private static object Tap(Guid id, int child) => Board.Tap(id, 1 + child, "see.to-3", StandingClock.At("2026-11-25T07:00:00"));
}
