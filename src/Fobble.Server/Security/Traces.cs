using System.Globalization;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Rooms;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Security;

/// <summary>Writes down who signed in, took something out or changed what a school answers for; kept for a year. What was refused otherwise leaves none.</summary>
internal sealed class Traces(IServiceScopeFactory scopes, WriteQueue queue, TimeProvider clock)
{
    /// <summary>"Usually some months to a year" (common practice); the school's officer may want it otherwise.</summary>
    public static readonly TimeSpan Kept = TimeSpan.FromDays(365);

    private const string About = "fobble:about";

    /// <summary>Names the adult it is done to, where the address does not.</summary>
    public static void Of(HttpContext http, Adult adult) => http.Items[About] = adult.Id;

    /// <param name="adult">Who did it, where nobody is signed in; null where it is not known.</param>
    public Task LeaveAsync(TraceKind kind, HttpContext http, Adult? adult) => LeaveAsync(kind, http, adult?.Id, adult?.FullName ?? "");

    /// <summary>Of whoever is signed in, about what the address names.</summary>
    public Task LeaveAsync(TraceKind kind, HttpContext http)
    {
        var (id, name) = http.User.Adult();
        return LeaveAsync(kind, http, id.Value, name);
    }

    private async Task LeaveAsync(TraceKind kind, HttpContext http, int? adultId, string who)
    {
        // Whoever goes away meanwhile leaves a trace all the same.
        var stop = CancellationToken.None;
        await using var scope = scopes.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<FobbleDb>();
        var now = clock.GetUtcNow();
        var classId = Named(http, "classId");
        TraceRow trace = new()
        {
            At = now,
            Kind = kind,
            SchoolId = classId is { } id
                ? await db.Classes.Where(c => c.Id == id).Select(c => (int?)c.SchoolId).FirstOrDefaultAsync(stop)
                : await db.SchoolLeads.Where(l => l.AdultId == adultId).Select(l => (int?)l.SchoolId).FirstOrDefaultAsync(stop)
                    ?? await db.Memberships.Where(m => m.AdultId == adultId).Select(m => (int?)m.Class!.SchoolId).FirstOrDefaultAsync(stop),
            Who = who,
            ClassId = classId,
            ChildId = Named(http, "childId"),
            AboutId = http.Items[About] as int? ?? Named(http, "adultId"),
        };
        using (await queue.WaitAsync(stop))
        {
            await db.Traces.Where(t => t.At < now - Kept).ExecuteDeleteAsync(stop);
            db.Traces.Add(trace);
            await db.SaveChangesAsync(stop);
        }
    }

    private static int? Named(HttpContext http, string part) =>
        int.TryParse(http.GetRouteValue(part) as string, NumberStyles.None, CultureInfo.InvariantCulture, out var id) ? id : null;
}

/// <summary>On an address: what whoever comes by leaves.</summary>
internal sealed record LeavesTrace(TraceKind Kind);

internal static class TraceEndpoints
{
    /// <summary>Whoever does this, and is not refused, leaves a trace before the answer goes.</summary>
    public static TBuilder WithTrace<TBuilder>(this TBuilder endpoint, TraceKind kind)
        where TBuilder : IEndpointConventionBuilder
    {
        endpoint.WithMetadata(new LeavesTrace(kind));
        return endpoint.AddEndpointFilter(
            async (context, next) =>
            {
                var result = await next(context);
                var answer = result is INestedHttpResult nested ? nested.Result : result;
                if (answer is not IStatusCodeHttpResult { StatusCode: >= StatusCodes.Status400BadRequest })
                {
                    await context.HttpContext.RequestServices.GetRequiredService<Traces>().LeaveAsync(kind, context.HttpContext);
                }

                return result;
            }
        );
    }
}
