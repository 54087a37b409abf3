using Fobble.Data;
using Microsoft.Extensions.Caching.Memory;

namespace Fobble.Server.Rooms;

/// <summary>
/// A page that many look at stays true until something is written, whatever it is: no list of what a page rests on could be trusted to be whole. Nor does it outlive the quarter of an
/// hour: a school's day begins with one, in whatever part of the world.
/// </summary>
internal sealed class UnchangedAnswers(ChangeWatch watch, TimeProvider clock) : IDisposable
{
    private const int MostBytes = 32_000_000;
    private static readonly TimeSpan Quarter = TimeSpan.FromMinutes(15);

    private readonly MemoryCache _answers = new(new MemoryCacheOptions { SizeLimit = MostBytes });

    /// <summary>Names what pages are made of, at this moment; to be asked for before they are read.</summary>
    public PagesOf Now() => new(watch.Version(), clock.GetUtcNow().Ticks / Quarter.Ticks);

    public PackedAnswer? Find(string question) => _answers.TryGetValue(question, out Kept? kept) && kept!.Of == Now() ? kept.Answer : null;

    /// <param name="of">As it was before the answer was read.</param>
    public void Keep(string question, PagesOf of, PackedAnswer answer)
    {
        using var entry = _answers.CreateEntry(question);
        (entry.Value, entry.Size, entry.SlidingExpiration) = (new Kept(of, answer), answer.Body.Length + question.Length, Quarter);
    }

    public void Dispose()
    {
        _answers.Dispose();
        watch.Dispose();
    }

    private sealed record Kept(PagesOf Of, PackedAnswer Answer);
}

/// <param name="Written">As <see cref="ChangeWatch"/> counts.</param>
/// <param name="Quarter">Of an hour, counted.</param>
internal readonly record struct PagesOf(long Written, long Quarter);
