using Fobble.Core.Agreement;
using Fobble.Core.Evidence;
using Fobble.Core.ItemSets;
using Fobble.Core.Skills;
using Fobble.Server.Hosting;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Agreement;

public sealed record CodedBy(int AdultId, string Name, int Moments);

/// <summary>A session that two adults or more have recorded.</summary>
public sealed record CodedSession(int SessionId, DateOnly Day, string Short, IReadOnlyList<CodedBy> Adults);

public sealed record IntervalView(double Value, double Low, double High);

public sealed record MomentView(string Child, string? Numbers, Support First, Support Second);

/// <param name="Table">Counts by the first adult's level and the second's, from alone to not yet.</param>
/// <param name="Apart">Where they differ, the farthest first.</param>
/// <param name="Unpaired">Moments that only one of them noted.</param>
public sealed record AgreementView(
    CodedSession Session,
    string First,
    string Second,
    int Pairs,
    int Unpaired,
    IntervalView? Percent,
    IntervalView? Kappa,
    IntervalView? Weighted,
    IReadOnlyList<IReadOnlyList<int>> Table,
    string Sentence,
    IReadOnlyList<MomentView> Apart
);

/// <summary>Two adults' codes of one session beside each other, so that a team comes to mean the same by "with a prompt".</summary>
internal sealed class AgreementFeature : IFeature
{
    private const int DaysBack = 120;

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        ofClass.MapGet("/agreement", SessionsAsync);
        ofClass.MapGet("/agreement/{sessionId:int}", CompareAsync);
    }

    private static async Task<Ok<IReadOnlyList<CodedSession>>> SessionsAsync(ClassRoom room, CancellationToken stop) =>
        TypedResults.Ok(await ReadAsync(room, null, stop));

    private static async Task<Results<Ok<AgreementView>, NotFound>> CompareAsync(
        ClassRoom room,
        SessionId sessionId,
        int? first,
        int? second,
        CancellationToken stop
    )
    {
        if (await ReadAsync(room, sessionId, stop) is not [var session])
        {
            return TypedResults.NotFound();
        }

        var one = session.Adults.FirstOrDefault(a => a.AdultId == first) ?? session.Adults[0];
        var other = session.Adults.FirstOrDefault(a => a.AdultId == second && a != one) ?? session.Adults.First(a => a != one);
        var names = (await room.ChildrenAsync(stop)).ToDictionary(c => c.Id, c => c.Name);
        var rows = await room
            .Db.Observations.Where(o => o.SessionId == sessionId.Value && o.Withdrawal == null && (o.AdultId == one.AdultId || o.AdultId == other.AdultId))
            .OrderBy(o => o.At)
            .Select(o => new CodedMoment(o.ChildId, o.AdultId, o.Numbers, o.Support))
            .ToListAsync(stop);
        var (pairs, unpaired) = Pairing.Of(rows, one.AdultId, other.AdultId);
        var result = AdultAgreement.Of([.. pairs.Select(p => new CodePair(p.First.Support, p.Second.Support))]);
        return TypedResults.Ok(
            new AgreementView(
                session,
                one.Name,
                other.Name,
                pairs.Count,
                unpaired,
                View(result?.Percent),
                View(result?.Kappa),
                View(result?.Weighted),
                result?.Table ?? [],
                result?.Sentence ?? Phrase("They noted no moment of the same child."),
                [
                    .. pairs
                        .Where(p => p.First.Support != p.Second.Support)
                        .OrderByDescending(p => Math.Abs(p.First.Support - p.Second.Support))
                        .Select(p => new MomentView(
                            names.GetValueOrDefault(p.First.Child, ""),
                            p.First.Numbers is { } key ? ItemCase.InWords(key) : null,
                            p.First.Support,
                            p.Second.Support
                        )),
                ]
            )
        );
    }

    private static async Task<IReadOnlyList<CodedSession>> ReadAsync(ClassRoom room, SessionId? sessionId, CancellationToken stop)
    {
        var one = sessionId?.Value;
        var since = room.Today.AddDays(-DaysBack);
        var coded = await room.Seen()
            .Where(o => o.SessionId != null && o.Withdrawal == null && (one == null ? o.Day >= since : o.SessionId == one))
            .GroupBy(o => new
            {
                o.SessionId,
                o.AdultId,
                o.Adult!.FullName,
            })
            .Select(g => new
            {
                g.Key.SessionId,
                g.Key.AdultId,
                g.Key.FullName,
                Count = g.Count(),
            })
            .ToListAsync(stop);
        var both = coded.GroupBy(c => c.SessionId!.Value).Where(g => g.Count() > 1).ToDictionary(g => g.Key, g => g.OrderBy(a => a.FullName).ToList());
        var sessions = await room.SessionsInForce()
            .Where(s => both.Keys.Contains(s.Id))
            .OrderByDescending(s => s.Day)
            .Select(s => new
            {
                s.Id,
                s.Day,
                s.Skill,
            })
            .ToListAsync(stop);
        return
        [
            .. sessions.Select(s => new CodedSession(
                s.Id,
                s.Day,
                room.Map.Has(new(s.Skill)) ? room.Map[new(s.Skill)].Short : s.Skill,
                [.. both[s.Id].Select(a => new CodedBy(a.AdultId, a.FullName, a.Count))]
            )),
        ];
    }

    private static IntervalView? View(Interval? interval) => interval is null ? null : new(interval.Value, interval.Low, interval.High);
}
