using System.Diagnostics;
using System.Net.Http.Json;
using Fobble.Core.Evidence;
using Fobble.Core.Numbers;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Rooms;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Data.Sqlite;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Bench;

/// <summary>The real application in this process on a real file: recording beside a bare durable insert, and the grid of a large record.</summary>
internal static class ServerBench
{
    private const int Taps = 600;
    private const int GridRuns = 60;

    public static async Task<IReadOnlyList<Figure>> RunAsync()
    {
        var folder = Directory.CreateTempSubdirectory("fobble-bench-").FullName;
        await using var application = new Application(folder);
        using var client = await SignedInAsync(application);

        var empty = await TimeAsync(Taps, () => client.GetAsync(new Uri("/health/live", UriKind.Relative)));
        var bare = BareInserts(Path.Combine(folder, "bare.db"));
        var taps = await RecordAsync(client);
        var (grid, request, cold) = await GridAsync(application, client);
        return
        [
            new("bare insert of one row in SQLite, WAL, fully synchronous", $"p50 {bare.At(0.5):0.00} ms, p95 {bare.At(0.95):0.00} ms"),
            new("a request that does nothing, through the same stack in the same process", $"p50 {empty.At(0.5):0.00} ms, p95 {empty.At(0.95):0.00} ms"),
            new(
                "recording an observation, whole request",
                $"p50 {taps.At(0.5):0.00} ms, p95 {taps.At(0.95):0.00} ms: {taps.At(0.95) / bare.At(0.95):0.0} times the bare insert",
                "p95 under 3 times"
            ),
            new(
                $"grid of 30 children × 130 skills, 20,000 observations: judge and mark, the record in memory",
                $"median {grid.At(0.5):0} ms, p95 {grid.At(0.95):0} ms",
                "under 60 ms"
            ),
            new("the same grid as a whole request, over the map as it is", $"median {request.At(0.5):0} ms, p95 {request.At(0.95):0} ms"),
            new("reading 20,000 observations into memory, once after a start", $"median {cold.At(0.5):0} ms"),
        ];
    }

    internal static List<double> BareInserts(string file)
    {
        using var connection = new SqliteConnection($"Data Source={file}");
        connection.Open();
        using var command = connection.CreateCommand();
        command.CommandText =
            "PRAGMA journal_mode=WAL; PRAGMA synchronous=FULL; CREATE TABLE Seen (Id TEXT PRIMARY KEY, Child INT, Skill TEXT, At INT, Day INT, Support INT)";
        command.ExecuteNonQuery();
        command.CommandText = "INSERT INTO Seen VALUES ($id, 3, 'see.to-3', 1, 2, 3)";
        var id = command.Parameters.Add("$id", SqliteType.Text);
        return Time(Taps, () =>
        {
            id.Value = Guid.NewGuid().ToString();
            command.ExecuteNonQuery();
        });
    }

    private static async Task<List<double>> RecordAsync(HttpClient client)
    {
        List<double> times = [];
        for (var i = 0; i < Taps + 100; i++)
        {
            var body = JsonContent.Create(
                new
                {
                    id = Guid.NewGuid(),
                    childId = 1 + (i % 26),
                    skill = "see.to-3",
                    at = DateTimeOffset.UtcNow,
                    setting = "Group",
                    support = "Alone",
                    representation = "Objects",
                    numbers = "see:3",
                    slip = (string?)null,
                    strategy = (string?)null,
                    note = (string?)null,
                    sessionId = (int?)null,
                }
            );
            var watch = Stopwatch.StartNew();
            using var answer = await client.PostAsync(new Uri("/api/classes/1/observations", UriKind.Relative), body);
            answer.EnsureSuccessStatusCode();
            if (i >= 100)
            {
                times.Add(watch.Elapsed.TotalMilliseconds);
            }
        }

        return times;
    }

    private static async Task<(List<double> Grid, List<double> Request, List<double> Cold)> GridAsync(Application application, HttpClient client)
    {
        await using var scope = application.Services.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<FobbleDb>();
        var rooms = scope.ServiceProvider.GetRequiredService<ClassRooms>();
        var skills = ClassContent.Shipped.Map.Skills;
        var school = new SchoolClass { Name = "Full", SchoolId = 1 };
        school.Children.AddRange(Enumerable.Range(1, 30).Select(i => new Child { GivenName = $"Child {i}", FamilyName = "Made-up" }));
        db.Classes.Add(school);
        await db.SaveChangesAsync();
        db.Memberships.Add(
            new Membership
            {
                ClassId = school.Id,
                AdultId = 1,
                Role = ClassRole.LeadTeacher,
            }
        );
        var random = new SeededRandom(3);
        var start = new DateTimeOffset(DateTime.Today.AddDays(-60));
        db.Observations.AddRange(
            Enumerable
                .Range(0, 20_000)
                .Select(_ =>
                {
                    var skill = random.Pick(skills);
                    var at = start.AddDays(random.Next(56)).AddMinutes(random.Next(400));
                    return new ObservationRow
                    {
                        Id = Guid.NewGuid(),
                        ChildId = random.Pick(school.Children).Id,
                        Skill = skill.Id.Value,
                        At = at,
                        Day = DateOnly.FromDateTime(at.DateTime),
                        AdultId = 1,
                        Setting = Setting.Group,
                        Support = (Support)random.Next(4),
                        Representation = skill.ShownIn[0],
                    };
                })
        );
        await db.SaveChangesAsync();
        db.ChangeTracker.Clear();

        List<double> grid = [];
        for (var i = 0; i < GridRuns + 10; i++)
        {
            var watch = Stopwatch.StartNew();
            await using var room = await rooms.OpenAsync(new(school.Id), default);
            var evidence = await room.EvidenceAsync(default);
            var marks = evidence.Children.Sum(c => room.Map.Skills.Count(s => evidence[c, s.Id].LookAgain || evidence.IsReady(c, s.Id)));
            if (i >= 10 && marks > 0)
            {
                grid.Add(watch.Elapsed.TotalMilliseconds);
            }
        }

        List<double> request = [];
        for (var i = 0; i < GridRuns; i++)
        {
            var watch = Stopwatch.StartNew();
            (await client.GetAsync(new Uri($"/api/classes/{school.Id}/grid", UriKind.Relative))).EnsureSuccessStatusCode();
            request.Add(watch.Elapsed.TotalMilliseconds);
        }

        var cold = await TimeAsync(10, async () =>
        {
            await using var room = await rooms.OpenAsync(new(school.Id), default);
            await new ObservationCache().OfAsync(room, default);
        });
        return (grid, request, cold);
    }

    internal static async Task TokenAsync(HttpClient client)
    {
        using var answer = await client.GetAsync(new Uri("/api/account/", UriKind.Relative));
        var cookie = answer.Headers.GetValues("Set-Cookie").First(c => c.StartsWith("XSRF-TOKEN=", StringComparison.Ordinal));
        client.DefaultRequestHeaders.Remove("X-XSRF-TOKEN");
        client.DefaultRequestHeaders.Add("X-XSRF-TOKEN", Uri.UnescapeDataString(cookie["XSRF-TOKEN=".Length..cookie.IndexOf(';', StringComparison.Ordinal)]));
    }

    /// <summary>A client that is signed in as the demo's lead teacher.</summary>
    internal static async Task<HttpClient> SignedInAsync(Application application)
    {
        var client = application.CreateClient(new WebApplicationFactoryClientOptions { HandleCookies = true });
        await TokenAsync(client);
        await client.PostAsync(new Uri("/api/account/demo/ines", UriKind.Relative), null);
        await TokenAsync(client);
        return client;
    }

    private static List<double> Time(int runs, Action action)
    {
        List<double> times = [];
        for (var i = 0; i < runs; i++)
        {
            var watch = Stopwatch.StartNew();
            action();
            times.Add(watch.Elapsed.TotalMilliseconds);
        }

        return times;
    }

    private static async Task<List<double>> TimeAsync(int runs, Func<Task> action)
    {
        List<double> times = [];
        for (var i = 0; i < runs; i++)
        {
            var watch = Stopwatch.StartNew();
            await action();
            times.Add(watch.Elapsed.TotalMilliseconds);
        }

        return times;
    }

    // Any public type of the server points the factory at it; its Program would clash with ours.
    internal sealed class Application(string folder) : WebApplicationFactory<Server.Rooms.ChildName>
    {
        protected override void ConfigureWebHost(IWebHostBuilder builder)
        {
            builder.UseContentRoot(Path.Combine(Root.Find(), "src", "Fobble.Server"));
            builder.UseEnvironment("Production");
            builder.UseSetting("Fobble:Data", folder);
            builder.UseSetting("Fobble:Demo", "true");
            builder.UseSetting("Logging:LogLevel:Default", "None");
        }
    }
}
