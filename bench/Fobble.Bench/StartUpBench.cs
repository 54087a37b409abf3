using System.Diagnostics;

namespace Fobble.Bench;

/// <summary>From starting the process to the first healthy answer: on a new demo, and on one that is filled.</summary>
internal static class StartUpBench
{
    public static async Task<IReadOnlyList<Figure>> RunAsync(string root)
    {
        var data = Directory.CreateTempSubdirectory("fobble-start-").FullName;
        var filling = await StartAsync(root, data);
        List<double> later = [];
        for (var i = 0; i < 5; i++)
        {
            later.Add(await StartAsync(root, data));
        }

        return
        [
            new("start-up of a filled demo, process to first answer, median of 5", $"{later.At(0.5):0.0} s", "under 2 s"),
            new("first start of the demo, with two classes and eight weeks of history made", $"{filling:0.0} s", "under 20 s"),
        ];
    }

    private static async Task<double> StartAsync(string root, string data)
    {
        const string Url = "http://127.0.0.1:5397";
        var start = new ProcessStartInfo("dotnet", "bin/Release/net10.0/Fobble.Server.dll")
        {
            WorkingDirectory = Path.Combine(root, "src", "Fobble.Server"),
            RedirectStandardOutput = true,
        };
        start.Environment["ASPNETCORE_URLS"] = Url;
        start.Environment["Fobble__Data"] = data;
        start.Environment["Fobble__Demo"] = "true";
        start.Environment["Logging__LogLevel__Default"] = "None";
        using var client = new HttpClient();
        var watch = Stopwatch.StartNew();
        using var process = Process.Start(start)!;
        try
        {
            while (true)
            {
                try
                {
                    if ((await client.GetAsync(new Uri(Url + "/health"))).IsSuccessStatusCode)
                    {
                        return watch.Elapsed.TotalSeconds;
                    }
                }
                catch (HttpRequestException) when (watch.Elapsed < TimeSpan.FromMinutes(1))
                {
                    await Task.Delay(10);
                }
            }
        }
        finally
        {
            process.Kill();
            await process.WaitForExitAsync();
        }
    }
}
