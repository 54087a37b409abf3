using System.Reflection;
using System.Text.Json;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Fobble.Server.Hosting;

/// <summary>
/// Makes the document say what the application does: every property is always there, and null only where its type allows it; what stands in
/// a query is written small, as it is everywhere else.
/// </summary>
internal static class OpenApiShape
{
    public static void Configure(OpenApiOptions options)
    {
        options.AddSchemaTransformer(SayWhatIsAlwaysThere);
        options.AddOperationTransformer((operation, _, _) =>
        {
            foreach (var parameter in (operation.Parameters ?? []).OfType<OpenApiParameter>().Where(p => p.In == ParameterLocation.Query))
            {
                parameter.Name = JsonNamingPolicy.CamelCase.ConvertName(parameter.Name!);
            }

            return Task.CompletedTask;
        });
    }

    private static Task SayWhatIsAlwaysThere(OpenApiSchema schema, OpenApiSchemaTransformerContext context, CancellationToken stop)
    {
        if (schema.Properties is { Count: > 0 } properties)
        {
            schema.Required = properties.Keys.ToHashSet();
            foreach (var property in context.JsonTypeInfo.Properties)
            {
                // Types without a public constructor (the core's guarded ones) are otherwise taken to be null anywhere.
                if (property.AttributeProvider is PropertyInfo info
                    && new NullabilityInfoContext().Create(info).ReadState == NullabilityState.NotNull
                    && properties.TryGetValue(property.Name, out var found) && found is OpenApiSchema { Type: { } type } own)
                {
                    own.Type = type & ~JsonSchemaType.Null;
                }
            }
        }

        return Task.CompletedTask;
    }
}
