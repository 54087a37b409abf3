using System.Globalization;
using System.Text.Json;
using Fobble.Data;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Hosting;

/// <summary>
/// The language in which the application speaks: that of the place where the school is. A language is a file of <c>Languages/</c>, English to the other, beside the one of the same name in the client;
/// a place without a file of its own hears the English that stands in the code.
/// </summary>
public sealed class SchoolLanguage(FobbleSettings settings, IServiceScopeFactory scopes)
{
    private const string Usual = "en-GB";
    private volatile CultureInfo? _known;

    /// <summary>Has every language ready that there is a file of.</summary>
    public static void LearnAll()
    {
        var folder = new DirectoryInfo(Path.Combine(AppContext.BaseDirectory, "Languages"));
        foreach (var file in folder.GetFiles("*.json"))
        {
            using var text = file.OpenRead();
            Learn(Path.GetFileNameWithoutExtension(file.Name), JsonSerializer.Deserialize<Dictionary<string, string>>(text)!);
        }
    }

    /// <summary>A BCP 47 tag, as the client loads its texts by.</summary>
    public async ValueTask<CultureInfo> NowAsync(CancellationToken stop)
    {
        if (_known is { } known)
            return known;
        await using var scope = scopes.CreateAsyncScope();
        var tag = settings.Language
            ?? await scope.ServiceProvider.GetRequiredService<FobbleDb>().Schools.OrderBy(s => s.Id).Select(s => s.Locale).FirstOrDefaultAsync(stop);
        return _known = CultureInfo.GetCultureInfo(tag ?? Usual);
    }

    /// <summary>The school has moved, or has come to be.</summary>
    public void Changed() => _known = null;

    /// <summary>What a request says, it says in the school's language.</summary>
    public async Task SpeakAsync(HttpContext context, RequestDelegate next)
    {
        CultureInfo.CurrentUICulture = await NowAsync(context.RequestAborted);
        await next(context);
    }
}
