using System.Security.Claims;
using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Fobble.Server.Security;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Clipboard;

/// <param name="Id">Made by the client when the adult taps. Sending it again changes nothing.</param>
/// <param name="At">When it was seen; may lie back, as what was recorded without a network is sent later.</param>
public sealed record NewObservation(
    Guid Id, int ChildId, string Skill, DateTimeOffset At, Setting Setting, Support Support, Representation Representation, string? Numbers, string? Slip, string? Strategy, string? Note, int? SessionId);

public sealed record WithdrawalReason(string Why);

internal static class ClipboardEndpoints
{
    private const int LongestNote = 500;
    private static readonly TimeSpan Ahead = TimeSpan.FromMinutes(10);

    public static void MapClipboard(this IEndpointRouteBuilder ofClass)
    {
        var observations = ofClass.MapGroup("/observations").RequireAuthorization(Policies.Record);
        observations.MapPost("/", RecordAsync);
        observations.MapPost("/{id:guid}/withdraw", WithdrawAsync);
    }

    private static async Task<Results<NoContent, ValidationProblem, Conflict>> RecordAsync(
        int classId, NewObservation request, ClaimsPrincipal user, FobbleDb db, SkillMap map, TimeProvider clock, CancellationToken stop)
    {
        var faults = await FaultsOf(classId, request, db, map, clock, stop);
        if (!faults.None)
        {
            return faults.ToProblem("This can't be recorded; nothing was changed.");
        }

        db.Observations.Add(new ObservationRow
        {
            Id = request.Id,
            ChildId = request.ChildId,
            Skill = request.Skill,
            At = request.At,
            Day = DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(request.At, clock.LocalTimeZone).DateTime),
            AdultId = user.AdultId(),
            Setting = request.Setting,
            Support = request.Support,
            Representation = request.Representation,
            Numbers = request.Numbers,
            Slip = request.Slip,
            Strategy = request.Strategy,
            Note = string.IsNullOrWhiteSpace(request.Note) ? null : request.Note.Trim(),
            SessionId = request.SessionId,
        });
        try
        {
            await db.SaveChangesAsync(stop);
        }
        catch (DbUpdateException fault) when (fault.InnerException is SqliteException { SqliteExtendedErrorCode: SQLitePCL.raw.SQLITE_CONSTRAINT_PRIMARYKEY or SQLitePCL.raw.SQLITE_CONSTRAINT_UNIQUE })
        {
            // Sent again: fine if it is the same child's, or an id taken from somewhere else.
            db.ChangeTracker.Clear();
            if (!await db.Observations.AnyAsync(o => o.Id == request.Id && o.ChildId == request.ChildId && o.Skill == request.Skill, stop))
            {
                return TypedResults.Conflict();
            }
        }

        return TypedResults.NoContent();
    }

    private static async Task<Results<NoContent, ValidationProblem, NotFound>> WithdrawAsync(
        int classId, Guid id, WithdrawalReason request, ClaimsPrincipal user, FobbleDb db, TimeProvider clock, CancellationToken stop)
    {
        var row = await db.Observations.Where(o => o.Id == id && o.Child!.ClassId == classId).Select(o => new { Withdrawn = o.Withdrawal != null }).FirstOrDefaultAsync(stop);
        if (row is null)
        {
            return TypedResults.NotFound();
        }

        if (string.IsNullOrWhiteSpace(request.Why) || request.Why.Length > LongestNote)
        {
            return Faults.One("why", "Say in a few words why it is withdrawn.");
        }

        if (!row.Withdrawn)
        {
            db.Withdrawals.Add(new Withdrawal { ObservationId = id, At = clock.GetUtcNow(), AdultId = user.AdultId(), Why = request.Why.Trim() });
            await db.SaveChangesAsync(stop);
        }

        return TypedResults.NoContent();
    }

    private static async Task<Faults> FaultsOf(int classId, NewObservation request, FobbleDb db, SkillMap map, TimeProvider clock, CancellationToken stop)
    {
        Faults faults = new();
        var skill = map.Has(new SkillId(request.Skill)) ? map[new SkillId(request.Skill)] : null;
        faults.Check("id", request.Id != Guid.Empty, "The observation has no id.");
        faults.Check("skill", skill is not null, "There is no such skill.");
        faults.Check("slip", request.Slip is null || skill?.Slips.Any(s => s.Id == request.Slip) == true, "This slip does not belong to the skill.");
        faults.Check("strategy", request.Strategy is null || skill?.Strategies.Any(s => s.Id == request.Strategy) == true, "This way does not belong to the skill.");
        faults.Check("note", (request.Note?.Length ?? 0) <= LongestNote, $"A note has {LongestNote} letters at the most.");
        faults.Check("numbers", (request.Numbers?.Length ?? 0) <= 40, "These are no numbers of a session card.");
        faults.Check("at", request.At <= clock.GetUtcNow() + Ahead, "The time lies in the future: is the clock of this device right?");
        faults.Check("setting", Enum.IsDefined(request.Setting) && Enum.IsDefined(request.Support) && Enum.IsDefined(request.Representation), "This choice does not exist.");

        // One query for both: is the child in this class, and is the session the class's.
        var here = await db.Children.Where(c => c.Id == request.ChildId && c.ClassId == classId)
            .Select(c => new { Session = request.SessionId == null || db.GroupSessions.Any(s => s.Id == request.SessionId && s.ClassId == classId) }).FirstOrDefaultAsync(stop);
        faults.Check("childId", here is not null, "This child is not in the class.");
        faults.Check("sessionId", here?.Session != false, "This session is not the class's.");
        return faults;
    }
}
