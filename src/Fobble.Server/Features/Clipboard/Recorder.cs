using Fobble.Core.Evidence;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.Live;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Clipboard;

/// <summary>Takes an observation in, from wherever it comes: the clipboard, a baseline check.</summary>
internal sealed class Recorder(ClassRoom room, RecordingLane lane, LiveNews news, TimeProvider clock)
{
    public const int LongestNote = 500;
    private const int LongestNumbers = 40;

    private static string NotHere => Phrase("This child is not in the class any more.");

    // A tablet's clock may be ahead.
    private static readonly TimeSpan Ahead = TimeSpan.FromMinutes(10);

    /// <summary>Keeps an observation. Sending it again changes nothing.</summary>
    /// <returns>New, repeated or taken.</returns>
    /// <exception cref="RefusedException">It can't be recorded as it is.</exception>
    public async Task<Kept> RecordAsync(NewObservation request, (AdultId Id, string Name) adult, CheckId? check, CancellationToken stop)
    {
        await CheckAsync(request, stop);
        var kept = await lane.KeepAsync(RowOf(request, adult.Id, check), stop);
        RefusedException.Unless(kept != Kept.Gone, "childId", NotHere);
        if (kept == Kept.New)
        {
            await news.SeenAsync(
                room.Id,
                new(request.Id, request.ChildId, request.Skill, request.Support, request.Numbers, request.SessionId, adult.Id.Value, adult.Name)
            );
        }

        return kept;
    }

    private ObservationRow RowOf(NewObservation request, AdultId adult, CheckId? check) =>
        new()
        {
            Id = request.Id,
            ChildId = request.ChildId,
            Skill = request.Skill,
            At = request.At,
            Day = room.Zone.DayOf(request.At),
            AdultId = adult.Value,
            Setting = request.Setting,
            Support = request.Support,
            Representation = request.Representation,
            Numbers = request.Numbers,
            Slip = request.Slip,
            Strategy = request.Strategy,
            Note = string.IsNullOrWhiteSpace(request.Note) ? null : request.Note.Trim(),
            SessionId = request.SessionId,
            CheckId = check?.Value,
        };

    private async Task CheckAsync(NewObservation request, CancellationToken stop)
    {
        Refusals refusals = new();
        var skill = room.Map.Has(new SkillId(request.Skill)) ? room.Map[new SkillId(request.Skill)] : null;
        refusals.Check("id", request.Id != Guid.Empty, Phrase("The observation has no id."));
        refusals.Check("skill", skill is not null, Phrase("There is no such skill."));
        refusals.Check("slip", request.Slip is null || skill?.Slips.Any(s => s.Id == request.Slip) == true, Phrase("This slip does not belong to the skill."));
        refusals.Check(
            "strategy",
            request.Strategy is null || skill?.Strategies.Any(s => s.Id == request.Strategy) == true,
            Phrase("This way does not belong to the skill.")
        );
        refusals.Check("note", (request.Note?.Length ?? 0) <= LongestNote, Phrase($"A note has {LongestNote} letters at the most."));
        refusals.Check("numbers", (request.Numbers?.Length ?? 0) <= LongestNumbers, Phrase("These are no numbers of a session card."));
        refusals.Check("at", request.At <= clock.GetUtcNow() + Ahead, Phrase("The time lies in the future: is the clock of this device right?"));
        refusals.Check(
            "setting",
            Enum.IsDefined(request.Setting) && Enum.IsDefined(request.Support) && Enum.IsDefined(request.Representation),
            Phrase("This choice does not exist.")
        );

        // One query for both: is the child in this class, or was it then (what a tablet sends late is not lost), and is the session the class's.
        var (id, day) = (room.Id.Value, room.Zone.DayOf(request.At));
        var here = await room
            .Db.Children.Where(c => c.Id == request.ChildId)
            .Where(c =>
                (c.ClassId == id && (c.LeftOn == null || c.LeftOn >= day)) || room.Db.Stays.Any(s => s.ChildId == c.Id && s.ClassId == id && s.Until >= day)
            )
            .Select(c => new { Session = request.SessionId == null || room.Db.GroupSessions.Any(s => s.Id == request.SessionId && s.ClassId == room.Id.Value) })
            .FirstOrDefaultAsync(stop);
        refusals.Check("childId", here is not null, NotHere);
        refusals.Check("sessionId", here?.Session != false, Phrase("This session has been withdrawn, or was never the class's."));
        refusals.ThrowIfAny();
    }
}
