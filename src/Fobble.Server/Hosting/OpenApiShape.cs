using Microsoft.AspNetCore.OpenApi;

namespace Fobble.Server.Hosting;

/// <summary>Makes the document say what the serializer does: every property that can't be null is always there.</summary>
internal static class OpenApiShape
{
    public static void Configure(OpenApiOptions options) => options.AddSchemaTransformer((schema, _, _) =>
    {
        if (schema.Properties is { Count: > 0 } properties)
        {
            schema.Required = properties.Keys.ToHashSet();
        }

        return Task.CompletedTask;
    });
}
