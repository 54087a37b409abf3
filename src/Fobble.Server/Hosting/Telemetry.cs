using OpenTelemetry.Metrics;
using OpenTelemetry.Trace;

namespace Fobble.Server.Hosting;

/// <summary>
/// Hands what is measured on, where somebody has asked for it: to a Prometheus that asks this machine (<see cref="FobbleSettings.Prometheus"/>), or to a collector of OpenTelemetry
/// (<c>OTEL_EXPORTER_OTLP_ENDPOINT</c>, which gets spans as well). Otherwise none of it is there.
/// </summary>
internal static class Telemetry
{
    private const string Collector = "OTEL_EXPORTER_OTLP_ENDPOINT";

    public static void AddTelemetry(this WebApplicationBuilder builder, FobbleSettings settings)
    {
        var collected = !string.IsNullOrEmpty(builder.Configuration[Collector]);
        if (!collected && settings.Prometheus is null)
        {
            return;
        }

        builder.Services.AddSingleton<Gauges>();
        var telemetry = builder
            .Services.AddOpenTelemetry()
            .WithMetrics(metrics =>
            {
                metrics.AddMeter(
                    Measured.Name,
                    Measured.Name + ".Now",
                    "Microsoft.AspNetCore.Hosting",
                    "Microsoft.AspNetCore.Server.Kestrel",
                    "System.Runtime"
                );
                if (settings.Prometheus is not null)
                {
                    metrics.AddPrometheusExporter();
                }

                if (collected)
                {
                    metrics.AddOtlpExporter();
                }
            });
        if (collected)
        {
            // Addresses hold numbers of children, and what comes behind a question mark can hold more: spans are named by the form of an address.
            telemetry.WithTracing(spans =>
                spans
                    .AddAspNetCoreInstrumentation(asked => asked.EnrichWithHttpRequest = (span, _) => span.SetTag("url.path", null))
                    .AddSource(Measured.Name)
                    .AddOtlpExporter()
            );
        }

        if (settings.Prometheus is { } port)
        {
            var urls = builder.Configuration[WebHostDefaults.ServerUrlsKey];
            builder.WebHost.UseUrls([.. (urls ?? "").Split(';', StringSplitOptions.RemoveEmptyEntries), $"http://127.0.0.1:{port}"]);
        }
    }

    /// <summary>At the port for Prometheus there is nothing else, and it is nowhere else.</summary>
    public static void UseTelemetry(this WebApplication app, FobbleSettings settings)
    {
        // Made now: they are asked by nobody who knows of them.
        _ = app.Services.GetService<Gauges>();
        if (settings.Prometheus is { } port)
        {
            app.MapWhen(
                context => context.Connection.LocalPort == port,
                only =>
                {
                    only.UseOpenTelemetryPrometheusScrapingEndpoint();
                    only.Run(context =>
                    {
                        context.Response.StatusCode = StatusCodes.Status404NotFound;
                        return Task.CompletedTask;
                    });
                }
            );
        }
    }
}
