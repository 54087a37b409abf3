using System.Diagnostics;
using System.Net.Http.Json;
using Microsoft.AspNetCore.Mvc.Testing;

namespace Fobble.Bench;

/// <summary>Whether the time of a refused sign-in tells who has an account: a wrong password, an address that nobody has, and one that was tried too often, in turn.</summary>
internal static class SignInBench
{
    // Ten wrong ones of an address from one sender within ten minutes count; what comes after is refused unseen, in the same time.
    private const int Rounds = 9;
    private const int MoreRounds = 40;

    public static async Task<IReadOnlyList<Figure>> RunAsync()
    {
        var folder = Directory.CreateTempSubdirectory("fobble-bench-").FullName;
        await using ServerBench.Application application = new(folder);
        using var client = application.CreateClient(new WebApplicationFactoryClientOptions { HandleCookies = true });
        await ServerBench.TokenAsync(client);
        async Task<double> TryAsync(string email)
        {
            using var body = JsonContent.Create(new { email, password = "not the one" });
            var watch = Stopwatch.StartNew();
            using var answer = await client.PostAsync(new Uri("/api/account/sign-in", UriKind.Relative), body);
            return watch.Elapsed.TotalMilliseconds;
        }

        for (var i = 0; i < 5; i++)
        {
            await TryAsync($"warm{i}@lantern-hill.example");
        }

        string[] adults = ["ines", "tomasz", "maeve"];
        List<double> wrong = [];
        List<double> unknown = [];
        List<double> often = [];
        for (var i = 0; i < Rounds; i++)
        {
            foreach (var adult in adults)
            {
                wrong.Add(await TryAsync($"{adult}@lantern-hill.example"));
                unknown.Add(await TryAsync($"nobody{i}{adult}@lantern-hill.example"));
            }
        }

        await TryAsync("ines@lantern-hill.example");
        for (var i = 0; i < MoreRounds; i++)
        {
            often.Add(await TryAsync("ines@lantern-hill.example"));
            unknown.Add(await TryAsync($"nobody{i}@lantern-hill.example"));
        }

        return
        [
            new("sign-in refused: wrong password", In(wrong)),
            new("sign-in refused: nobody has the address", In(unknown)),
            new("sign-in refused: tried too often", In(often), "alike within noise"),
        ];
    }

    private static string In(List<double> times) =>
        $"median {times.At(0.5):0.0} ms, p10 {times.At(0.1):0.0} ms, p90 {times.At(0.9):0.0} ms, {times.Count} tries";
}
