using System.Globalization;
using System.Net.Sockets;
using System.Text.Json;
using Fobble.Data.Keeping;

namespace Fobble.Server.Tests.Faults;

/// <summary>What is seen of it from outside: figures and logs, and in neither of them a child.</summary>
public sealed class OutsideTests : IDisposable
{
    private const string Class = "/api/classes/1";
    private const string Name = "Zebedee";
    private readonly DirectoryInfo _folder = Directory.CreateTempSubdirectory("fobble-outside-");

    public OutsideTests()
    {
        using School filled = new();
        File.Copy(Path.Combine(filled.Folder, DataFolder.DatabaseFile), Path.Combine(_folder.FullName, DataFolder.DatabaseFile));
    }

    public void Dispose() => _folder.Delete(recursive: true);

    [Fact]
    public async Task Figures_are_there_for_who_asks_this_machine_and_name_nobody()
    {
        var port = FreePort();
        using var server = await StartAsync(new() { ["Fobble__Prometheus"] = port.ToString(CultureInfo.InvariantCulture) });
        var ines = await server.ComeInAsAsync("ines");
        await ListAsync(ines);
        for (var i = 0; i < 3; i++)
        {
            (
                await ines.PostAsync($"{Class}/observations", Board.Tap(Guid.NewGuid(), 3, "see.to-3", StandingClock.At("2026-11-25T07:00:00")))
            ).EnsureSuccessStatusCode();
        }

        (
            await ines.PostAsync($"{Class}/observations", Board.Tap(Guid.NewGuid(), 3, "nothing.here", StandingClock.At("2026-11-25T07:00:00")))
        ).StatusCode.ShouldBe(HttpStatusCode.BadRequest);
        (await ines.GetAsync($"{Class}/grid")).EnsureSuccessStatusCode();

        using HttpClient prometheus = new() { BaseAddress = new Uri($"http://127.0.0.1:{port}") };
        var said = await prometheus.GetStringAsync(new Uri("/metrics", UriKind.Relative));
        var figures = said.Split('\n');
        Figure(figures, "fobble_observations_total", "New").ShouldBe(3);
        Figure(figures, "fobble_observations_refused_total", "400").ShouldBe(1);
        foreach (
            var figure in new[]
            {
                "fobble_observations_together",
                "fobble_writes_waiting",
                "fobble_reads_waiting",
                "fobble_solving_waiting",
                "fobble_jobs_waiting",
                "fobble_disk_free",
                "http_server_request_duration_seconds",
            }
        )
        {
            said.ShouldContain(figure);
        }

        said.ShouldNotContain(Name);

        // At that port there is nothing else, and at the usual one there are no figures.
        (await prometheus.GetAsync(new Uri("/api/account", UriKind.Relative))).StatusCode.ShouldBe(HttpStatusCode.NotFound);
        (await (await ines.GetAsync("/metrics")).Content.ReadAsStringAsync()).ShouldNotContain("fobble_");
    }

    [Fact]
    public async Task Nobody_who_has_not_asked_for_figures_has_them()
    {
        using var server = await StartAsync([]);
        var ines = await server.ComeInAsAsync("ines");
        (await (await ines.GetAsync("/metrics")).Content.ReadAsStringAsync()).ShouldNotContain("fobble_");
    }

    // The disk is full while names are written down: all of it goes wrong at places where names are at hand.
    [Fact]
    public async Task The_log_is_json_with_the_number_of_the_request_and_without_a_name()
    {
        using var server = await StartAsync(new() { ["Fobble__Log"] = "json", ["Logging__LogLevel__Default"] = "Information" });
        var ines = await server.ComeInAsAsync("ines");
        DiskTests.Run("prlimit", $"--pid={server.Id}", "--fsize=4096:").ShouldBeTrue();
        var answer = await ines.PostCsvAsync($"{Class}/class-list?printed=2%3A{Name}", $"Given name,Family name\n{Name},{Name}\n");
        answer.StatusCode.ShouldBe(HttpStatusCode.ServiceUnavailable);
        (
            await ines.PutAsync(
                $"{Class}/children/3/name",
                new
                {
                    given = Name,
                    family = Name,
                    mark = "",
                }
            )
        ).IsSuccessStatusCode.ShouldBeFalse();
        using var problem = JsonDocument.Parse(await answer.Content.ReadAsStringAsync());
        var request = problem.RootElement.GetProperty("traceId").GetString()!;

        // What was logged last is read a moment later.
        List<JsonElement> about = [];
        for (var tries = 0; about.Count == 0 && tries < 100; tries++)
        {
            await Task.Delay(50);
            about = [.. Lines(server.Said).Where(l => l.GetProperty("level").GetString() == "Critical")];
        }

        about.ShouldNotBeEmpty(server.Said);
        // What whoever met it was told: the number of the request, or of the trace that it is a part of.
        about
            .Exists(l => new[] { "request", "trace" }.Any(n => l.TryGetProperty(n, out var id) && request.Contains(id.GetString()!, StringComparison.Ordinal)))
            .ShouldBeTrue(request);
        about[0].GetProperty("fault").EnumerateArray().Select(f => f.GetString()).ShouldContain("Microsoft.Data.Sqlite.SqliteException");
        server.Said.ShouldNotContain(Name);
        Lines(server.Said).Count().ShouldBeGreaterThan(10);
    }

    // Each line that is not one of JSON fails here.
    private static IEnumerable<JsonElement> Lines(string said) =>
        said.Split('\n', StringSplitOptions.TrimEntries | StringSplitOptions.RemoveEmptyEntries).Select(l => JsonDocument.Parse(l).RootElement);

    private static double Figure(string[] figures, string name, string label) =>
        double.Parse(
            figures.Single(f => f.StartsWith(name, StringComparison.Ordinal) && f.Contains($"\"{label}\"", StringComparison.Ordinal)).Split(' ')[1],
            CultureInfo.InvariantCulture
        );

    private Task<ServerProcess> StartAsync(Dictionary<string, string> settings)
    {
        settings["Fobble__Demo"] = "true";
        settings["Fobble__Now"] = "2026-11-25T08:00:00";
        return ServerProcess.ReadyAsync(_folder.FullName, settings);
    }

    private static Task<HttpResponseMessage> ListAsync(Visitor ines) => ines.PostCsvAsync($"{Class}/class-list", $"Given name,Family name\n{Name},{Name}\n");

    private static int FreePort()
    {
        using TcpListener free = new(IPAddress.Loopback, 0);
        free.Start();
        return ((IPEndPoint)free.LocalEndpoint).Port;
    }
}
