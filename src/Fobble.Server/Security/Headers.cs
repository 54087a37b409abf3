using Microsoft.AspNetCore.StaticFiles;

namespace Fobble.Server.Security;

/// <summary>What browsers are told to refuse. Scripts come from this server only and never from within a page.</summary>
internal static class Headers
{
    // PrimeVue writes its theme into style elements at run time: they carry the answer's nonce.
    public static HeaderPolicyCollection Policy { get; } =
        new HeaderPolicyCollection()
            .AddFrameOptionsDeny()
            .AddContentTypeOptionsNoSniff()
            .AddReferrerPolicyNoReferrer()
            // Said over https only, and there by every answer.
            .AddStrictTransportSecurityMaxAge((int)TimeSpan.FromDays(365).TotalSeconds)
            .AddCrossOriginOpenerPolicy(policy => policy.SameOrigin())
            .AddContentSecurityPolicy(csp =>
            {
                csp.AddDefaultSrc().Self();
                csp.AddScriptSrc().Self();
                csp.AddStyleSrc().Self().WithNonce();
                csp.AddImgSrc().Self().Data();
                csp.AddFontSrc().Self();
                csp.AddConnectSrc().Self();
                csp.AddObjectSrc().None();
                csp.AddBaseUri().Self();
                csp.AddFormAction().Self();
                csp.AddFrameAncestors().None();
            });

    /// <summary>Answers are about children: no browser and nothing in between keeps them, unless an answer says otherwise of itself.</summary>
    public static Task KeepNoAnswerAsync(HttpContext context, RequestDelegate next)
    {
        if (context.Request.Path.StartsWithSegments("/api", StringComparison.OrdinalIgnoreCase))
        {
            context.Response.Headers.CacheControl = "no-store";
        }

        return next(context);
    }

    /// <summary>Built files carry a hash in their names and can be kept for good; the page itself is asked for again each time.</summary>
    public static void CacheByName(StaticFileResponseContext context) =>
        context.Context.Response.Headers.CacheControl = context.Context.Request.Path.StartsWithSegments("/assets", StringComparison.Ordinal)
            ? "public, max-age=31536000, immutable"
            : "no-cache";
}
