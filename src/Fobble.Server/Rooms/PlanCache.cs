using Fobble.Data;
using Fobble.Server.Features.Planning;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Caching.Hybrid;

namespace Fobble.Server.Rooms;

/// <summary>Plans as they were read and taken apart: a version never changes, and every page that shows the week asks for it.</summary>
internal sealed class PlanCache(HybridCache cache)
{
    private static readonly HybridCacheEntryOptions Keep = new() { Expiration = TimeSpan.FromMinutes(20), LocalCacheExpiration = TimeSpan.FromMinutes(20) };

    public ValueTask<PlanDocument> OfAsync(FobbleDb db, int planId, CancellationToken stop) =>
        cache.GetOrCreateAsync(
            $"plan/{planId}",
            (db, planId),
            static async (of, stop) => PlanDocument.Read(await of.db.YearPlans.Where(p => p.Id == of.planId).Select(p => p.Document).FirstAsync(stop)),
            Keep,
            cancellationToken: stop
        );
}
