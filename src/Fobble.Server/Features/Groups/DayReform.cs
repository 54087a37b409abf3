using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Grouping;
using Fobble.Data;
using Fobble.Data.Model;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Groups;

/// <summary>
/// Changes the groups of a day when a child is away, as little as can be, and changes them back when it comes after all. Groups in which something
/// has been recorded are left alone. The child who is away stays on the list of its table, marked away.
/// </summary>
internal sealed class DayReform(FobbleDb db, GroupingReader reader)
{
    /// <summary>Called when an absence has been stored. Says what was changed.</summary>
    public async Task<IReadOnlyList<string>> AwayAsync(int classId, DateOnly day, int childId, CancellationToken stop)
    {
        var round = await reader.ReadAsync(classId, SchoolCalendar.MondayOf(day), stop);
        var away = await db.Absences.Where(a => a.Day == day && a.Child!.ClassId == classId && a.ChildId != childId).Select(a => a.ChildId).ToListAsync(stop);
        var sessions = round.Coming;

        // Those who were known to be away have been seen to already.
        List<FormedGroup> groups = [.. sessions.Select(s => new FormedGroup(
            new(s.Skill), round.IndexOf(s.SlotId, s.Day), [.. s.Members.Where(m => s.Day != day || !away.Contains(m.ChildId)).Select(m => new ChildId(m.ChildId)).Order()]))];
        var today = Enumerable.Range(0, round.OpenSlots.Count).Where(i => round.OpenSlots[i].Day == day).ToHashSet();
        var changed = DayChange.Around(round.ProblemFor(GroupsAsk.Nothing), groups, today, new HashSet<ChildId> { new(childId) }, round.Names);
        GroupSession At(int slot) => sessions.First(s => s.SlotId == round.OpenSlots[slot].SlotId && s.Day == round.OpenSlots[slot].Day);
        foreach (var move in changed.Moves)
        {
            var to = At(move.To);
            var from = move.From is { } left ? At(left) : null;
            db.DayMoves.Add(new()
            {
                Day = day, AwayChildId = childId, ChildId = move.Child.Value, FromSessionId = from?.Id, ToSessionId = to.Id, Reason = from?.Members.FirstOrDefault(m => m.ChildId == move.Child.Value)?.Reason ?? "",
            });
            await MoveAsync(move.Child.Value, from?.Id, to.Id, $"Here because {round.Names.Child(new(childId))} is away. {Reasons.ForPlaced(move.Child, new(to.Skill), round.Brief)}", stop);
        }

        await db.SaveChangesAsync(stop);
        return changed.Sentences;
    }

    /// <summary>Called when an absence has been taken back. Says what was changed back.</summary>
    public async Task<IReadOnlyList<string>> BackAsync(int classId, DateOnly day, int childId, CancellationToken stop)
    {
        var moves = await db.DayMoves.Where(m => m.AwayChildId == childId && m.Day == day).ToListAsync(stop);
        var names = (await reader.ReadAsync(classId, SchoolCalendar.MondayOf(day), stop)).Names;
        List<string> said = [];
        foreach (var move in moves)
        {
            // What has been seen in the group was seen there: then it stays.
            if (!await db.Observations.AnyAsync(o => o.SessionId == move.ToSessionId && o.Withdrawal == null, stop))
            {
                await MoveAsync(move.ChildId, move.ToSessionId, move.FromSessionId, move.Reason, stop);
                said.Add($"{names.Child(new(move.ChildId))} is {(move.FromSessionId is null ? "in no group" : "back at the other table")} as before.");
            }
        }

        db.DayMoves.RemoveRange(moves);
        await db.SaveChangesAsync(stop);
        return said;
    }

    private async Task MoveAsync(int child, int? from, int? to, string reason, CancellationToken stop)
    {
        if (from is not null && await db.GroupMembers.FindAsync([from.Value, child], stop) is { } member)
        {
            db.GroupMembers.Remove(member);
        }

        if (to is not null && await db.GroupMembers.FindAsync([to.Value, child], stop) is null && await db.GroupSessions.AnyAsync(s => s.Id == to, stop))
        {
            db.GroupMembers.Add(new() { SessionId = to.Value, ChildId = child, Reason = reason });
        }
    }
}
