using System.Globalization;
using Fobble.Core.Numbers;
using Fobble.Server.Tests.Faults;
using Microsoft.Data.Sqlite;

namespace Fobble.Bench;

/// <summary>
/// An hour of a large school on one server: 20 classes, a device each, fifty questions a second. What it looks for is no time but what an hour does to the process: a question without an
/// answer, and memory that only grows. FOBBLE_MINUTES makes it another length.
/// </summary>
internal static class HourBench
{
    private const int Classes = 20;
    private const int Rate = 50;
    private static readonly int Minutes = int.Parse(Environment.GetEnvironmentVariable("FOBBLE_MINUTES") ?? "60", CultureInfo.InvariantCulture);

    public static async Task<IReadOnlyList<Figure>> RunAsync()
    {
        var folder = Directory.CreateTempSubdirectory("fobble-hour-");
        Dictionary<string, string> settings = new() { ["Fobble__Demo"] = "true" };
        try
        {
            using (var first = await ServerProcess.ReadyAsync(folder.FullName, settings))
            {
                await first.EndAsync();
            }

            var file = Path.Combine(folder.FullName, "fobble.db");
            var classes = DistrictBench.Found(file, Classes);
            using var server = await ServerProcess.ReadyAsync(folder.FullName, settings);
            return await RunAsync(server, file, classes);
        }
        finally
        {
            folder.Delete(recursive: true);
        }
    }

    private static async Task<IReadOnlyList<Figure>> RunAsync(ServerProcess server, string file, IReadOnlyList<AskedClass> classes)
    {
        List<Asker> askers = [];
        foreach (var of in classes)
        {
            askers.Add(await Asker.ComeInAsync(server.Url, of, DistrictBench.EmailOf(of)));
        }

        SeededRandom random = new(60);
        List<(double Minute, double Memory)> memory = [];
        Dictionary<string, List<double>> first = [];
        Dictionary<string, List<double>> last = [];
        for (var minute = 1; minute <= Minutes; minute++)
        {
            last = await Pace.AtRateAsync([.. askers], Rate, TimeSpan.FromMinutes(1), _ => Pace.Mixed(random));
            first = minute == 1 ? last : first;
            memory.Add((minute, server.Memory / 1e6));
            Console.WriteLine($"  minute {minute}: {memory[^1].Memory:0} MB, grid {Pace.Times(last["grid"])}, recording {Pace.Times(last["record"])}");
        }

        string Of(IReadOnlyDictionary<string, List<double>> times) =>
            $"recording {Pace.Times(times["record"])}; grid {Pace.Times(times["grid"])}; day {Pace.Times(times["day"])}";

        Console.WriteLine(server.Said);

        // What a process needs to get going is no growth: from a sixth of the time on.
        var later = memory.Skip(Minutes / 6).ToList();
        return
        [
            new(
                $"{Minutes} minutes at {Rate}/s mixed (grid 25 %, day 35 %, recording 40 %), {Classes} classes of 26: questions, of them without an answer, sent away",
                $"{Minutes * 60 * Rate:n0}, {askers.Sum(a => a.Unanswered)}, {askers.Sum(a => a.SentAway)}",
                "0, 0"
            ),
            new(
                "observations answered with “kept”, and rows of them in the database",
                $"{askers.Sum(a => a.Recorded):n0}, {await LoadBench.CountAsync(file):n0}",
                "alike"
            ),
            new("the first minute", Of(first)),
            new("the last minute", Of(last)),
            new(
                $"memory: after {Minutes / 6} minutes, at its most, at the end; its slope from there on",
                $"{later[0].Memory:0}, {memory.Max(m => m.Memory):0}, {memory[^1].Memory:0} MB; {60 * Slope(later):0} MB an hour",
                "level"
            ),
            new(
                "lines of warning or worse in the log",
                $"{server.Said.Split('\n', StringSplitOptions.RemoveEmptyEntries | StringSplitOptions.TrimEntries).Length}",
                "0"
            ),
        ];
    }

    // Of the line with the least squares, a minute.
    private static double Slope(IReadOnlyList<(double X, double Y)> points)
    {
        var (x, y) = (points.Average(p => p.X), points.Average(p => p.Y));
        return points.Sum(p => (p.X - x) * (p.Y - y)) / points.Sum(p => (p.X - x) * (p.X - x));
    }
}
