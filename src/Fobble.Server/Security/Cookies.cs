using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;

namespace Fobble.Server.Security;

/// <summary>The sign-in cookie. An API answers 401 and 403; it does not send anyone to a page.</summary>
internal static class Cookies
{
    /// <summary>How long a device stays signed in that nobody uses.</summary>
    public static readonly TimeSpan Lasts = TimeSpan.FromHours(12);

    /// <param name="overHttps">Whether browsers come by https only.</param>
    public static void Configure(CookieAuthenticationOptions options, bool overHttps)
    {
        options.Cookie.Name = "fobble";
        options.Cookie.HttpOnly = true;
        options.Cookie.SameSite = SameSiteMode.Strict;
        options.Cookie.SecurePolicy = overHttps ? CookieSecurePolicy.Always : CookieSecurePolicy.SameAsRequest;
        options.ExpireTimeSpan = Lasts;
        options.SlidingExpiration = true;
        options.Events.OnRedirectToLogin = context => Answer(context, StatusCodes.Status401Unauthorized);
        options.Events.OnRedirectToAccessDenied = context => Answer(context, StatusCodes.Status403Forbidden);
    }

    private static Task Answer(RedirectContext<CookieAuthenticationOptions> context, int status)
    {
        context.Response.StatusCode = status;
        return Task.CompletedTask;
    }
}
