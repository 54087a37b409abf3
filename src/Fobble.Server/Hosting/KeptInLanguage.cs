using System.Globalization;
using Microsoft.Extensions.Caching.Hybrid;

namespace Fobble.Server.Hosting;

/// <summary>What is kept says something, in a language. The cache makes it on a thread that knows nothing of who asked; so the language goes with the key and into the making.</summary>
internal static class KeptInLanguage
{
    public static ValueTask<T> KeptAsync<T>(
        this HybridCache cache,
        string key,
        Func<CancellationToken, ValueTask<T>> make,
        HybridCacheEntryOptions keep,
        CancellationToken stop
    )
    {
        var language = CultureInfo.CurrentUICulture;
        return cache.GetOrCreateAsync(
            $"{language.Name}/{key}",
            async until =>
            {
                CultureInfo.CurrentUICulture = language;
                return await make(until);
            },
            keep,
            cancellationToken: stop
        );
    }
}
