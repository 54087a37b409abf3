using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.Clipboard;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Baseline;

/// <summary>Rule R11 at the table: start checks, ask, answer, pause by going away, end, and know better.</summary>
internal sealed class BaselineFeature : IFeature
{
    private const int MostAtOnce = 60;

    public void AddServices(IServiceCollection services)
    {
        services.AddScoped<BaselineReader>();
        services.AddSingleton<CheckStates>();
    }

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        var baseline = ofClass.MapGroup("/baseline");
        baseline.MapGet("/", OverviewAsync);
        baseline.MapGet("/{checkId:int}", GetAsync);
        var changes = baseline.MapGroup("").RequireAuthorization(Policies.Record);
        changes.MapPost("/", StartAsync);
        changes.MapPost("/{checkId:int}/answers", AnswerAsync);
        changes.MapPost("/{checkId:int}/end", EndAsync);
        changes.MapPut("/{checkId:int}/skills/{skillId}", KnowBetterAsync);
    }

    private static async Task<Ok<BaselineOverview>> OverviewAsync(ClassRoom room, TimeProvider clock, CancellationToken stop)
    {
        var today = room.Today;
        var children = await room.ChildrenAsync(stop);
        var checks = await room
            .Db.BaselineChecks.Where(c => c.ClassId == room.Id.Value)
            .OrderBy(c => c.StartedAt)
            .Select(c => new
            {
                c.Id,
                c.ChildId,
                c.Strand,
                c.StartedAt,
                c.EndedAt,
                Asked = room.Db.Observations.Count(o => o.CheckId == c.Id && o.Withdrawal == null),
            })
            .ToListAsync(stop);
        var away = await room.AwayAsync(today, stop);
        var evidence = await room.EvidenceAsync(stop);

        // The one under way, else the last.
        var shown = checks.GroupBy(c => c.ChildId).ToDictionary(g => g.Key, g => g.LastOrDefault(c => c.EndedAt is null) ?? g.Last());
        return TypedResults.Ok(
            new BaselineOverview(
                [
                    .. children.Select(c =>
                    {
                        var check = shown.GetValueOrDefault(c.Id);
                        return new BaselineChild(
                            c.Id,
                            c.Name,
                            away.Contains(c.Id),
                            check?.Id,
                            check?.Strand,
                            check?.Asked ?? 0,
                            check?.StartedAt,
                            check?.EndedAt,
                            room.Map.Skills.Count(s => evidence[new(c.Id), s.Id].Strength > Strength.NotSeen)
                        );
                    }),
                ],
                [.. room.Map.Strands.Where(t => room.Map.Skills.Any(s => s.Strand == t.Id)).Select(t => new BaselineStrand(t.Id, t.Name))]
            )
        );
    }

    private static async Task<Ok<IReadOnlyList<StartedCheck>>> StartAsync(
        ClassRoom room,
        StartChecks request,
        HttpContext http,
        Decisions decisions,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        var ids = request.ChildIds.Distinct().ToList();
        var here = (await room.ChildrenAsync(stop)).Select(c => c.Id).ToHashSet();
        Refusals refusals = new();
        refusals.Check("childIds", ids.Count is > 0 and <= MostAtOnce, Phrase("Choose at least one child."));
        refusals.Check("childIds", ids.All(here.Contains), Phrase("One of these children is not in the class any more."));
        refusals.Check("strand", request.Strand is null || room.Map.Skills.Any(s => s.Strand == request.Strand), Phrase("There is no such strand."));
        refusals.ThrowIfAny();

        // A check of the same kind that is under way goes on, whoever began it, and be it a moment ago.
        var checks = await decisions.DecideAsync(
            async db =>
            {
                var open = await db
                    .BaselineChecks.Where(c => c.ClassId == room.Id.Value && ids.Contains(c.ChildId) && c.EndedAt == null && c.Strand == request.Strand)
                    .ToListAsync(stop);
                List<BaselineCheckRow> fresh =
                [
                    .. ids.Except(open.Select(c => c.ChildId))
                        .Select(id => new BaselineCheckRow
                        {
                            ClassId = room.Id.Value,
                            ChildId = id,
                            Strand = request.Strand,
                            StartedAt = clock.GetUtcNow(),
                            StartedBy = http.User.AdultId().Value,
                        }),
                ];
                db.BaselineChecks.AddRange(fresh);
                await db.SaveChangesAsync(stop);
                return open.Concat(fresh).ToList();
            },
            stop
        );
        return TypedResults.Ok<IReadOnlyList<StartedCheck>>([.. checks.OrderBy(c => ids.IndexOf(c.ChildId)).Select(c => new StartedCheck(c.Id, c.ChildId))]);
    }

    private static async Task<Results<Ok<CheckView>, NotFound>> GetAsync(CheckId checkId, BaselineReader reader, CancellationToken stop) =>
        await reader.FindAsync(checkId, stop) is { } row ? TypedResults.Ok(await reader.ViewAsync(row, stop)) : TypedResults.NotFound();

    private static async Task<Results<Ok<CheckView>, NotFound, Conflict>> AnswerAsync(
        ClassRoom room,
        CheckId checkId,
        NewAnswer answer,
        HttpContext http,
        BaselineReader reader,
        Recorder recorder,
        CancellationToken stop
    )
    {
        if (await reader.FindAsync(checkId, stop) is not { } row)
        {
            return TypedResults.NotFound();
        }

        RefusedException.Unless(row.EndedAt is null, "checkId", Phrase("This check has ended. Begin another to ask more."));
        NewObservation seen = new(
            answer.Id,
            row.ChildId,
            answer.Skill,
            answer.At,
            Setting.Baseline,
            answer.Support,
            answer.Representation,
            answer.Numbers,
            answer.Slip,
            null,
            null,
            null
        );
        if (await recorder.RecordAsync(seen, http.User.Adult(), checkId, stop) == Kept.Taken)
        {
            return TypedResults.Conflict();
        }

        await room.AgainAsync(stop);
        return TypedResults.Ok(await reader.ViewAsync(row, stop));
    }

    private static async Task<Results<Ok<CheckView>, NotFound>> EndAsync(
        ClassRoom room,
        CheckId checkId,
        BaselineReader reader,
        Decisions decisions,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        if (await reader.FindAsync(checkId, stop) is not { } found)
        {
            return TypedResults.NotFound();
        }

        if (found.EndedAt is null)
        {
            RefusedException.Unless(
                await room.Db.Observations.AnyAsync(o => o.CheckId == checkId.Value && o.Withdrawal == null, stop),
                "checkId",
                Phrase("Nothing has been asked yet, so there is nothing to infer from.")
            );
            await ChangeAsync(checkId, reader, decisions, row => row.EndedAt ??= clock.GetUtcNow(), stop);
            await room.AgainAsync(stop);
        }

        return TypedResults.Ok(await reader.ViewAsync((await reader.FindAsync(checkId, stop))!, stop));
    }

    private static async Task<Results<Ok<CheckView>, NotFound>> KnowBetterAsync(
        ClassRoom room,
        CheckId checkId,
        string skillId,
        KnownBetter better,
        HttpContext http,
        BaselineReader reader,
        Decisions decisions,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        if (await reader.FindAsync(checkId, stop) is null || !room.Map.Has(new(skillId)))
        {
            return TypedResults.NotFound();
        }

        await ChangeAsync(
            checkId,
            reader,
            decisions,
            row =>
            {
                var known = row.Overrides.FirstOrDefault(o => o.Skill == skillId);
                if (better.Has is not { } has)
                {
                    row.Overrides.RemoveAll(o => o == known);
                    return;
                }

                if (known is null)
                {
                    row.Overrides.Add(known = new() { CheckId = checkId.Value, Skill = skillId });
                }

                (known.Has, known.AdultId, known.At) = (has, http.User.AdultId().Value, clock.GetUtcNow());
            },
            stop
        );
        await room.AgainAsync(stop);
        return TypedResults.Ok(await reader.ViewAsync((await reader.FindAsync(checkId, stop))!, stop));
    }

    // What a check that has ended infers follows from its answers and from what adults know better: it is worked out with the change, and kept with it.
    private static async Task ChangeAsync(
        CheckId checkId,
        BaselineReader reader,
        Decisions decisions,
        Action<BaselineCheckRow> change,
        CancellationToken stop
    ) =>
        await decisions.SettleAsync(
            Parts.Record,
            async () =>
            {
                var row = (await reader.FindAsync(checkId, stop))!;
                change(row);
                return row.EndedAt is null ? null : await reader.InferredAsync(row, null, stop);
            },
            async (db, inferred) =>
            {
                var row = (await reader.FindAsync(db, checkId, stop))!;
                change(row);
                row.Inferred = inferred ?? row.Inferred;
                return true;
            },
            stop
        );
}
