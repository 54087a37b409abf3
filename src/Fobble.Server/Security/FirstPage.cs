using NetEscapades.AspNetCore.SecurityHeaders;

namespace Fobble.Server.Security;

/// <summary>The page that everything runs in. Each answer has a nonce of its own, which the styles that the interface's library writes at run time carry.</summary>
internal static class FirstPage
{
    private const string Place = "NONCE-OF-THIS-ANSWER";

    /// <summary>Answers for the page itself; built files that lie beside it are served as they are.</summary>
    public static void UseFirstPage(this IApplicationBuilder app) =>
        app.Use(
            async (context, next) =>
            {
                if (HttpMethods.IsGet(context.Request.Method) && context.Request.Path.Value is "/" or "/index.html")
                {
                    await WriteAsync(context);
                    return;
                }

                await next(context);
            }
        );

    public static async Task WriteAsync(HttpContext context)
    {
        var file = context.RequestServices.GetRequiredService<IWebHostEnvironment>().WebRootFileProvider.GetFileInfo("index.html");
        if (!file.Exists)
        {
            context.Response.StatusCode = StatusCodes.Status404NotFound;
            return;
        }

        using StreamReader reader = new(file.CreateReadStream());
        var page = (await reader.ReadToEndAsync(context.RequestAborted)).Replace(Place, context.GetNonce(), StringComparison.Ordinal);
        context.Response.ContentType = "text/html; charset=utf-8";
        context.Response.Headers.CacheControl = "no-cache";
        await context.Response.WriteAsync(page, context.RequestAborted);
    }
}
