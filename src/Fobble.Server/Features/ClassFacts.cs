using Fobble.Core.Approaches;
using Fobble.Core.Calendars;
using Fobble.Core.Cupboard;
using Fobble.Core.Evidence;
using Fobble.Core.People;
using Fobble.Core.Planning;
using Fobble.Core.Skills;
using Fobble.Data;
using Fobble.Data.Model;
using Fobble.Server.Features.ClassApproach;
using Microsoft.EntityFrameworkCore;

namespace Fobble.Server.Features;

/// <summary>A child as every page names it.</summary>
public sealed record ChildName(int Id, string Name);

/// <summary>
/// Reads what most pages of a class begin with. What was worked out stays for the rest of the request, since a page with several cards
/// asks for the same children and evidence again and again.
/// </summary>
internal sealed class ClassFacts(FobbleDb db, SkillMap map, ObservationLog log)
{
    private readonly Dictionary<int, SchoolCalendar> _calendars = [];
    private readonly Dictionary<int, IReadOnlyList<ChildName>> _children = [];
    private readonly Dictionary<int, SchoolClass> _own = [];
    private readonly Dictionary<(int Class, DateOnly Today, DateTimeOffset? Until), ClassEvidence> _evidence = [];

    public async Task<SchoolCalendar> CalendarAsync(int classId, CancellationToken stop)
    {
        if (_calendars.TryGetValue(classId, out var known))
        {
            return known;
        }

        var school = db.Classes.Where(c => c.Id == classId).Select(c => c.SchoolId);
        var terms = await db.Terms.Where(t => school.Contains(t.SchoolId)).Select(t => new Term(t.Name, t.Season, t.First, t.Last)).ToListAsync(stop);
        var closures = await db.Closures.Where(c => school.Contains(c.SchoolId) && (c.ClassId == null || c.ClassId == classId))
            .Select(c => new Closure(c.Name, c.First, c.Last) { Kind = c.Kind, OpenFrom = c.OpenFrom, OpenUntil = c.OpenUntil }).ToListAsync(stop);
        return _calendars[classId] = new SchoolCalendar(terms, closures);
    }

    /// <summary>The class's weekly lessons on its calendar, without those that were taken out.</summary>
    public async Task<Timetable> TimetableAsync(int classId, CancellationToken stop) => new(
        await CalendarAsync(classId, stop),
        await db.LessonSlots.Where(s => s.ClassId == classId && !s.Retired).OrderBy(s => s.Start).ThenBy(s => s.Id)
            .Select(s => new LessonSlot(s.Id, s.Kind, s.Weekday, s.Start, s.Minutes, s.Adult!.FullName, s.Where)).ToListAsync(stop));

    /// <summary>The class's children under the names that others may see, in the order of those names.</summary>
    public async Task<IReadOnlyList<ChildName>> ChildrenAsync(int classId, CancellationToken stop)
    {
        if (_children.TryGetValue(classId, out var known))
        {
            return known;
        }

        var children = await db.Children.Where(c => c.ClassId == classId).Select(c => new { c.Id, c.GivenName, c.FamilyName }).ToListAsync(stop);
        var names = ShortNames.Of([.. children.Select(c => (c.GivenName, c.FamilyName))]);
        return _children[classId] = [.. children.Zip(names, (c, name) => new ChildName(c.Id, name)).OrderBy(c => c.Name, StringComparer.InvariantCultureIgnoreCase)];
    }

    /// <summary>How the class does things where schools differ.</summary>
    public async Task<Approach> ApproachAsync(int classId, CancellationToken stop)
    {
        return (await OwnAsync(classId, stop)).Approach();
    }

    /// <summary>What has to be kept in mind when things are set out for the class.</summary>
    public async Task<ClassCares> CaresAsync(int classId, CancellationToken stop) => (await OwnAsync(classId, stop)).Cares();

    /// <summary>The class's evidence on a day; with <paramref name="until"/>, only what was recorded before that moment.</summary>
    public async Task<ClassEvidence> EvidenceAsync(int classId, DateOnly today, CancellationToken stop, DateTimeOffset? until = null)
    {
        if (_evidence.TryGetValue((classId, today, until), out var known))
        {
            return known;
        }

        var children = await ChildrenAsync(classId, stop);
        var calendar = await CalendarAsync(classId, stop);
        var seen = await log.ReadAsync(db, classId, stop);
        var inferred = await InferredAsync(classId, until, stop);
        IEnumerable<Observation> then = until is { } moment ? seen.Where(o => o.At <= moment) : seen;
        return _evidence[(classId, today, until)] = new ClassEvidence(map, calendar, EvidenceSettings.Default with { Strictness = (await ApproachAsync(classId, stop)).Secure }, [.. children.Select(c => new ChildId(c.Id))], then, today, inferred);
    }

    // What ended checks take to be the case; of a strand looked at again the later check counts.
    private async Task<IReadOnlyDictionary<ChildId, Inference>> InferredAsync(int classId, DateTimeOffset? until, CancellationToken stop)
    {
        var checks = await db.BaselineChecks.AsNoTracking().Where(c => c.ClassId == classId && c.EndedAt != null).OrderBy(c => c.EndedAt).ToListAsync(stop);
        return checks.Where(c => until is null || c.EndedAt <= until).GroupBy(c => c.ChildId).ToDictionary(
            g => new ChildId(g.Key),
            g => new Inference(DateOnly.FromDateTime(g.Last().EndedAt!.Value.LocalDateTime), g.SelectMany(c => c.Inferred).GroupBy(p => p.Key).ToDictionary(p => new SkillId(p.Key), p => p.Last().Value)));
    }

    /// <summary>What was read so far is not true any more: the calendar was changed within this request.</summary>
    public void Forget(int classId)
    {
        _calendars.Remove(classId);
        foreach (var known in _evidence.Keys.Where(k => k.Class == classId).ToList())
        {
            _evidence.Remove(known);
        }
    }

    private async Task<SchoolClass> OwnAsync(int classId, CancellationToken stop) =>
        _own.TryGetValue(classId, out var known) ? known : _own[classId] = await db.Classes.AsNoTracking().SingleAsync(c => c.Id == classId, stop);
}
