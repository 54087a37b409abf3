using System.Reflection;
using System.Text.Json;
using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace Fobble.Server.Hosting;

/// <summary>
/// Makes the document say what the application does: every property is always there, and null only where its type allows it; what stands in
/// a query is written small, as it is everywhere else; and whatever stands in an address is asked for, whoever reads it.
/// </summary>
internal static class OpenApiShape
{
    public static void Configure(OpenApiOptions options)
    {
        options.AddSchemaTransformer(SayWhatIsAlwaysThere);
        options.AddOperationTransformer(
            (operation, context, _) =>
            {
                SayWhatTheAddressHolds(operation, context.Description.RelativePath ?? "");
                foreach (var parameter in (operation.Parameters ?? []).OfType<OpenApiParameter>().Where(p => p.In == ParameterLocation.Query))
                {
                    parameter.Name = JsonNamingPolicy.CamelCase.ConvertName(parameter.Name!);
                }

                return Task.CompletedTask;
            }
        );
    }

    // The class in an address is read by whoever opens its room, and no handler has to name it.
    private static void SayWhatTheAddressHolds(OpenApiOperation operation, string path)
    {
        operation.Parameters ??= [];
        if (path.Contains("{classId", StringComparison.Ordinal) && operation.Parameters.All(p => p.Name != "classId"))
        {
            operation.Parameters.Insert(
                0,
                new OpenApiParameter
                {
                    Name = "classId",
                    In = ParameterLocation.Path,
                    Required = true,
                    Schema = new OpenApiSchema { Type = JsonSchemaType.Integer, Format = "int32" },
                }
            );
        }
    }

    private static Task SayWhatIsAlwaysThere(OpenApiSchema schema, OpenApiSchemaTransformerContext context, CancellationToken stop)
    {
        if (schema.Properties is { Count: > 0 } properties)
        {
            // Of a change that is no more than its parts, what isn't named stays as it is.
            var mayBeLeftOut = context.JsonTypeInfo.Properties.Where(p => p is { AssociatedParameter: null, Set: not null, IsSetNullable: true });
            schema.Required = properties.Keys.Except(mayBeLeftOut.Select(p => p.Name)).ToHashSet();
            foreach (var property in context.JsonTypeInfo.Properties)
            {
                // Types without a public constructor (the core's guarded ones) are otherwise taken to be null anywhere.
                if (
                    property.AttributeProvider is PropertyInfo info
                    && new NullabilityInfoContext().Create(info).ReadState == NullabilityState.NotNull
                    && properties.TryGetValue(property.Name, out var found)
                    && found is OpenApiSchema { Type: { } type } own
                )
                {
                    own.Type = type & ~JsonSchemaType.Null;
                }
            }
        }

        return Task.CompletedTask;
    }
}
