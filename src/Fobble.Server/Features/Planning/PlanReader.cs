using Fobble.Core.Activities;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Core.Standards;
using Fobble.Server.Security;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features.Planning;

/// <summary>Reads what plans are made from.</summary>
internal sealed class PlanReader(ClassRoom room)
{
    /// <summary>What a stored plan stands in.</summary>
    public async Task<PlanSetting> SettingAsync(PlanDocument document, CancellationToken stop) =>
        new(document.Plan, await room.TimetableAsync(stop), room.Map, await room.FirstOpenDayAsync(stop), document.Until);

    /// <summary>All that a plan is made from.</summary>
    /// <exception cref="RefusedException">What was asked for can't be.</exception>
    public async Task<YearRequest> RequestAsync(PlanAsk ask, CancellationToken stop)
    {
        var calendar = await room.CalendarAsync(stop);
        var from = await room.FirstOpenDayAsync(stop);
        var before = ask.Source == ScopeSource.Before ? await EarlierAsync(ask.PlanId, stop) : null;
        var current = (await room.PlanAsync(stop))?.Document.Plan;
        var request = new YearRequest(
            await room.EvidenceAsync(stop),
            await room.TimetableAsync(stop),
            from,
            await room.YearEndsAsync(stop),
            await room.TaughtAsync(from, stop),
            ask.SkillsOn(room.Map, before?.Plan.Lessons.Select(l => l.Skill) ?? []),
            room.Approach,
            ask.SettingsFor(room.Approach)
        )
        {
            Served = room.Library.ServedIn(Place.Carpet),
            Pinned = [.. (current?.Lessons ?? []).Where(l => l.Pinned && l.Day >= from)],
            AsBefore = before is null ? null : TaughtLessons.Shares(before.Plan, before.From, before.Until),
        };
        RefusedException.Unless(
            calendar.Days(from, request.Until).Any(),
            "from",
            Phrase("No school day is left this year: put the terms into the calendar first.")
        );
        return request;
    }

    /// <summary>What a class is offered: what is usual, or what it was planned by. What its days do not hold waits.</summary>
    public async Task<OfferedScope> OfferedAsync(PlanAsk ask, CancellationToken stop)
    {
        var request = await RequestAsync(ask, stop);
        var age = AskedFor.AgeOf((await room.ChildRowsAsync(stop)).Select(c => c.Born), await room.YearAsync(stop));
        return OfferedScope.Of(ask, request, AskedFor.Of(room.Map, room.Locale, age));
    }

    /// <summary>Plans of other classes or years that this adult may see.</summary>
    public async Task<IReadOnlyList<EarlierPlan>> EarlierPlansAsync(AdultId adult, CancellationToken stop)
    {
        var (db, year) = (room.Db, await room.YearAsync(stop));
        var mine = Members.ClassesOf(db, adult, room.Today);
        var rows = await db
            .YearPlans.Where(p => mine.Contains(p.ClassId) && (p.ClassId != room.Id.Value || p.Year < year))
            .Where(p => !db.YearPlans.Any(later => later.ClassId == p.ClassId && later.Year == p.Year && later.Version > p.Version))
            .Join(
                db.Classes,
                p => p.ClassId,
                c => c.Id,
                (p, c) =>
                    new
                    {
                        p.Id,
                        c.Name,
                        p.Year,
                        p.Document,
                    }
            )
            .ToListAsync(stop);
        return [.. rows.Select(r => new EarlierPlan(r.Id, r.Name, r.Year, PlanDocument.Read(r.Document).Plan.Lessons.Select(l => l.Skill).Distinct().Count()))];
    }

    // The class's own of an earlier year, or one of a class in the same school; who may see it is checked where it is asked for.
    private async Task<PlanDocument> EarlierAsync(int? planId, CancellationToken stop)
    {
        var db = room.Db;
        var text = await db
            .YearPlans.Where(p => p.Id == planId && db.Classes.Any(c => c.Id == p.ClassId && c.SchoolId == room.SchoolId))
            .Select(p => p.Document)
            .FirstOrDefaultAsync(stop);
        return text is null ? throw new RefusedException("planId", Phrase("There is no such plan to copy.")) : PlanDocument.Read(text);
    }
}
