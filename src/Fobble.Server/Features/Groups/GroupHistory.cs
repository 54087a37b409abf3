using Fobble.Core.Grouping;
using Fobble.Core.Skills;
using Fobble.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Groups;

/// <summary>A small group in force, as it is stored and as the core knows it.</summary>
internal sealed record KeptGroup(GroupSession Row, AcceptedGroup Group, IReadOnlySet<ChildId> Away)
{
    /// <summary>The group as it met.</summary>
    public PastGroup Met => Group.Met(Away.Contains);
}

/// <summary>Groups of the sets in force, each with who was away on its day and whether something was seen in it.</summary>
internal sealed class GroupHistory(ClassRoom room)
{
    public async Task<IReadOnlyList<KeptGroup>> ReadAsync(DateOnly from, DateOnly until, CancellationToken stop)
    {
        var sessions = await room.SessionsAsync(from, until, stop);
        var absences = await room
            .Db.Absences.Where(a => a.Child!.ClassId == room.Id.Value && a.Day >= from && a.Day <= until)
            .Select(a => new { a.Day, a.ChildId })
            .ToListAsync(stop);
        var away = absences.ToLookup(a => a.Day, a => new ChildId(a.ChildId));

        // What is past was held anyhow: only of groups from today on it matters whether something was seen in them.
        var open = sessions.Where(s => s.Day >= room.Today).Select(s => s.Id).ToList();
        var recorded = await room
            .Db.Observations.Where(o => o.SessionId != null && open.Contains(o.SessionId.Value) && o.Withdrawal == null)
            .Select(o => o.SessionId!.Value)
            .Distinct()
            .ToListAsync(stop);
        return
        [
            .. sessions.Select(s => new KeptGroup(
                s,
                new(new(s.Id), s.Day, new(s.SlotId), new SkillId(s.Skill), [.. s.Members.Select(m => new ChildId(m.ChildId))], recorded.Contains(s.Id)),
                away[s.Day].ToHashSet()
            )),
        ];
    }

    /// <summary>Groups since a day that have been held.</summary>
    public async Task<IReadOnlyList<KeptGroup>> HeldAsync(DateOnly from, CancellationToken stop) =>
        [.. (await ReadAsync(from, room.Today, stop)).Where(g => g.Group.WasHeld(room.Today))];
}
