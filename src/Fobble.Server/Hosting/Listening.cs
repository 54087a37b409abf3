using Microsoft.AspNetCore.HttpOverrides;

namespace Fobble.Server.Hosting;

/// <summary>Where the server is reached, and by what.</summary>
internal static class Listening
{
    private const int UsualPort = 5270;

    /// <summary>
    /// Unless it is said (<c>ASPNETCORE_URLS</c>), on this machine only, for a proxy or a look; and with a certificate by https for everybody.
    /// </summary>
    public static void Listen(this WebApplicationBuilder builder, FobbleSettings settings)
    {
        builder.WebHost.ConfigureKestrel(kestrel =>
        {
            kestrel.AddServerHeader = false;
            if (settings.Https.On)
            {
                var certificate = kestrel.ApplicationServices.GetRequiredService<Certificate>();
                kestrel.ConfigureHttpsDefaults(https => https.ServerCertificateSelector = (_, _) => certificate.OfNow());
            }
        });
        if (string.IsNullOrEmpty(builder.Configuration[WebHostDefaults.ServerUrlsKey]))
        {
            builder.WebHost.UseUrls([$"http://127.0.0.1:{UsualPort}", .. settings.Https.On ? [$"https://*:{settings.Https.Port}"] : (string[])[]]);
        }

        builder.Services.AddSingleton(settings.Https);
        builder.Services.AddSingleton<Certificate>();
        builder.Services.Configure<ForwardedHeadersOptions>(options =>
        {
            options.ForwardedHeaders = ForwardedHeaders.XForwardedFor | ForwardedHeaders.XForwardedProto;
            if (settings.Proxy is { } proxy)
            {
                options.KnownIPNetworks.Add(System.Net.IPNetwork.Parse(FobbleSettings.Range(proxy)));
            }
        });
        builder.Services.AddHttpsRedirection(options => options.HttpsPort = settings.Https.On ? settings.Https.Port : PortOf(settings.Address));
    }

    /// <summary>Whoever comes without https is sent to it; a watcher on this machine asks as it likes.</summary>
    public static void UseHttpsOnly(this IApplicationBuilder app, FobbleSettings settings)
    {
        if (settings.OverHttps)
        {
            app.UseWhen(
                context => !context.Request.Path.StartsWithSegments(Health.Address, StringComparison.OrdinalIgnoreCase),
                others => others.UseHttpsRedirection()
            );
        }
    }

    private static int? PortOf(string? address) => Uri.TryCreate(address, UriKind.Absolute, out var uri) && uri.Scheme == Uri.UriSchemeHttps ? uri.Port : null;
}
