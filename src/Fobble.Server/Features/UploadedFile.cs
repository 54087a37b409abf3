using Microsoft.AspNetCore.Http.HttpResults;

namespace Fobble.Server.Features;

/// <summary>The body of a request that is a file.</summary>
internal static class UploadedFile
{
    /// <returns>Null where it is larger than it may be.</returns>
    public static async Task<byte[]?> ReadAsync(Stream body, int largest, CancellationToken stop)
    {
        using var buffer = new MemoryStream();
        var part = new byte[16_384];
        int read;
        while ((read = await body.ReadAsync(part, stop)) > 0)
        {
            if (buffer.Length + read > largest)
            {
                return null;
            }

            buffer.Write(part, 0, read);
        }

        return buffer.ToArray();
    }

    public static ProblemHttpResult TooLarge(string what, int largest) =>
        TypedResults.Problem(
            Phrase($"The file is larger than {what} can be ({largest / 1_000_000} MB). Nothing was changed."),
            statusCode: StatusCodes.Status413PayloadTooLarge,
            title: Phrase("Too large")
        );
}
