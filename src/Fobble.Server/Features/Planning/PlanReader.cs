using Fobble.Core.Activities;
using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Evidence;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Core.Standards;
using Fobble.Data;
using Fobble.Server.Hosting;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.Caching.Memory;

namespace Fobble.Server.Features.Planning;

/// <summary>Which version of a plan it is.</summary>
internal sealed record PlanHead(int Id, DateOnly Year, int Version, int? BackTo, string What);

/// <summary>A plan in force.</summary>
internal sealed record StoredPlan(PlanHead Row, PlanDocument Document);

/// <summary>Reads plans and what they are made from.</summary>
internal sealed class PlanReader(FobbleDb db, ClassFacts facts, SkillMap map, ActivityLibrary library, IMemoryCache cache, TimeProvider clock)
{
    private static readonly TimeSpan KeepInMemory = TimeSpan.FromMinutes(20);

    /// <summary>The latest version of this school year; null where there is none.</summary>
    public async Task<StoredPlan?> CurrentAsync(int classId, CancellationToken stop)
    {
        var year = await YearAsync(classId, stop);
        var head = await db.YearPlans.Where(p => p.ClassId == classId && p.Year == year).OrderByDescending(p => p.Version)
            .Select(p => new PlanHead(p.Id, p.Year, p.Version, p.BackTo, p.What)).FirstOrDefaultAsync(stop);
        if (head is null)
        {
            return null;
        }

        // A version never changes: it is read and taken apart once, and every page that shows the week asks for it.
        var document = await cache.GetOrCreateAsync((typeof(PlanDocument), head.Id), async entry =>
        {
            entry.SlidingExpiration = KeepInMemory;
            return PlanDocument.Read(await db.YearPlans.Where(p => p.Id == head.Id).Select(p => p.Document).FirstAsync(stop));
        });
        return new(head, document!);
    }

    public async Task<DateOnly> YearAsync(int classId, CancellationToken stop) => (await facts.CalendarAsync(classId, stop)).YearBegan(clock.Today());

    /// <summary>Today, or the next day where something was recorded today already: its lesson is under way.</summary>
    public async Task<DateOnly> FirstOpenDayAsync(int classId, CancellationToken stop)
    {
        var today = clock.Today();
        return await db.Observations.AnyAsync(o => o.Child!.ClassId == classId && o.Day == today && o.Withdrawal == null, stop) ? today.AddDays(1) : today;
    }

    /// <summary>Focus lessons that were given before a day: what weeks had planned, where no week was, what the plan had; never on a day that had no lesson.</summary>
    public async Task<IReadOnlyList<TaughtLesson>> TaughtAsync(int classId, DateOnly before, CancellationToken stop)
    {
        var timetable = await facts.TimetableAsync(classId, stop);
        var rows = await db.PlannedDays.AsNoTracking().Where(d => d.ClassId == classId && d.Day < before)
            .Select(d => new { d.Day, d.FocusSkill, More = d.More.Select(m => m.Skill).ToList() }).ToListAsync(stop);
        var detailed = rows.Select(r => r.Day).ToHashSet();
        var planned = (await CurrentAsync(classId, stop))?.Document.Plan.Lessons.Where(l => l.Day < before && !detailed.Contains(l.Day)).Select(l => new TaughtLesson(l.Day, l.Skill)) ?? [];
        return
        [
            .. rows.SelectMany(r => r.More.Prepend(r.FocusSkill).Select(s => new TaughtLesson(r.Day, new(s)))).Concat(planned)
                .Where(t => Held(timetable, t.Day)).OrderBy(t => t.Day),
        ];
    }

    /// <summary>What a stored plan stands in.</summary>
    public async Task<PlanSetting> SettingAsync(int classId, PlanDocument document, CancellationToken stop) => new(
        document.Plan, await facts.TimetableAsync(classId, stop), map, await FirstOpenDayAsync(classId, stop), document.Until);

    /// <summary>All that a plan is made from.</summary>
    /// <exception cref="FormatException">What was asked for can't be: says why.</exception>
    public async Task<YearRequest> RequestAsync(int classId, PlanAsk ask, CancellationToken stop)
    {
        var calendar = await facts.CalendarAsync(classId, stop);
        var from = await FirstOpenDayAsync(classId, stop);
        var before = ask.Source == ScopeSource.Before ? await EarlierAsync(classId, ask.PlanId, stop) : null;
        var current = await CurrentAsync(classId, stop);
        var request = new YearRequest(
            await facts.EvidenceAsync(classId, clock.Today(), stop), await facts.TimetableAsync(classId, stop), from, calendar.YearEnds(clock.Today()), await TaughtAsync(classId, from, stop),
            SkillsOf(ask, before), await facts.ApproachAsync(classId, stop), SettingsOf(ask, await facts.ApproachAsync(classId, stop)))
        {
            Served = library.ServedIn(Place.Carpet),
            Pinned = [.. (current?.Document.Plan.Lessons ?? []).Where(l => l.Pinned && l.Day >= from)],
            AsBefore = before is null ? null : Shares(before),
        };
        return request.Timetable.Calendar.Days(from, request.Until).Any() ? request : throw new FormatException("No school day is left this year: put the terms into the calendar first.");
    }

    /// <summary>Plans of other classes or years that this adult may see.</summary>
    public async Task<IReadOnlyList<EarlierPlan>> EarlierPlansAsync(int classId, int adultId, CancellationToken stop)
    {
        var year = await YearAsync(classId, stop);
        var rows = await db.YearPlans.AsNoTracking().Where(p => db.Memberships.Any(m => m.ClassId == p.ClassId && m.AdultId == adultId) && (p.ClassId != classId || p.Year < year))
            .Where(p => !db.YearPlans.Any(later => later.ClassId == p.ClassId && later.Year == p.Year && later.Version > p.Version))
            .Join(db.Classes, p => p.ClassId, c => c.Id, (p, c) => new { p.Id, c.Name, p.Year, p.Document }).ToListAsync(stop);
        return [.. rows.Select(r => new EarlierPlan(r.Id, r.Name, r.Year, PlanDocument.Read(r.Document).Plan.Lessons.Select(l => l.Skill).Distinct().Count()))];
    }

    // The class's own of an earlier year, or one of a class in the same school; who may see it is checked where it is asked for.
    private async Task<PlanDocument> EarlierAsync(int classId, int? planId, CancellationToken stop)
    {
        var school = db.Classes.Where(c => c.Id == classId).Select(c => c.SchoolId);
        var text = await db.YearPlans.Where(p => p.Id == planId && db.Classes.Any(c => c.Id == p.ClassId && school.Contains(c.SchoolId))).Select(p => p.Document).FirstOrDefaultAsync(stop);
        return text is null ? throw new FormatException("There is no such plan to copy.") : PlanDocument.Read(text);
    }

    private HashSet<SkillId> SkillsOf(PlanAsk ask, PlanDocument? before)
    {
        var codes = Framework.Shipped.Where(f => ask.Frameworks.Contains(f.Name)).SelectMany(f => f.Standards.Select(s => s.Code)).ToHashSet();
        IEnumerable<SkillId> chosen = ask.Source switch
        {
            ScopeSource.Seasons => map.Skills.Where(s => s.When <= (ask.UpTo ?? Season.Summer)).Select(s => s.Id),
            ScopeSource.Standards => map.Skills.Where(s => s.Standards.Any(codes.Contains)).Select(s => s.Id),
            ScopeSource.Before => before!.Plan.Lessons.Select(l => l.Skill),
            _ => ask.Skills.Select(s => new SkillId(s)),
        };
        var dropped = ask.Dropped.Select(s => new SkillId(s)).ToHashSet();
        var skills = chosen.Where(s => map.Has(s) && !map[s].Hidden).SelectMany(s => map.AllNeeds(s).Append(s)).Where(s => !dropped.Contains(s) && !map.AllNeeds(s).Any(dropped.Contains)).ToHashSet();
        return skills.Count > 0 ? skills : throw new FormatException("Nothing is chosen: take at least one skill.");
    }

    private static PlanSettings SettingsOf(PlanAsk ask, Approach approach) => PlanSettings.Usual with
    {
        Order = approach.Order,
        BufferOneIn = ask.BufferOneIn,
        StartersADay = ask.StartersADay,
        Gaps = [.. PlanSettings.Usual.Gaps.Take(ask.Rounds)],
        MoreOn = ask.MoreOn,
        Shorter = ask.Shorter,
        Steps = PlanSettings.Usual.Steps * (ask.Thorough ? 10 : 1),
        Seed = (ulong)ask.Seed,
    };

    // At which share of its year each skill began.
    private static Dictionary<SkillId, double> Shares(PlanDocument plan)
    {
        var all = plan.Until.DayNumber - plan.From.DayNumber;
        return plan.Plan.Lessons.GroupBy(l => l.Skill).ToDictionary(g => g.Key, g => all <= 0 ? 0 : Math.Clamp((double)(g.Min(l => l.Day).DayNumber - plan.From.DayNumber) / all, 0, 1));
    }

    private static bool Held(Timetable timetable, DateOnly day) =>
        timetable.Calendar.IsSchoolDay(day) && timetable.Calendar.Different(day) is null or { Kind: ClosureKind.HalfDay };
}
