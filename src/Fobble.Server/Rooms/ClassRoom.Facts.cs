using Fobble.Core.Calendars;
using Fobble.Core.Cupboard;
using Fobble.Core.Evidence;
using Fobble.Core.People;
using Fobble.Core.Planning;
using Fobble.Core.Sheets;
using Fobble.Core.Skills;
using Fobble.Data.Model;
using Fobble.Server.Features.Cupboard;
using Fobble.Server.Features.Planning;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Rooms;

/// <summary>A child as every page names it.</summary>
public sealed record ChildName(int Id, string Name);

/// <summary>A plan in force.</summary>
/// <param name="BackTo">The earlier version that it goes back to; null if it was not an undo.</param>
internal sealed record StoredPlan(int Id, DateOnly Year, int Version, int? BackTo, string What, PlanDocument Document);

/// <summary>What most pages of a class begin with, each read once a room.</summary>
internal sealed partial class ClassRoom
{
    private readonly Dictionary<object, object?> _read = [];

    /// <summary>The class's children under the names that others may see, in the order of those names.</summary>
    public Task<IReadOnlyList<ChildName>> ChildrenAsync(CancellationToken stop) => OnceAsync(nameof(ChildrenAsync), async () =>
        {
            var rows = await ChildRowsAsync(stop);
            var names = ShortNames.Of([.. rows.Select(Listed)]);
            return (IReadOnlyList<ChildName>)
                [.. rows.Zip(names, (c, name) => new ChildName(c.Id, name)).OrderBy(c => c.Name, StringComparer.InvariantCultureIgnoreCase)];
        });

    /// <summary>What the school's printers hold, unless one asks for something else.</summary>
    public PaperSize UsualPaper => Paper.UsualIn(Locale);

    public static ListedName Listed(Child child) => new(child.GivenName, child.FamilyName, child.Mark, child.Born);

    /// <summary>The class's children as they are kept.</summary>
    public Task<IReadOnlyList<Child>> ChildRowsAsync(CancellationToken stop) =>
        OnceAsync(nameof(ChildRowsAsync), async () => (IReadOnlyList<Child>)await Children().OrderBy(c => c.Id).ToListAsync(stop));

    /// <summary>The class's children: of an archive, those who were there when it was put away.</summary>
    public IQueryable<Child> Children()
    {
        var id = Id.Value;
        return Now.Class.ArchivedOn is { } end
            ? Db.Children.Where(c =>
                (c.ClassId == id && (c.LeftOn == null || c.LeftOn >= end)) || Db.Stays.Any(s => s.ChildId == c.Id && s.ClassId == id && s.Until >= end)
            )
            : Db.Children.Where(c => c.ClassId == id && c.LeftOn == null);
    }

    /// <summary>What was seen of the class's children, withdrawn or not: all of it, wherever they were then; of an archive, up to its last day.</summary>
    public IQueryable<ObservationRow> Seen()
    {
        var upTo = Now.Class.ArchivedUpTo;
        return Now.Class.ArchivedOn is not null
            ? Db.Observations.Where(o => (upTo == null || o.Sequence <= upTo) && Children().Any(c => c.Id == o.ChildId))
            : Db.Observations.Where(o => o.Child!.ClassId == Id.Value && o.Child.LeftOn == null);
    }

    /// <summary>What was seen and has a photo that may be looked at here.</summary>
    public IQueryable<ObservationRow> WithPhoto()
    {
        var notesFrom = NotesFrom;
        return Seen().Where(o => o.Photo != null && o.Withdrawal == null && (notesFrom == null || o.Day >= notesFrom));
    }

    /// <summary>The name of a child; null where it is not in the class.</summary>
    public async Task<string?> NameOfAsync(ChildId child, CancellationToken stop) => (await ChildrenAsync(stop)).FirstOrDefault(c => c.Id == child.Value)?.Name;

    public Task<SchoolCalendar> CalendarAsync(CancellationToken stop) => OnceAsync(nameof(CalendarAsync), async () => new SchoolCalendar(
                await Db.Terms.Where(t => t.SchoolId == SchoolId).Select(t => new Term(t.Name, t.Season, t.First, t.Last)).ToListAsync(stop),
                await Db
                    .Closures.Where(c => c.SchoolId == SchoolId && (c.ClassId == null || c.ClassId == Id.Value))
                    .Select(c => new Closure(c.Name, c.First, c.Last)
                    {
                        Kind = c.Kind,
                        OpenFrom = c.OpenFrom,
                        OpenUntil = c.OpenUntil,
                    })
                    .ToListAsync(stop)
            ));

    /// <summary>The class's weekly lessons on its calendar, without those that were taken out.</summary>
    public Task<Timetable> TimetableAsync(CancellationToken stop) =>
        OnceAsync(nameof(TimetableAsync), async () =>
            new Timetable(
                await CalendarAsync(stop),
                await Db
                    .LessonSlots.Where(s => s.ClassId == Id.Value && !s.Retired)
                    .OrderBy(s => s.Start)
                    .ThenBy(s => s.Id)
                    .Select(s => new LessonSlot(s.Id, s.Kind, s.Weekday, s.Start, s.Minutes, s.Adult!.FullName, s.Where))
                    .ToListAsync(stop),
                await Db
                    .Memberships.Where(m => m.ClassId == Id.Value && m.From != null && m.Until != null)
                    .Join(
                        Db.LessonSlots.Where(s => s.ClassId == Id.Value),
                        m => m.InPlaceOfId,
                        s => s.AdultId,
                        (m, s) => new CoveredPlace(s.Id, m.From!.Value, m.Until!.Value, m.AdultId, m.Adult!.FullName)
                    )
                    .ToListAsync(stop)
            )
        );

    /// <summary>What the class owns.</summary>
    public Task<IReadOnlyList<StockLine>> StockAsync(CancellationToken stop) =>
        OnceAsync(nameof(StockAsync), async () => StoredStock.Lines(await Db.Stock.Where(s => s.ClassId == Id.Value).OrderBy(s => s.Item).ToListAsync(stop)));

    /// <summary>Who is marked away on a day.</summary>
    public Task<IReadOnlySet<int>> AwayAsync(DateOnly day, CancellationToken stop) =>
        OnceAsync((nameof(AwayAsync), day), async () =>
            (IReadOnlySet<int>)(await Db.Absences.Where(a => a.Day == day && a.Child!.ClassId == Id.Value).Select(a => a.ChildId).ToListAsync(stop)).ToHashSet()
        );

    /// <summary>All that was seen of the class and counts, in order of time.</summary>
    public async Task<IReadOnlyList<Observation>> ObservationsAsync(CancellationToken stop) => (await observations.OfAsync(this, stop)).All;

    /// <summary>The class's evidence of today.</summary>
    public Task<ClassEvidence> EvidenceAsync(CancellationToken stop) => EvidenceAsync(Today, null, stop);

    /// <summary>The class's evidence on a day; with <paramref name="until"/>, only what was recorded up to that moment.</summary>
    public Task<ClassEvidence> EvidenceAsync(DateOnly day, DateTimeOffset? until, CancellationToken stop) =>
        OnceAsync((nameof(EvidenceAsync), day, until), async () =>
            until is { } moment
                ? await JudgeAsync(SeenOfClass.Of((await ObservationsAsync(stop)).Where(o => o.At <= moment)), day, until, null, stop)
                : await observations.JudgedAsync(
                    this,
                    (Versions.Calendar, Map, Approach, day),
                    (seen, memory) => JudgeAsync(seen, day, null, memory, stop),
                    stop
                )
        );

    private async Task<ClassEvidence> JudgeAsync(SeenOfClass seen, DateOnly day, DateTimeOffset? until, RecordMemory? memory, CancellationToken stop) =>
        new(
            Map,
            await CalendarAsync(stop),
            EvidenceSettings.Of(Approach),
            [.. (await ChildrenAsync(stop)).Select(c => new ChildId(c.Id))],
            seen,
            day,
            await InferredAsync(until, stop),
            memory
        );

    /// <summary>
    /// Small groups from one day to another, of the sets in force: of each week the one accepted last. The only way to them: sets that were replaced stay in
    /// the database, since records point at them.
    /// </summary>
    public Task<IReadOnlyList<GroupSession>> SessionsAsync(DateOnly from, DateOnly to, CancellationToken stop) =>
        OnceAsync((nameof(SessionsAsync), from, to), async () =>
            (IReadOnlyList<GroupSession>)
                await SessionsInForce()
                    .Where(s => s.Day >= from && s.Day <= to)
                    .OrderBy(s => s.Day)
                    .ThenBy(s => s.Slot!.Start)
                    .ThenBy(s => s.SlotId)
                    .ToListAsync(stop)
        );

    /// <summary>Small groups of the sets in force, with place, set and those members that are still the class's, to be narrowed down.</summary>
    public IQueryable<GroupSession> SessionsInForce() =>
        Db
            .GroupSessions.Include(s => s.Members.Where(m => Children().Any(c => c.Id == m.ChildId)))
            .Include(s => s.Set)
            .Include(s => s.Slot)
                .ThenInclude(s => s!.Adult)
            .Where(s => s.ClassId == Id.Value && !Db.GroupSets.Any(later => later.ClassId == Id.Value && later.Monday == s.Set!.Monday && later.Id > s.SetId));

    /// <summary>First day of the school year that is planned: the one that holds today, the next one where that is over, or the one that the class was made for.</summary>
    public async Task<DateOnly> YearAsync(CancellationToken stop) => (await CalendarAsync(stop)).YearBegan(await YearDayAsync(stop));

    /// <summary>Last day of that year.</summary>
    public async Task<DateOnly> YearEndsAsync(CancellationToken stop) => (await CalendarAsync(stop)).YearEnds(await YearDayAsync(stop));

    // A day that lies in it.
    private async Task<DateOnly> YearDayAsync(CancellationToken stop)
    {
        if (Now.Class.ArchivedOn is not null)
        {
            return Today;
        }

        var from = Now.Class.BeginsOn > Today ? Now.Class.BeginsOn.Value : Today;
        return (await CalendarAsync(stop)).OnOrAfter(from) ?? from;
    }

    /// <summary>The latest version of this school year's plan; null where there is none.</summary>
    public Task<StoredPlan?> PlanAsync(CancellationToken stop) => OnceAsync(nameof(PlanAsync), async () =>
        {
            var year = await YearAsync(stop);
            var head = await Db
                .YearPlans.Where(p => p.ClassId == Id.Value && p.Year == year)
                .OrderByDescending(p => p.Version)
                .Select(p => new
                {
                    p.Id,
                    p.Version,
                    p.BackTo,
                    p.What,
                })
                .FirstOrDefaultAsync(stop);
            return head is null ? null : new StoredPlan(head.Id, year, head.Version, head.BackTo, head.What, await plans.OfAsync(Db, head.Id, stop));
        });

    /// <summary>The first day of the plan that may still be changed.</summary>
    public Task<DateOnly> FirstOpenDayAsync(CancellationToken stop) => OnceAsync(nameof(FirstOpenDayAsync), async () =>
        {
            var open = TaughtLessons.FirstOpenDay(Today, await Seen().AnyAsync(o => o.Day == Today && o.Withdrawal == null, stop));
            return Now.Class.BeginsOn > open ? Now.Class.BeginsOn.Value : open;
        });

    /// <summary>Focus lessons that were given before a day.</summary>
    public Task<IReadOnlyList<TaughtLesson>> TaughtAsync(DateOnly before, CancellationToken stop) => OnceAsync((nameof(TaughtAsync), before), async () =>
        {
            var rows = await Db
                .PlannedDays.Where(d => d.ClassId == Id.Value)
                .Select(d => new
                {
                    d.Day,
                    d.FocusSkill,
                    More = d.More.Select(m => m.Skill).ToList(),
                })
                .ToListAsync(stop);
            return TaughtLessons.Before(
                before,
                [.. rows.SelectMany(r => r.More.Prepend(r.FocusSkill).Select(s => new TaughtLesson(r.Day, new(s))))],
                (await PlanAsync(stop))?.Document.Plan,
                await CalendarAsync(stop)
            );
        });

    // What ended checks take to be the case; of a strand looked at again the later check counts.
    private async Task<IReadOnlyDictionary<ChildId, Inference>> InferredAsync(DateTimeOffset? until, CancellationToken stop)
    {
        var checks = await OnceAsync(nameof(InferredAsync), () =>
            Db.BaselineChecks.Where(c => c.EndedAt != null && Children().Any(x => x.Id == c.ChildId)).OrderBy(c => c.EndedAt).ToListAsync(stop)
        );
        return checks
            .Where(c => until is null || c.EndedAt <= until)
            .GroupBy(c => c.ChildId)
            .ToDictionary(
                g => new ChildId(g.Key),
                g => new Inference(
                    Zone.DayOf(g.Last().EndedAt!.Value),
                    g.SelectMany(c => c.Inferred).GroupBy(p => p.Key).ToDictionary(p => new SkillId(p.Key), p => p.Last().Value)
                )
            );
    }

    private async Task<T> OnceAsync<T>(object key, Func<Task<T>> read)
    {
        if (!_read.TryGetValue(key, out var known))
        {
            _read[key] = known = await read();
        }

        return (T)known!;
    }

    private void Forget() => _read.Clear();
}
