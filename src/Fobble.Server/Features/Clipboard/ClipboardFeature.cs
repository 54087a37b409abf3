using System.Security.Claims;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.Baseline;
using Fobble.Server.Features.Live;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Clipboard;

/// <param name="Id">Made by the client when the adult taps. Sending it again changes nothing.</param>
/// <param name="At">When it was seen; may lie back, as what was recorded without a network is sent later.</param>
public sealed record NewObservation(
    Guid Id,
    int ChildId,
    string Skill,
    DateTimeOffset At,
    Setting Setting,
    Support Support,
    Representation Representation,
    string? Numbers,
    string? Slip,
    string? Strategy,
    string? Note,
    int? SessionId
);

public sealed record WithdrawalReason(string Why);

internal sealed class ClipboardFeature : IFeature
{
    public void AddServices(IServiceCollection services) => services.AddScoped<Recorder>();

    public void MapAddresses(RouteGroupBuilder api, RouteGroupBuilder ofClass)
    {
        var observations = ofClass.MapGroup("/observations").RequireAuthorization(Policies.Record);
        observations.MapPost("/", RecordAsync);
        observations.MapPost("/{id:guid}/withdraw", WithdrawAsync);
        Photos.Map(ofClass);
        ofClass.MapGet("/clipboard", Anyone.GetAsync);
    }

    /// <param name="tappedBy">Who tapped, where the client says so: another tab of the browser may have signed in as someone else meanwhile.</param>
    private static async Task<Results<NoContent, Conflict, UnauthorizedHttpResult>> RecordAsync(
        NewObservation request,
        [FromHeader(Name = "X-Tapped-By")] int? tappedBy,
        ClaimsPrincipal user,
        Recorder recorder,
        CancellationToken stop
    )
    {
        if (tappedBy is { } adult && adult != user.AdultId().Value)
        {
            return TypedResults.Unauthorized();
        }

        try
        {
            if (await recorder.RecordAsync(request, user.Adult(), null, stop) != Kept.Taken)
            {
                return TypedResults.NoContent();
            }
        }
        catch (RefusedException)
        {
            Measured.Refused.Add(1, new KeyValuePair<string, object?>("status", StatusCodes.Status400BadRequest));
            throw;
        }

        Measured.Refused.Add(1, new KeyValuePair<string, object?>("status", StatusCodes.Status409Conflict));
        return TypedResults.Conflict();
    }

    private static async Task<Results<NoContent, NotFound>> WithdrawAsync(
        ClassRoom room,
        Guid id,
        WithdrawalReason request,
        ClaimsPrincipal user,
        Decisions decisions,
        LiveNews news,
        BaselineReader checks,
        TimeProvider clock,
        CancellationToken stop
    )
    {
        var row = await room.Seen().Where(o => o.Id == id).Select(o => new { o.CheckId }).FirstOrDefaultAsync(stop);
        if (row is null)
        {
            return TypedResults.NotFound();
        }

        RefusedException.Unless(
            !string.IsNullOrWhiteSpace(request.Why) && request.Why.Length <= Recorder.LongestNote,
            "why",
            Phrase("Say in a few words why it is withdrawn.")
        );
        CheckId? check = row.CheckId is { } of ? new(of) : null;
        var withdrawn = await decisions.SettleAsync(
            Parts.Record,
            () => check is { } asked ? checks.InferredWithoutAsync(asked, id, stop) : Task.FromResult<Dictionary<string, double>?>(null),
            async (db, inferred) =>
            {
                if (await db.Withdrawals.AnyAsync(w => w.ObservationId == id, stop))
                {
                    return false;
                }

                db.Withdrawals.Add(
                    new Withdrawal
                    {
                        ObservationId = id,
                        At = clock.GetUtcNow(),
                        AdultId = user.AdultId().Value,
                        Why = request.Why.Trim(),
                    }
                );
                // It shows something that was not so.
                await db.Photos.Where(p => p.ObservationId == id).ExecuteDeleteAsync(stop);
                if (inferred is not null)
                {
                    // What rested on the answer is inferred anew without it.
                    (await checks.FindAsync(db, check!.Value, stop))!.Inferred = inferred;
                }

                return true;
            },
            stop
        );
        if (withdrawn)
        {
            await news.WithdrawnAsync(room.Id, id);
        }

        return TypedResults.NoContent();
    }
}
