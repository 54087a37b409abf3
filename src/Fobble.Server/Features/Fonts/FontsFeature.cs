using System.Text;
using Fobble.Formats.Fonts;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.Net.Http.Headers;

namespace Fobble.Server.Features.Fonts;

/// <summary>Fonts for names in any script, the same that paper has, as a browser asks for them: rules first, then the few pieces that a page needs.</summary>
internal sealed class FontsFeature : IFeature
{
    private const string Address = "/api/fonts";

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        var fonts = api.MapGroup("/fonts").AllowAnonymous();
        fonts.MapGet("/names.css", (HttpContext context) => Rules(context, han: false));
        fonts.MapGet("/han.css", (HttpContext context) => Rules(context, han: true));
        fonts.MapGet("/{piece}.woff", Piece);
    }

    private static FileContentHttpResult Rules(HttpContext context, bool han)
    {
        Keep(context);
        return TypedResults.File(Encoding.UTF8.GetBytes(NameFonts.Css(piece => $"{Address}/{piece}.woff", han)), "text/css; charset=utf-8");
    }

    private static Results<FileContentHttpResult, NotFound> Piece(HttpContext context, string piece)
    {
        if (NameFonts.Woff(piece) is not { } font)
        {
            return TypedResults.NotFound();
        }

        Keep(context);
        return TypedResults.File(font, "font/woff");
    }

    // They change with a new version of the fonts only.
    private static void Keep(HttpContext context) =>
        context.Response.GetTypedHeaders().CacheControl = new CacheControlHeaderValue { Public = true, MaxAge = TimeSpan.FromDays(30) };
}
