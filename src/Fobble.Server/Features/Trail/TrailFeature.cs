using Fobble.Core.Skills;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Trail;

/// <summary>What is asked of the trail; all of it may be left out.</summary>
/// <param name="By">Only what this adult recorded or withdrew.</param>
public sealed record TrailQuestion(DateOnly? From, DateOnly? To, int? Child, int? By, bool? OnlyWithdrawn);

public sealed record TrailEntry(int ChildId, string Child, SeenOnce Seen);

public sealed record TrailAdult(int Id, string Name);

/// <param name="More">There is more than is shown; ask for fewer days.</param>
public sealed record TrailView(DateOnly From, DateOnly To, IReadOnlyList<TrailEntry> Entries, bool More, IReadOnlyList<TrailAdult> Adults);

/// <summary>Who recorded what when, who withdrew it, and why. Nothing is ever taken out of it.</summary>
internal sealed class TrailFeature : IFeature
{
    private const int Most = 300;
    private const int UsualDays = 7;

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass) => ofClass.MapGet("/trail", GetAsync);

    private static async Task<Ok<TrailView>> GetAsync(ClassRoom room, [AsParameters] TrailQuestion asked, CancellationToken stop)
    {
        var to = asked.To ?? room.Today;
        var from = asked.From ?? to.AddDays(-UsualDays);
        var names = (await room.ChildrenAsync(stop)).ToDictionary(c => c.Id, c => c.Name);

        // A day counts for when it was seen and for when it was withdrawn: a correction of today shows today. Asked one after the other, each by its own index; together, SQLite would look
        // through all that was ever seen of the class.
        var (start, end) = (room.Zone.StartOf(from), room.Zone.StartOf(to.AddDays(1)));
        List<long> those =
        [
            .. await room.Seen().Where(o => o.Day >= from && o.Day <= to).Select(o => o.Sequence).ToListAsync(stop),
            .. await room.Seen()
                .Where(o => room.Db.Withdrawals.Where(w => w.At >= start && w.At < end).Select(w => w.ObservationId).Contains(o.Id))
                .Select(o => o.Sequence)
                .ToListAsync(stop),
        ];
        var rows = room.Db.Observations.Where(o => those.Contains(o.Sequence));
        rows = asked.Child is { } child ? rows.Where(o => o.ChildId == child) : rows;
        rows = asked.By is { } by ? rows.Where(o => o.AdultId == by || o.Withdrawal!.AdultId == by) : rows;
        rows = asked.OnlyWithdrawn == true ? rows.Where(o => o.Withdrawal != null) : rows;
        var newest = rows.OrderByDescending(o => o.At).Take(Most + 1);
        var seen = await newest.Select(SeenRecord.Projection).ToListAsync(stop);
        var whose = await newest.Select(o => new { o.Id, o.ChildId }).ToDictionaryAsync(o => o.Id, o => o.ChildId, stop);
        var adults = await room
            .Db.Memberships.Where(m => m.ClassId == room.Id.Value)
            .Select(m => new TrailAdult(m.AdultId, m.Adult!.FullName))
            .ToListAsync(stop);
        return TypedResults.Ok(
            new TrailView(
                from,
                to,
                [.. seen.Take(Most).Select(s => new TrailEntry(whose[s.Id], names[whose[s.Id]], SeenRecord.InWords(s, room)))],
                seen.Count > Most,
                adults
            )
        );
    }
}
