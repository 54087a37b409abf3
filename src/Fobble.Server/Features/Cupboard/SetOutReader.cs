using Fobble.Core.Activities;
using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Core.Sessions;
using Fobble.Core.SettingOut;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.Week;
using Fobble.Server.Hosting;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Cupboard;

/// <summary>What is done where and when between two days, as far as things have to be there for it; and what follows for the cupboard.</summary>
internal sealed class SetOutReader(FobbleDb db, ClassFacts facts, WeekReader weeks, ActivityLibrary library, CupboardReader cupboard, TimeProvider clock)
{
    private const int AtACentre = 4;

    public async Task<SetOutPlan> PlanAsync(int classId, DateOnly from, DateOnly to, CancellationToken stop) => SettingOutRules.Plan(
        await UsesAsync(classId, from, to, stop), await cupboard.StockAsync(classId, stop), await facts.CaresAsync(classId, stop), await facts.ApproachAsync(classId, stop));

    private async Task<IReadOnlyList<Use>> UsesAsync(int classId, DateOnly from, DateOnly to, CancellationToken stop)
    {
        var children = await facts.ChildrenAsync(classId, stop);
        var evidence = await facts.EvidenceAsync(classId, clock.Today(), stop);
        var names = children.ToDictionary(c => c.Id, c => c.Name);
        var planned = await db.PlannedDays.AsNoTracking().Include(d => d.Starters).Include(d => d.More).Where(d => d.ClassId == classId && d.Day >= from && d.Day <= to).ToListAsync(stop);
        var timetable = await facts.TimetableAsync(classId, stop);
        var away = await db.Absences.Where(a => a.Child!.ClassId == classId && a.Day >= from && a.Day <= to).Select(a => new { a.ChildId, a.Day }).ToListAsync(stop);

        // On the carpet as many work with the things as the activity is made for; the others watch and take their turn.
        int AtOnce(Activity activity, DateOnly day) => Math.Min(children.Count - away.Count(a => a.Day == day), activity.GroupSize.High);
        List<Use> uses = [];
        foreach (var day in planned)
        {
            var slots = timetable.On(day.Day);
            var carpets = slots.Where(s => s.Kind == SlotKind.Carpet).ToList();
            var carpet = carpets.Count > 0 ? carpets[0] : null;
            var start = carpet?.Start ?? new TimeOnly(9, 0);
            var where = carpet?.Where ?? "Carpet";
            var focus = library[new(day.FocusActivity)];
            uses.AddRange(day.Starters.Select(s => (activity: library[new(s.Activity)], skill: new SkillId(s.Skill)))
                .Select(s => new Use(day.Day, start, StarterPlanner.MinutesOf(s.activity), where, "Starter", s.activity, RangeFor(s.activity, s.skill, evidence), AtOnce(s.activity, day.Day), 1, [], false)));
            uses.Add(new(day.Day, start, carpet?.Minutes ?? 20, where, "Carpet", focus, RangeFor(focus, new(day.FocusSkill), evidence), AtOnce(focus, day.Day), 1, [], true));
            foreach (var (more, i) in day.More.Select((m, i) => (m, i)))
            {
                var later = carpets.Count > i + 1 ? carpets[i + 1] : null;
                var activity = library[new(more.Activity)];
                uses.Add(new(day.Day, later?.Start ?? start, later?.Minutes ?? 20, later?.Where ?? where, "Carpet", activity, RangeFor(activity, new(more.Skill), evidence), AtOnce(activity, day.Day), 1, [], true));
            }

            if (day.Choice is { } choice && slots.FirstOrDefault(s => s.Kind == SlotKind.Choice) is { } centres)
            {
                var centre = library[new(choice)];
                uses.Add(new(day.Day, centres.Start, centres.Minutes, centres.Where, "Choice time", centre, RangeFor(centre, null, evidence), Math.Min(AtACentre, centre.GroupSize.High), 1, [], false));
            }

            var change = library[new(day.Transition)];
            uses.Add(new(day.Day, (carpet?.Start ?? new TimeOnly(9, 0)).AddMinutes(carpet?.Minutes ?? 20), change.Minutes, where, "Change-over", change, RangeFor(change, null, evidence), AtOnce(change, day.Day), 1, [], false));
        }

        foreach (var session in await weeks.SessionsAsync(classId, from, to, stop))
        {
            var slot = await db.LessonSlots.AsNoTracking().FirstAsync(s => s.Id == session.SlotId, stop);
            var activity = library[new(session.Activity)];
            List<string> there = [.. session.Members.Where(m => !away.Any(a => a.ChildId == m.ChildId && a.Day == session.Day)).Select(m => names.GetValueOrDefault(m.ChildId, "")).Order(StringComparer.InvariantCultureIgnoreCase)];
            uses.Add(new(session.Day, slot.Start, slot.Minutes, slot.Where, "Small group", activity, RangeFor(activity, new(session.Skill), evidence), Math.Max(1, there.Count), 1, there, true));
        }

        return uses;
    }

    private static Core.Numbers.NumberRange RangeFor(Activity activity, SkillId? skill, ClassEvidence evidence) => (skill is { } id ? activity.For(id) : null)?.Range ?? activity.MetBy(evidence).Range;
}
