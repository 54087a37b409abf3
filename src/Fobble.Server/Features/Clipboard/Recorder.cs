using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.Live;
using Fobble.Server.Hosting;
using Microsoft.Data.Sqlite;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Clipboard;

internal enum Recorded
{
    New,
    Repeated,

    /// <summary>The id belongs to something else.</summary>
    Taken,
}

/// <summary>Takes an observation in, from wherever it comes: the clipboard, a baseline check.</summary>
internal sealed class Recorder(FobbleDb db, SkillMap map, LiveBoard live, TimeProvider clock)
{
    public const int LongestNote = 500;
    private const int LongestNumbers = 40;
    private static readonly TimeSpan Ahead = TimeSpan.FromMinutes(10);

    public async Task<Faults> FaultsOf(int classId, NewObservation request, CancellationToken stop)
    {
        Faults faults = new();
        var skill = map.Has(new SkillId(request.Skill)) ? map[new SkillId(request.Skill)] : null;
        faults.Check("id", request.Id != Guid.Empty, "The observation has no id.");
        faults.Check("skill", skill is not null, "There is no such skill.");
        faults.Check("slip", request.Slip is null || skill?.Slips.Any(s => s.Id == request.Slip) == true, "This slip does not belong to the skill.");
        faults.Check("strategy", request.Strategy is null || skill?.Strategies.Any(s => s.Id == request.Strategy) == true, "This way does not belong to the skill.");
        faults.Check("note", (request.Note?.Length ?? 0) <= LongestNote, $"A note has {LongestNote} letters at the most.");
        faults.Check("numbers", (request.Numbers?.Length ?? 0) <= LongestNumbers, "These are no numbers of a session card.");
        faults.Check("at", request.At <= clock.GetUtcNow() + Ahead, "The time lies in the future: is the clock of this device right?");
        faults.Check("setting", Enum.IsDefined(request.Setting) && Enum.IsDefined(request.Support) && Enum.IsDefined(request.Representation), "This choice does not exist.");

        // One query for both: is the child in this class, and is the session the class's.
        var here = await db.Children.Where(c => c.Id == request.ChildId && c.ClassId == classId)
            .Select(c => new { Session = request.SessionId == null || db.GroupSessions.Any(s => s.Id == request.SessionId && s.ClassId == classId) }).FirstOrDefaultAsync(stop);
        faults.Check("childId", here is not null, "This child is not in the class any more.");
        faults.Check("sessionId", here?.Session != false, "This session has been withdrawn, or was never the class's.");
        return faults;
    }

    /// <summary>Keeps an observation without fault. Sending it again changes nothing.</summary>
    public async Task<Recorded> KeepAsync(int classId, NewObservation request, (int Id, string Name) adult, int? checkId, CancellationToken stop)
    {
        db.Observations.Add(new ObservationRow
        {
            Id = request.Id,
            ChildId = request.ChildId,
            Skill = request.Skill,
            At = request.At,
            Day = DateOnly.FromDateTime(TimeZoneInfo.ConvertTime(request.At, clock.LocalTimeZone).DateTime),
            AdultId = adult.Id,
            Setting = request.Setting,
            Support = request.Support,
            Representation = request.Representation,
            Numbers = request.Numbers,
            Slip = request.Slip,
            Strategy = request.Strategy,
            Note = string.IsNullOrWhiteSpace(request.Note) ? null : request.Note.Trim(),
            SessionId = request.SessionId,
            CheckId = checkId,
        });
        try
        {
            await db.SaveChangesAsync(stop);
        }
        catch (DbUpdateException fault) when (fault.InnerException is SqliteException { SqliteExtendedErrorCode: SQLitePCL.raw.SQLITE_CONSTRAINT_PRIMARYKEY or SQLitePCL.raw.SQLITE_CONSTRAINT_UNIQUE })
        {
            // Sent again: fine if it is the same child's, or an id taken from somewhere else.
            db.ChangeTracker.Clear();
            return await db.Observations.AnyAsync(o => o.Id == request.Id && o.ChildId == request.ChildId && o.Skill == request.Skill, stop) ? Recorded.Repeated : Recorded.Taken;
        }

        await live.SeenAsync(classId, new(request.Id, request.ChildId, request.Skill, request.Support, request.Numbers, request.SessionId, adult.Id, adult.Name));
        return Recorded.New;
    }
}
