using System.Collections.Concurrent;
using System.Diagnostics;
using System.Reflection;

namespace Fobble.Server.Hosting;

/// <summary>How long answers took since the start, by the part of Fobble they came from: of each the last few hundred.</summary>
internal sealed class PageTimes
{
    private const int Kept = 400;

    // Of fewer nothing can be said: the first ones after a start are slow.
    private const int Fewest = 20;
    private const string Features = "Fobble.Server.Features.";

    private readonly ConcurrentDictionary<string, ConcurrentQueue<double>> _seconds = new();

    public async Task TakeAsync(HttpContext context, RequestDelegate next)
    {
        var began = Stopwatch.GetTimestamp();
        await next(context);
        if (context.GetEndpoint() is { } answered && PartOf(answered) is { } part)
        {
            Add(part, Stopwatch.GetElapsedTime(began).TotalSeconds);
        }
    }

    public void Add(string part, double seconds)
    {
        var times = _seconds.GetOrAdd(part, _ => new());
        times.Enqueue(seconds);
        while (times.Count > Kept)
        {
            times.TryDequeue(out _);
        }
    }

    /// <summary>The slowest parts, the slowest first, with how long nineteen of twenty of their answers took at the most.</summary>
    public IReadOnlyList<(string Part, double Seconds)> Slowest(int most) =>
        [
            .. _seconds
                .Select(p => (p.Key, Times: p.Value.Order().ToList()))
                .Where(p => p.Times.Count >= Fewest)
                .Select(p => (p.Key, p.Times[(int)(p.Times.Count * 0.95)]))
                .OrderByDescending(p => p.Item2)
                .Take(most),
        ];

    // A feature's folder; its handlers are in it, or in a place below.
    private static string? PartOf(Endpoint answered) =>
        answered.Metadata.GetMetadata<MethodInfo>()?.DeclaringType?.Namespace is { } room && room.StartsWith(Features, StringComparison.Ordinal)
            ? room[Features.Length..].Split('.')[0]
            : null;
}
