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
    private const int Askers = 32;
    private static readonly AskedClass Rowan = new(1, [.. Enumerable.Range(1, 24)]);
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
        Asker[] askers = await Task.WhenAll(Enumerable.Range(0, Askers).Select(_ => Asker.ComeInAsync(server.Url, Rowan)));
        var random = new SeededRandom(20);

        // Pages compile what they run; a school's server has done so on any day.
        await Pace.AtRateAsync(askers, 40, TimeSpan.FromSeconds(15), _ => Pace.Mixed(random));
        var bare = ServerBench.BareInserts(Path.Combine(folder, "bare.db"));
        var empty = await Pace.AtRateAsync(askers, 50, Lasts, _ => "live");
        var record = await Pace.AtRateAsync(askers, 50, Lasts, _ => "record");
        List<Figure> figures =
        [
            new("bare insert of one row in SQLite, WAL, fully synchronous", $"p50 {bare.At(0.5):0.00} ms, p95 {bare.At(0.95):0.00} ms"),
            new("a request that does nothing, 50/s", Pace.Times(empty["live"])),
            new(
                "recording an observation, 50/s",
                $"{Pace.Times(record["record"])}: {record["record"].At(0.95) / (bare.At(0.95) + empty["live"].At(0.95)):0.0} times the two above",
                "p95 at most 3 times"
            ),
        ];
        foreach (var rate in (int[])[50, 100, 300])
        {
            await Pace.QuietAsync(askers);
            var sentAway = askers.Sum(a => a.SentAway);
            var mixed = await Pace.AtRateAsync(askers, rate, Lasts, _ => Pace.Mixed(random));
            sentAway = askers.Sum(a => a.SentAway) - sentAway;
            figures.Add(
                new(
                    $"{rate}/s mixed (grid 25 %, day 35 %, recording 40 %)",
                    $"recording {Pace.Times(mixed["record"])}; grid {Pace.Times(mixed["grid"])}; day {Pace.Times(mixed["day"])}; {sentAway} sent away; memory {server.Memory / 1e6:0} MB",
                    rate == 300 ? "recording p95 20 ms, grid p95 40 ms" : ""
                )
            );
        }

        await Pace.QuietAsync(askers);
        var nothing = await Pace.AsFastAsync(askers, TimeSpan.FromSeconds(10), _ => "live");
        figures.Add(
            new(
                $"requests a second that do nothing, {Askers} askers without a pause",
                $"{nothing.Done / nothing.Seconds:0}/s, each {Pace.Times(nothing.Times)}"
            )
        );
        var most = await Pace.AsFastAsync(askers, TimeSpan.FromSeconds(10), _ => "record");
        figures.Add(
            new($"observations a second, {Askers} adults tapping without a pause", $"{most.Done / most.Seconds:0}/s, each {Pace.Times(most.Times)}", "1,500/s")
        );
        var all = await Pace.AsFastAsync(askers, TimeSpan.FromSeconds(10), _ => Pace.Mixed(random));
        figures.Add(new($"mixed questions a second, {Askers} adults without a pause", $"{all.Done / all.Seconds:0}/s, each {Pace.Times(all.Times)}", "400/s"));
        var (kept, answered) = (await CountAsync(Path.Combine(folder, "fobble.db")), askers.Sum(a => a.Recorded));
        figures.Add(new("questions without an answer", $"{askers.Sum(a => a.Unanswered)}", "0"));
        figures.Add(new("observations answered with “kept”, and rows of them in the database", $"{answered:n0}, {kept:n0}", "alike"));
        return figures;
    }

    /// <summary>Rows in the database of what askers recorded.</summary>
    public static async Task<long> CountAsync(string file)
    {
        await using SqliteConnection connection = new($"Data Source={file};Mode=ReadOnly;Pooling=False");
        await connection.OpenAsync();
        await using var command = connection.CreateCommand();
        command.CommandText = $"SELECT COUNT(*) FROM Observations WHERE Numbers = '{Asker.Mark}'";
        return (long)(await command.ExecuteScalarAsync())!;
    }
}
