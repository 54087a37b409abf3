using System.Net.Http.Json;

namespace Fobble.Bench;

/// <summary>Of which an adult asks.</summary>
internal sealed record AskedClass(int Id, IReadOnlyList<int> Children);

/// <summary>One adult at one device.</summary>
internal sealed class Asker(HttpClient client, AskedClass of)
{
    public const string Mark = "see:3";
    public const string Password = "four kites over water";
    private static readonly string Day = DateTime.Today.ToString("yyyy-MM-dd", System.Globalization.CultureInfo.InvariantCulture);
    private int _recorded;
    private int _child;
    private int _sentAway;
    private int _unanswered;

    public int Recorded => _recorded;

    /// <summary>Questions that were answered with “too much to work out just now”.</summary>
    public int SentAway => _sentAway;

    /// <summary>Questions whose answer did not come in the time an adult waits, or was a fault.</summary>
    public int Unanswered => _unanswered;

    public static async Task<Asker> ComeInAsync(Uri url, AskedClass of, string? email = null)
    {
        HttpClient client = new(new SocketsHttpHandler { AutomaticDecompression = System.Net.DecompressionMethods.All })
        {
            BaseAddress = url,
            Timeout = TimeSpan.FromSeconds(20),
        };
        await ServerBench.TokenAsync(client);
        using var come = email is null
            ? await client.PostAsync(new Uri("/api/account/demo/ines", UriKind.Relative), null)
            : await client.PostAsJsonAsync(new Uri("/api/account/sign-in", UriKind.Relative), new { email, password = Password });
        come.EnsureSuccessStatusCode();
        await ServerBench.TokenAsync(client);
        return new(client, of);
    }

    public async Task AskAsync(string what)
    {
        try
        {
            await (
                what switch
                {
                    "live" => GetAsync("/health/live"),
                    "grid" => GetAsync($"/api/classes/{of.Id}/grid"),
                    "day" => GetAsync($"/api/classes/{of.Id}/days/{Day}"),
                    _ => RecordAsync(),
                }
            );
        }
        catch (Exception fault) when (fault is HttpRequestException or TaskCanceledException)
        {
            Interlocked.Increment(ref _unanswered);
            throw;
        }
    }

    public async Task GetAsync(string path)
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
                childId = of.Children[(Interlocked.Increment(ref _child) & int.MaxValue) % of.Children.Count],
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
        using var answer = await client.PostAsync(new Uri($"/api/classes/{of.Id}/observations", UriKind.Relative), body);
        answer.EnsureSuccessStatusCode();
        Interlocked.Increment(ref _recorded);
    }
}
