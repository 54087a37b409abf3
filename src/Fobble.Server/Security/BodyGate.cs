using Fobble.Formats;

namespace Fobble.Server.Security;

/// <summary>A list with nothing among its members is refused before anybody counts on what is in it: the reader of JSON checks fields, and not what a list holds.</summary>
internal sealed class BodyGate(RequestDelegate next)
{
    public async Task InvokeAsync(HttpContext context)
    {
        var request = context.Request;
        if (request.HasJsonContentType() && request.Path.StartsWithSegments("/api", StringComparison.OrdinalIgnoreCase))
        {
            request.EnableBuffering();
            using MemoryStream body = new();
            await request.Body.CopyToAsync(body, context.RequestAborted);
            request.Body.Position = 0;
            RefusedException.Unless(
                !JsonLists.HoldNothing(body.GetBuffer().AsSpan(0, (int)body.Length)),
                "",
                Phrase("A list in what was sent holds nothing at one of its places. Nothing was changed.")
            );
        }

        await next(context);
    }
}
