using Fobble.Core.SettingOut;
using Fobble.Core.Skills;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Cupboard;

/// <summary>What is done where and when between two days, as far as things have to be there for it; and what follows for the cupboard.</summary>
internal sealed class SetOutReader(ClassRoom room)
{
    public async Task<SetOutPlan> PlanAsync(DateOnly from, DateOnly to, CancellationToken stop) =>
        SettingOutRules.Plan(await UsesAsync(from, to, stop), await room.StockAsync(stop), room.Cares, room.Approach);

    private async Task<IReadOnlyList<Use>> UsesAsync(DateOnly from, DateOnly to, CancellationToken stop)
    {
        var children = (await room.ChildrenAsync(stop)).ToDictionary(c => c.Id, c => c.Name);
        var planned = await room
            .Db.PlannedDays.Include(d => d.Starters)
            .Include(d => d.More)
            .Where(d => d.ClassId == room.Id.Value && d.Day >= from && d.Day <= to)
            .OrderBy(d => d.Day)
            .ToListAsync(stop);
        var away = (
            await room
                .Db.Absences.Where(a => a.Child!.ClassId == room.Id.Value && a.Day >= from && a.Day <= to)
                .Select(a => new { a.ChildId, a.Day })
                .ToListAsync(stop)
        ).ToLookup(a => a.Day, a => a.ChildId);
        DayActivity On(string skill, string activity) => new(new SkillId(skill), room.Library[new(activity)]);
        return SetOutUses.Of(
            [
                .. planned.Select(d => new DayToSetOut(
                    d.Day,
                    [.. d.Starters.Select(s => On(s.Skill, s.Activity))],
                    [On(d.FocusSkill, d.FocusActivity), .. d.More.Select(m => On(m.Skill, m.Activity))],
                    room.Library[new(d.Transition)],
                    d.Choice is { } choice ? room.Library[new(choice)] : null,
                    away[d.Day].Count()
                )),
            ],
            [
                .. (await room.SessionsAsync(from, to, stop)).Select(s => new GroupToSetOut(
                    s.Day,
                    s.Slot!.Start,
                    s.Slot.Minutes,
                    s.Slot.Where,
                    On(s.Skill, s.Activity),
                    [
                        .. s
                            .Members.Where(m => !away[s.Day].Contains(m.ChildId))
                            .Select(m => children.GetValueOrDefault(m.ChildId, ""))
                            .Order(StringComparer.InvariantCultureIgnoreCase),
                    ]
                )),
            ],
            children.Count,
            await room.TimetableAsync(stop),
            await room.EvidenceAsync(stop)
        );
    }
}
