using System.Text;
using System.Text.Json;
using System.Text.Json.Serialization;
using Fobble.Core.Pictures;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.Account;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <summary>The real application on a real SQLite file of its own, at a fixed moment. The demo fills it where a test wants history.</summary>
public sealed class School : WebApplicationFactory<Program>
{
    public static readonly JsonSerializerOptions Json = new(JsonSerializerDefaults.Web) { Converters = { new JsonStringEnumConverter(), new ShapeReader() } };

    private static readonly Lazy<string> FilledOnce = new(FillOnce);

    private const string DatabaseFile = "fobble.db";
    private const string UsualNow = "2026-11-25T08:00:00";

    private readonly string _folder;
    private readonly bool _demo;
    private readonly string _now;
    private readonly Action<IServiceCollection>? _otherwise;

    public School()
        : this(demo: true) { }

    private School(bool demo, bool fresh = false, string now = UsualNow, Action<IServiceCollection>? otherwise = null, string? folder = null)
    {
        (_demo, _now, _otherwise) = (demo, now, otherwise);
        _folder = folder ?? Directory.CreateTempSubdirectory("fobble-test-").FullName;
        if (demo && !fresh)
        {
            File.Copy(FilledOnce.Value, Path.Combine(_folder, DatabaseFile));
        }
    }

    public const string FirstCode = "green lantern";

    public static DateOnly Today { get; } = new(2026, 11, 25);

    /// <param name="otherwise">Puts another service in the place of one.</param>
    public static School Empty(string now = UsualNow, Action<IServiceCollection>? otherwise = null) => new(demo: false, now: now, otherwise: otherwise);

    /// <summary>The filled school at another moment: an instant, or a time by the clock of this machine.</summary>
    public static School At(string now) => new(demo: true, now: now);

    /// <summary>The filled school by a clock that is told how it goes.</summary>
    internal static School By(StandingClock clock) => new(demo: true, otherwise: services => services.AddSingleton<TimeProvider>(clock));

    /// <summary>The demo's adults on a data folder that is there, and goes with the school.</summary>
    public static School On(string folder) => new(demo: true, fresh: true, folder: folder);

    /// <summary>Where its data are.</summary>
    public string Folder => _folder;

    // The demo is played out once a run; each school of the tests gets a copy of its file. Nobody has it open while it is copied.
    private static string FillOnce()
    {
        var copy = Path.Combine(Directory.CreateTempSubdirectory("fobble-filled-").FullName, DatabaseFile);
        using (var first = new School(demo: true, fresh: true))
        {
            _ = first.Services;
            using (var scope = first.Scope())
            {
                first.Db(scope).Database.ExecuteSqlRaw("PRAGMA wal_checkpoint(TRUNCATE)");
            }

            File.Copy(Path.Combine(first._folder, DatabaseFile), copy);
        }

        return copy;
    }

    public IServiceScope Scope() => Services.CreateScope();

    public FobbleDb Db(IServiceScope scope) => scope.ServiceProvider.GetRequiredService<FobbleDb>();

    /// <summary>A browser that has opened the first page: it has the cookies, and sends the token back.</summary>
    public async Task<Visitor> VisitAsync()
    {
        var visitor = new Visitor(
            CreateClient(
                new WebApplicationFactoryClientOptions
                {
                    BaseAddress = new Uri("http://localhost"),
                    HandleCookies = true,
                    AllowAutoRedirect = false,
                }
            )
        );
        await visitor.StateAsync();
        return visitor;
    }

    public async Task<Visitor> ComeInAsAsync(string demoAdult)
    {
        var visitor = await VisitAsync();
        (await visitor.PostAsync($"/api/account/demo/{demoAdult}")).StatusCode.ShouldBe(HttpStatusCode.NoContent);
        await visitor.StateAsync();
        return visitor;
    }

    protected override void ConfigureWebHost(IWebHostBuilder builder)
    {
        builder.UseSetting("Fobble:Data", _folder);
        if (_otherwise is not null)
        {
            builder.ConfigureServices(_otherwise);
        }

        builder.UseSetting("Fobble:Demo", _demo.ToString());
        builder.UseSetting("Fobble:Now", _now);
        builder.UseSetting("Fobble:FirstCode", FirstCode);
        builder.UseSetting("Logging:LogLevel:Default", "None");
        // A fault is shown: a test that meets one by chance is understood from what it says.
        builder.UseSetting("Logging:LogLevel:Fobble.Server.Hosting.Problems", "Error");
    }

    protected override void Dispose(bool disposing)
    {
        // Pools of connections are not cleared: that would reach into the schools of tests that run beside this one.
        base.Dispose(disposing);
        if (Directory.Exists(_folder))
        {
            Directory.Delete(_folder, recursive: true);
        }
    }
}

/// <summary>Reads shapes, which the core lets nobody build but by its own factories.</summary>
internal sealed class ShapeReader : JsonConverter<Shape>
{
    public override Shape Read(ref Utf8JsonReader reader, Type typeToConvert, JsonSerializerOptions options)
    {
        var shape = JsonDocument.ParseValue(ref reader).RootElement;
        var (key, role) = (shape.GetProperty("key").GetString()!, Enum.Parse<ShapeRole>(shape.GetProperty("role").GetString()!));
        double N(string name) => shape.GetProperty(name).GetDouble();
        string Text() => shape.GetProperty("text").GetString()!;
        List<Point> Points() => shape.GetProperty("points").Deserialize<List<Point>>(options)!;
        return shape.GetProperty("kind").GetString() switch
        {
            "Circle" => Shape.Circle(key, role, N("x"), N("y"), N("width")),
            "Box" => Shape.Box(key, role, N("x"), N("y"), N("width"), N("height")),
            "Line" => Shape.Line(key, role, N("x"), N("y"), N("x") + N("width"), N("y") + N("height")),
            "Outline" => Shape.Outline(key, role, Points()),
            "Trail" => Shape.Trail(key, role, Points()),
            _ when shape.GetProperty("fromLeft").GetBoolean() => Shape.TextFrom(key, role, N("x"), N("y"), N("height"), Text()),
            _ => Shape.Label(key, role, N("x"), N("y"), N("height"), Text()),
        };
    }

    public override void Write(Utf8JsonWriter writer, Shape value, JsonSerializerOptions options) => throw new NotSupportedException();
}

public sealed class Visitor(HttpClient client)
{
    private readonly System.Collections.Concurrent.ConcurrentDictionary<string, string> _cookies = new();
    private string? _token;

    /// <summary>Whether the token is sent with what changes something.</summary>
    public bool SendsToken { get; set; } = true;

    public async Task<AccountState> StateAsync()
    {
        var response = await client.GetAsync(new Uri("/api/account/", UriKind.Relative));
        var cookie = response.Headers.GetValues("Set-Cookie").First(c => c.StartsWith("XSRF-TOKEN=", StringComparison.Ordinal));
        _token = Uri.UnescapeDataString(cookie["XSRF-TOKEN=".Length..cookie.IndexOf(';', StringComparison.Ordinal)]);
        return (await response.Content.ReadFromJsonAsync<AccountState>(School.Json))!;
    }

    /// <summary>What is sent along with every request.</summary>
    public Dictionary<string, string> Headers { get; } = [];

    /// <summary>The cookies that the server has set, for what does not go through this visitor's client.</summary>
    public string Cookies => string.Join("; ", _cookies.Select(c => $"{c.Key}={c.Value}"));

    public async Task<HttpResponseMessage> SendAsync(HttpMethod method, string path, HttpContent? body = null, CancellationToken stop = default)
    {
        var request = new HttpRequestMessage(method, path) { Content = body };
        foreach (var (name, value) in Headers)
        {
            request.Headers.Add(name, value);
        }

        if (SendsToken && method != HttpMethod.Get)
        {
            request.Headers.Add("X-XSRF-TOKEN", _token);
        }

        var response = await client.SendAsync(request, stop);
        foreach (var cookie in response.Headers.TryGetValues("Set-Cookie", out var set) ? set : [])
        {
            var pair = cookie[..cookie.IndexOf(';', StringComparison.Ordinal)].Split('=', 2);
            _cookies[pair[0]] = pair[1];
        }

        return response;
    }

    public Task<HttpResponseMessage> GetAsync(string path) => SendAsync(HttpMethod.Get, path);

    public Task<HttpResponseMessage> PostAsync(string path, object? body = null) =>
        SendAsync(HttpMethod.Post, path, body is null ? null : JsonContent.Create(body, options: School.Json));

    public Task<HttpResponseMessage> PutAsync(string path, object body) => SendAsync(HttpMethod.Put, path, JsonContent.Create(body, options: School.Json));

    public Task<HttpResponseMessage> PatchAsync(string path, object body) => SendAsync(HttpMethod.Patch, path, JsonContent.Create(body, options: School.Json));

    public Task<HttpResponseMessage> PostCsvAsync(string path, string csv) =>
        SendAsync(HttpMethod.Post, path, new StringContent(csv, Encoding.UTF8, "text/csv"));

    public async Task<T> ReadAsync<T>(string path) => await ReadAsync<T>(await GetAsync(path));

    public static async Task<T> ReadAsync<T>(HttpResponseMessage response)
    {
        response.StatusCode.ShouldBe(HttpStatusCode.OK, await response.Content.ReadAsStringAsync());
        return (await response.Content.ReadFromJsonAsync<T>(School.Json))!;
    }

    public static async Task<string> SaysAsync(HttpResponseMessage response)
    {
        using var problem = JsonDocument.Parse(await response.Content.ReadAsStringAsync());
        return problem.RootElement.TryGetProperty("detail", out var detail) ? detail.GetString() ?? "" : "";
    }
}
