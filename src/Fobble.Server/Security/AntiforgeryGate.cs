using Microsoft.AspNetCore.Antiforgery;

namespace Fobble.Server.Security;

/// <summary>Every request that changes something has to carry the token that only our own pages can read. Paths are compared as routing compares them.</summary>
internal sealed class AntiforgeryGate(RequestDelegate next, IAntiforgery antiforgery)
{
    /// <summary>Tells the client apart from a refusal: with a new token the same request may well be taken.</summary>
    private const string OutOfDate = "urn:fobble:out-of-date";

    public const string CookieName = "XSRF-TOKEN";

    public async Task InvokeAsync(HttpContext context)
    {
        var method = context.Request.Method;
        var changes = !HttpMethods.IsGet(method) && !HttpMethods.IsHead(method) && !HttpMethods.IsOptions(method);
        if (changes && context.Request.Path.StartsWithSegments("/api", StringComparison.OrdinalIgnoreCase) && !await antiforgery.IsRequestValidAsync(context))
        {
            await TypedResults
                .Problem(
                    Phrase("This page is out of date. Reload it and try again; nothing was changed."),
                    statusCode: StatusCodes.Status400BadRequest,
                    title: Phrase("Out of date"),
                    type: OutOfDate
                )
                .ExecuteAsync(context);
            return;
        }

        await next(context);
    }

    /// <summary>Hands the page the token for whoever is signed in now.</summary>
    public static void GiveToken(HttpContext context, IAntiforgery antiforgery)
    {
        var token = antiforgery.GetAndStoreTokens(context).RequestToken!;
        context.Response.Cookies.Append(
            CookieName,
            token,
            new CookieOptions
            {
                HttpOnly = false,
                SameSite = SameSiteMode.Strict,
                Secure = context.Request.IsHttps,
            }
        );
    }
}
