using System.Diagnostics;
using Fobble.Core.Numbers;

namespace Fobble.Bench;

/// <summary>Questions at their times, whether the one before is answered or not; or as many as are answered.</summary>
internal static class Pace
{
    public static string Mixed(SeededRandom random) =>
        random.Next(100) switch
        {
            < 25 => "grid",
            < 60 => "day",
            _ => "record",
        };

    public static string Times(IReadOnlyCollection<double> times) =>
        times.Count == 0 ? "none answered" : $"p50 {times.At(0.5):0.0} ms, p95 {times.At(0.95):0.0} ms";

    // Until what nobody waits for any more has been worked off.
    public static async Task QuietAsync(Asker[] askers)
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

    public static async Task<Dictionary<string, List<double>>> AtRateAsync(Asker[] askers, int rate, TimeSpan lasts, Func<int, string> what)
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
                    catch (Exception fault) when (fault is TaskCanceledException or HttpRequestException)
                    {
                        // Nobody waits so long: counted as that long, and by whoever asked.
                    }

                    return (question, Stopwatch.GetElapsedTime(sent).TotalMilliseconds);
                })
            );
        }

        return (await Task.WhenAll(asked)).GroupBy(a => a.What).ToDictionary(g => g.Key, g => g.Select(a => a.Time).ToList());
    }

    public static async Task<(int Done, double Seconds, List<double> Times)> AsFastAsync(Asker[] askers, TimeSpan lasts, Func<int, string> what)
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
}
