using System.Text.RegularExpressions;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Http;
using Microsoft.AspNetCore.Http.Metadata;
using Microsoft.AspNetCore.Routing;
using Microsoft.Extensions.DependencyInjection;

namespace Fobble.Server.Tests;

/// <param name="Type">Of the body: an address that takes a file is not found by anything else.</param>
internal sealed record Address(HttpMethod Method, string Path, string Type, IReadOnlyList<string?> Policies);

/// <summary>Every address there is, read from the application itself: one that is added is tested without anybody thinking of it.</summary>
internal static partial class Addresses
{
    /// <summary>Those that ask who one is.</summary>
    /// <param name="parts">What stands for the parts of an address; a number that nothing has for those that are not named.</param>
    public static IEnumerable<Address> Of(School school, IReadOnlyDictionary<string, string> parts) =>
        school
            .Services.GetRequiredService<IEnumerable<EndpointDataSource>>()
            .SelectMany(s => s.Endpoints)
            .OfType<RouteEndpoint>()
            .Where(e => e.RoutePattern.RawText!.StartsWith("/api", StringComparison.Ordinal) && e.Metadata.GetMetadata<IAllowAnonymous>() is null)
            .SelectMany(e =>
                (e.Metadata.GetMetadata<IHttpMethodMetadata>()?.HttpMethods ?? []).Select(m => new Address(
                    new HttpMethod(m),
                    Filled(e.RoutePattern.RawText!, parts),
                    e.Metadata.GetMetadata<IAcceptsMetadata>()?.ContentTypes[0] ?? "application/json",
                    [.. e.Metadata.GetOrderedMetadata<IAuthorizeData>().Select(a => a.Policy)]
                ))
            );

    private static string Filled(string pattern, IReadOnlyDictionary<string, string> parts) =>
        Part()
            .Replace(pattern, m =>
                parts.GetValueOrDefault(m.Groups[1].Value)
                ?? (m.Groups[1].Value == "id" && m.Value.Contains("guid", StringComparison.Ordinal) ? Guid.Empty.ToString() : "999")
            )
            .TrimEnd('/');

    [GeneratedRegex(@"\{(\w+)(:[^}]*)?\}")]
    private static partial Regex Part();
}
