using System.Diagnostics;
using System.Net.Http.Json;
using Fobble.Core.Numbers;
using Fobble.Server.Tests.Faults;
using Microsoft.Data.Sqlite;

namespace Fobble.Bench;

/// <summary>
/// The server as a process of its own on the demo's data, asked over loopback by this process, on the same cores. Questions come at their times, whether the one before is answered or
/// not: a server that stands still does not slow down whoever asks it.
/// </summary>
internal static class LoadBench
{
    private const int Class = 1;
    private const int Children = 24;
    private const int Askers = 32;
    private static readonly string Day = DateTime.Today.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture);
    private static readonly TimeSpan Lasts = TimeSpan.FromSeconds(20);

    public static async Task<IReadOnlyList<Figure>> RunAsync()
    {
        var folder = Directory.CreateTempSubdirectory("fobble-load-").FullName;
        using var server = await ServerProcess.ReadyAsync(folder, new Dictionary<string, string> { ["Fobble__Demo"] = "true" });
        try
        {
            return await RunAsync(server, folder);
        }
        catch (HttpRequestException fault)
        {
            throw new InvalidOperationException($"The server said: {server.Said}", fault);
        }
        finally
        {
            server.Kill();
            Directory.Delete(folder, recursive: true);
        }
    }

    private static async Task<IReadOnlyList<Figure>> RunAsync(ServerProcess server, string folder)
    {
        Asker[] askers = await Task.WhenAll(Enumerable.Range(0, Askers).Select(_ => Asker.ComeInAsync(server.Url)));
        var random = new SeededRandom(20);

        // Pages compile what they run; a school's server has done so on any day.
        await AtRateAsync(askers, 40, TimeSpan.FromSeconds(15), i => Mixed(random, i));
        var bare = ServerBench.BareInserts(Path.Combine(folder, "bare.db"));
        var empty = await AtRateAsync(askers, 50, Lasts, _ => "live");
        var record = await AtRateAsync(askers, 50, Lasts, _ => "record");
        List<Figure> figures =
        [
            new("bare insert of one row in SQLite, WAL, fully synchronous", $"p50 {bare.At(0.5):0.00} ms, p95 {bare.At(0.95):0.00} ms"),
            new("a request that does nothing, 50/s", Times(empty["live"])),
            new(
                "recording an observation, 50/s",
                $"{Times(record["record"])}: {record["record"].At(0.95) / (bare.At(0.95) + empty["live"].At(0.95)):0.0} times the two above",
                "p95 at most 3 times"
            ),
        ];
        foreach (var rate in (int[])[50, 100, 300])
        {
            await QuietAsync(askers);
            var sentAway = askers.Sum(a => a.SentAway);
            var mixed = await AtRateAsync(askers, rate, Lasts, i => Mixed(random, i));
            sentAway = askers.Sum(a => a.SentAway) - sentAway;
            figures.Add(
                new(
                    $"{rate}/s mixed (grid 25 %, day 35 %, recording 40 %)",
                    $"recording {Times(mixed["record"])}; grid {Times(mixed["grid"])}; day {Times(mixed["day"])}; {sentAway} sent away; memory {server.Memory / 1e6:0} MB",
                    rate == 300 ? "recording p95 20 ms, grid p95 40 ms" : ""
                )
            );
        }

        await QuietAsync(askers);
        var nothing = await AsFastAsync(askers, TimeSpan.FromSeconds(10), _ => "live");
        figures.Add(
            new($"requests a second that do nothing, {Askers} askers without a pause", $"{nothing.Done / nothing.Seconds:0}/s, each {Times(nothing.Times)}")
        );
        var most = await AsFastAsync(askers, TimeSpan.FromSeconds(10), _ => "record");
        figures.Add(
            new($"observations a second, {Askers} adults tapping without a pause", $"{most.Done / most.Seconds:0}/s, each {Times(most.Times)}", "1,500/s")
        );
        var all = await AsFastAsync(askers, TimeSpan.FromSeconds(10), i => Mixed(random, i));
        figures.Add(new($"mixed questions a second, {Askers} adults without a pause", $"{all.Done / all.Seconds:0}/s, each {Times(all.Times)}", "400/s"));
        var (kept, answered) = (await CountAsync(folder), askers.Sum(a => a.Recorded));
        figures.Add(new("observations answered with “kept”, and rows of them in the database", $"{answered:n0}, {kept:n0}", "alike"));
        return figures;
    }

    // Until what nobody waits for any more has been worked off.
    private static async Task QuietAsync(Asker[] askers)
    {
        var quick = 0;
        while (quick < 5)
        {
            var began = Stopwatch.GetTimestamp();
            try
            {
                await askers[0].AskAsync("day");
                quick = Stopwatch.GetElapsedTime(began) < TimeSpan.FromMilliseconds(300) ? quick + 1 : 0;
            }
            catch (TaskCanceledException)
            {
                quick = 0;
            }
        }
    }

    private static string Mixed(SeededRandom random, int _) =>
        random.Next(100) switch
        {
            < 25 => "grid",
            < 60 => "day",
            _ => "record",
        };

    private static string Times(IReadOnlyCollection<double> times) =>
        times.Count == 0 ? "none answered" : $"p50 {times.At(0.5):0.0} ms, p95 {times.At(0.95):0.0} ms";

    private static async Task<Dictionary<string, List<double>>> AtRateAsync(Asker[] askers, int rate, TimeSpan lasts, Func<int, string> what)
    {
        var began = Stopwatch.GetTimestamp();
        List<Task<(string What, double Time)>> asked = [];
        for (var i = 0; i < rate * lasts.TotalSeconds; i++)
        {
            var due = TimeSpan.FromSeconds(i / (double)rate);
            while (Stopwatch.GetElapsedTime(began) is var now && now < due)
            {
                await Task.Delay(due - now > TimeSpan.FromMilliseconds(2) ? TimeSpan.FromMilliseconds(1) : TimeSpan.Zero);
            }

            // From here on it is the server's time, and the machine's: whoever sets the pace waits for no answer.
            var (question, asker, sent) = (what(i), askers[i % askers.Length], Stopwatch.GetTimestamp());
            asked.Add(
                Task.Run(async () =>
                {
                    try
                    {
                        await asker.AskAsync(question);
                    }
                    catch (TaskCanceledException)
                    {
                        // Nobody waits so long: counted as that long.
                    }

                    return (question, Stopwatch.GetElapsedTime(sent).TotalMilliseconds);
                })
            );
        }

        return (await Task.WhenAll(asked)).GroupBy(a => a.What).ToDictionary(g => g.Key, g => g.Select(a => a.Time).ToList());
    }

    private static async Task<(int Done, double Seconds, List<double> Times)> AsFastAsync(Asker[] askers, TimeSpan lasts, Func<int, string> what)
    {
        var began = Stopwatch.GetTimestamp();
        var times = await Task.WhenAll(
            askers.Select(asker =>
                Task.Run(async () =>
                {
                    List<double> own = [];
                    while (Stopwatch.GetElapsedTime(began) < lasts)
                    {
                        var asked = Stopwatch.GetTimestamp();
                        string question;
                        lock (askers)
                        {
                            question = what(own.Count);
                        }

                        try
                        {
                            await asker.AskAsync(question);
                        }
                        catch (TaskCanceledException)
                        {
                            continue;
                        }

                        own.Add(Stopwatch.GetElapsedTime(asked).TotalMilliseconds);
                    }

                    return own;
                })
            )
        );
        var seconds = Stopwatch.GetElapsedTime(began).TotalSeconds;
        return (times.Sum(t => t.Count), seconds, [.. times.SelectMany(t => t)]);
    }

    private static async Task<long> CountAsync(string folder)
    {
        await using SqliteConnection connection = new($"Data Source={Path.Combine(folder, "fobble.db")};Mode=ReadOnly;Pooling=False");
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = $"SELECT COUNT(*) FROM Observations WHERE Numbers = '{Asker.Mark}'";
        return (long)(await command.ExecuteScalarAsync())!;
    }

    /// <summary>One adult at one device.</summary>
    private sealed class Asker(HttpClient client)
    {
        public const string Mark = "see:3";
        private int _recorded;
        private int _child;
        private int _sentAway;

        public int Recorded => _recorded;

        /// <summary>Questions that were answered with “too much to work out just now”.</summary>
        public int SentAway => _sentAway;

        public static async Task<Asker> ComeInAsync(Uri url)
        {
            HttpClient client = new(new SocketsHttpHandler { AutomaticDecompression = System.Net.DecompressionMethods.All })
            {
                BaseAddress = url,
                Timeout = TimeSpan.FromSeconds(20),
            };
            await ServerBench.TokenAsync(client);
            (await client.PostAsync(new Uri("/api/account/demo/ines", UriKind.Relative), null)).EnsureSuccessStatusCode();
            await ServerBench.TokenAsync(client);
            return new(client);
        }

        public Task AskAsync(string what) =>
            what switch
            {
                "live" => GetAsync("/health/live"),
                "grid" => GetAsync($"/api/classes/{Class}/grid"),
                "day" => GetAsync($"/api/classes/{Class}/days/{Day}"),
                _ => RecordAsync(),
            };

        private async Task GetAsync(string path)
        {
            using var answer = await client.GetAsync(new Uri(path, UriKind.Relative));
            if (answer.StatusCode == System.Net.HttpStatusCode.ServiceUnavailable)
            {
                Interlocked.Increment(ref _sentAway);
                return;
            }

            answer.EnsureSuccessStatusCode();
        }

        private async Task RecordAsync()
        {
            var body = JsonContent.Create(
                new
                {
                    id = Guid.NewGuid(),
                    childId = 1 + (Interlocked.Increment(ref _child) % Children),
                    skill = "see.to-3",
                    at = DateTimeOffset.UtcNow,
                    setting = "Group",
                    support = "Alone",
                    representation = "Objects",
                    numbers = Mark,
                    slip = (string?)null,
                    strategy = (string?)null,
                    note = (string?)null,
                    sessionId = (int?)null,
                }
            );
            using var answer = await client.PostAsync(new Uri($"/api/classes/{Class}/observations", UriKind.Relative), body);
            answer.EnsureSuccessStatusCode();
            Interlocked.Increment(ref _recorded);
        }
    }
}
