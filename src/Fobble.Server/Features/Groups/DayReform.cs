using Fobble.Core.Calendars;
using Fobble.Core.Grouping;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Groups;

/// <summary>A child who changes tables for a day.</summary>
internal sealed record TableMove(ChildId Child, SessionId? From, SessionId To, string Reason, string WasReason);

/// <summary>What an absence changes in the groups of a day.</summary>
internal sealed record DayChanges(IReadOnlyList<TableMove> Moves, IReadOnlyList<string> Sentences)
{
    public static DayChanges None { get; } = new([], []);
}

/// <summary>
/// Changes the groups of a day when a child is away, as little as can be, and changes them back when it comes after all. Groups in which something
/// has been recorded are left alone. The child who is away stays on the list of its table, marked away.
/// </summary>
internal sealed class DayReform(ClassRoom room, GroupingReader reader, Solving solving)
{
    /// <summary>Works out what changes when a child is away who has a place in a group of that day.</summary>
    public async Task<DayChanges> WithoutAsync(ChildId child, DateOnly day, CancellationToken stop)
    {
        var whole = await reader.ReadAsync(SchoolCalendar.MondayOf(day), stop);
        if (whole.Parts.FirstOrDefault(p => p.Has(day)) is not { } part)
        {
            return DayChanges.None;
        }

        var week = whole.In(part, null);
        var sessions = week.Coming;
        if (!sessions.Any(s => s.Day == day && s.Members.Any(m => m.ChildId == child.Value)))
        {
            return DayChanges.None;
        }

        // Those who were known to be away have been seen to already.
        var away = await room.AwayAsync(day, stop);
        List<FormedGroup> groups =
        [
            .. sessions.Select(s => new FormedGroup(
                new(s.Skill),
                week.IndexOf(s.SlotId, s.Day),
                [.. s.Members.Where(m => s.Day != day || m.ChildId == child.Value || !away.Contains(m.ChildId)).Select(m => new ChildId(m.ChildId)).Order()]
            )),
        ];
        var slots = Enumerable.Range(0, week.OpenSlots.Count).Where(i => week.OpenSlots[i].Day == day).ToHashSet();
        var problem = week.ProblemFor(GroupsAsk.Nothing);
        var changed = await solving.RunAsync(room.Id, _ => DayChange.Around(problem, groups, slots, new HashSet<ChildId> { child }, week.Names), stop);
        GroupSession At(int slot) => sessions.First(s => s.SlotId == week.OpenSlots[slot].SlotId && s.Day == week.OpenSlots[slot].Day);
        return new(
            [
                .. changed.Moves.Select(move =>
                {
                    var (to, from) = (At(move.To), move.From is { } left ? At(left) : null);
                    return new TableMove(
                        move.Child,
                        from is null ? null : new SessionId(from.Id),
                        new(to.Id),
                        Phrase($"Here because {week.Names.Child(child)} is away. {Reasons.ForPlaced(move.Child, new(to.Skill), week.Brief)}"),
                        from?.Members.FirstOrDefault(m => m.ChildId == move.Child.Value)?.Reason ?? ""
                    );
                }),
            ],
            changed.Sentences
        );
    }

    /// <summary>Keeps what an absence changes; so that it can be put back, it is written down.</summary>
    public static async Task KeepAsync(DayChanges changes, ChildId away, DateOnly day, FobbleDb db, CancellationToken stop)
    {
        foreach (var move in changes.Moves)
        {
            db.DayMoves.Add(
                new()
                {
                    Day = day,
                    AwayChildId = away.Value,
                    ChildId = move.Child.Value,
                    FromSessionId = move.From?.Value,
                    ToSessionId = move.To.Value,
                    Reason = move.WasReason,
                }
            );
            await MoveAsync(db, move.Child, move.From, move.To, move.Reason, stop);
        }
    }

    /// <summary>Puts back what an absence had changed. Says what was put back.</summary>
    public async Task<IReadOnlyList<string>> BackAsync(ChildId child, DateOnly day, FobbleDb db, CancellationToken stop)
    {
        var moves = await db.DayMoves.Where(m => m.AwayChildId == child.Value && m.Day == day).ToListAsync(stop);
        List<string> said = [];
        foreach (var move in moves)
        {
            // What has been seen in the group was seen there: then it stays.
            if (!await db.Observations.AnyAsync(o => o.SessionId == move.ToSessionId && o.Withdrawal == null, stop))
            {
                await MoveAsync(db, new(move.ChildId), new(move.ToSessionId), move.FromSessionId is { } from ? new SessionId(from) : null, move.Reason, stop);
                var name = await room.NameOfAsync(new(move.ChildId), stop) ?? "?";
                said.Add(Phrase($"{name} is {(move.FromSessionId is null ? "in no group" : "back at the other table")} as before."));
            }
        }

        db.DayMoves.RemoveRange(moves);
        return said;
    }

    private static async Task MoveAsync(FobbleDb db, ChildId child, SessionId? from, SessionId? to, string reason, CancellationToken stop)
    {
        if (from is { } left && await db.GroupMembers.FindAsync([left.Value, child.Value], stop) is { } member)
        {
            db.GroupMembers.Remove(member);
        }

        if (
            to is { } there
            && await db.GroupMembers.FindAsync([there.Value, child.Value], stop) is null
            && await db.GroupSessions.AnyAsync(s => s.Id == there.Value, stop)
        )
        {
            db.GroupMembers.Add(
                new()
                {
                    SessionId = there.Value,
                    ChildId = child.Value,
                    Reason = reason,
                }
            );
        }
    }
}
