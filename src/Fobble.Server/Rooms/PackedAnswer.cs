using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.AspNetCore.Http.Json;
using Microsoft.AspNetCore.ResponseCompression;
using Microsoft.Extensions.Options;
using Microsoft.Net.Http.Headers;

namespace Fobble.Server.Rooms;

/// <summary>An answer as it goes to whoever asked, written out and packed once for all of them: of a large page that is more work than working it out.</summary>
/// <param name="Encoding">What it is packed with; null where it is not.</param>
/// <param name="Tag">Another one for every other body: whoever has it already is told so and sent nothing.</param>
internal sealed record PackedAnswer(ReadOnlyMemory<byte> Body, string? Encoding, EntityTagHeaderValue Tag) : IResult
{
    private const string ContentType = "application/json; charset=utf-8";

    /// <summary>How whoever asks takes it; null for as it is.</summary>
    public static ICompressionProvider? PackingFor(HttpContext http)
    {
        var packing = http.RequestServices.GetRequiredService<IResponseCompressionProvider>();

        // It looks at what the answer will be; there is none yet.
        http.Response.ContentType = ContentType;
        var taken = packing.CheckRequestAcceptsCompression(http) && packing.ShouldCompressResponse(http);
        http.Response.ContentType = null;
        return taken ? packing.GetCompressionProvider(http) : null;
    }

    /// <returns>What was answered as it is, where it is no page: a refusal.</returns>
    public static object Of(object? answer, ICompressionProvider? packing, HttpContext http)
    {
        answer = answer is INestedHttpResult nested ? nested.Result : answer;
        if (answer is not IValueHttpResult { Value: { } page } || answer is IStatusCodeHttpResult { StatusCode: not (null or StatusCodes.Status200OK) })
        {
            return answer ?? Results.Empty;
        }

        var json = http.RequestServices.GetRequiredService<IOptions<JsonOptions>>().Value.SerializerOptions;
        using MemoryStream body = new();
        using (var packed = packing?.CreateStream(body))
        {
            JsonSerializer.Serialize(packed ?? body, page, page.GetType(), json);
        }

        var bytes = body.GetBuffer().AsMemory(0, (int)body.Length);
        return new PackedAnswer(bytes, packing?.EncodingName, new($"\"{Convert.ToHexStringLower(SHA256.HashData(bytes.Span)[..16])}\""));
    }

    public async Task ExecuteAsync(HttpContext httpContext)
    {
        var response = httpContext.Response;
        response.Headers.Append("Vary", "Accept-Encoding");
        response.GetTypedHeaders().ETag = Tag;
        if (httpContext.Request.GetTypedHeaders().IfNoneMatch.Any(has => has.Compare(Tag, useStrongComparison: true)))
        {
            response.StatusCode = StatusCodes.Status304NotModified;
            return;
        }

        response.ContentType = ContentType;
        response.ContentLength = Body.Length;
        if (Encoding is not null)
        {
            response.Headers.ContentEncoding = Encoding;
        }

        await response.Body.WriteAsync(Body, httpContext.RequestAborted);
    }
}
