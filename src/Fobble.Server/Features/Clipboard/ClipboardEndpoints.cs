using System.Security.Claims;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.Baseline;
using Fobble.Server.Features.Live;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.AspNetCore.Mvc;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Clipboard;

/// <param name="Id">Made by the client when the adult taps. Sending it again changes nothing.</param>
/// <param name="At">When it was seen; may lie back, as what was recorded without a network is sent later.</param>
public sealed record NewObservation(
    Guid Id, int ChildId, string Skill, DateTimeOffset At, Setting Setting, Support Support, Representation Representation, string? Numbers, string? Slip, string? Strategy, string? Note, int? SessionId);

public sealed record WithdrawalReason(string Why);

internal static class ClipboardEndpoints
{
    public static void MapClipboard(this IEndpointRouteBuilder ofClass)
    {
        var observations = ofClass.MapGroup("/observations").RequireAuthorization(Policies.Record);
        observations.MapPost("/", RecordAsync);
        observations.MapPost("/{id:guid}/withdraw", WithdrawAsync);
        Photos.Map(ofClass);
        ofClass.MapGet("/clipboard", Anyone.GetAsync);
    }

    /// <param name="tappedBy">Who tapped, where the client says so: another tab of the browser may have signed in as someone else meanwhile.</param>
    private static async Task<Results<NoContent, ValidationProblem, Conflict, UnauthorizedHttpResult>> RecordAsync(
        int classId, NewObservation request, [FromHeader(Name = "X-Tapped-By")] int? tappedBy, ClaimsPrincipal user, Recorder recorder, CancellationToken stop)
    {
        if (tappedBy is { } adult && adult != user.AdultId())
        {
            return TypedResults.Unauthorized();
        }

        var faults = await recorder.FaultsOf(classId, request, stop);
        if (!faults.None)
        {
            return faults.ToProblem("This can't be recorded; nothing was changed.");
        }

        return await recorder.KeepAsync(classId, request, user.Adult(), null, stop) == Recorded.Taken ? TypedResults.Conflict() : TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ValidationProblem, NotFound>> WithdrawAsync(
        int classId, Guid id, WithdrawalReason request, ClaimsPrincipal user, FobbleDb db, LiveBoard live, BaselineReader checks, TimeProvider clock, CancellationToken stop)
    {
        var row = await db.Observations.Where(o => o.Id == id && o.Child!.ClassId == classId).Select(o => new { Withdrawn = o.Withdrawal != null, o.CheckId }).FirstOrDefaultAsync(stop);
        if (row is null)
        {
            return TypedResults.NotFound();
        }

        if (string.IsNullOrWhiteSpace(request.Why) || request.Why.Length > Recorder.LongestNote)
        {
            return Faults.One("why", "Say in a few words why it is withdrawn.");
        }

        if (!row.Withdrawn)
        {
            db.Withdrawals.Add(new Withdrawal { ObservationId = id, At = clock.GetUtcNow(), AdultId = user.AdultId(), Why = request.Why.Trim() });
            await db.SaveChangesAsync(stop);
            if (row.CheckId is { } checkId && await checks.FindAsync(classId, checkId, stop) is { EndedAt: not null } check)
            {
                // What rested on the answer is inferred anew without it.
                check.Inferred = await checks.InferredAsync(check, stop);
                await db.SaveChangesAsync(stop);
            }

            await live.WithdrawnAsync(classId, id);
        }

        return TypedResults.NoContent();
    }
}
